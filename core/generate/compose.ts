import {
  cutText,
  ArrangementName,
  type BreakRule,
  type ChartType,
  type DeckMetadata,
  inFileLayout,
  countWords,
  type Element,
  isEmptyText,
  readingOrder,
  type RichText,
  run,
  type Slide,
  type SlideProperties,
  textOf,
  withSteps,
  must,
  paragraphText,
} from "@unitext/core/model";
import {
  chartOf,
  type Content,
  flowSlot,
  isKeyFigure,
  mainSlot,
  namesReferences,
  type Parts,
  type Problem,
  recogniseParts,
  type Steps,
  type Reason,
} from "@unitext/core/text";
import { type Flow, wordsInFlow } from "./draft";

/** A slide with its content, but without ids. */
export interface Composed {
  title: RichText | null;
  depth: 1 | 2 | null;
  flow: readonly Flow[];
  slots: ReadonlyMap<string, readonly Flow[]>;
  notes: RichText;
  properties: SlideProperties;
  arrangement: ArrangementName;
  /** Whether the text names the arrangement. */
  named?: boolean;
  reason: Reason;
  /** Whether all text of the main flow appears point by point. */
  steps: Steps;
}

export interface DraftParts {
  title: RichText | null;
  depth: 1 | 2 | null;
  flow: readonly Flow[];
  slots: ReadonlyMap<string, readonly Flow[]>;
}

/** Whether a slide opens the deck or a section. */
export const isOpener = ({ arrangement }: Pick<Composed, "arrangement">): boolean =>
  arrangement === "opening" || arrangement === "section";

const flowText = (flow: readonly Flow[], quote: boolean): RichText => {
  const found = flow.filter(
    (item): item is Extract<Flow, { kind: "text" }> => item.kind === "text" && (item.quote ?? false) === quote,
  );
  return found.length === 1 && found[0] ? found[0].text : found.flatMap(({ text }) => text);
};

/** Returns what a draft consists of, from which an arrangement is recognised. `opens` says that it opens the deck. */
export function partsOfDraft({ title, depth, flow, slots }: DraftParts, opens: boolean): Parts {
  const first = flow.find((item): item is Extract<Flow, { kind: "text" }> => item.kind === "text");
  const kinds: Parts["kinds"] = {};
  for (const item of flow) if (item.kind === "content") kinds[item.content.kind] = (kinds[item.content.kind] ?? 0) + 1;
  return {
    first: opens,
    depth,
    title,
    text: flowText(flow, false),
    quote: flowText(flow, true),
    quoteFirst: first?.quote === true,
    kinds,
    slots: [...slots.keys()],
  };
}

const FIGURES: ReadonlySet<ArrangementName> = new Set(["code", "formula", "table", "chart", "diagram"]);

/** Returns an arrangement in which text that comes before a figure is above it, not in its caption below. */
export function withLeadAbove<F extends { arrangement: ArrangementName; reason: Reason }>(
  found: F,
  flow: readonly Flow[],
): F {
  const isLead = flow[0]?.kind === "text" && FIGURES.has(found.arrangement);
  return isLead ? { ...found, arrangement: "points", reason: "title-and-content" } : found;
}

/** Recognises the arrangement of a draft, unless the text names one. A name that is not an arrangement is reported. */
export function chooseArrangement(
  draft: DraftParts,
  first: boolean,
  given: string | undefined,
  line: number,
  problems: Problem[],
): Pick<Composed, "arrangement" | "named" | "reason"> {
  if (given !== undefined) {
    const known = ArrangementName.safeParse(given);
    if (known.success) return { arrangement: known.data, named: true, reason: "named-in-text" };
    problems.push({
      line,
      message: `“${given}” is not an arrangement. Known are ${ArrangementName.options.join(", ")}.`,
    });
  }
  const { arrangement, reason } = recogniseParts(partsOfDraft(draft, first));
  return { arrangement, reason };
}

type Bare = { slot: string | null; content: Content; steps?: Steps };

