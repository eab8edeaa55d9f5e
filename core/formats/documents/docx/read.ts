import {
  cutText,
  type Align,
  Failure,
  footnote,
  joinRuns,
  Language,
  type Mark,
  MAX_LEVEL,
  type Paragraph,
  paragraphText,
  type Run,
  run,
  must,
} from "@unitext/core/model";
import { type Block, linkTarget, trimmed } from "@unitext/core/text";
import { partText } from "../../shared/archive";
import { child, childrenOf, localName, readXml, type XmlElement } from "../../shared/xml";
import { type DocumentRead, emptyDocument } from "../../shared/document/document";
import { unbold } from "../../shared/document/table";
import { ommlTex } from "../../shared/math";
import { alternative, drawingOf, foundAll } from "./drawing";
import { fieldLink } from "./fields";
import { DocumentPackage } from "./package";
import { attributeOf, isMonospaced, isOn, Numbering, type Style, Styles, propertyValue } from "./styles";
import { cellBlocks, framedCell, readTable } from "./table";

/** A paragraph before it becomes a block. */
interface Gathered {
  runs: Run[];
  after: Block[];
}

/** Elements that only wrap their content; tracked changes count as accepted. */
const WRAPPERS = new Set([
  "ins",
  "moveTo",
  "smartTag",
  "sdtContent",
  "customXml",
  "fldSimple",
  "dir",
  "bdo",
  "ruby",
  "rubyBase",
]);
const REMOVED = new Set([
  "del",
  "moveFrom",
  "rPr",
  "pPr",
  "proofErr",
  "bookmarkStart",
  "bookmarkEnd",
  "commentRangeStart",
  "commentRangeEnd",
  "sdtPr",
  "sdtEndPr",
  "rt",
  "permStart",
  "permEnd",
  "lastRenderedPageBreak",
  "tab",
]);

class DocxReader {
  readonly document: DocumentRead = emptyDocument();
  private readonly source: DocumentPackage;
  private readonly styles: Styles;
  private readonly numbering: Numbering;
  private readonly notes = new Map<string, XmlElement>();
  private readonly comments = new Map<string, string>();
  private readonly noted = new Map<string, Run[]>();
  private readonly unknown = new Set<string>();
  /** The open fields: the instruction read so far, and whether their result has started. */
  private readonly fields: { instruction: string; result: boolean }[] = [];
  private number = 0;
  private contents = 0;

