import type { WritableFormat } from "@unitext/core/formats";
import { FORMATS, WRITABLE } from "@unitext/core/formats/catalogue";

/** A labelled choice among the formats in which decks are written. */
export function FormatSelect({
  label,
  value,
  onChange,
  className,
  autoFocus = false,
}: {
  label: string;
  value: WritableFormat;
  onChange: (format: WritableFormat) => void;
  className: string;
  autoFocus?: boolean;
}) {
  return (
    <label className="flex items-center gap-2 text-sm">
      {label}
      <select
        autoFocus={autoFocus}
        className={`select ${className}`}
        value={value}
        onChange={({ target }) => onChange(target.value as WritableFormat)}
      >
        {WRITABLE.map((name) => (
          <option key={name} value={name}>
            {FORMATS[name].label}
          </option>
        ))}
      </select>
    </label>
  );
}
