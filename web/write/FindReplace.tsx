import { replaceWords, searchPattern } from "@unitext/core/edit";
import { type RefObject, useEffect, useMemo, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import type { TextEditorHandle } from "./TextEditor";

/** Finds words in the text, on the slides and in the notes, and replaces them everywhere at once. */
export function FindReplace({
  editor,
  text,
  readOnly,
  onGoTo,
  onClose,
}: {
  editor: RefObject<TextEditorHandle | null>;
  text: string;
  readOnly: boolean;
  onGoTo: (slide: string) => void;
  onClose: () => void;
}) {
  const { deck, session } = useDeck();
  const own = deck.manuscript !== undefined;
  const [words, setWords] = useState("");
  const [other, setOther] = useState("");
  const [matchCase, setMatchCase] = useState(false);
  const [inText, setInText] = useState(true);
  const [slides, setSlides] = useState(true);
  const [notes, setNotes] = useState(true);
  const [place, setPlace] = useState(0);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), []);
  const pattern = useMemo(() => searchPattern({ words, matchCase }), [words, matchCase]);
  const lines = useMemo(
    () => (inText && pattern ? text.split("\n").flatMap((line, nth) => (line.match(pattern) ? [nth + 1] : [])) : []),
    [text, pattern, inText],
  );
  const textCount = useMemo(
    () => (inText && pattern ? (text.match(pattern)?.length ?? 0) : 0),
    [text, pattern, inText],
  );
  const found = useMemo(
    () => replaceWords(deck, { words, matchCase, slides, notes }, undefined),
    [deck, words, matchCase, slides, notes],
  );
  const stops: (() => void)[] = [
    ...lines.map((line) => () => editor.current?.goTo(line)),
    ...found.slides.map((id) => () => onGoTo(id)),
  ];
  const go = (by: number) => {
    if (!stops.length) return;
    const next = (place + by + stops.length) % stops.length;
    setPlace(next);
    stops[next]?.();
    field.current?.focus();
  };
  function replaceAll() {
    if (!pattern) return;
    let count = found.count;
    // A typed deck says what its text says: its slides are changed, and the text follows them.
    if (own && inText && textCount) {
      editor.current?.edit(text.replace(pattern, () => other));
      count += textCount;
    }
    const { change } = replaceWords(session.snapshot().deck, { words, matchCase, slides, notes }, other);
    if (change) session.apply(change, { words: `Replaced “${words}” ${count} times` });
    else if (count) session.notify(`Replaced “${words}” ${count} times in the text`);
  }
  return (
    <section
      aria-label="Find and replace"
      className="hairline bg-base-200 flex flex-wrap items-center gap-2 border-b px-4 py-2 text-sm"
      onKeyDown={(event) => {
        if (event.key === "Escape") onClose();
        if (event.key === "Enter" && event.target === field.current) {
          event.preventDefault();
          go(event.shiftKey ? -1 : 1);
        }
      }}
    >
      <input
        ref={field}
        className="input input-sm w-48"
        placeholder="Find"
        aria-label="Find"
        value={words}
        onChange={(event) => {
          setWords(event.target.value);
          setPlace(-1);
        }}
      />
      <input
        className="input input-sm w-48"
        placeholder="Replace with"
        aria-label="Replace with"
        value={other}
        disabled={readOnly}
        onChange={(event) => setOther(event.target.value)}
      />
      <fieldset className="flex items-center gap-3">
        <legend className="sr-only">Where</legend>
        {own && <Check label="text" on={inText} onChange={setInText} />}
        <Check label="slides" on={slides} onChange={setSlides} />
        <Check label="notes" on={notes} onChange={setNotes} />
        <Check label="same capitals" on={matchCase} onChange={setMatchCase} />
      </fieldset>
      <p role="status" className="quiet">
        {words
          ? `${own && inText ? `${textCount} in the text, ` : ""}${found.count} on ${found.slides.length} ${found.slides.length === 1 ? "slide" : "slides"}`
          : ""}
      </p>
      <button type="button" className="btn btn-sm" disabled={!stops.length} onClick={() => go(-1)}>
        Before
      </button>
      <button type="button" className="btn btn-sm" disabled={!stops.length} onClick={() => go(1)}>
        Next
      </button>
      <button
        type="button"
        className="btn btn-primary btn-sm"
        disabled={readOnly || !(found.count || textCount)}
        onClick={replaceAll}
      >
        Replace all
      </button>
      <button type="button" className="btn btn-ghost btn-sm" onClick={onClose}>
        Close
      </button>
    </section>
  );
}

function Check({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="flex items-center gap-1">
      <input
        type="checkbox"
        className="checkbox checkbox-xs"
        checked={on}
        onChange={({ target }) => onChange(target.checked)}
      />
      {label}
    </label>
  );
}
