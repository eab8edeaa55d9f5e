import { type Align, type Cell, Failure, footnote, joinRuns, Language, type Mark, MAX_LEVEL, type Paragraph, paragraphText, type Run, run } from "@unitext/core/model";
import { type Block, type Figure, linkTarget, trimmed } from "@unitext/core/text";
import { at, child, childrenOf, localName, partText, type Parts, readXml, unzip, type XmlElement } from "../archive";
import { type DocumentRead, emptyDocument } from "../document/document";
import { ommlTex } from "../math";
import { attributeOf, isMonospaced, isOn, Numbering, type Style, Styles, valueOf } from "./styles";

interface Relationship {
  target: string;
  external: boolean;
}

/** What a paragraph is before it becomes a block. */
interface Gathered {
  runs: Run[];
  after: Block[];
}

/** Elements that only wrap what they hold; changes that were tracked count as accepted. */
const WRAPPERS = new Set(["ins", "moveTo", "smartTag", "sdtContent", "customXml", "fldSimple", "dir", "bdo", "ruby", "rubyBase"]);
const REMOVED = new Set(["del", "moveFrom", "rPr", "pPr", "proofErr", "bookmarkStart", "bookmarkEnd", "commentRangeStart", "commentRangeEnd", "sdtPr", "sdtEndPr", "rt", "permStart", "permEnd", "lastRenderedPageBreak", "tab"]);

class DocxReader {
  readonly document: DocumentRead = emptyDocument();
  private readonly parts: Parts;
  private readonly styles: Styles;
  private readonly numbering: Numbering;
  private readonly relationships: Map<string, Relationship>;
  private readonly notes = new Map<string, XmlElement>();
  private readonly comments = new Map<string, string>();
  private readonly main: string;
  private readonly noted = new Map<string, Run[]>();
  private readonly unknown = new Set<string>();
  /** Fields that are open: the instruction that was read so far, and whether their result has begun. */
  private readonly fields: { instruction: string; result: boolean }[] = [];
  private number = 0;
  private contents = 0;

  constructor(
    bytes: Uint8Array,
    private readonly name: string,
  ) {
    if (bytes[0] === 0xd0 && bytes[1] === 0xcf) throw new Failure("not-readable", name, "The document is protected by a password, or of an older kind (.doc). Save it as .docx without a password and bring it in again.");
    this.parts = unzip(bytes, name);
    const root = this.related("");
    this.main = [...root.values()].find(({ target }) => /(^|\/)document\.xml$/.test(target))?.target ?? "word/document.xml";
    this.relationships = this.related(this.main);
    const styles = this.besides("styles");
    this.styles = new Styles(styles);
    this.numbering = new Numbering(this.besides("numbering"));
    for (const kind of ["footnote", "endnote"]) for (const note of childrenOf(this.besides(`${kind}s`), kind)) this.notes.set(`${kind}:${attributeOf(note, "id")}`, note);
    for (const comment of childrenOf(this.besides("comments"), "comment")) this.comments.set(attributeOf(comment, "id") ?? "", childrenOf(comment, "p").map((paragraph) => this.words(paragraph)).join(" "));
  }

