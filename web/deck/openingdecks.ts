import { DeckState } from "@unitext/server/api";
import { get } from "../api/client";

/** Requests for decks that are about to be opened, by deck id. */
const opening = new Map<string, Promise<DeckState>>();
/** How long an unused request is kept, in milliseconds. */
const KEPT = 5000;

const load = (id: string) => get(`/decks/${id}`, DeckState);

/** Requests a deck before the page that shows it is rendered. */
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
