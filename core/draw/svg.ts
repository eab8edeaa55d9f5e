import type { FigurePath } from "@unitext/core/figures";
import { type Frame, type Reveal, textHash, valueHash, escapeXml, languageDirection } from "@unitext/core/model";
import {
  cssFamily,
  drawsLigatures,
  type FontSet,
  formulaPaths,
  type Recolour,
  ruledPaths,
  type Scene,
  type SceneLine,
  type SceneNode,
  type SceneRun,
} from "@unitext/core/layout";

/** Returns the address or data URI of a picture; undefined when it is missing. */
export type PictureAddress = (sha256: string) => string | undefined;

export interface SvgOptions {
  picture: PictureAddress;
  /**
   * With fonts, text is drawn as glyph outlines and needs no font to display; without, as text in the shipped faces.
   */
  outlines?: FontSet;
  title?: string;
  /**
   * A prefix for the names that this drawing refers to, needed where several drawings share a page: a browser does not
   * use definitions of a drawing that is hidden.
   */
  own?: string;
}

/** Returns path data for drawing; empty for anything that is not path data. */
const drawn = (d: string) => (/^[MmZzLlHhVvCcSsQqTtAa0-9eE+\-.,\s]*$/.test(d) ? d : "");
/** Returns a colour for an attribute. */
const paintOf = (colour: string) =>
  /^(#[0-9a-fA-F]{3,8}|[a-z]+|rgba?\([\d\s.,%/]*\))$/.test(colour) ? colour : "none";

/** Returns a number as written in SVG, with at most three decimals. */
const n = (value: number) => String(Math.round(value * 1000) / 1000);

type Paint = NonNullable<FigurePath["paint"]>;
/**
 * Returns the name of a paint. Equal paints of a drawing share a name, so it does not matter which of them defines it.
 */
const paintId = (paint: Paint, own: string) => `${own}p${valueHash(paint)}`;

/** The lines and dots of a pattern in a square of 8 points. */
export const PATTERN_MARKS: Record<Extract<Paint["fill"], { kind: "pattern" }>["pattern"], string> = {
  dots: "M2 2h1v1h-1ZM6 6h1v1h-1Z",
  horizontal: "M0 2h8v1h-8ZM0 6h8v1h-8Z",
  vertical: "M2 0h1v8h-1ZM6 0h1v8h-1Z",
  rising: "M0 8L8 0h-1.4L0 6.6Z",
  falling: "M0 0L8 8v-1.4L1.4 0Z",
  grid: "M0 0h8v1h-8ZM0 0h1v8h-1Z",
  cross: "M0 8L8 0h-1.4L0 6.6ZM0 0L8 8v-1.4L1.4 0Z",
};

function paintMarkup(paint: Paint, own: string): string {
  const { fill, frame } = paint;
  const id = paintId(paint, own);
  if (fill.kind === "pattern")
    return `<pattern id="${id}" width="8" height="8" patternUnits="userSpaceOnUse"><rect width="8" height="8" fill="${paintOf(fill.back)}"/><path d="${PATTERN_MARKS[fill.pattern]}" fill="${paintOf(fill.fore)}"/></pattern>`;
  const stops = fill.stops
    .map(
      ({ at, colour, opacity }) =>
        `<stop offset="${n(at)}" stop-color="${paintOf(colour)}"${opacity === undefined ? "" : ` stop-opacity="${n(opacity)}"`}/>`,
    )
    .join("");
  if (fill.form === "radial") return `<radialGradient id="${id}">${stops}</radialGradient>`;
  const [x1, y1, x2, y2] = gradientLine(fill.angle, frame);
  return `<linearGradient id="${id}" gradientUnits="userSpaceOnUse" x1="${n(x1)}" y1="${n(y1)}" x2="${n(x2)}" y2="${n(y2)}">${stops}</linearGradient>`;
}

/** Returns the line of a linear gradient over a frame whose ends reach the corners. */
export function gradientLine(angle: number, { x, y, width, height }: Frame): [number, number, number, number] {
  const turn = (angle * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const half = (Math.abs(width * cos) + Math.abs(height * sin)) / 2;
  const [cx, cy] = [x + width / 2, y + height / 2];
  return [cx - cos * half, cy - sin * half, cx + cos * half, cy + sin * half];
}

/** Returns a filter (SVG 1.1, 15.17) that spreads an edge over a distance, half of it to each side. */
function blurMarkup(
  { by, frame: { x, y, width, height } }: NonNullable<FigurePath["blur"]>,
  own: string,
): { id: string; markup: string } {
  const id = `${own}s${valueHash([by, x, y, width, height])}`;
  return {
    id,
    markup: `<filter id="${id}" filterUnits="userSpaceOnUse" x="${n(x)}" y="${n(y)}" width="${n(width)}" height="${n(height)}"><feGaussianBlur stdDeviation="${n(by / 2)}"/></filter>`,
  };
}

/** Returns the outlines of a figure or formula as markup; `own` is a prefix for the names of their paints. */
export function pathsMarkup(paths: readonly FigurePath[], own = ""): string {
  return paths.map((path) => (path.blur ? softPath(path, path.blur, own) : pathMarkup(path, own))).join("");
}

const softPath = ({ blur: _, ...path }: FigurePath, blur: NonNullable<FigurePath["blur"]>, own: string) => {
  const { id, markup } = blurMarkup(blur, own);
  return markup + pathMarkup(path, own).replace("<path ", `<path filter="url(#${id})" `);
};

function pathMarkup(
  { d, fill, stroke, width, matrix, dash, fillOpacity, strokeOpacity, paint }: FigurePath,
  own: string,
): string {
  return `${paint ? paintMarkup(paint, own) : ""}<path d="${drawn(d)}" fill="${paint ? `url(#${paintId(paint, own)})` : paintOf(fill ?? "none")}"${fillOpacity === undefined ? "" : ` fill-opacity="${n(fillOpacity)}"`}${stroke ? ` stroke="${paintOf(stroke)}" stroke-width="${n(width ?? 1)}" stroke-linejoin="round"${dash ? ` stroke-dasharray="${dash.map(n).join(" ")}"` : ""}${strokeOpacity === undefined ? "" : ` stroke-opacity="${n(strokeOpacity)}"`}` : ""}${matrix ? ` transform="matrix(${matrix.map((value) => Number(value.toFixed(6))).join(" ")})"` : ""}/>`;
}

function textRun(run: SceneRun, line: number): string {
  if (run.formula) return pathsMarkup(formulaPaths(run, line));
  const y = line - (run.rise ?? 0);
  const direction = run.rtl ? ' direction="rtl"' : "";
  const x = run.rtl ? run.x + run.width : run.x;
  return `<text x="${n(x)}" y="${n(y)}"${direction} font-family="${cssFamily(run.face)}" font-size="${n(run.size)}" fill="${paintOf(run.fill)}"${drawsLigatures(run.face) ? "" : ' style="font-variant-ligatures:none"'} xml:space="preserve">${escapeXml(run.text)}</text>`;
}

/** Glyph outlines, each defined once and used where it occurs. */
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
        const { id, em } = this.define(face, word.glyphs[at] ?? 0, shaping);
        const dx = (word.offsets?.[at * 2] ?? 0) * size;
        const dy = (word.offsets?.[at * 2 + 1] ?? 0) * size;
        if (id)
          out += `<use href="#${id}" transform="translate(${n(pen + dx)} ${n(y - dy)}) scale(${(size / em).toFixed(6)} ${(-size / em).toFixed(6)})"/>`;
        pen += (word.advances[at] ?? 0) * size;
      }
    }
    return out ? `<g fill="${paintOf(fill)}">${out}</g>` : "";
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
  const behind = line.runs
    .map((run) =>
      run.highlight
        ? `<rect x="${n(run.x)}" y="${n(line.y - run.size * 0.95)}" width="${n(run.width)}" height="${n(run.size * 1.2)}" fill="${paintOf(run.highlight)}"/>`
        : "",
    )
    .join("");
  return (
    behind +
    line.runs
      .map(
        (run) =>
          (outlines && !run.formula ? outlines.run(run, line.y - (run.rise ?? 0)) : textRun(run, line.y)) +
          pathsMarkup(ruledPaths(run, line.y - (run.rise ?? 0))),
      )
      .join("")
  );
}

