import {
  type Slide,
  type Asset,
  type BreakRule,
  DEFAULT_RULE,
  type Deck,
  type DeckMetadata,
  Failure,
  MOST,
  picturesOn,
  within,
} from "@unitext/core/model";
import type { DocumentFormat } from "./extensions";
import { generateDeck } from "@unitext/core/generate";
import type { FontSet } from "@unitext/core/layout";
import type { Report } from "@unitext/core/tally";
import {
  normalisedBlock,
  type Block,
  type Lines,
  type Manuscript,
  ManuscriptWriter,
  type Problem,
  readText,
} from "@unitext/core/text";
import { readCsv } from "./csv/read";
import { type DocumentRead, languageOf, sampleOf, suggestRule } from "../shared/document/document";
import { checkText, decoded } from "../shared/document/text";
import { readDocx } from "./docx/read";
import { htmlEncoding, readHtml } from "./html";
import { readOdt } from "./odt/read";
import { readOpml } from "./opml/read";
import { pictureInfo, pictureSize, pendingConversion } from "../shared/pictures";
import { withTitlePage } from "./titlepage";
import { readPlain } from "./plain/read";

/** A text or document that was read, as a manuscript. */
export interface SourceRead {
  manuscript: Manuscript;
  /** Returns it in the text form; complete when the manuscript's blocks have been taken. */
  text(): string;
  pictures: Map<string, Uint8Array>;
  /** The break rule that suits it. */
  rule: BreakRule;
  /** Whether it was typed as a deck: its own marks say where slides start. */
  typed: boolean;
  /** Whether it has formulas, which must be set before its slides can be fitted. */
  formulas: boolean;
}

/** Whether a text was typed as a deck: it has front matter, breaks or directives. */
function isTyped(text: string): boolean {
  return (
    /^---\r?\n/.test(text) ||
    /^::slide|^:::\w|^::join/m.test(text) ||
    /\n[^\S\n]*\n(-{3,}|\*{3,}|_{3,})[ \t]*\r?\n/.test(text)
  );
}

const isMarkdown = (text: string) => isTyped(text) || /^#{1,6} \S/m.test(text);

/** The parts of a rule that were asked for; the rest is chosen to suit the source. */
export type AskedRule = Partial<BreakRule>;

/** A text of at least so many characters in one of these languages is recognised with certainty (common practice, no source). */
const CLEAR = 1500;
const CERTAIN: ReadonlySet<string> = new Set(["en", "de", "fr", "es", "it", "nl", "pl", "fi", "hu", "tr", "el", "ru"]);

/** The number of blocks by which the rule of a text is chosen. */
const SAMPLE = 1200;

function typedText(text: string, rule?: AskedRule): SourceRead {
  const lines = rule?.cuts?.some(({ kind }) => kind === "line") ?? false;
  const manuscript = readText(text, { lines });
  if (isTyped(text))
    return {
      manuscript,
      text: () => text,
      pictures: new Map(),
      rule: rule ? { ...DEFAULT_RULE, overflow: "continue", ...rule } : DEFAULT_RULE,
      typed: rule === undefined,
      formulas: text.includes("$"),
    };
  // The rule of a long text is chosen by its first blocks; the rest is read as its slides are made.
  const blocks: Block[] = [];
  for (const block of readText(text, { lines }).blocks) if (blocks.push(block) >= SAMPLE) break;
  const suggested = suggestRule(blocks);
  const typed = rule === undefined && suggested.placement === "slide" && suggested.cuts[0]?.kind === "heading";
  const language = manuscript.front.language === undefined && !typed ? languageOf(sampleOf(blocks)) : undefined;
  return {
    manuscript: { ...manuscript, front: { ...(language ? { language } : {}), ...manuscript.front } },
    text: () => text,
    pictures: new Map(),
    rule: typed ? DEFAULT_RULE : { ...suggested, ...rule },
    typed,
    formulas: text.includes("$"),
  };
}

function hasFormula(block: Block): boolean {
  if (block.kind === "figure")
    return (
      block.figure.kind === "formula" ||
      (block.figure.kind === "table" &&
        block.figure.rows.some((row) =>
          row.some((cell) => cell?.text.some(({ runs }) => runs.some(({ marks }) => marks?.includes("formula")))),
        ))
    );
  return "text" in block && block.text.some(({ runs }) => runs.some(({ marks }) => marks?.includes("formula")));
}

/**
 * Returns the language of a document: the one that it names, unless its words are clearly in another one, as with a
 * template from abroad.
 */
function languageOfDocument({ front, blocks }: DocumentRead): string | undefined {
  const sample = sampleOf(blocks);
  const named = front.language;
  const found = languageOf(sample);
  const isClear = found !== undefined && sample.length >= CLEAR && CERTAIN.has(found);
  return named === undefined || (isClear && !named.toLowerCase().startsWith(found)) ? found : named;
}

/** A picture of at most this many pixels each way that appears this often is an icon (common practice, no source). */
const ICON = { pixels: 64, times: 3 } as const;

