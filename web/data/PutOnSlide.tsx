import { type Bound, putOnSlide, slideWithBound } from "@unitext/core/data";
import { type Change, insertAt } from "@unitext/core/edit";
import {
  BINDING_MODES,
  type BindingMode,
  type BindingUse,
  type CellRange,
  formatAddress,
  metadataOf,
  nameOf,
  parseCells,
  type Slide,
} from "@unitext/core/model";
import { BoundCells, type SourceSummary, WorkbookContents } from "@unitext/server/api";
import { nanoid } from "nanoid";
import { useEffect, useMemo, useState } from "react";
import useSWR from "swr";
import { get, post } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";
import { Dialog } from "../ui/Dialog";
import { MODE_LABELS } from "./BindingRow";
import { SheetGrid } from "./SheetGrid";

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

const NUMBERS: Partial<Record<BindingUse, string>> = {
  value: "the value",
  sum: "their sum",
  mean: "their mean",
  min: "the smallest",
  max: "the largest",
  count: "how many there are",
  change: "the change since the last version",
  percent: "the change in percent",
};

const newId = () => nanoid(10);

/** Returns a slide with a value at the end of its notes. */
function withNote(slide: Slide, bound: Bound & { kind: "value" }): Slide {
  const runs = [{ text: `${bound.name}: ` }, bound.run];
  return { ...slide, notes: [...slide.notes, { kind: "plain", level: 0, runs }] };
}

/** Takes cells as they would be put on a slide; they are asked for when the choice has rested for a moment. */
function useBoundCells(source: string, range: string | undefined, use: BindingUse | undefined, mode: BindingMode) {
  const { deck } = useDeck();
  const [bound, setBound] = useState<Bound>();
  const [problem, setProblem] = useState("");
  useEffect(() => {
    setBound(undefined);
    setProblem("");
    if (range === undefined) return;
    let gone = false;
    const timer = setTimeout(() => {
      post(`/decks/${deck.id}/bindings`, { source, range, mode, ...(use ? { use } : {}) }, BoundCells).then(
        (made) => !gone && setBound(made),
        (reason: Error) => !gone && setProblem(reason.message),
      );
    }, 150);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [deck.id, source, range, use, mode]);
  return { bound, problem };
}

/** Takes cells of a workbook for the deck, drawn on their slide before they land. */
export function PutOnSlide({ source, onClose }: { source: SourceSummary; onClose: () => void }) {
  const { deck, session, selected, select } = useDeck();
  const metadata = useMemo(() => metadataOf(deck), [deck]);
  const { data: contents, error } = useSWR(`/sources/${source.id}/contents@${source.versions[0]?.version}`, () =>
    get(`/sources/${source.id}/contents`, WorkbookContents),
  );
  const [sheet, setSheet] = useState<string>();
  const [area, setArea] = useState<CellRange>();
  const [named, setNamed] = useState<string>();
  const [way, setWay] = useState<Way>("fitting");
  const [use, setUse] = useState<BindingUse>("value");
  const [mode, setMode] = useState<BindingMode>("latest");
  const [target, setTarget] = useState<string>("new");
  const info = contents?.sheets.find(({ name }) => name === sheet) ?? contents?.sheets.find(({ hidden }) => !hidden);
  const range = named ?? (info && area ? formatAddress({ sheet: info.name, ...area }) : undefined);
  const current = deck.slides.find(({ id }) => id === selected.at(-1)) ?? deck.slides.at(-1);

  const wanted = way === "fitting" ? undefined : WAYS[way].use === "value" ? use : WAYS[way].use;
  const { bound, problem } = useBoundCells(source.id, range, wanted, mode);
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

  const choose = (name: string, at: { sheet: string; cells: string } | null) => {
    setNamed(name);
    if (!at) return;
    setSheet(at.sheet);
    setArea(parseCells(at.cells));
  };
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
          <button type="submit" className="btn btn-primary" disabled={!made}>
            {made?.fresh === false ? `Put on slide ${made.number}` : "Put on a new slide"}
          </button>
        </>
      )}
    >
      {error && <p role="alert">{(error as Error).message}</p>}
      {!contents && !error && <p className="quiet">Reading {source.name} …</p>}
      {contents && info && (
        <div className="grid min-h-0 flex-1 grid-cols-[1fr_20rem] gap-4">
          <div className="flex min-h-0 flex-col">
            <div className="flex flex-wrap gap-1 pb-1" role="group" aria-label="Sheets">
              {contents.sheets.map(({ name, hidden }) => (
                <button
                  key={name}
                  type="button"
                  className={`btn btn-xs ${name === info.name ? "btn-primary" : ""}`}
                  aria-pressed={name === info.name}
                  onClick={() => {
                    setSheet(name);
                    setArea(undefined);
                    setNamed(undefined);
                  }}
                >
                  {name}
                  {hidden ? " (hidden)" : ""}
                </button>
              ))}
            </div>
            {(contents.names.length > 0 || contents.tables.length > 0 || contents.charts.length > 0) && (
              <div
                className="flex flex-wrap items-center gap-1 pb-1 text-xs"
                role="group"
                aria-label="Names, tables and charts"
              >
                <span className="quiet">Followed by name:</span>
                {[...contents.tables, ...contents.names].map(({ name, at }) => (
                  <button
                    key={name}
                    type="button"
                    className={`btn btn-xs ${named === name ? "btn-secondary" : "btn-ghost"}`}
                    aria-pressed={named === name}
                    disabled={!at}
                    onClick={() => choose(name, at)}
                  >
                    {name}
                  </button>
                ))}
                {contents.charts.map(({ name }) => (
                  <button
                    key={name}
                    type="button"
                    className={`btn btn-xs ${named === `chart:${name}` ? "btn-secondary" : "btn-ghost"}`}
                    aria-pressed={named === `chart:${name}`}
                    onClick={() => choose(`chart:${name}`, null)}
                  >
                    Chart “{name}”
                  </button>
                ))}
              </div>
            )}
            <SheetGrid
              source={source.id}
              version={source.versions[0]?.version ?? ""}
              sheet={info.name}
              rows={info.rows}
              columns={info.columns}
              language={deck.language}
              range={area}
              onRange={(next) => {
                setArea(next);
                setNamed(undefined);
              }}
            />
            {contents.remarks.map((remark) => (
              <p key={remark} className="quiet pt-1 text-xs">
                {remark}
              </p>
            ))}
          </div>
          <div className="flex min-h-0 flex-col gap-3 overflow-auto text-sm">
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
            {WAYS[way].use === "value" && (
              <label className="block">
                Show
                <select
                  className="select select-sm w-full"
                  value={use}
                  onChange={(event) => setUse(event.target.value as BindingUse)}
                >
                  {Object.entries(NUMBERS).map(([key, label]) => (
                    <option key={key} value={key}>
                      {label}
                    </option>
                  ))}
                </select>
              </label>
            )}
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
            <label className="block">
              When the workbook changes
              <select
                className="select select-sm w-full"
                value={mode}
                onChange={(event) => setMode(event.target.value as BindingMode)}
              >
                {BINDING_MODES.map((one) => (
                  <option key={one} value={one}>
                    {MODE_LABELS[one]}
                  </option>
                ))}
              </select>
            </label>
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
                  {problem || (range ? "Taking the cells …" : "Select cells to see them on a slide.")}
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
      )}
    </Dialog>
  );
}