  /** The relationships of a part, with targets as paths in the archive. */
  private related(part: string): Map<string, Relationship> {
    const slash = part.lastIndexOf("/");
    const folder = part.slice(0, slash + 1);
    const bytes = this.parts.get(`${folder}_rels/${part.slice(slash + 1)}.rels`);
    const found = new Map<string, Relationship>();
    if (!bytes) return found;
    for (const { attributes } of readXml(partText(bytes), `${part} relationships`).children) {
      const target = attributes.Target ?? "";
      const external = attributes.TargetMode === "External";
      const path = external ? target : target.startsWith("/") ? target.slice(1) : `${folder}${target}`.replace(/[^/]+\/\.\.\//g, "");
      found.set(attributes.Id ?? "", { target: path, external });
    }
    return found;
  }

  /** A part beside the main one, by its usual name or its relationship; one that is broken is told and passed over. */
  private besides(name: string): XmlElement | undefined {
    const path = [...this.relationships.values()].find(({ target, external }) => !external && target.endsWith(`/${name}.xml`))?.target ?? `word/${name}.xml`;
    const bytes = this.parts.get(path);
    if (!bytes) {
      if ([...this.relationships.values()].some(({ target }) => target === path)) this.document.problems.push({ line: 1, message: `The document's part “${name}” is missing; it was read without.` });
      return undefined;
    }
    try {
      return readXml(partText(bytes), path);
    } catch (error) {
      this.document.problems.push({ line: 1, message: `The document's part “${name}” is damaged and was passed over: ${(error as Error).message}` });
      return undefined;
    }
  }

  read(): DocumentRead {
    const bytes = this.parts.get(this.main);
    if (!bytes) throw new Failure("not-readable", this.name, this.parts.has("content.xml") ? "The file is an OpenDocument text with the ending .docx; rename it to .odt." : "The document has no main part (word/document.xml); it is damaged or of another kind.");
    const body = child(readXml(partText(bytes), this.main), "body");
    if (!body) throw new Failure("not-readable", this.name, "The document has no body.");
    this.properties();
    for (const element of body.children) this.block(element, this.document.blocks);
    const { problems } = this.document;
    if (this.contents) problems.push({ line: 1, message: "The document's table of contents is left out; the slides have their own order." });
    for (const name of this.unknown) problems.push({ line: 1, message: `The document holds “${name}”, which is not read; the text around it is kept.` });
    return this.document;
  }

  private properties(): void {
    const bytes = this.parts.get("docProps/core.xml");
    const { front, problems } = this.document;
    try {
      const core = bytes && readXml(partText(bytes), "docProps/core.xml");
      const said = (name: string) => (core ? (child(core, name)?.text.trim() ?? "") : "");
      if (said("title")) front.title = said("title").slice(0, 500);
      if (said("creator")) front.author = said("creator").slice(0, 500);
      const language = Language.safeParse(said("language") || (this.styles.language ?? ""));
      if (language.success) front.language = language.data;
    } catch {
      problems.push({ line: 1, message: "The document's properties are damaged and were passed over." });
    }
  }

  private say(message: string): void {
    this.document.problems.push({ line: this.number, message });
  }

  private block(element: XmlElement, into: Block[]): void {
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
        return this.formulas(element, into);
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
        this.unknown.add(localName(element));
        // An element that is not known may still hold paragraphs.
        for (const inner of element.children) if (["p", "tbl"].includes(localName(inner))) this.block(inner, into);
    }
  }

  private push(into: Block[], block: Record<string, unknown>): void {
    into.push({ ...block, from: this.number, to: this.number } as unknown as Block);
  }

  private paragraph(element: XmlElement, into: Block[]): void {
    this.number += 1;
    const properties = child(element, "pPr");
    const chain = this.styles.chain(valueOf(child(properties, "pStyle")));
    const [style] = chain;
    const name = style?.name ?? "";
    if (/^toc\b|^table of (contents|figures)/.test(name)) {
      this.contents += 1;
      return;
    }
    const styleId = valueOf(child(properties, "pStyle"));
    const gathered: Gathered = { runs: [], after: [] };
    this.inline(element.children, gathered, { marks: [], link: undefined, style: styleId });
    const runs = trimmed(joinRuns(gathered.runs));
    const finish = (): void => {
      into.push(...gathered.after);
    };
    if (!runs.length) return finish();
    if (runs.length === 1 && runs[0]?.marks?.join() === "formula") {
      this.push(into, { kind: "figure", figure: { kind: "formula", tex: runs[0].text } });
      return finish();
    }
    const list = this.listOf(properties, chain);
    const depth = this.depthOf(properties, chain, name);
    const text = paragraphText({ kind: "plain", level: 0, runs });
    if (depth !== undefined && !list?.own) {
      const words = runs.map((item) => (item.text.includes("\n") ? { ...item, text: item.text.replace(/\n/g, " ") } : item));
      if (/^title$/.test(name) && !this.document.front.title) this.document.front.title = text.replace(/\s+/g, " ").slice(0, 500);
      this.push(into, { kind: "heading", depth, text: [{ kind: "plain", level: 0, runs: unbold(words) }] });
      return finish();
    }
    if (/^caption$/.test(name) && this.caption(text, into)) return finish();
    const side = ALIGN[valueOf(child(properties, "jc")) ?? valueOf(child(chain.map(({ properties: own }) => own).find((own) => child(own, "jc")), "jc")) ?? ""];
    if (this.isCode(runs, chain)) {
      const last = into.at(-1);
      const line = runs.map(({ text: words }) => words).join("");
      if (last?.kind === "figure" && last.figure.kind === "code" && last.to === this.number - 1) {
        last.figure.text += `\n${line}`;
        last.to = this.number;
      } else this.push(into, { kind: "figure", figure: { kind: "code", language: "", text: line } });
      return finish();
    }
    if (/quote/.test(name)) {
      const last = into.at(-1);
      if (last?.kind === "quote" && last.to === this.number - 1) {
        last.text.push({ kind: "plain", level: 0, runs });
        last.to = this.number;
      } else this.push(into, { kind: "quote", text: [{ kind: "plain", level: 0, runs }] });
      return finish();
    }
    const paragraph: Paragraph = { kind: list?.kind ?? "plain", level: list ? Math.min(MAX_LEVEL, list.level) : 0, ...(side && !list ? { align: side } : {}), runs };
    const last = into.at(-1);
    if (list && last?.kind === "text" && last.text[0]?.kind !== "plain" && gathered.after.length === 0) {
      if (list.level > MAX_LEVEL) this.say(`Lists nest to ${MAX_LEVEL + 1} levels; deeper items are raised to the last of them.`);
      last.text.push(paragraph);
      last.to = this.number;
    } else if (/^list continue/.test(name) && last?.kind === "text" && last.text[0]?.kind !== "plain") {
      last.text.push({ kind: "plain", level: Math.min(MAX_LEVEL, (last.text.at(-1)?.level ?? 0) + 1), runs });
      last.to = this.number;
    } else this.push(into, { kind: "text", text: [paragraph] });
    finish();
  }