/** Leaves out icons such as those of notes and warnings, which mean nothing on a slide of their own. Reports them. */
function withoutIcons(document: DocumentRead): DocumentRead {
  const times = new Map<string, number>();
  for (const block of document.blocks)
    if (block.kind === "picture") times.set(block.picture.source, (times.get(block.picture.source) ?? 0) + 1);
  const isIcon = (source: string) => {
    const bytes = (times.get(source) ?? 0) >= ICON.times ? document.pictures.get(source) : undefined;
    const size = bytes && pictureSize(bytes);
    return size !== undefined && Math.max(size.width, size.height) <= ICON.pixels;
  };
  const icons = new Set([...times.keys()].filter(isIcon));
  if (!icons.size) return document;
  const message = `Small pictures that are repeated as icons are left out: ${[...icons].join(", ")}.`;
  return {
    ...document,
    blocks: document.blocks.filter((block) => block.kind !== "picture" || !icons.has(block.picture.source)),
    pictures: new Map([...document.pictures].filter(([name]) => !icons.has(name))),
    problems: [...document.problems, { line: 1, message }],
  };
}

function fromDocument(read: DocumentRead, rule: AskedRule | undefined): SourceRead {
  within("blocks", read.blocks.length, "document");
  const document = withTitlePage(withoutIcons(read));
  const language = languageOfDocument(document);
  const front = { ...document.front, ...(language ? { language } : {}) };
  const writer = new ManuscriptWriter(front);
  const blocks = function* (): Generator<Block> {
    yield* writer.place(document.blocks.map(normalisedBlock));
  };
  return {
    manuscript: { front, blocks: { [Symbol.iterator]: blocks }, problems: document.problems },
    text: () => writer.text,
    pictures: document.pictures,
    rule: { ...suggestRule(document.blocks), ...rule },
    typed: false,
    formulas: document.blocks.some(hasFormula),
  };
}

type SourceReader = (bytes: Uint8Array, name: string, rule: AskedRule | undefined) => SourceRead;

/** Decodes the text of a file and reports the encoding that was recognised. */
function textFile(read: (text: string, name: string, rule: AskedRule | undefined) => SourceRead): SourceReader {
  return (bytes, name, rule) => {
    const { text, encoding } = decoded(bytes, name);
    checkText(text, name);
    const source = read(text, name, rule);
    if (encoding)
      source.manuscript.problems.push({ line: 1, message: `The file is not in UTF-8; it was read as ${encoding}.` });
    return source;
  };
}

const html: SourceReader = (bytes, name, rule) => {
  const declared = htmlEncoding(new TextDecoder("latin1").decode(bytes.subarray(0, 2000)));
  let text: string | undefined;
  if (declared && declared !== "utf-8") {
    try {
      text = new TextDecoder(declared).decode(bytes);
    } catch {
      text = undefined;
    }
  }
  text ??= decoded(bytes, name).text;
  checkText(text.replace(/data:image\/[a-z]+;base64,[A-Za-z0-9+/=%\s]+/g, ""), name);
  const document = readHtml(text);
  if (!document.blocks.length) throw new Failure("not-readable", name, "The page shows no text.");
  return fromDocument(document, rule);
};

/** The readers of texts and documents by extension. */
export const SOURCES: Record<DocumentFormat, SourceReader> = {
  md: textFile((text, _, rule) => typedText(text, rule)),
  txt: textFile((text, _, rule) => (isMarkdown(text) ? typedText(text, rule) : fromDocument(readPlain(text), rule))),
  docx: (bytes, name, rule) => fromDocument(readDocx(bytes, name), rule),
  odt: (bytes, name, rule) => fromDocument(readOdt(bytes, name), rule),
  html,
  htm: html,
  csv: textFile((text, name, rule) => fromDocument(readCsv(text, name), rule)),
  tsv: textFile((text, name, rule) => fromDocument(readCsv(text, name), rule)),
  opml: textFile((text, name, rule) => fromDocument(readOpml(text, name), rule)),
};
export type SourceKind = DocumentFormat;

export interface TakenPictures {
  assets: Record<string, Asset>;
  blobs: Map<string, Uint8Array>;
  /** Pictures that must be converted before they can be shown. */
  pendingPictures: ReadonlyMap<string, Uint8Array>;
}

/** Returns the pictures that a deck can show, by the names that it uses; the others are reported. */
export function takePictures(
  pictures: ReadonlyMap<string, Uint8Array>,
  sha256: (bytes: Uint8Array) => string,
  problems: Problem[],
): TakenPictures {
  const assets: Record<string, Asset> = {};
  const blobs = new Map<string, Uint8Array>();
  const pendingPictures = new Map<string, Uint8Array>();
  const converted = new Map<string, string[]>();
  for (const [name, bytes] of pictures) {
    const info = pictureSize(bytes);
    const pending = info ? undefined : pendingConversion(bytes);
    if (pending) {
      pendingPictures.set(name, bytes);
      converted.set(pending.how, [...(converted.get(pending.how) ?? []), name]);
    } else if (!info)
      problems.push({
        line: 1,
        message: `The picture ${name} is broken or of a kind that is not read (PNG, JPEG, GIF, SVG, WMF, EMF, TIFF and BMP are); its place is kept.`,
      });
    else if (info.width * info.height > MOST.pixels)
      problems.push({
        line: 1,
        message: `The picture ${name} has ${Math.round((info.width * info.height) / 1e6)} million pixels, more than a slide can use; its place is kept. Make it smaller and drop it there.`,
      });
    else {
      const sum = sha256(bytes);
      assets[name] = { sha256: sum, ...info };
      blobs.set(sum, bytes);
    }
  }
  for (const [how, names] of converted)
    problems.push({
      line: 1,
      message: `Of ${names.length === 1 ? `the picture ${names[0]}` : `${names.length} pictures (${names.slice(0, 4).join(", ")}${names.length > 4 ? ", …" : ""})`} ${how.replace(/^its /, "the ")}.`,
    });
  return { assets, blobs, pendingPictures };
}

