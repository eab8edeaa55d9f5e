import fc from "fast-check";
import { emptyDeck, must, newSlide, plainText, type Slide } from "@unitext/core/model";
import {
  cuesOf,
  estimatedWords,
  FRAME_RATE,
  momentsOf,
  narrationOf,
  pairPresses,
  pressTexts,
  slideTimes,
  spokenBy,
  type Voice,
  webVtt,
  wordsInTimeOf,
} from "./index";
import { revealsOf } from "@unitext/core/model";

/** A slide whose points appear one at a time. */
function stepped(points: readonly string[], notes: string): Slide {
  return {
    ...newSlide("s1", "points"),
    elements: [
      { kind: "text", id: "t", slot: "title", text: plainText("Dunes") },
      { kind: "text", id: "b", slot: "body", steps: true, text: plainText(points.join("\n")) },
    ],
    notes: plainText(notes),
  };
}

/** A voice of a text of which only the length is known. */
function voiceOf(notes: string, seconds: number, language = "en"): Voice {
  const narration = narrationOf(plainText(notes), language);
  return { narration, seconds, words: estimatedWords(narration, seconds, language) };
}

describe("what is said on a slide", () => {
  it("is its paragraphs with a pause between them, sentence by sentence, without formulas", () => {
    const notes = [
      ...plainText("The tide rises. Dr. Reed measured 4.6 m at noon."),
      ...plainText(""),
      {
        kind: "plain" as const,
        level: 0,
        runs: [{ text: "It follows " }, { text: "h^2", marks: ["formula" as const] }, { text: "." }],
      },
    ];
    const { text, sentences } = narrationOf(notes, "en");
    expect(text).toBe("The tide rises. Dr. Reed measured 4.6 m at noon.\n\nIt follows .");
    expect(sentences.map(({ from, to }) => text.slice(from, to))).toEqual([
      "The tide rises.",
      "Dr. Reed measured 4.6 m at noon.",
      "It follows .",
    ]);
  });

  it("says which slides are silent or thin, and takes a recording over the notes", () => {
    const full = stepped(
      ["Sand", "Wind"],
      "Sand moves with the wind until something slows it, and there a dune begins to grow.",
    );
    expect(spokenBy(full, 120, "en")).toBe("notes");
    expect(spokenBy({ ...full, notes: [] }, 120, "en")).toBe("silent");
    expect(spokenBy({ ...full, notes: plainText("Read it out.") }, 120, "en")).toBe("thin");
    const voice = { source: "voice-1", seconds: 4, notesHash: "x" };
    expect(spokenBy({ ...full, voice, notes: [] }, 120, "en")).toBe("recorded");
  });

  it("estimates words that are in order, inside the sound, and all there", () => {
    const { narration, words } = voiceOf("One two three. Four five.", 10);
    expect(words.map(({ from, to }) => narration.text.slice(from, to))).toEqual([
      "One",
      "two",
      "three",
      "Four",
      "five",
    ]);
    expect(words.every(({ start, end }, nth) => start < end && start >= (words[nth - 1]?.end ?? 0))).toBe(true);
    expect(must(words.at(-1)).end).toBeCloseTo(10, 5);
  });
});

