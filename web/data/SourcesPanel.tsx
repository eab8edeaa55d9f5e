import { WORKBOOKS, workbookKind } from "@unitext/core/model";
import { listExtensions } from "@unitext/core/formats/catalogue";
import { SourceTaken, type SourceSummary } from "@unitext/server/api";
import { Download, FileSpreadsheet, FolderOpen, Plus } from "lucide-react";
import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { mutate } from "swr";
import { z } from "zod";
import { reloadSources } from "../sources/useSources";
import { InsideFile } from "./InsideFile";
import { download, post, remove } from "../api/client";
import { useFileChooser } from "../ui/useFileChooser";

const when = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

/** The workbooks that feed decks: their versions, where they are used, and the way in. */
export function SourcesPanel({
  sources,
  onFiles,
  onOpen,
  onFind,
  onType,
  onSaid,
}: {
  sources: readonly SourceSummary[] | undefined;
  onFiles: (files: readonly File[]) => void;
  onOpen: (source: SourceSummary) => void;
  /** Looks for numbers in the deck that repeat cells of a source. */
  onFind: (source: SourceSummary) => void;
  /** Opens a sheet that is typed; a new one without a source. */
  onType: (source?: SourceSummary) => void;
  /** Says what became of something. */
  onSaid: (line: string) => void;
}) {
  const chooser = useFileChooser({
    label: "Workbooks to bring in",
    accept: WORKBOOKS.map((kind) => `.${kind}`).join(","),
    multiple: true,
    onFiles: (files) => onFiles(files.filter(({ name }) => workbookKind(name))),
  });
  return (
    <aside
      aria-label="Sources"
      className="hairline flex min-h-0 flex-col overflow-auto px-4 py-3 text-sm max-md:border-t md:border-l"
    >
      <div className="mb-2 flex items-center gap-1">
        <h2 className="mr-auto font-semibold">Sources</h2>
        <button
          type="button"
          title="Takes workbooks and tables from files: .xlsx, .ods, .csv"
          className="btn btn-xs"
          onClick={chooser.choose}
        >
          <FolderOpen size={14} aria-hidden="true" /> Open
        </button>
        <button
          type="button"
          title="Opens an empty sheet to type or paste numbers into"
          className="btn btn-xs"
          onClick={() => onType()}
        >
          <Plus size={14} aria-hidden="true" /> New sheet
        </button>
        {chooser.input}
      </div>
      <AddressForm />
      {sources?.length === 0 && (
        <p className="quiet py-4">
          No workbook yet. Drop one here ({listExtensions(WORKBOOKS, "or")}); one with the name of a source becomes its
          newest version.
        </p>
      )}
      <ul className="space-y-3">
        {sources?.map((source) => (
          <SourceItem
            key={source.id}
            source={source}
            onOpen={() => onOpen(source)}
            onFind={() => onFind(source)}
            onType={() => onType(source)}
          />
        ))}
      </ul>
      <InsideFile onTaken={onSaid} />
    </aside>
  );
}

/** Adds a workbook that is fetched from an address again and again. */
function AddressForm() {
  const [address, setAddress] = useState("");
  const [problem, setProblem] = useState("");
  const [busy, setBusy] = useState(false);
  async function add(event: FormEvent) {
    event.preventDefault();
    setBusy(true);
    setProblem("");
    try {
      await post("/sources/address", { address }, SourceTaken);
      setAddress("");
      await reloadSources();
    } catch (reason) {
      setProblem((reason as Error).message);
    } finally {
      setBusy(false);
    }
  }
  return (
    <form onSubmit={(event) => void add(event)} className="mb-3">
      <div className="flex gap-1">
        <input
          className="input input-xs min-w-0 flex-1"
          aria-label="Address of a workbook"
          placeholder="or its address, https://…"
          value={address}
          onChange={(event) => setAddress(event.target.value)}
        />
        <button type="submit" className="btn btn-xs" disabled={!address.trim() || busy}>
          Add
        </button>
      </div>
      {problem && (
        <p role="alert" className="text-error mt-1 text-xs">
          {problem}
        </p>
      )}
    </form>
  );
}

