import {
  type DeckMetadata,
  type Deck,
  deckLink,
  escapeXml,
  metadataOf,
  isEmptyText,
  nameOf,
  type Slide,
  slideLink,
  must,
  sourceNote,
} from "@unitext/core/model";
import { type Scene, type FontSet, layoutSlide, linkPlaces, mediaPlaces } from "@unitext/core/layout";
import { scenesMarkup } from "@unitext/core/draw";
import { sha256 } from "@noble/hashes/sha2.js";
import { strToU8 } from "fflate";
import { toBase64 } from "../../shared/archive";
import { SCRIPT, STYLE } from "./page";
import { type Href, slideWords, textHtml } from "./words";

export interface HtmlOptions {
  fonts: FontSet;
  picture: (sha256: string) => Uint8Array | undefined;
  /** Whether slides say where their linked values come from. */
  sourceNotes?: boolean;
  /** Turns the slides automatically, for a screen that people walk past. */
  byItself?: ByItself;
}

/** Automatic turning: the seconds that slides without their own delay stay, and whether the deck starts again at the end. */
export interface ByItself {
  seconds: number;
  loop: boolean;
}

const hashOf = (text: string) => `'sha256-${toBase64(sha256(strToU8(text)))}'`;

/**
 * What the page may do (Content Security Policy 3): run its own script and style, show the pictures and films inside
 * it, and nothing else. Positions on the slide are in attributes.
 */
const POLICY = `default-src 'none'; script-src ${hashOf(SCRIPT)}; style-src-elem ${hashOf(STYLE)}; style-src-attr 'unsafe-inline'; img-src data:; media-src data:; base-uri 'none'; form-action 'none'`;

const percent = (value: number, of: number) => `${Math.round((value / of) * 100000) / 1000}%`;
/** Returns the links of the drawing as areas that can be clicked. */
function pressed(scene: Scene, href: Href): string {
  const { width, height } = scene.page;
  return linkPlaces(scene)
    .map(({ to, words, ...place }) => {
      const target = href(to);
      return target === undefined
        ? ""
        : `<a class="link" href="${escapeXml(target)}" aria-label="${escapeXml(words.trim() || target)}" style="left:${percent(place.x, width)};top:${percent(place.y, height)};width:${percent(place.width, width)};height:${percent(place.height, height)}"${/^https?:/.test(target) ? ' target="_blank" rel="noreferrer"' : ""}></a>`;
    })
    .join("");
}

/** Returns films, with controls of their own, and sounds, each with a button, over their posters. */
function played(
  scene: Scene,
  slide: Slide,
  { page, assets }: Pick<DeckMetadata, "page" | "assets">,
  address: (sha256: string) => string | undefined,
): string {
  return mediaPlaces(scene, slide, assets)
    .map(({ type, alt, sha256, poster, press, rotation, ...place }) => {
      const source = address(sha256);
      if (source === undefined) return "";
      const called = escapeXml(alt || (type === "video" ? "Film" : "Sound"));
      const still = poster === undefined ? undefined : address(poster);
      const at = `style="left:${percent(place.x, page.width)};top:${percent(place.y, page.height)};width:${percent(place.width, page.width)};height:${percent(place.height, page.height)}${rotation ? `;transform:rotate(${rotation}deg)` : ""}"${press ? ` data-step="${press}"` : ""}`;
      if (type === "video")
        return `<video class="film" controls playsinline preload="metadata" aria-label="${called}" src="${source}"${still === undefined ? "" : ` poster="${still}"`} ${at}></video>`;
      return `<div class="sound" ${at}><audio preload="metadata" src="${source}"></audio><button type="button" data-play aria-pressed="false" aria-label="Play: ${called}">▶</button></div>`;
    })
    .join("");
}

const KEYS: [string, string][] = [
  ["→ or Space", "next, point by point"],
  ["←", "back"],
  ["↓", "into the details"],
  ["↑", "back to the main slide"],
  ["Home, End", "first, last slide"],
  ["N", "notes in a window of their own"],
  ["K", "dark"],
  ["F", "whole screen"],
  ["?", "this list"],
];

const BUTTONS = [
  ["back", "Back"],
  ["next", "Next"],
  ["deeper", "Details"],
  ["up", "Main slide"],
  ["notes", "Notes"],
  ["full", "Whole screen"],
  ["keys", "Keys"],
] as const;

/** Writes the slides of a page. */
class PageWriter {
  private readonly metadata: DeckMetadata;
  private readonly slides: readonly { slide: Slide; number: number }[];
  private readonly shown: ReadonlySet<string>;
  private readonly types: ReadonlyMap<string, string>;

  constructor(
    private readonly deck: Deck,
    private readonly options: HtmlOptions,
  ) {
    this.metadata = metadataOf(deck);
    this.slides = deck.slides.flatMap((slide, nth) => (slide.hidden ? [] : [{ slide, number: nth + 1 }]));
    this.shown = new Set(this.slides.map(({ slide }) => slide.id));
    this.types = new Map(Object.values(deck.assets).map(({ sha256, mediaType }) => [sha256, mediaType]));
  }

