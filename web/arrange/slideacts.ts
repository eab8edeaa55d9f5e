import { contentsSlideFor } from "@unitext/core/divide";
import {
  type Change,
  duplicate,
  hide,
  insertAt,
  makeDetail,
  makeSection,
  moveOut,
  remove,
  roots,
  step,
} from "@unitext/core/edit";
import { type Deck, must, newSlide, plainText, slideIndex } from "@unitext/core/model";
import { nanoid } from "nanoid";
import type { DeckSession } from "../deck/session";
import { nameSection } from "./SectionName";

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

const numberOf = ({ deck }: SlideActsContext, id: string) => slideIndex(deck, id) + 1;

/** Returns a verb with the selected slides: "Moved slide 4", "Moved 3 slides"; details go with their main slide. */
export function withSelection(context: SlideActsContext, verb: string): string {
  const moved = roots(context.deck, context.selected);
  return moved.length === 1 ? `${verb} slide ${numberOf(context, must(moved[0]))}` : `${verb} ${moved.length} slides`;
}

/** Applies a change of the order and keeps the current slide in view; undefined means that the slides are at the end. */
export function applyOrder(context: SlideActsContext, change: Change | undefined, words: string): void {
  const { session, selected, show } = context;
  if (!change) {
    session.notify("They are at the end already.");
    return;
  }
  session.apply(change, { words });
  const current = selected.at(-1);
  if (current) requestAnimationFrame(() => show(current));
}

function selectAndShow({ select, show }: SlideActsContext, id: string) {
  select([id]);
  requestAnimationFrame(() => show(id));
}

/** Commands that move the selected slides or change their level. */
export function orderActs(context: SlideActsContext) {
  const { deck, selected } = context;
  const change = (next: Change | undefined, words: string) => applyOrder(context, next, words);
  return {
    moveUp: () => change(step(deck, selected, -1), withSelection(context, "Moved")),
    moveDown: () => change(step(deck, selected, 1), withSelection(context, "Moved")),
    nest: () => change(makeDetail(deck, selected), `${withSelection(context, "Put")} under the slide before`),
    unnest: () => change(moveOut(deck, selected), `${withSelection(context, "Lifted")} to the line above`),
    hide: () => {
      const shown = selected.some((id) => !deck.slides.find((slide) => slide.id === id)?.hidden);
      change(hide(selected, shown), withSelection(context, shown ? "Hid" : "Showed"));
    },
  };
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
export function contentActs(context: SlideActsContext) {
  return {
    add: () => addSlide(context),
    duplicate: () => duplicateSelected(context),
    delete: () => deleteSelected(context),
  };
}

function addSection(context: SlideActsContext) {
  const { deck, session, selected } = context;
  const id = nanoid(10);
  const made = makeSection(deck, selected, id, {
    kind: "text",
    id: nanoid(10),
    slot: "title",
    text: plainText("New section"),
  });
  if (made && session.apply(made, { words: `Began a section before ${numberOf(context, selected[0] ?? "")}` }))
    selectAndShow(context, id);
}

function startSection(context: SlideActsContext) {
  const { deck, session, selected } = context;
  const main = deck.slides.find((slide) => slide.parent === null && selected.includes(slide.id));
  if (!main) session.notify("Select a slide of the main line: the section starts with it.");
  else if (main.section === undefined)
    session.apply(nameSection(main, "New section"), { words: `A section begins with ${numberOf(context, main.id)}` });
  requestAnimationFrame(() => document.querySelector<HTMLInputElement>(`[data-section="${main?.id}"] input`)?.select());
}

function addContents({ deck, session, selected, select }: SlideActsContext) {
  const made = contentsSlideFor(deck, selected, { title: "Topics", back: "Topics", newId: () => nanoid(10) });
  if (!made) session.notify("Select the slides for the contents.");
  else if (session.apply(made.change, { words: `Linked ${selected.length} slides from a menu and back` }))
    select([made.menu]);
}

/** Commands that structure the deck: section slides, section names, a contents slide. */
export function sectionActs(context: SlideActsContext) {
  return {
    section: () => addSection(context),
    nameSection: () => startSection(context),
    menu: () => addContents(context),
  };
}
