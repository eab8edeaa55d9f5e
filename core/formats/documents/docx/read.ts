import { type DocumentHost, InlineReader } from "./inline";
import { addCode, addQuote, hasCaption, runInHeading, setCaption } from "../../shared/document/paragraphs";
import { cutText, type Align, Failure, Language, MAX_LEVEL, paragraphText, type Run, must } from "@unitext/core/model";
import type { Block } from "@unitext/core/text";
import { partText } from "../../shared/archive";
import { child, localName, readXml, type XmlElement } from "../../shared/xml";
import { type DocumentRead, emptyDocument } from "../../shared/document/document";
import { unbold } from "../../shared/document/table";
import { DocumentPackage } from "./package";
import { Numbering, type Style, Styles, propertyValue } from "./styles";
import { cellBlocks, framedCell, readTable } from "./table";

interface List {
  kind: "bullet" | "number";
  level: number;
  /** The id of its numbering definition; undefined for items that are known by the name of their style only. */
  id?: string;
  /** Whether the paragraph itself, not its style, puts it in the list. */
  own: boolean;
}

/** A paragraph with words, and the styles that it has. */
interface StyledParagraph {
  properties: XmlElement | undefined;
  chain: readonly Style[];
  /** The name of its style. */
  name: string;
  runs: Run[];
  /** Whether it may join the list before it: nothing else goes after it. */
  joinsList: boolean;
}

class DocxReader implements DocumentHost {
  readonly document: DocumentRead = emptyDocument();
  readonly source: DocumentPackage;
  readonly styles: Styles;
  private readonly numbering: Numbering;
  private readonly inline: InlineReader;
  line = 0;
  private contents = 0;

  constructor(
    bytes: Uint8Array,
    private readonly name: string,
  ) {
    this.source = new DocumentPackage(bytes, name, this.document.problems);
    this.styles = new Styles(this.source.besides("styles"));
    this.numbering = new Numbering(this.source.besides("numbering"));
    this.inline = new InlineReader(this);
  }

  read(): DocumentRead {
    const body = child(this.source.document(), "body");
    if (!body) throw new Failure("not-readable", this.name, "The document has no body.");
    this.properties();
    for (const element of body.children) this.block(element, this.document.blocks);
    const { problems } = this.document;
    if (this.contents)
      problems.push({
        line: 1,
        message: "The document's table of contents is left out; the slides have their own order.",
      });
    for (const name of this.inline.unknown)
      problems.push({
        line: 1,
        message: `The document holds “${name}”, which is not read; the text around it is kept.`,
      });
    return this.document;
  }

  private properties(): void {
    const bytes = this.source.bytes("docProps/core.xml");
    const { front, problems } = this.document;
    try {
      const core = bytes && readXml(partText(bytes), "docProps/core.xml");
      const said = (name: string) => (core ? (child(core, name)?.text.trim() ?? "") : "");
      if (said("title")) front.title = cutText(said("title"), 500);
      if (said("creator")) front.author = cutText(said("creator"), 500);
      const language = Language.safeParse(said("language") || (this.styles.language ?? ""));
      if (language.success) front.language = language.data;
    } catch {
      problems.push({ line: 1, message: "The document's properties are damaged and were passed over." });
    }
  }

  say(message: string): void {
    this.document.problems.push({ line: this.line, message });
  }

  block(element: XmlElement, into: Block[]): void {
    switch (localName(element)) {
      case "p":
        return this.paragraph(element, into);
      case "tbl":
        return this.table(element, into);
      case "sdt":
        for (const inner of child(element, "sdtContent")?.children ?? []) this.block(inner, into);
        return;
      case "ins":
      case "moveTo":
      case "customXml":
      case "smartTag":
        for (const inner of element.children) this.block(inner, into);
        return;
      case "altChunk":
        this.say("A part of another kind is embedded in the document and is left out.");
        return;
      case "oMathPara":
        return this.inline.formulas(element, into);
      case "sectPr":
      case "del":
      case "moveFrom":
      case "bookmarkStart":
      case "bookmarkEnd":
      case "proofErr":
      case "permStart":
      case "permEnd":
      case "commentRangeStart":
      case "commentRangeEnd":
        return;
      default:
        this.inline.unknown.add(localName(element));
        // An unknown element may still hold paragraphs.
        for (const inner of element.children) if (["p", "tbl"].includes(localName(inner))) this.block(inner, into);
    }
  }

