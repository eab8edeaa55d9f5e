import type { SpokenWord } from "@unitext/core/film";

/** What a voice is asked for: a text, its language as a BCP 47 tag, and words a minute. */
export interface SpeechAsked {
  text: string;
  language: string;
  rate: number;
}

/** Speech as sound, with the time of each word; words are offsets in the text. */
export interface Speech {
  /** A sound file of any kind that ffmpeg reads. */
  sound: Uint8Array;
  words: SpokenWord[];
}

/** A voice that speaks texts. Throws a Failure `unavailable` when it cannot. */
export type SpeechEngine = (asked: SpeechAsked, signal?: AbortSignal) => Promise<Speech>;

/** Returns samples of one channel, 16 bit, as a .wav file (RIFF, “Multimedia Programming Interface and Data Specifications 1.0”). */
export function wavOf(samples: Int16Array, rate: number): Uint8Array {
  const bytes = new Uint8Array(44 + samples.byteLength);
  const view = new DataView(bytes.buffer);
  const name = (at: number, text: string) => bytes.set(new TextEncoder().encode(text), at);
  name(0, "RIFF");
  view.setUint32(4, 36 + samples.byteLength, true);
  name(8, "WAVEfmt ");
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * 2, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  name(36, "data");
  view.setUint32(40, samples.byteLength, true);
  bytes.set(new Uint8Array(samples.buffer, samples.byteOffset, samples.byteLength), 44);
  return bytes;
}
