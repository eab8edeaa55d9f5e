import { BINDING_MODES, type BindingMode, must } from "@unitext/core/model";
import type { CheckedBinding, SourceSummary } from "@unitext/server/api";
import { insertAt, sourcesSlide } from "@unitext/core/edit";
import { ListTree } from "lucide-react";
import { nanoid } from "nanoid";
import { useNavigate } from "react-router";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useRef, useState } from "react";
import { mutate } from "swr";
import { useDeck } from "../deck/DeckContext";
import { isOpen, JobLine, useJobs } from "../jobs";
import { DeckFrame } from "../shell/DeckFrame";
import { ChooseCells } from "../sources/ChooseCells";
import { MODE_LABELS } from "../sources/fields";
import { PutOnSlide } from "../sources/PutOnSlide";
import { TypedSheetDialog } from "../sources/TypedSheetDialog";
import { useIncoming } from "../sources/useIncoming";
import { useSources } from "../sources/useSources";
import { useFileDrop } from "../ui/useFileDrop";
import { BindingRow, STATE_LABELS } from "./BindingRow";
import { CompareDialog } from "./CompareDialog";
import { SourcesPanel } from "./SourcesPanel";
import { TypedNumbersDialog } from "./TypedNumbersDialog";
import { useBindings } from "./useBindings";

/** Whether a binding has something newer to take. */
const hasNew = ({ state }: CheckedBinding) => state === "stale" || state === "moved";

/** What a binding makes of its cells. */
function wantedOf({ binding: { use } }: CheckedBinding): "table" | "chart" | "value" {
  return use === "table" || use === "chart" ? use : "value";
}

/** Keeps the place of rows that are not in the page. */
function Gap({ height }: { height: number }) {
  if (height <= 0) return null;
  return (
    <tr>
      <td colSpan={8} style={{ height }} />
    </tr>
  );
}

