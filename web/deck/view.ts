import type { Change, TextChange } from "@unitext/core/edit";
import type { Deck } from "@unitext/core/model";
import type { DeckState } from "@unitext/server/api";
import type { Other } from "./presence";
import { readAside, type SetAside } from "./outbox";

export type SaveStatus = "saved" | "saving" | "waiting" | "refused";

/** The last act, for the line that offers to undo it. */
export interface Notice {
  text: string;
  undo: boolean;
  serial: number;
}

export interface DeckView {
  deck: Deck;
  version: number;
  text: string | null;
  canEdit: boolean;
  right: DeckState["right"];
  /** Whether the deck, or its notes, are not shared with this person any more. */
  withheld: boolean;
  status: SaveStatus;
  notice: Notice | undefined;
  canUndo: boolean;
  canRedo: boolean;
  /** Who else has the deck open, and where they are. */
  others: readonly Other[];
  /** Whether the deck is in the bin. */
  binned: boolean;
  /** Changes that could not be saved and that the user has not dismissed. */
  aside: readonly SetAside[];
}

/** An act that can be undone or redone. */
export interface Step {
  /** The id of the act, by which the log identifies what was undone. */
  id: string;
  /** The id of the change that did it last, here or in an earlier session. */
  sent: string;
  change: Change;
  /** The texts that it wrote; taking it back leaves what others have written in them since. */
  made: readonly TextChange[];
  description: string;
  /** The text that the deck was made from before. */
  text: string | null;
}

/** What the page shows of a deck; components subscribe to it. */
export class ViewStore {
  private readonly listeners = new Set<() => void>();
  private serial = 0;
  protected view: DeckView;

  constructor(state: DeckState) {
    this.view = {
      deck: state.deck,
      version: state.version,
      text: state.text,
      canEdit: state.right === "edit" || state.right === "own",
      right: state.right,
      withheld: false,
      status: "saved",
      notice: undefined,
      canUndo: false,
      canRedo: false,
      others: [],
      binned: state.binned,
      aside: readAside(state.deck.id),
    };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly snapshot = (): DeckView => this.view;

  protected set(next: Partial<DeckView>): void {
    this.view = { ...this.view, ...next };
    for (const listener of this.listeners) listener();
  }

  /** Shows a line to the user; with `undo` it offers to undo the last act. */
  notify(text: string, undo = false): void {
    this.serial += 1;
    this.set({ notice: { text, undo, serial: this.serial } });
  }

  dismiss(): void {
    this.set({ notice: undefined });
  }
}
