import { mergeInto } from "@unitext/core/divide";
import { copies, insertAt } from "@unitext/core/edit";
import type { Slide } from "@unitext/core/model";
import { nanoid } from "nanoid";
import { useEffect, useRef } from "react";
import { useDeck } from "../deck/DeckContext";
import { landingWords } from "../deck/landing";
import { typing } from "../keys";
import { type Clipped, clip, clippedDeck, SLIDES_TYPE, unclip } from "./slideclipboard";

const CLIPBOARD = "unitext:clipboard";

/** Slides copied in this tab or another, for the button; the browser's own clipboard has them as well. */
export const lastClipped = () => {
  try {
    return unclip(localStorage.getItem(CLIPBOARD) ?? "");
  } catch {
    return undefined;
  }
};

/** Copies slides with the browser's own clipboard, wherever no text is typed or selected. */
function useCopyEvent(copy: () => { data: string; names: string } | undefined): void {
  const latest = useRef(copy);
  latest.current = copy;
  useEffect(() => {
    const onCopy = (event: ClipboardEvent) => {
      if (typing(event.target) || document.querySelector("dialog[open]") || window.getSelection()?.toString()) return;
      const found = event.clipboardData && latest.current();
      if (!found || !event.clipboardData) return;
      event.clipboardData.setData(SLIDES_TYPE, found.data);
      event.clipboardData.setData("text/plain", found.names);
      event.preventDefault();
    };
    document.addEventListener("copy", onCopy);
    return () => document.removeEventListener("copy", onCopy);
  }, []);
}

/** Inserts slides after the current one: those of the clipboard, and new ones. `ask` asks which look slides of another deck get. */
export function useSlideClipboard(ask: (clipped: Clipped) => void) {
  const { deck, version, session, selected, select } = useDeck();
  const current = selected.at(-1);
  /** The place after the current slide, and its description. */
  const after = () => {
    const slide = deck.slides.find(({ id }) => id === current);
    return {
      place: { parent: slide?.parent ?? null, after: slide?.id ?? null },
      words: slide ? landingWords({ target: slide.id, side: "after" }, deck.slides) : "at the start",
    };
  };
  const put = (slides: readonly Slide[], words: string) => {
    const { place, words: where } = after();
    if (session.apply(insertAt(slides, place), { words: `${words} ${where}` })) select(slides.map(({ id }) => id));
  };
  const paste = (clipped: Clipped, as: "match" | "keep") => {
    const count = clipped.slides.length === 1 ? "a slide" : `${clipped.slides.length} slides`;
    try {
      if (clipped.deck === deck.id) {
        put(
          copies(clipped.slides, () => nanoid(10), { deck: deck.id, version: clipped.version }),
          `Pasted ${count}`,
        );
        return;
      }
      const { place, words: where } = after();
      const { change: made, slides } = mergeInto(
        deck,
        place,
        [{ deck: clippedDeck(clipped, deck), version: clipped.version }],
        { appearance: as },
        () => nanoid(10),
      );
      if (session.apply(made, { words: `Pasted ${count} from “${clipped.title}” ${where}` }))
        select(slides.map(({ id }) => id));
    } catch (error) {
      session.notify((error as Error).message);
    }
  };
  const take = (clipped: Clipped | undefined) => {
    if (!clipped) session.notify("There are no slides on the clipboard. Copy some here or in another deck first.");
    else if (clipped.deck === deck.id || JSON.stringify(clipped.theme) === JSON.stringify(deck.theme))
      paste(clipped, "match");
    else ask(clipped);
  };
  const copy = () => {
    const { data, words: names } = clip(deck, version, selected);
    try {
      localStorage.setItem(CLIPBOARD, data);
    } catch {
      // Too much for the browser's storage: the clipboard has it all the same.
    }
    session.notify(
      selected.length === 1
        ? `Copied slide ${deck.slides.findIndex(({ id }) => id === selected[0]) + 1}`
        : `Copied ${selected.length} slides`,
    );
    return { data, names };
  };
  useCopyEvent(() => (selected.length ? copy() : undefined));
  return { after, put, paste, take, copy };
}
