import { CODE_SCALE, INDENT, isRightToLeft, numberWidths } from "@unitext/core/layout";
import {
  canonical,
  escapeXml,
  type LevelStyle,
  type Mark,
  NUMBER_SIGN,
  type Paragraph,
  type ParagraphProperties,
  type RichText,
  type Run,
  type RunProperties,
  tabParts,
  wordsSize,
  must,
} from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import { RAISED } from "../../../shared/sourcepackage";
import { length } from "../package/names";
import type { Attributes } from "./drawing";
import type { ListLevel, PartTextContext } from "./stylesheet";

const levelOf = ({ levels }: PartTextContext, level: number): LevelStyle =>
  levels?.[Math.min(level, levels.length - 1)] ?? {};

/** Writes characters, with spaces that XML would collapse written as elements (OpenDocument 1.3, 6.1.3 to 6.1.5). */
function characters(text: string): string {
  if (!/[\n\t]|^ | $| {2}|‹#›/.test(text)) return escapeXml(text);
  return text
    .split("\n")
    .map((line) =>
      escapeXml(line)
        .replace(/\t/g, "<text:tab/>")
        .replace(/^ | $| {2,}/g, (spaces) => `<text:s text:c="${spaces.length}"/>`),
    )
    .join("<text:line-break/>")
    .replaceAll(NUMBER_SIGN, "<text:page-number>&lt;number&gt;</text:page-number>");
}

const UNDERLINE: Record<NonNullable<RunProperties["underline"]>, Attributes> = {
  single: { "style:text-underline-style": "solid" },
  double: { "style:text-underline-style": "solid", "style:text-underline-type": "double" },
  heavy: { "style:text-underline-style": "solid", "style:text-underline-width": "bold" },
  dotted: { "style:text-underline-style": "dotted" },
  dashed: { "style:text-underline-style": "dash" },
  wavy: { "style:text-underline-style": "wave" },
};

/** Writes run properties as text properties (16.29.4). */
function lookAttributes({
  size,
  colour,
  font,
  underline,
  caps,
  highlight,
  spacing,
  rise,
  language,
}: RunProperties): Attributes {
  const [code, country] = language?.split("-") ?? [];
  return {
    "fo:font-size": size === undefined ? undefined : length(size),
    "fo:color": colour,
    "fo:font-family": font,
    ...(underline ? { ...UNDERLINE[underline], "style:text-underline-color": "font-color" } : {}),
    "fo:text-transform": caps === "all" ? "uppercase" : undefined,
    "fo:font-variant": caps === "small" ? "small-caps" : undefined,
    "fo:background-color": highlight,
    "fo:letter-spacing": spacing === undefined ? undefined : length(spacing),
    "style:text-position": rise ? `${Math.round(rise * 100)}% 66%` : undefined,
    "fo:language": code,
    "fo:country": language ? (country && /^[A-Z]{2}$/.test(country) ? country : "none") : undefined,
  };
}

function span({ text, marks, link, properties }: Run, context: PartTextContext): string {
  if (!marks?.length && link === undefined && !properties) return characters(text);
  const held = new Set<Mark | typeof RAISED>(marks);
  const target = link === undefined ? undefined : context.link(link);
  const tint = context.levels
    ? undefined
    : target !== undefined
      ? context.linkColour
      : held.has("code")
        ? context.codeColour
        : undefined;
  const own: RunProperties = {
    ...(held.has("code") && !context.levels ? { size: context.size * CODE_SCALE } : {}),
    ...(tint ? { colour: tint } : {}),
    ...(tint && target !== undefined ? { underline: "single" } : {}),
  };
  const style = () =>
    context.styles.style("text", {
      "text-properties": {
        ...lookAttributes({ ...own, ...properties }),
        "fo:font-weight": held.has("strong") ? "bold" : undefined,
        "fo:font-style": held.has("emphasis") ? "italic" : undefined,
        "style:text-line-through-style": held.has("strike") ? "solid" : undefined,
        ...(held.has("code") && !properties?.font
          ? { "style:font-name": context.codeFont, "fo:font-family": undefined }
          : {}),
        ...(held.has(RAISED) ? { "style:text-position": "super 58%" } : {}),
      },
    });
  const words =
    held.size || properties || tint
      ? xml("text:span", { "text:style-name": style() }, characters(text))
      : characters(text);
  return target === undefined ? words : xml("text:a", { "xlink:href": target, "xlink:type": "simple" }, words);
}

const side = { start: "start", centre: "center", end: "end" } as const;

const gap = (value: ParagraphProperties["before"], size: number) =>
  value === undefined ? undefined : length("points" in value ? value.points : value.times * size * 1.2);

const readsFromRight = (paragraph: Paragraph, { levels, language }: PartTextContext, level?: ParagraphProperties) =>
  isRightToLeft(paragraph, { level, language, styled: levels !== undefined });

function paragraphXml(paragraph: Paragraph, context: PartTextContext): string {
  const { styles, levels } = context;
  const rtl = readsFromRight(paragraph, context, levelOf(context, paragraph.level).paragraph);
  const style = paragraph.properties
    ? paragraphStyle(paragraph, context)
    : styles.remember(
        `${paragraph.level}/${paragraph.kind !== "plain"}/${paragraph.align}/${rtl}/${levels ? wordsSize(paragraph, 0) : ""}`,
        context,
        () => paragraphStyle(paragraph, context),
      );
  return xml("text:p", { "text:style-name": style }, paragraph.runs.map((item) => span(item, context)).join(""));
}

function paragraphStyle(paragraph: Paragraph, context: PartTextContext): string {
  const level = levelOf(context, paragraph.level);
  const look = { ...level.paragraph, ...paragraph.properties };
  const run = level.run ?? {};
  const size = run.size ?? context.size;
  const rtl = readsFromRight(paragraph, context, level.paragraph);
  const align = paragraph.align ?? context.align ?? level.align;
  const listed = paragraph.kind !== "plain";
  const { line, tabs } = look;
  return context.styles.style(
    "paragraph",
    {
      "paragraph-properties": {
        "fo:text-align": align ? side[align] : rtl ? "start" : undefined,
        "style:writing-mode": rtl ? "rl-tb" : undefined,
        "fo:margin-top": gap(look.before, wordsSize(paragraph, size)),
        "fo:margin-bottom": gap(look.after, wordsSize(paragraph, size)),
        "fo:line-height":
          line === undefined ? undefined : "times" in line ? `${Math.round(line.times * 100)}%` : length(line.points),
        ...(listed
          ? {}
          : {
              "fo:margin-left": look.left === undefined ? undefined : length(look.left),
              "fo:text-indent": look.first === undefined ? undefined : length(look.first),
            }),
        "fo:margin-right": look.right === undefined ? undefined : length(look.right),
      },
      "text-properties": {
        ...(context.levels || context.said ? {} : { "style:font-name": context.font }),
        ...lookAttributes({
          ...(context.levels
            ? { size, ...run }
            : context.said
              ? {}
              : { size: context.size, ...(context.colour ? { colour: context.colour } : {}) }),
          ...(paragraph.runs.length ? {} : paragraph.properties?.words),
        }),
        "fo:font-weight": context.bold || level.strong ? "bold" : undefined,
        "fo:font-style": level.emphasis ? "italic" : undefined,
      },
    },
    tabs?.length
      ? {
          "paragraph-properties": xml(
            "style:tab-stops",
            {},
            ...tabs.map(tabParts).map(({ at, align }) =>
              xml("style:tab-stop", {
                "style:position": length(at),
                "style:type": { start: undefined, end: "right", centre: "center", decimal: "char" }[align],
                "style:char": align === "decimal" ? "." : undefined,
              }),
            ),
          ),
        }
      : {},
  );
}

/**
 * A list item: its paragraph, and the paragraphs and lists below it in order. An item without a paragraph only nests
 * deeper.
 */
interface Item {
  paragraph?: Paragraph;
  content: (Paragraph | Item[])[];
}

/**
 * Nests paragraphs by their levels; a plain paragraph with a level continues the item above it, or starts a list of its
 * own.
 */
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

/** Returns the indents and markers of a list, level by level; its own level is that of its first paragraph. */
function listLevels({ paragraph }: Item, context: PartTextContext): ListLevel[] {
  const kind = paragraph?.kind === "number" ? "number" : "bullet";
  return Array.from({ length: 10 }, (_, level): ListLevel => {
    const { paragraph: given, run } = levelOf(context, level);
    const own = level === paragraph?.level ? paragraph.properties : undefined;
    const look = { ...given, ...own, bullet: own?.bullet ?? given?.bullet ?? {} };
    const em = run?.size ?? context.size;
    const label =
      look.first === undefined && look.left === undefined
        ? (kind === "number" ? (context.rooms?.[level] ?? INDENT) : INDENT) * em
        : Math.max(0, -(look.first ?? 0));
    const left = look.left ?? level * INDENT * em + label;
    const { character, scheme, picture, ...rest } = look.bullet;
    const path = kind === "bullet" && picture !== undefined ? context.picture?.(picture) : undefined;
    if (path !== undefined)
      return {
        kind,
        before: Math.max(0, left - label),
        label,
        image: { path, high: (run?.size ?? context.size) * 0.8 * (rest.size ?? 1) },
      };
    if (context.signs && !context.levels) rest.colour ??= context.signs;
    const shown = character ?? (context.levels ? undefined : context.bullets?.[level % 2]);
    return {
      kind,
      ...(kind === "bullet" ? (shown ? { character: shown } : {}) : scheme ? { scheme } : {}),
      ...rest,
      before: Math.max(0, left - label),
      label,
    };
  });
}

function listStyle(item: Item, context: PartTextContext): string {
  const { styles, size, levels } = context;
  const { paragraph } = item;
  const make = () => styles.list(listLevels(item, context));
  return paragraph?.properties
    ? make()
    : styles.remember(
        `l/${size}/${context.signs}/${context.bullets?.join("")}/${paragraph?.kind}/${context.rooms?.join(" ") ?? ""}`,
        levels,
        make,
      );
}

function listXml(items: readonly Item[], context: PartTextContext): string {
  // Indents and bullets are set by the style of the list.
  const saidOf = ({ bullet, left, first }: ParagraphProperties) =>
    bullet === undefined && left === undefined && first === undefined
      ? ""
      : canonical([bullet ?? null, left ?? null, first ?? null]);
  const kindOf = ({ paragraph }: Item) =>
    `${paragraph?.kind === "number" ? "number" : "bullet"}${paragraph?.properties ? saidOf(paragraph.properties) : ""}`;
  const counts = (group: readonly Item[] | undefined) => group?.[0]?.paragraph?.kind === "number";
  const groups: Item[][] = [];
  for (const item of items) {
    const last = groups.at(-1);
    if (last?.[0] && kindOf(last[0]) === kindOf(item) && item.paragraph?.start === undefined) last.push(item);
    else groups.push([item]);
  }
  return groups
    .map((group, nth) =>
      xml(
        "text:list",
        {
          "text:style-name": listStyle(must(group[0]), context),
          "text:continue-numbering":
            counts(group) && counts(groups[nth - 1]) && group[0]?.paragraph?.start === undefined ? "true" : undefined,
        },
        ...group.map((item) => {
          const header = item.paragraph?.kind === "plain";
          return xml(
            header ? "text:list-header" : "text:list-item",
            { "text:start-value": item.paragraph?.start },
            item.paragraph ? paragraphXml(item.paragraph, context) : "",
            ...item.content.map((part) => (Array.isArray(part) ? listXml(part, context) : paragraphXml(part, context))),
          );
        }),
      ),
    )
    .join("");
}

/** Writes the paragraphs and lists (OpenDocument 1.3, 5.1 and 5.3) of a text. */
export function textXml(text: RichText, given: PartTextContext): string {
  const rooms = text.some(({ kind }) => kind === "number") ? numberWidths(text) : [];
  const context = rooms.some((room) => room > INDENT) ? { ...given, rooms } : given;
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
