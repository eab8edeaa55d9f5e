import { must } from "@unitext/core/model";
import { type ComponentType, useEffect, useRef, useState } from "react";
import Moveable from "react-moveable";
import { frameAt, type RotatedFrame } from "./frames";
import { styleNonce } from "../shell/nonce";

// Our handle styles come first: those of a group would come without the nonce, and be refused.
Moveable.makeStyled();
const HandleStyles = Moveable.defaultStyled as ComponentType<{ cspNonce: string; hidden: boolean }>;

/**
 * Moves, resizes and rotates the frames of the selected elements over the slide, with guides at the middle and edges of
 * the page and of other elements, at the places of the arrangement, and at equal distances. `onDraft` gets the
 * intermediate frames, `onPlace` the final ones, `onPress` the clicked element where the handles of several cover it.
 */
export function Frames({
  stage,
  chosen,
  scale,
  page,
  guides,
  distances,
  frames,
  keepRatio,
  onDraft,
  onPlace,
  onPress,
}: {
  stage: HTMLElement;
  chosen: readonly string[];
  scale: number;
  page: { width: number; height: number };
  /** The lines of the arrangement to which edges snap, in points. */
  guides: { x: readonly number[]; y: readonly number[] };
  /** Whether distances are written while something is moved. */
  distances: boolean;
  frames: ReadonlyMap<string, RotatedFrame>;
  keepRatio: boolean;
  onDraft: (frames: Map<string, RotatedFrame>) => void;
  onPlace: (frames: Map<string, RotatedFrame>) => void;
  onPress: (element: string, press: { twice: boolean; more: boolean }) => void;
}) {
  const moveable = useRef<Moveable>(null);
  const [targets, setTargets] = useState<HTMLElement[]>([]);
  const [others, setOthers] = useState<HTMLElement[]>([]);
  const moving = useRef(new Map<string, RotatedFrame>());
  const key = chosen.join();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the frames in the page are looked up again when one comes or goes or is selected.
  useEffect(() => {
    const all = [...stage.querySelectorAll<HTMLElement>("[data-frame]")];
    setTargets(all.filter(({ dataset }) => chosen.includes(dataset.frame ?? "")));
    setOthers(all.filter(({ dataset }) => !chosen.includes(dataset.frame ?? "")));
  }, [stage, key, frames.size]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the handles follow the frames and the scale.
  useEffect(() => moveable.current?.updateRect(), [frames, scale]);
  // New handles are shown with the next frame.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the handles are shown when there are others.
  useEffect(() => {
    const soon = requestAnimationFrame(() => moveable.current?.forceUpdate());
    return () => cancelAnimationFrame(soon);
  }, [targets]);

  /** Shows a frame at once on its own handle, and on the slide as soon as that is drawn. */
  function show(target: HTMLElement | SVGElement, change: (before: RotatedFrame) => RotatedFrame) {
    const id = (target as HTMLElement).dataset.frame ?? "";
    const before = moving.current.get(id) ?? frames.get(id);
    if (!before) return;
    const next = change(before);
    moving.current.set(id, next);
    const { style } = target as HTMLElement;
    style.left = `${next.x * scale}px`;
    style.top = `${next.y * scale}px`;
    style.width = `${next.width * scale}px`;
    style.height = `${next.height * scale}px`;
    style.transform = next.rotation ? `rotate(${next.rotation}deg)` : "";
    onDraft(new Map(moving.current));
  }
  function end() {
    const moved = moving.current;
    moving.current = new Map();
    if (moved.size) onPlace(moved);
  }
  const moved = (target: HTMLElement | SVGElement, left: number, top: number) =>
    show(target, (before) => ({ ...before, x: left / scale, y: top / scale }));
  const sized = (target: HTMLElement | SVGElement, width: number, height: number, left: number, top: number) =>
    show(target, (before) => ({
      ...before,
      x: left / scale,
      y: top / scale,
      width: Math.max(1, width / scale),
      height: Math.max(1, height / scale),
    }));
  const rotated = (target: HTMLElement | SVGElement, rotation: number, left: number, top: number) =>
    show(target, (before) => ({
      ...before,
      x: left / scale,
      y: top / scale,
      rotation: Math.round((((rotation % 360) + 540) % 360) - 180),
    }));
  return (
    <>
      <HandleStyles cspNonce={styleNonce} hidden />
      {targets.length > 0 && (
        <Moveable
          ref={moveable}
          target={targets.length === 1 ? must(targets[0]) : targets}
          container={stage}
          cspNonce={styleNonce}
          draggable
          resizable
          rotatable
          keepRatio={keepRatio}
          snappable
          snapThreshold={6}
          isDisplaySnapDigit={distances}
          isDisplayInnerSnapDigit={distances}
          snapDistFormat={(pixels) => Math.round(pixels / scale)}
          snapGap
          snapDirections={{ left: true, top: true, right: true, bottom: true, center: true, middle: true }}
          elementSnapDirections={{ left: true, top: true, right: true, bottom: true, center: true, middle: true }}
          elementGuidelines={others}
          verticalGuidelines={[0, page.width / 2, page.width, ...guides.x].map((x) => x * scale)}
          horizontalGuidelines={[0, page.height / 2, page.height, ...guides.y].map((y) => y * scale)}
          throttleRotate={1}
          snapRotationDegrees={[0, 45, 90, 135, 180, 225, 270, 315]}
          snapRotationThreshold={3}
          rotationPosition="top"
          origin={false}
          onClickGroup={({ clientX, clientY, isDouble, inputEvent }) => {
            const pressed = frameAt(clientX, clientY);
            if (pressed !== undefined)
              onPress(pressed, { twice: isDouble, more: Boolean((inputEvent as MouseEvent).shiftKey) });
          }}
          onDrag={({ target, left, top }) => moved(target, left, top)}
          onDragEnd={end}
          onDragGroup={({ events }) => {
            for (const { target, left, top } of events) moved(target, left, top);
          }}
          onDragGroupEnd={end}
          onResize={({ target, width, height, drag }) => sized(target, width, height, drag.left, drag.top)}
          onResizeEnd={end}
          onResizeGroup={({ events }) => {
            for (const { target, width, height, drag } of events) sized(target, width, height, drag.left, drag.top);
          }}
          onResizeGroupEnd={end}
          onRotate={({ target, rotation, drag }) => rotated(target, rotation, drag.left, drag.top)}
          onRotateEnd={end}
          onRotateGroup={({ events }) => {
            for (const { target, rotation, drag } of events) rotated(target, rotation, drag.left, drag.top);
          }}
          onRotateGroupEnd={end}
        />
      )}
    </>
  );
}
