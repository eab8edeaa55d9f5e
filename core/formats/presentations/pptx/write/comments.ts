import { type Comment, escapeXml, type Reply, type Slide } from "@unitext/core/model";
import { childrenOf, readXml, XML_HEAD, xml } from "../../../shared/xml";
import { placeOfComment } from "../../shared/comments";
import { namespaces } from "../package/layouts";
import { POINT_IN_COMMENTS, REL, TYPE } from "../package/names";
import { type Package, type Relationships, relativeTo } from "../package/parts";

/** The extension by which a comment is a reply to another one ([MS-PPTX], 2.4.3.3), and its namespace. */
const THREADING = "{C676402C-5697-4E1C-873F-D02D1690AC5C}";
const P15 = "http://schemas.microsoft.com/office/powerpoint/2012/main";

/** An author of a package with its number of comments. */
interface Author {
  id: number;
  count: number;
}

/** What the writer needs of a package that is updated. */
interface Base {
  related(path: string, type: "commentAuthors"): string | undefined;
  text(path: string): string | undefined;
}

/** Writes the comments on slides, and counts them by author. A package that is updated keeps the authors that it has. */
export class CommentWriter {
  private readonly authors = new Map<string, Author>();
  private readonly part: string;
  private next = 0;
  /** Whether a slide's comments were written. */
  hasWritten = false;

  constructor(
    private readonly pack: Package,
    base: Base | undefined,
    main: string,
  ) {
    const known = base?.related(main, "commentAuthors");
    this.part = known ?? "ppt/commentAuthors.xml";
    const text = known === undefined ? undefined : base?.text(known);
    for (const { attributes } of text ? childrenOf(readXml(text, this.part), "cmAuthor") : []) {
      const id = Number(attributes.id);
      this.authors.set(attributes.name ?? "", { id, count: Number(attributes.lastIdx) || 0 });
      this.next = Math.max(this.next, id + 1);
    }
  }

  private author(name: string): Author {
    const known = this.authors.get(name) ?? { id: this.next++, count: 0 };
    known.count += 1;
    this.authors.set(name, known);
    return known;
  }

  /** Returns a comment of the standard; a reply names the comment that it is to. */
  private item(
    { author, text, date, ...more }: Comment | Reply,
    at: Comment["at"],
    to?: Author,
  ): { markup: string; own: Author } {
    const own = { ...this.author(author) };
    const isThread = to !== undefined || ("replies" in more && (more.replies?.length ?? 0) > 0);
    const parent = to ? xml("p15:parentCm", { authorId: to.id, idx: to.count }) : "";
    const threading = xml("p15:threadingInfo", { "xmlns:p15": P15, timeZoneBias: 0 }, parent);
    const markup = xml(
      "p:cm",
      {
        authorId: own.id,
        dt: date && /^\d{4}-\d\d-\d\dT\d\d:\d\d/.test(date) ? date : undefined,
        idx: own.count,
      },
      xml("p:pos", {
        x: Math.round((at?.x ?? 1) * POINT_IN_COMMENTS),
        y: Math.round((at?.y ?? 1) * POINT_IN_COMMENTS),
      }),
      xml("p:text", {}, escapeXml(text)),
      isThread ? xml("p:extLst", {}, xml("p:ext", { uri: THREADING }, threading)) : "",
    );
    return { markup, own };
  }

  /** Writes the comments on a slide (ECMA-376-1, 19.4), each followed by its replies. */
  write(slide: Slide, relationships: Relationships, path: string): void {
    this.hasWritten = true;
    if (!slide.comments?.length) return;
    const part = this.pack.free("ppt/comments/comment1.xml");
    const list = slide.comments.flatMap((comment) => {
      const at = placeOfComment(comment, slide);
      const { markup, own } = this.item(comment, at);
      return [markup, ...(comment.replies ?? []).map((reply) => this.item(reply, at, own).markup)];
    });
    this.pack.add(part, TYPE.comments, XML_HEAD + xml("p:cmLst", namespaces, ...list));
    relationships.add(REL.comments, relativeTo(path, part));
  }

  /** Writes the part with the authors, where there are any. */
  writeAuthors(relationships: Relationships, main: string): void {
    if (!this.hasWritten || !this.authors.size) return;
    const list = [...this.authors].map(([name, { id, count }]) => {
      const initials = name
        .split(/\s+/)
        .map((word) => word[0] ?? "")
        .join("")
        .slice(0, 3);
      return xml("p:cmAuthor", { id, name, initials, lastIdx: count, clrIdx: id });
    });
    this.pack.add(this.part, TYPE.commentAuthors, XML_HEAD + xml("p:cmAuthorLst", namespaces, ...list));
    relationships.add(REL.commentAuthors, relativeTo(main, this.part));
  }
}