export interface SourceContext {
  newId: () => string;
  sha256: (bytes: Uint8Array) => string;
  rule?: AskedRule;
  /** With fonts, slides are fitted as the rule says. */
  fonts?: FontSet;
  /** Returns the bytes of a picture that a text names; undefined when it is missing. */
  picture?: (source: string) => Uint8Array | undefined;
  /** The id of the document, recorded on its slides. */
  document?: string;
  metadata?: DeckMetadata;
}

/** Reads a text or document. Throws a Failure for a file that is refused. */
export function readSource(bytes: Uint8Array, name: string, kind: SourceKind, rule?: AskedRule): SourceRead {
  return SOURCES[kind](bytes, name, rule);
}

function slideAt(lines: readonly Lines[], line: number): number | null {
  const at = lines.findIndex(({ from, to }) => line >= from && line <= to);
  return at < 0 ? null : at + 1;
}

/** Finds the pictures that slides name but the source does not hold, among the files beside it. */
class PictureFinder {
  readonly left: Report["left"] = [];
  readonly converted: Report["adapted"] = [];
  readonly assets: Record<string, Asset>;

  constructor(
    private readonly source: SourceRead,
    private readonly context: SourceContext,
    private readonly blobs: Map<string, Uint8Array>,
    private readonly pending: Map<string, Uint8Array>,
    assets: Record<string, Asset>,
  ) {
    this.assets = { ...assets };
  }

  find(slide: Slide, number: number): void {
    for (const picture of picturesOn(slide)) {
      if (this.assets[picture] || this.pending.has(picture)) continue;
      const what = `the picture ${picture}`;
      const bytes = this.context.picture?.(picture);
      const info = bytes && pictureInfo(bytes);
      const pending = bytes && !info ? pendingConversion(bytes) : undefined;
      if (bytes && pending) {
        this.pending.set(picture, bytes);
        this.converted.push({ slide: number, what, how: pending.how });
      } else if (bytes && info) {
        const sha256 = this.context.sha256(bytes);
        this.blobs.set(sha256, bytes);
        this.assets[picture] = { sha256, ...info };
      } else if (!this.source.pictures.has(picture)) {
        const why = bytes
          ? "only PNG, JPEG, GIF, SVG, WMF, EMF, TIFF and BMP pictures are read"
          : "its file was not found beside the text; add it to the deck to see it";
        this.left.push({ slide: number, what, why });
      }
    }
  }
}

/** A deck made of a text or document, with the text in the text form. */
interface SourceDeck extends Pick<TakenPictures, "pendingPictures">, Pick<Report, "adapted" | "left"> {
  deck: Deck;
  blobs: Map<string, Uint8Array>;
  text: string;
  problems: Problem[];
}

/** Makes a deck of a text or document, and lists what was changed or left out. */
export function deckFromSource(source: SourceRead, name: string, context: SourceContext): SourceDeck {
  const { manuscript, rule, typed } = source;
  const { problems } = manuscript;
  const { assets, blobs, ...taken } = takePictures(source.pictures, context.sha256, problems);
  const pendingPictures = new Map(taken.pendingPictures);
  const metadata = context.metadata && {
    ...context.metadata,
    assets: { ...context.metadata.assets, ...assets },
  };
  const document = typed ? undefined : context.document;
  const { deck, made } = generateDeck(
    manuscript,
    rule,
    {
      newId: context.newId,
      ...(context.fonts ? { fonts: context.fonts } : {}),
      ...(metadata ? { metadata } : {}),
      ...(document ? { document } : {}),
    },
    name.replace(/\.[^.]*$/, "") || "Untitled",
    assets,
  );
  const pictures = new PictureFinder(source, context, blobs, pendingPictures, { ...deck.assets, ...assets });
  deck.slides.forEach((slide, nth) => {
    pictures.find(slide, nth + 1);
  });
  const lines = made.map((one) => one.lines);
  const remarks = problems.map(({ line, message }) => ({
    slide: slideAt(lines, line),
    what: `line ${line}`,
    how: message,
  }));
  return {
    deck: { ...deck, assets: pictures.assets, ...(document ? { manuscript: { document, rule } } : {}) },
    blobs,
    pendingPictures,
    text: source.text(),
    problems,
    adapted: [...remarks, ...pictures.converted],
    left: pictures.left,
  };
}
