import type { Press } from "@unitext/server/api";
import type { Deck } from "@unitext/core/model";
import type { useWalk } from "./useWalk";

/** Does what was pressed in the hall or on a phone. */
export function pressed(
  press: Press,
  {
    deck,
    walk,
    setDark,
  }: {
    deck: Deck;
    walk: Pick<ReturnType<typeof useWalk>, "go" | "forward" | "back" | "first" | "last">;
    setDark: (change: (dark: boolean) => boolean) => void;
  },
): void {
  if (typeof press === "object") walk.go(deck.slides[press.goTo - 1]?.id);
  else if (press === "dark") setDark((dark) => !dark);
  else walk[press]();
}
