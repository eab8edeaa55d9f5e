import { joinRuns, plainText, type RichText, run, textOf } from "@unitext/core/model";
import type { Draft, Flow } from "./draft";

/** Short sections stay together on a slide up to so many words (common practice, no source). */
const ONE_SLIDE = 60;

/** Returns how many words of a flow its slide shows. */
export type CountWords = (flow: Flow[]) => number;

const figuresOf = (flow: readonly Flow[]) => flow.filter(({ kind }) => kind === "content").length;

type Heading = Extract<Flow, { kind: "text" }> & { heading: RichText };
const isHeading = (item: Flow | undefined): item is Heading => item?.kind === "text" && item.heading !== undefined;

/** Whether a draft has subheadings that it can be cut at. */
export const hasSubheadings = ({ flow }: Draft): boolean => flow.some(isHeading);

/** Moves subheadings without content at the end of a draft to its notes; their content is on the next slides. */
export function withoutBareHeadings(draft: Draft): Draft {
  const last = draft.flow.findLastIndex((item) => !isHeading(item));
  if (last < 0 || last === draft.flow.length - 1) return draft;
  const bare = draft.flow.slice(last + 1).filter(isHeading);
  return {
    ...draft,
    flow: draft.flow.slice(0, last + 1),
    notes: [...draft.notes, ...bare.flatMap(({ heading }) => heading)],
  };
}

/** Returns the subheading with which a flow begins, as a title, where it has no other one. */
export function openingHeading(flow: readonly Flow[]): RichText | undefined {
  const [first, ...rest] = flow;
  return isHeading(first) && rest.length > 0 && !rest.some(isHeading) ? first.heading : undefined;
}

/** Returns the names of the subheadings of a flow in one title, all or the first and the last, where they are short. */
export function namesOfHeadings(flow: readonly Flow[]): RichText | undefined {
  const names = flow.filter(isHeading).map(({ text }) => textOf(text).trim());
  const [first, last] = [names[0], names.at(-1)];
  if (names.length < 2 || !first || !last) return undefined;
  const joined = names.join(", ");
  const range = `${first} – ${last}`;
  return [joined, range].filter((one) => one.length <= TITLE_LENGTH / 2 + 8).map((one) => plainText(one))[0];
}

/** Most characters of a title that names its topic after its heading. */
export const TITLE_LENGTH = 56;

/** Returns a title that is followed by another one: “Tides: springs and neaps”; undefined where that is too long. */
export function joinedTitle(title: RichText, topic: RichText): RichText | undefined {
  const [first, ...more] = title;
  const [last, ...others] = topic;
  if (!first || !last || more.length || others.length) return undefined;
  if (textOf(title).length + textOf(topic).length > TITLE_LENGTH) return undefined;
  return [{ ...first, runs: joinRuns([...first.runs, run(": "), ...last.runs]) }];
}

/** Returns what the mark of a draft says of the slides after its first: their background, and whether points appear in turn. */
const laterMark = ({ mark: { background, steps } }: Draft): Draft["mark"] => ({
  ...(background ? { background } : {}),
  ...(steps ? { steps } : {}),
});

/** Returns a part of a draft with several subheadings, which stay above their texts. */
const continuation = (draft: Draft, flow: Flow[], isFirst: boolean, isLast: boolean): Draft => ({
  ...draft,
  depth: 2,
  flow,
  notes: isFirst ? draft.notes : [],
  mark: isFirst ? draft.mark : laterMark(draft),
  slots: isLast ? draft.slots : new Map(),
});

/** Joins parts that follow each other as long as a slide holds them, so that short ones do not stand alone. */
function gathered(parts: readonly Flow[][], wordsOf: CountWords): Flow[][] {
  const joined: Flow[][] = [];
  for (const part of parts) {
    const before = joined.at(-1);
    const both = before && [...before, ...part];
    if (both && wordsOf(both) <= ONE_SLIDE && figuresOf(both) === 0) joined[joined.length - 1] = both;
    else joined.push(part);
  }
  return joined;
}

/** Most characters of a title with the heading above it. */
const CONTEXT_LENGTH = 40;

/** Returns a subheading after the heading above it, unless it is long or its number says already where it belongs. */
const contextTitle = (title: RichText, topic: RichText): RichText | undefined =>
  /^\d/.test(textOf(topic)) || textOf(title).length + textOf(topic).length > CONTEXT_LENGTH
    ? undefined
    : joinedTitle(title, topic);

/**
 * Cuts a draft that is too much for one slide at its subheadings (`hasSubheadings`), which become titles. What is before the first one keeps
 * the title of the draft; where nothing is, the first subheading follows it in one title. Notes stay with the first.
 * Sections that are short stay together on a slide.
 */
export function atSubheadings(draft: Draft, wordsOf: CountWords): Draft[] {
  const { flow } = draft;
  const parts: Flow[][] = [[]];
  flow.forEach((item, nth) => {
    // A heading over a heading stays above it, as text.
    if (isHeading(item) && !isHeading(flow[nth + 1]) && nth < flow.length - 1) parts.push([item]);
    else parts.at(-1)?.push(item);
  });
  const [lead = [], ...sections] = parts;
  const rest = gathered(sections, wordsOf);
  if (!rest.length) return [draft];
  const hasLead = lead.length > 0 || draft.depth === 1;
  const first: Draft[] = hasLead ? [{ ...draft, flow: lead, slots: new Map() }] : [];
  const others = rest.map(([heading, ...own], nth): Draft => {
    const isOne = isHeading(heading) && !own.some(isHeading);
    if (!isOne && draft.title)
      return continuation(draft, heading ? [heading, ...own] : own, nth === 0 && !hasLead, nth === rest.length - 1);
    const topic = isHeading(heading) ? heading.heading : null;
    const joined = draft.title && topic ? contextTitle(draft.title, topic) : undefined;
    const follows = nth === 0 && !hasLead && !joined && draft.title !== null;
    return {
      ...draft,
      title: follows ? draft.title : (joined ?? topic),
      depth: 2,
      flow: follows && heading ? [heading, ...own] : own,
      notes: nth === 0 && !hasLead ? draft.notes : [],
      mark: nth === 0 && !hasLead ? draft.mark : laterMark(draft),
      slots: nth === rest.length - 1 ? draft.slots : new Map(),
    };
  });
  return [...first, ...others];
}
