import { withEndOfPng } from "./png";
import type { PictureElement } from "@unitext/core/model";
import type { FontSet, Scene, SceneNode } from "@unitext/core/layout";
import PDFDocument from "pdfkit";
import { TextWriter, drawLines } from "./pdftext";
import { type Document, lead } from "./pdfdocument";
import { drawPaths } from "./pdfpaths";

/** A page of the PDF: its scene, and the slides on it with their names, levels and sections for the outline. */
export interface PdfPage {
  scene: Scene;
  slides: readonly { id: string; name: string; level: number; section?: string }[];
  /** A note that readers show when its sign in the lower right corner is pressed; none when empty. */
  note?: string;
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

type Pictures = Pick<PdfOptions, "picture" | "recoloured">;

/** Opens a picture for the document. Returns undefined when it is damaged. */
function opened(doc: Document, bytes: Uint8Array): unknown {
  try {
    // A copy, because the bytes may be part of a larger buffer.
    return (doc as unknown as { openImage(bytes: ArrayBuffer): unknown }).openImage(
      new Uint8Array(withEndOfPng(bytes)).buffer,
    );
  } catch {
    return undefined;
  }
}

/** Whether the PDF can hold a picture as it is: PNG and JPEG. */
const isDrawable = (bytes: Uint8Array) =>
  (bytes[0] === 0x89 && bytes[1] === 0x50) || (bytes[0] === 0xff && bytes[1] === 0xd8);

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
  for (const { scene, slides, note } of pages) {
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
    if (note) doc.note(scene.page.width - 28, scene.page.height - 26, 18, 18, note);
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
