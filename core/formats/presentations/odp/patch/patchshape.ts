import { escapeXml, type Frame } from "@unitext/core/model";
import { SHAPES } from "../read/shape";
import { transformAttributes } from "../write/drawing";

export const DRAWN = new Set([...SHAPES, "frame", "g", "a", "control", "scene", "annotation"]);
export const unescaped = (value: string) =>
  value.replace(
    /&(lt|gt|quot|apos|amp|#(\d+)|#x([0-9a-f]+));/gi,
    (whole, name: string, decimal?: string, hex?: string) =>
      decimal
        ? String.fromCodePoint(Number(decimal))
        : hex
          ? String.fromCodePoint(Number.parseInt(hex, 16))
          : ({ lt: "<", gt: ">", quot: '"', apos: "'", amp: "&" }[name.toLowerCase()] ?? whole),
  );
export const attributeOf = (tag: string, name: string) => {
  const found = new RegExp(`\\s${name}\\s*=\\s*("([^"]*)"|'([^']*)')`).exec(tag);
  return found ? unescaped(found[2] ?? found[3] ?? "") : undefined;
};

/** Returns a tag with an attribute set. */
export function withAttribute(tag: string, name: string, value: string): string {
  const written = ` ${name}="${escapeXml(value)}"`;
  const pattern = new RegExp(`\\s${name}\\s*=\\s*("[^"]*"|'[^']*')`);
  return pattern.test(tag) ? tag.replace(pattern, () => written) : tag.replace(/\s*\/?>$/, (end) => written + end);
}

const PLACE_ATTRIBUTES = /\ssvg:width\s*=/;

/** Returns the XML of a shape at another frame; undefined when its place is not set by a frame. */
export function withPlace(words: string, frame: Frame | undefined, rotation: number | undefined): string | undefined {
  const end = words.indexOf(">") + 1;
  const tag = words.slice(0, end);
  if (!frame || !PLACE_ATTRIBUTES.test(tag) || !/\s(?:svg:x|draw:transform)\s*=/.test(tag)) return undefined;
  const bare = tag.replace(/\s(?:svg:x|svg:y|svg:width|svg:height|draw:transform)\s*=\s*(?:"[^"]*"|'[^']*')/g, "");
  return (
    Object.entries(transformAttributes(frame, rotation)).reduce(
      (made, [name, value]) => withAttribute(made, name, String(value)),
      bare,
    ) + words.slice(end)
  );
}

/** Returns the XML of a shape with other paragraphs; undefined when it has no place for them. */
export function withText(words: string, text: string | undefined): string | undefined {
  if (text === undefined) return undefined;
  const box = /<draw:text-box\b([^>]*?)(?:\/>|>[\s\S]*<\/draw:text-box>)/.exec(words);
  if (words.startsWith("<draw:frame"))
    return box
      ? `${words.slice(0, box.index)}<draw:text-box${box[1]}>${text || "<text:p/>"}</draw:text-box>${words.slice(box.index + box[0].length)}`
      : undefined;
  const close = words.lastIndexOf("</");
  if (close < 0 || !/^<draw:(?:custom-shape|rect|ellipse|circle|polygon|path|caption)\b/.test(words)) return undefined;
  const geometry = words.indexOf("<draw:enhanced-geometry");
  const to = geometry < 0 ? close : geometry;
  const first = /<text:(?:p|h|list)\b/.exec(words)?.index ?? to;
  return words.slice(0, Math.min(first, to)) + text + words.slice(to);
}
