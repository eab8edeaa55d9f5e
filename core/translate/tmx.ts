import { sameLanguage } from "./languagetag";
import { Failure } from "@unitext/core/model";
import { attribute, scanXmlPieces, xml, XML_HEAD, XmlTree, type XmlNode } from "../formats/shared/xml";
import type { Piece } from "./coded";
import type { Context } from "./context";
import { readInline, TMX, writeInline } from "./inline";
import { withoutDoctype } from "./xmltext";

/** A sentence and its translation, as a memory keeps them. */
export interface MemoryUnit {
  from: string;
  to: string;
  source: Piece[];
  target: Piece[];
  /** Where the source was when it was translated, as far as that is known. */
  context?: Context | undefined;
}

/** The properties in which a TMX holds the context of a unit (TMX 1.4b, `prop`: types of one's own begin with “x-”). */
const CONTEXT = { before: "x-context-before", after: "x-context-after" } as const;

const propertiesOf = ({ context }: MemoryUnit) =>
  context
    ? [xml("prop", { type: CONTEXT.before }, context.before), xml("prop", { type: CONTEXT.after }, context.after)]
    : [];

/** Writes a memory as TMX 1.4b (LISA OSCAR, 2005). */
export function writeTmx(units: readonly MemoryUnit[], { from }: { from: string }): string {
  const header = {
    creationtool: "Unitext",
    creationtoolversion: "1",
    segtype: "sentence",
    "o-tmf": "unitext",
    adminlang: "en",
    srclang: from,
    datatype: "xml",
  };
  const seg = (language: string, pieces: readonly Piece[]) =>
    xml("tuv", { "xml:lang": language }, xml("seg", {}, writeInline(pieces, new Map(), TMX)));
  return (
    XML_HEAD +
    xml(
      "tmx",
      { version: "1.4" },
      xml("header", header),
      xml(
        "body",
        {},
        ...units.map((one) => xml("tu", {}, ...propertiesOf(one), seg(one.from, one.source), seg(one.to, one.target))),
      ),
    )
  );
}

/**
 * Reads the units of a TMX that have both languages, given as pieces of text, one by one. Throws a Failure
 * `not-readable` for a file that is no TMX or is damaged.
 */
export function readTmx(
  pieces: Iterable<string>,
  file: string,
  { from, to }: { from: string; to: string },
  take: (unit: MemoryUnit) => void,
): { units: number } {
  let units = 0;
  let isTmx = false;
  let depth = 0;
  let tree: XmlTree | undefined;
  scanXmlPieces(piecesWithoutDoctype(pieces), file, {
    open(name, attributes) {
      const local = name.slice(name.indexOf(":") + 1);
      depth += 1;
      if (depth === 1) isTmx = local === "tmx";
      if (!isTmx)
        throw new Failure("not-readable", file, "The file is no TMX. Choose a memory that a translator's tool wrote.");
      if (!tree && local === "tu") tree = new XmlTree(file, true);
      tree?.open(name, attributes);
    },
    close() {
      depth -= 1;
      tree?.close();
      if (!tree || depth > 2) return;
      const unit = tree.root && unitOf(tree.root as XmlNode, from, to);
      tree = undefined;
      if (!unit) return;
      units += 1;
      take(unit);
    },
    text: (characters) => tree?.text(characters),
  });
  return { units };
}

function* piecesWithoutDoctype(pieces: Iterable<string>): Generator<string> {
  let head = "";
  for (const piece of pieces) {
    if (head.length >= 10_000) {
      yield piece;
      continue;
    }
    head += piece;
    if (head.length >= 10_000) yield withoutDoctype(head);
  }
  if (head.length < 10_000) yield withoutDoctype(head);
}

function unitOf(unit: XmlNode, from: string, to: string): MemoryUnit | undefined {
  const ignore = () => undefined;
  const variants = unit.children
    .filter(({ local }) => local === "tuv")
    .flatMap((tuv) => {
      const seg = tuv.children.find(({ local }) => local === "seg");
      return seg ? [{ language: attribute(tuv, "lang") ?? "", pieces: readInline(seg, ignore) }] : [];
    });
  const source = variants.find(({ language }) => sameLanguage(language, from));
  const target = variants.find(({ language }) => sameLanguage(language, to));
  if (!source || !target) return undefined;
  const context = contextIn(unit);
  return { from, to, source: source.pieces, target: target.pieces, ...(context ? { context } : {}) };
}

function contextIn(unit: XmlNode): Context | undefined {
  const [before, after] = [CONTEXT.before, CONTEXT.after].map((type) => {
    const property = unit.children.find((child) => child.local === "prop" && attribute(child, "type") === type);
    return property?.content.filter((part) => typeof part === "string").join("");
  });
  return before === undefined || after === undefined ? undefined : { before, after };
}
