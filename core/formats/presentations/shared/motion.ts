import {
  type Effect,
  type Element,
  type Entrance,
  isEmptyText,
  orderedEntrances,
  type Paragraph,
  type RichText,
  type Slide,
  type Transition,
  type Trigger,
  withSteps,
} from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";

/** One thing that a file lets happen on a slide: an entrance of a shape, or of some of its paragraphs, or another motion by its name. */
export type TimingEvent = { shape: string } & (
  | { motion: string }
  | {
      trigger: Trigger;
      effect: Effect;
      seconds: number;
      delay: number /** The first and the last of its paragraphs that come in, from 0. */;
      points?: readonly [number, number] /** What the file shows where the effect is only near it. */;
      otherwise?: string;
    }
);

interface Coming {
  entrance: Entrance;
  /** Its points by what comes together, in order; none where it comes as a whole. */
  groups: number[][];
  /** The run of things that begin together in which its last points came. */
  run: number;
  /** In what it comes otherwise than an entrance can say. */
  unlike: Set<string>;
}

const IN_TURN = "its points in turn with other things";
const UNEVEN = "its points otherwise than the first";

/** What the happenings of a slide are as entrances of shapes, and what no entrance can say. */
function collectEvents(happenings: readonly TimingEvent[]): {
  entrances: Map<string, Coming>;
  moves: { shape: string; what: string }[];
} {
  const entrances = new Map<string, Coming>();
  const moves: { shape: string; what: string }[] = [];
  let run = 0;
  let last = "";
  for (const [order, one] of happenings.entries()) {
    const { shape } = one;
    if ("motion" in one) {
      moves.push({ shape, what: one.motion });
      continue;
    }
    const { trigger, effect, seconds, delay, points, otherwise } = one;
    if (trigger !== "with") run += 1;
    const known = entrances.get(shape);
    const seen = known?.groups.flat() ?? [];
    const coming: Coming = known ?? {
      entrance: { order, trigger, effect, seconds, ...(delay ? { delay } : {}) },
      groups: [],
      run,
      unlike: new Set(otherwise ? [otherwise] : []),
    };
    entrances.set(shape, coming);
    // A text whose box comes in before its points comes in with the first of them.
    if (known && (points ? seen.includes(points[0]) : true)) {
      if (!points || seen.length) moves.push({ shape, what: "a second entrance" });
    } else if (points) {
      const group = Array.from(
        { length: Math.max(1, Math.min(points[1] - points[0], 10_000) + 1) },
        (_, nth) => points[0] + nth,
      ).filter((point) => !seen.includes(point));
      const { entrance, groups } = coming;
      if (groups.length && last !== shape) coming.unlike.add(IN_TURN);
      else if (
        groups.length &&
        (effect !== entrance.effect ||
          seconds !== entrance.seconds ||
          delay !== (entrance.delay ?? 0) ||
          ((trigger === "after") !== (entrance.trigger === "after") && trigger !== "with") ||
          (groups.at(-1)?.at(-1) ?? 0) > points[0])
      )
        coming.unlike.add(UNEVEN);
      if (groups.length && trigger === "with" && coming.run === run) groups.at(-1)?.push(...group);
      else groups.push(group);
      coming.run = run;
    }
    last = shape;
  }
  return { entrances, moves };
}

/** The text with its points in the groups in which they come; undefined where the whole text comes. */
function grouped(text: RichText, groups: readonly (readonly number[])[]): RichText | undefined {
  const said = text.flatMap((paragraph, at) => (isEmptyText([paragraph]) ? [] : [at]));
  const own = groups.map((group) => group.filter((at) => said.includes(at))).filter((group) => group.length);
  const coming = new Set(own.flat());
  if (!coming.size) return undefined;
  const leading = new Set(own.map((group) => Math.min(...group)));
  return withSteps(text, "each").map(
    (paragraph, at): Paragraph =>
      !said.includes(at) || leading.has(at) ? paragraph : { ...paragraph, step: coming.has(at) ? "with" : "shown" },
  );
}

/** How slides come in that come in otherwise in their file: nearest to what moves in, to what is uncovered, and to all else. */
const NEAR: [RegExp, Transition["kind"]][] = [
  [/^(cover|pull|pan|conveyor|ferris|gallery|flythrough|slideWipe)$/, "push"],
  [
    /wipe$|^(blinds|checker|comb|randomBar|circle|diamond|plus|wedge|wheel|wheelReverse|strips|split|zoom|window|doors|reveal|shred|flip)$/i,
    "wipe",
  ],
];
const COMES: Record<Transition["kind"], string> = { fade: "fading", push: "pushing in", wipe: "uncovering" };

/** The transition nearest to one that a file has, and how that is said. */
export function nearTransition(name: string): { kind: Transition["kind"]; how: string } {
  const kind = NEAR.find(([pattern]) => pattern.test(name))?.[1] ?? "fade";
  return { kind, how: `shown as ${COMES[kind]}; its own format keeps it as it was` };
}

const HOW: Record<Effect, string> = {
  appear: "appearing",
  fade: "fading in",
  wipe: "uncovered",
  slide: "moving in",
  grow: "growing",
};

/**
 * The elements of a slide as its file lets them come in; `elementsOf` gives those that a shape became. What is shown
 * otherwise than in the file goes to the report; what is no entrance is returned as `moves`.
 */
export function withMotion(
  slide: Pick<Slide, "arrangement" | "elements">,
  happenings: readonly TimingEvent[],
  elementsOf: (shape: string) => readonly Element[],
  adapted: (entry: Omit<Report["adapted"][number], "slide">) => void,
): { elements: Element[]; moves: string[] } {
  const { entrances, moves } = collectEvents(happenings);
  const said = new Map<string, Pick<Element, "entrance"> & { steps?: boolean; text?: RichText }>();
  const named = (element: Element | undefined) => (element?.name ? ` of “${element.name}”` : "");
  for (const [shape, { entrance, groups, unlike }] of entrances) {
    for (const [nth, element] of elementsOf(shape).entries()) {
      if (said.has(element.id)) continue;
      const text = element.kind === "text" ? grouped(element.text, groups) : undefined;
      if (element.kind !== "text" && groups.length > 1) unlike.add("point by point");
      // What a group is made of comes in together.
      said.set(element.id, {
        entrance: nth ? { ...entrance, order: entrance.order + nth / 10000, trigger: "with" } : entrance,
        ...(text ? { steps: true, text } : {}),
      });
      if (!nth && unlike.size)
        adapted({
          what: `the entrance${named(element)} (${[...unlike].join(", ")})`,
          how: `shown as ${HOW[entrance.effect]}${text ? ", point by point" : ""}; its own format keeps it as it was`,
        });
    }
  }
  const elements = orderedEntrances({
    ...slide,
    elements: slide.elements.map((element) =>
      said.has(element.id) ? ({ ...element, ...said.get(element.id) } as Element) : element,
    ),
  });
  return {
    elements,
    moves: moves.map(({ shape, what }) => `${what}${named(elementsOf(shape)[0])}`.slice(0, 300)).slice(0, 500),
  };
}
