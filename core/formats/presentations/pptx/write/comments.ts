import { escapeXml, type Slide } from "@unitext/core/model";
import { XML_HEAD, xml } from "../../../shared/xml";
import { namespaces } from "../package/layouts";
import { REL, TYPE } from "../package/names";
import { type Package, type Relationships, relativeTo } from "../package/parts";

/** Writes the comments on slides, and counts them by author. */
export class CommentWriter {
  private readonly authors = new Map<string, { id: number; count: number }>();

  constructor(private readonly pack: Package) {}

  /** Writes the comments on a slide (ECMA-376-1, 19.4). */
  write(comments: NonNullable<Slide["comments"]>, number: number, relationships: Relationships, path: string): void {
    const part = this.pack.free(`ppt/comments/comment${number}.xml`);
    const list = comments.map(({ author, text, date }) => {
      const known = this.authors.get(author) ?? { id: this.authors.size, count: 0 };
      known.count += 1;
      this.authors.set(author, known);
      return xml(
        "p:cm",
        {
          authorId: known.id,
          dt: date && /^\d{4}-\d\d-\d\dT\d\d:\d\d/.test(date) ? date : undefined,
          idx: known.count,
        },
        '<p:pos x="10" y="10"/>',
        xml("p:text", {}, escapeXml(text)),
      );
    });
    this.pack.add(part, TYPE.comments, XML_HEAD + xml("p:cmLst", namespaces, ...list));
    relationships.add(REL.comments, relativeTo(path, part));
  }

  /** Writes the part with the authors, where there are any. */
  writeAuthors(relationships: Relationships): void {
    if (!this.authors.size) return;
    const list = [...this.authors].map(([name, { id, count }]) => {
      const initials = name
        .split(/\s+/)
        .map((word) => word[0] ?? "")
        .join("")
        .slice(0, 3);
      return xml("p:cmAuthor", { id, name, initials, lastIdx: count, clrIdx: id });
    });
    this.pack.add("ppt/commentAuthors.xml", TYPE.commentAuthors, XML_HEAD + xml("p:cmAuthorLst", namespaces, ...list));
    relationships.add(REL.commentAuthors, "commentAuthors.xml");
  }
}