function SourceItem({
  source,
  onOpen,
  onFind,
  onType,
}: {
  source: SourceSummary;
  onOpen: () => void;
  onFind: () => void;
  onType: () => void;
}) {
  const { id, name, versions, decks } = source;
  const [newest] = versions;
  const behind = decks.reduce((sum, deck) => sum + deck.behind, 0);
  const takeAll = () =>
    post(`/sources/${id}/refresh`, { take: "all" }, z.object({ job: z.string() })).then(() => mutate("/jobs"));
  const fetchNow = () =>
    post(`/sources/${id}/fetch`, {}, z.object({ fresh: z.boolean() })).finally(() => reloadSources());
  return (
    <li className="hairline border p-2" data-source={name}>
      <p className="flex items-center gap-2 font-semibold">
        <FileSpreadsheet size={16} aria-hidden="true" className="text-primary shrink-0" />
        <span className="min-w-0 truncate" title={name}>
          {name}
        </span>
      </p>
      {source.address && (
        <p className="quiet truncate text-xs" title={source.address}>
          {source.address}
        </p>
      )}
      {source.problem && (
        <p role="alert" className="border-warning my-1 border-l-4 pl-2 text-xs">
          {source.problem}
        </p>
      )}
      {newest && (
        <p className="quiet text-xs">
          {when.format(new Date(newest.at))}, {newest.from}
        </p>
      )}
      {versions.length > 1 && (
        <details>
          <summary className="cursor-pointer text-xs">{versions.length} versions</summary>
          <ul className="max-h-40 overflow-auto py-1 text-xs">
            {versions.map(({ version, at, from, size }, nth) => (
              <li key={version} className="flex items-baseline gap-1">
                <span className="min-w-0 flex-1 truncate" title={version}>
                  {when.format(new Date(at))}, {from}
                  <span className="quiet"> {Math.max(1, Math.round(size / 1000))} kB</span>
                  {nth === 0 ? " (newest)" : ""}
                </span>
                <button
                  type="button"
                  className="btn btn-ghost btn-xs"
                  aria-label={`Download the version of ${when.format(new Date(at))}`}
                  title={`Download the version of ${when.format(new Date(at))}`}
                  onClick={() => void download(`/sources/${id}/file?version=${version}`)}
                >
                  <Download size={12} aria-hidden="true" />
                </button>
              </li>
            ))}
          </ul>
        </details>
      )}
      <div className="my-1 flex flex-wrap gap-1">
        <button type="button" className="btn btn-xs" onClick={onOpen}>
          Put on slide
        </button>
        {source.typed && (
          <button type="button" className="btn btn-ghost btn-xs" onClick={onType}>
            Change cells
          </button>
        )}
        {source.address && (
          <button type="button" className="btn btn-ghost btn-xs" onClick={() => void fetchNow()}>
            Fetch now
          </button>
        )}
        <button
          type="button"
          className="btn btn-ghost btn-xs"
          title="Finds numbers in texts and notes that repeat its cells"
          onClick={onFind}
        >
          Find typed numbers
        </button>
        <button type="button" className="btn btn-ghost btn-xs" onClick={() => void download(`/sources/${id}/file`)}>
          Download
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-xs"
          onClick={() => void remove(`/sources/${id}`).then(() => mutate("/sources"))}
          title="Decks keep the values that they show"
        >
          Remove
        </button>
      </div>
      {decks.length > 0 && (
        <details>
          <summary className="cursor-pointer text-xs">
            Used in {decks.length} {decks.length === 1 ? "deck" : "decks"}
            {behind > 0 ? `, ${behind} to compare` : ""}
          </summary>
          <ul className="py-1">
            {decks.map((deck) => (
              <li key={deck.id}>
                <Link className="underline-offset-4 hover:underline" to={`/decks/${deck.id}/data`}>
                  {deck.title || "Untitled"}
                </Link>{" "}
                <span className="quiet text-xs">
                  {deck.bindings}
                  {deck.behind ? `, ${deck.behind} to compare` : ""}
                </span>
              </li>
            ))}
          </ul>
          {behind > 0 && (
            <button type="button" className="btn btn-xs" onClick={() => void takeAll()}>
              Take new values in all decks
            </button>
          )}
        </details>
      )}
    </li>
  );
}
