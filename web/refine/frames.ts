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

/** Returns the id of the element whose frame is at a point of the window, under handles too; undefined where there is none. */
export function frameAt(x: number, y: number): string | undefined {
  return document
    .elementsFromPoint(x, y)
    .map((element) => element.closest<HTMLElement>("[data-frame]")?.dataset.frame)
    .find((id) => id !== undefined);
}
