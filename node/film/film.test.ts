import { execFileSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type FilmFormat, FRAME_RATE, narrationOf, slideTimes, webVtt } from "@unitext/core/film";
import { type Deck, emptyDeck, metadataOf, must, newSlide, plainText, type Slide } from "@unitext/core/model";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { PNG } from "pngjs";
import {
  chapterFile,
  encodeSlide,
  filmFrames,
  filmHashes,
  filmSize,
  joinFilm,
  partFiles,
  samplesOf,
  slidePng,
  speakByService,
  speakLocally,
  svgPng,
} from "../index";

const fonts = join(process.cwd(), "dist/fonts");
const set = shippedFonts();

function deckOf(): Deck {
  const text = (id: string, slot: string, words: string) => ({
    kind: "text" as const,
    id,
    slot,
    text: plainText(words),
  });
  const slides: Slide[] = [
    { ...newSlide("a", "opening"), elements: [text("t1", "title", "Tides; dunes = storms #1")] },
    {
      ...newSlide("b", "points"),
      transition: { kind: "push", seconds: 0.4 },
      elements: [
        text("t2", "title", "Three things"),
        {
          ...text("p2", "body", "Sand from the beach\nWind carries it"),
          steps: true,
          entrance: { order: 0, trigger: "press", effect: "fade", seconds: 0.4 },
        },
      ],
      delay: 3,
    },
    {
      ...newSlide("c", "points"),
      elements: [text("t3", "title", "The end"), text("p3", "body", "Thank you")],
      delay: 2,
    },
  ];
  return { ...emptyDeck("d", "A film\nof the bay"), slides };
}

let folder = "";
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "unitext-film-test-"));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Makes a film of the deck in which the first slide is spoken, and returns the path of its file. */
async function filmIn(format: FilmFormat): Promise<{ file: string; frames: number[]; deck: Deck }> {
  const deck = deckOf();
  const size = filmSize(deck.page, 640);
  const speech = await speakLocally({ text: "The tide rises.", language: "en", rate: 150 });
  const samples = await samplesOf(speech.sound);
  const own = join(folder, format);
  mkdirSync(own);
  writeFileSync(join(own, partFiles(0).voice), new Uint8Array(samples.buffer, samples.byteOffset, samples.byteLength));
  const filmed = deck.slides.map((slide, nth) => ({ slide, number: nth + 1 }));
  const parts = [];
  for (const [nth, one] of filmed.entries()) {
    const narration = narrationOf(plainText("The tide rises."), "en");
    const voice = nth === 0 ? { narration, seconds: samples.length / 48_000, words: speech.words } : undefined;
    const times = slideTimes(one.slide, voice, "en");
    const drawing = join(own, `slide${nth}`);
    mkdirSync(drawing);
    const files = await filmFrames({
      ...{ fonts, metadata: metadataOf(deck), filmed: one, before: filmed[nth - 1], times, width: 640 },
      ...{ folder: drawing, blobs: new Map() },
    });
    writeFileSync(join(own, partFiles(nth).picture), await encodeSlide(drawing, files, { format, ...size }));
    parts.push({ ...times, title: ["Tides; dunes = storms #1", "Three things", "The end"][nth] ?? "" });
  }
  const captions = [
    { language: "en", text: webVtt([{ start: 0.5, end: 1.5, lines: ["The tide rises."] }]) },
    { language: "es", text: webVtt([{ start: 0.5, end: 1.5, lines: ["La marea sube."] }]) },
  ];
  const bytes = await joinFilm(own, { title: deck.properties.title, language: "en", format, parts, captions });
  const file = join(folder, `film.${format}`);
  writeFileSync(file, bytes);
  return { file, frames: parts.map(({ frames }) => frames), deck };
}

interface Probe {
  streams: { codec_type: string; codec_name: string; width?: number; height?: number; tags?: { language?: string } }[];
  chapters: { start_time: string; end_time: string; tags: { title: string } }[];
  format: { duration: string; tags: Record<string, string> };
}
const probe = (file: string): Probe =>
  JSON.parse(
    execFileSync("ffprobe", ["-v", "error", "-show_streams", "-show_chapters", "-show_format", "-of", "json", file], {
      encoding: "utf8",
    }),
  );