  private depthOf(properties: XmlElement | undefined, chain: readonly Style[], name: string): number | undefined {
    const own = valueOf(child(properties, "outlineLvl"));
    if (/^title$/.test(name)) return 1;
    const named = chain.map(({ name: of }) => /^heading (\d)$/.exec(of)?.[1]).find((level) => level !== undefined);
    const outline = own !== undefined ? Number(own) : named !== undefined ? Number(named) - 1 : chain.map(({ outline: of }) => of).find((of) => of !== undefined);
    return outline === undefined || outline > 8 ? undefined : Math.min(6, outline + 1);
  }

  private listOf(properties: XmlElement | undefined, chain: readonly Style[]): { kind: "bullet" | "number"; level: number; own: boolean } | undefined {
    const own = child(properties, "numPr");
    const style = chain.find(({ list }) => list)?.list;
    const id = valueOf(child(own, "numId")) ?? style?.id;
    const level = Number(valueOf(child(own, "ilvl")) ?? style?.level ?? 0);
    if (id !== undefined) {
      const kind = this.numbering.kind(id, level);
      return kind && { kind, level, own: own !== undefined && kind === "bullet" };
    }
    const named = /^list (bullet|number)(?: (\d))?$/.exec(chain[0]?.name ?? "");
    return named ? { kind: named[1] as "bullet" | "number", level: Number(named[2] ?? 1) - 1, own: true } : undefined;
  }

  private isCode(runs: readonly Run[], chain: readonly Style[]): boolean {
    if (chain.some(({ name }) => /html preformatted|source code|^code$|preformatted|verbatim/.test(name))) return true;
    return runs.length > 0 && runs.every(({ marks, link, footnote: noted }) => marks?.length === 1 && marks[0] === "code" && !link && !noted);
  }

  /** A line of the style “caption” belongs to the figure before it. */
  private caption(text: string, into: Block[]): boolean {
    const last = into.at(-1);
    const words = text.replace(/\s+/g, " ").trim().slice(0, 2000);
    if (last?.kind === "picture" && !last.picture.caption) last.picture.caption = words;
    else if (last?.kind === "figure" && last.figure.kind === "table" && !last.figure.caption) last.figure.caption = words;
    else return false;
    return true;
  }

  private inline(children: readonly XmlElement[], into: Gathered, context: { marks: readonly Mark[]; link: string | undefined; style: string | undefined }): void {
    for (const element of children) {
      const name = localName(element);
      if (name === "r") this.run(element, into, context);
      else if (name === "hyperlink") this.inline(element.children, into, { ...context, link: this.link(element) ?? context.link });
      else if (name === "sdt") this.inline(child(element, "sdtContent")?.children ?? [], into, context);
      else if (name === "fldSimple") this.inline(element.children, into, { ...context, link: fieldLink(attributeOf(element, "instr") ?? "") ?? context.link });
      else if (WRAPPERS.has(name)) this.inline(element.children, into, context);
      else if (name === "oMath") {
        const tex = ommlTex(element).trim();
        if (tex) into.runs.push(run(tex.replace(/\s+/g, " "), ["formula"]));
      } else if (name === "oMathPara") this.formulas(element, into.after);
      else if (name === "AlternateContent") this.inline(alternative(element), into, context);
      else if (!REMOVED.has(name)) this.unknown.add(name);
    }
  }

