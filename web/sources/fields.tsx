import { useId } from "react";
import { BINDING_MODES, type BindingMode, type BindingUse } from "@unitext/core/model";
import type { SourceSummary } from "@unitext/server/api";

export const MODE_LABELS: Record<BindingMode, string> = {
  latest: "Always the latest",
  asked: "When asked",
  fixed: "Fixed",
};

/** What one number can be of the chosen cells. */
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

/** Chooses which number the cells give. */
export function NumberField({ use, onUse }: { use: BindingUse; onUse: (use: BindingUse) => void }) {
  return (
    <label className="block">
      Show
      <select
        className="select select-sm w-full"
        value={use}
        onChange={(event) => onUse(event.target.value as BindingUse)}
      >
        {Object.entries(NUMBERS).map(([key, label]) => (
          <option key={key} value={key}>
            {label}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Chooses how a binding follows its source. */
export function ModeField({ mode, onMode }: { mode: BindingMode; onMode: (mode: BindingMode) => void }) {
  return (
    <label className="block">
      When the workbook changes
      <select
        className="select select-sm w-full"
        value={mode}
        onChange={(event) => onMode(event.target.value as BindingMode)}
      >
        {BINDING_MODES.map((one) => (
          <option key={one} value={one}>
            {MODE_LABELS[one]}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Chooses a source, where there is more than one. */
export function SourceField({
  sources,
  source,
  onSource,
}: {
  sources: readonly SourceSummary[];
  source: SourceSummary;
  onSource: (source: SourceSummary) => void;
}) {
  return (
    <label className="block">
      Source
      <select
        className="select select-sm w-full"
        value={source.id}
        onChange={(event) => {
          const next = sources.find(({ id }) => id === event.target.value);
          if (next) onSource(next);
        }}
      >
        {sources.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Number formats that are offered; others can be typed (ECMA-376-1, 18.8.31). */
const FORMATS = ["0", "0.0", "0.00", "#,##0", "#,##0.0", "0%", "0.0%", "d mmmm yyyy", "mmm yyyy"];

/** Chooses a number format instead of the cells' own; empty for theirs. */
export function FormatField({ format, onFormat }: { format: string; onFormat: (format: string) => void }) {
  const list = useId();
  return (
    <label className="block">
      Number format
      <input
        className="input input-sm w-full"
        list={list}
        value={format}
        placeholder="as in the cell"
        maxLength={200}
        onChange={(event) => onFormat(event.target.value)}
      />
      <datalist id={list}>
        {FORMATS.map((one) => (
          <option key={one} value={one} />
        ))}
      </datalist>
    </label>
  );
}
