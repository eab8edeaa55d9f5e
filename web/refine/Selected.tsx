import { kindOf, type Element, type Frame, type PictureElement, type Slide } from "@unitext/core/model";
import { useDeck } from "../deck/DeckContext";
import { Workflow } from "lucide-react";
import { ChartData } from "./ChartData";
import { DiagramData } from "./DiagramData";
import { asDiagram } from "./diagrams";
import { HeadingLooks } from "./HeadingLooks";
import { KindOfElement } from "./KindOfElement";
import { KindStyle } from "./KindStyle";
import { LinkedData } from "./LinkedData";
import { useSwapPicture } from "../insert/usePictures";
import { LeadsTo } from "../richtext/LeadsTo";
import { Fold } from "../ui/Fold";
import { Measure } from "../ui/Measure";
import { MediaParts } from "./MediaParts";
import { EntranceOf } from "./Motion";
import { nameOfElement } from "./names";
import type { Acts } from "./selection";
import { SelectionTools } from "./SelectionTools";
import { TableData } from "./TableData";
import { Colour } from "../ui/ColourField";
import { PictureParts } from "./PictureProperties";

/** The selected element: its place, its appearance, its content, and its commands. */
export function Selected({
  slide,
  acts,
  frames,
  cropping,
  onCropping,
  onZoom,
  onWrite,
  onTable,
  onChoose,
  onLeave,
  distances,
  onDistances,
}: {
  slide: Slide;
  acts: Acts;
  frames: ReadonlyMap<string, Frame & { rotation?: number }>;
  cropping: string | undefined;
  onCropping: (id: string | undefined) => void;
  onZoom: (picture: PictureElement, zoom: number) => void;
  onWrite: (id: string) => void;
  onTable: (id: string) => void;
  onChoose: (id: string) => void;
  onLeave: () => void;
  /** Whether distances are written while something is moved. */
  distances: boolean;
  onDistances: (on: boolean) => void;
}) {
  const { deck, session, canEdit } = useDeck();
  const swap = useSwapPicture();
  const { elements } = acts;
  const [one] = elements.length === 1 ? elements : [];
  const frame = one && frames.get(one.id);
  const place = (change: Partial<Frame & { rotation: number }>) =>
    one &&
    frame &&
    acts.place(new Map([[one.id, { ...frame, ...change }]]), `Changed the place of the ${kindOf(one).label}`);
  const painted = elements.every(({ kind }) => kind === "text" || kind === "shape");
  const outlined = elements.every(({ kind }) => kind === "text" || kind === "shape" || kind === "picture");
  const [first] = elements;
  const code = one?.kind === "code" || one?.kind === "formula" ? one : undefined;
  return (
    <>
      <header className="mb-2 flex items-start gap-2">
        <h2 className="line-clamp-2 flex-1 font-semibold first-letter:uppercase">
          {one ? nameOfElement(one) : `${elements.length} elements`}
        </h2>
        <button type="button" className="btn btn-xs" onClick={onLeave}>
          Look of the slide
        </button>
      </header>
      {canEdit && <SelectionTools acts={acts} />}
      {one && <LinkedData slide={slide} element={one} />}
      {one?.kind === "foreign" && (
        <p className="quiet mb-3">
          {one.what}: Unitext shows it and keeps it as it came; in its own format it is written back whole.
        </p>
      )}
      {(one?.kind === "text" || one?.kind === "shape") && canEdit && (
        <button type="button" className="btn btn-sm btn-primary mb-3 w-full" data-first onClick={() => onWrite(one.id)}>
          {one.kind === "text" ? "Change the text" : "Write in the shape"}
        </button>
      )}
      {one?.kind === "text" && canEdit && one.text.length > 1 && (
        <button
          type="button"
          className="btn btn-sm mb-3 w-full"
          title="Draws the points as a diagram, whose kind can be changed; all words are kept"
          onClick={() => {
            const { id, change } = asDiagram(deck, slide, one, frame);
            if (session.apply(change, { words: "Drew the points as a diagram" })) onChoose(id);
          }}
        >
          <Workflow size={16} aria-hidden="true" /> Draw as a diagram
        </button>
      )}
      {one?.kind === "text" && canEdit && frame && <HeadingLooks slide={slide} text={one} frame={frame} acts={acts} />}
      {one?.kind === "picture" && canEdit && (
        <PictureParts
          picture={one}
          acts={acts}
          frame={frame}
          cropping={cropping === one.id}
          onCropping={(on) => onCropping(on ? one.id : undefined)}
          onZoom={(zoom) => onZoom(one, zoom)}
          onSwap={(file) =>
            void swap(slide.id, one.id, file).then((refused) => refused.length && session.notify(refused.join(" ")))
          }
        />
      )}
      {one?.kind === "media" && <MediaParts media={one} acts={acts} disabled={!canEdit} />}
      {one?.kind === "table" && (
        <TableData table={one} acts={acts} disabled={!canEdit} onOpen={() => onTable(one.id)} />
      )}
      {one?.kind === "diagram" && <DiagramData slide={slide} diagram={one} acts={acts} onChoose={onChoose} />}
      {one?.kind === "chart" && <ChartData chart={one} acts={acts} disabled={!canEdit} />}
      {code && (
        <label className="mb-4 block font-semibold">
          {code.kind === "code" ? "Program code" : "Formula, in TeX"}
          <textarea
            key={code.kind === "code" ? code.text : code.tex}
            data-first
            disabled={!canEdit}
            className="textarea mt-1 w-full font-mono font-normal"
            rows={6}
            spellCheck={false}
            defaultValue={code.kind === "code" ? code.text : code.tex}
            onBlur={({ target: { value } }) =>
              acts.set(
                (element) =>
                  element.kind === "code" && element.text !== value
                    ? { ...element, text: value }
                    : element.kind === "formula" && element.tex !== value
                      ? { ...element, tex: value }
                      : element,
                `Changed the ${code.kind}`,
              )
            }
          />
        </label>
      )}
      {painted && canEdit && (
        <Fold name="element-colours" title="Fill and outline" open>
          <Colour
            label="Fill"
            value={
              first?.fill?.kind === "solid"
                ? first.fill.colour
                : first?.fill?.kind === "gradient"
                  ? first.fill.stops[0]?.colour
                  : undefined
            }
            onSet={(colour) =>
              acts.set((element) => framedAs(element, frames, { fill: { kind: "solid", colour } }), "Changed a fill")
            }
            onNone={() => acts.set(({ fill: _, ...element }) => element as Element, "Removed a fill")}
          />
          <Colour
            label="Outline"
            value={first?.stroke?.colour}
            onSet={(colour) =>
              acts.set(
                (element) => framedAs(element, frames, { stroke: { width: 1.5, ...element.stroke, colour } }),
                "Changed an outline",
              )
            }
            onNone={() => acts.set(({ stroke: _, ...element }) => element as Element, "Removed an outline")}
          />
          {first?.stroke && <OutlineWidth width={first.stroke.width} acts={acts} />}
        </Fold>
      )}
      {!painted && outlined && first?.stroke && canEdit && <OutlineWidth width={first.stroke.width} acts={acts} />}
      {canEdit && <EntranceOf slide={slide} acts={acts} />}
      {(one?.kind === "picture" || one?.kind === "shape") && (
        <Fold name="element-link" title="Link" open>
          <LeadsTo
            key={one.id}
            to={one.link}
            onSet={(to) =>
              acts.set(
                (element) => {
                  if (element.kind !== "picture" && element.kind !== "shape") return element;
                  const { link: _, ...rest } = element;
                  return to === undefined ? rest : { ...rest, link: to };
                },
                to === undefined
                  ? `Took the link off the ${kindOf(one).label}`
                  : `Changed where the ${kindOf(one).label} leads`,
              )
            }
          />
        </Fold>
      )}
      {one?.kind === "text" && <KindStyle slide={slide} text={one} />}
      {one && <KindOfElement element={one} />}
      <Fold name="element-place" title="Place and size">
        {one && frame && <PlaceFields frame={frame} onPlace={place} />}
        <p className="quiet mt-1 text-xs">
          Arrow keys move by 1 point, with Shift by 10.
          {elements.some(({ groups }) => groups?.length) && elements.length > 1
            ? " Press one of a group twice, or Enter on it, to have it by itself."
            : ""}
        </p>
        {canEdit && (
          <label className="mt-2 flex items-center gap-2" title="Writes the distances to the page and to what is near">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={distances}
              onChange={({ target }) => onDistances(target.checked)}
            />
            Distances while moving
          </label>
        )}
        {canEdit && acts.canRelease && (
          <button type="button" className="btn btn-sm mt-2 w-full" onClick={acts.release}>
            Back into its place
          </button>
        )}
      </Fold>
      <p className="quiet mt-3 text-xs">
        {elements.length} of {slide.elements.length} on this slide
      </p>
    </>
  );
}

