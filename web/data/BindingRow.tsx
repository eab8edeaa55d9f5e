import { BINDING_MODES, type BindingMode, metadataOf, nameOf } from "@unitext/core/model";
import type { CheckedBinding } from "@unitext/server/api";
import { useMemo } from "react";
import { Link } from "react-router";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";
import { MODE_LABELS } from "../sources/fields";
import { changedCells, difference } from "./changes";

export const STATE_LABELS: Record<CheckedBinding["state"], string> = {
  current: "up to date",
  stale: "new value",
  moved: "cells have moved",
  missing: "cells not found",
  error: "error in a cell",
  fixed: "stays as it is",
  unknown: "source not here",
};

const STATE_COLOURS: Partial<Record<CheckedBinding["state"], string>> = {
  stale: "border-warning",
  moved: "border-warning",
  missing: "border-error",
  error: "border-error",
};

const DAY = new Intl.DateTimeFormat(undefined, { day: "numeric", month: "short" });
/** What a binding shows, in one line: a value, or the first cells of a table or chart. */
function Shown({ text, emphasised }: { text: string; emphasised?: boolean }) {
  const rows = text.split("\n");
  return rows.length === 1 ? (
    <span className={`tabular-nums ${emphasised ? "font-semibold" : ""}`}>{text || "–"}</span>
  ) : (
    <span className="quiet">
      {rows.length - 1} {rows.length === 2 ? "row" : "rows"}
    </span>
  );
}

/** A binding in the table of the Data place. */
export function BindingRow({
  check,
  index,
  measure,
  chosen,
  canEdit,
  onChoose,
  onMode,
  onCompare,
  onRebind,
  onUnlink,
}: {
  check: CheckedBinding;
  /** Its place in the list, and what measures its height for the list. */
  index: number;
  measure: (row: HTMLTableRowElement | null) => void;
  chosen: boolean;
  canEdit: boolean;
  onChoose: (chosen: boolean) => void;
  onMode: (mode: BindingMode) => void;
  onCompare: () => void;
  /** Shows its cells in their workbook, where others can be chosen. */
  onRebind: () => void;
  onUnlink: () => void;
}) {
  const { deck } = useDeck();
  const metadata = useMemo(() => metadataOf(deck), [deck]);
  const { slideId, slide: number, element, binding, state, reason, from, to, numbers } = check;
  const slide = deck.slides.find(({ id }) => id === slideId);
  const kind = slide?.elements.find(({ id }) => id === element)?.kind;
  const where =
    element === null ? "in the notes" : kind === "table" ? "table" : kind === "chart" ? "chart" : "in the text";
  const differs = state === "stale" || state === "moved";
  const cells = differs && from.includes("\n") ? changedCells(from, to) : [];
  const label = `${binding.range} on slide ${number}`;
  return (
    <tr
      ref={measure}
      data-index={index}
      className="hairline border-t align-middle"
      data-binding={state}
      data-range={binding.range}
    >
      <td className={`border-l-4 pl-3 ${STATE_COLOURS[state] ?? "border-transparent"}`}>
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          aria-label={`Choose ${label}`}
          checked={chosen}
          onChange={(event) => onChoose(event.target.checked)}
        />
      </td>
      <td className="py-1.5 pl-2">
        {slide && (
          <Link
            to={`/decks/${deck.id}/refine/${slideId}`}
            className="flex items-center gap-2 underline-offset-4 hover:underline"
          >
            <SmallSlide slide={slide} number={number} metadata={metadata} deck={deck.id} width={72} />
            <span className="min-w-0 text-sm leading-tight">
              <span className="line-clamp-2">
                {number}. {nameOf(slide) || "(no title)"}
              </span>
              <span className="quiet text-xs">{where}</span>
            </span>
          </Link>
        )}
      </td>
      <td className="px-2 text-sm">
        <button
          type="button"
          className="text-left break-words underline-offset-4 hover:underline disabled:no-underline"
          aria-label={`Cells of ${label}: open`}
          title={canEdit ? "Look at the cells in their workbook, or choose others" : undefined}
          disabled={!canEdit}
          onClick={onRebind}
        >
          {binding.range}
        </button>
        <span className="quiet block truncate text-xs" title={binding.source}>
          {binding.source}
          {binding.use && binding.use !== "table" && binding.use !== "chart" ? `, ${binding.use}` : ""}
        </span>
      </td>
      <td className="truncate px-2 text-right text-sm" title={from.includes("\n") ? undefined : from}>
        <Shown text={from} />
      </td>
      <td className="px-2 text-right text-sm">
        {differs && <Shown text={to} emphasised />}
        {cells.length > 0 && (
          <span className="quiet block text-xs">
            {cells.length} {cells.length === 1 ? "cell" : "cells"}: {cells[0]?.from || "–"} → {cells[0]?.to || "–"}
          </span>
        )}
      </td>
      <td className="px-2 text-right text-sm tabular-nums">{differs && numbers ? difference(numbers, to) : ""}</td>
      <td className="px-2">
        <select
          className="select select-xs w-full"
          aria-label={`How ${label} follows its source`}
          value={binding.mode}
          disabled={!canEdit}
          onChange={(event) => onMode(BINDING_MODES.find((mode) => mode === event.target.value) ?? "asked")}
        >
          {BINDING_MODES.map((mode) => (
            <option key={mode} value={mode}>
              {MODE_LABELS[mode]}
            </option>
          ))}
        </select>
      </td>
      <td className="py-1.5 pr-4 pl-2 text-sm leading-tight">
        {STATE_LABELS[state]}
        {reason && <span className="quiet block text-xs">{reason}</span>}
        {binding.takenAt && state === "current" && (
          <span
            className="quiet block text-xs"
            title={`Taken ${new Date(binding.takenAt).toLocaleString()}${binding.takenBy ? ` by ${binding.takenBy}` : ""}`}
          >
            since {DAY.format(new Date(binding.takenAt))}
          </span>
        )}
        <span className="mt-1 -ml-2 flex flex-wrap">
          {differs && (
            <button type="button" className="btn btn-ghost btn-xs" aria-label={`Compare ${label}`} onClick={onCompare}>
              Compare
            </button>
          )}
          <button
            type="button"
            className="btn btn-ghost btn-xs"
            aria-label={`Unlink ${label}`}
            title="The values stay as they are and follow no workbook any more"
            disabled={!canEdit}
            onClick={onUnlink}
          >
            Unlink
          </button>
        </span>
      </td>
    </tr>
  );
}
