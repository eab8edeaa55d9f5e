import { Failure, must } from "@unitext/core/model";

/**
 * Callbacks for the content of a part; `from` and `to` are the range of the tag in its text. An empty element is opened
 * and closed by the same tag.
 */
export interface XmlEvents {
  open(name: string, attributes: Record<string, string>, from: number, to: number): void;
  close(from: number, to: number): void;
  text?(characters: string): void;
}

const [SLASH, GREATER, LESS, EQUALS, AMPERSAND, BANG, QUESTION, QUOTE, APOSTROPHE, SPACE] = [
  47, 62, 60, 61, 38, 33, 63, 34, 39, 32,
];
/**
 * Characters that no part may contain: XML 1.0, 2.2 (Char), and lone surrogates. Most parts have none that may be one,
 * which a single test shows.
 */
const SUSPECT = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ud800-\udfff\ufffe\uffff]/;
const FORBIDDEN =
  /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;
/** XML 1.0, 2.3 (Name). */
const NAME =
  /^[:A-Z_a-z\u{c0}-\u{d6}\u{d8}-\u{f6}\u{f8}-\u{2ff}\u{370}-\u{37d}\u{37f}-\u{1fff}\u{200c}-\u{200d}\u{2070}-\u{218f}\u{2c00}-\u{2fef}\u{3001}-\u{d7ff}\u{f900}-\u{fdcf}\u{fdf0}-\u{fffd}\u{10000}-\u{effff}][-.0-9\u{b7}\u{300}-\u{36f}\u{203f}-\u{2040}:A-Z_a-z\u{c0}-\u{d6}\u{d8}-\u{f6}\u{f8}-\u{2ff}\u{370}-\u{37d}\u{37f}-\u{1fff}\u{200c}-\u{200d}\u{2070}-\u{218f}\u{2c00}-\u{2fef}\u{3001}-\u{d7ff}\u{f900}-\u{fdcf}\u{fdf0}-\u{fffd}\u{10000}-\u{effff}]*$/u;
/** XML 1.0, 2.8 (XMLDecl). */
const DECLARATION =
  /^<\?xml[ \t\r\n]+version[ \t\r\n]*=[ \t\r\n]*(?:"1\.\d+"|'1\.\d+')(?:[ \t\r\n]+encoding[ \t\r\n]*=[ \t\r\n]*(?:"[A-Za-z][\w.-]*"|'[A-Za-z][\w.-]*'))?(?:[ \t\r\n]+standalone[ \t\r\n]*=[ \t\r\n]*(?:"(?:yes|no)"|'(?:yes|no)'))?[ \t\r\n]*\?>/;
const ENTITIES: Record<string, string> = { amp: "&", lt: "<", gt: ">", quot: '"', apos: "'" };

/** ASCII characters of names: 1 may start one, 2 may continue one. */
const LETTERS = new Uint8Array(128);
for (const letter of ":_ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz") LETTERS[letter.charCodeAt(0)] = 1;
for (const letter of "-.0123456789") LETTERS[letter.charCodeAt(0)] = 2;

/** Names met before, by a hash of their characters: a part has few, each again and again. */
const KNOWN: string[] = new Array(2048).fill("");
function nameAt(text: string, from: number, to: number): string {
  const length = to - from;
  const place =
    (text.charCodeAt(from) * 7 +
      text.charCodeAt(to - 1) * 31 +
      text.charCodeAt(from + (length >> 1)) * 61 +
      length * 127) &
    2047;
  const known = must(KNOWN[place]);
  if (known.length === length) {
    let at = 0;
    while (at < length && known.charCodeAt(at) === text.charCodeAt(from + at)) at++;
    if (at === length) return known;
  }
  // As a field name it is a string of its own, which does not keep the whole text in memory.
  const [name] = Object.keys({ [text.slice(from, to)]: 0 }) as [string];
  KNOWN[place] = name;
  return name;
}

