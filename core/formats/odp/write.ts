import { escapeXml } from "@unitext/core/draw";
import { type FontSet, layoutSlide, type Scene, sizeOf } from "@unitext/core/layout";
import { type Cell, type Deck, type DeckHead, deckLink, type Element, type ElementKind, type Footnote, type Frame, headOf, isEmptyText, lookOf, nameOf, plainText, roleOf, type Slide, slideLink, type TableElement, type Theme, themeOf } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { xml, XML_HEAD, zip } from "../archive";
import { chartTable, figureWords, flattened, footnoteText, isSpecial, keptOf } from "../kept";
import { KEPT, length, MEDIA_TYPE, NS, VERSION } from "./names";
import { StyleSheet, type TextContext, textXml } from "./text";

export interface OdpOptions {
  fonts: FontSet;
  picture: (sha256: string) => Uint8Array | undefined;
  at: Date;
}

interface Work {
  head: DeckHead;
  slide: Slide;
  theme: Theme;
  scene: Scene;
  styles: StyleSheet;
  options: OdpOptions;
  /** The path of a picture's file in the package, or undefined where its file is not in the deck. */
  file(source: string): string | undefined;
  link(to: string): string | undefined;
  notes: Footnote[];
}

/** The name of a slide's page in the file: what links lead to, and by which it is known again. */
export function pageName(slide: Slide, number: number): string {
  return `${number} ${nameOf(slide).replace(/[#\s]+/g, " ").trim().slice(0, 60)}`.trim();
}

const place = ({ x, y, width, height }: Frame) => ({ "svg:x": length(x), "svg:y": length(y), "svg:width": length(width), "svg:height": length(height) });
const CLASS: Record<string, string> = { title: "title", opening: "title", subtitle: "subtitle", body: "outline", picture: "graphic" };

function contextFor({ styles, theme, link }: Work, size: number, heading: boolean, bold = false): TextContext {
  return { styles, size, colour: theme.colours.ink, font: heading ? theme.fonts.heading : theme.fonts.body, codeFont: theme.fonts.code, bold, link };
}

function tableXml({ rows, header, align }: Pick<TableElement, "rows" | "header" | "align">, work: Work, size: number, width: number): string {
  const columns = rows[0]?.length ?? 1;
  const column = work.styles.style("table-column", { "table-column-properties": { "style:column-width": length(width / columns) } });
  const cell = (one: Cell | null, x: number, head: boolean) => {
    if (!one) return "<table:covered-table-cell/>";
    const style = work.styles.style("table-cell", { "graphic-properties": { "draw:fill": "none" }, "paragraph-properties": { "fo:border-bottom": `${head ? 1.5 : 0.5}pt solid ${work.theme.colours.muted}` } });
    const text = flattened(one.text, work.notes).map((paragraph) => ({ ...paragraph, align: paragraph.align ?? align[x] ?? "start" }));
    return xml("table:table-cell", { "table:style-name": style, "table:number-columns-spanned": one.columns, "table:number-rows-spanned": one.rows }, textXml(text.length ? text : plainText(" "), contextFor(work, size, false, head)));
  };
  const line = (row: (Cell | null)[], head: boolean) => xml("table:table-row", {}, ...row.map((one, x) => cell(one, x, head)));
  const heads = rows.slice(0, header).map((row) => line(row, true));
  return xml("table:table", { "table:use-first-row-styles": header ? "true" : undefined }, xml("table:table-column", { "table:style-name": column, "table:number-columns-repeated": columns }), heads.length ? xml("table:table-header-rows", {}, ...heads) : "", ...rows.slice(header).map((row) => line(row, false)));
}

interface Shape {
  name: string;
  frame: Frame;
  size: number;
}