/** Returns the content of a slide with its slots; texts of one slot that follow each other become one. */
function placeFlow({ arrangement, title, flow, slots, steps }: Composed): Bare[] {
  const all: Bare[] = title && !isEmptyText(title) ? [{ slot: "title", content: { kind: "text", text: title } }] : [];
  const add = (slot: string | null, content: Content, stepped: Steps) => {
    const last = all.at(-1);
    if (content.kind === "text") {
      if (isEmptyText(content.text)) return;
      if (
        last &&
        last.slot === slot &&
        last.content.kind === "text" &&
        (last.steps ?? false) === stepped &&
        slot !== "title"
      ) {
        last.content = { kind: "text", text: [...last.content.text, ...content.text] };
        return;
      }
    }
    all.push({ slot, content, ...(stepped ? { steps: stepped } : {}) });
  };
  const counts: Record<string, number> = {};
  const numbered =
    arrangement === "number" && !slots.has("number") && isKeyFigure(textOf(flowText(flow, false).slice(0, 1)).trim());
  let opened = false;
  for (const item of flow) {
    if (item.kind === "content") {
      const nth = counts[item.content.kind] ?? 0;
      counts[item.content.kind] = nth + 1;
      add(flowSlot(arrangement, item.content.kind, nth), item.content, false);
    } else if (numbered && !opened && !item.quote) {
      opened = true;
      add("number", { kind: "text", text: item.text.slice(0, 1) }, steps || (item.steps ?? false));
      if (item.text.length > 1)
        add(mainSlot(arrangement), { kind: "text", text: item.text.slice(1) }, steps || (item.steps ?? false));
    } else
      add(
        flowSlot(arrangement, item.quote ? "quote" : "text", 0),
        { kind: "text", text: item.text },
        steps || (item.steps ?? false),
      );
  }
  for (const [slot, held] of slots)
    for (const item of held)
      add(
        slot,
        item.kind === "text" ? { kind: "text", text: item.text } : item.content,
        item.kind === "text" && (item.steps ?? false),
      );
  return all;
}

const mainOnce = new WeakMap<RichText, RichText>();
/** Returns a text whose main points appear with those below them. Cached, so that it is laid out once. */
function mainPoints(text: RichText): RichText {
  const made = mainOnce.get(text) ?? withSteps(text, "main");
  mainOnce.set(text, made);
  return made;
}

/**
 * Makes the slide of a composition, in the layouts of a file where the deck has them. Equal compositions share their content,
 * so that they are laid out once.
 */
export function slideOf(composed: Composed, id: string, newId: () => string, layouts?: DeckMetadata["layouts"]): Slide {
  const elements = placeFlow(composed).map(
    ({ slot, content, steps }) =>
      ({
        ...content,
        ...(steps === "main" && content.kind === "text" ? { text: mainPoints(content.text) } : {}),
        id: newId(),
        slot,
        ...(steps ? { steps: true } : {}),
      }) as Element,
  );
  const slide: Slide = {
    id,
    parent: null,
    arrangement: composed.arrangement,
    elements,
    notes: composed.notes,
    hidden: false,
    ...composed.properties,
  };
  return inFileLayout({ ...slide, elements: readingOrder(slide) }, layouts);
}

/** Chooses the type of chart for a numeric table: a line over time, columns for few categories, bars for long names. */
function chartTypeFor(categories: readonly string[]): ChartType {
  const times = categories.filter((name) =>
    /^\s*(\d{4}|Q[1-4]\b|[A-Z]?\d{1,2}[./-]\d{1,2}|jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec|ene|abr|ago|dic|mär|mai|okt|dez)/i.test(
      name,
    ),
  ).length;
  if (categories.length > 3 && times >= categories.length * 0.7) return "line";
  return categories.some((name) => name.length > 14) ? "bar" : "column";
}

/** Replaces numeric tables by charts, where the rule says so. */
export function asCharts(flow: readonly Flow[], rule: BreakRule): Flow[] {
  if (!rule.charts) return [...flow];
  return flow.map((item): Flow => {
    if (item.kind !== "content" || item.content.kind !== "table") return item;
    const trial = chartOf(item.content, "column");
    return trial && trial.categories.length > 1
      ? { ...item, content: { ...trial, type: chartTypeFor(trial.categories) } }
      : item;
  });
}

/** Whether something needs a slide to itself when more than a line of text comes with it. */
const isLarge = (item: Flow) =>
  item.kind === "content" &&
  (item.content.kind === "chart" ||
    item.content.kind === "diagram" ||
    (item.content.kind === "table" && item.content.rows.length > 4) ||
    (item.content.kind === "code" && item.content.text.split("\n").length > 6));

/** Takes the heading or sentence that leads into a figure from the end of the flow before it, so that it stands above it. */
function takeLead(before: Flow[]): Flow[] {
  const last = before.at(-1);
  if (last?.kind === "text" && last.heading) return before.splice(-1);
  const lead = last?.kind === "text" && !last.quote ? last.text.at(-1) : undefined;
  if (last?.kind !== "text" || lead?.kind !== "plain" || !/[:：]\s*$/.test(paragraphText(lead))) return [];
  before.pop();
  if (last.text.length > 1)
    before.push({ ...last, text: last.text.slice(0, -1), lines: last.lines.slice(0, last.text.length - 1) });
  return [{ ...last, text: [lead], lines: last.lines.slice(last.text.length - 1) }];
}