/** Data: the values that slides show of workbooks, what has changed, and the workbooks themselves. */
export default function Data() {
  const { deck, session, canEdit } = useDeck();
  const navigate = useNavigate();
  const { checks, settled, unread, error, busy, take, withValues, setMode, rebind, unlink } = useBindings();
  const { sources } = useSources();
  const jobs = useJobs().filter(({ kind }) => kind === "refresh");
  const running = jobs.filter(isOpen).length;
  // Where sources are used changes when values have been taken.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the list is read again when a job ends.
  useEffect(() => void mutate("/sources"), [running, checks]);
  const [shown, setShown] = useState<"all" | CheckedBinding["state"]>("all");
  const [source, setSource] = useState("");
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [comparing, setComparing] = useState<readonly CheckedBinding[]>();
  const [rebinding, setRebinding] = useState<CheckedBinding>();
  const [putting, setPutting] = useState<SourceSummary>();
  const [finding, setFinding] = useState<SourceSummary>();
  const [said, setSaid] = useState<string[]>([]);
  const [typing, setTyping] = useState<{ source?: SourceSummary }>();
  const incoming = useIncoming(deck.language);
  const receive = (files: readonly File[]) => void incoming.receive(files).then(setSaid);
  const { over, handlers } = useFileDrop(receive, (problem) => session.notify(problem));

  const names = [...new Set(checks?.map(({ binding }) => binding.source))];
  const own = jobs.filter(({ name }) => names.includes(name));
  const latest = own.find(isOpen) ?? own[0];
  const states = [...new Set(checks?.map(({ state }) => state))];
  const rows = (checks ?? []).filter(
    ({ state, binding }) => (shown === "all" || state === shown) && (source === "" || binding.source === source),
  );
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 69,
    overscan: 6,
  });
  const shownRows = virtual.getVirtualItems();
  const fresh = rows.filter(hasNew);
  const picked = rows.filter(({ key }) => chosen.has(key));

  /** Adds the slide that lists the sources at the end, or shows the one that is there. */
  function listSources() {
    const there = deck.slides.find(({ elements }) => elements.some((one) => one.kind === "table" && one.lists));
    const slide = there ?? sourcesSlide(deck, () => nanoid(10));
    const after = deck.slides.findLast(({ parent }) => parent === null)?.id ?? null;
    if (there || session.apply(insertAt([slide], { parent: null, after }), { words: "Added a slide with the sources" }))
      void navigate(`/decks/${deck.id}/refine/${slide.id}`);
  }

  const tools = (
    <div className="flex items-center gap-2">
      <button
        type="button"
        className="btn btn-primary btn-sm"
        disabled={!canEdit || busy || !settled || !fresh.length}
        onClick={() => setComparing(fresh)}
      >
        {fresh.length > 1
          ? `Compare ${fresh.length} new values`
          : fresh.length
            ? "Compare the new value"
            : "Everything is up to date"}
      </button>
    </div>
  );
  return (
    <DeckFrame place="Data" tools={tools}>
      <div
        className={`h-full overflow-auto md:grid md:grid-cols-[minmax(0,1fr)_17rem] md:overflow-hidden ${over ? "outline-4 -outline-offset-4 outline-primary" : ""}`}
        {...handlers}
      >
        <div className="flex min-h-0 min-w-0 flex-col">
          <div className="hairline flex flex-wrap items-center gap-3 border-b px-4 py-2 text-sm">
            <label className="flex items-center gap-2">
              Show
              <select
                className="select select-xs"
                value={shown}
                onChange={(event) => setShown(event.target.value as typeof shown)}
              >
                <option value="all">all</option>
                {states.map((state) => (
                  <option key={state} value={state}>
                    {STATE_LABELS[state]}
                  </option>
                ))}
              </select>
            </label>
            {names.length > 1 && (
              <label className="flex items-center gap-2">
                from
                <select className="select select-xs" value={source} onChange={(event) => setSource(event.target.value)}>
                  <option value="">every source</option>
                  {names.map((name) => (
                    <option key={name}>{name}</option>
                  ))}
                </select>
              </label>
            )}
            {checks && checks.length > 0 && canEdit && picked.length === 0 && (
              <button
                type="button"
                className="btn btn-ghost btn-xs ml-auto"
                title="A slide at the end that lists where the values come from, and follows them"
                onClick={listSources}
              >
                <ListTree size={14} aria-hidden="true" /> Slide “Sources”
              </button>
            )}
            {picked.length > 0 && (
              <div className="ml-auto flex flex-wrap items-center gap-1" role="group" aria-label="Chosen values">
                <span className="quiet">{picked.length} chosen:</span>
                <button
                  type="button"
                  className="btn btn-xs"
                  disabled={!canEdit || busy || !settled || !picked.some(hasNew)}
                  onClick={() => setComparing(picked.filter(hasNew))}
                >
                  Compare new values
                </button>
                <select
                  className="select select-xs w-40"
                  aria-label="How the chosen values follow their source"
                  value=""
                  disabled={!canEdit}
                  onChange={(event) => setMode(picked, event.target.value as BindingMode)}
                >
                  <option value="" disabled>
                    Follow …
                  </option>
                  {BINDING_MODES.map((mode) => (
                    <option key={mode} value={mode}>
                      {MODE_LABELS[mode]}
                    </option>
                  ))}
                </select>
                <button type="button" className="btn btn-xs" disabled={!canEdit} onClick={() => unlink(picked)}>
                  Unlink
                </button>
              </div>
            )}
          </div>
          <div role="status" className="px-4">
            {said.map((line) => (
              <p key={line} className="border-secondary my-1 border-l-4 px-3 text-sm">
                {line}
              </p>
            ))}
            {unread.map(({ source: name, reason }) => (
              <p key={name} className="border-error my-1 border-l-4 px-3 text-sm">
                {name} could not be read: {reason}
              </p>
            ))}
            {error && <p className="text-error">{error.message}</p>}
            {latest && <JobLine job={latest} />}
          </div>
          <div ref={scroller} className="min-h-0 flex-1 overflow-auto max-md:h-80 max-md:flex-none" data-bindings>
            {checks && checks.length === 0 && (
              <div className="mx-auto max-w-lg px-6 py-16 text-center">
                <p className="mb-2">No slide of this deck shows values of a workbook yet.</p>
                <p className="quiet mb-4">
                  Drop a workbook here. Its cells can be put on slides as a table, a chart, a key figure, or a value in
                  a sentence or in the notes, and follow it when it changes.
                </p>
                {sources?.[0] && (
                  <button type="button" className="btn btn-primary" onClick={() => setPutting(sources[0])}>
                    Put cells of {sources[0].name} on a slide
                  </button>
                )}
              </div>
            )}
            {rows.length > 0 && (
              <table className="w-full min-w-[54rem] table-fixed">
                <caption className="sr-only">Linked values in running order</caption>
                <colgroup>
                  {["2.25rem", "auto", "7.5rem", "4.5rem", "6rem", "5.75rem", "7.75rem", "8.75rem"].map((width) => (
                    <col key={width} style={{ width }} />
                  ))}
                </colgroup>
                <thead className="bg-base-100 sticky top-0 z-10">
                  <tr className="quiet text-sm">
                    <td />
                    {["Slide", "Cells", "Shown", "New", "Difference", "Follows", "State"].map((label) => (
                      <th
                        key={label}
                        scope="col"
                        className={`px-2 font-normal ${["Shown", "New", "Difference"].includes(label) ? "text-right" : "text-left"}`}
                      >
                        {label}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {/* Only the rows in view are in the page; two empty ones keep the place of the others. */}
                  <Gap height={shownRows[0]?.start ?? 0} />
                  {shownRows
                    .map(({ index }) => ({ index, check: must(rows[index]) }))
                    .map(({ index, check }) => (
                      <BindingRow
                        key={check.key}
                        measure={virtual.measureElement}
                        index={index}
                        check={check}
                        chosen={chosen.has(check.key)}
                        canEdit={canEdit}
                        onChoose={(on) =>
                          setChosen(
                            (now) => new Set(on ? [...now, check.key] : [...now].filter((key) => key !== check.key)),
                          )
                        }
                        onMode={(mode) => setMode([check], mode)}
                        onCompare={() => setComparing([check])}
                        onRebind={() => setRebinding(check)}
                        onUnlink={() => unlink([check])}
                      />
                    ))}
                  <Gap height={virtual.getTotalSize() - (shownRows.at(-1)?.end ?? 0)} />
                </tbody>
              </table>
            )}
          </div>
        </div>
        <SourcesPanel
          sources={sources}
          onFiles={receive}
          onOpen={setPutting}
          onFind={setFinding}
          onType={(source) => setTyping(source ? { source } : {})}
          onSaid={(line) => setSaid([line])}
        />
      </div>
      {comparing && (
        <CompareDialog
          checks={comparing}
          withValues={withValues}
          onTake={() => void take(comparing.map(({ key }) => key))}
          onClose={() => setComparing(undefined)}
        />
      )}
      {finding && <TypedNumbersDialog source={finding} onClose={() => setFinding(undefined)} />}
      {putting && <PutOnSlide source={putting} sources={sources ?? []} onClose={() => setPutting(undefined)} />}
      {rebinding && (
        <ChooseCells
          title={`Cells on slide ${rebinding.slide}`}
          wanted={wantedOf(rebinding)}
          binding={rebinding.binding}
          act="Tie to these cells"
          onChosen={(bound) => rebind(rebinding, bound)}
          onClose={() => setRebinding(undefined)}
        />
      )}
      {typing && (
        <TypedSheetDialog
          source={typing.source}
          onSaid={(line) => setSaid([line])}
          onClose={() => setTyping(undefined)}
        />
      )}
      {incoming.dialog}
    </DeckFrame>
  );
}