  constructor(
    bytes: Uint8Array,
    private readonly name: string,
  ) {
    this.source = new DocumentPackage(bytes, name, this.document.problems);
    this.styles = new Styles(this.source.besides("styles"));
    this.numbering = new Numbering(this.source.besides("numbering"));
    for (const kind of ["footnote", "endnote"])
      for (const note of childrenOf(this.source.besides(`${kind}s`), kind))
        this.notes.set(`${kind}:${attributeOf(note, "id")}`, note);
    for (const comment of childrenOf(this.source.besides("comments"), "comment"))
      this.comments.set(
        attributeOf(comment, "id") ?? "",
        childrenOf(comment, "p")
          .map((paragraph) => this.words(paragraph))
          .join(" "),
      );
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
    for (const name of this.unknown)
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
    this.document.problems.push({ line: this.number, message });
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
        // An unknown element may still hold paragraphs.
        for (const inner of element.children) if (["p", "tbl"].includes(localName(inner))) this.block(inner, into);
    }
  }

  private push(into: Block[], block: Record<string, unknown>): void {
    into.push({ ...block, from: this.number, to: this.number } as unknown as Block);
  }

  private paragraph(element: XmlElement, into: Block[]): void {
    this.number += 1;
    const properties = child(element, "pPr");
    const chain = this.styles.chain(propertyValue(child(properties, "pStyle")));
    const [style] = chain;
    const name = style?.name ?? "";
    if (/^toc\b|^table of (contents|figures)/.test(name)) {
      this.contents += 1;
      return;
    }
    const styleId = propertyValue(child(properties, "pStyle"));
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
      const words = runs.map((item) =>
        item.text.includes("\n") ? { ...item, text: item.text.replace(/\n/g, " ") } : item,
      );
      if (/^title$/.test(name) && !this.document.front.title)
        this.document.front.title = cutText(text.replace(/\s+/g, " "), 500);
      this.push(into, { kind: "heading", depth, text: [{ kind: "plain", level: 0, runs: unbold(words) }] });
      return finish();
    }
    if (/^caption$/.test(name) && this.caption(text, into)) return finish();
    const side =
      ALIGN[
        propertyValue(child(properties, "jc")) ??
          propertyValue(
            child(
              chain.map(({ properties: own }) => own).find((own) => child(own, "jc")),
              "jc",
            ),
          ) ??
          ""
      ];
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
    const paragraph: Paragraph = {
      kind: list?.kind ?? "plain",
      level: list ? Math.min(MAX_LEVEL, list.level) : 0,
      ...(side && !list ? { align: side } : {}),
      runs,
    };
    const last = into.at(-1);
    if (list && last?.kind === "text" && last.text[0]?.kind !== "plain" && gathered.after.length === 0) {
      if (list.level > MAX_LEVEL)
        this.say(`Lists nest to ${MAX_LEVEL + 1} levels; deeper items are raised to the last of them.`);
      last.text.push(paragraph);
      last.to = this.number;
    } else if (/^list continue/.test(name) && last?.kind === "text" && last.text[0]?.kind !== "plain") {
      last.text.push({ kind: "plain", level: Math.min(MAX_LEVEL, (last.text.at(-1)?.level ?? 0) + 1), runs });
      last.to = this.number;
    } else this.push(into, { kind: "text", text: [paragraph] });
    finish();
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

  private listOf(
    properties: XmlElement | undefined,
    chain: readonly Style[],
  ): { kind: "bullet" | "number"; level: number; own: boolean } | undefined {
    const own = child(properties, "numPr");
    const style = chain.find(({ list }) => list)?.list;
    const id = propertyValue(child(own, "numId")) ?? style?.id;
    const level = Number(propertyValue(child(own, "ilvl")) ?? style?.level ?? 0);
    if (id !== undefined) {
      const kind = this.numbering.kind(id, level);
      return kind && { kind, level, own: own !== undefined && kind === "bullet" };
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

  /** A line of the style “caption” belongs to the figure before it. */
  private caption(text: string, into: Block[]): boolean {
    const last = into.at(-1);
    const words = cutText(text.replace(/\s+/g, " ").trim(), 2000);
    if (last?.kind === "picture" && !last.picture.caption) last.picture.caption = words;
    else if (last?.kind === "figure" && last.figure.kind === "table" && !last.figure.caption)
      last.figure.caption = words;
    else return false;
    return true;
  }

  private inline(
    children: readonly XmlElement[],
    into: Gathered,
    context: { marks: readonly Mark[]; link: string | undefined; style: string | undefined },
  ): void {
    for (const element of children) {
      const name = localName(element);
      if (name === "r") this.run(element, into, context);
      else if (name === "hyperlink")
        this.inline(element.children, into, {
          ...context,
          link: this.link(attributeOf(element, "id")) ?? context.link,
        });
      else if (name === "sdt") this.inline(child(element, "sdtContent")?.children ?? [], into, context);
      else if (name === "fldSimple")
        this.inline(element.children, into, {
          ...context,
          link: fieldLink(attributeOf(element, "instr") ?? "") ?? context.link,
        });
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

  private link(id: string | undefined): string | undefined {
    const target = id ? this.source.relationships.get(id) : undefined;
    return target?.external ? linkTarget(target.target) : undefined;
  }

  private run(
    element: XmlElement,
    into: Gathered,
    context: { marks: readonly Mark[]; link: string | undefined; style: string | undefined },
  ): void {
    const properties = child(element, "rPr");
    if (isOn(child(properties, "vanish"))) return;
    const base = this.styles.runLook(context.style);
    const own = this.styles.runLook(propertyValue(child(properties, "rStyle")));
    const styled = propertyValue(child(properties, "rStyle")) !== undefined;
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
          const runs = this.note(
            `${localName(part) === "footnoteReference" ? "footnote" : "endnote"}:${attributeOf(part, "id")}`,
          );
          if (runs?.length) into.runs.push(footnote(runs));
          else this.say("A footnote is missing from the document.");
          break;
        }
        case "commentReference": {
          const comment = this.comments.get(attributeOf(part, "id") ?? "");
          if (comment?.trim())
            this.push(into.after, {
              kind: "notes",
              text: [{ kind: "plain", level: 0, runs: [run(`Comment: ${comment.trim()}`)] }],
            });
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
          this.drawing(part, into, target);
          break;
        case "AlternateContent":
          for (const inner of alternative(part))
            if (["drawing", "pict", "object"].includes(localName(inner))) this.drawing(inner, into, target);
          break;
        default:
      }
    }
  }

  /** Reads the picture of a drawing with its link, alone or with the words around it, and the text of its boxes. */
  private drawing(element: XmlElement, into: Gathered, around: string | undefined): void {
    const { picture: id, alt, link: own, boxes, chart } = drawingOf(element);
    const link = this.link(own) ?? around;
    if (id) {
      const target = this.source.relationships.get(id);
      const bytes = target && !target.external ? this.source.bytes(target.target) : undefined;
      const source = (target?.target ?? `pictures/missing-${this.number}`).replace(/^word\//, "").slice(-200);
      if (!target || target.external)
        this.say(`The picture “${alt || source}” is not inside the document; its place is kept.`);
      else if (!bytes) this.say(`The picture “${alt || source}” is missing from the document; its place is kept.`);
      else this.document.pictures.set(source, bytes);
      this.push(into.after, { kind: "picture", picture: { kind: "picture", source, alt, ...(link ? { link } : {}) } });
    }
    for (const box of boxes) for (const inner of box.children) this.block(inner, into.after);
    if (chart && !id) this.say(`A chart${alt ? ` (“${alt}”)` : ""} is left out: charts of a document are not read.`);
    else if (!id && !boxes.length)
      this.say(`A drawing${alt ? ` (“${alt}”)` : ""} is left out: shapes of a document are not read.`);
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
    return foundAll(paragraph, "t")
      .map(({ text }) => text)
      .join("");
  }

  private table(element: XmlElement, into: Block[]): void {
    this.number += 1;
    const from = this.number;
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
    into.push({ kind: "figure", figure, from, to: this.number }, ...after);
  }
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
