import { type DocumentHost, InlineReader } from "./inline";
import { addCode, addQuote, runInHeading, setCaption } from "../../shared/document/paragraphs";
import {
  cutText,
  Failure,
  Language,
  MAX_LEVEL,
  type Paragraph,
  paragraphText,
  type Run,
  must,
} from "@unitext/core/model";
import type { Block } from "@unitext/core/text";
import { partText, type Parts, unzip } from "../../shared/archive";
import { at, child, childrenOf, localName, readMixed, type XmlNode, attribute } from "../../shared/xml";
import { type DocumentRead, emptyDocument } from "../../shared/document/document";
import { ListCounter } from "../../shared/document/listcounter";
import { Styles } from "./styles";
import { readTable } from "./table";

/** Returns how many pages end inside an element, as the program that wrote the file laid it out. */
const softBreaks = (element: XmlNode): number =>
  (localName(element) === "soft-page-break" ? 1 : 0) +
  element.children.reduce((sum, inner) => sum + softBreaks(inner), 0);

class OdtReader implements DocumentHost {
  readonly document: DocumentRead = emptyDocument();
  private readonly parts: Parts;
  readonly styles = new Styles();
  private readonly inline = new InlineReader(this);
  private readonly counter = new ListCounter();
  /** The counter of each list with an id, for lists that continue it. */
  private readonly countedLists = new Map<string, string>();
  line = 0;

  constructor(
    bytes: Uint8Array,
    private readonly name: string,
  ) {
    this.parts = unzip(bytes, name);
    const manifest = this.parts.get("META-INF/manifest.xml");
    if (manifest && /encryption-data/.test(partText(manifest)))
      throw new Failure(
        "not-readable",
        name,
        "The document is protected by a password. Save it without one and bring it in again.",
      );
  }

  private part(path: string, needed: boolean): XmlNode | undefined {
    if (!this.parts.has(path)) {
      if (needed)
        throw new Failure(
          "not-readable",
          this.name,
          `The document's part ${path} is missing; it is damaged or of another kind.`,
        );
      return undefined;
    }
    try {
      return readMixed(partText(must(this.parts.get(path))), path);
    } catch (error) {
      if (needed) throw error;
      this.document.problems.push({ line: 1, message: `The document's part ${path} is damaged and was passed over.` });
      return undefined;
    }
  }

  bytes(path: string): Uint8Array | undefined {
    return this.parts.get(path);
  }

  tree(path: string): XmlNode | undefined {
    return this.part(path, false);
  }

  read(): DocumentRead {
    const content = must(this.part("content.xml", true));
    const text = at(content, "body", "text");
    if (!text)
      throw new Failure(
        "not-readable",
        this.name,
        at(content, "body", "presentation")
          ? "The file is a presentation, not a text document."
          : "The document has no text.",
      );
    const styles = this.part("styles.xml", false);
    for (const holder of [
      child(styles, "styles"),
      child(styles, "automatic-styles"),
      child(content, "automatic-styles"),
    ])
      this.styles.add(holder);
    this.properties(styles);
    this.body(text.children);
    return this.document;
  }

  /** Reads the body. Frames that are anchored to pages come first in the file; each is added at the end of its page. */
  private body(children: readonly XmlNode[]): void {
    const { blocks } = this.document;
    const onPages = new Map<number, XmlNode[]>();
    const isOnPage = (element: XmlNode) =>
      localName(element) === "frame" && attribute(element, "anchor-type") === "page";
    for (const frame of children.filter(isOnPage)) {
      const page = Number(attribute(frame, "anchor-page-number")) || Number.POSITIVE_INFINITY;
      onPages.set(page, [...(onPages.get(page) ?? []), frame]);
    }
    let page = 1;
    const place = (before: number) => {
      for (const [of, frames] of onPages) {
        if (of >= before) continue;
        for (const frame of frames) this.inline.frame(frame, blocks);
        onPages.delete(of);
      }
    };
    for (const element of children) {
      if (isOnPage(element)) continue;
      if (blocks.length && this.styles.startsPage(attribute(element, "style-name"))) place(++page);
      this.blocks([element], blocks);
      page += softBreaks(element);
      place(page);
    }
    this.appendFrames([...onPages.values()].flat());
  }

