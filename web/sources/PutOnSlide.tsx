import { type Bound, putOnSlide, slideWithBound } from "@unitext/core/data";
import { type Change, insertAt } from "@unitext/core/edit";
import { type BindingMode, type BindingUse, metadataOf, nameOf, type Slide } from "@unitext/core/model";
import type { SourceSummary } from "@unitext/server/api";
import { nanoid } from "nanoid";
import { useMemo, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";
import { Dialog } from "../ui/Dialog";
import { FormatField, ModeField, NumberField, SourceField } from "./fields";
import { useBoundCells } from "./useBoundCells";
import { useCellChoice } from "./useCellChoice";
import { WorkbookView } from "./WorkbookView";

/** What can be made of cells, and where it goes. */
const WAYS = {
  fitting: { label: "What fits the cells", use: undefined },
  table: { label: "Table", use: "table" },
  chart: { label: "Chart", use: "chart" },
  figure: { label: "Key figure", use: "value" },
  sentence: { label: "Value in the text", use: "value" },
  notes: { label: "Value in the notes", use: "value" },
} as const satisfies Record<string, { label: string; use: BindingUse | undefined }>;
type Way = keyof typeof WAYS;

const newId = () => nanoid(10);

/** Returns a slide with a value at the end of its notes. */
function withNote(slide: Slide, bound: Bound & { kind: "value" }): Slide {
  const runs = [{ text: `${bound.name}: ` }, bound.run];
  return { ...slide, notes: [...slide.notes, { kind: "plain", level: 0, runs }] };
}

/** Takes cells of a workbook for the deck, drawn on their slide before they land. */
export function PutOnSlide({
  source: first,
  sources,
  range: initial,
  slide,
  onUnlinked,
  onClose,
}: {
  source: SourceSummary;
  sources: readonly SourceSummary[];
  /** Cells that are chosen at first. */
  range?: string | undefined;
  /** The slide that they go on at first; a new one unless given. */
  slide?: string | undefined;
  /** Puts the cells on the slide without a link, where they came from the clipboard. */
  onUnlinked?: (() => void) | undefined;
  onClose: () => void;
}) {
  const { deck, session, selected, select } = useDeck();
  const metadata = useMemo(() => metadataOf(deck), [deck]);
  const [sourceId, setSourceId] = useState(first.id);
  const source = sources.find(({ id }) => id === sourceId) ?? first;
  const choice = useCellChoice(source, initial);
  const [way, setWay] = useState<Way>(onUnlinked ? "table" : "fitting");
  const [use, setUse] = useState<BindingUse>("value");
  const [format, setFormat] = useState("");
  const [mode, setMode] = useState<BindingMode>("latest");
  const [target, setTarget] = useState<string>(slide ?? "new");
  const current = deck.slides.find(({ id }) => id === selected.at(-1)) ?? deck.slides.at(-1);

  const wanted = way === "fitting" ? undefined : WAYS[way].use === "value" ? use : WAYS[way].use;
  const { bound, problem } = useBoundCells({
    source: source.id,
    range: choice.range,
    use: wanted,
    mode,
    format: WAYS[way].use === "value" ? format : "",
  });
  const place = deck.slides.find(({ id }) => id === target);
  const made = useMemo((): { slide: Slide; number: number; fresh: boolean } | undefined => {
    if (!bound) return undefined;
    const on = way === "figure" ? undefined : way === "notes" || way === "sentence" ? (place ?? current) : place;
    if (!on) return { slide: slideWithBound(bound, newId), number: deck.slides.length + 1, fresh: true };
    const slide = way === "notes" && bound.kind === "value" ? withNote(on, bound) : putOnSlide(on, bound, deck, newId);
    return { slide, number: deck.slides.indexOf(on) + 1, fresh: false };
  }, [bound, way, place, current, deck]);

  function put() {
    if (!made || !bound) return;
    const change: Change = made.fresh
      ? insertAt([made.slide], { parent: current?.parent ?? null, after: current?.id ?? null })
      : { kind: "setSlide", slide: made.slide.id, as: made.slide };
    if (session.apply(change, { words: `Put ${bound.name} from ${source.name} on a slide` })) select([made.slide.id]);
  }

  return (
    <Dialog
      title={`Put cells of ${source.name} on a slide`}
      width="page"
      tall
      onClose={onClose}
      onSubmit={put}
      actions={(close) => (
        <>
          <button type="button" className="btn btn-ghost" onClick={close}>
            Cancel
          </button>
          {onUnlinked && (
            <button
              type="button"
              className="btn"
              onClick={() => {
                onUnlinked();
                close();
              }}
            >
              Paste without a link
            </button>
          )}
          <button type="submit" className="btn btn-primary" disabled={!made}>
            {made?.fresh === false ? `Put on slide ${made.number}` : "Put on a new slide"}
          </button>
        </>
      )}
    >
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_20rem] gap-4">
        <WorkbookView key={source.id} source={source} choice={choice} language={deck.language} />
        <div className="flex min-h-0 flex-col gap-3 overflow-auto text-sm">
          {sources.length > 1 && (
            <SourceField
              sources={sources}
              source={source}
              onSource={({ id }) => {
                setSourceId(id);
                choice.clear();
              }}
            />
          )}
          <label className="block">
            Make of them
            <select
              className="select select-sm w-full"
              value={way}
              onChange={(event) => setWay(event.target.value as Way)}
            >
              {Object.entries(WAYS).map(([key, { label }]) => (
                <option key={key} value={key}>
                  {label}
                </option>
              ))}
            </select>
          </label>
          {WAYS[way].use === "value" && <NumberField use={use} onUse={setUse} />}
          {WAYS[way].use === "value" && <FormatField format={format} onFormat={setFormat} />}
          {way !== "figure" && (
            <label className="block">
              On
              <select
                className="select select-sm w-full"
                value={target}
                onChange={(event) => setTarget(event.target.value)}
              >
                <option value="new">
                  {way === "sentence" || way === "notes"
                    ? `this slide (${deck.slides.indexOf(current as Slide) + 1})`
                    : "a new slide after this one"}
                </option>
                {deck.slides.map((slide, nth) => (
                  <option key={slide.id} value={slide.id}>
                    {nth + 1}. {nameOf(slide).slice(0, 60) || "(no title)"}
                  </option>
                ))}
              </select>
            </label>
          )}
          <ModeField mode={mode} onMode={setMode} />
          <figure aria-label="Preview">
            {made ? (
              <SmallSlide
                slide={made.slide}
                number={made.number}
                metadata={metadata}
                deck={deck.id}
                width={312}
                label="Preview"
              />
            ) : (
              <div className="bg-base-200 quiet grid aspect-video place-items-center p-4 text-center">
                {problem || (choice.range ? "Taking the cells …" : "Select cells to see them on a slide.")}
              </div>
            )}
            {made && way === "notes" && bound?.kind === "value" && (
              <figcaption className="pt-1">
                In the notes: {bound.name}: <strong>{bound.run.text}</strong>
              </figcaption>
            )}
          </figure>
        </div>
      </div>
    </Dialog>
  );
}
