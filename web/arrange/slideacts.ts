import { contentsSlideFor } from "@unitext/core/divide";
import { type Change, hide, makeDetail, makeSection, moveOut, step } from "@unitext/core/edit";
import { plainText } from "@unitext/core/model";
import { nanoid } from "nanoid";
import { numberOf, type SlideActsContext, selectAndShow, withSelection } from "../deck/slideacts";
import { nameSection } from "./SectionName";

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
