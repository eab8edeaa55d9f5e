import { type Frame, must, type Element } from "@unitext/core/model";
import { namespaces } from "../package/layouts";
import { NS, emu } from "../package/names";
import { relativeTo } from "../package/parts";
import type { SlideWork } from "../write/slidework";
import { type SlideRanges, elementRanges, rangeAt } from "./elementranges";
import type { SourceParts } from "./sourceparts";

const parsed = new WeakMap<SourceParts, Map<string, SlideRanges>>();

/**
 * Returns the ranges of the shapes in a slide part, parsed once a part; undefined when it cannot be updated in place.
 */
export function slicesIn(kept: SourceParts, part: string): SlideRanges | undefined {
  const held = parsed.get(kept) ?? new Map<string, SlideRanges>();
  parsed.set(kept, held);
  const known = held.get(part);
  if (known) return known;
  const text = kept.text(part);
  if (text === undefined) return undefined;
  const slices = elementRanges(text, part);
  held.set(part, slices);
  return slices;
}

const PLACED = /<((?:\w+:)?)off\b[^>]*?\/>\s*<((?:\w+:)?)ext\b(?=[^>]*\bcx=)[^>]*?\/>/;

/**
 * Returns the XML of a shape at another frame: with its position and size replaced, or added where its layout positions
 * it.
 */
export function moved(words: string, frame: Frame | undefined, rotation: number | undefined): string {
  if (!frame) return words;
  const turn = rotation ? ` rot="${Math.round(rotation * 60000)}"` : "";
  if (!PLACED.test(words)) {
    const own = `<a:xfrm xmlns:a="${NS.a}"${turn}><a:off x="${emu(frame.x)}" y="${emu(frame.y)}"/><a:ext cx="${emu(frame.width)}" cy="${emu(frame.height)}"/></a:xfrm>`;
    return words.replace(
      /<((?:\w+:)?spPr)\b([^>]*?)(\/?)>/,
      (_, name: string, rest: string, closed: string) => `<${name}${rest}>${own}${closed ? `</${name}>` : ""}`,
    );
  }
  const placed = words.replace(
    PLACED,
    (_, a: string, b: string) =>
      `<${a}off x="${emu(frame.x)}" y="${emu(frame.y)}"/><${b}ext cx="${emu(frame.width)}" cy="${emu(frame.height)}"/>`,
  );
  return placed.replace(
    /<((?:\w+:)?xfrm)\b([^>]*)>/,
    (_, name: string, rest: string) => `<${name}${rest.replace(/\srot="[^"]*"/, "")}${turn}>`,
  );
}

/** Returns the XML of a shape with the paragraphs of another; undefined when either has no text. */
export function reworded(words: string, other: string): string | undefined {
  const body = /<((?:\w+:)?txBody)\b[^>]*>([\s\S]*)<\/\1>/.exec(words);
  const first = body ? /<(?:\w+:)?p(?=[\s/>])/.exec(must(body[2])) : null;
  const theirs = /<p:txBody>([\s\S]*)<\/p:txBody>/.exec(other)?.[1];
  const from = theirs === undefined ? -1 : (/<a:p(?=[\s/>])|<mc:AlternateContent/.exec(theirs)?.index ?? -1);
  if (!body || !first || theirs === undefined || from < 0) return undefined;
  const declared = Object.entries(namespaces)
    .map(([name, uri]) => ` ${name}="${uri}"`)
    .join("");
  const paragraphs = theirs.slice(from).replace(/<a:p(?=[\s/>])/g, (open) => open + declared);
  const start = body.index + body[0].indexOf(must(body[2])) + first.index;
  return words.slice(0, start) + paragraphs + words.slice(body.index + body[0].length - `</${body[1]}>`.length);
}

/** Returns the XML of a shape with the namespace declarations of its file's root, so that it is valid in any part. */
function standing(words: string, root: string): string {
  const declared = [...root.matchAll(/\s(xmlns(?::\w+)?)="([^"]*)"/g)];
  return words.replace(
    /^<[\w:]+/,
    (open) =>
      open +
      declared
        .filter(([, name]) => !words.slice(0, words.indexOf(">")).includes(`${name}=`))
        .map(([, name, uri]) => ` ${name}="${uri}"`)
        .join(""),
  );
}

/**
 * Returns the XML of a source shape at the element's present frame, with relationships of the part that it moves to.
 * Undefined when the file does not have it.
 */
export function movedShape(kept: SourceParts, part: string, element: Element, work: SlideWork): string | undefined {
  const slices = element.sourceShape && slicesIn(kept, part);
  const found = slices && element.sourceShape ? rangeAt(slices, element.sourceShape.shape) : undefined;
  if (!slices || !found) return undefined;
  const rows = new Map(kept.relationships(part).map((row) => [row.id, row]));
  const root = slices.text.slice(...slices.root);
  const words = standing(
    moved(slices.text.slice(found.slice.from, found.slice.to), element.frame, element.rotation),
    root,
  );
  const prefix =
    /xmlns:(\w+)="http:\/\/(?:schemas\.openxmlformats\.org\/officeDocument\/2006|purl\.oclc\.org\/ooxml\/officeDocument)\/relationships"/.exec(
      root,
    )?.[1] ?? "r";
  return words.replace(new RegExp(`\\b(${prefix}:\\w+)="([^"]+)"`, "g"), (whole, name: string, id: string) => {
    const row = rows.get(id);
    if (!row) return whole;
    if (row.external) return `${name}="${work.relationships.add(row.type, row.target, true)}"`;
    const target = kept.take(row.target);
    return target === undefined
      ? whole
      : `${name}="${work.relationships.add(row.type, relativeTo(work.path, target))}"`;
  });
}
