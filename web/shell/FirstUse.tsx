import { X } from "lucide-react";
import { useState } from "react";

const LINES: Record<string, string> = {
  Desk: "Drop documents, decks, workbooks or a whole folder anywhere on this page, or paste an outline.",
  Write: "Type or paste on the left. A line that begins with # or ## starts a slide; drop a document to take its text.",
  Arrange: "Drag a slide to move it; drag it onto the right edge of another to make it a detail.",
  Refine: "Double-click words to change them. Pictures, tables and text that you paste or drop land on the slide.",
  Data: "Drop a workbook here, choose cells in it, and put them on a slide.",
  Translate: "Choose a language: the deck is copied, and its sentences stand side by side.",
  Speak: "Arrow keys, PageUp, PageDown and clickers turn the slides. ? lists all keys.",
  Deliver: "Each format says what it keeps before you write it.",
};
const storeName = (place: string) => `unitext:first-use/${place}`;

/** A line for those who see a place for the first time. It is gone for good once it is closed. */
export function FirstUse({ place }: { place: string }) {
  const [closed, setClosed] = useState(() => localStorage.getItem(storeName(place)) !== null);
  const text = LINES[place];
  if (closed || !text) return null;
  return (
    <p className="quiet flex min-w-0 items-center gap-1 text-sm" data-first-use>
      <span className="truncate" title={text}>
        {text}
      </span>
      <button
        type="button"
        className="btn btn-ghost btn-xs btn-square"
        aria-label="Dismiss this hint"
        title="Dismiss this hint"
        onClick={() => {
          localStorage.setItem(storeName(place), "closed");
          setClosed(true);
        }}
      >
        <X size={14} aria-hidden="true" />
      </button>
    </p>
  );
}
