import {
  ArrowRight,
  ChartColumn,
  Circle,
  Image,
  type LucideIcon,
  MessageSquare,
  Minus,
  Sheet,
  Square,
  SquareRoundCorner,
  Star,
  Table2,
  Type,
  Workflow,
} from "lucide-react";
import { type Element, type Geometry, plainText } from "@unitext/core/model";
import { inKind } from "@unitext/core/edit";
import { nanoid } from "nanoid";
import { useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { PutOnSlide } from "../sources/PutOnSlide";
import { useSources } from "../sources/useSources";
import { useFileChooser } from "../ui/useFileChooser";
import { newDiagram } from "./diagrams";
import type { Acts } from "./selection";
import { emptyTable, NEW_FIGURES } from "./newfigures";
import { TableSize } from "./TableSize";

const FORMS: [label: string, icon: LucideIcon, geometry: Geometry][] = [
  ["Box", Square, { preset: "rect" }],
  ["Round box", SquareRoundCorner, { preset: "roundRect" }],
  ["Circle", Circle, { preset: "ellipse" }],
  ["Arrow", ArrowRight, { preset: "rightArrow" }],
  ["Callout", MessageSquare, { preset: "wedgeRoundRectCallout" }],
  ["Star", Star, { preset: "star5" }],
];

/** Adds a new element where there is room for it. */
export function Add({
  acts,
  slide,
  onPictures,
}: {
  acts: Acts;
  slide: string;
  onPictures: (files: readonly File[]) => void;
}) {
  const { deck } = useDeck();
  const { sources } = useSources();
  const [putting, setPutting] = useState(false);
  const [sizing, setSizing] = useState(false);
  const chooser = useFileChooser({
    label: "Picture to add",
    accept: ".png,.jpg,.jpeg,.gif,.svg,.wmf,.emf,.tif,.tiff,.bmp",
    onFiles: onPictures,
  });
  const { width, height } = deck.page;
  const middle = (w: number, h: number) => ({
    x: Math.round((width - w) / 2),
    y: Math.round((height - h) / 2),
    width: w,
    height: h,
  });
  const { accent, ink } = deck.theme.colours;
  const add = (element: Record<string, unknown>, words: string) =>
    acts.add(inKind({ slot: null, ...element, id: nanoid(10) } as Element, deck.theme), words);
  const addTable = (rows: number, columns: number) => {
    setSizing(false);
    add({ ...emptyTable(rows, columns) }, `Added a table of ${rows} rows by ${columns} columns`);
  };
  const button = (label: string, Icon: LucideIcon, act: () => void) => (
    <button
      key={label}
      type="button"
      className="btn btn-xs h-auto flex-col gap-0.5 px-0 py-1 font-normal"
      title={`Puts ${label.replace(" …", "").toLowerCase()} on the slide`}
      onClick={act}
    >
      <Icon size={16} aria-hidden="true" />
      {label}
    </button>
  );
  return (
    <fieldset className="mb-3">
      {putting && sources?.[0] && (
        <PutOnSlide source={sources[0]} sources={sources} slide={slide} onClose={() => setPutting(false)} />
      )}
      <legend className="mb-2 font-semibold">Add to the slide</legend>
      <div className="grid grid-cols-4 gap-1">
        {button("Text", Type, () =>
          add({ kind: "text", frame: middle(320, 80), text: plainText("Text") }, "Added text"),
        )}
        {button("Picture", Image, chooser.choose)}
        {button("Table …", Table2, () => setSizing(!sizing))}
        {button("Chart", ChartColumn, () => add({ ...NEW_FIGURES.chart.element }, NEW_FIGURES.chart.words))}
        {button("Diagram", Workflow, () => add({ ...newDiagram() }, "Added a diagram"))}
        {sources?.[0] && button("Cells …", Sheet, () => setPutting(true))}
        {button("Line", Minus, () =>
          add(
            {
              kind: "shape",
              frame: middle(240, 1),
              geometry: { preset: "line" },
              text: [],
              stroke: { colour: ink, width: 2 },
            },
            "Added a line",
          ),
        )}
        {FORMS.map(([label, Icon, geometry]) =>
          button(label, Icon, () =>
            add(
              {
                kind: "shape",
                frame: middle(180, label === "Circle" || label === "Star" ? 180 : 100),
                geometry,
                text: [],
                fill: { kind: "solid", colour: accent },
              },
              "Added a shape",
            ),
          ),
        )}
      </div>
      {sizing && <TableSize onChoose={addTable} onClose={() => setSizing(false)} />}
      {chooser.input}
    </fieldset>
  );
}
