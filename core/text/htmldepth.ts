import { must } from "@unitext/core/model";
/** Tags nested deeper than this are dropped: they show nothing, and parsing them recursively could exhaust the stack. */
const DEPTH = 200;
/** Elements that hold nothing (HTML, 13.1.2), and those that another of their kind ends: they do not nest. */
const FLAT = new Set([
  "area",
  "base",
  "br",
  "col",
  "embed",
  "hr",
  "img",
  "input",
  "link",
  "meta",
  "source",
  "track",
  "wbr",
  "p",
  "li",
  "option",
  "dt",
  "dd",
  "tr",
  "td",
  "th",
]);

/** Returns HTML without the tags that are nested too deeply; their text is kept. */
export function flattened(html: string): string {
  let depth = 0;
  let deepest = 0;
  // The lengths are limited, because a tag that never ends would be followed to the end of the text from each of its
  // letters.
  const tags = /<(\/?)([a-z][a-z0-9-]*)(?:[^<>"']|"[^"]{0,4000}"|'[^']{0,4000}'){0,2000}?(\/?)>/gi;
  for (const [, close, name, empty] of html.matchAll(tags)) {
    if (empty || FLAT.has(must(name).toLowerCase())) continue;
    depth = Math.max(0, depth + (close ? -1 : 1));
    deepest = Math.max(deepest, depth);
  }
  if (deepest <= DEPTH) return html;
  depth = 0;
  return html.replace(tags, (tag, close: string, name: string, empty: string) => {
    if (empty || FLAT.has(name.toLowerCase())) return depth > DEPTH ? " " : tag;
    if (!close) depth += 1;
    const deep = depth > DEPTH;
    if (close) depth = Math.max(0, depth - 1);
    return deep ? " " : tag;
  });
}
