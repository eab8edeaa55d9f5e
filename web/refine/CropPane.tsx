import type { Asset, Crop, Frame, PictureElement } from "@unitext/core/model";
import { type CSSProperties, useRef } from "react";
import { fillingCrop, movedCrop, NO_CROP, zoomedCrop, zoomOf } from "./crop";

/** Moves and zooms a picture inside its frame, by dragging and by the wheel. */
export function CropPane({
  picture,
  asset,
  frame,
  scale,
  style,
  onCrop,
  onLeave,
}: {
  picture: PictureElement;
  asset: Asset | undefined;
  frame: Frame;
  scale: number;
  style: CSSProperties;
  onCrop: (crop: Crop) => void;
  onLeave: () => void;
}) {
  const from = useRef<{ x: number; y: number; crop: Crop }>(undefined);
  const now = picture.crop ?? (asset ? fillingCrop(asset, frame) : NO_CROP);
  const at = (event: React.PointerEvent) => {
    const held = from.current;
    return (
      held &&
      movedCrop(
        held.crop,
        (event.clientX - held.x) / (frame.width * scale),
        (event.clientY - held.y) / (frame.height * scale),
      )
    );
  };
  return (
    <button
      type="button"
      aria-label="Picture in its frame: pull it, or move it with the arrow keys; the wheel zooms; Enter ends"
      autoFocus
      className="absolute z-10 cursor-grab touch-none outline-3 outline-secondary active:cursor-grabbing"
      style={style}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = { x: event.clientX, y: event.clientY, crop: now };
      }}
      onPointerUp={(event) => {
        const next = at(event);
        from.current = undefined;
        if (next && JSON.stringify(next) !== JSON.stringify(picture.crop)) onCrop(next);
      }}
      onWheel={(event) =>
        onCrop(
          zoomedCrop(
            picture,
            asset,
            frame,
            Math.max(1, Math.min(8, zoomOf(picture, asset, frame) * (event.deltaY < 0 ? 1.1 : 1 / 1.1))),
          ),
        )
      }
      onKeyDown={(event) => {
        if (event.key !== "Enter") return;
        event.preventDefault();
        onLeave();
      }}
    />
  );
}
