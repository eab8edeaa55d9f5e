import { footnote, joinRuns, type Mark, type Run, run } from "@unitext/core/model";
import { type Block, linkTarget, trimmed } from "@unitext/core/text";
import { child, childrenOf, localName, type XmlElement } from "../../shared/xml";
import type { DocumentRead } from "../../shared/document/document";
import { ommlTex } from "../../shared/math";
import { alternative, drawingOf, foundAll } from "./drawing";
import { fieldLink } from "./fields";
import type { DocumentPackage } from "./package";
import { attributeOf, isMonospaced, isOn, type Styles, propertyValue } from "./styles";

/** A paragraph before it becomes a block. */
export interface Gathered {
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

/** What is around inline content: its marks, the link, and the style of the paragraph. */
interface Around {
  marks: readonly Mark[];
  link: string | undefined;
  style: string | undefined;
}

/** What the inline reader needs of the document that it reads for. */
export interface DocumentHost {
  readonly source: DocumentPackage;
  readonly styles: Styles;
  readonly document: DocumentRead;
  /** The line of the paragraph that is read. */
  readonly line: number;
  say(message: string): void;
  /** Reads a paragraph or table inside a drawing. */
  block(element: XmlElement, into: Block[]): void;
}

/** Reads runs with their marks, links, footnotes, comments, formulas and drawings. */
export class InlineReader {
  /** The names of elements that are not read. */
  readonly unknown = new Set<string>();
  private readonly notes = new Map<string, XmlElement>();
  private readonly comments = new Map<string, string>();
  private readonly readNotes = new Map<string, Run[]>();
  /** The open fields: the instruction read so far, and whether their result has started. */
  private readonly fields: { instruction: string; result: boolean }[] = [];

  constructor(private readonly host: DocumentHost) {
    const { source } = host;
    for (const kind of ["footnote", "endnote"])
      for (const element of childrenOf(source.besides(`${kind}s`), kind))
        this.notes.set(`${kind}:${attributeOf(element, "id")}`, element);
    for (const comment of childrenOf(source.besides("comments"), "comment")) {
      const words = childrenOf(comment, "p").map((paragraph) =>
        foundAll(paragraph, "t")
          .map(({ text }) => text)
          .join(""),
      );
      this.comments.set(attributeOf(comment, "id") ?? "", words.join(" "));
    }
  }

  /** Reads the runs of a paragraph, and what goes after it: pictures, boxes and comments. */
  read(children: readonly XmlElement[], style?: string): Gathered {
    const gathered: Gathered = { runs: [], after: [] };
    this.inline(children, gathered, { marks: [], link: undefined, style });
    return { ...gathered, runs: trimmed(joinRuns(gathered.runs)) };
  }

  /** Adds the formulas of a paragraph of formulas as figures. */
  formulas(element: XmlElement, into: Block[]): void {
    for (const formula of childrenOf(element, "oMath")) {
      const tex = ommlTex(formula).trim();
      if (tex) this.push(into, { kind: "figure", figure: { kind: "formula", tex } });
    }
  }

  private push(into: Block[], block: Record<string, unknown>): void {
    const { line } = this.host;
    into.push({ ...block, from: line, to: line } as unknown as Block);
  }

