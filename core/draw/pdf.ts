import { deckLink, type PictureElement, must } from "@unitext/core/model";
import type { FigurePath } from "@unitext/core/figures";
import {
  type FontSet,
  formulaPaths,
  ruledPaths,
  type Scene,
  type SceneLine,
  type SceneNode,
  type SceneRun,
} from "@unitext/core/layout";
import PDFDocument from "pdfkit";
import svgpath from "svgpath";
import { gradientLine, PATTERN_MARKS } from "./svg";

/** A page of the PDF: its scene, and the slides on it with their names, levels and sections for the outline. */
export interface PdfPage {
  scene: Scene;
  slides: readonly { id: string; name: string; level: number; section?: string }[];
}

export interface PdfOptions {
  fonts: FontSet;
  /** Returns the bytes of a picture; undefined when they are missing. */
  picture: (sha256: string) => Uint8Array | undefined;
  /** Returns the picture recoloured. Without this function the colours are laid over the picture, which comes close. */
  recoloured?: (sha256: string, recolour: NonNullable<PictureElement["recolour"]>) => Uint8Array | undefined;
  title: string;
  author: string;
  language: string;
  /** The creation time that the file names. */
  at: Date;
}

/** What pdfkit stores of an embedded font, as far as drawing shaped glyphs needs it. */
interface EmbeddedFont {
  id: string;
  scale: number;
  subset: { includeGlyph(glyph: number): number; mapping: Record<number, number | undefined> };
  widths: (number | undefined)[];
  unicode: (number[] | undefined)[];
  font: { getGlyph(glyph: number): { advanceWidth: number } };
  ref(): unknown;
}
type Document = PDFKit.PDFDocument & { _font: EmbeddedFont; page: { fonts: Record<string, unknown>; height: number } };

const n = (value: number) => String(Math.round(value * 1000) / 1000);
const hex = (value: number) => value.toString(16).padStart(4, "0");

function colour(rgb: string): string {
  return [1, 3, 5].map((at) => n(Number.parseInt(rgb.slice(at, at + 2), 16) / 255)).join(" ");
}

/**
 * Writes text glyph by glyph as it was shaped, so that the PDF has exactly the lines and widths of the scene, and its
 * characters for reading and searching.
 */
class TextWriter {
  private readonly opened = new Map<string, EmbeddedFont>();
  /** For each face: a shaped glyph with its text → its code in the file and its advance there in em. */
  private readonly codes = new Map<string, Map<string, { code: string; advance: number }>>();

  constructor(
    private readonly doc: Document,
    private readonly fonts: FontSet,
  ) {}

  private open(face: string): EmbeddedFont {
    const known = this.opened.get(face);
    if (known) return known;
    this.doc.registerFont(face, this.fonts.face(face).bytes);
    this.doc.font(face);
    const font = this.doc._font;
    this.opened.set(face, font);
    this.codes.set(face, new Map());
    return font;
  }

  /**
   * Returns the code of a glyph for the characters that it stands for; a glyph that stands for several texts has
   * several codes.
   */
  private code(face: string, font: EmbeddedFont, glyph: number, text: string): { code: string; advance: number } {
    const codes = must(this.codes.get(face));
    const key = `${glyph}/${text}`;
    const known = codes.get(key);
    if (known) return known;
    delete font.subset.mapping[glyph];
    const index = font.subset.includeGlyph(glyph);
    const units = font.font.getGlyph(glyph).advanceWidth;
    font.widths[index] = units * font.scale;
    font.unicode[index] = Array.from(text.normalize("NFC"), (character) => must(character.codePointAt(0)));
    const made = { code: hex(index), advance: (units * font.scale) / 1000 };
    codes.set(key, made);
    return made;
  }

