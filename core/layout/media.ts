import type { Asset, DeckMetadata, Frame, MediaElement, Slide } from "@unitext/core/model";
import type { Scene } from "./scene";

/** The area of a film or sound on a page in points, and what is played there. */
export interface MediaPlace extends Frame {
  element: string;
  type: MediaElement["type"];
  alt: string;
  sha256: string;
  mediaType: Asset["mediaType"];
  /** The SHA-256 of its poster picture. */
  poster?: string;
  /** Rotation about its middle, clockwise in degrees. */
  rotation?: number;
  /** The press at which it appears; 0 from the start. */
  press: number;
}

/** Returns the films and sounds of a slide whose files are in its deck, with their areas in the scene. */
export function mediaPlaces(
  { boxes, reveals = [] }: Pick<Scene, "boxes" | "reveals">,
  { elements }: Pick<Slide, "elements">,
  assets: DeckMetadata["assets"],
): MediaPlace[] {
  return elements.flatMap((element): MediaPlace[] => {
    const box = boxes.find((one) => one.element === element.id);
    if (element.kind !== "media" || !box) return [];
    const { type, alt, rotation } = element;
    const [asset, poster] = [assets[element.source], element.poster === undefined ? undefined : assets[element.poster]];
    if (!asset) return [];
    const press = reveals.find((one) => one.element === element.id && one.paragraph === undefined)?.press ?? 0;
    const { x, y, width, height } = box;
    return [
      {
        element: element.id,
        type,
        alt,
        sha256: asset.sha256,
        mediaType: asset.mediaType,
        ...(poster ? { poster: poster.sha256 } : {}),
        ...(rotation ? { rotation } : {}),
        press,
        x,
        y,
        width,
        height,
      },
    ];
  });
}
