/** The containers in which films are written: H.264 with AAC, and VP9 with Opus. */
export const FILM_FORMATS = ["mp4", "webm"] as const;
export type FilmFormat = (typeof FILM_FORMATS)[number];

/** The widths of films in pixels. */
export const FILM_WIDTHS = [1280, 1920] as const;

/** Captions of a film in a language (BCP 47), as a WebVTT file. */
export interface FilmCaptions {
  language: string;
  text: string;
}