  run(run: SceneRun, y: number): string {
    const font = this.open(run.face);
    this.doc.page.fonts[font.id] ??= font.ref();
    let out = `/${font.id} ${n(run.size)} Tf ${colour(run.fill)} rg 1 0 0 1 ${n(run.x)} ${n(this.doc.page.height - y)} Tm [`;
    let pending = "";
    let pen = 0;
    let at = 0;
    let rise = 0;
    for (const { x, text, word } of run.words ?? []) {
      pen = x / run.size;
      const { glyphs, clusters, advances, offsets } = word;
      for (let index = 0; index < glyphs.length; index++) {
        const { code, advance } = this.code(
          run.face,
          font,
          glyphs[index] ?? 0,
          clusterText(text, clusters, index, run.rtl),
        );
        const wanted = pen + (offsets?.[index * 2] ?? 0);
        const lift = offsets?.[index * 2 + 1] ?? 0;
        const shift = Math.round((at - wanted) * 1000);
        if (lift !== rise) {
          out += `${pending ? `<${pending}>` : ""}] TJ ${n(lift * run.size)} Ts [`;
          pending = "";
          rise = lift;
        }
        if (shift !== 0) {
          out += `${pending ? `<${pending}>` : ""}${shift} `;
          pending = "";
          at -= shift / 1000;
        }
        pending += code;
        at += advance;
        pen += advances[index] ?? 0;
      }
    }
    return `${out}${pending ? `<${pending}>` : ""}] TJ${rise ? " 0 Ts" : ""}\n`;
  }
}

/** The text of a glyph without a character of its own, so that a reader does not guess one. */
const NOTHING = "\u200B";

/**
 * Returns the characters that each glyph stands for. Characters of a cluster go to its glyphs in reading order, which
 * is the reverse of the glyphs' order in a word set from right to left; remaining ones go to the last glyph.
 */
function clusterText(text: string, clusters: Uint16Array, index: number, rtl: boolean): string {
  const from = clusters[index] ?? 0;
  if (text.length === clusters.length && clusters.length === 1) return text;
  let end = text.length;
  for (const cluster of clusters) if (cluster > from && cluster < end) end = cluster;
  const characters = Array.from(text.slice(from, end));
  let first = index;
  while (first > 0 && clusters[first - 1] === from) first--;
  let last = index;
  while (last + 1 < clusters.length && clusters[last + 1] === from) last++;
  const glyphs = last - first + 1;
  const place = rtl ? last - index : index - first;
  if (place >= characters.length) return NOTHING;
  return place === glyphs - 1 ? characters.slice(place).join("") : must(characters[place]);
}

function drawLines(doc: Document, writer: TextWriter, lines: readonly SceneLine[]): void {
  const height = doc.page.height;
  let text = "";
  const rules: FigurePath[] = [];
  let behind = "";
  for (const { runs, y } of lines) {
    for (const run of runs) {
      if (run.formula) {
        drawPaths(doc, formulaPaths(run, y));
        continue;
      }
      text += writer.run(run, y - (run.rise ?? 0));
      if (run.highlight)
        behind += `${colour(run.highlight)} rg ${n(run.x)} ${n(height - (y + run.size * 0.25))} ${n(run.width)} ${n(run.size * 1.2)} re f\n`;
      if (run.underline || run.strike) rules.push(...ruledPaths(run, y - (run.rise ?? 0)));
      lead(doc, run.link, run.x, y - run.size, run.width, run.size * 1.25);
    }
  }
  if (text)
    (doc as unknown as { addContent(content: string): void }).addContent(
      `q 1 0 0 -1 0 ${n(height)} cm\n${behind}BT\n${text}ET Q`,
    );
  drawPaths(doc, rules);
}

/** Adds a link from an area to a page or to the web. */
function lead(doc: Document, link: string | undefined, x: number, y: number, width: number, height: number): void {
  if (link?.startsWith("slide:")) doc.goTo(x, y, width, height, link.slice(6));
  else if (link && !deckLink(link)) doc.link(x, y, width, height, link);
}