describe("entrances in time with the voice", () => {
  const notes = "Welcome. First we look at the sand. Then the wind carries it. At the end the grass holds all of it.";

  it("appear at the sentence that is about them", () => {
    const slide = stepped(["Sand from the beach", "Wind carries it", "Grass holds it"], notes);
    const voice = voiceOf(notes, 20);
    expect(pressTexts(slide)).toEqual(["Sand from the beach", "Wind carries it", "Grass holds it"]);
    const times = slideTimes(slide, voice, "en");
    const heard = (word: string) =>
      must(voice.words.find(({ from, to }) => voice.narration.text.slice(from, to) === word));
    expect(times.presses.map((time) => time - times.voiceAt)).toEqual([
      heard("First").start,
      heard("Then").start,
      heard("At").start,
    ]);
  });

  it("keep their order when a later sentence repeats an earlier word", () => {
    expect(pairPresses(["sand", "wind", "grass"], ["the wind", "the sand", "wind again", "grass"], "en")).toEqual([
      1, 2, 3,
    ]);
    // What nothing is said about stays between the others.
    expect(pairPresses(["sand", "gulls", "grass"], ["the sand", "the grass"], "en")).toEqual([0, undefined, 1]);
    expect(pairPresses(["sand"], [], "en")).toEqual([undefined]);
  });

  it("are spread over the time when the notes say nothing of them, or nobody speaks", () => {
    const slide = stepped(["Aaaa", "Bbbb", "Cccc"], "Something else entirely is told here for a while.");
    const spoken = slideTimes(slide, voiceOf("Something else entirely is told here for a while.", 12), "en");
    expect(spoken.presses.map((time) => Math.round(time - spoken.voiceAt))).toEqual([3, 6, 9]);
    const silent = slideTimes({ ...slide, notes: [], delay: 8 }, undefined, "en");
    expect(silent.presses.map((time) => Math.round((time - silent.voiceAt) * 10) / 10)).toEqual([2, 4, 6]);
  });

  it("two of one sentence do not come at once, and all are seen before the slide ends", () => {
    const said = "The sand and the wind make it.";
    const slide = stepped(["Sand", "Wind"], said);
    const times = slideTimes(slide, voiceOf(said, 3), "en");
    const [first, second] = [must(times.presses[0]), must(times.presses[1])];
    expect(second - first).toBeGreaterThanOrEqual(0.4);
    expect(times.frames / FRAME_RATE).toBeGreaterThan(second + 1);
  });

  it("are drawn once for frames that show the same", () => {
    const slide: Slide = { ...stepped(["Sand", "Wind"], ""), delay: 4, transition: { kind: "fade", seconds: 0.4 } };
    const times = slideTimes(slide, undefined, "en");
    const moments = momentsOf(revealsOf(slide), times);
    expect(moments.reduce((sum, { frames }) => sum + frames, 0)).toBe(times.frames);
    // Ten frames of the transition, then nothing, one point, two points.
    expect(moments.filter(({ arrived }) => arrived < 1)).toHaveLength(10);
    expect(moments.filter(({ arrived }) => arrived === 1).map(({ entered }) => entered)).toEqual([
      [0, 0],
      [1, 0],
      [1, 1],
    ]);
    // “ease” of CSS is at 0.8024 half way (Easing Functions Level 1; value from memory).
    expect(must(moments[5]).arrived).toBeCloseTo(0.802, 2);
  });
});