  private formulas(element: XmlElement, into: Block[]): void {
    for (const formula of childrenOf(element, "oMath")) {
      const tex = ommlTex(formula).trim();
      if (tex) this.push(into, { kind: "figure", figure: { kind: "formula", tex } });
    }
  }

  private link(element: XmlElement): string | undefined {
    const id = attributeOf(element, "id");
    const target = id ? this.relationships.get(id) : undefined;
    return target?.external ? linkTarget(target.target) : undefined;
  }

  private run(element: XmlElement, into: Gathered, context: { marks: readonly Mark[]; link: string | undefined; style: string | undefined }): void {
    const properties = child(element, "rPr");
    if (isOn(child(properties, "vanish"))) return;
    const base = this.styles.runLook(context.style);
    const own = this.styles.runLook(valueOf(child(properties, "rStyle")));
    const styled = valueOf(child(properties, "rStyle")) !== undefined;
    const state = (name: string, inherited: boolean) => {
      const found = child(properties, name);
      return found ? isOn(found) : inherited;
    };
    const marks: Mark[] = [];
    if (state("b", base.bold || (styled && own.bold))) marks.push("strong");
    if (state("i", base.italic || (styled && own.italic))) marks.push("emphasis");
    if (state("strike", false) || state("dstrike", false)) marks.push("strike");
    const fonts = child(properties, "rFonts");
    if (fonts ? isMonospaced(fonts) : base.code || (styled && own.code)) marks.push("code");
    const link = this.fields.find(({ result }) => result)?.instruction;
    const target = context.link ?? (link ? fieldLink(link) : undefined);
    const add = (text: string) => {
      const field = this.fields.at(-1);
      if (!field || field.result) into.runs.push(run(text, marks.includes("code") ? ["code"] : marks, target));
    };
    for (const part of element.children) {
      switch (localName(part)) {
        case "t":
          add(part.text.replace(/[\r\n]+/g, " "));
          break;
        case "tab":
        case "ptab":
          add(" ");
          break;
        case "br":
          if (!["page", "column"].includes(attributeOf(part, "type") ?? "")) add("\n");
          break;
        case "cr":
          add("\n");
          break;
        case "noBreakHyphen":
          add("\u2011");
          break;
        case "sym": {
          const code = Number.parseInt(attributeOf(part, "char") ?? "", 16);
          if (Number.isFinite(code) && code < 0xf000) add(String.fromCharCode(code));
          else if (Number.isFinite(code)) add("•");
          break;
        }
        case "footnoteReference":
        case "endnoteReference": {
          const runs = this.note(`${localName(part) === "footnoteReference" ? "footnote" : "endnote"}:${attributeOf(part, "id")}`);
          if (runs?.length) into.runs.push(footnote(runs));
          else this.say("A footnote is missing from the document.");
          break;
        }
        case "commentReference": {
          const comment = this.comments.get(attributeOf(part, "id") ?? "");
          if (comment?.trim()) this.push(into.after, { kind: "notes", text: [{ kind: "plain", level: 0, runs: [run(`Comment: ${comment.trim()}`)] }] });
          break;
        }
        case "fldChar": {
          const type = attributeOf(part, "fldCharType");
          if (type === "begin") this.fields.push({ instruction: "", result: false });
          else if (type === "separate" && this.fields.length) (this.fields.at(-1) as { result: boolean }).result = true;
          else if (type === "end") this.fields.pop();
          break;
        }
        case "instrText":
          if (this.fields.length) (this.fields.at(-1) as { instruction: string }).instruction += part.text;
          break;
        case "drawing":
        case "pict":
        case "object":
          this.drawing(part, into);
          break;
        case "AlternateContent":
          for (const inner of alternative(part)) if (["drawing", "pict", "object"].includes(localName(inner))) this.drawing(inner, into);
          break;
        default:
      }
    }
  }

