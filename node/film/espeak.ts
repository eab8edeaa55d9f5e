import { Failure } from "@unitext/core/model";
import { type SpokenWord, wavOf, wordSpans } from "@unitext/core/film";
import type { Speech, SpeechAsked } from "./voice";

/** The library of espeak-ng, by the name under which Debian's package libespeak-ng1 installs it. */
const LIBRARY = "libespeak-ng.so.1";
const INSTALL = "espeak-ng is not installed. Install it with: apt-get install espeak-ng";

/** Values of speak_lib.h of espeak-ng 1.51. */
const SYNCHRONOUS = 2;
const DO_NOT_EXIT = 0x8000;
const POSITION_IN_CHARACTERS = 1;
const UTF8 = 1;
const RATE = 1;
const WORD = 1;
const LIST_END = 0;

/** The words a minute that espeak-ng speaks. */
const [SLOWEST, FASTEST] = [80, 450];

/** The most by which the rate is corrected: short texts are mostly pauses. */
const MOST_CORRECTED = 1.3;

/** What the library calls while it speaks: samples, how many, and events up to one of kind 0. */
type Callback = (samples: unknown, count: number, events: unknown) => number;

interface Library {
  sampleRate: number;
  setVoice: (name: string) => boolean;
  speak: (text: string, rate: number) => { samples: Int16Array; words: { at: number; time: number }[] };
}

let library: Library | undefined;

/** Loads the library once. Rejects with a Failure `unavailable` when it is not installed. */
async function loaded(): Promise<Library> {
  if (library) return library;
  // Loaded when it is needed: most programs that use this room never speak.
  const { default: koffi } = await import("koffi");
  let espeak: ReturnType<typeof koffi.load>;
  try {
    espeak = koffi.load(LIBRARY);
  } catch {
    throw new Failure("unavailable", "espeak-ng", INSTALL);
  }
  const Event = koffi.struct({
    type: "int",
    identifier: "uint",
    position: "int",
    length: "int",
    time: "int",
    sample: "int",
    user: "void *",
    id: koffi.array("char", 8),
  });
  const Voice = koffi.struct({
    name: "const char *",
    languages: "const char *",
    identifier: "const char *",
    gender: "uchar",
    age: "uchar",
    variant: "uchar",
    own: "uchar",
    score: "int",
    spare: "void *",
  });
  const onSound = koffi.proto("int (void *samples, int count, void *events)");
  const initialise = espeak.func("espeak_Initialize", "int", ["int", "int", "const char *", "int"]);
  const setCallback = espeak.func("espeak_SetSynthCallback", "void", [koffi.pointer(onSound)]);
  const setVoiceByName = espeak.func("espeak_SetVoiceByName", "int", ["const char *"]);
  const setVoiceByProperties = espeak.func("espeak_SetVoiceByProperties", "int", [koffi.pointer(Voice)]);
  const setParameter = espeak.func("espeak_SetParameter", "int", ["int", "int", "int"]);
  const synthesise = espeak.func("espeak_Synth", "int", [
    "const char *",
    "size_t",
    "uint",
    "int",
    "uint",
    "uint",
    "void *",
    "void *",
  ]);
  const sampleRate = Number(initialise(SYNCHRONOUS, 0, null, DO_NOT_EXIT));
  if (sampleRate <= 0)
    throw new Failure(
      "unavailable",
      "espeak-ng",
      "espeak-ng has no voices here. Install: apt-get install espeak-ng-data",
    );
  let chunks: Int16Array[] = [];
  let words: { at: number; time: number }[] = [];
  const receive: Callback = (samples, count, events) => {
    if (count > 0) chunks.push(new Int16Array(koffi.decode(samples, koffi.array("int16", count)) as Int16Array));
    for (let nth = 0; ; nth++) {
      const event = koffi.decode(events, nth * koffi.sizeof(Event), Event) as {
        type: number;
        position: number;
        time: number;
      };
      if (event.type === LIST_END) break;
      // Positions count characters from 1; the parts of a number are words of one position.
      if (event.type === WORD) words.push({ at: event.position - 1, time: event.time / 1000 });
    }
    return 0;
  };
  setCallback(koffi.register(receive, koffi.pointer(onSound)));
  library = {
    sampleRate,
    setVoice: (name) => setVoiceByName(name) === 0 || setVoiceByProperties({ languages: name }) === 0,
    speak(text, rate) {
      [chunks, words] = [[], []];
      setParameter(RATE, rate, 0);
      const code = synthesise(
        text,
        new TextEncoder().encode(text).length + 1,
        0,
        POSITION_IN_CHARACTERS,
        0,
        UTF8,
        null,
        null,
      );
      if (code !== 0) throw new Failure("unavailable", "espeak-ng", `espeak-ng failed with code ${code}.`);
      const samples = new Int16Array(chunks.reduce((sum, chunk) => sum + chunk.length, 0));
      let to = 0;
      for (const chunk of chunks) {
        samples.set(chunk, to);
        to += chunk.length;
      }
      return { samples, words };
    },
  };
  return library;
}

