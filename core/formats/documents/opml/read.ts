import { Failure, MAX_LEVEL, type Paragraph, run } from "@unitext/core/model";
import { linkTarget } from "@unitext/core/text";
import { at, child, childrenOf, localName, readXml, type XmlElement } from "../../shared/xml";
import { type DocumentRead, emptyDocument } from "../../shared/document/document";

/** Returns the depth of the outline below an entry. */
function depthBelow(outline: XmlElement): number {
  const below = childrenOf(outline, "outline");
  return below.length ? 1 + Math.max(...below.map(depthBelow)) : 0;
}

function items(outline: XmlElement, level: number): Paragraph[] {
  const { attributes } = outline;
  const words = (attributes.text ?? attributes.title ?? "").replace(/<[^>]+>/g, "").trim();
  const link = linkTarget(attributes.url ?? attributes.htmlUrl ?? "");
  const note = (attributes._note ?? "").trim();
  const own: Paragraph[] = words
    ? [{ kind: "bullet", level: Math.min(MAX_LEVEL, level), runs: [run(words, [], link)] }]
    : [];
  if (note)
    own.push({ kind: "plain", level: Math.min(MAX_LEVEL, level + 1), runs: [run(note.replace(/\s*\n\s*/g, " "))] });
  return [...own, ...childrenOf(outline, "outline").flatMap((inner) => items(inner, level + 1))];
}

/**
 * Reads an outline in OPML 2.0: entries of the first level are slides, or sections where two more levels are below;
 * deeper ones are points.
 */
export function readOpml(text: string, name: string): DocumentRead {
  const root = readXml(text, name);
  if (localName(root) !== "opml")
    throw new Failure("not-readable", name, "The file is XML, but not an outline in OPML.");
  const document = emptyDocument();
  const title = at(root, "head", "title")?.text.trim();
  const author = at(root, "head", "ownerName")?.text.trim();
  if (title) document.front.title = title;
  if (author) document.front.author = author;
  const entries = childrenOf(child(root, "body"), "outline");
  const deep = entries.some((entry) => depthBelow(entry) >= 2);
  let line = 1;
  const heading = (outline: XmlElement, depth: number) => {
    const words = (outline.attributes.text ?? outline.attributes.title ?? "").replace(/<[^>]+>/g, "").trim();
    const note = (outline.attributes._note ?? "").trim();
    if (words)
      document.blocks.push({
        kind: "heading",
        depth,
        text: [{ kind: "plain", level: 0, runs: [run(words)] }],
        from: line,
        to: line++,
      });
    if (note)
      document.blocks.push({
        kind: "text",
        text: [{ kind: "plain", level: 0, runs: [run(note.replace(/\s*\n\s*/g, " "))] }],
        from: line,
        to: line++,
      });
  };
  const points = (outline: XmlElement) => {
    const text = childrenOf(outline, "outline").flatMap((inner) => items(inner, 0));
    if (text.length) document.blocks.push({ kind: "text", text, from: line, to: line++ });
  };
  for (const entry of entries) {
    heading(entry, deep ? 1 : 2);
    if (!deep) points(entry);
    else {
      for (const inner of childrenOf(entry, "outline")) {
        heading(inner, 2);
        points(inner);
      }
    }
  }
  if (!document.blocks.length) throw new Failure("not-readable", name, "The outline holds no entries.");
  return document;
}
