import { DeckState } from "@unitext/server/api";
import { get } from "../api/client";

/** Decks that are about to be opened, with their states on the way. */
const opening = new Map<string, Promise<DeckState>>();
/** How long a state that nobody takes is kept, in milliseconds. */
const KEPT = 5000;

const load = (id: string) => get(`/decks/${id}`, DeckState);

/** Asks for a deck that the next page shows, while that page is being made. */
export function loadAhead(id: string): void {
  const state = load(id);
  // An error reaches whoever asks for the state.
  state.catch(() => undefined);
  opening.set(id, state);
  setTimeout(() => opening.delete(id), KEPT);
}

/** Returns the state of a deck that is being opened. Throws Refused or Unreachable. */
export function openingState(id: string): Promise<DeckState> {
  const state = opening.get(id) ?? load(id);
  opening.delete(id);
  return state;
}
