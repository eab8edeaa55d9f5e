import { scenesMarkup } from "@unitext/core/draw";
import { type FontSet, layoutSlide, linkPlaces, mediaPlaces, type Scene } from "@unitext/core/layout";
import {
  type Deck,
  type DeckMetadata,
  deckLink,
  type Element,
  elementTexts,
  escapeXml,
  metadataOf,
  isEmptyText,
  nameOf,
  readingOrder,
  type RichText,
  type Run,
  type Slide,
  slideLink,
  titleElement,
  must,
} from "@unitext/core/model";
import { sha256 } from "@noble/hashes/sha2.js";
import { strToU8 } from "fflate";
import { toBase64 } from "../../shared/archive";
import { SCRIPT, STYLE } from "./page";

export interface HtmlOptions {
  fonts: FontSet;
  picture: (sha256: string) => Uint8Array | undefined;
}

const hashOf = (text: string) => `'sha256-${toBase64(sha256(strToU8(text)))}'`;
/**
 * What the page may do (Content Security Policy 3): run its own script and style, show the pictures and films inside
 * it, and nothing else. Positions on the slide are in attributes.
 */
const POLICY = `default-src 'none'; script-src ${hashOf(SCRIPT)}; style-src-elem ${hashOf(STYLE)}; style-src-attr 'unsafe-inline'; img-src data:; media-src data:; base-uri 'none'; form-action 'none'`;

const percent = (value: number, of: number) => `${Math.round((value / of) * 100000) / 1000}%`;
const MARKS: Record<string, string> = { strong: "strong", emphasis: "em", strike: "s", code: "code", formula: "code" };

function inlineHtml(runs: readonly Run[], href: (to: string) => string | undefined): string {
  return runs
    .map(({ text, marks, link, footnote }) => {
      if (footnote) return `<small> (${inlineHtml(footnote, href)})</small>`;
      const words = escapeXml(text).replace(/\n/g, "<br>");
      const marked = (marks ?? []).reduce((inner, mark) => `<${MARKS[mark]}>${inner}</${MARKS[mark]}>`, words);
      const target = link === undefined ? undefined : href(link);
      return target === undefined ? marked : `<a href="${escapeXml(target)}">${marked}</a>`;
    })
    .join("");
}

/** Returns paragraphs and nested lists as HTML. */
function textHtml(text: RichText, href: (to: string) => string | undefined): string {
  let html = "";
  const open: string[] = [];
  const close = (depth: number) => {
    while (open.length > depth) html += `</li></${open.pop()}>`;
  };
  for (const { kind, level, start, runs } of text) {
    const inner = inlineHtml(runs, href);
    if (kind === "plain") {
      if (level > 0 && open.length) {
        close(Math.max(1, level));
        html += `<p>${inner}</p>`;
        continue;
      }
      close(0);
      html += `<p>${inner}</p>`;
      continue;
    }
    const tag = kind === "number" ? "ol" : "ul";
    close(level + 1);
    if (open.length === level + 1 && open.at(-1) === tag && start === undefined) html += "</li>";
    else {
      if (open.length === level + 1) close(level);
      while (open.length < level + 1) {
        html += open.length < level ? "<ul><li>" : `<${tag}${start === undefined ? "" : ` start="${start}"`}>`;
        open.push(open.length < level ? "ul" : tag);
      }
    }
    html += `<li>${inner}`;
  }
  close(0);
  return html;
}

/** Returns the words of an element, for readers who do not see the drawing. */
function wordsHtml(element: Element, href: (to: string) => string | undefined): string {
  if (element.kind === "picture")
    return `<p>${escapeXml(["Picture", element.alt, element.caption].filter(Boolean).join(": "))}</p>`;
  if (element.kind === "code") return `<pre>${escapeXml(element.text)}</pre>`;
  if (element.kind === "formula") return `<p>${escapeXml(element.tex)}</p>`;
  if (element.kind === "table") {
    const cell = (tag: string) => (one: (typeof element.rows)[number][number]) =>
      one
        ? `<${tag}${one.columns ? ` colspan="${one.columns}"` : ""}${one.rows ? ` rowspan="${one.rows}"` : ""}>${textHtml(one.text, href)}</${tag}>`
        : "";
    return `<table>${element.caption ? `<caption>${escapeXml(element.caption)}</caption>` : ""}${element.rows.map((row, y) => `<tr>${row.map(cell(y < element.header ? "th" : "td")).join("")}</tr>`).join("")}</table>`;
  }
  if (element.kind === "chart")
    return `<table><tr><th></th>${element.series.map(({ name }) => `<th>${escapeXml(name)}</th>`).join("")}</tr>${element.categories.map((name, at) => `<tr><th>${escapeXml(name)}</th>${element.series.map(({ values }) => `<td>${values[at] ?? ""}</td>`).join("")}</tr>`).join("")}</table>`;
  return elementTexts(element)
    .map((text) => textHtml(text, href))
    .join("");
}

