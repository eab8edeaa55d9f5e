import { execFileSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { FRAME_RATE, narrationOf, SAMPLE_RATE, slideTimes, type Voice } from "@unitext/core/film";
import { type Deck, metadataOf } from "@unitext/core/model";
import { filmFrames, picturesOfSlides, samplesOf, speakLocally } from "@unitext/node";
import type { Job } from "../server/api";
import type { Row } from "./core";
import { ADDRESS, Browser, json } from "./requests";

const DECK = "tides-dunes-storms";
const WIDTH = 1280;

/** Draws the pictures and the sound of a film into a folder, for ffmpeg alone. Returns the number of frames. */
async function drawn(deck: Deck, blobs: ReadonlyMap<string, Uint8Array>, folder: string): Promise<number> {
  const fonts = join(process.cwd(), "dist/fonts");
  const slides = deck.slides.flatMap((slide, nth) => (slide.hidden ? [] : [{ slide, number: nth + 1 }]));
  const lines: string[] = [];
  const sound: Uint8Array[] = [];
  let total = 0;
  for (const [nth, filmed] of slides.entries()) {
    const narration = narrationOf(filmed.slide.notes, deck.language);
    const speech = await speakLocally({ text: narration.text, language: deck.language, rate: deck.rate });
    const samples = await samplesOf(speech.sound);
    const voice: Voice = { narration, seconds: samples.length / SAMPLE_RATE, words: speech.words };
    const times = slideTimes(filmed.slide, voice, deck.language);
    const own = join(folder, `${nth}`);
    mkdirSync(own);
    const files = await filmFrames({
      ...{
        fonts,
        metadata: metadataOf(deck),
        filmed,
        before: slides[nth - 1],
        times,
        width: WIDTH,
        folder: own,
        blobs,
      },
    });
    for (const { file, frames } of files)
      lines.push(`file '${nth}/${file}'\nduration ${(frames / FRAME_RATE).toFixed(3)}\n`);
    const track = new Int16Array((times.frames * SAMPLE_RATE) / FRAME_RATE);
    track.set(samples, Math.round(times.voiceAt * SAMPLE_RATE));
    sound.push(new Uint8Array(track.buffer));
    total += times.frames;
  }
  writeFileSync(join(folder, "pictures.txt"), `ffconcat version 1.0\n${lines.join("")}${lines.at(-1)}`);
  writeFileSync(join(folder, "sound.raw"), Buffer.concat(sound));
  return total;
}

/** How long the product takes for a film of 20 slides, as a ratio to ffmpeg alone for the same frames and sound. */
export async function film(): Promise<Row[]> {
  if (!ADDRESS) return [];
  const owner = new Browser();
  await owner.ask("/me");
  const { deck } = (await (await owner.ask(`/decks/${DECK}`)).json()) as { deck: Deck };
  const blobs = new Map<string, Uint8Array>();
  for (const sha256 of picturesOfSlides(metadataOf(deck), deck.slides))
    blobs.set(sha256, new Uint8Array(await (await owner.ask(`/decks/${DECK}/pictures/${sha256}`)).arrayBuffer()));
  const make = async () => {
    const begin = performance.now();
    const asked = { format: "mp4", width: WIDTH, voice: "local", captions: [DECK] };
    const { job } = (await (await owner.ask(`/decks/${DECK}/films`, json(asked))).json()) as { job: string };
    for (;;) {
      await new Promise((resolve) => setTimeout(resolve, 200));
      const { state, message } = (await (await owner.ask(`/jobs/${job}`)).json()) as Job;
      if (state === "done") return performance.now() - begin;
      if (state === "failed") throw new Error(message ?? "The film failed.");
    }
  };
  const folder = mkdtempSync(join(tmpdir(), "unitext-bench-film-"));
  try {
    const first = await make();
    const again = await make();
    const frames = await drawn(deck, blobs, folder);
    const begin = performance.now();
    execFileSync(
      "ffmpeg",
      [
        ...["-v", "error", "-y", "-f", "concat", "-safe", "0", "-i", "pictures.txt"],
        ...["-f", "s16le", "-ar", String(SAMPLE_RATE), "-ac", "1", "-i", "sound.raw"],
        ...["-vf", `format=yuv420p,fps=${FRAME_RATE}`, "-frames:v", String(frames)],
        ...["-c:v", "libx264", "-preset", "veryfast", "-tune", "stillimage", "-crf", "20", "-bf", "0", "-g", "250"],
        ...["-c:a", "aac", "-b:a", "96k", "film.mp4"],
      ],
      { cwd: folder },
    );
    const alone = performance.now() - begin;
    const ratio = (time: number) => Math.round((time / alone) * 100) / 100;
    const slides = deck.slides.filter(({ hidden }) => !hidden).length;
    const minutes = Math.round((frames / FRAME_RATE / 60) * 10) / 10;
    return [
      {
        name: `a film of ${slides} slides and ${minutes} minutes, as a ratio to ffmpeg alone`,
        ratio: ratio(first),
        target: 2,
        holds: first <= 2 * alone,
      },
      { name: "the same film once more, nothing changed", ratio: ratio(again), target: 1, holds: again <= alone },
    ];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
