import { notesToText, textToNotes } from "@unitext/core/edit";
import { hasNotes, nameOf, secondsOf, type Slide, textOf, must } from "@unitext/core/model";
import { useVirtualizer } from "@tanstack/react-virtual";
import { nanoid } from "nanoid";
import { memo, useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { useDeck } from "../deck/DeckContext";
import { clock } from "../ui/time";
// Loaded with the page: what is typed right after a press must not be lost.
import RichTextEditor from "../richtext/LoadedEditor";
import { DeckFrame } from "../shell/DeckFrame";
import { NotesView } from "../richtext/NotesView";
import { SmallSlide } from "../deck/SmallSlide";
import { ArrangeViews } from "../shell/ArrangeViews";

const Row = memo(function Row({
  slide,
  number,
  pictures,
  editing,
  onEdit,
}: {
  slide: Slide;
  number: number;
  pictures: boolean;
  editing: boolean;
  onEdit: (id: string | undefined) => void;
}) {
  const { deck, metadata, session, canEdit } = useDeck();
  const toNotes = textToNotes(slide);
  return (
    <div className={`flex gap-5 max-md:flex-col max-md:gap-2 ${slide.parent === null ? "" : "pl-8"}`}>
      <div className="w-56 shrink-0">
        {pictures && (
          <SmallSlide
            slide={slide}
            number={number}
            metadata={metadata}
            deck={deck.id}
            width={224}
            label={`Slide ${number}`}
          />
        )}
        <p className="flex gap-2 pt-1 text-sm">
          <strong>{number}</strong>
          <span className="min-w-0 flex-1 truncate">{nameOf(slide) || "(empty)"}</span>
          <span className="quiet tabular-nums">{slide.hidden ? "hidden" : clock(secondsOf(slide, deck.rate))}</span>
        </p>
      </div>
      <div className="min-w-0 max-w-3xl flex-1">
        {editing ? (
          <RichTextEditor
            text={slide.notes}
            label={`Notes of slide ${number}`}
            placeholder="What to say here"
            language={deck.language}
            autoFocus
            className="notes hairline border px-3 py-2 font-serif"
            onChange={(notes) =>
              session.apply(
                { kind: "setNotes", slide: slide.id, notes },
                { words: `Changed the notes of slide ${number}` },
              )
            }
            onLeave={() => onEdit(undefined)}
          />
        ) : (
          <div className="font-serif leading-relaxed" data-notes={slide.id}>
            <NotesView notes={slide.notes} />
          </div>
        )}
        <p className="flex flex-wrap gap-1">
          <button
            type="button"
            className="btn btn-ghost btn-xs"
            disabled={!canEdit}
            aria-label={editing ? `Done with the notes of slide ${number}` : `Edit the notes of slide ${number}`}
            onClick={() => onEdit(editing ? undefined : slide.id)}
          >
            {editing ? "Done" : "Edit"}
          </button>
          <button
            type="button"
            className="btn btn-ghost btn-xs"
            disabled={!canEdit || !toNotes}
            aria-label={`Text to notes, slide ${number}`}
            onClick={() =>
              toNotes && session.apply(toNotes, { words: `Moved the text of slide ${number} to its notes` })
            }
          >
            Text to notes
          </button>
          <button
            type="button"
            className="btn btn-ghost btn-xs"
            disabled={!canEdit || !hasNotes(slide)}
            aria-label={`Notes to slide, slide ${number}`}
            onClick={() => {
              const change = notesToText(slide, () => nanoid(10));
              if (change) session.apply(change, { words: `Moved the notes of slide ${number} onto it` });
            }}
          >
            Notes to slide
          </button>
        </p>
      </div>
    </div>
  );
});

/** All notes of the deck on one page: to read through, edit and search, with the time that each slide takes. */
export default function NotesPage() {
  const { deck } = useDeck();
  const [search, setSearch] = useSearchParams();
  const [pictures, setPictures] = useState(true);
  const [only, setOnly] = useState<"all" | "with" | "without">("all");
  const [editing, setEditing] = useState<string>();
  const wanted = search.get("find") ?? "";
  const words = useDeferredValue(wanted.trim().toLowerCase());
  const scroller = useRef<HTMLDivElement>(null);
  const shown = useMemo(
    () =>
      deck.slides.flatMap((slide, nth) =>
        (only === "all" || (only === "with") === hasNotes(slide)) &&
        (!words || textOf(slide.notes).toLowerCase().includes(words) || nameOf(slide).toLowerCase().includes(words))
          ? [{ slide, number: nth + 1 }]
          : [],
      ),
    [deck, only, words],
  );
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => (pictures ? 190 : 110),
    overscan: 4,
    getItemKey: (at) => shown[at]?.slide.id ?? at,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: measures again when rows change their height; the virtualiser itself is new at every render.
  useEffect(() => rows.measure(), [pictures]);
  const seconds = deck.slides.reduce((sum, slide) => sum + secondsOf(slide, deck.rate), 0);
  const without = deck.slides.filter((slide) => !slide.hidden && !hasNotes(slide)).length;
  return (
    <DeckFrame place="Notes" tools={<ArrangeViews />}>
      <div className="flex h-full flex-col">
        <div className="hairline bg-base-200 flex flex-wrap items-center gap-4 border-b px-4 py-2 text-sm">
          <label className="input input-xs w-64">
            <span className="sr-only">Find in notes and titles</span>
            <input
              type="search"
              placeholder="Find in notes and titles"
              value={wanted}
              onChange={(event) => setSearch(event.target.value ? { find: event.target.value } : {}, { replace: true })}
            />
          </label>
          <div role="group" aria-label="Which slides" className="flex gap-1">
            {(["all", "with", "without"] as const).map((value) => (
              <button
                key={value}
                type="button"
                aria-pressed={only === value}
                className={`btn btn-xs ${only === value ? "btn-primary" : ""}`}
                onClick={() => setOnly(value)}
              >
                {value === "all" ? "All slides" : value === "with" ? "With notes" : "Without notes"}
              </button>
            ))}
          </div>
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={pictures}
              onChange={(event) => setPictures(event.target.checked)}
            />
            with the slides
          </label>
          <p className="ml-auto">
            <strong>{clock(seconds)}</strong> to say at {deck.rate} words a minute;{" "}
            {without === 0 ? "every slide has notes" : `${without} without notes`}
          </p>
        </div>
        <div
          ref={scroller}
          className="min-h-0 flex-1 overflow-auto px-6 py-4"
          tabIndex={0}
          role="region"
          aria-label="Notes of all slides"
          data-notes-page
        >
          {shown.length === 0 && (
            <p className="quiet py-12 text-center">{words ? `No notes say “${wanted}”.` : "No slide is like that."}</p>
          )}
          <div style={{ height: rows.getTotalSize(), position: "relative" }}>
            {rows.getVirtualItems().map(({ index, start, key }) => {
              const { slide, number } = must(shown[index]);
              return (
                <div
                  key={key}
                  ref={rows.measureElement}
                  data-index={index}
                  className="hairline absolute inset-x-0 border-b py-3"
                  style={{ transform: `translateY(${start}px)` }}
                >
                  <Row
                    slide={slide}
                    number={number}
                    pictures={pictures}
                    editing={editing === slide.id}
                    onEdit={setEditing}
                  />
                </div>
              );
            })}
          </div>
        </div>
      </div>
    </DeckFrame>
  );
}
