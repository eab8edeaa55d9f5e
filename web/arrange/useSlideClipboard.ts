import { mergeInto } from "@unitext/core/divide";
import { copies, insertAt } from "@unitext/core/edit";
import { nanoid } from "nanoid";
import { useEffect, useRef } from "react";
import { useDeck } from "../deck/DeckContext";
import { typing } from "../keys";
import { type Clipped, clip, clippedDeck, SLIDES_TYPE, unclip } from "./clipboard";
import { landingWords } from "./rows";

const CLIPBOARD = "unitext:clipboard";

/** Slides copied in this tab or another, for the button; the browser's own clipboard has them as well. */
export const lastClipped = () => {
  try {
    return localStorage.getItem(CLIPBOARD) ?? "";
  } catch {
    return "";
  }
};

/** Copies and pastes slides with the browser's own clipboard, wherever no text is typed or selected. */
function useClipboardEvents(
  copy: () => { data: string; names: string },
  take: (clipped: Clipped | undefined) => void,
): void {
  const latest = useRef({ copy, take });
  latest.current = { copy, take };
  useEffect(() => {
    const idle = (event: ClipboardEvent) =>
      !typing(event.target) && !document.querySelector("dialog[open]") && event.clipboardData;
    const onCopy = (event: ClipboardEvent) => {
      const to = idle(event);
      if (!to || window.getSelection()?.toString()) return;
      const { data, names } = latest.current.copy();
      to.setData(SLIDES_TYPE, data);
      to.setData("text/plain", names);
      event.preventDefault();
    };
    const onPaste = (event: ClipboardEvent) => {
      const from = idle(event);
      if (!from) return;
      const data = from.getData(SLIDES_TYPE);
      if (!data) return;
      event.preventDefault();
      latest.current.take(unclip(data));
    };
    document.addEventListener("copy", onCopy);
    document.addEventListener("paste", onPaste);
    return () => {
      document.removeEventListener("copy", onCopy);
      document.removeEventListener("paste", onPaste);
    };
  }, []);
}

/**
 * Copies the selected slides and pastes slides after the current one, by the browser's own clipboard and by buttons;
 * `ask` asks which theme slides of another deck get.
 */
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
  const paste = (clipped: Clipped, as: "match" | "keep") => {
    const { place, words: where } = after();
    const count = clipped.slides.length === 1 ? "a slide" : `${clipped.slides.length} slides`;
    try {
      if (clipped.deck === deck.id) {
        const made = copies(clipped.slides, () => nanoid(10), { deck: deck.id, version: clipped.version });
        if (session.apply(insertAt(made, place), { words: `Pasted ${count} ${where}` }))
          select(made.map(({ id }) => id));
      } else {
        const { change: made, slides } = mergeInto(
          deck,
          place,
          [{ deck: clippedDeck(clipped, deck), version: clipped.version }],
          { appearance: as },
          () => nanoid(10),
        );
        if (session.apply(made, { words: `Pasted ${count} from “${clipped.title}” ${where}` }))
          select(slides.map(({ id }) => id));
      }
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
  useClipboardEvents(copy, take);
  return { after, paste, take, copy };
}
