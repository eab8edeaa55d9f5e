import { nameOf, type Slide } from "@unitext/core/model";
import { memo } from "react";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";
import type { Column } from "./parts";

/** The height of a row and the width of a part's column, in pixels. */
export const ROW = 76;
export const CELL = 152;

interface RowProps {
  slide: Slide;
  number: number;
  columns: readonly Column[];
  every: "opening" | "closing" | undefined;
  top: number;
  onMark: (column: number, number: number) => void;
  onOver: (column: number, number: number) => void;
}

/** A slide as a row of the split table, with a mark for each part that it is in. */
export const SplitRow = memo(function SplitRow({ slide, number, columns, every, top, onMark, onOver }: RowProps) {
  const { deck, metadata } = useDeck();
  const placed = every !== undefined || columns.some(({ numbers }) => numbers.includes(number));
  return (
    <div
      role="row"
      data-row={number}
      className={`hairline absolute inset-x-0 flex items-center border-t ${placed ? "" : "bg-warning/15"}`}
      style={{ height: ROW, transform: `translateY(${top}px)` }}
    >
      <div
        role="rowheader"
        className={`bg-base-100 sticky left-0 z-10 flex h-full w-80 shrink-0 items-center gap-2 border-l-4 pl-2 ${placed ? "border-transparent" : "border-warning"}`}
      >
        <span className="w-8 shrink-0 text-right text-sm tabular-nums">{number}</span>
        <SmallSlide
          slide={slide}
          number={number}
          metadata={metadata}
          deck={deck.id}
          width={96}
          className={slide.parent === null ? "" : "ml-3"}
        />
        <span className="min-w-0 text-sm leading-tight">
          <span className={`line-clamp-2 ${slide.arrangement === "section" ? "font-semibold" : ""}`}>
            {nameOf(slide) || "(empty)"}
          </span>
          <span className="quiet text-xs">{every ?? (placed ? "" : "in no part")}</span>
        </span>
      </div>
      {columns.map(({ key, name, numbers }, at) => {
        const on = every !== undefined || numbers.includes(number);
        return (
          <div key={key} role="gridcell" className="hairline h-full shrink-0 border-l p-1" style={{ width: CELL }}>
            <button
              type="button"
              role="checkbox"
              aria-checked={on}
              aria-disabled={every !== undefined}
              aria-label={`Slide ${number} in ${name || `part ${at + 1}`}`}
              data-cell={`${at}/${number}`}
              className={`flex h-full w-full items-center justify-center text-sm ${every ? "text-base-content/60" : on ? "bg-primary text-primary-content" : "hover:bg-base-200"}`}
              onPointerDown={(event) => {
                event.currentTarget.releasePointerCapture(event.pointerId);
                if (!every) onMark(at, number);
              }}
              onPointerEnter={(event) => event.buttons === 1 && onOver(at, number)}
              onKeyDown={(event) => {
                if (event.key === " " || event.key === "Enter") {
                  event.preventDefault();
                  if (!every) onMark(at, number);
                }
              }}
            >
              {every ? every : on ? number : ""}
            </button>
          </div>
        );
      })}
    </div>
  );
});
