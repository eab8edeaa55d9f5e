import { cutText, type Comment, elementWords, type Element, Failure, quoteOf, type Reply } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { child, childrenOf, type XmlElement } from "../../../shared/xml";
import { POINT_IN_COMMENTS } from "../package/names";
import type { OpenedPackage } from "../package/package";
import { readBody } from "./text";

/** A comment as a file has it: the number of the shape that it is on, and the characters of the shape's text. */
export interface FileComment {
  comment: Comment;
  shape?: string;
  range?: { start: number; length: number };
}

/** Returns the authors of comments by id. */
function commentAuthors(pack: OpenedPackage, main: string): Map<string, string> {
  const parts = [...pack.relationships(main).values()].filter(
    ({ type, external, target }) => !external && /\/(commentAuthors|authors)$/.test(type) && pack.has(target),
  );
  return new Map(
    parts.flatMap(({ target }) =>
      pack.tree(target).children.map(({ attributes }) => [attributes.id ?? "", attributes.name ?? ""] as const),
    ),
  );
}

/** Returns the first element of a name below another one, at any depth. */
function below(element: XmlElement | undefined, name: string): XmlElement | undefined {
  if (!element) return undefined;
  return child(element, name) ?? element.children.map((inner) => below(inner, name)).find(Boolean);
}

const wordsOf = (comment: XmlElement): string =>
  child(comment, "text")?.text ??
  readBody(child(comment, "txBody"), { styles: [], codeFont: undefined, link: () => undefined })
    .map(({ runs }) => runs.map(({ text }) => text).join(""))
    .join("\n");

/** Reads the comments of one part: those of the standard (ECMA-376-1, 19.4) and threaded ones ([MS-PPTX], 2.16). */
class PartReader {
  private readonly found: FileComment[] = [];
  /** Comments by author and number, to which replies of the older form refer. */
  private readonly numbered = new Map<string, Comment>();

  constructor(
    private readonly authors: ReadonlyMap<string, string>,
    private readonly first: number,
  ) {}

  private said(element: XmlElement, id: string): Reply {
    const { authorId = "", dt, created } = element.attributes;
    const date = dt ?? created;
    return {
      id,
      author: cutText(this.authors.get(authorId) ?? "", 300),
      text: cutText(wordsOf(element), 20000),
      ...(date ? { date: cutText(date, 40) } : {}),
    };
  }

  private replyTo(comment: Comment, element: XmlElement): void {
    const replies = comment.replies ?? [];
    comment.replies = [...replies, this.said(element, `${comment.id}r${replies.length + 1}`)];
  }

  read(tree: XmlElement): FileComment[] {
    for (const element of childrenOf(tree, "cm")) {
      const { authorId = "", idx = "", status } = element.attributes;
      const parent = below(child(element, "extLst"), "parentCm")?.attributes;
      const answered = parent && this.numbered.get(`${parent.authorId} ${parent.idx}`);
      if (answered) {
        this.replyTo(answered, element);
        continue;
      }
      const comment: Comment = this.said(element, `c${this.first + this.found.length + 1}`);
      if (status === "resolved") comment.done = true;
      const { x, y } = child(element, "pos")?.attributes ?? {};
      const at = { x: Number(x) / POINT_IN_COMMENTS, y: Number(y) / POINT_IN_COMMENTS };
      if (Math.abs(at.x) <= 20000 && Math.abs(at.y) <= 20000) comment.at = at;
      for (const reply of child(element, "replyLst")?.children ?? []) this.replyTo(comment, reply);
      this.numbered.set(`${authorId} ${idx}`, comment);
      const shape = below(element, "spMk")?.attributes.id;
      const { cp, len } = below(element, "txMk")?.attributes ?? {};
      this.found.push({
        comment,
        ...(shape ? { shape } : {}),
        ...(Number(len) > 0 ? { range: { start: Number(cp), length: Number(len) } } : {}),
      });
    }
    return this.found;
  }
}

/** Reads the comments of a presentation, slide by slide. A damaged part is reported. */
export function commentReader(
  pack: OpenedPackage,
  main: string,
  left: Report["left"],
): (path: string, number: number) => FileComment[] {
  let authors: Map<string, string> | undefined;
  return (path, number) => {
    const parts = [...pack.relationships(path).values()].filter(
      ({ type, external, target }) => !external && /\/comments$/.test(type) && pack.has(target),
    );
    const found: FileComment[] = [];
    for (const { target } of parts) {
      try {
        authors ??= commentAuthors(pack, main);
        found.push(...new PartReader(authors, found.length).read(pack.tree(target)));
      } catch (error) {
        if (!(error instanceof Failure)) throw error;
        left.push({ slide: number, what: "its comments", why: "their part is damaged" });
      }
    }
    return found.slice(0, 2000);
  };
}

/** Returns comments on the elements that their shapes became, with the words that they are on. */
export function onElements(
  found: readonly FileComment[],
  elementOf: (shape: string) => Element | undefined,
): Comment[] {
  return found.map(({ comment, shape, range }) => {
    const element = shape === undefined ? undefined : elementOf(shape);
    if (!element) return comment;
    const words = elementWords(element);
    const quoted = range && words.slice(range.start, range.start + Math.min(range.length, 2000));
    return {
      ...comment,
      element: element.id,
      ...(range && quoted?.trim() ? { quote: quoteOf(words, range.start, range.start + quoted.length) } : {}),
    };
  });
}
