export { type Cue, cuesOf, webVtt } from "./captions";
export { FILM_FORMATS, FILM_WIDTHS, type FilmCaptions, type FilmFormat } from "./format";
export { type Moment, momentsOf } from "./moments";
export {
  estimatedWords,
  expectedSeconds,
  type Narration,
  narrationOf,
  type Spoken,
  spokenBy,
  type SpokenWord,
  wordsInTimeOf,
  wordSpans,
} from "./narration";
export { evenLoudness, SAMPLE_RATE, wavOf } from "./sound";
export { FRAME_RATE, pairPresses, pressTexts, slideTimes, type SlideTimes, type Voice } from "./timing";
