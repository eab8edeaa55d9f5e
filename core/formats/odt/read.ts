import { type Align, type Cell, Failure, footnote, joinRuns, Language, type Mark, MAX_LEVEL, type Paragraph, paragraphText, type Run, run } from "@unitext/core/model";
import { type Block, linkTarget, trimmed } from "@unitext/core/text";
import { at, child, childrenOf, localName, partText, type Parts, readMixed, unzip, type XmlNode } from "../archive";
import { type DocumentRead, emptyDocument } from "../document/document";
import { mathmlTex } from "../math";

interface Style {
  parent: string | undefined;
  name: string;
  bold: boolean | undefined;
  italic: boolean | undefined;
  strike: boolean | undefined;
  code: boolean | undefined;
  align: Align | undefined;
  outline: number | undefined;
  list: string | undefined;
}

const ALIGN: Record<string, Align> = { center: "centre", end: "end", right: "end" };
const attribute = (element: XmlNode | undefined, name: string): string | undefined => (element ? Object.entries(element.attributes).find(([key]) => key === name || key.endsWith(`:${name}`))?.[1] : undefined);
const MONOSPACED = /mono|courier|consolas|menlo|cousine|typewriter|fixed/i;

interface Context {
  marks: readonly Mark[];
  link: string | undefined;
}

class OdtReader {
  readonly document: DocumentRead = emptyDocument();
  private readonly parts: Parts;
  private readonly styles = new Map<string, Style>();
  private readonly lists = new Map<string, Map<number, "bullet" | "number">>();
  private number = 0;

  constructor(
    bytes: Uint8Array,
    private readonly name: string,
  ) {
    this.parts = unzip(bytes, name);
    const manifest = this.parts.get("META-INF/manifest.xml");
    if (manifest && /encryption-data/.test(partText(manifest))) throw new Failure("not-readable", name, "The document is protected by a password. Save it without one and bring it in again.");
  }

  private part(path: string, needed: boolean): XmlNode | undefined {
    const bytes = this.parts.get(path);
    if (!bytes) {
      if (needed) throw new Failure("not-readable", this.name, `The document's part ${path} is missing; it is damaged or of another kind.`);
      return undefined;
    }
    try {
      return readMixed(partText(bytes), path);
    } catch (error) {
      if (needed) throw error;
      this.document.problems.push({ line: 1, message: `The document's part ${path} is damaged and was passed over.` });
      return undefined;
    }
  }

  read(): DocumentRead {
    const content = this.part("content.xml", true) as XmlNode;
    const text = at(content, "body", "text") as XmlNode | undefined;
    if (!text) throw new Failure("not-readable", this.name, at(content, "body", "presentation") ? "The file is a presentation, not a text document." : "The document has no text.");
    const styles = this.part("styles.xml", false);
    for (const holder of [child(styles, "styles"), child(styles, "automatic-styles"), child(content, "automatic-styles")]) this.readStyles(holder as XmlNode | undefined);
    this.properties(styles);
    this.blocks(text.children, this.document.blocks);
    return this.document;
  }

  private readStyles(holder: XmlNode | undefined): void {
    for (const element of holder?.children ?? []) {
      const name = attribute(element, "name") ?? "";
      if (localName(element) === "list-style") {
        const levels = new Map<number, "bullet" | "number">();
        for (const level of element.children) levels.set(Number(attribute(level, "level") ?? 1), localName(level) === "list-level-style-number" ? "number" : "bullet");
        this.lists.set(name, levels);
      } else if (localName(element) === "style") {
        const words = child(element, "text-properties") as XmlNode | undefined;
        const paragraph = child(element, "paragraph-properties") as XmlNode | undefined;
        const weight = attribute(words, "font-weight");
        const slant = attribute(words, "font-style");
        const strike = attribute(words, "text-line-through-style") ?? attribute(words, "text-line-through-type");
        const font = attribute(words, "font-name") ?? attribute(words, "font-family");
        const outline = attribute(element, "default-outline-level");
        this.styles.set(name, {
          parent: attribute(element, "parent-style-name"),
          name: (attribute(element, "display-name") ?? name).toLowerCase().replace(/_20_/g, " "),
          bold: weight === undefined ? undefined : weight === "bold" || Number(weight) >= 600,
          italic: slant === undefined ? undefined : slant !== "normal",
          strike: strike === undefined ? undefined : strike !== "none",
          code: font === undefined ? undefined : MONOSPACED.test(font),
          align: ALIGN[attribute(paragraph, "text-align") ?? ""],
          outline: outline ? Number(outline) : undefined,
          list: attribute(element, "list-style-name"),
        });
      }
    }
  }

  private chain(id: string | undefined): Style[] {
    const found: Style[] = [];
    let next = id;
    while (next !== undefined && found.length < 20) {
      const style = this.styles.get(next);
      if (!style) break;
      found.push(style);
      next = style.parent;
    }
    return found;
  }