/** Returns the links of the drawing as areas that can be clicked. */
function pressed(scene: Scene, href: (to: string) => string | undefined): string {
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

/**
 * Writes a deck as one self-contained web page: slides as drawings with their words for assistive technology, links,
 * films and sounds, points one at a time, details, transitions, notes in a window of their own, keys. It makes no
 * network request.
 */
export function writeHtml(deck: Deck, { fonts, picture }: HtmlOptions): Uint8Array {
  const metadata = metadataOf(deck);
  const slides = deck.slides.flatMap((slide, nth) => (slide.hidden ? [] : [{ slide, number: nth + 1 }]));
  const shown = new Map(slides.map(({ slide }) => [slide.id, slide]));
  const href = (to: string): string | undefined => {
    const inside = slideLink(to);
    if (inside !== undefined) return shown.has(inside) ? `#${encodeURIComponent(inside)}` : undefined;
    return deckLink(to) ? undefined : to;
  };
  const types = new Map(Object.values(deck.assets).map(({ sha256, mediaType }) => [sha256, mediaType]));
  const scenes = slides.map(({ slide, number }) => layoutSlide(slide, { metadata, number, fonts }));
  const address = (sha256: string) => {
    const bytes = picture(sha256);
    return bytes && `data:${types.get(sha256) ?? "image/png"};base64,${toBase64(bytes)}`;
  };
  const { definitions, drawings } = scenesMarkup(scenes, { outlines: fonts, picture: address });
  /** Returns the nearest main slide that is shown. */
  const above = (slide: Slide): string => {
    let parent = slide.parent;
    while (parent !== null && !shown.has(parent)) parent = deck.slides.find(({ id }) => id === parent)?.parent ?? null;
    return parent ?? "";
  };
  const sections = slides.map(({ slide }, nth) => {
    const name = nameOf(slide) || `Slide ${nth + 1}`;
    const title = titleElement(slide);
    const { transition, delay } = slide;
    const words = [
      ...(title
        ? [
            `<h2>${inlineHtml(
              title.text.flatMap(({ runs }) => runs),
              href,
            )}</h2>`,
          ]
        : []),
      ...readingOrder(slide)
        .filter((element) => element !== title)
        .map((element) => wordsHtml(element, href)),
    ]
      .join("")
      .replace(/<a /g, '<a tabindex="-1" ');
    return `<section id="${escapeXml(slide.id)}" hidden aria-roledescription="slide" aria-label="${escapeXml(`${nth + 1} of ${slides.length}: ${name}`)}" data-name="${escapeXml(name)}"${slide.parent === null ? "" : ` data-parent="${escapeXml(above(slide))}"`}${delay ? ` data-delay="${delay}"` : ""}${transition ? ` data-transition="${transition.kind}" style="--seconds:${transition.seconds}s"` : ""}>${drawings[nth]}<div class="words">${words}</div>${pressed(must(scenes[nth]), href)}${played(must(scenes[nth]), slide, metadata, address)}${isEmptyText(slide.notes) ? "" : `<template class="notes">${textHtml(slide.notes, href)}</template>`}</section>`;
  });
  const buttons = [
    ["back", "Back"],
    ["next", "Next"],
    ["deeper", "Details"],
    ["up", "Main slide"],
    ["notes", "Notes"],
    ["full", "Whole screen"],
    ["keys", "Keys"],
  ]
    .map(([act, label]) => `<button type="button" data-do="${act}">${label}</button>`)
    .join("");
  const keys = `<dialog aria-label="Keys"><table>${KEYS.map(([key, does]) => `<tr><td><kbd>${key}</kbd></td><td>${does}</td></tr>`).join("")}</table><form method="dialog"><button>Close</button></form></dialog>`;
  const { title, author } = deck.properties;
  return strToU8(`<!doctype html>
<html lang="${escapeXml(deck.language)}">
<head><meta charset="utf-8"><meta http-equiv="content-security-policy" content="${POLICY}"><meta name="viewport" content="width=device-width,initial-scale=1"><meta name="generator" content="Unitext">${author ? `<meta name="author" content="${escapeXml(author)}">` : ""}<title>${escapeXml(title || "Slides")}</title><style>${STYLE}</style></head>
<body style="--shape:${metadata.page.width / metadata.page.height}">${definitions}<main aria-label="${escapeXml(title || "Slides")}"><h1 class="words">${escapeXml(title || "Slides")}</h1>${sections.join("\n")}</main><p class="said" aria-live="polite"></p>
<nav aria-label="Slides">${buttons}<span data-at></span></nav>${keys}<script>${SCRIPT}</script></body>
</html>
`);
}
