import { type Deck, Failure } from "@unitext/core/model";
import { attribute, child, childrenOf, readMixed, xml, XML_HEAD, type XmlNode } from "../formats/shared/xml";
import { type Piece, wordsOf } from "./coded";
import { readInline, writeInline, XLIFF_1, XLIFF_2 } from "./inline";
import type { Proposal } from "./memory";
import { placeOf, type Segment, type SegmentState, type Target } from "./segments";

export const XLIFF_VERSIONS = ["1.2", "2.1"] as const;
export type XliffVersion = (typeof XLIFF_VERSIONS)[number];

/** A segment as a file of exchange has it; `target` is missing where it has not been translated. */
export interface ExchangedSegment {
  id: string;
  source: Piece[];
  target?: Piece[];
  state: SegmentState;
}

/** A file of exchange that was read. */
export interface ExchangeFile {
  from: string;
  to: string;
  segments: ExchangedSegment[];
  /** What of the file could not be used, a sentence each. */
  problems: string[];
}

/** How states are written (XLIFF 1.2, 2.1 and 3, `state`; XLIFF 2.1, 4.3.1.42). */
const STATES_1: Record<SegmentState, string> = {
  untranslated: "needs-translation",
  proposed: "needs-review-translation",
  draft: "translated",
  reviewed: "final",
  outdated: "needs-adaptation",
};
const STATES_2: Record<SegmentState, string> = {
  untranslated: "initial",
  proposed: "translated",
  draft: "translated",
  reviewed: "reviewed",
  outdated: "initial",
};

/** Returns groups of segments that follow each other with the same key. */
function grouped(segments: readonly Segment[], keyOf: (segment: Segment) => string): [string, Segment[]][] {
  const groups: [string, Segment[]][] = [];
  for (const segment of segments) {
    const key = keyOf(segment);
    const last = groups.at(-1);
    if (last?.[0] === key) last[1].push(segment);
    else groups.push([key, [segment]]);
  }
  return groups;
}

interface ExchangeRequest {
  deck: Deck;
  to: string;
  segments: readonly Segment[];
  /** Returns what has been translated already. */
  targetOf?: (segment: Segment) => Target | undefined;
  /** Returns what a memory proposes, the most similar first. */
  proposalsOf?: (segment: Segment) => readonly Proposal[];
}

/** Returns pieces without placeholders that a segment does not have: a memory has those of other texts too. */
const withKnownCodes = (pieces: readonly Piece[], { codes }: Segment): Piece[] =>
  pieces.filter((piece) => typeof piece === "string" || codes.has(piece.code));

const percent = (likeness: number) => Math.round(likeness * 100);

/** The namespace of translation candidates in XLIFF 2.1, section 5.1. */
const MATCHES = "urn:oasis:names:tc:xliff:matches:2.0";

/** Writes segments as XLIFF 1.2 or 2.1 (OASIS), each with its slide and what it is as a note. */
export function writeXliff(request: ExchangeRequest, version: XliffVersion): string {
  return XML_HEAD + (version === "1.2" ? xliff1(request) : xliff2(request));
}

/** Writes proposals as `alt-trans` (XLIFF 1.2, section 2.3). */
function alternatives1(segment: Segment, { to, proposalsOf }: ExchangeRequest): string {
  const inline = (pieces: readonly Piece[]) => writeInline(withKnownCodes(pieces, segment), segment.codes, XLIFF_1);
  return (proposalsOf?.(segment) ?? [])
    .map(({ source, pieces, likeness }) =>
      xml(
        "alt-trans",
        { "match-quality": `${percent(likeness)}%`, origin: "memory" },
        xml("source", {}, inline(source)),
        xml("target", { "xml:lang": to }, inline(pieces)),
      ),
    )
    .join("");
}