/** Returns the frame of a film at a time in seconds. */
const frameAt = (file: string, seconds: number) =>
  PNG.sync.read(
    execFileSync("ffmpeg", [
      "-v",
      "error",
      "-ss",
      String(seconds),
      "-i",
      file,
      "-frames:v",
      "1",
      "-f",
      "image2pipe",
      "-c:v",
      "png",
      "-",
    ]),
  );

/** The mean difference of two pictures in steps of 256. */
function difference(one: PNG, other: PNG): number {
  expect([one.width, one.height]).toEqual([other.width, other.height]);
  let sum = 0;
  for (let at = 0; at < one.data.length; at++) sum += Math.abs(must(one.data[at]) - must(other.data[at]));
  return sum / one.data.length;
}

describe("a film, as ffprobe of Debian's ffmpeg sees it", () => {
  it.each([
    ["mp4", "h264", "aac", "mov_text"],
    ["webm", "vp9", "opus", "webvtt"],
  ] as const)(
    "has pictures, sound, captions and chapters as %s",
    async (format, video, sound, captions) => {
      const { file, frames, deck } = await filmIn(format);
      const { streams, chapters, format: whole } = probe(file);
      const seconds = frames.reduce((sum, one) => sum + one, 0) / FRAME_RATE;
      const codecs = streams.filter(({ codec_type: type }) => type !== "data");
      expect(codecs.map(({ codec_name: name }) => name)).toEqual([video, sound, captions, captions]);
      expect(codecs[0]).toMatchObject({ width: 640, height: 360 });
      expect(codecs.slice(1).map(({ tags }) => tags?.language)).toEqual(["eng", "eng", "spa"]);
      expect(Math.abs(Number(whole.duration) - seconds)).toBeLessThan(0.1);
      expect(chapters.map(({ tags }) => tags.title)).toEqual(["Tides; dunes = storms #1", "Three things", "The end"]);
      const starts = frames.map((_, nth) => frames.slice(0, nth).reduce((sum, one) => sum + one, 0) / FRAME_RATE);
      chapters.forEach(({ start_time: start }, nth) => {
        expect(Number(start)).toBeCloseTo(must(starts[nth]), 2);
      });

      // Each slide, in the middle of its time, is the picture of its scene; lossy coding changes single pixels a little.
      const scene = (number: number) =>
        PNG.sync.read(Buffer.from(slidePng(deck, number, 640, set, svgPng(fonts), () => undefined)));
      for (const nth of [0, 2])
        expect(
          difference(frameAt(file, must(starts[nth]) + must(frames[nth]) / FRAME_RATE / 2), scene(nth + 1)),
        ).toBeLessThan(2);
      const [from, until] = [must(starts[1]), must(starts[2])];
      expect(difference(frameAt(file, until - 0.1), scene(2))).toBeLessThan(2);
      // Before the first point appears, the slide has none; during the transition the slide before is still seen.
      expect(difference(frameAt(file, from + 0.6), scene(2))).toBeGreaterThan(
        difference(frameAt(file, until - 0.1), scene(2)) + 0.5,
      );
      expect(difference(frameAt(file, from), scene(1))).toBeLessThan(6);
      expect(difference(frameAt(file, from + 0.12), scene(1))).toBeGreaterThan(6);
    },
    120_000,
  );

  it("has signs that mean something in ffmpeg's list of chapters in titles (ffmpeg-formats, Metadata)", () => {
    expect(chapterFile("a=b", [{ frames: 25, title: "x;y#z\\" }])).toContain("title=x\\;y\\#z\\\\\n");
  });
});

it("slides that look alike have one hash, and any change gives another", async () => {
  const { slides, ...rest } = deckOf();
  const metadata = metadataOf({ ...rest, slides });
  const hashes = await filmHashes({
    ...{ fonts, metadata },
    slides: [
      { slide: must(slides[1]), number: 2 },
      { slide: { ...must(slides[1]), id: "other", notes: plainText("Other words to say") }, number: 2 },
      { slide: { ...must(slides[1]), transition: { kind: "push", seconds: 0.5 } }, number: 2 },
      { slide: { ...must(slides[1]), elements: must(slides[1]).elements.slice(0, 1) }, number: 2 },
    ],
  });
  expect(hashes[1]).toBe(hashes[0]);
  expect(new Set(hashes).size).toBe(3);
});