  /** A drawing's picture, and the text of boxes in it. */
  private drawing(element: XmlElement, into: Gathered): void {
    const described = found(element, "docPr")?.attributes ?? {};
    const alt = described.descr || attributeOf(found(element, "shape"), "alt") || "";
    const blip = found(element, "blip") ?? found(element, "imagedata");
    const id = blip ? (attributeOf(blip, "embed") ?? attributeOf(blip, "id")) : undefined;
    if (id) {
      const target = this.relationships.get(id);
      const bytes = target && !target.external ? this.parts.get(target.target) : undefined;
      const source = (target?.target ?? `pictures/missing-${this.number}`).replace(/^word\//, "").slice(-200);
      if (!target || target.external) this.say(`The picture “${alt || source}” is not inside the document; its place is kept.`);
      else if (!bytes) this.say(`The picture “${alt || source}” is missing from the document; its place is kept.`);
      else this.document.pictures.set(source, bytes);
      this.push(into.after, { kind: "picture", picture: { kind: "picture", source, alt } });
    }
    for (const box of foundAll(element, "txbxContent")) for (const inner of box.children) this.block(inner, into.after);
    const chart = found(element, "chart");
    if (chart && !id) this.say(`A chart${alt ? ` (“${alt}”)` : ""} is left out: charts of a document are not read.`);
    else if (!id && !foundAll(element, "txbxContent").length) this.say(`A drawing${alt ? ` (“${alt}”)` : ""} is left out: shapes of a document are not read.`);
  }

  private note(key: string): Run[] | undefined {
    const known = this.noted.get(key);
    if (known) return known;
    const element = this.notes.get(key);
    if (!element) return undefined;
    this.noted.set(key, []);
    const runs: Run[] = [];
    for (const paragraph of childrenOf(element, "p")) {
      const gathered: Gathered = { runs: [], after: [] };
      this.inline(paragraph.children, gathered, { marks: [], link: undefined, style: undefined });
      const own = trimmed(joinRuns(gathered.runs)).filter(({ footnote: inner }) => !inner);
      if (own.length) runs.push(...(runs.length ? [run(" ")] : []), ...own);
    }
    const joined = trimmed(joinRuns(runs));
    this.noted.set(key, joined);
    return joined;
  }

  private words(paragraph: XmlElement): string {
    return foundAll(paragraph, "t").map(({ text }) => text).join("");
  }

  private table(element: XmlElement, into: Block[]): void {
    this.number += 1;
    const line = this.number;
    const rows = element.children.flatMap((part) => (localName(part) === "tr" ? [part] : localName(part) === "sdt" ? childrenOf(child(part, "sdtContent"), "tr") : []));
    const grid: (Cell | null | undefined)[][] = rows.map(() => []);
    const align: Align[] = [];
    const open = new Map<number, Cell>();
    const after: Block[] = [];
    let header = 0;
    rows.forEach((row, y) => {
      const properties = child(row, "trPr");
      if (child(properties, "tblHeader") && isOn(child(properties, "tblHeader")) && header === y) header = y + 1;
      let x = Number(valueOf(child(properties, "gridBefore")) ?? 0);
      for (let skip = 0; skip < x; skip++) (grid[y] as (Cell | null)[])[skip] = { text: [] };
      const cells = row.children.flatMap((part) => (localName(part) === "tc" ? [part] : localName(part) === "sdt" ? childrenOf(child(part, "sdtContent"), "tc") : []));
      for (const cell of cells) {
        const own = child(cell, "tcPr");
        const columns = Math.min(60, Math.max(1, Number(valueOf(child(own, "gridSpan")) ?? 1) || 1));
        const merge = child(own, "vMerge");
        const above = merge && (valueOf(merge) ?? "continue") === "continue" ? open.get(x) : undefined;
        if (above) {
          above.rows = (above.rows ?? 1) + 1;
          for (let dx = 0; dx < columns; dx++) (grid[y] as (Cell | null)[])[x + dx] = null;
        } else {
          const blocks: Block[] = [];
          for (const inner of cell.children) if (localName(inner) !== "tcPr") this.block(inner, blocks);
          const text = blocks.flatMap((block) => ("text" in block ? (block.text as Paragraph[]) : block.kind === "figure" && block.figure.kind === "table" ? block.figure.rows.flatMap((inner) => inner.flatMap((one) => one?.text ?? [])) : block.kind === "figure" && block.figure.kind === "formula" ? [{ kind: "plain" as const, level: 0, runs: [run(block.figure.tex, ["formula"])] }] : []));
          after.push(...blocks.filter((block) => block.kind === "picture" || block.kind === "notes"));
          const side = text.find((paragraph) => paragraph.align)?.align;
          if (side && y >= header && !align[x]) align[x] = side;
          const made: Cell = { text: text.map(({ align: _, ...paragraph }) => ({ ...paragraph, kind: "plain" as const, level: 0 })), ...(columns > 1 ? { columns } : {}) };
          (grid[y] as (Cell | null)[])[x] = made;
          for (let dx = 1; dx < columns; dx++) (grid[y] as (Cell | null)[])[x + dx] = null;
          if (merge) open.set(x, made);
          else open.delete(x);
        }
        x += columns;
      }
    });
    const width = Math.max(0, ...grid.map(({ length }) => length));
    if (!width) return;
    if (new Set(grid.map(({ length }) => length)).size > 1) this.say("The rows of a table have different lengths; empty cells fill the shorter ones.");
    const full = grid.map((row) => Array.from({ length: width }, (_, x) => (row[x] === undefined ? { text: [] } : (row[x] as Cell | null))));
    if (width === 1 && full.length === 1) {
      // A table of one cell is a frame around its content.
      const cell = at(rows[0], "tc");
      for (const inner of cell?.children ?? []) if (localName(inner) !== "tcPr") this.block(inner, into);
      return;
    }
    const look = child(child(element, "tblPr"), "tblLook");
    const first = attributeOf(look, "firstRow") === "1" || (Number.parseInt(attributeOf(look, "val") ?? "0", 16) & 0x20) !== 0;
    const bold = (full[0] ?? []).every((cell) => cell === null || (cell.text.length > 0 && cell.text.every(({ runs }) => runs.every(({ marks }) => marks?.includes("strong")))));
    const heads = header || (full.length > 1 && (first || bold) ? 1 : 0);
    const rowsRead = full.map((row, y) => (y < heads ? row.map((cell) => cell && { ...cell, text: cell.text.map((paragraph) => ({ ...paragraph, runs: unbold(paragraph.runs) })) }) : row));
    const before = into.at(-1);
    const figure: Figure = { kind: "table", rows: rowsRead, header: Math.min(heads, full.length), align: Array.from({ length: width }, (_, x) => align[x] ?? "start") };
    // A caption may stand over its table.
    if (before?.kind === "text" && before.to === line - 1 && before.text.length === 1 && /^(table|tabelle|tabla|tableau|tabel)\s+\d+/i.test(paragraphText(before.text[0] as Paragraph))) {
      into.pop();
      figure.caption = paragraphText(before.text[0] as Paragraph).trim().slice(0, 2000);
    }
    into.push({ kind: "figure", figure, from: line, to: this.number }, ...after);
  }
}

const ALIGN: Record<string, Align> = { center: "centre", right: "end", end: "end" };

function found(element: XmlElement, name: string): XmlElement | undefined {
  for (const inner of element.children) {
    if (localName(inner) === name) return inner;
    const deeper = localName(inner) === "txbxContent" ? undefined : found(inner, name);
    if (deeper) return deeper;
  }
  return undefined;
}

function foundAll(element: XmlElement, name: string): XmlElement[] {
  return element.children.flatMap((inner) => (localName(inner) === name ? [inner] : localName(inner) === "Fallback" && name === "txbxContent" ? [] : foundAll(inner, name)));
}

/** What stands in the place of content that newer programs write: their own when we can read it, else the older form. */
function alternative(element: XmlElement): XmlElement[] {
  const choice = child(element, "Choice");
  const readable = choice && (found(choice, "blip") || foundAll(choice, "txbxContent").length > 0);
  return (readable ? choice : (child(element, "Fallback") ?? choice))?.children ?? [];
}

function fieldLink(instruction: string): string | undefined {
  const target = /HYPERLINK\s+(?:\\[a-z]\s+)*"([^"]+)"/i.exec(instruction)?.[1];
  return target && !/\\l\s+"/.test(instruction.split(target)[0] ?? "") ? linkTarget(target) : undefined;
}

function unbold(runs: readonly Run[]): Run[] {
  return joinRuns(runs.map((item) => (item.footnote ? item : run(item.text, item.marks?.filter((mark) => mark !== "strong") ?? [], item.link))));
}

/**
 * Reads a word-processing document in Office Open XML (ECMA-376-1, 17): headings by style and outline level, lists,
 * tables with merged cells, pictures, footnotes and endnotes, links, formulas, comments; tracked changes count as
 * accepted. What is not read is told. Throws a Failure for a file that is no such document.
 */
export function readDocx(bytes: Uint8Array, name: string): DocumentRead {
  return new DocxReader(bytes, name).read();
}
