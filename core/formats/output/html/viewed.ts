import { type FontSet, layoutSlide, linkPlaces, mediaPlaces } from "@unitext/core/layout";
import { sceneSvg } from "@unitext/core/draw";
import { type DeckMetadata, deckLink, isEmptyText, type Slide, slideLink } from "@unitext/core/model";
import { toBase64 } from "../../shared/archive";
import { type Href, slideWords, textHtml } from "./words";

/** What a page shows beside the drawing of a slide; places are in points from the top left of the slide. */
export interface ViewedSlide {
  /** The words as HTML, for those who do not see the drawing. */
  words: string;
  /** The notes as HTML; null without any. */
  notes: string | null;
  links: { to: string; words: string; x: number; y: number; width: number; height: number }[];
  media: {
    type: "video" | "audio";
    alt: string;
    sha256: string;
    poster: string | null;
    x: number;
    y: number;
    width: number;
    height: number;
  }[];
}

/** A slide with its place in the running order, counted from 1, and what its deck says for all slides. */
export interface PlacedSlide {
  metadata: DeckMetadata;
  slide: Slide;
  number: number;
}

const sceneOf = ({ slide, ...placed }: PlacedSlide, fonts: FontSet) => layoutSlide(slide, { ...placed, fonts });

/** Draws a slide as an SVG that needs no other file: text as outlines, pictures inside it. */
export function slideDrawing(
  placed: PlacedSlide,
  fonts: FontSet,
  picture: (sha256: string) => Uint8Array | undefined,
): string {
  const types = new Map(Object.values(placed.metadata.assets).map(({ sha256, mediaType }) => [sha256, mediaType]));
  const address = (sha256: string) => {
    const bytes = picture(sha256);
    return bytes && `data:${types.get(sha256) ?? "image/png"};base64,${toBase64(bytes)}`;
  };
  return sceneSvg(sceneOf(placed, fonts), { outlines: fonts, picture: address });
}

/** Returns what a page shows beside the drawing of a slide. Links lead to the slides that it shows, and to web pages. */
export function viewedSlide(placed: PlacedSlide, fonts: FontSet, shown: ReadonlySet<string>): ViewedSlide {
  const { slide } = placed;
  const href: Href = (to) => {
    const inside = slideLink(to);
    if (inside !== undefined) return shown.has(inside) ? `#${encodeURIComponent(inside)}` : undefined;
    return deckLink(to) ? undefined : to;
  };
  const scene = sceneOf(placed, fonts);
  return {
    words: slideWords(slide, href),
    notes: isEmptyText(slide.notes) ? null : textHtml(slide.notes, href),
    links: linkPlaces(scene).flatMap(({ to, words, x, y, width, height }) => {
      const target = href(to);
      return target === undefined ? [] : [{ to: target, words: words.trim() || target, x, y, width, height }];
    }),
    media: mediaPlaces(scene, slide, placed.metadata.assets).map(
      ({ type, alt, sha256, poster, x, y, width, height }) => ({
        type,
        alt,
        sha256,
        poster: poster ?? null,
        x,
        y,
        width,
        height,
      }),
    ),
  };
}