/** The number of layers that make a soft edge. */
const LAYERS = 20;
/** A clipping path that covers everything outside a drawing. */
const EVERYWHERE = "M-20000 -20000H20000V20000H-20000Z";
/**
 * Draws a path with a soft edge, for which PDF has no filter: outside, strokes of decreasing width, each adding its
 * share of the opacity; inside, all of it.
 */
function drawSoft(
  doc: Document,
  { d, fill, stroke, width = 1, fillOpacity, strokeOpacity }: FigurePath,
  by: number,
): void {
  const opacity = (fill ? fillOpacity : strokeOpacity) ?? 1;
  // This many layers together are as opaque as the edge itself.
  const share = 1 - (1 - opacity * (fill ? 0.7 : 1)) ** (1 / LAYERS);
  doc.save();
  if (fill) doc.path(`${d}${EVERYWHERE}`).clip("even-odd");
  doc.lineJoin("round").strokeOpacity(share);
  for (let nth = 0; nth < LAYERS; nth++) {
    // Distributed like a normal distribution (by its logistic approximation), with half the distance as its deviation.
    const left = (nth + 0.5) / LAYERS / 2;
    const reach = (by / 2) * (Math.log((1 - left) / left) / 1.702);
    doc
      .path(d)
      .lineWidth((fill ? 0 : width) + 2 * reach)
      .stroke(fill ?? stroke);
  }
  doc.restore();
  if (fill)
    doc
      .path(d)
      .fillOpacity(opacity * 0.85)
      .fill(fill);
}

/** Returns the marks of a pattern as page operators (ISO 32000-1, 8.5.2), in a square of 8 points. */
function marksOf(pattern: keyof typeof PATTERN_MARKS): string {
  let text = "";
  svgpath(PATTERN_MARKS[pattern])
    .abs()
    .iterate(([kind, ...at], _, x, y) => {
      const to = kind === "H" ? [at[0], y] : kind === "V" ? [x, at[0]] : at;
      text += kind === "Z" ? "h\n" : `${to.join(" ")} ${kind === "M" ? "m" : "l"}\n`;
    });
  return `${text}f`;
}

function drawPaths(doc: Document, paths: readonly FigurePath[]): void {
  for (const path of paths) {
    const { d, stroke, width, matrix, dash, fillOpacity, strokeOpacity } = path;
    doc.save();
    if (matrix) doc.transform(...matrix);
    if (path.blur) {
      drawSoft(doc, path, path.blur.by);
      doc.restore();
      continue;
    }
    const fill = fillOf(doc, path);
    if (path.paint?.fill.kind === "pattern") doc.path(d).fill(path.paint.fill.back);
    doc.path(d);
    if (stroke) doc.lineWidth(width ?? 1).lineJoin("round");
    if (stroke && dash) doc.dash(must(dash[0]), { space: (dash[1] ?? dash[0]) as number });
    if (fillOpacity !== undefined) doc.fillOpacity(fillOpacity);
    if (strokeOpacity !== undefined) doc.strokeOpacity(strokeOpacity);
    if (fill && stroke) doc.fillAndStroke(fill, stroke);
    else if (fill) doc.fill(fill);
    else if (stroke) doc.stroke(stroke);
    doc.restore();
  }
}

type Pictures = Pick<PdfOptions, "picture" | "recoloured">;
/** Whether the PDF can hold a picture as it is: PNG and JPEG. */
/** Opens a picture for the document. Returns undefined when it is damaged. */
function opened(doc: Document, bytes: Uint8Array): unknown {
  try {
    // A copy, because the bytes may be part of a larger buffer.
    return (doc as unknown as { openImage(bytes: ArrayBuffer): unknown }).openImage(new Uint8Array(bytes).buffer);
  } catch {
    return undefined;
  }
}

const isDrawable = (bytes: Uint8Array) =>
  (bytes[0] === 0x89 && bytes[1] === 0x50) || (bytes[0] === 0xff && bytes[1] === 0xd8);

