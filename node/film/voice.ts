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