function textFrame(text: string, { name, frame }: Shape, work: Work, presentation?: string): string {
  const style = work.styles.style(presentation ? "presentation" : "graphic", { "graphic-properties": { "draw:stroke": "none", "draw:fill": "none", "fo:padding": "0pt", "draw:auto-grow-height": "false", "draw:textarea-vertical-align": "top" } });
  return xml("draw:frame", { [presentation ? "presentation:style-name" : "draw:style-name"]: style, "draw:name": name, "draw:layer": "layout", "presentation:class": presentation, "presentation:user-transformed": presentation ? "true" : undefined, ...place(frame) }, xml("draw:text-box", {}, text || "<text:p/>"));
}

function figureFrame(element: Element, shape: Shape, work: Work): string {
  return textFrame(textXml(figureWords(element, work.notes) ?? [], contextFor(work, shape.size, false)), shape, work);
}

function tableFrame(table: Pick<TableElement, "rows" | "header" | "align">, { name, frame, size }: Shape, work: Work): string {
  return xml("draw:frame", { "draw:name": name, "draw:layer": "layout", ...place(frame) }, tableXml(table, work, size, frame.width));
}

const SHAPES: { [K in ElementKind]: (element: Extract<Element, { kind: K }>, shape: Shape, work: Work, presentation: string | undefined) => string } = {
  text: (element, shape, work, presentation) => textFrame(textXml(flattened(element.text, work.notes), contextFor(work, shape.size, presentation === "title")), shape, work, presentation),
  picture: ({ source, alt }, { name, frame }, work) => {
    const path = work.file(source);
    const described = xml("svg:desc", {}, escapeXml(alt));
    if (!path) return xml("draw:frame", { "draw:name": name, "draw:layer": "layout", "presentation:class": "graphic", "presentation:placeholder": "true", ...place(frame) }, "<draw:text-box/>", described);
    return xml("draw:frame", { "draw:name": name, "draw:layer": "layout", ...place(frame) }, xml("draw:image", { "xlink:href": path, "xlink:type": "simple", "xlink:show": "embed", "xlink:actuate": "onLoad" }), described);
  },
  table: (element, shape, work) => tableFrame(element, shape, work),
  chart: (element, shape, work) => tableFrame(chartTable(element), shape, work),
  code: figureFrame,
  formula: figureFrame,
  diagram: figureFrame,
  shape: (element, shape, work) => textFrame(textXml(flattened(element.text, work.notes), contextFor(work, shape.size, false)), shape, work),
  media: (element, shape, work) => textFrame(textXml(plainText(element.alt), contextFor(work, shape.size, false)), shape, work),
  foreign: (element, shape, work) => textFrame(textXml(element.text, contextFor(work, shape.size, false)), shape, work),
};

/** The shapes of a page, and what is kept of each by its name. */
function shapes(work: Work): { xml: string; kept: Record<string, object> } {
  const { slide, head, scene, theme } = work;
  const kept: Record<string, object> = {};
  const captions: string[] = [];
  const written = slide.elements.map((element, nth) => {
    const name = `${element.slot ?? element.kind} ${nth + 1}`;
    kept[name] = keptOf(element);
    const box = scene.boxes.find((candidate) => candidate.element === element.id);
    const frame = box ?? element.frame ?? { x: 72, y: 144, width: 400, height: 240 };
    const role = element.slot === null ? undefined : roleOf(slide, element);
    const size = box?.size || sizeOf(role ?? "body", theme, head.page);
    const caption = (element.kind === "picture" || element.kind === "table") && element.caption;
    if (caption) {
      const own = `caption of ${name}`;
      kept[own] = { footnotes: true };
      const small = sizeOf("caption", theme, head.page) * 0.8;
      captions.push(textFrame(textXml(plainText(caption), contextFor(work, small, false)), { name: own, frame: { x: frame.x, y: frame.y + frame.height + 4, width: frame.width, height: 24 }, size: small }, work));
    }
    return (SHAPES[element.kind] as (element: Element, shape: Shape, work: Work, presentation: string | undefined) => string)(element, { name, frame, size }, work, element.kind === "text" ? CLASS[role ?? ""] : undefined);
  });
  if (work.notes.length) {
    kept.footnotes = { footnotes: true };
    const size = theme.scale.footer * 1.1;
    const height = work.notes.length * size * 1.5;
    const { width, height: tall } = head.page;
    captions.push(textFrame(textXml(footnoteText(work.notes), contextFor(work, size, false)), { name: "footnotes", frame: { x: width * 0.065, y: tall * 0.92 - height, width: width * 0.87, height }, size }, work));
  }
  return { xml: written.join("") + captions.join(""), kept };
}

