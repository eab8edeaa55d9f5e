import { CODE_SCALE, isRightToLeft, listIndents } from "@unitext/core/layout";
import {
  escapeXml,
  NUMBER_SIGN,
  type Paragraph,
  type RichText,
  type Run,
  type TextStyle,
  must,
} from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import { RAISED } from "../../../shared/sourcepackage";
import type { ShapeMath } from "./math";
import { emu, NUMBER_FIELD } from "../package/names";
import type { Embedded } from "./drawing";
import { bulletXml, runParts, paragraphParts } from "./textproperties";

/** What writing text needs of its part. */
export interface PartTextContext {
  language: string;
  /** The number of the slide, for text on a slide. */
  number?: number | undefined;
  codeFont: string;
  /** The colour of inline code. */
  codeColour?: string;
  /** The colour of links in the theme: a link in another colour sets it. */
  linkColour: string;
  /** The size of the text in points, before autofit scales it. */
  size: number;
  /** Whether runs set their size, because no level around them does. */
  sized?: boolean;
  /** How many points of indent count as one em. */
  em: number;
  /** Whether the placeholder's own style has bullets. */
  bulleted: boolean;
  /** The style of its levels, where the body sets it. */
  style?: TextStyle;
  /** Sets formulas, which are otherwise written as their TeX. */
  math?: Pick<ShapeMath, "formula">;
  /** Returns the relationships of a picture; undefined when its file is missing. */
  picture?(source: string): Embedded | undefined;
  /** Returns the relationship id for a link; undefined when it leads nowhere. */
  link(to: string): { id: string; slide: boolean } | undefined;
}

/** Says that a link keeps the colour of its words, where the standard allows extensions (ECMA-376-1, 20.1.2.2.15). */
const OWN_COLOUR = xml(
  "a:extLst",
  {},
  xml(
    "a:ext",
    { uri: "{A12FA001-AC4F-418D-AE19-62706E023703}" },
    xml("ahyp:hlinkClr", {
      "xmlns:ahyp": "http://schemas.microsoft.com/office/drawing/2018/hyperlinkcolor",
      val: "tx",
    }),
  ),
);

function runProperties(run: Run, name: string, context: PartTextContext, level = 0): string {
  const marks = new Set(run.marks);
  const link = run.link ? context.link(run.link) : undefined;
  const coloured =
    run.properties?.colour ??
    context.style?.[Math.min(level, context.style.length - 1)]?.run?.colour ??
    context.linkColour;
  // Code has a colour of its own; text in a style sets colours itself.
  const tinted =
    marks.has("code") && context.codeColour && !context.style
      ? { colour: context.codeColour, ...run.properties }
      : run.properties;
  const { attributes, before, fonts } = runParts(tinted);
  // Code is a little smaller than the text around it; text in a style of its own sets sizes itself.
  if (marks.has("code") && !run.properties?.size && !context.style)
    attributes.sz = Math.round(context.size * CODE_SCALE * 100);
  if (context.sized) attributes.sz ??= Math.round(context.size * 100);
  return xml(
    name,
    {
      lang: run.properties?.language ?? context.language,
      b: marks.has("strong") ? 1 : undefined,
      i: marks.has("emphasis") ? 1 : undefined,
      strike: marks.has("strike") ? "sngStrike" : undefined,
      ...attributes,
      ...(marks.has(RAISED as never) ? { baseline: 30000 } : {}),
      dirty: 0,
    },
    before,
    marks.has("code") && !run.properties?.font
      ? xml("a:latin", { typeface: context.codeFont }) + xml("a:cs", { typeface: context.codeFont })
      : fonts,
    link
      ? xml(
          "a:hlinkClick",
          { "r:id": link.id, action: link.slide ? "ppaction://hlinksldjump" : undefined },
          coloured === context.linkColour ? undefined : OWN_COLOUR,
        )
      : "",
  );
}