/** Languages that espeak-ng names otherwise. */
const NAMES: Readonly<Record<string, string>> = { zh: "cmn", no: "nb", "pt-pt": "pt", tl: "fil" };

/** Returns the names under which espeak-ng may have a language, the closest first. */
function voiceNames(language: string): string[] {
  const tag = language.toLowerCase();
  const short = tag.split("-")[0] ?? tag;
  return [NAMES[tag] ?? tag, tag, NAMES[short] ?? short, short];
}

/**
 * Speaks a text with Debian's espeak-ng. Runs in the calling thread, so it belongs in a worker. Rejects with a Failure
 * `unavailable` when espeak-ng is not installed, has no voice for the language, or fails.
 */
export async function speakLocally({ text, language, rate }: SpeechAsked): Promise<Speech> {
  const espeak = await loaded();
  if (!voiceNames(language).some((name) => espeak.setVoice(name)))
    throw new Failure("unavailable", "espeak-ng", `espeak-ng has no voice for the language “${language}”.`);
  // The end of a text closes its last sentence; surrogates count as one character for espeak-ng.
  const offsets: number[] = [];
  let offset = 0;
  for (const sign of text) {
    offsets.push(offset);
    offset += sign.length;
  }
  const speak = (asked: number) => {
    const { samples, words } = espeak.speak(text, Math.min(FASTEST, Math.max(SLOWEST, Math.round(asked))));
    const seconds = samples.length / espeak.sampleRate;
    return { samples, seconds, words: spokenWords({ text, language }, offsets, words, seconds) };
  };
  const first = speak(rate);
  // It speaks faster than the words a minute that it is asked for, so that it is asked once more for what makes up for that.
  const heard = (first.words.length * 60) / first.seconds;
  const { samples, words } = speak(rate * Math.min(MOST_CORRECTED, Math.max(1 / MOST_CORRECTED, rate / heard)));
  return { sound: wavOf(samples, espeak.sampleRate), words };
}

/**
 * Returns the words of a text with their times. A word that is spoken in parts, such as a number, begins with the first of
 * them; words that are spoken as one, as in languages without spaces, share its time by their letters.
 */
function spokenWords(
  { text, language }: Pick<SpeechAsked, "text" | "language">,
  offsets: readonly number[],
  events: readonly { at: number; time: number }[],
  seconds: number,
): SpokenWord[] {
  const spans = wordSpans(text, language);
  const begins = spans.map((): number | undefined => undefined);
  for (const { at, time } of events) {
    const offset = offsets[at] ?? text.length;
    const nth = spans.findIndex(({ to }) => offset < to);
    if (nth >= 0 && begins[nth] === undefined) begins[nth] = time;
  }
  let last = 0;
  return spans.map((span, nth): SpokenWord => {
    const start = Math.max(last, begins[nth] ?? last);
    const next = begins.findIndex((time, at) => at > nth && time !== undefined);
    const until = next < 0 ? seconds : Math.max(start, begins[next] ?? seconds);
    const letters = (from: number, to: number) =>
      spans.slice(from, to).reduce((sum, one) => sum + one.to - one.from, 0);
    const share = (span.to - span.from) / Math.max(1, letters(nth, next < 0 ? spans.length : next));
    last = start + (until - start) * share;
    return { ...span, start, end: last };
  });
}

/** Whether espeak-ng can be used on this machine. */
export async function hasLocalVoice(): Promise<boolean> {
  try {
    await loaded();
    return true;
  } catch {
    return false;
  }
}
