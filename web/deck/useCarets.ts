import { useMemo } from "react";
import { useDeck } from "./DeckContext";
import { colourOf } from "./presence";

/** The carets of others in a text of a slide, and the function that tells them where one's own is. */
export function useCarets(slide: string, element: string | undefined) {
  const { others, session } = useDeck();
  const carets = useMemo(
    () =>
      others.flatMap(({ page, user, name, slide: theirs, element: where, at }) =>
        theirs === slide && where === element && at !== null ? [{ page, name, at, colour: colourOf(user) }] : [],
      ),
    [others, slide, element],
  );
  const onCaret = useMemo(
    () => (at: number | null) => session.move({ element: at === null ? null : (element ?? null), at }),
    [session, element],
  );
  return { carets, onCaret };
}