describe("the voice of Debian's espeak-ng", () => {
  const text = "The gauge at the pier gave 4.6 m, didn’t it?\n\nDr. Reed – “yes” – wrote it down 😀 at noon.";

  it("says when each word is heard, in order and within the sound", async () => {
    const { sound, words } = await speakLocally({ text, language: "en-GB", rate: 140 });
    const seconds = (sound.length - 44) / 2 / 22_050;
    expect(words.map(({ from, to }) => text.slice(from, to))).toEqual(
      "The gauge at the pier gave 4.6 m didn’t it Dr Reed yes wrote it down at noon".split(" "),
    );
    expect(words.every(({ start, end }, nth) => start <= end && start >= (words[nth - 1]?.end ?? 0) - 1e-9)).toBe(true);
    expect(must(words.at(-1)).end).toBeLessThanOrEqual(seconds + 1e-9);
    // A reference from the command itself: ffprobe reads the length of our sound file as we say it.
    writeFileSync(join(folder, "voice.wav"), sound);
    expect(Number(probe(join(folder, "voice.wav")).format.duration)).toBeCloseTo(seconds, 2);
  });

  it("gives each word a time where there are no spaces between them", async () => {
    const chinese = "潮水每天涨落两次。观测站记录每一次的时间和高度。";
    const { words } = await speakLocally({ text: chinese, language: "zh", rate: 120 });
    expect(words.length).toBeGreaterThan(8);
    expect(words.every(({ start, end }, nth) => start < end && start >= (words[nth - 1]?.end ?? 0) - 1e-9)).toBe(true);
  });

  it("speaks as many words a minute as it is asked for", async () => {
    const long = "When the tide comes in, the water first fills the creeks and then the flats between them. ".repeat(4);
    for (const rate of [100, 130, 180]) {
      const { sound, words } = await speakLocally({ text: long, language: "en", rate });
      const heard = (words.length * 60) / ((sound.length - 44) / 2 / 22_050);
      expect(Math.abs(heard / rate - 1)).toBeLessThan(0.08);
    }
  });

  it("says when it has no voice for a language", async () => {
    await expect(speakLocally({ text: "x", language: "qaa", rate: 120 })).rejects.toMatchObject({
      code: "unavailable",
      message: expect.stringContaining("no voice"),
    });
  });
});

describe("a voice service", () => {
  let server: Server;
  let answer: (asked: { text: string }) => unknown;
  let service = { url: "" };
  beforeAll(async () => {
    server = createServer((request, response) => {
      const chunks: Buffer[] = [];
      request.on("data", (chunk: Buffer) => chunks.push(chunk));
      request.on("end", () => response.end(JSON.stringify(answer(JSON.parse(Buffer.concat(chunks).toString())))));
    });
    await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    service = { url: `http://127.0.0.1:${(server.address() as AddressInfo).port}/` };
  });
  afterAll(() => server.close());
  const asked = { text: "One two. Three.", language: "en", rate: 120 };
  const sound = Buffer.from("RIFF").toString("base64");

  it("gives sound with times, or without, when they are estimated", async () => {
    answer = () => ({ sound, seconds: 2, words: [{ from: 0, to: 3, start: 0, end: 0.5 }] });
    expect((await speakByService(asked, service)).words).toEqual([{ from: 0, to: 3, start: 0, end: 0.5 }]);
    answer = () => ({ sound, seconds: 2 });
    const { words } = await speakByService(asked, service);
    expect(words.map(({ from, to }) => asked.text.slice(from, to))).toEqual(["One", "two", "Three"]);
    expect(must(words.at(-1)).end).toBeCloseTo(2, 5);
  });

  it.each([
    ["no sound", {}],
    ["a length that is none", { sound, seconds: -1 }],
    ["no base64", { sound: "%%", seconds: 1 }],
    ["no object", 7],
  ])("is refused with a sentence when it answers with %s", async (_, wrong) => {
    answer = () => wrong;
    await expect(speakByService(asked, service)).rejects.toMatchObject({
      code: "unavailable",
      message: expect.stringContaining("The voice service"),
    });
  });
});
