import { useVirtualizer } from "@tanstack/react-virtual";
import { nameOf, slideTexts, textOf } from "@unitext/core/model";
import { useMemo, useRef, useState } from "react";
import { Dialog } from "../ui/Dialog";
import { useDeck } from "./DeckContext";
import { SmallSlide } from "./SmallSlide";

/** Slides in a row, and the width of each with the space around it, in CSS pixels. */
const COLUMNS = 3;
const WIDTH = 232;
const ROOM = 34;

/** A dialog that offers the slides of the deck, drawn, to choose one; typing keeps those with the words. */
export function SlidePicker({
  title,
  onChoose,
  onClose,
}: {
  title: string;
  onChoose: (slide: string) => void;
  onClose: () => void;
}) {
  const { deck, metadata } = useDeck();
  const [words, setWords] = useState("");
  const scroller = useRef<HTMLDivElement>(null);
  const found = useMemo(() => {
    const wanted = words.trim().toLowerCase();
    return deck.slides
      .map((slide, nth) => ({ slide, number: nth + 1 }))
      .filter(
        ({ slide, number }) =>
          !wanted || String(number) === wanted || textOf(slideTexts(slide).flat()).toLowerCase().includes(wanted),
      );
  }, [deck.slides, words]);
  const height = Math.round((WIDTH * deck.page.height) / deck.page.width) + ROOM;
  const virtual = useVirtualizer({
    count: Math.ceil(found.length / COLUMNS),
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    overscan: 1,
  });
  return (
    <Dialog
      title={title}
      width="wider"
      tall
      onClose={onClose}
      actions={(close) => (
        <button type="button" className="btn btn-ghost" onClick={close}>
          Cancel
        </button>
      )}
    >
      <input
        type="search"
        className="input input-sm mb-2 w-full"
        placeholder="Number or words of the slide"
        aria-label="Number or words of the slide"
        value={words}
        onChange={({ target }) => setWords(target.value)}
      />
      <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto">
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(({ index, start }) => (
            <div key={index} className="absolute flex gap-3" style={{ top: start }}>
              {found.slice(index * COLUMNS, (index + 1) * COLUMNS).map(({ slide, number }) => (
                <button
                  key={slide.id}
                  type="button"
                  className="cursor-pointer p-0.5 text-left text-sm hover:outline-2 hover:outline-secondary"
                  onClick={() => {
                    onChoose(slide.id);
                    onClose();
                  }}
                >
                  <span aria-hidden="true" className="block">
                    <SmallSlide slide={slide} number={number} metadata={metadata} deck={deck.id} width={WIDTH} />
                  </span>
                  <span className="block w-56 truncate">
                    {number}. {nameOf(slide) || "(empty)"}
                  </span>
                </button>
              ))}
            </div>
          ))}
        </div>
      </div>
      {found.length === 0 && <p className="quiet">No slide has these words.</p>}
    </Dialog>
  );
}