function runs(paragraph: Paragraph, context: PartTextContext): string {
  return paragraph.runs
    .map((run) => {
      const plain = plainRun(run, context, paragraph.level);
      return (run.marks?.includes("formula") ? context.math?.formula(run.text, plain) : undefined) ?? plain;
    })
    .join("");
}

function plainRun(run: Run, context: PartTextContext, level: number): string {
  return run.text
    .split("\n")
    .map(
      (line, index) =>
        (index ? xml("a:br", {}, runProperties({ ...run, text: "" }, "a:rPr", context, level)) : "") +
        lineXml(line, run, context, level),
    )
    .join("");
}

/** Writes the words of a line; the slide number becomes a field (ECMA-376-1, 21.1.2.2.4). */
function lineXml(line: string, run: Run, context: PartTextContext, level: number): string {
  const words = (text: string) =>
    text ? xml("a:r", {}, runProperties(run, "a:rPr", context, level), `<a:t>${escapeXml(text)}</a:t>`) : "";
  if (!line.includes(NUMBER_SIGN)) return words(line);
  return line
    .split(NUMBER_SIGN)
    .map(words)
    .join(
      xml(
        "a:fld",
        { id: NUMBER_FIELD, type: "slidenum" },
        runProperties(run, "a:rPr", context, level),
        `<a:t>${context.number ?? NUMBER_SIGN}</a:t>`,
      ),
    );
}

function paragraphProperties(
  { kind, level, align, start, properties }: Paragraph,
  { left, hang }: { left: number; hang: number },
  rtl: boolean,
  context: PartTextContext,
): string {
  const own = kind !== "plain";
  const side = { start: rtl ? "r" : "l", centre: "ctr", end: rtl ? "l" : "r" } as const;
  const { attributes, spacing, tabs } = paragraphParts(properties);
  const under = context.style?.[Math.min(level, context.style.length - 1)];
  const styled = under?.paragraph;
  // Alignments are left and right here: what a level sets for one direction is the other side in the other direction.
  const aligned = align ?? (rtl !== (styled?.direction === "rtl") ? (under?.align ?? "start") : undefined);
  // Level indents of the layout do not shrink along with autofitted text.
  const inherits = context.style
    ? styled?.left !== undefined || !own
    : kind === "bullet" && context.bulleted && Math.abs(context.em - context.size) < 0.1;
  const bullet = properties?.bullet ?? styled?.bullet;
  return xml(
    "a:pPr",
    {
      marL: inherits ? undefined : emu(left * context.em),
      lvl: level || undefined,
      indent: inherits ? undefined : own ? -emu(hang * context.em) : 0,
      algn: aligned && side[aligned],
      rtl: rtl ? 1 : undefined,
      ...Object.fromEntries(Object.entries(attributes).filter(([, value]) => value !== undefined)),
    },
    spacing,
    !context.style && kind === "bullet" && context.bulleted && !properties?.bullet
      ? ""
      : bulletXml(kind, bullet, start, { embed: context.picture, under: styled?.bullet }),
    tabs,
  );
}

/** Writes the paragraphs of a text body (`a:p`, ECMA-376-1, 21.1.2.2.6); a body has at least one. */
export function paragraphsXml(text: RichText, context: PartTextContext): string {
  const places = listIndents(text);
  const written = text.map((paragraph, at) => {
    const { style, language } = context;
    const level = style?.[Math.min(paragraph.level, style.length - 1)]?.paragraph;
    const rtl = isRightToLeft(paragraph, { level, language, styled: style !== undefined });
    const content = runs(paragraph, context);
    return xml(
      "a:p",
      {},
      paragraphProperties(paragraph, must(places[at]), rtl, context),
      content ||
        runProperties(
          { text: "", ...(paragraph.properties?.words ? { properties: paragraph.properties.words } : {}) },
          "a:endParaRPr",
          context,
        ),
    );
  });
  return (
    written.join("") ||
    xml(
      "a:p",
      {},
      xml("a:endParaRPr", { lang: context.language, sz: context.sized ? Math.round(context.size * 100) : undefined }),
    )
  );
}
