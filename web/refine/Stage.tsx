import { contentArea, moveInScene, type Scene, slotPlaces } from "@unitext/core/layout";
import {
  type Crop,
  type Deck,
  type Element,
  must,
  type PictureElement,
  type RichText,
  type Slide,
  type TableElement,
  type Transition,
} from "@unitext/core/model";
import { type KeyboardEvent, lazy, type RefObject, Suspense, useEffect, useMemo, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { useScene } from "../deck/scenes";
import { SlideView } from "../deck/SlideView";
import { loadEditor } from "../richtext/RichTextEditor";
import { CropPane } from "./CropPane";
import { type EmptySlotActs, EmptySlots, FrameButtons, placeOnStage } from "./FrameButtons";
import { frameAt, type RotatedFrame } from "./frames";
import { InPlaceText, type TextTarget } from "./InPlaceText";
import { OthersOnStage } from "./OthersOnStage";
import type { Acts } from "./selection";
import { TableOnSlide } from "./TableOnSlide";
import { tableFont } from "./tablefont";

// Loaded with the slide, but not before it is drawn.
const Frames = lazy(() => import("./Frames").then((module) => ({ default: module.Frames })));

interface Props {
  ref: RefObject<HTMLDivElement | null>;
  slide: Slide;
  number: number;
  scene: Scene | undefined;
  /** Frames of the elements, in points. */
  frames: ReadonlyMap<string, RotatedFrame>;
  acts: Acts;
  chosen: readonly string[];
  cropped: PictureElement | undefined;
  target: TextTarget | undefined;
  /** The press whose entrances are played, from 0; undefined while nothing is played. */
  press: number | undefined;
  /** The transition that is played; undefined while none is. */
  transition: Transition | undefined;
  onKeyDown: (event: KeyboardEvent) => void;
  onChoose: (ids: readonly string[]) => void;
  onPick: (id: string, more: boolean) => void;
  onOpen: (element: Element | undefined) => void;
  /** What pressing an empty slot does. */
  slotActs: EmptySlotActs;
  onWrite: (text: RichText) => void;
  onLeaveText: () => void;
  onCrop: (picture: PictureElement, crop: Crop) => void;
  onLeaveCrop: () => void;
  /** Whether distances are written while something is moved. */
  distances: boolean;
}

/** What react-moveable draws its handles in. */
const HANDLES = ".moveable-control-box";

/** The slide, as wide as there is room, with handles, editors and hints over it. */
export function Stage(props: Props) {
  const { ref, slide, number, scene, frames, acts, chosen, cropped, target } = props;
  const { onChoose, onPick, onOpen } = props;
  const { deck, canEdit } = useDeck();
  const scale = useWidth(ref) / deck.page.width;
  const openTable = slide.elements.find(
    (element): element is TableElement =>
      element.kind === "table" && target !== undefined && "table" in target && element.id === target.table,
  );
  const tableBox = openTable && scene?.boxes.find(({ element }) => element === openTable.id);
  useEffect(() => {
    void import("./Frames");
    void loadEditor();
  }, []);
  const { draft, setDraft, drafted } = useDraft(slide, number, scene);
  const guides = useMemo(() => guidesOf(slide, deck), [slide, deck]);
  const shown = useMemo(() => new Map([...frames, ...draft]), [frames, draft]);
  /** An element that was clicked among several selected ones. */
  const pressAmong = (id: string, { twice, more }: { twice: boolean; more: boolean }) => {
    if (twice) onOpen(slide.elements.find((element) => element.id === id));
    else if (more || !chosen.includes(id)) onPick(id, more);
  };
  return (
    <div
      ref={ref}
      role="group"
      aria-label={`Slide ${number}`}
      className="hairline relative mx-auto w-full border"
      style={{
        maxWidth: `calc((100vh - 18rem) * ${deck.page.width / deck.page.height})`,
        minWidth: "min(420px, 100%)",
      }}
      data-stage
      onKeyDown={props.onKeyDown}
      onPointerDown={(event) => event.target === event.currentTarget && onChoose([])}
      onDoubleClick={({ target: pressed, clientX, clientY }) => {
        // The first press brings up the handles, and the second may land on one of them.
        if (!(pressed instanceof HTMLElement) || !pressed.closest(HANDLES)) return;
        const id = frameAt(clientX, clientY);
        if (id !== undefined) onOpen(slide.elements.find((element) => element.id === id));
      }}
    >
      <Drawing scene={drafted} number={number} press={props.press} transition={props.transition} />
      <button
        type="button"
        tabIndex={-1}
        aria-hidden
        className="absolute inset-0 cursor-default"
        onClick={() => onChoose([])}
      />
      <FrameButtons slide={slide} frames={shown} scale={scale} chosen={chosen} onPick={onPick} onOpen={onOpen} />
      {canEdit && !target && <EmptySlots slide={slide} scale={scale} acts={props.slotActs} />}
      {canEdit && !target && !cropped && chosen.length > 0 && ref.current && scale > 0 && (
        <Suspense>
          <Frames
            stage={ref.current}
            chosen={chosen}
            scale={scale}
            page={deck.page}
            guides={guides}
            distances={props.distances}
            frames={frames}
            keepRatio={acts.elements.length === 1 && acts.elements[0]?.kind === "picture"}
            onDraft={setDraft}
            onPress={pressAmong}
            onPlace={acts.place}
          />
        </Suspense>
      )}
      {cropped && frames.get(cropped.id) && (
        <CropPane
          picture={cropped}
          asset={deck.assets[cropped.source]}
          frame={must(frames.get(cropped.id))}
          scale={scale}
          style={placeOnStage(must(frames.get(cropped.id)), scale)}
          onCrop={(next) => props.onCrop(cropped, next)}
          onLeave={props.onLeaveCrop}
        />
      )}
      {openTable && tableBox?.grid && (
        <TableOnSlide
          key={openTable.id}
          table={openTable}
          grid={tableBox.grid}
          frame={tableBox}
          size={tableBox.size}
          scale={scale}
          font={tableFont(deck, slide)}
          change={acts.changeTable}
          onLeave={props.onLeaveText}
        />
      )}
      {target && !("table" in target) && (
        <InPlaceText
          slide={slide}
          scene={scene}
          target={target}
          frames={frames}
          scale={scale}
          onChange={props.onWrite}
          onLeave={props.onLeaveText}
        />
      )}
      <OthersOnStage slide={slide.id} frames={frames} scale={scale} />
      {props.distances && draft.size > 0 && (
        <p className="bg-neutral text-neutral-content pointer-events-none absolute bottom-1 left-1 z-10 px-2 py-0.5 text-sm tabular-nums">
          {distanceWords(must([...draft.values()][0]), deck.page)}
        </p>
      )}
      {(scene?.overflow ?? 0) > 0 && (
        <p className="bg-error text-error-content absolute right-0 bottom-0 px-2 py-0.5 text-sm">
          The text overflows by {Math.round(scene?.overflow ?? 0)} points: shorten it or divide the slide.
        </p>
      )}
    </div>
  );
}

function Drawing({ scene, number, press, transition }: Pick<Props, "scene" | "number" | "press" | "transition">) {
  const { deck } = useDeck();
  const playing = press === undefined ? {} : { step: press, since: -1 };
  return (
    <div
      className={`pointer-events-none ${transition ? "overflow-hidden bg-black" : ""}`}
      {...(transition ? { "data-transition": transition.kind } : {})}
      style={{ ["--seconds" as string]: `${transition?.seconds ?? 0}s` }}
    >
      {scene ? (
        <SlideView scene={scene} deck={deck.id} label={`Slide ${number}`} {...playing} />
      ) : (
        <div style={{ aspectRatio: `${deck.page.width} / ${deck.page.height}` }} />
      )}
    </div>
  );
}

/**
 * Holds the frames of elements while they are moved, resized or rotated, and returns the scene with them until the slide
 * itself has been laid out again.
 */
function useDraft(slide: Slide, number: number, scene: Scene | undefined) {
  const { metadata } = useDeck();
  const [draft, setDraft] = useState<ReadonlyMap<string, RotatedFrame>>(new Map());
  const moved = useMemo(() => (scene ? moveInScene(scene, draft) : undefined), [scene, draft]);
  const drawn = useMemo(() => (moved ? slide : withFrames(slide, draft)), [moved, slide, draft]);
  const resized = useScene(drawn, number, metadata);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the draft ends when the slide is laid out with its frames.
  useEffect(() => setDraft(new Map()), [scene]);
  return { draft, setDraft, drafted: draft.size ? (moved ?? resized) : scene };
}

/** Returns how far a frame is from the edges of the page, and its size, in words. */
function distanceWords({ x, y, width, height }: RotatedFrame, page: Deck["page"]): string {
  const [left, top, right, bottom, wide, high] = [
    x,
    y,
    page.width - x - width,
    page.height - y - height,
    width,
    height,
  ].map((value) => Math.round(value));
  return `Left ${left} · top ${top} · right ${right} · bottom ${bottom} · ${wide} × ${high} pt`;
}

/** Returns the edges and middles of the arrangement's places and of the content area, in points. */
function guidesOf(slide: Slide, deck: Deck): { x: number[]; y: number[] } {
  if (slide.master !== undefined) return { x: [], y: [] };
  const places = [...slotPlaces(slide.arrangement, deck, slide.widths).values()].map(({ frame }) => frame);
  const frames = [...places, contentArea(deck)];
  return {
    x: [...new Set(frames.flatMap(({ x, width }) => [x, x + width / 2, x + width]))],
    y: [...new Set(frames.flatMap(({ y, height }) => [y, y + height]))],
  };
}

/** Returns the slide with other frames for some of its elements. */
function withFrames(slide: Slide, frames: ReadonlyMap<string, RotatedFrame>): Slide {
  if (!frames.size) return slide;
  const elements = slide.elements.map((element): Element => {
    const next = frames.get(element.id);
    return next ? { ...element, frame: next, rotation: next.rotation ?? 0 } : element;
  });
  return { ...slide, elements };
}

/** Returns the width of an element in CSS pixels, 0 before it is measured. */
function useWidth(ref: RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => setWidth(entry?.contentRect.width ?? 0));
    if (ref.current) observer.observe(ref.current);
    return () => observer.disconnect();
  }, [ref]);
  return width;
}
