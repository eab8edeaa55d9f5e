import { type Change, singles, type TextChange, textChanges } from "@unitext/core/edit";
import type { Deck } from "@unitext/core/model";
import { Steps } from "@unitext/server/api";
import { get } from "../api/client";
import type { Step } from "./view";

/** Whether a change was made from a document: undoing it needs the document's text, which the log does not have. */
function madeFromText({ manuscript }: Deck, change: Change): boolean {
  return singles(change).some(
    (one) =>
      one.kind === "setSource" ||
      one.kind === "setManuscript" ||
      (one.kind === "insertSlide" && one.slide.source !== undefined) ||
      (one.kind === "deleteSlide" && manuscript !== undefined),
  );
}

const loaded = ({ made, ...step }: Steps["undo"][number]): Step => ({
  ...step,
  made: made.filter((one): one is TextChange => one.kind === "setText" || one.kind === "setNotes"),
  sent: step.id,
  text: null,
});

/** The steps that can be undone and redone, the newest last. */
export class StepHistory {
  private undos: Step[] = [];
  private redos: Step[] = [];
  /** Whether earlier sessions left more steps than are loaded. */
  private more = false;

  get canUndo(): boolean {
    return this.undos.length > 0;
  }
  get canRedo(): boolean {
    return this.redos.length > 0;
  }
  /** Whether few loaded steps are left to undo and earlier sessions have more. */
  get needsMore(): boolean {
    return this.more && this.undos.length < 5;
  }

  /** Adds a step of the user, after which nothing can be redone. */
  add(step: Step): void {
    this.undos.push(step);
    this.redos = [];
  }
  /** Removes and returns the newest step to undo; undefined when there is none. */
  takeUndo(): Step | undefined {
    return this.undos.pop();
  }
  takeRedo(): Step | undefined {
    return this.redos.pop();
  }
  addUndo(step: Step): void {
    this.undos.push(step);
  }
  addRedo(step: Step): void {
    this.redos.push(step);
  }

  /**
   * Replaces inverses that others' changes altered, and the texts that the steps wrote; the keys are the ids of sent
   * changes.
   */
  update(inverses: ReadonlyMap<string, Change>, made: ReadonlyMap<string, Change>): void {
    for (const step of [...this.undos, ...this.redos]) {
      step.change = inverses.get(step.sent) ?? step.change;
      const next = made.get(step.sent);
      if (next) step.made = textChanges(next);
    }
  }
  /** Removes the steps of changes that could not be saved. */
  forget(sent: readonly string[]): void {
    this.undos = this.undos.filter((step) => !sent.includes(step.sent));
  }

  /** Loads the newest steps again, after the server has changed the deck for the user. Throws Refused or Unreachable. */
  async reload(deck: Deck): Promise<void> {
    this.undos = [];
    this.redos = [];
    await this.load(deck);
  }

  /** Loads more steps of earlier sessions. Throws Refused or Unreachable. */
  async load(deck: Deck): Promise<void> {
    const known = this.undos.length;
    const { undo, redo, more } = await get(`/decks/${deck.id}/steps?skip=${known}`, Steps);
    const made = ({ change }: { change: Change }) => madeFromText(deck, change);
    const end = deck.manuscript ? undo.findIndex(made) : -1;
    const steps = (end < 0 ? undo : undo.slice(0, end)).map(loaded);
    this.more = more && end < 0;
    const here = new Set([...this.undos, ...this.redos].map(({ id }) => id));
    this.undos.unshift(...steps.filter(({ id }) => !here.has(id)).reverse());
    if (known === 0 && !this.redos.length && !(deck.manuscript && redo.some(made)))
      this.redos = redo.map(loaded).reverse();
  }
}
