import { useVirtualizer } from "@tanstack/react-virtual";
import { nameOf, type Slide } from "@unitext/core/model";
import { useEffect, useRef } from "react";
import { useDeck } from "./DeckContext";
import { SmallSlide } from "./SmallSlide";

/** The usual width of a slide of the strip, and the space below it, in CSS pixels. */
const [WIDTH, GAP] = [120, 22];

/** The slides of the deck in a column, to go from one to another; only those in view are drawn. */
export function SlideStrip({
  current,
  width = WIDTH,
  onOpen,
}: {
  current: string | undefined;
  /** The width of a slide, in CSS pixels. */
  width?: number;
  onOpen: (id: string) => void;
}) {
  const { deck, metadata } = useDeck();
  const scroller = useRef<HTMLDivElement>(null);
  const height = Math.round((width * deck.page.height) / deck.page.width) + GAP;
  const virtual = useVirtualizer({
    count: deck.slides.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    overscan: 2,
  });
  const at = deck.slides.findIndex(({ id }) => id === current);
  // biome-ignore lint/correctness/useExhaustiveDependencies: scrolls when the slide changes; the virtualiser is new at every render.
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: "auto" });
  }, [at]);
  return (
    <nav
      ref={scroller}
      aria-label="Slides"
      className="hairline bg-base-200 shrink-0 overflow-y-auto border-r px-2 py-2"
      style={{ width: width + 32 }}
      data-strip
    >
      <ol className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const slide = deck.slides[index] as Slide;
          const on = index === at;
          return (
            <li key={slide.id} className="absolute" style={{ top: start }}>
              <button
                type="button"
                aria-current={on ? "true" : undefined}
                className={`block cursor-pointer text-left ${slide.parent === null ? "" : "pl-2"}`}
                onClick={() => onOpen(slide.id)}
              >
                <span aria-hidden="true" className="block">
                  <SmallSlide
                    slide={slide}
                    number={index + 1}
                    metadata={metadata}
                    deck={deck.id}
                    width={slide.parent === null ? width : width - 8}
                    className={on ? "outline-2 outline-secondary" : ""}
                  />
                </span>
                <span className="quiet block text-xs leading-5">
                  {index + 1}
                  <span className="sr-only">. {nameOf(slide) || "(empty)"}</span>
                </span>
              </button>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}
