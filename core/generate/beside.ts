import { type Flow, wordsInFlow } from "./draft";

/** A piece of a slide's flow with a figure that may stand beside its text. */
export interface FigureGroup {
  text: Flow[];
  figure: Flow | undefined;
}

/** Figures that may stand beside a text: code, formulas and diagrams need the width. */
const BESIDE: ReadonlySet<string> = new Set(["picture", "table", "chart"]);

/** The share of the width that text and figure have, in percent (common practice, no source). */
export const TEXT_AND_FIGURE = [42, 58] as const;

/** How much text may stand beside a figure, in words. */
const WORDS = { least: 5, most: 60 } as const;

/**
 * Divides a flow into texts with the figure that follows each; text after the last figure goes with it where that one has
 * no text. Undefined where a figure needs the full width, or no text would stand beside one.
 */
export function figureGroups(flow: readonly Flow[]): FigureGroup[] | undefined {
  const groups: FigureGroup[] = [];
  let text: Flow[] = [];
  for (const item of flow) {
    if (item.kind === "text") {
      text.push(item);
      continue;
    }
    if (!BESIDE.has(item.content.kind)) return undefined;
    groups.push({ text, figure: item });
    text = [];
  }
  const last = groups.at(-1);
  if (!last) return undefined;
  if (text.length && last.text.length === 0) last.text = text;
  else if (text.length) groups.push({ text, figure: undefined });
  const isBeside = groups.some((group) => group.figure && wordsInFlow(group.text) >= WORDS.least);
  return isBeside && groups.every((group) => wordsInFlow(group.text) <= WORDS.most || !group.figure)
    ? groups
    : undefined;
}

/**
 * Whether a group is a text with a figure in a column beside it, not one of them alone or a figure with a line. A picture
 * stands beside a text by itself.
 */
export const isTextWithFigure = ({ text, figure }: FigureGroup): boolean =>
  figure?.kind === "content" && figure.content.kind !== "picture" && wordsInFlow(text) >= WORDS.least;
