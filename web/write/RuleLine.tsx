import {
  type TextPlacement,
  type BreakRule,
  type NameLayout,
  type Cut,
  DEFAULT_RULE,
  type Extra,
  EXTRAS,
  type OverflowPolicy,
  must,
} from "@unitext/core/model";
import type { ReactNode } from "react";

const CUTS = {
  heading: "headings",
  "heading paragraph": "headings, paragraphs",
  paragraph: "paragraphs",
  line: "lines",
  mark: "breaks only",
} as const;
type CutName = keyof typeof CUTS;
const PLACEMENTS: Record<TextPlacement, string> = {
  slide: "the slide",
  notes: "the notes",
  both: "points, whole text in the notes",
};
const OVERFLOWS: Record<OverflowPolicy, string> = {
  continue: "continue on next slide",
  notes: "to the notes",
  leave: "leave",
};
const EXTRA_NAMES: Record<Extra, string> = {
  agenda: "agenda",
  contents: "contents on section openers",
  sources: "sources at the end",
  closing: "closing slide",
};
const NAME_LAYOUTS: Record<NameLayout, string> = { middle: "large in the middle", corner: "small in a corner" };

function nameOfCuts(cuts: readonly Cut[]): CutName {
  const kinds = cuts.map(({ kind }) => kind).filter((kind) => kind !== "mark");
  const name = [...new Set(kinds)].sort().join(" ");
  return name in CUTS
    ? (name as CutName)
    : kinds.includes("line")
      ? "line"
      : kinds.includes("paragraph")
        ? "paragraph"
        : kinds.includes("heading")
          ? "heading"
          : "mark";
}

function cutsNamed(name: CutName, before: readonly Cut[]): Cut[] {
  const heading: Cut = before.find((cut) => cut.kind === "heading") ?? must(DEFAULT_RULE.cuts[0]);
  if (name === "heading") return [heading];
  if (name === "heading paragraph") return [heading, { kind: "paragraph" }];
  return [{ kind: name }];
}

function Choice<V extends string>({
  label,
  value,
  options,
  disabled,
  onChange,
}: {
  label: string;
  value: V;
  options: Record<V, string>;
  disabled: boolean;
  onChange: (value: V) => void;
}) {
  return (
    <label className="flex items-center gap-1">
      <span className="quiet whitespace-nowrap">{label}</span>
      <select
        className="select select-xs field-sizing-content w-auto min-w-0 ps-1.5 pe-6"
        value={value}
        disabled={disabled}
        onChange={(event) => onChange(event.target.value as V)}
      >
        {(Object.entries(options) as [V, string][]).map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Slides that are added to those of the text, in a menu. */
function Extras({ rule, disabled, onRule }: { rule: BreakRule; disabled: boolean; onRule: (rule: BreakRule) => void }) {
  const chosen = rule.extras ?? [];
  const toggle = (extra: Extra, on: boolean) => {
    const { extras: _, ...rest } = rule;
    const next = EXTRAS.filter((one) => (one === extra ? on : chosen.includes(one)));
    onRule(next.length ? { ...rest, extras: next } : rest);
  };
  return (
    <details className="dropdown">
      <summary className="btn btn-ghost btn-xs" title="Slides that are added to those of the text">
        Add{chosen.length ? ` (${chosen.length})` : ""} …
      </summary>
      <ul className="dropdown-content hairline bg-base-100 z-20 w-60 border p-2">
        {EXTRAS.map((extra) => (
          <li key={extra}>
            <label className="flex items-center gap-2 py-1">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={chosen.includes(extra)}
                disabled={disabled}
                onChange={({ target }) => toggle(extra, target.checked)}
              />
              {EXTRA_NAMES[extra]}
            </label>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** The rule that cuts the text, where the text goes, and the counts, in one line. */
export function RuleLine({
  rule,
  disabled,
  onRule,
  children,
}: {
  rule: BreakRule;
  disabled: boolean;
  onRule: (rule: BreakRule) => void;
  children: ReactNode;
}) {
  const name = nameOfCuts(rule.cuts);
  const heading = rule.cuts.find((cut) => cut.kind === "heading");
  const level = (change: Partial<{ section: number; slide: number }>) =>
    onRule({ ...rule, cuts: rule.cuts.map((cut) => (cut.kind === "heading" ? { ...cut, ...change } : cut)) });
  const levels = (from: number) =>
    Object.fromEntries(
      Array.from({ length: 7 - from }, (_, nth) => [
        String(nth + from),
        nth + from === 0 ? "none" : String(nth + from),
      ]),
    );
  return (
    <div
      role="group"
      aria-label="How the text becomes slides"
      className="hairline bg-base-200 flex flex-wrap items-center gap-x-2.5 gap-y-1 border-b px-4 py-1 text-[0.8rem]"
    >
      <Choice
        label="Slide breaks"
        value={name}
        options={CUTS}
        disabled={disabled}
        onChange={(next) =>
          onRule({
            ...rule,
            cuts: cutsNamed(next, rule.cuts),
            ...(next === "line" ? { placement: "slide" as const, overflow: "continue" as const } : {}),
          })
        }
      />
      {heading && (
        <>
          <Choice
            label="sections"
            value={String(heading.section)}
            options={levels(0)}
            disabled={disabled}
            onChange={(value) => level({ section: Number(value) })}
          />
          <Choice
            label="slides"
            value={String(heading.slide)}
            options={levels(1)}
            disabled={disabled}
            onChange={(value) => level({ slide: Number(value) })}
          />
        </>
      )}
      {name === "line" ? (
        <Choice
          label="Names"
          value={rule.names}
          options={NAME_LAYOUTS}
          disabled={disabled}
          onChange={(cards) => onRule({ ...rule, names: cards })}
        />
      ) : (
        <>
          <Choice
            label="Text goes to"
            value={rule.placement}
            options={PLACEMENTS}
            disabled={disabled}
            onChange={(body) => onRule({ ...rule, placement: body })}
          />
          <Choice
            label="Overflow"
            value={rule.overflow}
            options={OVERFLOWS}
            disabled={disabled}
            onChange={(rest) => onRule({ ...rule, overflow: rest })}
          />
          <label className="flex items-center gap-1 whitespace-nowrap" title="Tables of numbers become charts">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={rule.charts}
              disabled={disabled}
              onChange={(event) => onRule({ ...rule, charts: event.target.checked })}
            />
            charts
          </label>
          <Extras rule={rule} disabled={disabled} onRule={onRule} />
        </>
      )}
      {children}
    </div>
  );
}