/** Returns the colour or gradient of a path for pdfkit. */
function fillOf(doc: Document, { fill, paint }: FigurePath): string | PDFKit.Mixins.ColorValue | undefined {
  if (!paint) return fill;
  if (paint.fill.kind === "pattern")
    return [
      (doc as unknown as { pattern(...given: unknown[]): unknown }).pattern(
        [0, 0, 8, 8],
        8,
        8,
        marksOf(paint.fill.pattern),
      ),
      paint.fill.fore,
    ] as unknown as PDFKit.Mixins.ColorValue;
  const { frame } = paint;
  const { stops, form, angle } = paint.fill;
  const [cx, cy] = [frame.x + frame.width / 2, frame.y + frame.height / 2];
  const gradient =
    form === "radial"
      ? doc.radialGradient(cx, cy, 0, cx, cy, Math.max(frame.width, frame.height) / 2)
      : doc.linearGradient(...gradientLine(angle, frame));
  for (const { at, colour, opacity } of stops) gradient.stop(at, colour, opacity ?? 1);
  return gradient as unknown as PDFKit.Mixins.ColorValue;
}

/** Text roles that are headings of their slide. */
const HEADINGS: ReadonlySet<string> = new Set(["title", "opening"]);

/**
 * Draws a node inside its structure element for screen readers: a heading, a paragraph, a figure with its description,
 * or none (ISO 32000-1, 14.7 and 14.8).
 */
function drawTagged(
  doc: Document,
  writer: TextWriter,
  node: SceneNode,
  from: Pictures,
  section: PDFKit.PDFStructureElement,
): void {
  if (node.kind === "group") {
    inGroup(doc, node, (inner) => drawTagged(doc, writer, inner, from, section));
    return;
  }
  const figure = node.kind === "picture" && node.alt !== "";
  const foot = node.kind === "text" && node.element === null && (node.role === "footer" || node.role === "number");
  if (foot || (!figure && node.kind !== "text")) {
    doc.markContent("Artifact", { type: foot ? "Pagination" : "Layout" });
    drawNode(doc, writer, node, from);
    doc.endMarkedContent();
    return;
  }
  const tag = node.kind === "text" ? (HEADINGS.has(node.role) ? "H1" : "P") : "Figure";
  const content = doc.markStructureContent(tag);
  drawNode(doc, writer, node, from);
  doc.endMarkedContent();
  section.add(doc.struct(tag, figure && node.kind === "picture" ? { alt: node.alt } : {}, [content]));
}

type Leaf = Exclude<SceneNode, { kind: "group" }>;

function inGroup(
  doc: Document,
  { matrix, clip, opacity, nodes }: Extract<SceneNode, { kind: "group" }>,
  each: (node: SceneNode) => void,
): void {
  doc.save();
  if (matrix) doc.transform(...matrix);
  if (clip !== undefined) doc.path(clip).clip("even-odd");
  if (opacity !== undefined) doc.opacity(opacity);
  for (const inner of nodes) each(inner);
  doc.restore();
}

const blends = new WeakMap<Document, Map<string, unknown>>();
/** Sets the blend mode of what is drawn next (ISO 32000-1, 11.3.5), until the graphics state is restored. */
function blend(doc: Document, mode: "Saturation"): void {
  const known = blends.get(doc) ?? new Map<string, unknown>();
  blends.set(doc, known);
  const made = known.get(mode) ?? doc.ref({ Type: "ExtGState", BM: mode });
  if (!known.has(mode)) (made as { end(): void }).end();
  known.set(mode, made);
  (doc.page as unknown as { ext_gstates: Record<string, unknown> }).ext_gstates[mode] = made;
  doc.addContent(`/${mode} gs`);
}

