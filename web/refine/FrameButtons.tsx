import { slotPlaces } from "@unitext/core/layout";
import { type Element, type Frame, isEmptyText, type Slide } from "@unitext/core/model";
import { ImagePlus } from "lucide-react";
import { type CSSProperties, memo, type RefObject, useLayoutEffect, useRef } from "react";
import { useDeck } from "../deck/DeckContext";
import type { RotatedFrame } from "./frames";
import { nameOfElement, slotName } from "./names";

/** The smallest side of a click target, in CSS pixels (WCAG 2.2, 2.5.8). */
const TARGET = 24;

/** Returns the CSS place of a frame on the stage. */
export function placeOnStage({ x, y, width, height, rotation }: RotatedFrame, scale: number): CSSProperties {
  return {
    left: x * scale,
    top: y * scale,
    width: width * scale,
    height: height * scale,
    ...(rotation ? { transform: `rotate(${rotation}deg)` } : {}),
  };
}

/** Returns the frame of an element's button: all of the element, and more where that is small. */
function clickTarget(width: number, height: number): CSSProperties {
  const [x, y] = [Math.max(0, (TARGET - width) / 2), Math.max(0, (TARGET - height) / 2)];
  return { left: -x, right: -x, top: -y, bottom: -y };
}

interface ButtonsProps {
  slide: Slide;
  frames: ReadonlyMap<string, RotatedFrame>;
  scale: number;
  chosen: readonly string[];
  /** Selects an element; `more` adds it to the selection, or takes it out. */
  onPick: (id: string, more: boolean) => void;
  onOpen: (element: Element) => void;
}

/** A button over each element of the slide, to select and open it by pointer and keyboard. */
export function FrameButtons({ slide, frames, scale, chosen, onPick, onOpen }: ButtonsProps) {
  const { canEdit } = useDeck();
  // The buttons get the same object at each drawing, so that only those of moved elements are drawn again.
  const acts = useRef({ onPick, onOpen });
  useLayoutEffect(() => {
    acts.current = { onPick, onOpen };
  });
  return slide.elements.map((element) => {
    const frame = frames.get(element.id);
    const on = chosen.includes(element.id);
    return (
      frame && (
        <FrameButton
          key={element.id}
          element={element}
          frame={frame}
          scale={scale}
          on={on}
          among={on && chosen.length > 1}
          canEdit={canEdit}
          acts={acts}
        />
      )
    );
  });
}

const FrameButton = memo(function FrameButton({
  element,
  frame,
  scale,
  on,
  among,
  canEdit,
  acts,
}: {
  element: Element;
  frame: Frame;
  scale: number;
  /** Whether it is selected. */
  on: boolean;
  /** Whether it is selected together with others. */
  among: boolean;
  canEdit: boolean;
  acts: RefObject<Pick<ButtonsProps, "onPick" | "onOpen">>;
}) {
  const name = nameOfElement(element);
  return (
    // The frame is as large as the element; its click target is never smaller than a fingertip.
    <div data-frame={element.id} className="pointer-events-none absolute" style={placeOnStage(frame, scale)}>
      <button
        type="button"
        aria-pressed={on}
        aria-label={name}
        title={canEdit ? "Press to select; press Enter, or twice, to open it" : name}
        className={`pointer-events-auto absolute ${on ? "cursor-move" : "cursor-pointer hover:outline-2 hover:outline-dashed hover:outline-secondary"} ${among || (on && !canEdit) ? "outline-2 outline-secondary" : ""}`}
        style={clickTarget(frame.width * scale, frame.height * scale)}
        onPointerDown={(event) => {
          // The handles may take the press before the browser moves the focus; the keys are for what was pressed.
          event.currentTarget.focus({ preventScroll: true });
          if (!on) acts.current.onPick(element.id, event.shiftKey);
        }}
        onClick={(event) => {
          if (on && event.shiftKey && event.detail === 1) acts.current.onPick(element.id, true);
        }}
        onDoubleClick={() => acts.current.onOpen(element)}
        onKeyDown={(event) => {
          if (event.key !== " " && event.key !== "Enter") return;
          event.preventDefault();
          if (event.key === " ") acts.current.onPick(element.id, event.shiftKey || event.ctrlKey);
          else if (on) acts.current.onOpen(element);
          else acts.current.onPick(element.id, event.shiftKey);
        }}
      />
    </div>
  );
});

/** What an empty slot says, and what fills it. */
export interface EmptySlotActs {
  onText: (slot: string) => void;
  onPicture: (slot: string) => void;
  /** Adds a table, a chart or a diagram. */
  onFigure: (kind: "table" | "chart" | "diagram") => void;
}

const FIGURES = ["table", "chart", "diagram"] as const;

/** A button in each slot of the arrangement that is empty: it takes text, a picture, or the figure that it is for. */
export function EmptySlots({ slide, scale, acts }: { slide: Slide; scale: number; acts: EmptySlotActs }) {
  const { deck } = useDeck();
  // Slides with a master page have placeholders of their own file instead.
  if (slide.master !== undefined) return null;
  const filled = new Set(
    slide.elements.filter((element) => element.kind !== "text" || !isEmptyText(element.text)).map(({ slot }) => slot),
  );
  const { muted } = deck.theme.colours;
  return [...slotPlaces(slide.arrangement, deck, slide.widths)]
    .filter(([slot]) => !filled.has(slot))
    .map(([slot, { frame, role }]) => {
      const figure = FIGURES.find((kind) => kind === slot);
      if (role === "figure" && !figure) return null;
      const label =
        role === "picture" ? "Picture here: drop it, paste it, or press to choose one" : `Add the ${slotName(slot)}`;
      return (
        <button
          key={slot}
          type="button"
          className="absolute flex items-center justify-center gap-2 border border-dashed text-sm"
          style={{ ...placeOnStage(frame, scale), color: muted, borderColor: muted }}
          onClick={() =>
            role === "picture" ? acts.onPicture(slot) : figure ? acts.onFigure(figure) : acts.onText(slot)
          }
        >
          {role === "picture" && <ImagePlus size={20} aria-hidden="true" />}
          {label}
        </button>
      );
    });
}