function pictureMarkup(node: Extract<SceneNode, { kind: "picture" }>, picture: PictureAddress, own: string): string {
  const { x, y, width, height, alt, sha256 } = node;
  const place = `x="${n(x)}" y="${n(y)}" width="${n(width)}" height="${n(height)}"`;
  const address = sha256 ? picture(sha256) : undefined;
  if (!address)
    return `<g role="img" aria-label="${escapeXml(alt)}"><rect ${place} fill="none" stroke="#8a8f8d" stroke-width="1" stroke-dasharray="6 4"/></g>`;
  const image = `<image ${place} href="${escapeXml(address)}" preserveAspectRatio="none" aria-label="${escapeXml(alt)}"/>`;
  return node.recolour
    ? `${recolourMarkup(node.recolour, own)}<g filter="url(#${own}recolour-${node.recolour})">${image}</g>`
    : image;
}

const RECOLOURS: Record<Recolour, string> = {
  grey: '<feColorMatrix type="saturate" values="0"/>',
  mono: `<feColorMatrix type="saturate" values="0"/><feComponentTransfer>${["R", "G", "B"].map((channel) => `<feFunc${channel} type="discrete" tableValues="0 1"/>`).join("")}</feComponentTransfer>`,
  washout: `<feComponentTransfer>${["R", "G", "B"].map((channel) => `<feFunc${channel} type="linear" slope="0.3" intercept="0.7"/>`).join("")}</feComponentTransfer>`,
};

/** Returns the filter (SVG 1.1, 15) that recolours a picture. */
export function recolourMarkup(recolour: Recolour, own = ""): string {
  return `<filter id="${own}recolour-${recolour}" color-interpolation-filters="sRGB">${RECOLOURS[recolour]}</filter>`;
}