  /** Adds the pictures of frames whose page is not known after the text, except those that the text shows too. */
  private appendFrames(frames: readonly XmlNode[]): void {
    const { blocks } = this.document;
    const pictures = (list: readonly Block[]) =>
      list.flatMap((block) => (block.kind === "picture" ? [block.picture.source] : []));
    const shown = new Set(pictures(blocks));
    const after: Block[] = [];
    for (const frame of frames) {
      const held: Block[] = [];
      this.inline.frame(frame, held);
      if (!pictures(held).some((source) => shown.has(source))) after.push(...held);
    }
    if (after.length)
      this.say("Pictures that belong to a page, not to a paragraph, follow the text, since their page is not known.");
    blocks.push(...after);
  }

  private properties(styles: XmlNode | undefined): void {
    const { front } = this.document;
    const meta = at(this.part("meta.xml", false), "meta");
    const said = (name: string) => child(meta, name)?.text.trim() ?? "";
    if (said("title")) front.title = cutText(said("title"), 500);
    if (said("creator") || said("initial-creator"))
      front.author = cutText(said("initial-creator") || said("creator"), 500);
    const words = childrenOf(child(styles, "styles"), "default-style")
      .map((style) => child(style, "text-properties"))
      .find((found) => attribute(found, "language"));
    const [code, country] = [attribute(words, "language"), attribute(words, "country")];
    const language = Language.safeParse(
      said("language") ||
        (code && code !== "none" ? (country && country !== "none" ? `${code}-${country}` : code) : ""),
    );
    if (language.success) front.language = language.data;
  }

  say(message: string): void {
    this.document.problems.push({ line: this.line, message });
  }

  private push(into: Block[], block: Record<string, unknown>): void {
    into.push({ ...block, from: this.line, to: this.line } as unknown as Block);
  }

  blocks(children: readonly XmlNode[], into: Block[]): void {
    for (const element of children) {
      switch (localName(element)) {
        case "h":
        case "p":
          this.paragraph(element, into);
          break;
        case "list":
          this.list(element, into);
          break;
        case "table":
          this.table(element, into);
          break;
        case "section":
        case "index-body":
          this.blocks(element.children, into);
          break;
        case "table-of-content":
          this.say("The document's table of contents is left out; the slides have their own order.");
          break;
        case "bibliography":
          this.blocks(
            childrenOf(element, "index-body").flatMap((body) => body.children),
            into,
          );
          break;
        case "frame":
        case "a":
          this.inline.frame(element, into);
          break;
        default:
      }
    }
  }

  private paragraph(element: XmlNode, into: Block[]): void {
    this.line += 1;
    const after: Block[] = [];
    const runs = this.inline.paragraph(element, after);
    if (runs.length) this.paragraphBlock(element, runs, into);
    into.push(...after);
  }

  /** Adds a paragraph with words as the block that its style says it is. */
  private paragraphBlock(element: XmlNode, runs: Run[], into: Block[]): void {
    if (runs.length === 1 && runs[0]?.marks?.join() === "formula") {
      this.push(into, { kind: "figure", figure: { kind: "formula", tex: runs[0].text } });
      return;
    }
    const chain = this.styles.chain(attribute(element, "style-name"));
    const hasName = (pattern: RegExp) => chain.some(({ name }) => pattern.test(name));
    const text = paragraphText({ kind: "plain", level: 0, runs });
    const isTitle = hasName(/^title$/);
    const outline =
      localName(element) === "h"
        ? Number(attribute(element, "outline-level") ?? 1)
        : chain.find(({ outline: level }) => level)?.outline;
    if (isTitle || outline) {
      const { front } = this.document;
      if (isTitle && !front.title) front.title = cutText(text, 500);
      const { heading, text: rest } = runInHeading(runs);
      const words = heading.map((item) => ({ ...item, text: item.text.replace(/\n/g, " ") }));
      const depth = isTitle ? 1 : Math.min(6, outline ?? 1);
      if (words.length) this.push(into, { kind: "heading", depth, text: [{ kind: "plain", level: 0, runs: words }] });
      if (rest.length) this.push(into, { kind: "text", text: [{ kind: "plain", level: 0, runs: rest }] });
      return;
    }
    const last = into.at(-1);
    const isCode = runs.every(({ marks, footnote: note }) => marks?.join() === "code" && !note);
    if (isCode || hasName(/^(preformatted text|source code|code)$/)) addCode(into, text, this.line);
    else if (hasName(/quotation|^quote/)) addQuote(into, runs, this.line);
    else if (
      hasName(/^(table|figure|illustration|caption|drawing)$/) &&
      last?.to === this.line - 1 &&
      setCaption(last, text)
    )
      return;
    else {
      const align = chain.find((style) => style.align)?.align;
      this.push(into, { kind: "text", text: [{ kind: "plain", level: 0, ...(align ? { align } : {}), runs }] });
    }
  }

