import { useState } from "react";
import { typedNumbers } from "./parts";

/** A field for slide numbers: what cannot be read stays, with the reason. */
export function RangeField({
  label,
  value,
  count,
  placeholder,
  className = "",
  onNumbers,
}: {
  label: string;
  value: string;
  count: number;
  placeholder: string;
  className?: string;
  onNumbers: (numbers: number[], text: string) => void;
}) {
  const [text, setText] = useState(value);
  const [from, setFrom] = useState(value);
  if (from !== value) {
    setFrom(value);
    setText(value);
  }
  const read = typedNumbers(text, count);
  const problem = "problem" in read ? read.problem : undefined;
  return (
    <span className={`block ${className}`}>
      <input
        className={`input input-xs w-full font-mono ${problem ? "border-error" : ""}`}
        aria-label={label}
        aria-invalid={problem ? true : undefined}
        title={problem ?? "Numbers and ranges, such as 1-8, 12, 30-"}
        placeholder={placeholder}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          const next = typedNumbers(event.target.value, count);
          if ("numbers" in next) onNumbers(next.numbers, event.target.value);
        }}
      />
      {problem && (
        <span role="alert" className="text-error block text-xs">
          {problem}
        </span>
      )}
    </span>
  );
}