const TRANSITIONS = { fade: { "smil:type": "fade", "smil:subtype": "crossfade" }, push: { "smil:type": "pushWipe", "smil:subtype": "fromRight" }, wipe: { "smil:type": "barWipe", "smil:subtype": "leftToRight" } } as const;

function pageStyle({ slide, head, theme, styles, file }: Work, pictures: Map<string, string>): string {
  const { background, transition, delay, hidden } = slide;
  const shown = slide.arrangement !== "opening" && slide.arrangement !== "blank";
  const path = background && "picture" in background ? file(background.picture) : undefined;
  const fill = background && "colour" in background ? { "draw:fill": "solid", "draw:fill-color": background.colour } : path ? { "draw:fill": "bitmap", "draw:fill-image-name": pictures.get(path) ?? pictures.set(path, `picture${pictures.size + 1}`).get(path) } : theme !== head.theme ? { "draw:fill": "solid", "draw:fill-color": theme.colours.paper } : {};
  return styles.style("drawing-page", {
    "drawing-page-properties": {
      ...fill,
      "presentation:visibility": hidden ? "hidden" : undefined,
      "presentation:transition-type": delay ? "automatic" : undefined,
      "presentation:duration": delay ? `PT${delay}S` : undefined,
      ...(transition ? { ...TRANSITIONS[transition.kind], "presentation:transition-speed": transition.seconds <= 0.5 ? "fast" : transition.seconds <= 1 ? "medium" : "slow" } : {}),
      "presentation:background-visible": "true",
      "presentation:background-objects-visible": "true",
      "presentation:display-footer": shown && head.regions.footer ? "true" : "false",
      "presentation:display-page-number": shown && head.regions.number ? "true" : "false",
    },
  });
}

/** What a master shows: the theme's ornaments as they are drawn on an empty slide, the line at the foot and the number. */
function masterXml(name: string, arrangement: Slide["arrangement"], head: DeckHead, fonts: FontSet, styles: StyleSheet): string {
  const empty: Slide = { id: "master", parent: null, arrangement, elements: [], notes: [], hidden: false };
  const { page, theme } = head;
  const rects = layoutSlide(empty, { head: { ...head, regions: { footer: "", number: false } }, number: 1, fonts }).nodes.flatMap((node) => (node.kind === "rect" ? [node] : []));
  const drawn = rects.map(({ fill, ...frame }) => xml("draw:rect", { "draw:style-name": styles.style("graphic", { "graphic-properties": { "draw:stroke": "none", "draw:fill": "solid", "draw:fill-color": fill } }), "draw:layer": "backgroundobjects", ...place(frame) }));
  const size = theme.scale.footer * (page.height / 540);
  const line = (field: string, className: string, align: "start" | "end") => xml("draw:frame", { "presentation:style-name": styles.style("presentation", { "graphic-properties": { "draw:stroke": "none", "draw:fill": "none", "fo:padding": "0pt" } }), "draw:layer": "backgroundobjects", "presentation:class": className, ...place({ x: page.width * 0.065, y: page.height - size * 2.8, width: page.width * 0.87, height: size * 1.4 }) }, xml("draw:text-box", {}, xml("text:p", { "text:style-name": styles.style("paragraph", { "paragraph-properties": { "fo:text-align": align }, "text-properties": { "fo:font-size": length(size), "fo:color": theme.colours.muted, "style:font-name": theme.fonts.body } }) }, field)));
  return xml("style:master-page", { "style:name": name, "style:page-layout-name": "Page", "draw:style-name": styles.style("drawing-page", { "drawing-page-properties": { "draw:fill": "solid", "draw:fill-color": theme.colours.paper } }) }, ...drawn, line("<presentation:footer/>", "footer", "start"), line('<text:page-number>&lt;number&gt;</text:page-number>', "page-number", "end"));
}

