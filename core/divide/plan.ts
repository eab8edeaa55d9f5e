import { cutText, type Deck, Failure, secondsOf, type Slide, must } from "@unitext/core/model";
import Papa from "papaparse";
import { z } from "zod";
import { nameBy, NAME_PATTERN } from "./names";
import { byCount, roundRobin, byMinutes, bySection, type SuggestedPart } from "./propose";
import { parseRanges, rangesOf } from "./ranges";

/**
 * How parts are suggested: by a budget of minutes, by section, by a number of slides, or distributed in turn to groups.
 */
export const SplitBy = z.union([
  z.strictObject({ minutes: z.number().positive().max(100_000) }),
  z.strictObject({ section: z.literal(true) }),
  z.strictObject({ count: z.number().int().positive() }),
  z.strictObject({ deal: z.number().int().min(2).max(1000) }),
]);
export type SplitBy = z.infer<typeof SplitBy>;

export const PlannedPart = z.strictObject({ name: z.string().max(500), slides: z.string().max(100_000) });

/** How a deck is split: slides as numbers and ranges; `opening` and `closing` are repeated in every part. */
export const SplitPlan = z
  .strictObject({
    opening: z.string().optional(),
    closing: z.string().optional(),
    parts: z.array(PlannedPart).max(2000).optional(),
    by: SplitBy.optional(),
    names: z.string().max(500).optional(),
  })
  .refine(({ parts, by }) => (parts === undefined) !== (by === undefined), {
    message: "a plan says either “parts” or “by”",
  });
export type SplitPlan = z.infer<typeof SplitPlan>;

/** The slides of each part in order, including opening and closing. */
export interface ResolvedPart {
  name: string;
  slides: Slide[];
}

export interface ResolvedPlan {
  parts: ResolvedPart[];
  /** Sentences about what was read differently from what was written, and what was left out. */
  remarks: string[];
}

