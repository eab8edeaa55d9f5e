import { secondsOf, sectionStarting, type Slide, titleOf, must } from "@unitext/core/model";

/** A suggested part: the ids of its slides in order. */
export interface SuggestedPart {
  name: string;
  slides: string[];
}

/** A slide of the main line with its details, which are never separated. */
interface Unit {
  slides: Slide[];
  seconds: number;
  /**
   * The cost of a cut before it, as a share of the budget: nothing at a section or topic, a tenth elsewhere, more
   * inside slides that continue each other.
   */
  cut: number;
  section: string | undefined;
  title: string;
}

/** The highest cost of a cut that is not at a boundary, as a share of the budget. */
const INSIDE = 0.1;
const CONTINUED = 0.2;
/** Returns the title without the number of a continued slide, as in “Tides (2 of 3)”. */
const bareTitle = (title: string) =>
  title.endsWith(")") ? title.replace(/\s*\([^()]*\d[^()]*\d[^()]*\)$/, "") : title;

function unitsOf(slides: readonly Slide[], rate: number): Unit[] {
  const units: Unit[] = [];
  let section: string | undefined;
  for (const slide of slides) {
    const last = units.at(-1);
    const seconds = secondsOf(slide, rate);
    if (slide.parent !== null && last) {
      last.slides.push(slide);
      last.seconds += seconds;
      continue;
    }
    const begun = sectionStarting(slide);
    const opens = begun !== undefined;
    const title = bareTitle(titleOf(slide));
    if (opens) section = begun;
    const continues = last !== undefined && title !== "" && title === last.title;
    units.push({ slides: [slide], seconds, cut: opens ? 0 : continues ? CONTINUED : INSIDE, section, title });
  }
  // A main slide with details is a topic: it starts there and ends with them.
  units.forEach((unit, at) => {
    if (unit.cut !== INSIDE) return;
    if (unit.slides.length > 1 || (units[at - 1]?.slides.length ?? 0) > 1) unit.cut = 0;
  });
  return units;
}

const idsOf = (units: readonly Unit[]) => units.flatMap(({ slides }) => slides.map(({ id }) => id));
/** The longest name made of sections, in characters; a longer one is replaced by a number. */
const LONGEST_NAME = 60;

/** Returns the sections that a group touches, in order. */
const sectionsOf = (group: readonly Unit[]) => [...new Set(group.flatMap(({ section }) => section || []))];

/** Returns a name from the sections of a group: one, two joined, or the first and the last of more. */
function sectionName(group: readonly Unit[], language: string): string | undefined {
  const all = sectionsOf(group);
  const name =
    all.length > 2 ? `${all[0]} – ${all.at(-1)}` : new Intl.ListFormat(language, { type: "conjunction" }).format(all);
  return name && name.length <= LONGEST_NAME ? name : undefined;
}

/**
 * Names groups of units after their sections, in the words of a language; a section in several parts is counted. Parts
 * without a section have a number.
 */
function namedParts(groups: readonly Unit[][], language = "en"): SuggestedPart[] {
  const filled = groups.filter((group) => group.length);
  const names = filled.map((group) => sectionName(group, language));
  const digits = String(filled.length).length;
  return filled.map((group, nth) => {
    const own = names[nth];
    const same = names.filter((name) => name === own).length;
    const place = names.slice(0, nth + 1).filter((name) => name === own).length;
    const name =
      own === undefined ? `Part ${String(nth + 1).padStart(digits, "0")}` : same > 1 ? `${own} (${place})` : own;
    return { name, slides: idsOf(group) };
  });
}

/**
 * Cuts slides into parts that fit a budget of seconds each, of which opening and closing take `shared` seconds. Dynamic
 * programming over the running order finds the cuts that leave the least time unused before the last part; a cut away
 * from a section or topic boundary costs a tenth of the budget. Details stay with their main slide; a slide longer than
 * the budget is a part of its own.
 */
export function byMinutes(
  slides: readonly Slide[],
  rate: number,
  budget: number,
  shared = 0,
  language = "en",
): SuggestedPart[] {
  const units = unitsOf(slides, rate);
  const room = Math.max(1, budget - shared);
  const n = units.length;
  /** The least cost of cutting the units from each on, and where the part that starts there ends. */
  const cost = new Array<number>(n + 1).fill(Number.POSITIVE_INFINITY);
  const next = new Array<number>(n + 1).fill(n);
  cost[n] = 0;
  for (let from = n - 1; from >= 0; from--) {
    let used = 0;
    for (let to = from + 1; to <= n; to++) {
      used += must(units[to - 1]).seconds;
      if (used > room && to > from + 1) break;
      const left = to === n ? 0 : Math.max(0, room - used) + must(units[to]).cut * budget;
      const total = left + must(cost[to]);
      if (total < must(cost[from])) {
        cost[from] = total;
        next[from] = to;
      }
    }
  }
  const groups: Unit[][] = [];
  for (let at = 0; at < n; at = must(next[at])) groups.push(units.slice(at, next[at]));
  return namedParts(groups, language);
}

/** Makes a part of each section. Slides before the first section are a part of their own. */
export function bySection(slides: readonly Slide[]): SuggestedPart[] {
  const groups: Unit[][] = [];
  for (const unit of unitsOf(slides, 130)) {
    const last = groups.at(-1);
    if (last && unit.slides[0] && sectionStarting(unit.slides[0]) === undefined) last.push(unit);
    else groups.push([unit]);
  }
  return namedParts(groups);
}

/**
 * Makes parts of a number of slides. A main slide and its details are not separated, so a part may be shorter, or
 * longer where one alone has more.
 */
export function byCount(slides: readonly Slide[], count: number, language = "en"): SuggestedPart[] {
  const groups: Unit[][] = [];
  let held = 0;
  for (const unit of unitsOf(slides, 130)) {
    const last = groups.at(-1);
    if (last && held + unit.slides.length <= count) {
      last.push(unit);
      held += unit.slides.length;
    } else {
      groups.push([unit]);
      held = unit.slides.length;
    }
  }
  return namedParts(groups, language);
}

/** Distributes slides to groups in turn, like questions to the groups of a class. Details go with their main slide. */
export function roundRobin(slides: readonly Slide[], groups: number): SuggestedPart[] {
  const hands = Array.from({ length: groups }, (): Unit[] => []);
  for (const [nth, unit] of unitsOf(slides, 130).entries()) hands[nth % groups]?.push(unit);
  return hands
    .map((hand, nth) => ({
      name: `Group ${String(nth + 1).padStart(String(groups).length, "0")}`,
      slides: idsOf(hand),
    }))
    .filter(({ slides: ids }) => ids.length);
}