/** Recolours a picture that was drawn: a grey that lends its saturation, or a translucent white. */
function recoloured(
  doc: Document,
  recolour: NonNullable<PictureElement["recolour"]>,
  { x, y, width, height }: { x: number; y: number; width: number; height: number },
): void {
  doc.save();
  if (recolour === "washout") doc.fillOpacity(0.7);
  else blend(doc, "Saturation");
  doc.rect(x, y, width, height).fill(recolour === "washout" ? "#ffffff" : "#808080");
  doc.restore();
}

function drawNode(doc: Document, writer: TextWriter, node: Leaf, from: Pictures): void {
  if (node.kind === "rect") doc.rect(node.x, node.y, node.width, node.height).fill(node.fill);
  else if (node.kind === "text") drawLines(doc, writer, node.lines);
  else if (node.kind === "paths") drawPaths(doc, node.paths);
  else {
    const other = node.sha256 && node.recolour ? from.recoloured?.(node.sha256, node.recolour) : undefined;
    const bytes = other ?? (node.sha256 ? from.picture(node.sha256) : undefined);
    const { x, y, width, height } = node;
    const image = bytes && isDrawable(bytes) ? opened(doc, bytes) : undefined;
    if (image) {
      doc.image(image as never, x, y, { width, height });
      if (node.recolour && !other) recoloured(doc, node.recolour, node);
    } else doc.rect(x, y, width, height).dash(6, { space: 4 }).stroke("#8a8f8d").undash();
  }
}

type OutlineItem = PDFKit.PDFOutline;

/**
 * Draws scenes as a PDF, one page each: embedded font subsets, real text, links to pages and the web, an outline with
 * slides under their sections and details under their main slides, a structure of headings, paragraphs and figures with
 * descriptions, title, author and language. Resolves with the file's bytes.
 */
export function scenesPdf(pages: Iterable<PdfPage>, options: PdfOptions): Promise<Uint8Array> {
  const { title, author, language, at } = options;
  const doc = new PDFDocument({
    autoFirstPage: false,
    lang: language,
    displayTitle: true,
    tagged: true,
    pdfVersion: "1.7",
    margin: 0,
    font: null as never,
    info: { Title: title, Author: author, Producer: "Unitext", Creator: "Unitext", CreationDate: at },
  }) as Document;
  const chunks: Uint8Array[] = [];
  const done = new Promise<Uint8Array>((resolve, reject) => {
    doc.on("data", (chunk: Uint8Array) => chunks.push(chunk));
    doc.on("error", reject);
    doc.on("end", () => resolve(joined(chunks)));
  });
  const writer = new TextWriter(doc, options.fonts);
  const above: OutlineItem[] = [];
  let within: OutlineItem = doc.outline;
  const whole = doc.struct("Document");
  doc.addStructure(whole);
  for (const { scene, slides } of pages) {
    doc.addPage({ size: [scene.page.width, scene.page.height], margin: 0 });
    for (const { id, name, level, section: begun } of slides) {
      doc.addNamedDestination(id);
      if (begun !== undefined) within = doc.outline.addItem(begun);
      above.length = Math.min(above.length, level);
      above.push((above.at(-1) ?? within).addItem(name));
    }
    const section = doc.struct("Sect", { title: slides[0]?.name ?? "" });
    whole.add(section);
    doc.markContent("Artifact", { type: "Background" } as never);
    doc.rect(0, 0, scene.page.width, scene.page.height).fill(scene.background);
    doc.endMarkedContent();
    for (const node of scene.nodes) drawTagged(doc, writer, node, options, section);
    section.end();
    for (const box of scene.boxes) lead(doc, box.link, box.x, box.y, box.width, box.height);
  }
  whole.end();
  doc.end();
  return done;
}

function joined(chunks: readonly Uint8Array[]): Uint8Array {
  const all = new Uint8Array(chunks.reduce((sum, chunk) => sum + chunk.length, 0));
  let at = 0;
  for (const chunk of chunks) {
    all.set(chunk, at);
    at += chunk.length;
  }
  return all;
}
