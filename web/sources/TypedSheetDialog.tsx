import { readTypedRows } from "@unitext/core/data";
import type { SourceSummary } from "@unitext/server/api";
import { columnName } from "@unitext/core/model";
import { useEffect, useState } from "react";
import { Dialog } from "../ui/Dialog";
import { Sheet } from "../ui/Sheet";
import { sheetRows, type SheetRow, sheetTexts } from "../ui/sheetrows";
import { storeTyped } from "./useSources";

/** Rows and columns of a new sheet, and how many columns are added at a time. */
const [ROWS, COLUMNS, MORE] = [12, 6, 4];

/** Returns typed rows without the empty ones at the end and the empty columns on the right. */
function trimmed(rows: readonly SheetRow[], columns: number): string[][] {
  const texts = sheetTexts(rows, columns).map((row) => row.map((text) => text.trim()));
  const lastRow = texts.findLastIndex((row) => row.some((text) => text !== ""));
  const lastColumn = Math.max(-1, ...texts.map((row) => row.findLastIndex((text) => text !== "")));
  return texts.slice(0, lastRow + 1).map((row) => row.slice(0, lastColumn + 1));
}

/** Loads the rows of a sheet that was typed before. */
async function rowsOf(source: SourceSummary): Promise<string[][]> {
  const answer = await fetch(`/api/sources/${source.id}/file`);
  if (!answer.ok) throw new Error("The sheet could not be loaded. Try again.");
  return readTypedRows(await answer.text());
}

/** A sheet of one's own: its name and its cells, typed or pasted. Saving makes it a source, or its newest version. */
export function TypedSheetDialog({
  source,
  onSaid,
  onClose,
}: {
  /** The sheet that is changed; a new one unless given. */
  source?: SourceSummary | undefined;
  onSaid: (line: string) => void;
  onClose: () => void;
}) {
  const [name, setName] = useState(source?.name.replace(/\.csv$/, "") ?? "");
  const [columns, setColumns] = useState(COLUMNS);
  const [rows, setRows] = useState(() => sheetRows([], ROWS));
  const [ready, setReady] = useState(!source);
  const [problem, setProblem] = useState("");
  // biome-ignore lint/correctness/useExhaustiveDependencies: the sheet is loaded once, when the dialog opens.
  useEffect(() => {
    if (!source) return;
    rowsOf(source).then(
      (texts) => {
        setColumns(Math.max(COLUMNS, ...texts.map((row) => row.length + 1)));
        setRows(sheetRows(texts, Math.max(3, ROWS - texts.length)));
        setReady(true);
      },
      (error: Error) => setProblem(error.message),
    );
  }, []);
  const texts = trimmed(rows, columns);

  async function save(close: () => void) {
    setProblem("");
    try {
      const { known, fresh } = await storeTyped({ name, rows: texts });
      onSaid(
        !known
          ? `${name} is a source now.`
          : fresh
            ? `${name} is changed; values that always follow are taken.`
            : `${name} has not changed.`,
      );
      close();
    } catch (reason) {
      setProblem((reason as Error).message);
    }
  }

  return (
    <Dialog
      title={source ? `Change ${source.name.replace(/\.csv$/, "")}` : "New sheet"}
      lead="Names go into the first row and column. Cells copied from a spreadsheet can be pasted."
      width="page"
      onClose={onClose}
      // Escape ends the editing of a cell; it must not take the sheet away.
      onKeyDown={(event) => event.key === "Escape" && texts.length > 0 && event.preventDefault()}
      actions={(close) => (
        <>
          {problem && (
            <p role="alert" className="text-error mr-auto text-sm">
              {problem}
            </p>
          )}
          <button type="button" className="btn btn-ghost" onClick={close}>
            Cancel
          </button>
          <button
            type="button"
            className="btn btn-primary"
            disabled={!ready || !name.trim() || texts.length === 0}
            onClick={() => void save(close)}
          >
            Save
          </button>
        </>
      )}
    >
      <div className="flex items-end gap-3 pb-3">
        <label className="block">
          <span className="block text-sm">Name</span>
          <input
            className="input input-sm w-72"
            value={name}
            disabled={source !== undefined}
            maxLength={200}
            placeholder="such as Student numbers"
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <button type="button" className="btn btn-sm" onClick={() => setColumns(columns + MORE)}>
          {MORE} more columns
        </button>
      </div>
      {ready && <Sheet rows={rows} columns={columns} titleOf={columnName} onChange={setRows} />}
    </Dialog>
  );
}
