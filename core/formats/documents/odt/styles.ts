import type { Align, Mark } from "@unitext/core/model";
import { attribute, child, localName, type XmlNode } from "../../shared/xml";

interface Style {
  parent: string | undefined;
  name: string;
  bold: boolean | undefined;
  italic: boolean | undefined;
  strike: boolean | undefined;
  code: boolean | undefined;
  align: Align | undefined;
  /** Whether its paragraphs start a page. */
  startsPage: boolean;
  outline: number | undefined;
}

const ALIGN: Record<string, Align> = { center: "centre", end: "end", right: "end" };
const MONOSPACED = /mono|courier|consolas|menlo|cousine|typewriter|fixed/i;

/** How the items of a level of a list are marked, and the number with which it begins. */
export interface ListLevel {
  kind: "bullet" | "number";
  start: number;
}

/** The styles of a document (OpenDocument 1.2, 16) as far as a reader needs them: text properties and list markers. */
export class Styles {
  private readonly styles = new Map<string, Style>();
  private readonly lists = new Map<string, Map<number, ListLevel>>();

  /** Adds the styles of a part; later ones replace earlier ones of the same name. */
  add(holder: XmlNode | undefined): void {
    for (const element of holder?.children ?? []) {
      const name = attribute(element, "name") ?? "";
      if (localName(element) === "list-style")
        this.lists.set(
          name,
          new Map(
            element.children.map((level) => [
              Number(attribute(level, "level") ?? 1),
              {
                kind: localName(level) === "list-level-style-number" ? "number" : "bullet",
                start: Number(attribute(level, "start-value") ?? 1),
              },
            ]),
          ),
        );
      else if (localName(element) === "style") this.styles.set(name, styleOf(element, name));
    }
  }

  /** Returns a style and those that it is based on, nearest first. */
  chain(id: string | undefined): Style[] {
    const found: Style[] = [];
    for (let next = id; next !== undefined && found.length < 20; ) {
      const style = this.styles.get(next);
      if (!style) break;
      found.push(style);
      next = style.parent;
    }
    return found;
  }

  /** Whether a paragraph of a style starts a page. */
  startsPage(id: string | undefined): boolean {
    return this.chain(id).some(({ startsPage }) => startsPage);
  }

  /**
   * Returns the marks of words in a style, given those they had. A heading is bold or italic by its theme, which is no
   * mark.
   */
  marks(chain: readonly Style[], marks: readonly Mark[], heading = false): Mark[] {
    const own = new Set(marks);
    const state = (name: "bold" | "italic" | "strike" | "code", mark: Mark) => {
      const value = chain.map((style) => style[name]).find((found) => found !== undefined);
      if (value === true) own.add(mark);
      else if (value === false) own.delete(mark);
    };
    if (!heading) {
      state("bold", "strong");
      state("italic", "emphasis");
    }
    state("strike", "strike");
    state("code", "code");
    return [...own];
  }

  /** Returns how the items of a list are marked at a level, counted from 0. */
  listLevel(style: string | undefined, level: number): ListLevel {
    return this.lists.get(style ?? "")?.get(level + 1) ?? { kind: "bullet", start: 1 };
  }
}

function styleOf(element: XmlNode, name: string): Style {
  const words = child(element, "text-properties");
  const paragraph = child(element, "paragraph-properties");
  const weight = attribute(words, "font-weight");
  const slant = attribute(words, "font-style");
  const strike = attribute(words, "text-line-through-style") ?? attribute(words, "text-line-through-type");
  const font = attribute(words, "font-name") ?? attribute(words, "font-family");
  const outline = attribute(element, "default-outline-level");
  return {
    parent: attribute(element, "parent-style-name"),
    name: (attribute(element, "display-name") ?? name).toLowerCase().replace(/_20_/g, " "),
    bold: weight === undefined ? undefined : weight === "bold" || Number(weight) >= 600,
    italic: slant === undefined ? undefined : slant !== "normal",
    strike: strike === undefined ? undefined : strike !== "none",
    code: font === undefined ? undefined : MONOSPACED.test(font),
    align: ALIGN[attribute(paragraph, "text-align") ?? ""],
    startsPage: attribute(paragraph, "break-before") === "page" || Boolean(attribute(element, "master-page-name")),
    outline: outline ? Number(outline) : undefined,
  };
}
