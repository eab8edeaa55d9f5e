import { createHash } from "node:crypto";
import { mkdtemp, rm, statfs, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import {
  type Cue,
  cuesOf,
  estimatedWords,
  expectedSeconds,
  type FilmCaptions,
  FRAME_RATE,
  type Narration,
  narrationOf,
  SAMPLE_RATE,
  slideTimes,
  type SlideTimes,
  type Voice,
  webVtt,
  wordsInTimeOf,
} from "@unitext/core/film";
import { clock, type Deck, Failure, metadataOf, nameOf, type Slide } from "@unitext/core/model";
import { withNotesOf } from "@unitext/core/translate";
import {
  encodeSlide,
  type FilmedSlide,
  filmSize,
  joinFilm,
  type LanguageService,
  partFiles,
  picturesOfSlides,
  samplesOf,
} from "@unitext/node";
import { nanoid } from "nanoid";
import type { FilmRequest, JobResult } from "../api";
import { addFilm, filmPart, keepFilmPart, loadBlobs, loadDeck, rightOn } from "../store";
import type { Work } from "../work";
import { Cancelled, type DivideWork } from "./divide";

interface FilmWork extends DivideWork {
  signal: AbortSignal;
  work: Work;
  fonts: string;
  voiceService: LanguageService | undefined;
}

/** Part of the key of everything that is kept: pieces made by an earlier way of drawing or encoding are not used. */
const KIND = "film 1";
/** The longest film in seconds, and the largest in bytes. */
const MOST = { seconds: 3 * 3600, bytes: 900 * 1024 * 1024 };

const keyOf = (...parts: unknown[]) =>
  createHash("sha256")
    .update(JSON.stringify([KIND, ...parts]))
    .digest("hex");

/** A slide whose voice and timing are known, to be drawn. */
interface Timed {
  filmed: FilmedSlide;
  voice: Voice | undefined;
  times: SlideTimes;
}

/** Makes one film. Pieces that were made before are taken again. */
class FilmMaker {
  readonly remarks: string[] = [];

  constructor(
    private readonly context: FilmWork,
    private readonly deck: Deck,
    private readonly blobs: ReadonlyMap<string, Uint8Array>,
    private readonly request: FilmRequest,
    /** The folder of the film. */
    private readonly folder: string,
  ) {}

  private get asker() {
    return { owner: this.context.owner, signal: this.context.signal };
  }

  /** Returns samples and words of a text that is spoken. Throws a Failure when the voice fails. */
  private async spoken(text: string): Promise<{ samples: Int16Array; words: Voice["words"] }> {
    const { db, work, signal, voiceService } = this.context;
    const service = this.request.voice === "service" ? voiceService : undefined;
    const { language, rate } = this.deck;
    if (this.request.voice === "service" && !service)
      throw new Failure("unavailable", "voice", "No voice service is set up here.");
    const key = keyOf("voice", service ? [service.url, service.model] : "local", language, rate, text);
    const kept = await filmPart(db, key);
    if (kept) return { samples: await samplesOf(kept.bytes, signal), words: kept.words ?? [] };
    const { sound, words } = await work.run("speak", { text, language, rate, service }, this.asker);
    const samples = await samplesOf(sound, signal);
    await keepFilmPart(db, key, sound, words);
    return { samples, words };
  }

  /** Returns the recorded voice of a slide. Throws a Failure when its file is missing or damaged. */
  private async recorded(slide: Slide, narration: Narration) {
    const asset = this.deck.assets[slide.voice?.source ?? ""];
    const bytes = asset && this.blobs.get(asset.sha256);
    if (!bytes) throw new Failure("not-found", "recording", "The file of the recorded voice is missing.");
    const samples = await samplesOf(bytes, this.context.signal);
    return { samples, words: estimatedWords(narration, samples.length / SAMPLE_RATE, this.deck.language) };
  }

  /** Returns what is heard on the nth slide of the film, and stores its samples in the folder. */
  private async voiceOf({ slide, number }: FilmedSlide, nth: number): Promise<Voice | undefined> {
    const { language, rate } = this.deck;
    const narration = narrationOf(slide.notes, language);
    try {
      const heard = slide.voice
        ? await this.recorded(slide, narration)
        : narration.text && this.request.voice !== "none"
          ? await this.spoken(narration.text)
          : undefined;
      if (heard) {
        const { buffer, byteOffset, byteLength } = heard.samples;
        await writeFile(join(this.folder, partFiles(nth).voice), new Uint8Array(buffer, byteOffset, byteLength));
        return { narration, seconds: heard.samples.length / SAMPLE_RATE, words: heard.words };
      }
    } catch (error) {
      if (!(error instanceof Failure) || this.context.signal.aborted) throw error;
      this.remarks.push(`Slide ${number} has no voice: ${error.message}`);
    }
    if (!narration.text) return undefined;
    // Without a voice, captions are shown for as long as speaking would take.
    const seconds = expectedSeconds({ ...slide, voice: undefined }, rate, language);
    return { narration, seconds, words: estimatedWords(narration, seconds, language) };
  }

  /** Gives every slide its voice and its times. */
  async timed(slides: readonly FilmedSlide[], step: () => Promise<void>): Promise<Timed[]> {
    return twoAtATime(slides, async (filmed, nth) => {
      const voice = await this.voiceOf(filmed, nth);
      await step();
      return { filmed, voice, times: slideTimes(filmed.slide, voice, this.deck.language) };
    });
  }

  /** Draws and encodes a slide into the folder, unless the same was made before. Returns whether it was. */
  async picture(nth: number, timed: readonly Timed[], hashes: readonly string[]): Promise<boolean> {
    const { db, work, signal, fonts } = this.context;
    const { format } = this.request;
    const one = timed[nth];
    if (!one) return true;
    const { filmed, times } = one;
    const before = filmed.slide.transition ? timed[nth - 1]?.filmed : undefined;
    const size = filmSize(this.deck.page, this.request.width);
    const key = keyOf("slide", format, size, hashes[nth], before ? hashes[nth - 1] : null, times);
    const kept = await filmPart(db, key);
    if (kept) {
      await writeFile(join(this.folder, partFiles(nth).picture), kept.bytes);
      return true;
    }
    const metadata = metadataOf(this.deck);
    const seen = picturesOfSlides(metadata, [filmed.slide, ...(before ? [before.slide] : [])]);
    const blobs = new Map(
      seen.flatMap((sha256) => {
        const bytes = this.blobs.get(sha256);
        return bytes ? [[sha256, bytes] as const] : [];
      }),
    );
    await inFolder(await pictureRoot(), async (folder) => {
      const files = await work.run(
        "filmFrames",
        { fonts, metadata, filmed, before, times, width: size.width, folder, blobs },
        this.asker,
      );
      const bytes = await encodeSlide(folder, files, { format, ...size }, signal);
      await keepFilmPart(db, key, bytes);
      await writeFile(join(this.folder, partFiles(nth).picture), bytes);
    });
    return false;
  }

  /** Returns the captions in the language of a deck: this one, or the same deck in another language. */
  captionsIn(other: Deck, timed: readonly Timed[]): FilmCaptions {
    const notes = new Map(
      (other.id === this.deck.id ? other : withNotesOf(this.deck, other, "other")).slides.map(({ id, notes: own }) => [
        id,
        own,
      ]),
    );
    const cues: Cue[] = [];
    let at = 0;
    for (const { filmed, voice, times } of timed) {
      if (voice?.words.length) {
        const narration = narrationOf(notes.get(filmed.slide.id) ?? [], other.language);
        const words =
          other.id === this.deck.id
            ? voice.words
            : wordsInTimeOf(
                { narration, language: other.language },
                { narration: voice.narration, words: voice.words },
              );
        const end = at + times.frames / FRAME_RATE;
        cues.push(
          ...cuesOf(narration, words, at + times.voiceAt, other.language).map((cue) => ({
            ...cue,
            end: Math.min(cue.end, end),
          })),
        );
      }
      at += times.frames / FRAME_RATE;
    }
    return { language: other.language, text: webVtt(cues) };
  }
}

/** Does something with each of a list, two at a time, so that one is drawn while another is encoded. */
async function twoAtATime<T, R>(list: readonly T[], act: (one: T, nth: number) => Promise<R>): Promise<R[]> {
  const made: R[] = [];
  const left = list.entries();
  const lane = async () => {
    for (const [nth, one] of left) made[nth] = await act(one, nth);
  };
  await Promise.all([lane(), lane()]);
  return made;
}

/** Where Linux has files in memory, and how many bytes must be free there. */
const [IN_MEMORY, ROOM] = ["/dev/shm", 3 * 1024 * 1024 * 1024];

/**
 * Returns where pictures wait to be encoded: in memory where there is room. They are large, and written to disk they would
 * hold up the changes that the database commits.
 */
async function pictureRoot(): Promise<string> {
  try {
    const { bavail, bsize } = await statfs(IN_MEMORY);
    if (bavail * bsize > ROOM) return IN_MEMORY;
  } catch {
    // Not on Linux.
  }
  return tmpdir();
}

/** Does something in a folder of its own under another, which is removed afterwards. */
async function inFolder<T>(under: string, act: (folder: string) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(join(under, "unitext-film-"));
  try {
    return await act(folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/**
 * Makes a film of a deck: slides that are not hidden, with their voices, chapters and captions. A slide whose voice fails is
 * shown without one, and said. Throws a Failure when there is nothing to show, or when ffmpeg is missing or fails.
 */
export async function runFilm(context: FilmWork, id: string, request: FilmRequest): Promise<JobResult> {
  const { db, owner, work, signal, fonts } = context;
  if ((await rightOn(db, id, owner)) === undefined)
    throw new Failure("not-found", id, "The deck was deleted meanwhile, or is no longer shared with you.");
  const { deck, version } = await loadDeck(db, id);
  const slides = deck.slides.flatMap((slide, nth) => (slide.hidden ? [] : [{ slide, number: nth + 1 }]));
  if (!slides.length) throw new Failure("not-valid", id, "The deck has no slide to show: all are hidden.");
  const { ffmpeg } = await work.run("filmTools", undefined, { owner, signal });
  if (!ffmpeg)
    throw new Failure(
      "unavailable",
      "ffmpeg",
      "ffmpeg is not installed on this machine. Install it with: apt-get install ffmpeg",
    );
  const blobs = await loadBlobs(db, id);
  return inFolder(tmpdir(), async (folder) => {
    const maker = new FilmMaker(context, deck, blobs, request, folder);
    const steps = 2 * slides.length + 1;
    let done = 0;
    const step = async () => {
      if (!(await context.progress(++done, steps, slides.length))) throw new Cancelled();
    };
    const hashes = await work.run("filmHashes", { fonts, metadata: metadataOf(deck), slides }, { owner, signal });
    const timed = await maker.timed(slides, step);
    const seconds = timed.reduce((sum, { times }) => sum + times.frames, 0) / FRAME_RATE;
    if (seconds > MOST.seconds)
      throw new Failure(
        "too-large",
        id,
        "The film would be longer than three hours. Split the deck and film its parts.",
      );
    const taken = await twoAtATime(timed, async (_, nth) => {
      const isTaken = await maker.picture(nth, timed, hashes);
      await step();
      return isTaken;
    });
    const again = taken.filter(Boolean).length;
    const captions: FilmCaptions[] = [];
    for (const one of new Set(request.captions)) {
      if (one !== id && (await rightOn(db, one, owner)) === undefined) {
        maker.remarks.push("A deck with captions was deleted meanwhile, or is no longer shared with you.");
        continue;
      }
      captions.push(maker.captionsIn(one === id ? deck : (await loadDeck(db, one)).deck, timed));
    }
    const { format } = request;
    const parts = timed.map(({ filmed: { slide }, times }) => ({ ...times, title: nameOf(slide) }));
    const { title } = deck.properties;
    const bytes = await joinFilm(folder, { title, language: deck.language, format, parts, captions }, signal);
    if (bytes.length > MOST.bytes)
      throw new Failure("too-large", id, "The film is larger than 900 MB. Split the deck and film its parts.");
    signal.throwIfAborted();
    const moving = slides.flatMap(({ slide, number }) =>
      slide.elements.some(({ kind }) => kind === "media") ? [number] : [],
    );
    if (moving.length) maker.remarks.push(`Films and sounds on slides do not play in it (slide ${moving.join(", ")}).`);
    const film = {
      ...{ id: nanoid(12), deck: id, format, ...filmSize(deck.page, request.width), seconds, slides: slides.length },
      ...{ version, captions, remarks: maker.remarks, size: bytes.length, bytes: Buffer.from(bytes) },
    };
    const deleted = await addFilm(db, film);
    const kept = again ? ` ${again} of ${slides.length} slides were taken as they were made before.` : "";
    return {
      decks: [],
      sentence: `${slides.length} ${slides.length === 1 ? "slide" : "slides"}, ${clock(seconds)} minutes.${kept}${deleted ? " The oldest film of the deck was deleted to make room." : ""}`,
      rows: [],
      remarks: maker.remarks,
    };
  });
}
