import { escapeXml } from "@unitext/core/draw";
import { bidiLevels } from "@unitext/core/layout";
import type { Mark, Paragraph, RichText, Run } from "@unitext/core/model";
import { paragraphText } from "@unitext/core/model";
import { xml, type XmlValue } from "../archive";
import { RAISED } from "../kept";
import { length } from "./names";

type Attributes = Record<string, XmlValue>;

/** The automatic styles of a part: equal ones are written once. */
export class StyleSheet {
  private readonly styles = new Map<string, { name: string; xml: string }>();
  constructor(private readonly prefix: string) {}

  private named(family: string, key: string, make: (name: string) => string): string {
    const known = this.styles.get(`${family} ${key}`);
    if (known) return known.name;
    const name = `${this.prefix}${family.slice(0, 1).toUpperCase()}${this.styles.size + 1}`;
    this.styles.set(`${family} ${key}`, { name, xml: make(name) });
    return name;
  }

  /** A style of a family with properties by the names of their elements. */
  style(family: string, properties: Record<string, Attributes>, content = "", own: Attributes = {}): string {
    const parts = Object.entries(properties).filter(([, attributes]) => Object.values(attributes).some((value) => value !== undefined));
    return this.named(family, JSON.stringify([parts, content, own]), (name) => xml("style:style", { "style:name": name, "style:family": family, ...own }, ...parts.map(([element, attributes]) => xml(`style:${element}`, attributes)), content));
  }

  /** The style of a list whose indents follow the size of its text. */
  list(kind: "bullet" | "number", size: number): string {
    const step = size * 1.15;
    return this.named("list", `${kind} ${Math.round(size * 10)}`, (name) =>
      xml(
        "text:list-style",
        { "style:name": name },
        ...Array.from({ length: 10 }, (_, nth) => {
          const level = nth + 1;
          const properties = xml("style:list-level-properties", { "text:space-before": length(nth * step), "text:min-label-width": length(step) });
          return kind === "bullet" ? xml("text:list-level-style-bullet", { "text:level": level, "text:bullet-char": nth % 2 ? "–" : "•" }, properties) : xml("text:list-level-style-number", { "text:level": level, "style:num-format": "1", "style:num-suffix": "." }, properties);
        }),
      ),
    );
  }

  xml(): string {
    return [...this.styles.values()].map(({ xml: own }) => own).join("");
  }
}

/** What writing text needs of the place where it stands. */
export interface TextContext {
  styles: StyleSheet;
  size: number;
  colour?: string;
  font?: string;
  codeFont: string;
  bold?: boolean;
  /** Where a link leads in the file, or undefined where its words stand alone. */
  link(to: string): string | undefined;
}

/** Characters with the spaces that XML would fold written as elements (OpenDocument 1.3, 6.1.3 to 6.1.5). */
function characters(text: string): string {
  return text
    .split("\n")
    .map((line) => escapeXml(line).replace(/\t/g, "<text:tab/>").replace(/^ | $| {2,}/g, (spaces) => `<text:s text:c="${spaces.length}"/>`))
    .join("<text:line-break/>");
}

function span({ text, marks, link }: Run, context: TextContext): string {
  const held = new Set<Mark | typeof RAISED>(marks);
  const style = context.styles.style("text", {
    "text-properties": {
      "fo:font-weight": held.has("strong") ? "bold" : undefined,
      "fo:font-style": held.has("emphasis") ? "italic" : undefined,
      "style:text-line-through-style": held.has("strike") ? "solid" : undefined,
      "style:font-name": held.has("code") ? context.codeFont : undefined,
      "style:text-position": held.has(RAISED) ? "super 58%" : undefined,
    },
  });
  const words = held.size ? xml("text:span", { "text:style-name": style }, characters(text)) : characters(text);
  const target = link === undefined ? undefined : context.link(link);
  return target === undefined ? words : xml("text:a", { "xlink:href": target, "xlink:type": "simple" }, words);
}

function paragraphXml(paragraph: Paragraph, context: TextContext): string {
  const rtl = bidiLevels(paragraphText(paragraph)).base === 1;
  const side = { start: "start", centre: "center", end: "end" } as const;
  const style = context.styles.style("paragraph", {
    "paragraph-properties": { "fo:text-align": paragraph.align ? side[paragraph.align] : rtl ? "start" : undefined, "style:writing-mode": rtl ? "rl-tb" : undefined },
    "text-properties": { "fo:font-size": length(context.size), "fo:color": context.colour, "style:font-name": context.font, "fo:font-weight": context.bold ? "bold" : undefined },
  });
  return xml("text:p", { "text:style-name": style }, paragraph.runs.map((run) => span(run, context)).join(""));
}

/** An item of a list: its paragraph, and what follows in it in order, paragraphs and lists below. An item without a paragraph only leads deeper. */
interface Item {
  paragraph?: Paragraph;
  content: (Paragraph | Item[])[];
}

/** Items under each other by their levels; a plain paragraph with a level goes on in the item above it, or heads a list of its own. */
function itemsOf(paragraphs: readonly Paragraph[]): Item[] {
  const top: Item[] = [];
  const open: Item[] = [];
  const put = (item: Item) => {
    const above = open.at(-1);
    const last = above?.content.at(-1);
    if (!above) top.push(item);
    else if (Array.isArray(last)) last.push(item);
    else above.content.push([item]);
    open.push(item);
  };
  for (const paragraph of paragraphs) {
    const { kind, level } = paragraph;
    const above = kind === "plain" ? open[level - 1] : undefined;
    if (above?.paragraph && above.paragraph.kind !== "plain") {
      open.length = level;
      above.content.push(paragraph);
      continue;
    }
    open.length = Math.min(open.length, level);
    while (open.length < level) put({ content: [] });
    put({ paragraph, content: [] });
  }
  return top;
}

function listXml(items: readonly Item[], context: TextContext): string {
  const kindOf = ({ paragraph }: Item): "bullet" | "number" => (paragraph?.kind === "number" ? "number" : "bullet");
  const groups: Item[][] = [];
  for (const item of items) {
    const last = groups.at(-1);
    if (last?.[0] && kindOf(last[0]) === kindOf(item) && item.paragraph?.start === undefined) last.push(item);
    else groups.push([item]);
  }
  return groups
    .map((group) =>
      xml(
        "text:list",
        { "text:style-name": context.styles.list(kindOf(group[0] as Item), context.size) },
        ...group.map((item) => {
          const header = item.paragraph?.kind === "plain";
          return xml(header ? "text:list-header" : "text:list-item", { "text:start-value": item.paragraph?.start }, item.paragraph ? paragraphXml(item.paragraph, context) : "", ...item.content.map((part) => (Array.isArray(part) ? listXml(part, context) : paragraphXml(part, context))));
        }),
      ),
    )
    .join("");
}

/** Paragraphs and lists (OpenDocument 1.3, 5.1 and 5.3) of a text. */
export function textXml(text: RichText, context: TextContext): string {
  const parts: string[] = [];
  let list: Paragraph[] = [];
  const close = () => {
    if (list.length) parts.push(listXml(itemsOf(list), context));
    list = [];
  };
  for (const paragraph of text) {
    if (paragraph.kind !== "plain" || (paragraph.level > 0 && list.length)) list.push(paragraph);
    else {
      close();
      parts.push(paragraphXml(paragraph, context));
    }
  }
  close();
  return parts.join("");
}