  private inline(children: readonly XmlElement[], into: Gathered, context: Around): void {
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

  private link(id: string | undefined): string | undefined {
    const target = id ? this.host.source.relationships.get(id) : undefined;
    return target?.external ? linkTarget(target.target) : undefined;
  }

  private marksOf(properties: XmlElement | undefined, style: string | undefined): Mark[] {
    const { styles } = this.host;
    const base = styles.runLook(style);
    const ownStyle = propertyValue(child(properties, "rStyle"));
    const own = ownStyle === undefined ? undefined : styles.runLook(ownStyle);
    const state = (name: string, inherited: boolean | undefined) => {
      const found = child(properties, name);
      return found ? isOn(found) : inherited;
    };
    const fonts = child(properties, "rFonts");
    // Code has no other marks.
    if (fonts ? isMonospaced(fonts) : base.code || own?.code) return ["code"];
    const marks: Mark[] = [];
    if (state("b", base.bold || own?.bold)) marks.push("strong");
    if (state("i", base.italic || own?.italic)) marks.push("emphasis");
    if (state("strike", false) || state("dstrike", false)) marks.push("strike");
    return marks;
  }

  private run(element: XmlElement, into: Gathered, context: Around): void {
    const properties = child(element, "rPr");
    if (isOn(child(properties, "vanish"))) return;
    const marks = this.marksOf(properties, context.style);
    const field = this.fields.find(({ result }) => result)?.instruction;
    const link = context.link ?? (field ? fieldLink(field) : undefined);
    const add = (text: string) => {
      const open = this.fields.at(-1);
      if (text && (!open || open.result)) into.runs.push(run(text, marks, link));
    };
    for (const part of element.children) {
      const name = localName(part);
      const text = textOf(part);
      if (text !== undefined) add(text);
      else if (name === "footnoteReference" || name === "endnoteReference") this.noteReference(part, into);
      else if (name === "commentReference") this.commentReference(part, into);
      else if (name === "fldChar") this.fieldCharacter(attributeOf(part, "fldCharType"));
      else if (name === "instrText") {
        const open = this.fields.at(-1);
        if (open) open.instruction += part.text;
      } else if (DRAWINGS.has(name)) this.drawing(part, into, link);
      else if (name === "AlternateContent")
        for (const inner of alternative(part)) if (DRAWINGS.has(localName(inner))) this.drawing(inner, into, link);
    }
  }

  private noteReference(element: XmlElement, into: Gathered): void {
    const kind = localName(element) === "footnoteReference" ? "footnote" : "endnote";
    const runs = this.note(`${kind}:${attributeOf(element, "id")}`);
    if (runs?.length) into.runs.push(footnote(runs));
    else this.host.say("A footnote is missing from the document.");
  }

  private commentReference(element: XmlElement, into: Gathered): void {
    const comment = this.comments.get(attributeOf(element, "id") ?? "")?.trim();
    const text = [{ kind: "plain", level: 0, runs: [run(`Comment: ${comment}`)] }];
    if (comment) this.push(into.after, { kind: "notes", text });
  }

  private fieldCharacter(type: string | undefined): void {
    const open = this.fields.at(-1);
    if (type === "begin") this.fields.push({ instruction: "", result: false });
    else if (type === "separate" && open) open.result = true;
    else if (type === "end") this.fields.pop();
  }

  /** Reads the picture of a drawing with its link, alone or with the words around it, and the text of its boxes. */
  private drawing(element: XmlElement, into: Gathered, around: string | undefined): void {
    const { picture: id, alt, link: own, boxes, chart } = drawingOf(element);
    const link = this.link(own) ?? around;
    if (id) {
      const target = this.host.source.relationships.get(id);
      const bytes = target && !target.external ? this.host.source.bytes(target.target) : undefined;
      const source = (target?.target ?? `pictures/missing-${this.host.line}`).replace(/^word\//, "").slice(-200);
      if (!target || target.external)
        this.host.say(`The picture “${alt || source}” is not inside the document; its place is kept.`);
      else if (!bytes) this.host.say(`The picture “${alt || source}” is missing from the document; its place is kept.`);
      else this.host.document.pictures.set(source, bytes);
      this.push(into.after, { kind: "picture", picture: { kind: "picture", source, alt, ...(link ? { link } : {}) } });
    }
    for (const box of boxes) for (const inner of box.children) this.host.block(inner, into.after);
    if (chart && !id)
      this.host.say(`A chart${alt ? ` (“${alt}”)` : ""} is left out: charts of a document are not read.`);
    else if (!id && !boxes.length)
      this.host.say(`A drawing${alt ? ` (“${alt}”)` : ""} is left out: shapes of a document are not read.`);
  }

  private note(key: string): Run[] | undefined {
    const known = this.readNotes.get(key);
    if (known) return known;
    const element = this.notes.get(key);
    if (!element) return undefined;
    this.readNotes.set(key, []);
    const runs: Run[] = [];
    for (const paragraph of childrenOf(element, "p")) {
      const own = this.read(paragraph.children).runs.filter(({ footnote: inner }) => !inner);
      if (own.length) runs.push(...(runs.length ? [run(" ")] : []), ...own);
    }
    const joined = trimmed(joinRuns(runs));
    this.readNotes.set(key, joined);
    return joined;
  }
}

const DRAWINGS: ReadonlySet<string> = new Set(["drawing", "pict", "object"]);

/** Returns the text that an element of a run stands for; undefined when it is no text. */
function textOf(part: XmlElement): string | undefined {
  switch (localName(part)) {
    case "t":
      return part.text.replace(/[\r\n]+/g, " ");
    case "tab":
    case "ptab":
      return " ";
    case "br":
      return ["page", "column"].includes(attributeOf(part, "type") ?? "") ? "" : "\n";
    case "cr":
      return "\n";
    case "noBreakHyphen":
      return "\u2011";
    case "sym": {
      const code = Number.parseInt(attributeOf(part, "char") ?? "", 16);
      if (!Number.isFinite(code)) return "";
      // Characters of symbol fonts are in the private use area.
      return code < 0xf000 ? String.fromCharCode(code) : "•";
    }
    default:
      return undefined;
  }
}