const part = (root: string, ...content: string[]) => strToU8(`${XML_HEAD.replace(' standalone="yes"', "")}${xml(root, { ...NS, "office:version": VERSION }, ...content)}`);

/**
 * Writes a deck as a presentation in OpenDocument 1.3: a page a slide with its notes, text as paragraphs and lists,
 * tables, pictures, links, backgrounds, transitions. What the format has no place for is kept in user-defined metadata.
 */
export function writeOdp(deck: Deck, options: OdpOptions): Uint8Array {
  const head = headOf(deck);
  const styles = new StyleSheet("");
  const masters = new StyleSheet("M");
  const parts = new Map<string, Uint8Array>([["mimetype", strToU8(MEDIA_TYPE)]]);
  const files = new Map<string, Uint8Array>();
  const pictures = new Map<string, string>();
  const file = (source: string) => {
    const asset = deck.assets[source];
    const bytes = asset && options.picture(asset.sha256);
    if (!asset || !bytes) return undefined;
    const path = `Pictures/${asset.sha256.slice(0, 32)}.${asset.mediaType === "image/png" ? "png" : "jpg"}`;
    files.set(path, bytes);
    return path;
  };
  const names = new Map(deck.slides.map((slide, nth) => [slide.id, pageName(slide, nth + 1)]));
  const link = (to: string) => {
    const inside = slideLink(to);
    if (inside === undefined) return deckLink(to) ? undefined : to;
    const page = names.get(inside);
    return page === undefined ? undefined : `#${page}`;
  };
  const keptSlides: Record<string, object> = {};
  const pages = deck.slides.map((slide, nth) => {
    const theme = themeOf(slide, head);
    const scene = layoutSlide(slide, { head, number: nth + 1, fonts: options.fonts });
    const work: Work = { head, slide, theme, scene, styles, options, file, link, notes: [] };
    const { xml: drawn, kept } = shapes(work);
    const name = names.get(slide.id) as string;
    const { id, parent, arrangement, source, origin } = slide;
    keptSlides[name] = { id, parent, arrangement, ...(source ? { source } : {}), ...(origin ? { origin } : {}), ...(slide.theme ? { theme: slide.theme } : {}), ...lookOf(slide), ...(isSpecial(slide.notes) ? { notes: slide.notes } : {}), elements: kept };
    const said: Footnote[] = [];
    const flat = flattened(slide.notes, said);
    const spoken = said.length ? [...flat, ...footnoteText(said)] : flat;
    const notes = xml(
      "presentation:notes",
      {},
      xml("draw:page-thumbnail", { "draw:layer": "layout", "presentation:class": "page", "draw:page-number": nth + 1, ...place({ x: 86, y: 60, width: 424, height: 238 }) }),
      xml("draw:frame", { "draw:layer": "layout", "presentation:class": "notes", ...place({ x: 60, y: 330, width: 476, height: 450 }) }, xml("draw:text-box", {}, isEmptyText(spoken) ? "<text:p/>" : textXml(spoken, { styles, size: 12, codeFont: head.theme.fonts.code, link }))),
    );
    return xml("draw:page", { "draw:name": name, "draw:style-name": pageStyle(work, pictures), "draw:master-page-name": slide.arrangement === "opening" ? "Opening" : "Content", "presentation:use-footer-name": head.regions.footer ? "footer" : undefined }, drawn, notes);
  });
  const masterPages = masterXml("Opening", "opening", head, options.fonts, masters) + masterXml("Content", "points", head, options.fonts, masters);
  const families = [...new Set([head.theme, ...Object.values(head.themes ?? {})].flatMap(({ fonts: { heading, body, code } }) => [heading, body, code]))];
  const faces = xml("office:font-face-decls", {}, ...families.map((name) => xml("style:font-face", { "style:name": name, "svg:font-family": `'${name}'` })));
  const [language, country] = deck.language.split("-");
  const defaults = xml("style:default-style", { "style:family": "graphic" }, xml("style:text-properties", { "style:font-name": head.theme.fonts.body, "fo:color": head.theme.colours.ink, "fo:language": language, "fo:country": country && /^[A-Z]{2}$/.test(country) ? country : "none" }));
  const fills = [...pictures].map(([path, name]) => xml("draw:fill-image", { "draw:name": name, "xlink:href": path, "xlink:type": "simple", "xlink:show": "embed", "xlink:actuate": "onLoad" }));
  const layout = xml("style:page-layout", { "style:name": "Page" }, xml("style:page-layout-properties", { "fo:margin-top": "0pt", "fo:margin-bottom": "0pt", "fo:margin-left": "0pt", "fo:margin-right": "0pt", "fo:page-width": length(head.page.width), "fo:page-height": length(head.page.height), "style:print-orientation": "landscape" }));
  const { id, properties, regions, rate, theme, themes, assets, manuscript, original } = head;
  const keptDeck = { id, properties, language: deck.language, regions, rate, theme, ...(themes ? { themes } : {}), assets, ...(manuscript ? { manuscript } : {}), ...(original ? { original } : {}) };
  const kept = (name: string, value: object) => xml("meta:user-defined", { "meta:name": name, "meta:value-type": "string" }, escapeXml(JSON.stringify(value)));
  const said = (name: string, value: string) => (value ? xml(name, {}, escapeXml(value)) : "");
  const moment = options.at.toISOString().slice(0, 19);
  parts.set("content.xml", part("office:document-content", faces, xml("office:automatic-styles", {}, styles.xml()), xml("office:body", {}, xml("office:presentation", {}, head.regions.footer ? xml("presentation:footer-decl", { "presentation:name": "footer" }, escapeXml(head.regions.footer)) : "", ...pages))));
  parts.set("styles.xml", part("office:document-styles", faces, xml("office:styles", {}, ...fills, defaults), xml("office:automatic-styles", {}, layout, masters.xml()), xml("office:master-styles", {}, masterPages)));
  parts.set("meta.xml", part("office:document-meta", xml("office:meta", {}, "<meta:generator>Unitext</meta:generator>", said("dc:title", properties.title), said("dc:subject", properties.event), said("meta:initial-creator", properties.author), said("dc:creator", properties.author), said("dc:language", deck.language), `<meta:creation-date>${moment}</meta:creation-date><dc:date>${moment}</dc:date>`, kept(KEPT.deck, keptDeck), kept(KEPT.slides, keptSlides))));
  for (const [path, bytes] of files) parts.set(path, bytes);
  const manifest = [["/", MEDIA_TYPE], ...[...parts.keys()].filter((path) => path !== "mimetype").map((path) => [path, path.endsWith(".xml") ? "text/xml" : path.endsWith(".png") ? "image/png" : "image/jpeg"])];
  const entries = manifest.map(([path, type]) => xml("manifest:file-entry", { "manifest:full-path": path, "manifest:media-type": type, ...(path === "/" ? { "manifest:version": VERSION } : {}) }));
  parts.set("META-INF/manifest.xml", strToU8(`${XML_HEAD.replace(' standalone="yes"', "")}${xml("manifest:manifest", { "xmlns:manifest": "urn:oasis:names:tc:opendocument:xmlns:manifest:1.0", "manifest:version": VERSION }, ...entries)}`));
  return zip(parts);
}