/** Reads a plan from JSON, or from CSV with the columns `name` and `slides`. Throws a Failure that names the field or line. */
export function readPlan(text: string, file: string): SplitPlan {
  const trimmed = text.replace(/^\uFEFF/, "").trim();
  if (!trimmed) throw new Failure("not-readable", file, "The plan is empty.");
  if (!trimmed.startsWith("{") && !trimmed.startsWith("[")) return planFromTable(trimmed, file);
  let value: unknown;
  try {
    value = JSON.parse(trimmed);
  } catch (error) {
    throw new Failure("not-readable", file, `The plan is no JSON: ${(error as Error).message}.`);
  }
  const plan = SplitPlan.safeParse(value);
  if (plan.success) return plan.data;
  const [issue] = plan.error.issues;
  const path = (issue?.path ?? [])
    .map((step) => (typeof step === "number" ? `[${step}]` : String(step)))
    .join(".")
    .replace(/\.\[/g, "[");
  throw new Failure(
    "not-valid",
    path ? `${file}: ${path}` : file,
    `The plan cannot be taken: ${issue?.message ?? "it has another form"}. It says opening, closing, and parts with name and slides, or by with minutes, section, count or deal.`,
  );
}

function planFromTable(text: string, file: string): SplitPlan {
  const { data, meta } = Papa.parse<Record<string, string>>(text, {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (name) => name.trim().toLowerCase(),
  });
  if (!meta.fields?.includes("name") || !meta.fields.includes("slides"))
    throw new Failure("not-valid", `${file}: line 1`, "A plan as a table has the columns name and slides.");
  const plan: SplitPlan = { parts: [] };
  data.forEach((row, nth) => {
    const name = (row.name ?? "").trim();
    // Unquoted lists spill into further columns; they belong to it all the same.
    const slides = [row.slides ?? "", ...((row as unknown as { __parsed_extra?: string[] }).__parsed_extra ?? [])]
      .map((cell) => cell.trim())
      .filter(Boolean)
      .join(", ");
    if (/^(opening|closing)$/i.test(name) && !plan.parts?.length)
      plan[name.toLowerCase() as "opening" | "closing"] = slides;
    else plan.parts?.push({ name: cutText(name, 500), slides });
    if (slides.length > 100_000)
      throw new Failure("not-valid", `${file}: line ${nth + 2}`, "The list of slides is too long.");
  });
  return plan;
}

/** Makes names distinct: the second of one name gets a number. */
function distinct(names: readonly string[], say: (remark: string) => void): string[] {
  const taken = new Set<string>();
  return names.map((name) => {
    if (!taken.has(name)) {
      taken.add(name);
      return name;
    }
    let nth = 2;
    while (taken.has(`${name} (${nth})`)) nth += 1;
    const next = `${name} (${nth})`;
    taken.add(next);
    say(`Two parts are called “${name}”; the second is now “${next}”.`);
    return next;
  });
}

/** Suggests parts for the slides between opening and closing. */
export function suggestParts(
  deck: Pick<Deck, "slides" | "rate" | "language">,
  by: SplitBy,
  opening: readonly Slide[] = [],
  closing: readonly Slide[] = [],
): SuggestedPart[] {
  const every = new Set([...opening, ...closing]);
  const middle = deck.slides.filter((slide) => !every.has(slide));
  if ("section" in by) return bySection(middle);
  if ("count" in by) return byCount(middle, by.count, deck.language);
  if ("deal" in by) return roundRobin(middle, by.deal);
  const shared = [...every].reduce((sum, slide) => sum + secondsOf(slide, deck.rate), 0);
  return byMinutes(middle, deck.rate, by.minutes * 60, shared, deck.language);
}

/** Returns a suggestion as a plan that can be corrected by hand. */
export function planOf(
  deck: Pick<Deck, "slides">,
  proposed: readonly SuggestedPart[],
  rest: Pick<SplitPlan, "opening" | "closing" | "names"> = {},
): SplitPlan {
  const numbers = new Map(deck.slides.map(({ id }, nth) => [id, nth + 1]));
  return {
    ...rest,
    parts: proposed.map(({ name, slides }) => ({
      name,
      slides: rangesOf(slides.map((id) => must(numbers.get(id)))),
    })),
  };
}

type PlanDeck = Pick<Deck, "slides" | "rate" | "language" | "properties">;
type NamedPart = { name: string; slides: Slide[] };

/** Returns the slides that a list of numbers names. Throws a Failure at `where` for numbers that the deck lacks. */
const slidesIn = ({ slides }: PlanDeck, list: string | undefined, where: string): Slide[] =>
  parseRanges(list ?? "", slides.length, where).map((number) => must(slides[number - 1]));

/** Returns the parts of a plan, suggested or listed. Throws a Failure when there are none. */
function givenParts(deck: PlanDeck, plan: SplitPlan, opening: Slide[], closing: Slide[]): NamedPart[] {
  const byId = new Map(deck.slides.map((slide) => [slide.id, slide]));
  const parts = plan.by
    ? suggestParts(deck, plan.by, opening, closing).map(({ name, slides }) => ({
        name,
        slides: slides.map((id) => must(byId.get(id))),
      }))
    : (plan.parts ?? []).map(({ name, slides }, nth) => {
        const words = name.trim();
        return { name: words, slides: slidesIn(deck, slides, `parts[${nth}]${words ? ` (${words})` : ""}`) };
      });
  if (parts.length) return parts;
  throw new Failure(
    "not-valid",
    "parts",
    plan.by ? "There is nothing between opening and closing to make parts of." : "The plan has no parts.",
  );
}

/** Returns the parts with slides of their own, named and without the slides that are in every part. */
function filledParts(parts: readonly NamedPart[], inEvery: ReadonlySet<Slide>, remarks: string[]): NamedPart[] {
  return parts.flatMap((part, nth) => {
    const slides = part.slides.filter((slide) => !inEvery.has(slide));
    const name = part.name || `Part ${nth + 1}`;
    if (!part.name) remarks.push(`Part ${nth + 1} has no name; it is called “${name}”.`);
    const repeated = part.slides.length - slides.length;
    if (repeated)
      remarks.push(
        `“${name}” names ${repeated === 1 ? "a slide that is" : "slides that are"} in every part; ${repeated === 1 ? "it is" : "they are"} in it once.`,
      );
    if (slides.length) return [{ name, slides }];
    remarks.push(`“${name}” has no slides and is not made.`);
    return [];
  });
}

/**
 * Resolves a plan to the slides of each part. `date` fills the name pattern. Throws a Failure `not-valid`, with the
 * line of the plan as its place, for slide numbers that the deck does not have. What can be repaired is repaired and
 * reported as a remark.
 */
export function resolvePlan(deck: PlanDeck, plan: SplitPlan, date: string): ResolvedPlan {
  const remarks: string[] = [];
  const opening = [...new Set(slidesIn(deck, plan.opening, "opening"))];
  const closing = [...new Set(slidesIn(deck, plan.closing, "closing"))].filter((slide) => {
    if (!opening.includes(slide)) return true;
    remarks.push(
      `Slide ${deck.slides.indexOf(slide) + 1} is both opening and closing; it is used once, at the beginning.`,
    );
    return false;
  });
  const given = givenParts(deck, plan, opening, closing);
  const filled = filledParts(given, new Set([...opening, ...closing]), remarks);
  if (!filled.length)
    throw new Failure("not-valid", "parts", "No part has a slide of its own; there is nothing to make.");
  const { title } = deck.properties;
  const patterned = filled.map(({ name }, nth) => {
    const values = { number: nth + 1, count: filled.length, part: name, title, date };
    return (plan.names && nameBy(plan.names, values)) || name;
  });
  const names = distinct(patterned, (remark) => remarks.push(remark));
  return {
    parts: filled.map(({ slides }, nth) => ({ name: must(names[nth]), slides: [...opening, ...slides, ...closing] })),
    remarks,
  };
}

export { NAME_PATTERN };
