import { CSV_ENCODINGS, type CsvRead, type CsvReading } from "@unitext/core/model";
import { type SourceSummary, WorkbookContents } from "@unitext/server/api";
import { useState } from "react";
import { send } from "../api/client";
import { reloadSources } from "./useSources";

const DELIMITERS = { ",": "comma", ";": "semicolon", "\t": "tab", "|": "vertical bar" } as const;
const DECIMALS = { ".": "point (4.6)", ",": "comma (4,6)" } as const;

/** How a .csv was read, and fields that correct it. The workbook is read again at once. */
export function CsvReadingForm({ source, read }: { source: SourceSummary; read: CsvRead }) {
  const [problem, setProblem] = useState("");
  const [busy, setBusy] = useState(false);
  async function set(csv: CsvReading | null) {
    setBusy(true);
    setProblem("");
    try {
      await send("PUT", `/sources/${source.id}/reading`, { csv }, WorkbookContents);
      await reloadSources();
    } catch (reason) {
      setProblem((reason as Error).message);
    } finally {
      setBusy(false);
    }
  }
  const choose = (part: CsvReading) => void set({ ...source.csv, ...part });
  const encodings = [...new Set<string>([read.encoding, ...CSV_ENCODINGS])];
  return (
    <fieldset className="flex flex-wrap items-center gap-3 pb-1 text-xs" disabled={busy}>
      <legend className="sr-only">How the file is read</legend>
      <label className="flex items-center gap-1">
        Encoding
        <select
          className="select select-xs w-32"
          value={read.encoding}
          onChange={(event) => choose({ encoding: event.target.value })}
        >
          {encodings.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
      </label>
      <label className="flex items-center gap-1">
        Values separated by
        <select
          className="select select-xs w-28"
          value={read.delimiter}
          onChange={(event) => choose({ delimiter: event.target.value as CsvRead["delimiter"] })}
        >
          {Object.entries(DELIMITERS).map(([sign, label]) => (
            <option key={sign} value={sign}>
              {label}
            </option>
          ))}
        </select>
      </label>
      <label className="flex items-center gap-1">
        Decimal
        <select
          className="select select-xs w-28"
          value={read.decimal}
          onChange={(event) => choose({ decimal: event.target.value as CsvRead["decimal"] })}
        >
          {Object.entries(DECIMALS).map(([sign, label]) => (
            <option key={sign} value={sign}>
              {label}
            </option>
          ))}
        </select>
      </label>
      {source.csv && (
        <button type="button" className="btn btn-ghost btn-xs" onClick={() => void set(null)}>
          Recognise again
        </button>
      )}
      {problem && (
        <span role="alert" className="text-error">
          {problem}
        </span>
      )}
    </fieldset>
  );
}