  private push(into: Block[], block: Record<string, unknown>): void {
    into.push({ ...block, from: this.line, to: this.line } as unknown as Block);
  }

  private paragraph(element: XmlElement, into: Block[]): void {
    this.line += 1;
    const properties = child(element, "pPr");
    const styleId = propertyValue(child(properties, "pStyle"));
    const chain = this.styles.chain(styleId);
    const name = chain[0]?.name ?? "";
    if (/^toc\b|^table of (contents|figures)/.test(name)) {
      this.contents += 1;
      return;
    }
    const { runs, after } = this.inline.read(element.children, styleId);
    if (runs.length) this.paragraphBlock({ properties, chain, name, runs, joinsList: !after.length }, into);
    into.push(...after);
  }

  /** Adds a paragraph with words as the block that its style says it is. */
  private paragraphBlock(paragraph: StyledParagraph, into: Block[]): void {
    const { properties, chain, name, runs } = paragraph;
    if (runs.length === 1 && runs[0]?.marks?.join() === "formula") {
      this.push(into, { kind: "figure", figure: { kind: "formula", tex: runs[0].text } });
      return;
    }
    const list = this.listOf(properties, chain);
    const depth = this.depthOf(properties, chain, name);
    const text = paragraphText({ kind: "plain", level: 0, runs });
    if (depth !== undefined && !list?.own) {
      this.heading(paragraph, depth, text, into);
      return;
    }
    if (/^caption$/.test(name) && !hasCaption(into.at(-1)) && setCaption(into.at(-1), text)) return;
    if (this.isCode(runs, chain)) addCode(into, runs.map((item) => item.text).join(""), this.line);
    else if (/quote/.test(name)) addQuote(into, runs, this.line);
    else this.text(paragraph, list, into);
  }

  private heading({ name, runs }: StyledParagraph, depth: number, text: string, into: Block[]): void {
    const { front } = this.document;
    if (/^title$/.test(name) && !front.title) front.title = cutText(text.replace(/\s+/g, " "), 500);
    const { heading, text: rest } = runInHeading(runs);
    const words = heading.map((item) =>
      item.text.includes("\n") ? { ...item, text: item.text.replace(/\n/g, " ") } : item,
    );
    if (words.length)
      this.push(into, { kind: "heading", depth, text: [{ kind: "plain", level: 0, runs: unbold(words) }] });
    if (rest.length) this.push(into, { kind: "text", text: [{ kind: "plain", level: 0, runs: rest }] });
  }

  /** Adds a paragraph or an item of a list; items join the list before them. */
  private text(
    { properties, chain, name, runs, joinsList }: StyledParagraph,
    list: List | undefined,
    into: Block[],
  ): void {
    const last = into.at(-1);
    const before = last?.kind === "text" && last.text[0]?.kind !== "plain" ? last : undefined;
    const start =
      list?.kind === "number" && list.id !== undefined ? { start: this.numbering.next(list.id, list.level) } : {};
    if (list && before && joinsList) {
      if (list.level > MAX_LEVEL)
        this.say(`Lists nest to ${MAX_LEVEL + 1} levels; deeper items are raised to the last of them.`);
      before.text.push({ kind: list.kind, level: Math.min(MAX_LEVEL, list.level), ...start, runs });
      before.to = this.line;
    } else if (!list && /^list continue/.test(name) && before) {
      before.text.push({ kind: "plain", level: Math.min(MAX_LEVEL, (before.text.at(-1)?.level ?? 0) + 1), runs });
      before.to = this.line;
    } else if (list)
      this.push(into, {
        kind: "text",
        text: [{ kind: list.kind, level: Math.min(MAX_LEVEL, list.level), ...start, runs }],
      });
    else {
      const align = alignOf(properties, chain);
      this.push(into, { kind: "text", text: [{ kind: "plain", level: 0, ...(align ? { align } : {}), runs }] });
    }
  }