/** Writes proposals for the segments of a unit as translation candidates (XLIFF 2.1, section 5.1). */
function matches2(segments: readonly Segment[], { proposalsOf }: ExchangeRequest): string | undefined {
  const matches = segments.flatMap((segment) => {
    const inline = (pieces: readonly Piece[]) => writeInline(withKnownCodes(pieces, segment), segment.codes, XLIFF_2);
    return (proposalsOf?.(segment) ?? []).map(({ source, pieces, likeness }) =>
      xml(
        "mtc:match",
        { ref: `#${segmentName(segment)}`, matchQuality: percent(likeness), type: "tm" },
        xml("source", {}, inline(source)),
        xml("target", {}, inline(pieces)),
      ),
    );
  });
  return matches.length ? xml("mtc:matches", { "xmlns:mtc": MATCHES }, ...matches) : undefined;
}

function xliff1(request: ExchangeRequest): string {
  const { deck, to, segments, targetOf } = request;
  const units = grouped(segments, ({ unit }) => unit.slideId ?? "deck").map(([slide, own]) =>
    xml(
      "group",
      { id: slide, resname: own[0] ? placeOf(own[0], deck).replace(/: \w+$/, "") : slide },
      ...own.map((segment) => {
        const target = targetOf?.(segment);
        return xml(
          "trans-unit",
          { id: segment.id, "xml:space": "preserve", approved: target?.state === "reviewed" ? "yes" : undefined },
          xml("source", { "xml:lang": deck.language }, writeInline(segment.source, segment.codes, XLIFF_1)),
          target
            ? xml(
                "target",
                { "xml:lang": to, state: STATES_1[target.state] },
                writeInline(target.pieces, segment.codes, XLIFF_1),
              )
            : undefined,
          xml("note", {}, escaped(placeOf(segment, deck))),
          alternatives1(segment, request),
        );
      }),
    ),
  );
  const file = {
    original: deck.properties.title || deck.id,
    "source-language": deck.language,
    "target-language": to,
    datatype: "x-presentation",
  };
  return xml(
    "xliff",
    { version: "1.2", xmlns: "urn:oasis:names:tc:xliff:document:1.2" },
    xml(
      "file",
      file,
      xml("header", {}, xml("tool", { "tool-id": "unitext", "tool-name": "Unitext" })),
      xml("body", {}, ...units),
    ),
  );
}

function xliff2(request: ExchangeRequest): string {
  const { deck, to, segments, targetOf } = request;
  const groups = grouped(segments, ({ unit }) => unit.slideId ?? "deck").map(([slide, own]) =>
    xml(
      "group",
      { id: slide, name: own[0] ? placeOf(own[0], deck).replace(/: \w+$/, "") : slide },
      ...grouped(own, ({ unit }) => unit.id).map(([unit, parts]) =>
        xml(
          "unit",
          { id: unit, "xml:space": "preserve" },
          matches2(parts, request),
          xml("notes", {}, xml("note", { category: "place" }, escaped(parts[0] ? placeOf(parts[0], deck) : ""))),
          ...parts.map((segment) => {
            const target = targetOf?.(segment);
            return xml(
              "segment",
              {
                id: segmentName(segment),
                state: target ? STATES_2[target.state] : "initial",
                subState: target?.state === "proposed" ? "unitext:proposed" : undefined,
              },
              xml("source", {}, writeInline(segment.source, segment.codes, XLIFF_2)),
              target ? xml("target", {}, writeInline(target.pieces, segment.codes, XLIFF_2)) : undefined,
            );
          }),
        ),
      ),
    ),
  );
  return xml(
    "xliff",
    { version: "2.1", xmlns: "urn:oasis:names:tc:xliff:document:2.0", srcLang: deck.language, trgLang: to },
    xml("file", { id: "deck", original: deck.properties.title || deck.id }, ...groups),
  );
}

