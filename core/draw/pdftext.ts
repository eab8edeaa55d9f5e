import type { FigurePath } from "@unitext/core/figures";
import { type FontSet, type SceneRun, type SceneLine, formulaPaths, ruledPaths } from "@unitext/core/layout";
import { must } from "@unitext/core/model";
import { lead, type EmbeddedFont, type Document, n, hex, colour } from "./pdfdocument";
import { drawPaths } from "./pdfpaths";

/**
 * Writes text glyph by glyph as it was shaped, so that the PDF has exactly the lines and widths of the scene, and its
 * characters for reading and searching.
 */
export class TextWriter {
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

/** Draws laid out lines of text as glyphs. */
export function drawLines(doc: Document, writer: TextWriter, lines: readonly SceneLine[]): void {
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
