import { useEffect, useState } from "react";

/**
 * A number field with a unit, applied when it loses focus or Enter is pressed; the arrow keys change it by a step, with
 * Shift by ten.
 */
export function Measure({
  label,
  value,
  unit = "pt",
  least = Number.NEGATIVE_INFINITY,
  most = Number.POSITIVE_INFINITY,
  step = 1,
  disabled,
  onSet,
}: {
  label: string;
  value: number;
  unit?: string;
  least?: number;
  most?: number;
  step?: number;
  disabled?: boolean;
  onSet: (value: number) => void;
}) {
  const shown = String(Math.round(value * 100) / 100);
  const [text, setText] = useState(shown);
  useEffect(() => setText(shown), [shown]);
  const set = (next: number) => onSet(Math.min(most, Math.max(least, next)));
  const take = () => {
    const next = Number(text.replace(",", "."));
    if (text.trim() !== "" && Number.isFinite(next) && text !== shown) set(next);
    setText(shown);
  };
  return (
    <label className="block">
      {label}
      <span className="input input-sm flex w-full">
        <input
          inputMode="decimal"
          className="w-full text-right"
          value={text}
          disabled={disabled}
          onChange={({ target }) => setText(target.value)}
          onBlur={take}
          onKeyDown={(event) => {
            if (event.key === "Enter") take();
            if (event.key !== "ArrowUp" && event.key !== "ArrowDown") return;
            event.preventDefault();
            set(Math.round((value + (event.key === "ArrowUp" ? step : -step) * (event.shiftKey ? 10 : 1)) * 100) / 100);
          }}
        />
        <span className="quiet">{unit}</span>
      </span>
    </label>
  );
}