const isSpace = (code: number) => code === SPACE || code === 10 || code === 9 || code === 13;

/**
 * Parses a part and reports its elements and text in order, with line ends, references and white space in attributes as
 * in XML 1.0 (2.11, 4.6, 3.3.3). Throws a Failure `not-readable` for XML that is not well-formed, and for a document
 * type, which documents never need and which allows entities that grow without end.
 */
export function scanXml(given: string, where: string, events: XmlEvents): void {
  const text = given.charCodeAt(0) === 0xfeff ? ` ${given.slice(1)}` : given;
  const wrong = (why: string): never => {
    throw new Failure("not-readable", where, `The part ${where} is not well-formed XML: ${why}.`);
  };
  if (SUSPECT.test(text) && FORBIDDEN.test(text)) wrong("it holds a character that XML does not allow");
  const returns = text.includes("\r");
  const closers = text.includes("]]>");
  const open: string[] = [];
  let at = 0;
  let roots = 0;
  /** The next character reference, searched for once. */
  let reference = text.indexOf("&");

  const decoded = (raw: string) =>
    raw.replace(/&(?:(#x[\da-fA-F]+|#\d+|\w+);)?/g, (_, name?: string) => {
      if (name === undefined) return wrong("an “&” begins no reference");
      if (name.charCodeAt(0) !== 35) return ENTITIES[name] ?? wrong(`the entity &${name}; is not known`);
      const code = name.charCodeAt(1) === 120 ? Number.parseInt(name.slice(2), 16) : Number(name.slice(1));
      const character = code <= 0x10ffff ? String.fromCodePoint(code) : "\u0000";
      return FORBIDDEN.test(character) ? wrong(`the reference &${name}; names no character`) : character;
    });
  /** Whether there is a reference in a range. */
  const refers = (from: number, to: number) => {
    if (reference >= 0 && reference < from) reference = text.indexOf("&", from);
    return reference >= 0 && reference < to;
  };
  const characters = (to: number) => {
    if (to <= at) return;
    let raw = text.slice(at, to);
    if (open.length === 0) {
      if (/[^ \t\r\n]/.test(raw)) wrong("there is text outside of its element");
      return;
    }
    if (closers && raw.includes("]]>")) wrong("“]]>” stands in text");
    if (events.text === undefined && !refers(at, to)) return;
    if (returns) raw = raw.replace(/\r\n?/g, "\n");
    events.text?.(refers(at, to) ? decoded(raw) : raw);
    if (events.text === undefined) decoded(raw);
  };
  const nameEnd = (from: number): number => {
    let [end, wide] = [from, false];
    let code = text.charCodeAt(end);
    while (code < 128 ? LETTERS[code] !== 0 : code >= 128) {
      if (code >= 128) wide = true;
      code = text.charCodeAt(++end);
    }
    if (end === from || ((wide || LETTERS[text.charCodeAt(from)] !== 1) && !NAME.test(text.slice(from, end))))
      wrong(`“${text.slice(from, Math.max(end, from + 1))}” is no name`);
    return end;
  };
  const skipped = (from: number, end: string, what: string): number => {
    const found = text.indexOf(end, from);
    return found < 0 ? wrong(`${what} does not end`) : found;
  };

  const tag = (from: number) => {
    let place = nameEnd(from + 1);
    const name = nameAt(text, from + 1, place);
    const attributes: Record<string, string> = {};
    let code = text.charCodeAt(place);
    while (true) {
      const gap = place;
      while (isSpace(code)) code = text.charCodeAt(++place);
      if (code === GREATER || code === SLASH) break;
      if (Number.isNaN(code)) wrong(`the tag <${name}> does not end`);
      if (place === gap) wrong(`the tag <${name}> has attributes without a space between`);
      const end = nameEnd(place);
      const key = nameAt(text, place, end);
      place = end;
      code = text.charCodeAt(place);
      while (isSpace(code)) code = text.charCodeAt(++place);
      if (code !== EQUALS) wrong(`the attribute ${key} has no value`);
      code = text.charCodeAt(++place);
      while (isSpace(code)) code = text.charCodeAt(++place);
      if (code !== QUOTE && code !== APOSTROPHE) wrong(`the value of the attribute ${key} is not in quotes`);
      const begin = ++place;
      const quote = code;
      let special = false;
      code = text.charCodeAt(place);
      while (code !== quote) {
        if (code === LESS) wrong(`the value of the attribute ${key} holds a “<”`);
        if (code === AMPERSAND || code < SPACE) special = true;
        // Past the end there is no number.
        if (!(code >= 0)) wrong(`the value of the attribute ${key} does not end`);
        code = text.charCodeAt(++place);
      }
      const raw = text.slice(begin, place);
      if (attributes[key] !== undefined && Object.hasOwn(attributes, key))
        wrong(`the attribute ${key} stands twice in one tag`);
      attributes[key] = special ? decoded(raw.replace(/\r\n|[\t\n\r]/g, " ")) : raw;
      code = text.charCodeAt(++place);
    }
    const empty = code === SLASH;
    if (empty && text.charCodeAt(++place) !== GREATER) wrong(`a “/” stands inside the tag <${name}>`);
    at = place + 1;
    if (open.length === 0 && roots++ > 0) wrong("it has more than one element at its root");
    open.push(name);
    events.open(name, attributes, from, at);
    if (!empty) return;
    open.pop();
    events.close(from, at);
  };
  const endTag = (from: number) => {
    const name = open.pop();
    let place = from + 2 + (name?.length ?? 0);
    const matches = name !== undefined && text.startsWith(name, from + 2);
    let code = text.charCodeAt(place);
    while (isSpace(code)) code = text.charCodeAt(++place);
    if (!matches || code !== GREATER)
      wrong(`the end tag “${text.slice(from, from + 60).split(">")[0]}>” closes no element that is open`);
    at = place + 1;
    events.close(from, at);
  };
  const marked = (from: number) => {
    if (text.startsWith("<!--", from)) {
      const end = skipped(from + 4, "--", "a comment");
      if (text.charCodeAt(end + 2) !== GREATER) wrong("“--” stands in a comment");
      at = end + 3;
    } else if (text.startsWith("<![CDATA[", from) && open.length > 0) {
      const end = skipped(from + 9, "]]>", "a stretch of CDATA");
      const raw = text.slice(from + 9, end);
      if (raw) events.text?.(returns ? raw.replace(/\r\n?/g, "\n") : raw);
      at = end + 3;
    } else if (text.startsWith("<!DOCTYPE", from)) {
      throw new Failure(
        "not-readable",
        where,
        `The part ${where} brings a document type declaration, which a document never needs, so the file was not opened.`,
      );
    } else wrong("“<!” begins nothing that it may hold");
  };
  const instruction = (from: number) => {
    const end = nameEnd(from + 2);
    if (/^xml$/i.test(text.slice(from + 2, end))) {
      const declaration = DECLARATION.exec(text.slice(from, from + 200));
      if (given !== text ? from !== 1 : from !== 0) wrong("an XML declaration stands where it may not");
      at = from + (declaration?.[0].length ?? wrong("its XML declaration is not valid"));
      return;
    }
    const close = skipped(end, "?>", "a processing instruction");
    if (close !== end && !isSpace(text.charCodeAt(end))) wrong("a processing instruction has no space after its name");
    at = close + 2;
  };

  while (at < text.length) {
    const from = text.indexOf("<", at);
    if (from < 0) {
      characters(text.length);
      break;
    }
    characters(from);
    at = from;
    const code = text.charCodeAt(from + 1);
    if (code === SLASH) endTag(from);
    else if (code === BANG) marked(from);
    else if (code === QUESTION) instruction(from);
    else tag(from);
  }
  if (open.length) wrong(`the element <${open.at(-1)}> is not closed`);
  if (roots === 0) wrong("it holds no element");
}
