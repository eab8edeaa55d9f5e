export {
  chapterFile,
  encodeSlide,
  type FilmChapter,
  filmSize,
  joinFilm,
  partFiles,
  samplesOf,
} from "./encode";
export { hasLocalVoice, speakLocally } from "./espeak";
export { ffmpegVersion, yieldToOthers } from "./ffmpeg";
export { filmFrames, type FilmedSlide, filmHashes, type FrameFiles, picturesOfSlides } from "./frames";
export type { Speech, SpeechAsked } from "./voice";
export { speakByService, voiceServiceFrom } from "./voiceservice";
