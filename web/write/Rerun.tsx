import { Choices } from "../ui/Choices";
import type { Choice, Conflict } from "@unitext/core/diff";
import type { Review, ReviewItem } from "@unitext/core/generate";
import { nameOf, type Slide, textOf, must } from "@unitext/core/model";
import type { Problem } from "@unitext/core/text";
import { useVirtualizer } from "@tanstack/react-virtual";
import { diffWords } from "diff";
import { useMemo, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { useScene } from "../deck/scenes";
import { SlideView } from "../deck/SlideView";

const STATES: Record<Exclude<ReviewItem["state"], "same" | "added">, { label: string; tone: string; act: string }> = {
  new: { label: "New", tone: "border-success", act: "Accept the new slide" },
  changed: { label: "Changed", tone: "border-primary", act: "Accept the change" },
  moved: { label: "Moved", tone: "border-primary", act: "Move it" },
  gone: { label: "Removed", tone: "border-warning", act: "Remove" },
  conflict: { label: "Conflict", tone: "border-error", act: "Accept the rest" },
};
type Shown = keyof typeof STATES;

function Drawn({ slide, label }: { slide: Slide | null; label: string }) {
  const { deck, metadata } = useDeck();
  const number = slide ? deck.slides.findIndex(({ id }) => id === slide.id) + 1 : 0;
  return (
    <figure className="w-60 shrink-0">
      <figcaption className="quiet text-xs">{label}</figcaption>
      {slide ? (
        <Scene slide={slide} number={number || 1} metadata={metadata} deck={deck.id} label={label} />
      ) : (
        <div className="hairline grid aspect-video place-items-center border border-dashed text-sm">not there</div>
      )}
    </figure>
  );
}

function Scene({
  slide,
  number,
  metadata,
  deck,
  label,
}: {
  slide: Slide;
  number: number;
  metadata: ReturnType<typeof useDeck>["metadata"];
  deck: string;
  label: string;
}) {
  const scene = useScene(slide, number, metadata);
  return (
    <div className="hairline border">
      {scene ? <SlideView scene={scene} deck={deck} label={label} /> : <div className="bg-base-200 aspect-video" />}
    </div>
  );
}

/** Shows two texts as one, with deletions and insertions. */
function Difference({ before, after }: { before: string; after: string }) {
  const parts = useMemo(() => diffWords(before, after), [before, after]);
  return (
    <p className="font-serif text-sm whitespace-pre-wrap">
      {parts.map(({ value, added, removed }, at) =>
        added ? (
          <ins key={at} className="bg-success/25 no-underline">
            {value}
          </ins>
        ) : removed ? (
          <del key={at} className="bg-error/20">
            {value}
          </del>
        ) : (
          <span key={at}>{value}</span>
        ),
      )}
    </p>
  );
}

const wordsOf = (slide: Slide | null) =>
  slide
    ? [
        ...slide.elements.map((element) =>
          element.kind === "text" || element.kind === "diagram"
            ? textOf(element.text)
            : element.kind === "table"
              ? element.rows.map((row) => row.map((cell) => (cell ? textOf(cell.text) : "")).join(" | ")).join("\n")
              : element.kind === "code"
                ? element.text
                : "",
        ),
        ...(slide.notes.length ? [`Notes: ${textOf(slide.notes)}`] : []),
      ]
        .filter(Boolean)
        .join("\n")
    : "";

function ConflictRow({
  conflict,
  value,
  onChange,
}: {
  conflict: Conflict;
  value: "hand" | "text";
  onChange: (value: "hand" | "text") => void;
}) {
  const whole = conflict.aspect === "slide";
  return (
    <div className="mt-2">
      <Choices
        legend={conflict.label}
        showLegend
        layout="columns"
        value={value}
        onChange={onChange}
        options={[
          {
            value: "hand",
            label: whole && !conflict.hand ? "As it is: deleted by hand" : "As it was edited by hand",
            content: <span className="font-serif whitespace-pre-wrap">{conflict.hand || "–"}</span>,
          },
          {
            value: "text",
            label: whole && !conflict.text ? "As the text has it: gone" : "As the text has it now",
            content: <span className="font-serif whitespace-pre-wrap">{conflict.text || "–"}</span>,
          },
        ]}
      />
    </div>
  );
}

/** Shows what running the rule again would do, slide by slide; nothing is taken before the user says so. */
export function Rerun({
  name,
  review,
  problems,
  busy,
  onTake,
  onClose,
}: {
  name: string;
  review: Review;
  problems: readonly Problem[];
  busy: boolean;
  onTake: (choices: Map<string, Choice>) => void;
  onClose: () => void;
}) {
  const { deck } = useDeck();
  const [choices, setChoices] = useState<ReadonlyMap<string, Choice>>(new Map());
  const [only, setOnly] = useState<Shown | "all">("all");
  const list = useRef<HTMLDivElement>(null);
  const items = review.items.filter(
    (item): item is ReviewItem & { state: Shown } =>
      item.state !== "same" && item.state !== "added" && (only === "all" || item.state === only),
  );
  const rows = useVirtualizer({
    count: items.length,
    getScrollElement: () => list.current,
    estimateSize: () => 260,
    overscan: 3,
  });
  const numbers = useMemo(() => new Map(deck.slides.map(({ id }, nth) => [id, nth + 1])), [deck]);
  const choose = (key: string, change: Choice) =>
    setChoices(
      new Map(choices).set(key, {
        ...choices.get(key),
        ...change,
        conflicts: { ...choices.get(key)?.conflicts, ...change.conflicts },
      }),
    );
  const { counts } = review;
  const nothing = counts.new + counts.changed + counts.moved + counts.gone + counts.conflict === 0;
  const taken = review.items.filter(
    ({ key, state }) => state !== "same" && state !== "added" && choices.get(key)?.take !== false,
  ).length;

  return (
    <section aria-label="What the new text changes" className="flex h-full flex-col" data-review>
      <header className="hairline bg-base-200 flex flex-wrap items-center gap-3 border-b px-4 py-2">
        <p className="min-w-0 flex-1">
          <strong>{name}</strong> against what the slides were made from: {nothing ? "it says the same." : ""}
        </p>
        {!nothing && (
          <div role="group" aria-label="Show" className="flex flex-wrap gap-1">
            {(["all", "new", "changed", "moved", "gone", "conflict"] as const).map((state) => {
              const count =
                state === "all"
                  ? counts.new + counts.changed + counts.moved + counts.gone + counts.conflict
                  : counts[state];
              return (
                <button
                  key={state}
                  type="button"
                  aria-pressed={only === state}
                  disabled={!count}
                  className={`btn btn-xs ${only === state ? "btn-primary" : ""}`}
                  onClick={() => setOnly(state)}
                >
                  {state === "all" ? "All" : STATES[state].label} {count}
                </button>
              );
            })}
          </div>
        )}
        <button type="button" className="btn btn-ghost btn-sm" onClick={onClose}>
          {nothing ? "Close" : "Leave all as it is"}
        </button>
        {!nothing && (
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={busy}
            onClick={() => onTake(new Map(choices))}
          >
            {busy ? "Accepting …" : `Accept ${taken} ${taken === 1 ? "slide" : "slides"}`}
          </button>
        )}
      </header>
      {problems.length > 0 && (
        <details className="hairline border-b px-4 py-1 text-sm">
          <summary className="cursor-pointer">
            {problems.length === 1 ? "One thing" : `${problems.length} things`} in it could not be read
          </summary>
          <ul className="list-disc pl-6">
            {problems.slice(0, 100).map(({ line, message }, at) => (
              <li key={at}>
                Line {line}: {message}
              </li>
            ))}
          </ul>
        </details>
      )}
      <div
        ref={list}
        className="min-h-0 flex-1 overflow-auto px-4"
        tabIndex={0}
        role="region"
        aria-label="Slides that differ"
      >
        <div style={{ height: rows.getTotalSize(), position: "relative" }}>
          {rows.getVirtualItems().map(({ index, start }) => {
            const item = must(items[index]);
            const { label, tone, act } = STATES[item.state];
            const choice = choices.get(item.key) ?? {};
            const title = nameOf((item.mine ?? item.theirs) as Slide) || "Without a title";
            const number = numbers.get(item.mine?.id ?? "");
            return (
              <article
                key={item.key}
                ref={rows.measureElement}
                data-index={index}
                data-state={item.state}
                className="hairline absolute inset-x-0 border-b py-3"
                style={{ transform: `translateY(${start}px)` }}
              >
                <div className={`border-l-4 pl-3 ${tone}`}>
                  <header className="mb-1 flex flex-wrap items-center gap-3">
                    <h2 className="min-w-0 flex-1 truncate">
                      <strong>{label}</strong> {number ? `slide ${number}: ` : ""}
                      {title}
                      {item.moved && item.state !== "moved" ? " (also moved)" : ""}
                      {item.hand && item.state !== "conflict" ? " (changed by hand; that is kept)" : ""}
                    </h2>
                    {!(item.state === "conflict" && item.conflicts[0]?.aspect === "slide") && (
                      <label className="flex items-center gap-2 text-sm whitespace-nowrap">
                        <input
                          type="checkbox"
                          className="checkbox checkbox-sm"
                          checked={choice.take !== false}
                          onChange={(event) => choose(item.key, { take: event.target.checked })}
                        />
                        {act}
                      </label>
                    )}
                  </header>
                  <div className="flex gap-4">
                    {item.state !== "new" && <Drawn slide={item.mine} label="Now" />}
                    {item.state !== "gone" && item.state !== "moved" && (
                      <Drawn
                        slide={item.state === "conflict" ? item.theirs : item.merged}
                        label={item.state === "conflict" ? "As the text makes it" : "Then"}
                      />
                    )}
                    <div className="min-w-0 flex-1">
                      {item.state === "changed" && (
                        <Difference before={wordsOf(item.mine)} after={wordsOf(item.merged)} />
                      )}
                      {item.state === "new" && <Difference before="" after={wordsOf(item.theirs)} />}
                      {item.state === "gone" && <p className="text-sm">No longer in the text.</p>}
                      {item.state === "moved" && <p className="text-sm">Moved in the text.</p>}
                      {item.conflicts.map((conflict) => (
                        <ConflictRow
                          key={conflict.aspect}
                          conflict={conflict}
                          value={choice.conflicts?.[conflict.aspect] ?? "hand"}
                          onChange={(value) => choose(item.key, { conflicts: { [conflict.aspect]: value } })}
                        />
                      ))}
                    </div>
                  </div>
                </div>
              </article>
            );
          })}
        </div>
      </div>
    </section>
  );
}
