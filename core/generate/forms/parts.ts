import { numberIn, type Paragraph, paragraphText } from "@unitext/core/model";
import type { Flow } from "../draft";
import { type Form, isPlain, isWithin, listOf } from "./form";

const PARTS = { least: 2, most: 6 } as const;
/** How far from 100 the sum of all shares may be, because of rounding. */
const ROUNDING = 1;

const SHARE = /^(.{2,40}?)\s*[:,–—(]?\s*(\d{1,3}(?:[.,]\d+)?)\s*(?:%|per ?cent|Prozent|por ciento|pour cent)\)?\.?$/iu;

/** Returns name and share of an item such as “Sand: 60 %”; undefined for other items. */
function partOf(item: Paragraph): { name: string; share: number } | undefined {
  const found = SHARE.exec(paragraphText(item).trim());
  const share = found && numberIn(found[2] ?? "");
  return found && share !== undefined && share !== null ? { name: (found[1] ?? "").trim(), share } : undefined;
}

/** A list of shares that add up to 100 per cent, as a ring chart. */
export const parts: Form = {
  reason: "parts-of-whole",
  suits: 0.9,
  of(page) {
    const list = listOf(page);
    if (!list || !isWithin(list.text.length, PARTS)) return undefined;
    const found = list.text.flatMap((item) =>
      item.kind === "bullet" && item.level === 0 && isPlain(item) ? (partOf(item) ?? []) : [],
    );
    const total = found.reduce((sum, { share }) => sum + share, 0);
    if (found.length !== list.text.length || Math.abs(total - 100) > ROUNDING) return undefined;
    const content: Flow = {
      kind: "content",
      content: {
        kind: "chart",
        type: "doughnut",
        categories: found.map(({ name }) => name),
        series: [{ name: "", values: found.map(({ share }) => share) }],
        labels: "share",
      },
      line: list.lines[0] ?? 1,
    };
    return { ...page, flow: [content], arrangement: "chart" };
  },
};
