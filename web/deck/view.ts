import type { Change } from "@unitext/core/edit";
import type { Deck } from "@unitext/core/model";
import type { SetAside } from "./outbox";

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
  status: SaveStatus;
  notice: Notice | undefined;
  canUndo: boolean;
  canRedo: boolean;
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
  description: string;
  /** The text that the deck was made from before. */
  text: string | null;
}