  private depthOf(properties: XmlElement | undefined, chain: readonly Style[], name: string): number | undefined {
    const own = propertyValue(child(properties, "outlineLvl"));
    if (/^title$/.test(name)) return 1;
    const named = chain.map(({ name: of }) => /^heading (\d)$/.exec(of)?.[1]).find((level) => level !== undefined);
    const outline =
      own !== undefined
        ? Number(own)
        : named !== undefined
          ? Number(named) - 1
          : chain.map(({ outline: of }) => of).find((of) => of !== undefined);
    return outline === undefined || outline > 8 ? undefined : Math.min(6, outline + 1);
  }

  private listOf(properties: XmlElement | undefined, chain: readonly Style[]): List | undefined {
    const own = child(properties, "numPr");
    const style = chain.find(({ list }) => list)?.list;
    const id = propertyValue(child(own, "numId")) ?? style?.id;
    const level = Number(propertyValue(child(own, "ilvl")) ?? style?.level ?? 0);
    if (id !== undefined) {
      const kind = this.numbering.kind(id, level);
      return kind && { kind, id, level, own: own !== undefined && kind === "bullet" };
    }
    const named = /^list (bullet|number)(?: (\d))?$/.exec(chain[0]?.name ?? "");
    return named ? { kind: named[1] as "bullet" | "number", level: Number(named[2] ?? 1) - 1, own: true } : undefined;
  }

  private isCode(runs: readonly Run[], chain: readonly Style[]): boolean {
    if (chain.some(({ name }) => /html preformatted|source code|^code$|preformatted|verbatim/.test(name))) return true;
    return (
      runs.length > 0 &&
      runs.every(({ marks, link, footnote: noted }) => marks?.length === 1 && marks[0] === "code" && !link && !noted)
    );
  }

  private table(element: XmlElement, into: Block[]): void {
    this.line += 1;
    const from = this.line;
    const framed = framedCell(element);
    if (framed) {
      into.push(...cellBlocks(framed, this));
      return;
    }
    const read = readTable(element, this);
    if (!read) return;
    const { figure, after } = read;
    const before = into.at(-1);
    // A caption may also be above its table.
    if (
      before?.kind === "text" &&
      before.to === from - 1 &&
      before.text.length === 1 &&
      /^(table|tabelle|tabla|tableau|tabel)\s+\d+/i.test(paragraphText(must(before.text[0])))
    ) {
      into.pop();
      figure.caption = cutText(paragraphText(must(before.text[0])).trim(), 2000);
    }
    into.push({ kind: "figure", figure, from, to: this.line }, ...after);
  }
}

function alignOf(properties: XmlElement | undefined, chain: readonly Style[]): Align | undefined {
  const styled = chain.find(({ properties: own }) => child(own, "jc"))?.properties;
  return ALIGN[propertyValue(child(properties, "jc")) ?? propertyValue(child(styled, "jc")) ?? ""];
}

const ALIGN: Record<string, Align> = { center: "centre", right: "end", end: "end" };

/**
 * Reads a word-processing document in Office Open XML (ECMA-376-1, 17): headings by style and outline level, lists,
 * tables with merged cells, pictures, footnotes and endnotes, links, formulas, comments. Tracked changes count as
 * accepted; what is not read is reported. Throws a Failure for a file that is not such a document.
 */
export function readDocx(bytes: Uint8Array, name: string): DocumentRead {
  return new DocxReader(bytes, name).read();
}
