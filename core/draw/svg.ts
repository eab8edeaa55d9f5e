import type { FigurePath } from "@unitext/core/figures";
import { cssFamily, drawsLigatures, type FontSet, formulaPaths, type Scene, type SceneLine, type SceneNode, type SceneRun } from "@unitext/core/layout";

/** Gives the address or data URI of a picture's bytes, or undefined when they are not to be had. */
export type PictureAddress = (sha256: string) => string | undefined;

export interface SvgOptions {
  picture: PictureAddress;
  /** With fonts, text is drawn as glyph outlines and needs no font to be seen; without, as text in the shipped faces. */
  outlines?: FontSet;
  title?: string;
}

const ESCAPES: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" };
export function escapeXml(text: string): string {
  // The characters that XML 1.0 does not allow are dropped.
  return text.replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g, "").replace(/[&<>"]/g, (character) => ESCAPES[character] as string);
}

/** A number as SVG writes it: at most three decimals. */
const n = (value: number) => String(Math.round(value * 1000) / 1000);

function decoration(run: SceneRun, y: number): string {
  const line = (at: number) => `<rect x="${n(run.x)}" y="${n(y + at * run.size)}" width="${n(run.width)}" height="${n(run.size * 0.05)}" fill="${run.fill}"/>`;
  return (run.underline ? line(0.12) : "") + (run.strike ? line(-0.28) : "");
}

/** The outlines of a figure, or of a formula in its line. */
export function pathsMarkup(paths: readonly FigurePath[]): string {
  return paths.map(({ d, fill, stroke, width, matrix }) => `<path d="${d}" fill="${fill ?? "none"}"${stroke ? ` stroke="${stroke}" stroke-width="${n(width ?? 1)}" stroke-linejoin="round"` : ""}${matrix ? ` transform="matrix(${matrix.map((value) => Number(value.toFixed(6))).join(" ")})"` : ""}/>`).join("");
}

function textRun(run: SceneRun, line: number): string {
  if (run.formula) return pathsMarkup(formulaPaths(run, line));
  const y = line - (run.rise ?? 0);
  const direction = run.rtl ? ' direction="rtl"' : "";
  const x = run.rtl ? run.x + run.width : run.x;
  return `<text x="${n(x)}" y="${n(y)}"${direction} font-family="${cssFamily(run.face)}" font-size="${n(run.size)}" fill="${run.fill}"${drawsLigatures(run.face) ? "" : ' style="font-variant-ligatures:none"'} xml:space="preserve">${escapeXml(run.text)}</text>`;
}

/** Glyph outlines, each defined once and used where it stands. */
class Outlines {
  private readonly ids = new Map<string, string>();
  readonly definitions: string[] = [];
  constructor(private readonly fonts: FontSet) {}

  run(run: SceneRun, y: number): string {
    const { face, size, fill } = run;
    const shaping = this.fonts.face(face);
    let out = "";
    for (const { x, word } of run.words ?? []) {
      let pen = run.x + x;
      for (let at = 0; at < word.glyphs.length; at++) {
        const { id, em } = this.define(face, word.glyphs[at] as number, shaping);
        const dx = (word.offsets?.[at * 2] ?? 0) * size;
        const dy = (word.offsets?.[at * 2 + 1] ?? 0) * size;
        if (id) out += `<use href="#${id}" transform="translate(${n(pen + dx)} ${n(y - dy)}) scale(${(size / em).toFixed(6)} ${(-size / em).toFixed(6)})"/>`;
        pen += (word.advances[at] as number) * size;
      }
    }
    return out ? `<g fill="${fill}">${out}</g>` : "";
  }

  private define(face: string, glyph: number, shaping: ReturnType<FontSet["face"]>): { id: string; em: number } {
    const key = `${face}/${glyph}`;
    const known = this.ids.get(key);
    if (known !== undefined) return { id: known, em: this.em(face, shaping) };
    const { path } = shaping.outline(glyph);
    const id = path ? `g${this.ids.size}` : "";
    this.ids.set(key, id);
    if (path) this.definitions.push(`<path id="${id}" d="${path}"/>`);
    return { id, em: this.em(face, shaping) };
  }

  private readonly ems = new Map<string, number>();
  private em(face: string, shaping: ReturnType<FontSet["face"]>): number {
    const known = this.ems.get(face) ?? shaping.outline(0).em;
    this.ems.set(face, known);
    return known;
  }
}

function lineMarkup(line: SceneLine, outlines: Outlines | undefined): string {
  return line.runs.map((run) => (outlines && !run.formula ? outlines.run(run, line.y - (run.rise ?? 0)) : textRun(run, line.y)) + decoration(run, line.y)).join("");
}

function pictureMarkup(node: Extract<SceneNode, { kind: "picture" }>, picture: PictureAddress): string {
  const { x, y, width, height, alt, sha256 } = node;
  const place = `x="${n(x)}" y="${n(y)}" width="${n(width)}" height="${n(height)}"`;
  const address = sha256 ? picture(sha256) : undefined;
  if (!address) return `<g role="img" aria-label="${escapeXml(alt)}"><rect ${place} fill="none" stroke="#8a8f8d" stroke-width="1" stroke-dasharray="6 4"/></g>`;
  return `<image ${place} href="${escapeXml(address)}" preserveAspectRatio="xMidYMid meet" aria-label="${escapeXml(alt)}"/>`;
}

const DRAW: { [K in SceneNode["kind"]]: (node: Extract<SceneNode, { kind: K }>, options: SvgOptions, outlines: Outlines | undefined) => string } = {
  rect: ({ x, y, width, height, fill }) => `<rect x="${n(x)}" y="${n(y)}" width="${n(width)}" height="${n(height)}" fill="${fill}"/>`,
  paths: ({ paths }) => pathsMarkup(paths),
  text: ({ lines }, _, outlines) => lines.map((line) => lineMarkup(line, outlines)).join(""),
  picture: (node, { picture }) => pictureMarkup(node, picture),
};

/** The scene as a complete SVG document, one unit a point. */
export function sceneSvg(scene: Scene, options: SvgOptions): string {
  const outlines = options.outlines && new Outlines(options.outlines);
  const { width, height } = scene.page;
  const body = scene.nodes.map((node) => (DRAW[node.kind] as (node: SceneNode, options: SvgOptions, outlines: Outlines | undefined) => string)(node, options, outlines)).join("");
  const title = options.title ? `<title>${escapeXml(options.title)}</title>` : "";
  const definitions = outlines?.definitions.length ? `<defs>${outlines.definitions.join("")}</defs>` : "";
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${n(width)}" height="${n(height)}" viewBox="0 0 ${n(width)} ${n(height)}" xml:lang="${escapeXml(scene.language)}">${title}${definitions}<rect width="${n(width)}" height="${n(height)}" fill="${scene.background}"/>${body}</svg>`;
}
