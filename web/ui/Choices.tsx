import { type ReactNode, useId } from "react";

interface Option<V extends string> {
  value: V;
  label: ReactNode;
  /** What is shown with it, such as a drawing or the words that it stands for. */
  content?: ReactNode;
}

const LAYOUTS = {
  /** In a row. */
  row: { group: "flex flex-wrap gap-4 text-sm", option: "flex items-center gap-2", chosen: "" },
  /** As framed cards with their content, the chosen one outlined. */
  cards: {
    group: "flex flex-wrap gap-4 text-sm",
    option: "hairline block cursor-pointer border p-2",
    chosen: "outline-2 outline-secondary",
  },
  /** As cards of equal width. */
  columns: {
    group: "grid grid-cols-2 gap-3 text-sm",
    option: "hairline block cursor-pointer border p-2",
    chosen: "outline-2 outline-secondary",
  },
} as const;

/** One of several values, as radio buttons. The legend names the group; it is read aloud only unless `showLegend`. */
export function Choices<V extends string>({
  legend,
  showLegend = false,
  layout = "row",
  options,
  value,
  onChange,
}: {
  legend: ReactNode;
  showLegend?: boolean;
  layout?: keyof typeof LAYOUTS;
  options: readonly Option<V>[];
  value: V | undefined;
  onChange: (value: V) => void;
}) {
  const name = useId();
  const { group, option, chosen } = LAYOUTS[layout];
  return (
    <fieldset>
      <legend className={showLegend ? "text-sm font-semibold" : "sr-only"}>{legend}</legend>
      <div className={group}>
        {options.map((one) => (
          <label key={one.value} className={`${option} ${value === one.value ? chosen : ""}`}>
            <span className="flex items-center gap-2">
              <input
                type="radio"
                name={name}
                className="radio radio-sm"
                checked={value === one.value}
                onChange={() => onChange(one.value)}
              />
              {one.label}
            </span>
            {one.content && <span className="mt-2 block">{one.content}</span>}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