const escaped = (text: string) =>
  text.replace(/[&<>]/g, (sign) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;" })[sign] ?? sign);

/** The name of a segment in its unit: s1, s2 … */
const segmentName = ({ id, unit }: Segment) => (id === unit.id ? "s1" : id.slice(unit.id.length + 1));

/**
 * Reads a file in XLIFF 1.2, 2.0 or 2.1, whatever tool wrote it. Throws a Failure `not-readable` for a file that is not
 * XLIFF or is damaged.
 */
export function readXliff(text: string, file: string): ExchangeFile {
  const root = readMixed(text, file);
  const version = attribute(root, "version") ?? "";
  if (root.local !== "xliff" || !/^(1\.\d|2\.\d)$/.test(version))
    throw new Failure(
      "not-readable",
      file,
      "The file is no XLIFF of version 1.2 or 2.1. Choose one that a translator's tool wrote.",
    );
  return version.startsWith("1") ? readXliff1(root, file) : readXliff2(root);
}

/** Returns all descendants with a name, in document order. */
function below(node: XmlNode, name: string): XmlNode[] {
  return node.children.flatMap((one) => (one.local === name ? [one] : below(one, name)));
}

function readXliff1(root: XmlNode, name: string): ExchangeFile {
  const files = childrenOf(root, "file");
  const [first] = files;
  if (!first) throw new Failure("not-readable", name, "The XLIFF has no file element, so there is nothing to read.");
  const problems: string[] = [];
  const segments = files.flatMap((file) =>
    below(file, "trans-unit").flatMap((unit): ExchangedSegment[] => {
      const id = attribute(unit, "resname-id") ?? attribute(unit, "id") ?? "";
      const [source, target] = [child(unit, "source"), child(unit, "target")];
      if (!source) {
        problems.push(`The unit “${id}” has no source and was left out.`);
        return [];
      }
      const unknown = (code: string) =>
        problems.push(`The unit “${id}” has a placeholder <${code}> that Unitext did not write; it was left out.`);
      const state = attribute(target, "state") ?? "";
      const pieces = target && readInline(target, unknown);
      const isEmpty = !pieces || wordsOf(pieces).trim() === "" || /^(new|needs-translation)$/.test(state);
      return [
        {
          id,
          source: readInline(source, unknown),
          ...(isEmpty ? {} : { target: pieces }),
          state: isEmpty ? "untranslated" : stateOf1(state, attribute(unit, "approved") === "yes"),
        },
      ];
    }),
  );
  return {
    from: attribute(first, "source-language") ?? "",
    to: attribute(first, "target-language") ?? "",
    segments,
    problems,
  };
}

function stateOf1(state: string, approved: boolean): SegmentState {
  if (approved || state === "final" || state === "signed-off") return "reviewed";
  if (state.startsWith("needs-review")) return "proposed";
  return state === "needs-adaptation" ? "outdated" : "draft";
}

function readXliff2(root: XmlNode): ExchangeFile {
  const problems: string[] = [];
  const segments = below(root, "unit").flatMap((unit): ExchangedSegment[] => {
    const id = attribute(unit, "id") ?? "";
    const unknown = (code: string) =>
      problems.push(`The unit “${id}” has a placeholder <${code}> that Unitext did not write; it was left out.`);
    const own = unit.children.filter(({ local }) => local === "segment" || local === "ignorable");
    const several = own.filter(({ local }) => local === "segment").length > 1;
    return own.flatMap((segment, nth): ExchangedSegment[] => {
      const source = child(segment, "source");
      if (!source || segment.local === "ignorable") return [];
      const target = child(segment, "target");
      const pieces = target && readInline(target, unknown);
      const state = attribute(segment, "state") ?? "initial";
      const isEmpty = !pieces || wordsOf(pieces).trim() === "";
      const name = attribute(segment, "id") ?? `s${nth + 1}`;
      const isProposed = attribute(segment, "subState") === "unitext:proposed";
      return [
        {
          id: several ? `${id}.${name}` : id,
          source: readInline(source, unknown),
          ...(isEmpty ? {} : { target: pieces }),
          state: isEmpty
            ? "untranslated"
            : state === "reviewed" || state === "final"
              ? "reviewed"
              : isProposed
                ? "proposed"
                : "draft",
        },
      ];
    });
  });
  const to = attribute(root, "trgLang") ?? "";
  return { from: attribute(root, "srcLang") ?? "", to, segments, problems };
}