  /** Returns the shared definitions of the drawings, and a section for each slide. */
  content(): { definitions: string; sections: string[] } {
    const { fonts } = this.options;
    const scenes = this.slides.map(({ slide, number }) =>
      layoutSlide(slide, { metadata: this.metadata, number, fonts }),
    );
    const { definitions, drawings } = scenesMarkup(scenes, { outlines: fonts, picture: this.address });
    const sections = this.slides.map(({ slide }, nth) =>
      this.section(slide, nth, must(scenes[nth]), must(drawings[nth])),
    );
    return { definitions, sections };
  }

  /** Returns the address of a link; undefined where the page has no target for it. */
  private readonly href: Href = (to) => {
    const inside = slideLink(to);
    if (inside !== undefined) return this.shown.has(inside) ? `#${encodeURIComponent(inside)}` : undefined;
    return deckLink(to) ? undefined : to;
  };

  private readonly address = (sha256: string): string | undefined => {
    const bytes = this.options.picture(sha256);
    return bytes && `data:${this.types.get(sha256) ?? "image/png"};base64,${toBase64(bytes)}`;
  };

  private section(slide: Slide, nth: number, scene: Scene, drawing: string): string {
    const { href } = this;
    const { transition, notes } = slide;
    const delay = slide.delay ?? this.options.byItself?.seconds;
    const name = nameOf(slide) || `Slide ${nth + 1}`;
    const attributes = [
      `id="${escapeXml(slide.id)}" hidden aria-roledescription="slide"`,
      `aria-label="${escapeXml(`${nth + 1} of ${this.slides.length}: ${name}`)}"`,
      `data-name="${escapeXml(name)}"`,
      ...(slide.parent === null ? [] : [`data-parent="${escapeXml(this.mainSlide(slide))}"`]),
      ...(delay ? [`data-delay="${delay}"`] : []),
      ...(transition ? [`data-transition="${transition.kind}" style="--seconds:${transition.seconds}s"`] : []),
    ];
    const spoken = isEmptyText(notes) ? "" : `<template class="notes">${textHtml(notes, href)}</template>`;
    const note = this.options.sourceNotes ? sourceNote(slide, this.metadata.language) : "";
    const sources = note
      ? `<details class="sources"><summary>Sources</summary>${note
          .split("\n")
          .map((line) => `<p>${escapeXml(line)}</p>`)
          .join("")}</details>`
      : "";
    const media = played(scene, slide, this.metadata, this.address);
    return `<section ${attributes.join(" ")}>${drawing}<div class="words">${slideWords(slide, href)}</div>${pressed(scene, href)}${media}${sources}${spoken}</section>`;
  }

  /** Returns the id of the nearest main slide that is shown; empty when there is none. */
  private mainSlide(slide: Slide): string {
    let { parent } = slide;
    while (parent !== null && !this.shown.has(parent)) {
      const id: string = parent;
      parent = this.deck.slides.find((other) => other.id === id)?.parent ?? null;
    }
    return parent ?? "";
  }
}

/**
 * Writes a deck as one self-contained web page: slides as drawings with their words for assistive technology, links,
 * films and sounds, points one at a time, details, transitions, notes in a window of their own, keys. It makes no
 * network request.
 */
export function writeHtml(deck: Deck, options: HtmlOptions): Uint8Array {
  const { definitions, sections } = new PageWriter(deck, options).content();
  const buttons = BUTTONS.map(([act, label]) => `<button type="button" data-do="${act}">${label}</button>`).join("");
  const rows = KEYS.map(([key, does]) => `<tr><td><kbd>${key}</kbd></td><td>${does}</td></tr>`).join("");
  const keys = `<dialog aria-label="Keys"><table>${rows}</table><form method="dialog"><button>Close</button></form></dialog>`;
  const { author } = deck.properties;
  const title = escapeXml(deck.properties.title || "Slides");
  return strToU8(`<!doctype html>
<html lang="${escapeXml(deck.language)}">
<head><meta charset="utf-8"><meta http-equiv="content-security-policy" content="${POLICY}"><meta name="viewport" content="width=device-width,initial-scale=1"><meta name="generator" content="Unitext">${author ? `<meta name="author" content="${escapeXml(author)}">` : ""}<title>${title}</title><style>${STYLE}</style></head>
<body style="--shape:${deck.page.width / deck.page.height}"${options.byItself?.loop === false ? " data-once" : ""}>${definitions}<main aria-label="${title}"><h1 class="words">${title}</h1>${sections.join("\n")}</main><p class="said" aria-live="polite"></p>
<nav aria-label="Slides">${buttons}<span data-at></span></nav>${keys}<script>${SCRIPT}</script></body>
</html>
`);
}