describe("captions", () => {
  const long =
    "When the storm came from the north, the water stood four metres above the mark, and for the first time since the gauge was built nobody could reach it on foot.";

  it("have at most two lines of 42 signs, in the time of their words, without overlap", () => {
    const { narration, words } = voiceOf(`Short. ${long}`, 20);
    const cues = cuesOf(narration, words, 5, "en");
    expect(cues.flatMap(({ lines }) => lines).every((line) => line.length <= 42)).toBe(true);
    expect(cues.every(({ lines }) => lines.length <= 2)).toBe(true);
    expect(cues.map(({ lines }) => lines.join(" ")).join(" ")).toBe(`Short. ${long}`);
    cues.forEach(({ start, end }, nth) => {
      expect(start).toBeLessThan(end);
      expect(start).toBeGreaterThanOrEqual(cues[nth - 1]?.end ?? 5);
    });
  });

  it("never need a third line, whatever the words are", () => {
    const word = fc.string({ minLength: 1, maxLength: 14, unit: fc.constantFrom(..."aeinrst") });
    const text = fc.array(fc.tuple(word, fc.constantFrom("", "", "", ",", ":")), { minLength: 1, maxLength: 40 });
    fc.assert(
      fc.property(text, (words) => {
        const sentence = `${words.map((parts) => parts.join("")).join(" ")}.`;
        const voice = voiceOf(sentence, 30);
        const cues = cuesOf(voice.narration, voice.words, 0, "en");
        expect(cues.map(({ lines }) => lines.join(" ")).join(" ")).toBe(sentence);
        for (const { lines } of cues) {
          expect(lines.length).toBeLessThanOrEqual(2);
          for (const line of lines) expect(line.length).toBeLessThanOrEqual(42);
        }
      }),
      { numRuns: 200 },
    );
  });

  it("count wide signs as two, and break where there are no spaces", () => {
    const text =
      "潮の満ち引きは月の引力によって起こり、毎日およそ五十分ずつ遅れていくので、観測所では時刻を記録します。";
    const { narration, words } = voiceOf(text, 12, "ja");
    const cues = cuesOf(narration, words, 0, "ja");
    expect(cues.flatMap(({ lines }) => lines).every((line) => [...line].length <= 21)).toBe(true);
    expect(cues.flatMap(({ lines }) => lines).join("")).toBe(text);
  });

  it("of another language follow sentence by sentence", () => {
    const heard = voiceOf("The tide rises. The dune is higher than the road.", 10);
    const spanish = narrationOf(plainText("La marea sube. La duna es más alta que el camino."), "es");
    const words = wordsInTimeOf({ narration: spanish, language: "es" }, heard);
    const at = (text: string) => must(words.find(({ from, to }) => spanish.text.slice(from, to) === text));
    const second = must(heard.words.find(({ from, to }) => heard.narration.text.slice(from, to) === "The" && from > 0));
    expect(at("La").start).toBe(must(heard.words[0]).start);
    expect(words.filter(({ from }) => from >= must(spanish.sentences[1]).from)[0]?.start).toBeCloseTo(second.start, 5);
    // Another number of sentences: the whole is spread.
    const other = narrationOf(plainText("Una sola frase que dice todo."), "es");
    expect(must(wordsInTimeOf({ narration: other, language: "es" }, heard).at(-1)).end).toBeCloseTo(10, 5);
  });
});

describe("a WebVTT file", () => {
  /**
   * The grammar of W3C WebVTT (Recommendation candidate of 2019), section 4.1: a file is the signature, then blocks of an
   * identifier, timings and a payload, each ended by a blank line. Cue text has no “&” or “<” but in escapes and tags.
   */
  const TIME = "(?:\\d{2,}:)?[0-5]\\d:[0-5]\\d\\.\\d{3}";
  const TEXT = "(?:[^&<\\n\\r]|&(?:amp|lt|gt|lrm|rlm|nbsp);)+";
  const CUE = `(?:[^\\n\\r]+\\n)?${TIME} --> ${TIME}\\n${TEXT}(?:\\n${TEXT})*\\n`;
  const FILE = new RegExp(`^WEBVTT\\n\\n(?:${CUE}(?:\\n${CUE})*)?$`, "u");

  it("is as the grammar says, whatever the words are", () => {
    const cues = [
      { start: 0, end: 1.2344, lines: ["a < b & c --> d"] },
      { start: 3599.9996, end: 3661.5, lines: ["two", "lines"] },
      { start: 400_000, end: 400_001, lines: ["“quoted” ✓ مرحبا"] },
      { start: 5, end: 5, lines: ["no time"] },
      { start: 6, end: 7, lines: ["", " "] },
    ];
    const file = webVtt(cues);
    expect(file).toMatch(FILE);
    expect(file).toContain("a &lt; b &amp; c --&gt; d");
    expect(file).toContain("01:00:00.000 --> 01:01:01.500");
    expect(file).toContain("111:06:40.000");
    expect(file).not.toContain("no time");
    expect(webVtt([])).toMatch(FILE);
  });
});

it("an empty deck has nothing to say", () => {
  expect(emptyDeck("d", "Nothing").slides.map((slide) => spokenBy(slide, 120, "en"))).toEqual([]);
});
