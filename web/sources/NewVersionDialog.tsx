import type { VersionPreview } from "@unitext/server/api";
import { useRef } from "react";
import { Dialog } from "../ui/Dialog";

/** What becomes of a workbook with the name of a source: its newest version, a source of its own, or nothing. */
export type Decision = "take" | "apart" | "leave";

const count = (number: number, one: string, more: string) => `${number.toLocaleString()} ${number === 1 ? one : more}`;

function Names({ label, names }: { label: string; names: readonly string[] }) {
  if (!names.length) return null;
  return (
    <p className="text-sm">
      <span className="quiet">{label}:</span> {names.slice(0, 20).join(", ")}
      {names.length > 20 ? ` and ${names.length - 20} more` : ""}
    </p>
  );
}

/** Shows what a workbook changes before it becomes the newest version of the source with its name. */
export function NewVersionDialog({
  name,
  preview,
  onDecide,
}: {
  name: string;
  preview: VersionPreview;
  onDecide: (decision: Decision) => void;
}) {
  const decision = useRef<Decision>("leave");
  const { cells, following } = preview;
  const changed = preview.count
    ? `${count(preview.count, "cell differs", "cells differ")} from the newest version.`
    : "No cell differs from the newest version.";
  const follows = following.values
    ? ` ${count(following.values, "value follows", "values follow")} it by themselves, in ${count(following.decks, "deck", "decks")}; that can be undone in each.`
    : "";
  return (
    <Dialog
      title={`A newer version of ${name}?`}
      lead={changed + follows}
      width="wide"
      onClose={() => onDecide(decision.current)}
      onSubmit={() => (decision.current = "take")}
      actions={(close) => (
        <>
          <button type="button" className="btn btn-ghost" onClick={close}>
            Cancel
          </button>
          <button
            type="button"
            className="btn"
            onClick={() => {
              decision.current = "apart";
              close();
            }}
          >
            Keep as another source
          </button>
          <button type="submit" className="btn btn-primary">
            Take as the newest version
          </button>
        </>
      )}
    >
      <Names label="New sheets" names={preview.addedSheets} />
      <Names label="Sheets that are gone" names={preview.removedSheets} />
      <Names label="New names, tables and charts" names={preview.addedNames} />
      <Names label="Names, tables and charts that are gone" names={preview.removedNames} />
      {cells.length > 0 && (
        <div className="hairline mt-2 max-h-80 overflow-auto border">
          <table className="w-full text-sm">
            <caption className="sr-only">Cells that differ</caption>
            <thead className="bg-base-200 sticky top-0">
              <tr className="text-left">
                <th className="px-2 py-1 font-normal">Cell</th>
                <th className="px-2 py-1 font-normal">Row</th>
                <th className="px-2 py-1 text-right font-normal">Now</th>
                <th className="px-2 py-1 text-right font-normal">New</th>
              </tr>
            </thead>
            <tbody>
              {cells.map(({ cell, row, from, to }) => (
                <tr key={cell} className="hairline border-t">
                  <td className="px-2 py-0.5 whitespace-nowrap">{cell}</td>
                  <td className="max-w-56 truncate px-2 py-0.5">{row}</td>
                  <td className="max-w-40 truncate px-2 py-0.5 text-right tabular-nums">{from || "–"}</td>
                  <td className="max-w-40 truncate px-2 py-0.5 text-right font-semibold tabular-nums">{to || "–"}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {preview.count > cells.length && (
        <p className="quiet mt-1 text-sm">
          The first {cells.length} of {preview.count.toLocaleString()} cells are listed.
        </p>
      )}
    </Dialog>
  );
}
