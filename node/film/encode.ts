import { open, readFile, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { evenLoudness, type FilmCaptions, type FilmFormat, FRAME_RATE, SAMPLE_RATE } from "@unitext/core/film";
import type { Page } from "@unitext/core/model";
import { languageCode } from "../languagecodes";
import { ffmpeg } from "./ffmpeg";
import type { FrameFiles } from "./frames";

/** How pictures, sound and captions are encoded in each container. */
const ENCODING = {
  mp4: {
    video: ["-c:v", "libx264", "-preset", "veryfast", "-tune", "stillimage", "-crf", "20", "-bf", "0"],
    sound: ["-c:a", "aac", "-b:a", "96k"],
    captions: "mov_text",
    container: ["-movflags", "+faststart", "-f", "mp4"],
  },
  webm: {
    video: ["-c:v", "libvpx-vp9", "-deadline", "realtime", "-cpu-used", "8", "-row-mt", "1", "-crf", "30", "-b:v", "0"],
    sound: ["-c:a", "libopus", "-b:a", "64k"],
    captions: "webvtt",
    container: ["-f", "webm"],
  },
} as const satisfies Record<FilmFormat, object>;

/** Returns the size of the pictures of a film in pixels; both are even, as the codecs ask. */
export function filmSize({ width, height }: Page, pixels: number): { width: number; height: number } {
  return { width: pixels, height: Math.round((pixels * height) / width / 2) * 2 };
}

/** The most frames between two from which a player can begin: ten seconds. */
const KEY_FRAMES = String(10 * FRAME_RATE);

/**
 * Encodes the pictures of a slide in a folder as a piece of film without sound (Matroska). Throws a Failure `unavailable`
 * when ffmpeg fails.
 */
export async function encodeSlide(
  folder: string,
  files: FrameFiles,
  { format, width, height }: { format: FilmFormat; width: number; height: number },
  signal?: AbortSignal,
): Promise<Uint8Array> {
  const frames = files.reduce((sum, one) => sum + one.frames, 0);
  // The concat demuxer leaves out the duration of the last file unless the file follows once more.
  const list = [...files, ...files.slice(-1)].map(
    ({ file, frames: shown }) => `file '${file}'\nduration ${(shown / FRAME_RATE).toFixed(3)}`,
  );
  await writeFile(join(folder, "pictures.txt"), `ffconcat version 1.0\n${list.join("\n")}\n`);
  await ffmpeg(
    [
      ...["-y", "-f", "concat", "-safe", "0", "-i", "pictures.txt"],
      // Each picture is converted once and then repeated.
      ...["-vf", `scale=${width}:${height}:out_color_matrix=bt709:out_range=tv,format=yuv420p,fps=${FRAME_RATE}`],
      ...["-frames:v", String(frames), "-an", ...ENCODING[format].video, "-g", KEY_FRAMES],
      ...["-colorspace", "bt709", "-color_primaries", "bt709", "-color_trc", "bt709", "-color_range", "tv"],
      ...["-f", "matroska", "slide.mkv"],
    ],
    { folder, signal },
  );
  return new Uint8Array(await readFile(join(folder, "slide.mkv")));
}

/** The longest voice of a slide, in seconds. */
const MOST_VOICE = 1800;

/** Reads a sound file as samples of one channel, brought to the loudness of all voices. */
export async function samplesOf(sound: Uint8Array, signal?: AbortSignal): Promise<Int16Array> {
  const bytes = await ffmpeg(
    [
      ...["-protocol_whitelist", "pipe", "-i", "pipe:0", "-t", String(MOST_VOICE), "-vn"],
      ...["-ac", "1", "-ar", String(SAMPLE_RATE), "-f", "s16le", "pipe:1"],
    ],
    { input: sound, signal, limit: 120 },
  );
  const whole = bytes.slice(0, bytes.length - (bytes.length % 2));
  return evenLoudness(new Int16Array(whole.buffer, whole.byteOffset, whole.length / 2));
}

/** A slide of a film: its frames, and what the chapter is called that begins with it. */
export interface FilmChapter {
  frames: number;
  title: string;
}

/** Returns words for ffmpeg's file of chapters, in which some signs have a meaning. */
const inMetadata = (text: string) => text.replace(/[=;#\\\n]/g, (sign) => `\\${sign}`);

/** Returns titles, chapters and their times in milliseconds as ffmpeg's metadata file. */
export function chapterFile(title: string, parts: readonly FilmChapter[]): string {
  let from = 0;
  const chapters = parts.map(({ frames, title: name }) => {
    const start = from;
    from += frames;
    const ms = (at: number) => Math.round((at * 1000) / FRAME_RATE);
    return `[CHAPTER]\nTIMEBASE=1/1000\nSTART=${ms(start)}\nEND=${ms(from)}\ntitle=${inMetadata(name)}\n`;
  });
  return `;FFMETADATA1\ntitle=${inMetadata(title)}\n${chapters.join("")}`;
}

/** The names of the files of the nth slide in the folder of a film: its pictures, and its voice as samples. */
export const partFiles = (nth: number) => ({ picture: `part${nth}.mkv`, voice: `voice${nth}.raw` });

/** Returns the sound of a slide: its voice, in silence that is exactly as long as its pictures. */
function soundOf(voice: Uint8Array | undefined, voiceAt: number, frames: number): Uint8Array {
  const sound = new Uint8Array((frames * SAMPLE_RATE * 2) / FRAME_RATE);
  const from = 2 * Math.round(voiceAt * SAMPLE_RATE);
  if (voice) sound.set(voice.subarray(0, Math.max(0, sound.length - from)), Math.min(from, sound.length));
  return sound;
}

/**
 * Joins the slides of a film, their sound, chapters and captions into one file. A folder has the files of each slide
 * (`partFiles`); a slide without a voice is silent. Pictures are copied as they were encoded. Throws a Failure
 * `unavailable` when ffmpeg fails.
 */
export async function joinFilm(
  folder: string,
  film: {
    title: string;
    language: string;
    format: FilmFormat;
    parts: readonly (FilmChapter & { voiceAt: number })[];
    captions: readonly FilmCaptions[];
  },
  signal?: AbortSignal,
): Promise<Uint8Array> {
  const { title, language, format, parts, captions } = film;
  const { sound, captions: captionCodec, container } = ENCODING[format];
  const written = await open(join(folder, "sound.raw"), "w");
  try {
    for (const [nth, { voiceAt, frames }] of parts.entries()) {
      const voice = await readFile(join(folder, partFiles(nth).voice)).catch(() => undefined);
      await written.write(soundOf(voice, voiceAt, frames));
    }
  } finally {
    await written.close();
  }
  const list = parts.map(
    ({ frames }, nth) => `file '${partFiles(nth).picture}'\nduration ${(frames / FRAME_RATE).toFixed(3)}\n`,
  );
  await Promise.all([
    writeFile(join(folder, "parts.txt"), `ffconcat version 1.0\n${list.join("")}`),
    writeFile(join(folder, "chapters.txt"), chapterFile(title, parts)),
    ...captions.map(({ text }, nth) => writeFile(join(folder, `captions${nth}.vtt`), text)),
  ]);
  const code = (tag: string) => `language=${languageCode(tag) ?? "und"}`;
  await ffmpeg(
    [
      ...["-y", "-f", "concat", "-safe", "0", "-i", "parts.txt"],
      ...["-f", "s16le", "-ar", String(SAMPLE_RATE), "-ac", "1", "-i", "sound.raw"],
      ...["-i", "chapters.txt"],
      ...captions.flatMap((_, nth) => ["-i", `captions${nth}.vtt`]),
      ...["-map", "0:v", "-map", "1:a"],
      ...captions.flatMap((_, nth) => ["-map", `${nth + 3}:s`]),
      ...["-map_metadata", "2", "-map_chapters", "2", "-c:v", "copy", ...sound],
      ...["-metadata:s:a:0", code(language)],
      ...(captions.length ? ["-c:s", captionCodec] : []),
      ...captions.flatMap((one, nth) => [`-metadata:s:s:${nth}`, code(one.language)]),
      ...[...container, "film"],
    ],
    { folder, signal },
  );
  return new Uint8Array(await readFile(join(folder, "film")));
}
