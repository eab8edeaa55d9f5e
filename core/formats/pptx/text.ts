import { escapeXml } from "@unitext/core/draw";
import { bidiLevels } from "@unitext/core/layout";
import { type Paragraph, paragraphText, type RichText, type Run } from "@unitext/core/model";
import { xml } from "../archive";
import { emu } from "./names";
import { RAISED } from "./special";

/** What writing text needs of the part that it stands in. */
export interface TextContext {
  language: string;
  codeFont: string;
  /** The size of one level's indent in points. */
  indent: number;
  /** Whether the placeholder's own style brings bullets. */
  bulleted: boolean;
  /** The relationship id for a link, or undefined where it leads nowhere. */
  link(to: string): { id: string; slide: boolean } | undefined;
}

function runProperties(run: Run, name: string, context: TextContext): string {
  const marks = new Set(run.marks);
  const link = run.link ? context.link(run.link) : undefined;
  return xml(
    name,
    { lang: context.language, b: marks.has("strong") ? 1 : undefined, i: marks.has("emphasis") ? 1 : undefined, strike: marks.has("strike") ? "sngStrike" : undefined, baseline: marks.has(RAISED as never) ? 30000 : undefined, dirty: 0 },
    marks.has("code") ? xml("a:latin", { typeface: context.codeFont }) + xml("a:cs", { typeface: context.codeFont }) : "",
    link ? xml("a:hlinkClick", { "r:id": link.id, action: link.slide ? "ppaction://hlinksldjump" : undefined }) : "",
  );
}

function runs(paragraph: Paragraph, context: TextContext): string {
  return paragraph.runs
    .map((run) =>
      run.text
        .split("\n")
        .map((line, index) => (index ? xml("a:br", {}, runProperties({ ...run, text: "" }, "a:rPr", context)) : "") + (line ? xml("a:r", {}, runProperties(run, "a:rPr", context), `<a:t>${escapeXml(line)}</a:t>`) : ""))
        .join(""),
    )
    .join("");
}

function paragraphProperties({ kind, level, align, start }: Paragraph, rtl: boolean, context: TextContext): string {
  const own = kind !== "plain";
  const inherits = kind === "bullet" && context.bulleted;
  const side = { start: rtl ? "r" : "l", centre: "ctr", end: rtl ? "l" : "r" } as const;
  const step = context.indent;
  return xml(
    "a:pPr",
    {
      marL: inherits ? undefined : emu((level + (own ? 1 : 0)) * step),
      lvl: level || undefined,
      indent: inherits ? undefined : own ? -emu(step) : 0,
      algn: align ? side[align] : rtl ? "r" : undefined,
      rtl: rtl ? 1 : undefined,
    },
    inherits ? "" : kind === "bullet" ? '<a:buFont typeface="Arial"/><a:buChar char="•"/>' : kind === "number" ? `<a:buFont typeface="+mj-lt"/>${xml("a:buAutoNum", { type: "arabicPeriod", startAt: start })}` : "<a:buNone/>",
  );
}

/** The paragraphs of a text body (`a:p`, ECMA-376-1, 21.1.2.2.6); a body has at least one. */
export function paragraphsXml(text: RichText, context: TextContext): string {
  const written = text.map((paragraph) => {
    const rtl = bidiLevels(paragraphText(paragraph)).base === 1;
    const content = runs(paragraph, context);
    return xml("a:p", {}, paragraphProperties(paragraph, rtl, context), content || xml("a:endParaRPr", { lang: context.language }));
  });
  return written.join("") || xml("a:p", {}, xml("a:endParaRPr", { lang: context.language }));
}
