import { cutText, footnote, joinRuns, type Mark, paragraphText, type Run, run } from "@unitext/core/model";
import { type Block, linkTarget, trimmed } from "@unitext/core/text";
import { child, childrenOf, localName, type XmlNode, attribute } from "../../shared/xml";
import type { DocumentRead } from "../../shared/document/document";
import { mathmlTex } from "../../shared/math";
import type { Styles } from "./styles";

/** The marks and the link around inline content. */
interface Around {
  marks: readonly Mark[];
  link: string | undefined;
}

const NOTHING: Around = { marks: [], link: undefined };

/** What the inline reader needs of the document that it reads for. */
export interface DocumentHost {
  readonly styles: Styles;
  readonly document: DocumentRead;
  /** The line of the paragraph that is read. */
  readonly line: number;
  say(message: string): void;
  /** Returns the bytes of a part. */
  bytes(path: string): Uint8Array | undefined;
  /** Returns the tree of a part; undefined when it is missing or damaged. */
  tree(path: string): XmlNode | undefined;
  blocks(children: readonly XmlNode[], into: Block[]): void;
}

/** Elements inside a paragraph that are no text: bookmarks, tracked changes, breaks. */
const IGNORED: ReadonlySet<string> = new Set([
  "note-citation",
  "tracked-changes",
  "change",
  "change-start",
  "change-end",
  "bookmark",
  "bookmark-start",
  "bookmark-end",
  "soft-page-break",
]);

/** Reads the runs of paragraphs with their marks, links, footnotes, comments, formulas and frames. */
export class InlineReader {
  constructor(private readonly host: DocumentHost) {}

  /** Returns the runs of a paragraph; pictures and comments are added to `after`. */
  paragraph(element: XmlNode, after: Block[]): Run[] {
    const { styles } = this.host;
    const chain = styles.chain(attribute(element, "style-name"));
    const marks = styles.marks(chain, [], localName(element) === "h");
    return trimmed(joinRuns(this.runs(element, { marks, link: undefined }, after)));
  }

  private runs(element: XmlNode, around: Around, after: Block[]): Run[] {
    return element.content.flatMap((part) =>
      typeof part === "string"
        ? run(part.replace(/[\s]+/g, " "), around.marks, around.link)
        : this.part(part, around, after),
    );
  }

  private part(part: XmlNode, around: Around, after: Block[]): Run[] {
    const { styles } = this.host;
    const name = localName(part);
    if (IGNORED.has(name)) return [];
    const text = textOf(part);
    if (text !== undefined) return [run(text, around.marks, around.link)];
    switch (name) {
      case "span": {
        const marks = styles.marks(styles.chain(attribute(part, "style-name")), around.marks);
        return this.runs(part, { ...around, marks }, after);
      }
      case "a": {
        const link = linkTarget(attribute(part, "href") ?? "") ?? around.link;
        return this.runs(part, { ...around, link }, after);
      }
      case "note":
        return [footnote(this.note(part))];
      case "annotation":
        this.comment(part, after);
        return [];
      case "frame": {
        const formula = this.formula(part);
        if (formula) return [run(formula, ["formula"])];
        this.frame(part, after, around.link);
        return [];
      }
      default:
        return this.runs(part, around, after);
    }
  }

  /** Returns the runs of a footnote, its paragraphs joined; it holds no footnotes itself. */
  private note(element: XmlNode): Run[] {
    const runs = (child(element, "note-body")?.children ?? []).flatMap((paragraph, nth) => [
      ...(nth ? [run(" ")] : []),
      ...this.runs(paragraph, NOTHING, []),
    ]);
    return trimmed(joinRuns(runs.filter(({ footnote: inner }) => !inner)));
  }

  private comment(element: XmlNode, after: Block[]): void {
    const words = childrenOf(element, "p")
      .map((paragraph) => paragraphText({ kind: "plain", level: 0, runs: this.runs(paragraph, NOTHING, []) }))
      .join(" ")
      .trim();
    const { line } = this.host;
    const text = [{ kind: "plain" as const, level: 0, runs: [run(`Comment: ${words}`)] }];
    if (words) after.push({ kind: "notes", text, from: line, to: line });
  }

  private formula(frame: XmlNode): string | undefined {
    const object = child(frame, "object");
    if (!object) return undefined;
    const path = (attribute(object, "href") ?? "").replace(/^\.\//, "");
    const inner = child(object, "math") ?? (path ? this.host.tree(`${path}/content.xml`) : undefined);
    if (!inner || localName(inner) !== "math") return undefined;
    return mathmlTex(inner).trim() || undefined;
  }

  /** Reads the picture or text box of a frame; a link may enclose it, or the words around it. */
  frame(element: XmlNode, into: Block[], around?: string): void {
    const link = localName(element) === "a" ? linkTarget(attribute(element, "href") ?? "") : around;
    const frame = localName(element) === "a" ? child(element, "frame") : element;
    if (!frame) return;
    const alt = (child(frame, "desc") ?? child(frame, "title"))?.text.trim() ?? "";
    const image = child(frame, "image");
    const box = child(frame, "text-box");
    if (box) {
      // A picture with its caption is in a box of its own.
      const held: Block[] = [];
      this.host.blocks(box.children, held);
      const picture = held.find((block) => block.kind === "picture");
      const [words, ...others] = held.filter((block) => block.kind === "text");
      if (picture?.kind === "picture" && words?.kind === "text" && !others.length) {
        picture.picture.caption = cutText(words.text.map(paragraphText).join(" ").trim(), 2000);
        into.push(picture);
      } else into.push(...held);
    } else if (image) {
      const path = (attribute(image, "href") ?? "").replace(/^\.\//, "");
      const bytes = this.host.bytes(path);
      const source = path.startsWith("Pictures/")
        ? path
        : `pictures/${path.split("/").at(-1) || `missing-${this.host.line}`}`;
      if (bytes) this.host.document.pictures.set(source, bytes);
      else this.host.say(`The picture “${alt || source}” is not inside the document; its place is kept.`);
      const { line } = this.host;
      const picture = { kind: "picture" as const, source, alt, ...(link ? { link } : {}) };
      into.push({ kind: "picture", picture, from: line, to: line });
    } else this.host.say(`An object${alt ? ` (“${alt}”)` : ""} of a kind that is not read is left out.`);
  }
}

/** Returns the text that an element stands for; undefined when it is no text. */
function textOf(part: XmlNode): string | undefined {
  switch (localName(part)) {
    case "s":
      return " ".repeat(Math.min(200, Number(attribute(part, "c") ?? 1) || 1));
    case "tab":
      return " ";
    case "line-break":
      return "\n";
    default:
      return undefined;
  }
}
