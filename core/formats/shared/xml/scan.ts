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

/** How comments, stretches of CDATA and instructions start and end. */
const ENDS = [
  ["<!--", "-->"],
  ["<![CDATA[", "]]>"],
  ["<?", "?>"],
] as const;

const isSpace = (code: number) => code === SPACE || code === 10 || code === 9 || code === 13;

/** Reads one part from its start to its end, whole or piece by piece. */
class XmlScanner {
  /** What was given and is not read yet. */
  private text = "";
  private begun = false;
  /** Whether the text began with a byte order mark. */
  private hasMark = false;
  private returns = false;
  private closers = false;
  /** The names of the elements that are open, the innermost last. */
  private readonly open: string[] = [];
  private at = 0;
  private roots = 0;
  /** The next character reference, searched for once. */
  private reference = -1;
  /** Whether the piece that is read is the first one, where a declaration may be. */
  private isFirst = true;

  constructor(
    private readonly where: string,
    private readonly events: XmlEvents,
  ) {}

  /** Takes the next piece of the text; the positions of tags are in the part of the text that is not read yet. */
  add(piece: string): void {
    if (SUSPECT.test(piece) && FORBIDDEN.test(piece)) this.wrong("it holds a character that XML does not allow");
    const hasMark = !this.begun && piece.charCodeAt(0) === 0xfeff;
    if (!this.begun) this.hasMark = hasMark;
    else if (this.at > 0) this.isFirst = false;
    this.begun = true;
    this.text = this.text.slice(this.at) + (hasMark ? ` ${piece.slice(1)}` : piece);
    this.at = 0;
    this.returns = this.text.includes("\r");
    this.closers = this.text.includes("]]>");
    this.reference = this.text.indexOf("&");
  }

  /** Reads what is complete: everything before the last tag begins. */
  readComplete(): void {
    const last = this.text.lastIndexOf("<");
    if (last > 0) this.readUpTo(last);
  }

  /** Reads the rest. Throws a Failure when the text ends too early. */
  finish(): void {
    this.readUpTo(this.text.length);
    if (this.open.length) this.wrong(`the element <${this.open.at(-1)}> is not closed`);
    if (this.roots === 0) this.wrong("it holds no element");
  }

  /** Whether a comment, a stretch of CDATA or an instruction ends in the text that is at hand. */
  private ends(from: number): boolean {
    const { text } = this;
    const [start, end] = ENDS.find(([opening]) => text.startsWith(opening, from)) ?? ["<", ">"];
    return text.indexOf(end, from + start.length) >= 0;
  }

  private readUpTo(limit: number): void {
    const { text } = this;
    while (this.at < limit) {
      const from = text.indexOf("<", this.at);
      if (from < 0) {
        this.characters(text.length);
        this.at = text.length;
        break;
      }
      this.characters(from);
      this.at = from;
      if (from >= limit) break;
      const code = text.charCodeAt(from + 1);
      if (code === SLASH) this.endTag(from);
      else if (code === BANG || code === QUESTION) {
        if (limit < text.length && !this.ends(from)) break;
        if (code === BANG) this.declaration(from);
        else this.instruction(from);
      } else this.tag(from);
    }
  }

  private wrong(why: string): never {
    throw new Failure("not-readable", this.where, `The part ${this.where} is not well-formed XML: ${why}.`);
  }

