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

/** An event in a file's timing: an entrance of a shape, or of some of its paragraphs, or other motion by its name. */
export type TimingEvent = { shape: string } & (
  | { motion: string }
  | {
      trigger: Trigger;
      effect: Effect;
      seconds: number;
      delay: number /** The first and the last of its paragraphs, counted from 0. */;
      points?: readonly [number, number] /** The file's effect, where the model's effect is only similar. */;
      otherwise?: string;
    }
);

interface Coming {
  entrance: Entrance;
  /** Its points by what appears together, in order; empty where it appears as a whole. */
  groups: number[][];
  /** The run of simultaneous events in which its last points appeared. */
  run: number;
  /** Ways in which it appears that an entrance cannot express. */
  unlike: Set<string>;
}

const IN_TURN = "its points in turn with other things";
const UNEVEN = "its points otherwise than the first";

/** Collects the events of a slide as entrances of shapes, and those that no entrance can express. */
function collectEvents(happenings: readonly TimingEvent[]): {
  entrances: Map<string, Coming>;
  unsupported: { shape: string; what: string }[];
} {
  const entrances = new Map<string, Coming>();
  const unsupported: { shape: string; what: string }[] = [];
  let run = 0;
  let last = "";
  for (const [order, one] of happenings.entries()) {
    const { shape } = one;
    if ("motion" in one) {
      unsupported.push({ shape, what: one.motion });
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
    // A text whose box appears before its points appears with the first of them.
    if (known && (points ? seen.includes(points[0]) : true)) {
      if (!points || seen.length) unsupported.push({ shape, what: "a second entrance" });
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
  return { entrances, unsupported };
}

/**
 * Returns the text with its points in the groups in which they appear; undefined where the whole text appears at once.
 */
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

/** Transitions similar to others: to those that move in, those that uncover, and all others. */
const NEAR: [RegExp, Transition["kind"]][] = [
  [/^(cover|pull|pan|conveyor|ferris|gallery|flythrough|slideWipe)$/, "push"],
  [
    /wipe$|^(blinds|checker|comb|randomBar|circle|diamond|plus|wedge|wheel|wheelReverse|strips|split|zoom|window|doors|reveal|shred|flip)$/i,
    "wipe",
  ],
];
const COMES: Record<Transition["kind"], string> = { fade: "fading", push: "pushing in", wipe: "uncovering" };

/** Returns the transition nearest to a file's, and how to report it. */
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
 * Returns the elements of a slide with the entrances of its file; `elementsOf` returns those made from a shape.
 * Differences go to the report; motion that is not an entrance is returned as `moves`.
 */
export function withMotion(
  slide: Pick<Slide, "arrangement" | "elements">,
  happenings: readonly TimingEvent[],
  elementsOf: (shape: string) => readonly Element[],
  adapted: (entry: Omit<Report["adapted"][number], "slide">) => void,
): { elements: Element[]; unsupported: string[] } {
  const { entrances, unsupported } = collectEvents(happenings);
  const said = new Map<string, Pick<Element, "entrance"> & { steps?: boolean; text?: RichText }>();
  const named = (element: Element | undefined) => (element?.name ? ` of “${element.name}”` : "");
  for (const [shape, { entrance, groups, unlike }] of entrances) {
    for (const [nth, element] of elementsOf(shape).entries()) {
      if (said.has(element.id)) continue;
      const text = element.kind === "text" ? grouped(element.text, groups) : undefined;
      if (element.kind !== "text" && groups.length > 1) unlike.add("point by point");
      // The members of a group appear together.
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
    unsupported: unsupported
      .map(({ shape, what }) => `${what}${named(elementsOf(shape)[0])}`.slice(0, 300))
      .slice(0, 500),
  };
}
