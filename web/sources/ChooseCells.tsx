import type { Bound } from "@unitext/core/data";
import type { Binding, BindingMode, BindingUse, ChartType } from "@unitext/core/model";
import type { SourceSummary } from "@unitext/server/api";
import { type ReactNode, type SyntheticEvent, useState } from "react";
import { createPortal } from "react-dom";
import { useDeck } from "../deck/DeckContext";
import { Dialog } from "../ui/Dialog";
import { FormatField, ModeField, NumberField, SourceField } from "./fields";
import { useBoundCells } from "./useBoundCells";
import { useCellChoice } from "./useCellChoice";
import { useIncoming } from "./useIncoming";
import { useSources } from "./useSources";
import { WorkbookView } from "./WorkbookView";

/** What is made of the chosen cells. */
type Wanted = "value" | "table" | "chart";

const WANTED: Record<Wanted, string> = { value: "A value in the sentence", table: "A table", chart: "A chart" };

interface Props {
  title: string;
  /** What is made of them; chosen in the dialog unless given. */
  wanted?: Wanted;
  /** The binding that is changed; its cells are chosen at first. */
  binding?: Binding | undefined;
  chartType?: ChartType | undefined;
  /** The words of the main act. */
  act: string;
  onChosen: (bound: Bound) => void;
  onClose: () => void;
}

/** Chooses cells of a source for a value, a table or a chart that has its place already. */
export function ChooseCells(props: Props) {
  const { sources } = useSources();
  // It may be opened inside a text on a slide, whose letters it must not inherit.
  return createPortal(
    <Apart>
      {sources?.length ? (
        <CellsDialog {...props} sources={sources} />
      ) : (
        <NoSource {...props} loaded={sources !== undefined} />
      )}
    </Apart>,
    document.body,
  );
}

/** Keeps presses in a dialog from what it was opened in, which would take them for its own. */
function Apart({ children }: { children: ReactNode }) {
  const stop = (event: SyntheticEvent) => event.stopPropagation();
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: nothing can be done with it; it only ends events.
    <div
      role="presentation"
      onPointerDown={stop}
      onMouseDown={stop}
      onClick={stop}
      onDoubleClick={stop}
      onKeyDown={stop}
      onPaste={stop}
    >
      {children}
    </div>
  );
}

function NoSource({ title, loaded, onClose }: Props & { loaded: boolean }) {
  const { deck } = useDeck();
  const { receive, dialog } = useIncoming(deck.language);
  const [said, setSaid] = useState<string[]>([]);
  return (
    <Dialog
      title={title}
      onClose={onClose}
      actions={(close) => (
        <button type="button" className="btn" onClick={close}>
          Cancel
        </button>
      )}
    >
      {loaded ? (
        <label className="block">
          There is no workbook yet. Choose one (.xlsx, .ods, .csv or .tsv):
          <input
            type="file"
            className="file-input file-input-sm mt-2 w-full"
            onChange={(event) => void receive([...(event.target.files ?? [])]).then(setSaid)}
          />
        </label>
      ) : (
        <p className="quiet">Looking for workbooks …</p>
      )}
      {said.map((line) => (
        <p key={line} role="alert" className="mt-2 text-sm">
          {line}
        </p>
      ))}
      {dialog}
    </Dialog>
  );
}

function CellsDialog({
  title,
  wanted: given,
  binding,
  chartType,
  act,
  onChosen,
  onClose,
  sources,
}: Props & { sources: readonly SourceSummary[] }) {
  const { deck } = useDeck();
  const [source, setSource] = useState(
    () => sources.find(({ name }) => name === binding?.source) ?? (sources[0] as SourceSummary),
  );
  const [mode, setMode] = useState<BindingMode>(binding?.mode ?? "latest");
  const [wanted, setWanted] = useState<Wanted>(given ?? "value");
  const [number, setNumber] = useState<BindingUse>(binding?.use ?? "value");
  const use = wanted === "value" ? number : wanted;
  const [format, setFormat] = useState(binding?.format ?? "");
  const choice = useCellChoice(source, source.name === binding?.source ? binding?.range : undefined);
  const { bound, problem } = useBoundCells({
    source: source.id,
    range: choice.range,
    use,
    mode,
    chartType,
    format: wanted === "value" ? format : "",
  });
  return (
    <Dialog
      title={title}
      width="page"
      tall
      onClose={onClose}
      onSubmit={() => bound && onChosen(bound)}
      actions={(close) => (
        <>
          <button type="button" className="btn btn-ghost" onClick={close}>
            Cancel
          </button>
          <button type="submit" className="btn btn-primary" disabled={!bound}>
            {act}
          </button>
        </>
      )}
    >
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_16rem] gap-4">
        <WorkbookView key={source.id} source={source} choice={choice} language={deck.language} />
        <div className="flex min-h-0 flex-col gap-3 overflow-auto text-sm">
          {sources.length > 1 && (
            <SourceField
              sources={sources}
              source={source}
              onSource={(next) => {
                setSource(next);
                choice.clear();
              }}
            />
          )}
          {!given && (
            <label className="block">
              Make of them
              <select
                className="select select-sm w-full"
                value={wanted}
                onChange={(event) => setWanted(event.target.value as Wanted)}
              >
                {Object.entries(WANTED).map(([key, label]) => (
                  <option key={key} value={key}>
                    {label}
                  </option>
                ))}
              </select>
            </label>
          )}
          {wanted === "value" && <NumberField use={number} onUse={setNumber} />}
          {wanted === "value" && <FormatField format={format} onFormat={setFormat} />}
          <ModeField mode={mode} onMode={setMode} />
          <p role="status" className={problem ? "text-error" : ""}>
            {problem || (bound ? <Preview bound={bound} /> : choice.range ? "Taking the cells …" : "Select the cells.")}
          </p>
        </div>
      </div>
    </Dialog>
  );
}

function Preview({ bound }: { bound: Bound }) {
  if (bound.kind === "value")
    return (
      <>
        {bound.name}: <strong className="tabular-nums">{bound.run.text}</strong>
      </>
    );
  const { element } = bound;
  if (element.kind === "table")
    return (
      <>
        {element.rows.length} rows of {element.rows[0]?.length} columns
      </>
    );
  if (element.kind === "chart")
    return (
      <>
        {element.series.length} series over {element.categories.length} categories
      </>
    );
  return null;
}