  /** Replaces the references in a text. */
  private decoded(raw: string): string {
    return raw.replace(/&(?:(#x[\da-fA-F]+|#\d+|\w+);)?/g, (_, name?: string) => {
      if (name === undefined) return this.wrong("an “&” begins no reference");
      if (name.charCodeAt(0) !== 35) return ENTITIES[name] ?? this.wrong(`the entity &${name}; is not known`);
      const code = name.charCodeAt(1) === 120 ? Number.parseInt(name.slice(2), 16) : Number(name.slice(1));
      const character = code <= 0x10ffff ? String.fromCodePoint(code) : "\u0000";
      return FORBIDDEN.test(character) ? this.wrong(`the reference &${name}; names no character`) : character;
    });
  }

  /** Whether there is a reference in a range. */
  private refers(from: number, to: number) {
    if (this.reference >= 0 && this.reference < from) this.reference = this.text.indexOf("&", from);
    return this.reference >= 0 && this.reference < to;
  }

  private characters(to: number) {
    if (to <= this.at) return;
    let raw = this.text.slice(this.at, to);
    if (this.open.length === 0) {
      if (/[^ \t\r\n]/.test(raw)) this.wrong("there is text outside of its element");
      return;
    }
    if (this.closers && raw.includes("]]>")) this.wrong("text holds “]]>”");
    if (this.events.text === undefined && !this.refers(this.at, to)) return;
    if (this.returns) raw = raw.replace(/\r\n?/g, "\n");
    this.events.text?.(this.refers(this.at, to) ? this.decoded(raw) : raw);
    if (this.events.text === undefined) this.decoded(raw);
  }

  private nameEnd(from: number): number {
    let [end, wide] = [from, false];
    let code = this.text.charCodeAt(end);
    while (code < 128 ? LETTERS[code] !== 0 : code >= 128) {
      if (code >= 128) wide = true;
      code = this.text.charCodeAt(++end);
    }
    if (end === from || ((wide || LETTERS[this.text.charCodeAt(from)] !== 1) && !NAME.test(this.text.slice(from, end))))
      this.wrong(`“${this.text.slice(from, Math.max(end, from + 1))}” is not a name`);
    return end;
  }

  private skipped(from: number, end: string, what: string): number {
    const found = this.text.indexOf(end, from);
    return found < 0 ? this.wrong(`${what} does not end`) : found;
  }

  private tag(from: number) {
    let place = this.nameEnd(from + 1);
    const name = nameAt(this.text, from + 1, place);
    const attributes: Record<string, string> = {};
    let code = this.text.charCodeAt(place);
    while (true) {
      const gap = place;
      while (isSpace(code)) code = this.text.charCodeAt(++place);
      if (code === GREATER || code === SLASH) break;
      if (Number.isNaN(code)) this.wrong(`the tag <${name}> does not end`);
      if (place === gap) this.wrong(`the tag <${name}> has attributes without a space between`);
      const end = this.nameEnd(place);
      const key = nameAt(this.text, place, end);
      place = end;
      code = this.text.charCodeAt(place);
      while (isSpace(code)) code = this.text.charCodeAt(++place);
      if (code !== EQUALS) this.wrong(`the attribute ${key} has no value`);
      code = this.text.charCodeAt(++place);
      while (isSpace(code)) code = this.text.charCodeAt(++place);
      if (code !== QUOTE && code !== APOSTROPHE) this.wrong(`the value of the attribute ${key} is not in quotes`);
      const begin = ++place;
      const quote = code;
      let special = false;
      code = this.text.charCodeAt(place);
      while (code !== quote) {
        if (code === LESS) this.wrong(`the value of the attribute ${key} holds a “<”`);
        if (code === AMPERSAND || code < SPACE) special = true;
        // Past the end there is no number.
        if (!(code >= 0)) this.wrong(`the value of the attribute ${key} does not end`);
        code = this.text.charCodeAt(++place);
      }
      const raw = this.text.slice(begin, place);
      if (attributes[key] !== undefined && Object.hasOwn(attributes, key))
        this.wrong(`the attribute ${key} appears twice in one tag`);
      attributes[key] = special ? this.decoded(raw.replace(/\r\n|[\t\n\r]/g, " ")) : raw;
      code = this.text.charCodeAt(++place);
    }
    const empty = code === SLASH;
    if (empty && this.text.charCodeAt(++place) !== GREATER) this.wrong(`a “/” is inside the tag <${name}>`);
    this.at = place + 1;
    if (this.open.length === 0 && this.roots++ > 0) this.wrong("it has more than one element at its root");
    this.open.push(name);
    this.events.open(name, attributes, from, this.at);
    if (!empty) return;
    this.open.pop();
    this.events.close(from, this.at);
  }

  private endTag(from: number) {
    const name = this.open.pop();
    let place = from + 2 + (name?.length ?? 0);
    const matches = name !== undefined && this.text.startsWith(name, from + 2);
    let code = this.text.charCodeAt(place);
    while (isSpace(code)) code = this.text.charCodeAt(++place);
    if (!matches || code !== GREATER)
      this.wrong(`the end tag “${this.text.slice(from, from + 60).split(">")[0]}>” closes no element that is open`);
    this.at = place + 1;
    this.events.close(from, this.at);
  }

  private declaration(from: number) {
    if (this.text.startsWith("<!--", from)) {
      const end = this.skipped(from + 4, "--", "a comment");
      if (this.text.charCodeAt(end + 2) !== GREATER) this.wrong("a comment holds “--”");
      this.at = end + 3;
    } else if (this.text.startsWith("<![CDATA[", from) && this.open.length > 0) {
      const end = this.skipped(from + 9, "]]>", "a stretch of CDATA");
      const raw = this.text.slice(from + 9, end);
      if (raw) this.events.text?.(this.returns ? raw.replace(/\r\n?/g, "\n") : raw);
      this.at = end + 3;
    } else if (this.text.startsWith("<!DOCTYPE", from)) {
      throw new Failure(
        "not-readable",
        this.where,
        `The part ${this.where} has a document type declaration, which a document never needs, so the file was not opened.`,
      );
    } else this.wrong("“<!” begins neither a comment nor CDATA");
  }

  private instruction(from: number) {
    const end = this.nameEnd(from + 2);
    if (/^xml$/i.test(this.text.slice(from + 2, end))) {
      const declaration = DECLARATION.exec(this.text.slice(from, from + 200));
      if (!this.isFirst || from !== (this.hasMark ? 1 : 0)) this.wrong("an XML declaration is where it may not be");
      this.at = from + (declaration?.[0].length ?? this.wrong("its XML declaration is not valid"));
      return;
    }
    const close = this.skipped(end, "?>", "a processing instruction");
    if (close !== end && !isSpace(this.text.charCodeAt(end)))
      this.wrong("a processing instruction has no space after its name");
    this.at = close + 2;
  }
}

/**
 * Parses a part and reports its elements and text in order, with line ends, references and white space in attributes as
 * in XML 1.0 (2.11, 4.6, 3.3.3). Throws a Failure `not-readable` for XML that is not well-formed, and for a document
 * type, which documents never need and which allows entities that grow without end.
 */
export function scanXml(given: string, where: string, events: XmlEvents): void {
  const scanner = new XmlScanner(where, events);
  scanner.add(given);
  scanner.finish();
}

/** Events of a text that is read piece by piece, where positions have no meaning. */
export type XmlPieceEvents = {
  open(name: string, attributes: Record<string, string>): void;
  close(): void;
  text?(characters: string): void;
};

/** Parses a part as `scanXml` does, from pieces of any length, so that it is never in memory whole. */
export function scanXmlPieces(pieces: Iterable<string>, where: string, events: XmlPieceEvents): void {
  const scanner = new XmlScanner(where, events);
  for (const piece of pieces) {
    scanner.add(piece);
    scanner.readComplete();
  }
  scanner.finish();
}