/** Returns the entrance of an element or of a paragraph; undefined where it is visible from the start. */
type RevealOf = (element: string | null, paragraph?: number) => Reveal | undefined;

const DRAW: {
  [K in SceneNode["kind"]]: (
    node: Extract<SceneNode, { kind: K }>,
    options: SvgOptions,
    outlines: Outlines | undefined,
    revealOf: RevealOf,
  ) => string;
} = {
  rect: ({ x, y, width, height, fill }) =>
    `<rect x="${n(x)}" y="${n(y)}" width="${n(width)}" height="${n(height)}" fill="${paintOf(fill)}"/>`,
  paths: ({ paths }, { own }) => pathsMarkup(paths, own),
  text: ({ element, lines }, _, outlines, revealOf) =>
    lines.map((line) => revealed(lineMarkup(line, outlines), revealOf(element, line.paragraph))).join(""),
  picture: (node, { picture, own = "" }) => pictureMarkup(node, picture, own),
  group: ({ matrix, clip, opacity, nodes }, options, outlines, revealOf) => {
    const id = clip === undefined ? "" : `${options.own ?? ""}c${textHash(clip)}`;
    const inside = nodes.map((node) => drawnNode(node, options, outlines, revealOf)).join("");
    const cut =
      clip === undefined
        ? inside
        : `<clipPath id="${id}"><path d="${drawn(clip)}" clip-rule="evenodd"/></clipPath><g clip-path="url(#${id})">${inside}</g>`;
    return `<g${matrix ? ` transform="matrix(${matrix.map((value) => Number(value.toFixed(6))).join(" ")})"` : ""}${opacity === undefined ? "" : ` opacity="${n(opacity)}"`}>${cut}</g>`;
  },
};

/** Wraps what has an entrance in a group that says when and how it appears. */
function revealed(drawn: string, reveal: Reveal | undefined): string {
  if (!reveal) return drawn;
  const { press, start, effect, seconds } = reveal;
  const moving = effect !== "appear" || start > 0;
  return `<g data-step="${press}"${moving ? ` data-effect="${effect}" style="--takes:${n(seconds)}s;--waits:${n(start)}s"` : ""}>${drawn}</g>`;
}

function drawnNode(node: SceneNode, options: SvgOptions, outlines: Outlines | undefined, revealOf: RevealOf): string {
  const draw = DRAW[node.kind] as (
    node: SceneNode,
    options: SvgOptions,
    outlines: Outlines | undefined,
    revealOf: RevealOf,
  ) => string;
  const whole = "element" in node ? revealOf(node.element) : undefined;
  // An element that appears as one is one group, however it is drawn.
  return whole ? revealed(draw(node, options, outlines, always), whole) : draw(node, options, outlines, revealOf);
}

const always: RevealOf = () => undefined;

function nodesMarkup(scene: Scene, options: SvgOptions, outlines: Outlines | undefined, revealOf: RevealOf): string {
  return scene.nodes.map((node) => drawnNode(node, options, outlines, revealOf)).join("");
}

/**
 * Returns several scenes as markup for one HTML page: glyph outlines are defined once for all of them, in an element
 * that comes first. What appears at a press is a group with the press's number as `data-step` and its effect.
 */
export function scenesMarkup(
  scenes: readonly Scene[],
  options: SvgOptions & { outlines: FontSet },
): { definitions: string; drawings: string[] } {
  const outlines = new Outlines(options.outlines);
  const drawings = scenes.map((scene, nth) => {
    const { width, height } = scene.page;
    const revealOf: RevealOf = (element, paragraph) =>
      scene.reveals?.find((reveal) => reveal.element === element && reveal.paragraph === paragraph);
    const direction = languageDirection(scene.language) === "rtl" ? ' data-direction="rtl"' : "";
    return `<svg viewBox="0 0 ${n(width)} ${n(height)}"${direction} aria-hidden="true"><rect width="${n(width)}" height="${n(height)}" fill="${paintOf(scene.background)}"/>${nodesMarkup(scene, { ...options, own: `d${nth + 1}-` }, outlines, revealOf)}</svg>`;
  });
  return {
    definitions: `<svg width="0" height="0" aria-hidden="true"><defs>${outlines.definitions.join("")}</defs></svg>`,
    drawings,
  };
}

/** Returns the scene as a complete SVG document, one unit a point. */
export function sceneSvg(scene: Scene, options: SvgOptions): string {
  const outlines = options.outlines && new Outlines(options.outlines);
  const { width, height } = scene.page;
  const body = nodesMarkup(scene, options, outlines, always);
  const title = options.title ? `<title>${escapeXml(options.title)}</title>` : "";
  const definitions = outlines?.definitions.length ? `<defs>${outlines.definitions.join("")}</defs>` : "";
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${n(width)}" height="${n(height)}" viewBox="0 0 ${n(width)} ${n(height)}" xml:lang="${escapeXml(scene.language)}">${title}${definitions}<rect width="${n(width)}" height="${n(height)}" fill="${paintOf(scene.background)}"/>${body}</svg>`;
}
