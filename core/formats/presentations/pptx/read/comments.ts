import { cutText, type Comment, Failure } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { child, childrenOf } from "../../../shared/xml";
import type { OpenedPackage } from "../package/package";
import { readBody } from "./text";

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

/** Reads the comments of a presentation (ECMA-376-1, 19.4), slide by slide. A damaged part is reported. */
export function commentReader(
  pack: OpenedPackage,
  main: string,
  left: Report["left"],
): (path: string, number: number) => Comment[] {
  let authors: Map<string, string> | undefined;
  return (path, number) => {
    const found = [...pack.relationships(path).values()].filter(
      ({ type, external, target }) => !external && /\/comments$/.test(type) && pack.has(target),
    );
    return found.flatMap(({ target }) => {
      try {
        authors ??= commentAuthors(pack, main);
        return childrenOf(pack.tree(target), "cm").map((comment): Comment => {
          const words =
            child(comment, "text")?.text ??
            readBody(child(comment, "txBody"), { styles: [], codeFont: undefined, link: () => undefined })
              .map(({ runs }) => runs.map(({ text }) => text).join(""))
              .join("\n");
          const { authorId = "", dt, created } = comment.attributes;
          const date = dt ?? created;
          return {
            author: cutText(authors?.get(authorId) ?? "", 300),
            text: cutText(words, 20000),
            ...(date ? { date: cutText(date, 40) } : {}),
          };
        });
      } catch (error) {
        if (!(error instanceof Failure)) throw error;
        left.push({ slide: number, what: "its comments", why: "their part is damaged" });
        return [];
      }
    });
  };
}
