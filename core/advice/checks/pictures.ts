import { batch } from "@unitext/core/edit";
import { isDescribed, type PictureElement } from "@unitext/core/model";
import type { Check, Checked } from "../check";

/** How far the proportions of a picture may be off before one sees it. */
const TOLERANCE = 0.04;
/** Fewer pixels for each point than this look coarse on a projector of 1,920 pixels (common practice, no source). */
const PIXELS = 0.8;

const pictures = ({ slide }: Checked) =>
  slide.elements.filter((element): element is PictureElement => element.kind === "picture");

export const stretched: Check = {
  label: "Stretched pictures",
  find: (checked) =>
    pictures(checked).flatMap((element) => {
      const asset = checked.deck.assets[element.source];
      const { frame, crop } = element;
      if (!asset || !frame || element.caption) return [];
      const width = asset.width * (1 - (crop?.left ?? 0) - (crop?.right ?? 0));
      const height = asset.height * (1 - (crop?.top ?? 0) - (crop?.bottom ?? 0));
      const off = frame.width / frame.height / (width / height);
      if (!(off > 0) || Math.abs(Math.log(off)) <= TOLERANCE) return [];
      const scale = Math.min(frame.width / width, frame.height / height);
      const [wide, high] = [width * scale, height * scale];
      const fitted = {
        x: frame.x + (frame.width - wide) / 2,
        y: frame.y + (frame.height - high) / 2,
        width: wide,
        height: high,
      };
      return [
        {
          message: `A picture is ${off > 1 ? "too wide" : "too high"} for its proportions.`,
          element: element.id,
          remedy: {
            label: "Restore its proportions",
            change: batch([{ kind: "setElement", slide: checked.slide.id, element: { ...element, frame: fitted } }]),
          },
        },
      ];
    }),
};

export const coarse: Check = {
  label: "Coarse pictures",
  find: (checked) =>
    pictures(checked).flatMap((element) => {
      const asset = checked.deck.assets[element.source];
      const box = checked.scene.boxes.find((one) => one.element === element.id);
      if (!asset || !box || asset.mediaType === "image/svg+xml") return [];
      const shown = box.width / (1 - (element.crop?.left ?? 0) - (element.crop?.right ?? 0));
      const density = (asset.width / shown) * (checked.deck.page.width / 960);
      if (density >= PIXELS) return [];
      return [
        {
          message: `A picture of ${asset.width} by ${asset.height} pixels is shown so large that its pixels are seen.`,
          element: element.id,
        },
      ];
    }),
};

export const description: Check = {
  label: "Pictures without a description",
  find: (checked) =>
    pictures(checked)
      .filter((picture) => !isDescribed(picture))
      .map((element) => ({
        message: "A picture has no description for those who do not see it.",
        element: element.id,
        ...(element.caption
          ? {
              remedy: {
                label: "Use its caption",
                change: batch([
                  { kind: "setElement", slide: checked.slide.id, element: { ...element, alt: element.caption } },
                ]),
              },
            }
          : {}),
      })),
};