/** An element with a fill needs a frame of its own. */
function framedAs(element: Element, frames: ReadonlyMap<string, Frame>, change: Partial<Element>): Element {
  const frame = element.frame ?? frames.get(element.id);
  return {
    ...element,
    ...(frame ? { frame: { x: frame.x, y: frame.y, width: frame.width, height: frame.height } } : {}),
    ...change,
  } as Element;
}

function OutlineWidth({ width, acts }: { width: number; acts: Acts }) {
  return (
    <Measure
      label="Width of the outline"
      value={width}
      least={0}
      most={200}
      onSet={(next) =>
        acts.set(
          (element) =>
            element.stroke ? ({ ...element, stroke: { ...element.stroke, width: next } } as Element) : element,
          "Changed the width of an outline",
        )
      }
    />
  );
}

type RotatedFrame = Frame & { rotation?: number };

/** The place, size and rotation of an element as numbers. */
function PlaceFields({
  frame,
  onPlace,
}: {
  frame: RotatedFrame;
  onPlace: (change: Partial<Frame & { rotation: number }>) => void;
}) {
  return (
    <div className="grid grid-cols-2 gap-x-2 gap-y-1">
      <Measure label="From the left" value={frame.x} onSet={(x) => onPlace({ x })} />
      <Measure label="From the top" value={frame.y} onSet={(y) => onPlace({ y })} />
      <Measure label="Width" value={frame.width} least={1} onSet={(width) => onPlace({ width })} />
      <Measure label="Height" value={frame.height} least={1} onSet={(height) => onPlace({ height })} />
      <Measure
        label="Rotation"
        unit="°"
        value={frame.rotation ?? 0}
        onSet={(rotation) => onPlace({ rotation: ((((rotation + 180) % 360) + 360) % 360) - 180 })}
      />
    </div>
  );
}
