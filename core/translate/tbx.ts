import { sameLanguage } from "./languagetag";
import { escapeXml, Failure } from "@unitext/core/model";
import { at, attribute, child, childrenOf, readMixed, xml, XML_HEAD, type XmlNode } from "../formats/shared/xml";
import { readTermsCsv, type Term } from "./terms";
import { withoutDoctype, xmlText } from "./xmltext";

/** Names of the same elements in ISO 30042:2008 and ISO 30042:2019. */
const ENTRY = ["termEntry", "conceptEntry"];
const LANGUAGE = ["langSet", "langSec"];
const TERM = ["tig", "ntig", "termSec"];

/** The values of administrativeStatus that say that a word is not used any more, in both editions. */
const NOT_USED = /^(deprecatedTerm|supersededTerm)/;

const named = (element: XmlNode | undefined, names: readonly string[]) =>
  element?.children.filter(({ local }) => names.includes(local)) ?? [];

/** Returns all text in an element, with single spaces. */
const wordsOf = ({ content }: XmlNode): string =>
  content
    .map((part) => (typeof part === "string" ? part : wordsOf(part)))
    .join("")
    .replace(/\s+/g, " ")
    .trim();

/** Returns the words of an entry in a language: those that are used, and those that are not. */
function wordsIn(entry: XmlNode, language: string): { used: string[]; unused: string[] } {
  const found = { used: [] as string[], unused: [] as string[] };
  for (const set of named(entry, LANGUAGE)) {
    if (!sameLanguage(attribute(set, "lang") ?? "", language)) continue;
    for (const group of named(set, TERM)) {
      // In an ntig the term and what is said about it are in a termGrp.
      const inside = child(group, "termGrp") ?? group;
      const term = child(inside, "term");
      const words = term ? wordsOf(term) : "";
      const isUnused = childrenOf(inside, "termNote").some(
        (note) => attribute(note, "type") === "administrativeStatus" && NOT_USED.test(wordsOf(note)),
      );
      if (words) found[isUnused ? "unused" : "used"].push(words);
    }
  }
  return found;
}

/**
 * Reads the terms of a TBX that have both languages, in the form of ISO 30042:2008 or ISO 30042:2019 (style DCA). The
 * first word of the target language that is in use is the translation; those that are deprecated or superseded are
 * forbidden. What is left out is reported to `problems`. Throws a Failure `not-readable` for a file that is no TBX.
 */
export function readTermsTbx(
  bytes: Uint8Array,
  file: string,
  { from, to }: { from: string; to: string },
): { terms: Term[]; problems: string[] } {
  const root = readMixed(withoutDoctype(xmlText(bytes, file)), file);
  const body = at(root, "text", "body");
  if (!["martif", "tbx"].includes(root.local) || !body)
    throw new Failure("not-readable", file, "The file is no TBX. Choose a list of terms as TBX or .csv.");
  const terms = new Map<string, Term>();
  const problems: string[] = [];
  let others = 0;
  for (const entry of named(body, ENTRY)) {
    const sources = wordsIn(entry, from).used;
    const { used, unused } = wordsIn(entry, to);
    const [target = ""] = used;
    if (!sources.length || (!target && !unused.length)) {
      others += 1;
      continue;
    }
    if (used.length > 1)
      problems.push(`“${sources[0]}” has ${used.length} translations; the first, “${target}”, counts.`);
    const notes = childrenOf(entry, "note").map(wordsOf).filter(Boolean);
    for (const source of sources) {
      const key = source.toLowerCase();
      if (terms.has(key)) problems.push(`“${source}” is in the list already; the first entry counts.`);
      else
        terms.set(key, {
          source,
          target,
          ...(notes.length ? { note: notes.join(" ") } : {}),
          ...(unused.length ? { forbidden: unused } : {}),
        });
    }
  }
  if (others) problems.push(`${others} ${others === 1 ? "entry does" : "entries do"} not have both languages.`);
  return { terms: [...terms.values()], problems };
}

/** Reads terms from TBX, or from comma separated values. Throws a Failure as `readTermsTbx` does. */
export const readTerms = (
  bytes: Uint8Array,
  file: string,
  languages: { from: string; to: string },
): { terms: Term[]; problems: string[] } =>
  /\.(tbx|xml)$/i.test(file) ? readTermsTbx(bytes, file, languages) : readTermsCsv(bytes, file);

/** Writes terms as TBX-Basic in the form of ISO 30042:2008, which most tools read. */
export function writeTermsTbx(terms: readonly Term[], { from, to }: { from: string; to: string }): string {
  const word = (words: string, status?: string) =>
    xml(
      "tig",
      {},
      xml("term", {}, escapeXml(words)),
      status && xml("termNote", { type: "administrativeStatus" }, status),
    );
  const inLanguage = (language: string, ...words: string[]) =>
    words.length ? xml("langSet", { "xml:lang": language }, ...words) : undefined;
  const entry = ({ source, target, note, forbidden = [] }: Term, nth: number) =>
    xml(
      "termEntry",
      { id: `t${nth + 1}` },
      note && xml("note", {}, escapeXml(note)),
      inLanguage(from, word(source)),
      inLanguage(
        to,
        ...(target ? [word(target)] : []),
        ...forbidden.map((words) => word(words, "deprecatedTerm-admn-sts")),
      ),
    );
  const header = xml(
    "martifHeader",
    {},
    xml("fileDesc", {}, xml("sourceDesc", {}, xml("p", {}, "Terms written by Unitext"))),
    xml("encodingDesc", {}, xml("p", { type: "XCSURI" }, "TBXBasicXCSV02.xcs")),
  );
  return (
    XML_HEAD +
    xml(
      "martif",
      { type: "TBX-Basic", "xml:lang": from },
      header,
      xml("text", {}, xml("body", {}, ...terms.map(entry))),
    )
  );
}
