import type { DeckRow } from "@unitext/server/api";
import { useState } from "react";
import { remove } from "../api/client";

/** How long a deleted deck can be restored, in milliseconds. */
const RESTORABLE = 10000;

/** A deleted deck is only hidden for a while, so that it can be restored. */
interface Gone {
  row: DeckRow;
  timer: ReturnType<typeof setTimeout>;
}

/** Deletes a deck after a while in which `restore` brings it back; the deck that waits is `gone`. */
export function useDeletedDeck(onDeleted: () => void, onProblem: (text: string) => void) {
  const [gone, setGone] = useState<Gone>();

  function setAside(row: DeckRow) {
    if (gone) {
      clearTimeout(gone.timer);
      void remove(`/decks/${gone.row.id}`);
    }
    const timer = setTimeout(() => {
      remove(`/decks/${row.id}`).then(
        () => {
          setGone((current) => (current?.row.id === row.id ? undefined : current));
          onDeleted();
        },
        (reason: Error) => onProblem(reason.message),
      );
    }, RESTORABLE);
    setGone({ row, timer });
  }

  function restore() {
    clearTimeout(gone?.timer);
    setGone(undefined);
  }

  return { gone: gone?.row, setAside, restore };
}
