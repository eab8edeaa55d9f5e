import type { PictureElement, Frame } from "@unitext/core/model";
import { useDeck } from "../deck/DeckContext";
import { zoomOf } from "./crop";
import type { Acts } from "./selection";

/** The properties of a selected picture: description, crop, colours. */
export function PictureParts({
  picture,
  acts,
  frame,
  cropping,
  onCropping,
  onZoom,
}: {
  picture: PictureElement;
  acts: Acts;
  frame: Frame | undefined;
  cropping: boolean;
  onCropping: (on: boolean) => void;
  onZoom: (zoom: number) => void;
}) {
  const { deck } = useDeck();
  const asset = deck.assets[picture.source];
  const set = (change: (element: PictureElement) => PictureElement, words: string) =>
    acts.set((element) => (element.kind === "picture" ? change(element) : element), words);
  const zoom = zoomOf(picture, asset, frame);
  return (
    <fieldset className="mb-4">
      <legend className="mb-2 font-semibold">Picture in its frame</legend>
      <button
        type="button"
        className={`btn btn-sm w-full ${cropping ? "btn-primary" : ""}`}
        aria-pressed={cropping}
        disabled={!asset || Boolean(picture.rotation)}
        onClick={() => onCropping(!cropping)}
      >
        {cropping ? "Done" : "Move and zoom inside the frame"}
      </button>
      <label className="mt-2 block">
        Zoom, {Math.round(zoom * 100)} %
        <input
          type="range"
          className="range range-sm w-full"
          min={100}
          max={500}
          value={Math.round(zoom * 100)}
          disabled={!asset}
          onChange={({ target }) => onZoom(Number(target.value) / 100)}
        />
      </label>
      {picture.crop && (
        <button
          type="button"
          className="btn btn-xs mt-1"
          onClick={() => set(({ crop: _, ...rest }) => rest, "Showed the whole picture")}
        >
          Show all of it
        </button>
      )}
      <div className="mt-2 grid grid-cols-2 gap-1">
        {(["x", "y"] as const).map((axis) => (
          <button
            key={axis}
            type="button"
            className="btn btn-xs"
            aria-pressed={picture.flip?.includes(axis) ?? false}
            onClick={() =>
              set(({ flip, ...rest }) => {
                const next = (["x", "y"] as const)
                  .filter((one) => (one === axis) !== (flip?.includes(one) ?? false))
                  .join("") as "" | "x" | "y" | "xy";
                return next ? { ...rest, flip: next } : rest;
              }, "Mirrored a picture")
            }
          >
            {axis === "x" ? "Mirror sideways" : "Mirror upside down"}
          </button>
        ))}
      </div>
      <label className="mt-2 block">
        Opacity, {Math.round((picture.opacity ?? 1) * 100)} %
        <input
          type="range"
          className="range range-sm w-full"
          min={5}
          max={100}
          value={Math.round((picture.opacity ?? 1) * 100)}
          onChange={({ target }) =>
            set(
              ({ opacity: _, ...rest }) =>
                Number(target.value) < 100 ? { ...rest, opacity: Number(target.value) / 100 } : rest,
              "Changed the opacity of a picture",
            )
          }
        />
      </label>
      <label className="mt-2 block">
        Description (alt text)
        <textarea
          key={picture.alt}
          className="textarea textarea-sm w-full"
          defaultValue={picture.alt}
          rows={2}
          onBlur={({ target: { value } }) =>
            value !== picture.alt && set((element) => ({ ...element, alt: value }), "Described a picture")
          }
        />
      </label>
    </fieldset>
  );
}
