import { attribute, xml, type XmlNode } from "../formats/shared/xml";
import { escapeXml } from "@unitext/core/model";
import { type Code, codeLabel, joinPieces, type Piece } from "./coded";

/** How a format of exchange writes placeholders. */
export interface InlineNames {
  /** Returns a pair around content that is XML already. */
  pair(code: number, content: string, label: string): string;
  single(code: number, label: string): string;
}

/** XLIFF 1.2, section 2.3: `g` for paired placeholders, `x` for single ones. */
export const XLIFF_1: InlineNames = {
  pair: (code, content, label) => xml("g", { id: code, "equiv-text": label }, content),
  single: (code, label) => xml("x", { id: code, "equiv-text": label }),
};

/** XLIFF 2.1, section 4.2.3: `pc` for paired placeholders, `ph` for single ones. */
export const XLIFF_2: InlineNames = {
  pair: (code, content, label) => xml("pc", { id: code, dispStart: label }, content),
  single: (code, label) => xml("ph", { id: code, disp: label }),
};

/** TMX 1.4b: `bpt` and `ept` for the two ends of a pair, `ph` for single placeholders. */
export const TMX: InlineNames = {
  pair: (code, content) => `${xml("bpt", { i: code, x: code })}${content}${xml("ept", { i: code })}`,
  single: (code) => xml("ph", { x: code }),
};

/** Writes a coded text. A pair that crosses another one is closed before it. */
export function writeInline(pieces: readonly Piece[], codes: ReadonlyMap<number, Code>, names: InlineNames): string {
  const label = (code: number) => {
    const known = codes.get(code);
    return known ? codeLabel(known).slice(0, 200) : "";
  };
  const open: { code: number; content: string }[] = [{ code: 0, content: "" }];
  const add = (text: string) => {
    const top = open[open.length - 1];
    if (top) top.content += text;
  };
  const close = () => {
    const done = open.pop();
    if (done) add(names.pair(done.code, done.content, label(done.code)));
  };
  for (const piece of pieces) {
    if (typeof piece === "string") add(escapeXml(piece));
    else if (piece.at === "single") add(names.single(piece.code, label(piece.code)));
    else if (piece.at === "open") open.push({ code: piece.code, content: "" });
    else if (open.some(({ code }) => code === piece.code)) {
      while (open[open.length - 1]?.code !== piece.code) close();
      close();
    }
  }
  while (open.length > 1) close();
  return open[0]?.content ?? "";
}

/** Elements that hold words and have no meaning of their own here: marks of other tools. */
const THROUGH = new Set(["mrk", "sub", "hi"]);

/** How elements of the formats of exchange stand for placeholders, by their local name. */
const PLACES: Readonly<Record<string, "pair" | "single" | "open" | "close">> = {
  g: "pair",
  pc: "pair",
  x: "single",
  ph: "single",
  it: "single",
  ut: "single",
  bx: "open",
  bpt: "open",
  sc: "open",
  ex: "close",
  ept: "close",
  ec: "close",
};

/**
 * Reads the content of a source, a target or a segment of TMX. Placeholders are known by their numbers; those of other
 * tools, which have none, are reported to `unknown`.
 */
export function readInline(node: XmlNode, unknown: (name: string) => void): Piece[] {
  const pieces: Piece[] = [];
  /** The numbers of pairs of TMX and XLIFF 1.2 by what ties their ends. */
  const ends = new Map<string, number>();
  const numberOf = (element: XmlNode): number => {
    const tie = attribute(element, "rid") ?? attribute(element, "i") ?? attribute(element, "startRef");
    const own = Number(attribute(element, "x") ?? attribute(element, "startRef") ?? attribute(element, "id"));
    if (tie === undefined) return own;
    const number = ends.get(tie) ?? own;
    ends.set(tie, number);
    return number;
  };
  const walk = (holder: XmlNode) => {
    for (const part of holder.content) {
      if (typeof part === "string") {
        pieces.push(part);
        continue;
      }
      const place = PLACES[part.local];
      if (part.local === "cp")
        pieces.push(String.fromCodePoint(Number.parseInt(attribute(part, "hex") ?? "20", 16) || 32));
      else if (place === undefined || THROUGH.has(part.local)) walk(part);
      else {
        const code = numberOf(part);
        if (!Number.isInteger(code) || code < 1) {
          unknown(part.local);
          if (place === "pair") walk(part);
        } else if (place === "pair") {
          pieces.push({ code, at: "open" });
          walk(part);
          pieces.push({ code, at: "close" });
        } else pieces.push({ code, at: place });
      }
    }
  };
  walk(node);
  return joinPieces(pieces);
}
