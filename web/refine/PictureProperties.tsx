import { resolveGeometry } from "@unitext/core/figures";
import { type Frame, type Geometry, isDescribed, type PictureElement } from "@unitext/core/model";
import { ImagePlus } from "lucide-react";
import { useDeck } from "../deck/DeckContext";
import { useFileChooser } from "../ui/useFileChooser";
import { CaptionField } from "./CaptionField";
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
  onSwap,
}: {
  picture: PictureElement;
  acts: Acts;
  frame: Frame | undefined;
  cropping: boolean;
  onCropping: (on: boolean) => void;
  onZoom: (zoom: number) => void;
  /** Called with a file that replaces the picture. */
  onSwap: (file: File) => void;
}) {
  const { deck } = useDeck();
  const asset = deck.assets[picture.source];
  const set = (change: (element: PictureElement) => PictureElement, words: string) =>
    acts.set((element) => (element.kind === "picture" ? change(element) : element), words);
  const zoom = zoomOf(picture, asset, frame);
  const other = useFileChooser({
    label: "Picture to put in its place",
    accept: "image/*,.wmf,.emf,.tif,.tiff",
    onFiles: ([file]) => file && onSwap(file),
  });
  return (
    <fieldset className="mb-4">
      <legend className="mb-2 font-semibold">Picture in its frame</legend>
      <button
        type="button"
        className="btn btn-sm mb-1 w-full"
        title="Puts another file in its place; frame, shape, colours and caption stay"
        onClick={other.choose}
      >
        <ImagePlus size={16} aria-hidden="true" /> Another picture …
      </button>
      {other.input}
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
            className="btn btn-xs h-auto py-0.5"
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
      <FrameShapes
        shape={picture.shape}
        onSet={(shape) =>
          set(({ shape: _, ...rest }) => (shape ? { ...rest, shape } : rest), "Changed the shape of a picture's frame")
        }
      />
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
      <CaptionField element={picture} acts={acts} />
      <label className="mt-2 block">
        Description (alt text)
        {!isDescribed(picture) && (
          <span className="border-warning mb-1 block border-l-4 pl-2 text-xs">
            Say what it shows, for those who do not see it.
          </span>
        )}
        <textarea
          key={picture.alt}
          className={`textarea textarea-sm w-full ${isDescribed(picture) ? "" : "border-warning"}`}
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

/** The shapes that a picture's frame can have: preset geometries of ECMA-376-1, 20.1.10.56. */
const SHAPES = {
  rect: "Rectangle",
  roundRect: "Rounded corners",
  ellipse: "Oval",
  round2SameRect: "Rounded at the top",
  hexagon: "Hexagon",
  octagon: "Octagon",
  diamond: "Diamond",
  parallelogram: "Slanted",
} as const;
const [ICON_WIDTH, ICON_HEIGHT] = [40, 26];

/** The shape of the frame that a picture is cut to, chosen from drawings. */
function FrameShapes({ shape, onSet }: { shape: Geometry | undefined; onSet: (shape: Geometry | undefined) => void }) {
  const now = shape === undefined ? "rect" : "preset" in shape ? shape.preset : undefined;
  return (
    <fieldset className="mt-2">
      <legend>Shape of the frame</legend>
      <div className="mt-1 grid grid-cols-4 gap-1">
        {Object.entries(SHAPES).map(([preset, label]) => (
          <button
            key={preset}
            type="button"
            aria-label={label}
            title={label}
            aria-pressed={now === preset}
            className={`btn btn-sm h-9 px-1 ${now === preset ? "outline-2 outline-secondary" : ""}`}
            onClick={() => onSet(preset === "rect" ? undefined : { preset })}
          >
            <svg viewBox={`-1 -1 ${ICON_WIDTH + 2} ${ICON_HEIGHT + 2}`} className="w-full" aria-hidden="true">
              {resolveGeometry({ preset }, ICON_WIDTH, ICON_HEIGHT).outlines.map(({ d }, nth) => (
                <path key={nth} d={d} fill="currentColor" fillOpacity={0.18} stroke="currentColor" strokeWidth={1.5} />
              ))}
            </svg>
          </button>
        ))}
      </div>
    </fieldset>
  );
}