  private properties(styles: XmlNode | undefined): void {
    const { front } = this.document;
    const meta = at(this.part("meta.xml", false), "meta");
    const said = (name: string) => (child(meta, name) as XmlNode | undefined)?.text.trim() ?? "";
    if (said("title")) front.title = said("title").slice(0, 500);
    if (said("creator") || said("initial-creator")) front.author = (said("initial-creator") || said("creator")).slice(0, 500);
    const words = childrenOf(child(styles, "styles"), "default-style").map((style) => child(style, "text-properties") as XmlNode | undefined).find((found) => attribute(found, "language"));
    const [code, country] = [attribute(words, "language"), attribute(words, "country")];
    const language = Language.safeParse(said("language") || (code && code !== "none" ? (country && country !== "none" ? `${code}-${country}` : code) : ""));
    if (language.success) front.language = language.data;
  }

  private say(message: string): void {
    this.document.problems.push({ line: this.number, message });
  }

  private push(into: Block[], block: Record<string, unknown>): void {
    into.push({ ...block, from: this.number, to: this.number } as unknown as Block);
  }

  private blocks(children: readonly XmlNode[], into: Block[]): void {
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
          this.blocks(childrenOf(element, "index-body").flatMap((body) => (body as XmlNode).children), into);
          break;
        case "frame":
        case "a":
          this.frame(element, into);
          break;
        default:
      }
    }
  }

  private paragraph(element: XmlNode, into: Block[]): void {
    this.number += 1;
    const chain = this.chain(attribute(element, "style-name"));
    const names = chain.map(({ name }) => name);
    const after: Block[] = [];
    const runs = trimmed(joinRuns(this.inline(element, { marks: this.marksOf(chain, [], localName(element) === "h"), link: undefined }, after)));
    const finish = (): void => {
      into.push(...after);
    };
    if (!runs.length) return finish();
    if (runs.length === 1 && runs[0]?.marks?.join() === "formula") {
      this.push(into, { kind: "figure", figure: { kind: "formula", tex: runs[0].text } });
      return finish();
    }
    const text = paragraphText({ kind: "plain", level: 0, runs });
    const outline = localName(element) === "h" ? Number(attribute(element, "outline-level") ?? 1) : chain.find(({ outline: level }) => level)?.outline;
    if (names.includes("title") || outline) {
      if (names.includes("title") && !this.document.front.title) this.document.front.title = text.slice(0, 500);
      const words = runs.map((item) => ({ ...item, text: item.text.replace(/\n/g, " ") }));
      this.push(into, { kind: "heading", depth: names.includes("title") ? 1 : Math.min(6, outline ?? 1), text: [{ kind: "plain", level: 0, runs: words }] });
      return finish();
    }
    const last = into.at(-1);
    const next = last?.to === this.number - 1 ? last : undefined;
    if (names.some((name) => /^(preformatted text|source code|code)$/.test(name)) || runs.every(({ marks, footnote: noted }) => marks?.join() === "code" && !noted)) {
      if (next?.kind === "figure" && next.figure.kind === "code") {
        next.figure.text += `\n${text}`;
        next.to = this.number;
      } else this.push(into, { kind: "figure", figure: { kind: "code", language: "", text } });
    } else if (names.some((name) => /quotation|^quote/.test(name))) {
      if (next?.kind === "quote") {
        next.text.push({ kind: "plain", level: 0, runs });
        next.to = this.number;
      } else this.push(into, { kind: "quote", text: [{ kind: "plain", level: 0, runs }] });
    } else if (names.some((name) => /^(table|figure|illustration|caption|drawing)$/.test(name)) && (next?.kind === "picture" || (next?.kind === "figure" && next.figure.kind === "table"))) {
      if (next.kind === "picture") next.picture.caption = text.slice(0, 2000);
      else if (next.kind === "figure" && next.figure.kind === "table") next.figure.caption = text.slice(0, 2000);
    } else {
      const side = chain.find(({ align }) => align)?.align;
      this.push(into, { kind: "text", text: [{ kind: "plain", level: 0, ...(side ? { align: side } : {}), runs }] });
    }
    finish();
  }

  private marksOf(chain: readonly Style[], marks: readonly Mark[], heading = false): Mark[] {
    const own = new Set(marks);
    const state = (name: "bold" | "italic" | "strike" | "code", mark: Mark) => {
      const value = chain.map((style) => style[name]).find((found) => found !== undefined);
      if (value === true) own.add(mark);
      else if (value === false) own.delete(mark);
    };
    if (!heading) state("bold", "strong");
    if (!heading) state("italic", "emphasis");
    state("strike", "strike");
    state("code", "code");
    return [...own];
  }

  private inline(element: XmlNode, context: Context, after: Block[]): Run[] {
    const runs: Run[] = [];
    const add = (text: string) => runs.push(run(text, context.marks, context.link));
    for (const part of element.content) {
      if (typeof part === "string") {
        add(part.replace(/[\s]+/g, " "));
        continue;
      }
      switch (localName(part)) {
        case "span":
          runs.push(...this.inline(part, { ...context, marks: this.marksOf(this.chain(attribute(part, "style-name")), context.marks) }, after));
          break;
        case "a":
          runs.push(...this.inline(part, { ...context, link: linkTarget(attribute(part, "href") ?? "") ?? context.link }, after));
          break;
        case "s":
          add(" ".repeat(Math.min(200, Number(attribute(part, "c") ?? 1) || 1)));
          break;
        case "tab":
          add(" ");
          break;
        case "line-break":
          add("\n");
          break;
        case "note": {
          const body = child(part, "note-body") as XmlNode | undefined;
          const said = (body?.children ?? []).flatMap((paragraph, nth) => [...(nth ? [run(" ")] : []), ...this.inline(paragraph, { marks: [], link: undefined }, [])]).filter(({ footnote: inner }) => !inner);
          runs.push(footnote(trimmed(joinRuns(said))));
          break;
        }
        case "annotation": {
          const words = childrenOf(part, "p").map((paragraph) => paragraphText({ kind: "plain", level: 0, runs: this.inline(paragraph as XmlNode, { marks: [], link: undefined }, []) })).join(" ").trim();
          if (words) this.push(after, { kind: "notes", text: [{ kind: "plain", level: 0, runs: [run(`Comment: ${words}`)] }] });
          break;
        }
        case "frame": {
          const formula = this.formula(part);
          if (formula) runs.push(run(formula, ["formula"]));
          else this.frame(part, after);
          break;
        }
        case "note-citation":
        case "tracked-changes":
        case "change":
        case "change-start":
        case "change-end":
        case "bookmark":
        case "bookmark-start":
        case "bookmark-end":
        case "soft-page-break":
          break;
        default:
          runs.push(...this.inline(part, context, after));
      }
    }
    return runs;
  }

  private formula(frame: XmlNode): string | undefined {
    const object = child(frame, "object") as XmlNode | undefined;
    if (!object) return undefined;
    const path = (attribute(object, "href") ?? "").replace(/^\.\//, "");
    const inner = (child(object, "math") as XmlNode | undefined) ?? (path ? this.part(`${path}/content.xml`, false) : undefined);
    if (!inner || localName(inner) !== "math") return undefined;
    return mathmlTex(inner).trim() || undefined;
  }

  private frame(element: XmlNode, into: Block[]): void {
    const frame = localName(element) === "a" ? (child(element, "frame") as XmlNode | undefined) : element;
    if (!frame) return;
    const alt = ((child(frame, "desc") ?? child(frame, "title")) as XmlNode | undefined)?.text.trim() ?? "";
    const image = child(frame, "image") as XmlNode | undefined;
    const box = child(frame, "text-box") as XmlNode | undefined;
    if (box) {
      // A picture with its caption stands in a box of its own.
      const held: Block[] = [];
      this.blocks(box.children, held);
      const picture = held.find((block) => block.kind === "picture");
      const [words, ...others] = held.filter((block) => block.kind === "text");
      if (picture?.kind === "picture" && words?.kind === "text" && !others.length) {
        picture.picture.caption = words.text.map(paragraphText).join(" ").trim().slice(0, 2000);
        into.push(picture);
      } else into.push(...held);
    } else if (image) {
      const path = (attribute(image, "href") ?? "").replace(/^\.\//, "");
      const bytes = this.parts.get(path);
      const source = path.startsWith("Pictures/") ? path : `pictures/${path.split("/").at(-1) || `missing-${this.number}`}`;
      if (bytes) this.document.pictures.set(source, bytes);
      else this.say(`The picture “${alt || source}” is not inside the document; its place is kept.`);
      this.push(into, { kind: "picture", picture: { kind: "picture", source, alt } });
    } else this.say(`An object${alt ? ` (“${alt}”)` : ""} of a kind that is not read is left out.`);
  }

  private list(element: XmlNode, into: Block[]): void {
    const text: Paragraph[] = [];
    const after: Block[] = [];
    let from = this.number + 1;
    const walk = (list: XmlNode, level: number, inherited: string | undefined) => {
      const style = attribute(list, "style-name") ?? inherited;
      const kind = this.lists.get(style ?? "")?.get(level + 1) ?? "bullet";
      if (level > MAX_LEVEL) this.say(`Lists nest to ${MAX_LEVEL + 1} levels; deeper items are raised to the last of them.`);
      for (const item of list.children) {
        if (!["list-item", "list-header"].includes(localName(item))) continue;
        let begun = false;
        for (const part of item.children) {
          if (localName(part) === "list") {
            walk(part, level + 1, style);
            continue;
          }
          if (localName(part) === "h") {
            // A numbered heading is written as an item of a list.
            if (text.length) this.push(into, { kind: "text", text: text.splice(0) });
            this.paragraph(part, into);
            from = this.number + 1;
            continue;
          }
          if (localName(part) !== "p") {
            this.blocks([part], after);
            continue;
          }
          this.number += 1;
          const runs = trimmed(joinRuns(this.inline(part, { marks: this.marksOf(this.chain(attribute(part, "style-name")), []), link: undefined }, after)));
          if (runs.length) text.push({ kind: begun || localName(item) === "list-header" ? "plain" : kind, level: Math.min(MAX_LEVEL, level + (begun ? 1 : 0)), runs });
          begun = true;
        }
      }
    };
    walk(element, 0, undefined);
    if (text.length) into.push({ kind: "text", text, from, to: this.number });
    into.push(...after);
  }

  private table(element: XmlNode, into: Block[]): void {
    this.number += 1;
    const line = this.number;
    const rows: { row: XmlNode; head: boolean }[] = [];
    const look = (holder: XmlNode, head: boolean) => {
      for (const part of holder.children) {
        if (localName(part) === "table-row") for (let copy = 0; copy < Math.min(200, Number(attribute(part, "number-rows-repeated") ?? 1)); copy++) rows.push({ row: part, head });
        else if (localName(part) === "table-header-rows") look(part, true);
        else if (["table-rows", "table-row-group"].includes(localName(part))) look(part, head);
      }
    };
    look(element, false);
    const after: Block[] = [];
    const align: Align[] = [];
    const header = rows.findIndex(({ head }) => !head);
    const grid = rows.map(({ row }, y) => {
      const cells: (Cell | null)[] = [];
      for (const part of row.children) {
        const repeated = Math.min(100, Number(attribute(part, "number-columns-repeated") ?? 1) || 1);
        if (localName(part) === "covered-table-cell") for (let copy = 0; copy < repeated; copy++) cells.push(null);
        if (localName(part) !== "table-cell") continue;
        const blocks: Block[] = [];
        this.blocks(part.children, blocks);
        const text = blocks.flatMap((block) => ("text" in block ? (block.text as Paragraph[]) : []));
        after.push(...blocks.filter((block) => block.kind === "picture" || block.kind === "notes"));
        const side = text.find((paragraph) => paragraph.align)?.align;
        if (side && y >= header && !align[cells.length]) align[cells.length] = side;
        const columns = Number(attribute(part, "number-columns-spanned") ?? 1) || 1;
        const down = Math.min(rows.length - y, Number(attribute(part, "number-rows-spanned") ?? 1) || 1);
        for (let copy = 0; copy < repeated; copy++) cells.push({ text: text.map(({ align: _, ...paragraph }) => ({ ...paragraph, kind: "plain" as const, level: 0 })), ...(columns > 1 ? { columns } : {}), ...(down > 1 ? { rows: down } : {}) });
      }
      return cells;
    });
    const width = Math.max(0, ...grid.map(({ length }) => length));
    if (!width) return;
    if (new Set(grid.map(({ length }) => length)).size > 1) this.say("The rows of a table have different lengths; empty cells fill the shorter ones.");
    const full = grid.map((row) => Array.from({ length: width }, (_, x) => (row[x] === undefined ? { text: [] } : (row[x] as Cell | null))));
    const bold = full.length > 1 && (full[0] ?? []).every((cell) => cell === null || (cell.text.length > 0 && cell.text.every(({ runs }) => runs.every(({ marks }) => marks?.includes("strong")))));
    const heads = header > 0 ? header : header < 0 ? full.length : bold ? 1 : 0;
    const read = full.map((row, y) => (y < heads ? row.map((cell) => cell && { ...cell, text: cell.text.map((paragraph) => ({ ...paragraph, runs: paragraph.runs.map((item) => (item.footnote ? item : run(item.text, item.marks?.filter((mark) => mark !== "strong"), item.link))) })) }) : row));
    into.push({ kind: "figure", figure: { kind: "table", rows: read, header: Math.min(heads, full.length), align: Array.from({ length: width }, (_, x) => align[x] ?? "start") }, from: line, to: this.number }, ...after);
  }
}

/**
 * Reads a text document in OpenDocument 1.2 or 1.3: headings by outline level, lists, tables with merged cells,
 * pictures, footnotes and endnotes, links, formulas, comments; tracked changes count as accepted. What is not read is
 * told. Throws a Failure for a file that is no such document.
 */
export function readOdt(bytes: Uint8Array, name: string): DocumentRead {
  return new OdtReader(bytes, name).read();
}
