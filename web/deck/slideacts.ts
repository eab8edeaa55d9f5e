import { duplicate, insertAt, remove, roots } from "@unitext/core/edit";
import { type Deck, must, newSlide, slideIndex } from "@unitext/core/model";
import { nanoid } from "nanoid";
import type { DeckSession } from "./session";

/** What the commands on selected slides work with. */
export interface SlideActsContext {
  deck: Deck;
  version: number;
  session: DeckSession;
  /** Ids of the selected slides; the last is the current one. */
  selected: readonly string[];
  select(ids: readonly string[]): void;
  /** Scrolls to a slide and moves the focus to it. */
  show(id: string): void;
}

export const numberOf = ({ deck }: SlideActsContext, id: string) => slideIndex(deck, id) + 1;

/** Returns a verb with the selected slides: "Moved slide 4", "Moved 3 slides"; details go with their main slide. */
export function withSelection(context: SlideActsContext, verb: string): string {
  const moved = roots(context.deck, context.selected);
  return moved.length === 1 ? `${verb} slide ${numberOf(context, must(moved[0]))}` : `${verb} ${moved.length} slides`;
}

/** Makes a slide the selected one and shows it once it is drawn. */
export function selectAndShow({ select, show }: SlideActsContext, id: string) {
  select([id]);
  requestAnimationFrame(() => show(id));
}

function deleteSelected(context: SlideActsContext) {
  const { deck, session, selected, select, show } = context;
  const at = slideIndex(deck, selected[0] ?? "");
  const chosen = new Set(selected);
  const words =
    selected.length === 1
      ? `Deleted slide ${numberOf(context, must(selected[0]))}`
      : `Deleted ${selected.length} slides`;
  const next =
    deck.slides.slice(at + 1).find(({ id }) => !chosen.has(id)) ??
    deck.slides.slice(0, at).findLast(({ id }) => !chosen.has(id));
  if (!session.apply(remove(selected), { words })) return;
  select(next ? [next.id] : []);
  if (next) requestAnimationFrame(() => show(next.id));
}

function duplicateSelected(context: SlideActsContext) {
  const { deck, version, session, selected, select } = context;
  const copy = duplicate(deck, selected, () => nanoid(10), version);
  if (!session.apply(copy, { words: withSelection(context, "Duplicated") })) return;
  const first = copy.kind === "batch" ? copy.changes[0] : copy;
  if (first?.kind === "insertSlide") select([first.slide.id]);
}

function addSlide(context: SlideActsContext) {
  const { deck, session, selected } = context;
  const id = nanoid(10);
  const current = selected.at(-1);
  const at = current ? slideIndex(deck, current) : -1;
  const parent = at >= 0 ? (deck.slides[at]?.parent ?? null) : null;
  const words = current ? `Added a slide after ${numberOf(context, current)}` : "Added a slide";
  if (session.apply(insertAt([newSlide(id, "points")], { parent, after: current ?? null }), { words }))
    selectAndShow(context, id);
}

/** Commands that add, copy or delete slides. */
export function slideActs(context: SlideActsContext) {
  return {
    newSlide: () => addSlide(context),
    duplicate: () => duplicateSelected(context),
    delete: () => deleteSelected(context),
  };
}