  /**
   * Returns by which list the items of a list are counted, and whether they go on: after the list that it names, or the last
   * one of its style (OpenDocument 1.2, text:continue-list and text:continue-numbering).
   */
  private countedAs(element: XmlNode): { list: string; continues: boolean } {
    const style = attribute(element, "style-name") ?? "";
    const named = attribute(element, "continue-list");
    const isContinued = named !== undefined || attribute(element, "continue-numbering") === "true";
    const list = (named !== undefined ? this.countedLists.get(named) : undefined) ?? `style ${style}`;
    const id = attribute(element, "id");
    if (id !== undefined) this.countedLists.set(id, list);
    return { list, continues: isContinued };
  }

  private list(element: XmlNode, into: Block[]): void {
    const text: Paragraph[] = [];
    const after: Block[] = [];
    let from = this.line + 1;
    const counted = this.countedAs(element);
    const walk = (list: XmlNode, level: number, inherited: string | undefined) => {
      const style = attribute(list, "style-name") ?? inherited;
      const { kind, start: first } = this.styles.listLevel(style, level);
      let isNew = list !== element || !counted.continues;
      if (level > MAX_LEVEL)
        this.say(`Lists nest to ${MAX_LEVEL + 1} levels; deeper items are raised to the last of them.`);
      for (const item of list.children) {
        if (!["list-item", "list-header"].includes(localName(item))) continue;
        let begun = false;
        const given = attribute(item, "start-value");
        for (const part of item.children) {
          if (localName(part) === "list") {
            walk(part, level + 1, style);
            continue;
          }
          if (localName(part) === "h") {
            // A numbered heading is written as a list item.
            if (text.length) this.push(into, { kind: "text", text: text.splice(0) });
            this.paragraph(part, into);
            from = this.line + 1;
            continue;
          }
          if (localName(part) !== "p") {
            this.blocks([part], after);
            continue;
          }
          this.line += 1;
          const runs = this.inline.paragraph(part, after);
          const isItem = !begun && localName(item) !== "list-header";
          if (runs.length) {
            const start =
              isItem && kind === "number"
                ? {
                    start: this.counter.next(counted.list, level, Number(given ?? first), isNew || given !== undefined),
                  }
                : {};
            if (isItem) isNew = false;
            text.push({
              kind: isItem ? kind : "plain",
              level: Math.min(MAX_LEVEL, level + (begun ? 1 : 0)),
              ...start,
              runs,
            });
          }
          begun = true;
        }
      }
    };
    walk(element, 0, undefined);
    if (text.length) into.push({ kind: "text", text, from, to: this.line });
    into.push(...after);
  }

  private table(element: XmlNode, into: Block[]): void {
    this.line += 1;
    const from = this.line;
    const read = readTable(element, this);
    if (read) into.push({ kind: "figure", figure: read.figure, from, to: this.line }, ...read.after);
  }
}

/**
 * Reads a text document in OpenDocument 1.2 or 1.3: headings by outline level, lists, tables with merged cells,
 * pictures, footnotes and endnotes, links, formulas, comments. Tracked changes count as accepted; what is not read is
 * reported. Throws a Failure for a file that is not such a document.
 */
export function readOdt(bytes: Uint8Array, name: string): DocumentRead {
  return new OdtReader(bytes, name).read();
}