/** More words than these beside a figure go on a slide of their own. */
const CAPTION = 30;

/** How many pictures a slide has: alone, and beside more than a line of text (common practice, no source). */
const PICTURES = { alone: 6, beside: 2 } as const;

const picturesIn = (flow: readonly Flow[]): number =>
  flow.filter((item) => item.kind === "content" && item.content.kind === "picture").length;

/** Divides the content of a slide that has more pictures than can be seen on it, in order and evenly. */
function withFewPictures(part: Flow[]): Flow[][] {
  const pictures = picturesIn(part);
  const alone = Math.ceil(pictures / Math.ceil(pictures / PICTURES.alone));
  const parts: Flow[][] = [[]];
  for (const item of part) {
    const next = [...must(parts.at(-1)), item];
    const most = wordsInFlow(next) > CAPTION ? PICTURES.beside : alone;
    if (next.length > 1 && picturesIn(next) > most) parts.push([item]);
    else parts[parts.length - 1] = next;
  }
  return parts;
}

/**
 * Divides the flow of a slide that would be crowded: large figures with more than a line of text, and pictures after
 * the first, get slides of their own, in order. A section's heading with more than a line below it gets a slide of its
 * own first, unless the rule leaves everything as it was typed.
 */
export function divideFlow(draft: DraftParts, rule: BreakRule): { flow: readonly Flow[]; opener: boolean }[] {
  const { flow, depth, title } = draft;
  const crowded =
    flow.some((item) => item.kind === "content") ||
    flowText(flow, false).length > 1 ||
    countWords(textOf(flowText(flow, false))) > CAPTION;
  const brief =
    flow.length > 0 &&
    flow.every(({ kind }) => kind === "text") &&
    flowText(flow, true).length === 0 &&
    flowText(flow, false).length <= 2 &&
    countWords(textOf(flowText(flow, false))) <= CAPTION;
  const opener =
    depth === 1 &&
    !brief &&
    (rule.placement !== "slide" || rule.overflow !== "leave") &&
    crowded &&
    !namesReferences(title);
  const parts: Flow[][] = [[]];
  const figures = flow.filter((item) => item.kind === "content").length;
  const many = figures > 1 || (figures === 1 && wordsInFlow(flow) > CAPTION);
  if (many) {
    let pictures = 0;
    for (const item of flow) {
      const last = must(parts.at(-1));
      if (isLarge(item)) parts.push([...takeLead(last), item], []);
      else if (
        item.kind === "content" &&
        item.content.kind === "picture" &&
        pictures++ > 0 &&
        wordsInFlow(last) > CAPTION
      )
        parts.push([item]);
      else last.push(item);
    }
  } else parts[0] = [...flow];
  const filled = parts.filter((part) => part.length);
  const kept = rule.overflow === "leave" ? filled : filled.flatMap(withFewPictures);
  // A single line left after a figure belongs to it.
  const joined: Flow[][] = [];
  for (const part of kept) {
    const before = joined.at(-1);
    if (
      before &&
      part.every(({ kind }) => kind === "text") &&
      wordsInFlow(part) <= CAPTION &&
      flowText(part, false).length <= 1 &&
      before.some(isLarge) &&
      wordsInFlow(before) === 0
    )
      before.push(...part);
    else joined.push(part);
  }
  return [
    ...(opener ? [{ flow: [], opener: true }] : []),
    ...(joined.length ? joined : opener ? [] : [[]]).map((part) => ({ flow: part, opener: false })),
  ];
}

/** Shortens a heading that is too long for a title to its first words, up to the end of a clause where there is one. */
export function shortTitle(title: RichText, most: number): RichText {
  const words = textOf(title).replace(/\s+/g, " ").trim();
  const clause = /^.{12,}?[.;:!?–—](?=\s)/u.exec(words)?.[0];
  const held =
    clause && countWords(clause) <= most
      ? clause.replace(/[.;:–—]+$/u, "").trimEnd()
      : `${cutText(words.split(" ").slice(0, most).join(" "), 200).replace(/[\s.,;:–—-]+$/u, "")}…`;
  return [{ kind: "plain", level: 0, runs: [run(held)] }];
}
