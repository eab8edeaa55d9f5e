import { type Effect, type Element, type Entrance, isEmptyText, orderedEntrances, type Slide, type Transition, type Trigger } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";

/** One thing that a file lets happen on a slide: an entrance of a shape, or of some of its paragraphs, or another motion by its name. */
export type Happening = { shape: string } & (
  | { motion: string }
  | { trigger: Trigger; effect: Effect; seconds: number; delay: number; /** The first and the last of its paragraphs that come in, from 0. */ points?: readonly [number, number]; /** What the file shows where the effect is only near it. */ otherwise?: string }
);

interface Coming {
  entrance: Entrance;
  points: Set<number>;
  /** Whether a later point came by itself, and whether some came together. */
  apart: boolean;
  together: boolean;
  otherwise?: string;
}

/** What the happenings of a slide are as entrances of shapes, and what no entrance can say. */
function gathered(happenings: readonly Happening[]): { entrances: Map<string, Coming>; moves: { shape: string; what: string }[] } {
  const entrances = new Map<string, Coming>();
  const moves: { shape: string; what: string }[] = [];
  for (const [order, one] of happenings.entries()) {
    const { shape } = one;
    if ("motion" in one) {
      moves.push({ shape, what: one.motion });
      continue;
    }
    const { trigger, effect, seconds, delay, points, otherwise } = one;
    const known = entrances.get(shape);
    const coming = known ?? { entrance: { order, trigger, effect, seconds, ...(delay ? { delay } : {}) }, points: new Set<number>(), apart: false, together: false, ...(otherwise ? { otherwise } : {}) };
    entrances.set(shape, coming);
    if (known && (points ? !known.points.size || known.points.has(points[0]) : true)) {
      // A text whose box comes in before its points comes in with the first of them.
      if (!points || known.points.size) moves.push({ shape, what: "a second entrance" });
    } else if (known) {
      if (trigger === "with") known.together = true;
      else known.apart = true;
    }
    if (!points) continue;
    if (points[1] > points[0]) coming.together = true;
    for (let at = points[0]; at <= Math.min(points[1], points[0] + 10000); at++) coming.points.add(at);
  }
  return { entrances, moves };
}

/** How slides come in that come in otherwise in their file: nearest to what moves in, to what is uncovered, and to all else. */
const NEAR: [RegExp, Transition["kind"]][] = [
  [/^(cover|pull|pan|conveyor|ferris|gallery|flythrough|slideWipe)$/, "push"],
  [/wipe$|^(blinds|checker|comb|randomBar|circle|diamond|plus|wedge|wheel|wheelReverse|strips|split|zoom|window|doors|reveal|shred|flip)$/i, "wipe"],
];
const COMES: Record<Transition["kind"], string> = { fade: "fading", push: "pushing in", wipe: "uncovering" };

/** The transition nearest to one that a file has, and how that is said. */
export function nearTransition(name: string): { kind: Transition["kind"]; how: string } {
  const kind = NEAR.find(([pattern]) => pattern.test(name))?.[1] ?? "fade";
  return { kind, how: `shown as ${COMES[kind]}; its own format keeps it as it was` };
}

const HOW: Record<Effect, string> = { appear: "appearing", fade: "fading in", wipe: "uncovered", slide: "moving in", grow: "growing" };

/**
 * The elements of a slide as its file lets them come in; `elementsOf` gives those that a shape became. What is shown
 * otherwise than in the file goes to the report; what is no entrance is returned as `moves`.
 */
export function withMotion(slide: Pick<Slide, "arrangement" | "elements">, happenings: readonly Happening[], elementsOf: (shape: string) => readonly Element[], adapted: (entry: Omit<Report["adapted"][number], "slide">) => void): { elements: Element[]; moves: string[] } {
  const { entrances, moves } = gathered(happenings);
  const said = new Map<string, Pick<Element, "entrance"> & { steps?: boolean }>();
  const named = (element: Element | undefined) => (element?.name ? ` of “${element.name}”` : "");
  for (const [shape, { entrance, points, apart, together, otherwise }] of entrances) {
    for (const [nth, element] of elementsOf(shape).entries()) {
      if (said.has(element.id)) continue;
      // Points that all come at once come as the text.
      const stepped = element.kind === "text" && (apart || (points.size === 1 && !together)) && element.text.some((paragraph) => !isEmptyText([paragraph]));
      const some = points.size > 0 && element.kind === "text" && element.text.filter((paragraph) => !isEmptyText([paragraph])).length > points.size;
      const unlike = nth ? [] : [otherwise, apart && together ? "several points at once" : undefined, some ? "some of its points alone" : undefined].filter(Boolean);
      // What a group is made of comes in together.
      said.set(element.id, { entrance: nth ? { ...entrance, order: entrance.order + nth / 10000, trigger: "with" } : entrance, ...(stepped ? { steps: true } : {}) });
      if (unlike.length) adapted({ what: `the entrance${named(element)} (${unlike.join(", ")})`, how: `shown as ${HOW[entrance.effect]}${stepped ? ", point by point" : ""}; its own format keeps it as it was` });
    }
  }
  const elements = orderedEntrances({ ...slide, elements: slide.elements.map((element) => (said.has(element.id) ? ({ ...element, ...said.get(element.id) } as Element) : element)) });
  return { elements, moves: moves.map(({ shape, what }) => `${what}${named(elementsOf(shape)[0])}`.slice(0, 300)).slice(0, 500) };
}
