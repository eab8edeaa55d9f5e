import { plainText } from "@unitext/core/model";
import type { Composed } from "../compose";
import type { Flow } from "../draft";
import { type Form, pointsOfPage, type TextFlow, wordsOf } from "./form";
import { keyFigureIn } from "./keyfigure";

/** How many words explain a key figure, and how many points stand beside one (common practice, no source). */
const EXPLANATION = { least: 4, most: 22 } as const;
const MOST_POINTS = 3;

/** A key figure and the index of the point that states it. */
interface NumberPoint {
  figure: string;
  at: number;
}

/** Returns the point of a slide that states a key figure; undefined where none or several do. */
function numberPointOf(points: NonNullable<ReturnType<typeof pointsOfPage>>): NumberPoint | undefined {
  const found = points.flatMap(({ paragraph }, at): NumberPoint[] => {
    const words = wordsOf(paragraph);
    const figure =
      paragraph.level === 0 && words >= EXPLANATION.least && words <= EXPLANATION.most
        ? keyFigureIn(paragraph)
        : undefined;
    return figure === undefined ? [] : [{ figure, at }];
  });
  return found.length === 1 ? found[0] : undefined;
}

const textFlow = (points: NonNullable<ReturnType<typeof pointsOfPage>>): TextFlow => ({
  kind: "text",
  text: points.map(({ paragraph }) => paragraph),
  lines: points.map(({ line }) => line),
});

/** Returns the number as the content of its slot, and the whole point below it. */
function figureSlots(points: NonNullable<ReturnType<typeof pointsOfPage>>, { figure, at }: NumberPoint) {
  const own = points[at];
  if (!own) return undefined;
  const number: Flow = { kind: "text", text: plainText(figure), lines: [own.line] };
  return { number, point: textFlow([{ ...own, paragraph: { ...own.paragraph, kind: "plain" } }]) };
}

/** A single point that states a number: the number large, the point below it. */
export const fact: Form = {
  reason: "key-figure",
  suits: 0.85,
  of(page): Composed | undefined {
    const points = pointsOfPage(page);
    const own = points?.length === 1 ? numberPointOf(points) : undefined;
    const made = points && own && figureSlots(points, own);
    return made && { ...page, flow: [made.point], slots: new Map([["number", [made.number]]]), arrangement: "fact" };
  },
};

/** Several points of which one states a number: the number large beside the others, its point below it. */
export const highlight: Form = {
  reason: "key-figure",
  suits: 0.72,
  of(page): Composed | undefined {
    const points = pointsOfPage(page);
    if (!points || points.length < 2 || points.length > MOST_POINTS + 1) return undefined;
    if (points.some(({ paragraph }) => paragraph.kind !== "bullet" || paragraph.level > 0)) return undefined;
    const own = numberPointOf(points);
    const made = own && figureSlots(points, own);
    if (!own || !made) return undefined;
    return {
      ...page,
      flow: [textFlow(points.filter((_, at) => at !== own.at))],
      slots: new Map([
        ["number", [made.number]],
        ["caption", [made.point]],
      ]),
      arrangement: "highlight",
    };
  },
};
