import type { Scene } from "@unitext/core/layout";
import type { Frame, Slide } from "@unitext/core/model";

/** A frame in points, rotated by degrees clockwise. */
export type RotatedFrame = Frame & { rotation?: number };

/** Returns the frames of elements: their own, or the boxes of the layout. */
export function framesOf(slide: Slide, scene: Scene | undefined): Map<string, RotatedFrame> {
  const boxes = new Map(
    (scene?.slide === slide.id ? scene.boxes : []).flatMap(({ element, x, y, width, height, rotation }) =>
      element === null ? [] : [[element, { x, y, width, height, ...(rotation ? { rotation } : {}) }] as const],
    ),
  );
  return new Map(
    slide.elements.flatMap((element) => {
      const box =
        element.frame && (element.slot === null || element.style !== undefined)
          ? { ...element.frame, ...(element.rotation ? { rotation: element.rotation } : {}) }
          : boxes.get(element.id);
      return box ? [[element.id, box] as const] : [];
    }),
  );
}
