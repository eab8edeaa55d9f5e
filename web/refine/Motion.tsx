import { batch, type SingleChange } from "@unitext/core/edit";
import {
  EFFECTS,
  type Effect,
  type Element,
  type Entrance,
  slidePropertiesOf,
  orderedEntrances,
  pressesOf,
  revealsOf,
  type Slide,
  type StepsForm,
  stepsForm,
  TRANSITIONS,
  type Transition,
  type Trigger,
  TRIGGERS,
  withSteps,
  must,
} from "@unitext/core/model";
import { useDeck } from "../deck/DeckContext";
import { Fold } from "../ui/Fold";
import { Measure } from "../ui/Measure";
import { nameOfElement } from "./names";
import type { Played } from "./play";
import type { Acts } from "./selection";

const EFFECT_NAMES: Record<Effect, string> = {
  appear: "At once",
  fade: "Fade",
  wipe: "Wipe",
  slide: "Move in",
  grow: "Grow",
};
const TRIGGER_NAMES: Record<Trigger, string> = {
  press: "At a press",
  with: "Together with the one before",
  after: "After the one before",
};
const TRANSITION_NAMES: Record<Transition["kind"], string> = { fade: "Fade", push: "Push", wipe: "Wipe" };

type Text = Extract<Element, { kind: "text" }>;

/** Sets how the points of a text appear: with it, or one at a time. */
type Points = "whole" | StepsForm;
const POINT_NAMES: Record<Points, string> = {
  whole: "All together",
  each: "One at a time",
  main: "Main points, with what is below them",
  own: "In groups, as its file has them",
};
const POINT_ACTS: Record<Points, string> = {
  whole: "All points together",
  each: "Points one at a time",
  main: "Main points one at a time",
  own: "",
};
const pointsOf = ({ steps, text }: Text): Points => (steps ? stepsForm(text) : "whole");

function pointed({ steps: _, ...element }: Text, points: Points): Element {
  if (points === "own") return { ...element, steps: true };
  const text = withSteps(element.text, points === "main" ? "main" : "each");
  return { ...element, text, ...(points === "whole" ? {} : { steps: true }) };
}

/** Sets how the selected element appears. */
export function EntranceOf({ slide, acts }: { slide: Slide; acts: Acts }) {
  const { elements } = acts;
  const [first] = elements;
  if (!first) return null;
  const { entrance } = first;
  const texts = elements.filter((element) => element.kind === "text");
  const points = texts[0] ? pointsOf(texts[0]) : "whole";
  const last = Math.max(-1, ...slide.elements.map((element) => element.entrance?.order ?? -1));
  const set = (change: (entrance: Entrance | undefined, nth: number) => Entrance | undefined, words: string) => {
    let nth = 0;
    acts.set((element) => {
      const { entrance: before, ...rest } = element;
      const next = change(before, nth++);
      return (next ? { ...rest, entrance: next } : rest) as Element;
    }, words);
  };
  const change = (more: Partial<Entrance>, words: string) =>
    set((before) => (before ? { ...before, ...more } : before), words);
  return (
    <Fold name="entrance" title="Entrance" open>
      <label className="mb-1 block">
        Starts
        <select
          className="select select-sm w-full"
          value={entrance?.trigger ?? ""}
          onChange={({ target: { value } }) =>
            set(
              (before, nth) =>
                value === ""
                  ? undefined
                  : {
                      order: last + 1 + nth,
                      effect: "fade",
                      seconds: 0.5,
                      ...before,
                      trigger: nth && !before ? "with" : (value as Trigger),
                    },
              value === "" ? "Removed an entrance" : `Entrance: ${TRIGGER_NAMES[value as Trigger].toLowerCase()}`,
            )
          }
        >
          <option value="">
            {points === "whole" ? "Visible from the start" : "Its points at presses, after all else"}
          </option>
          {TRIGGERS.map((trigger) => (
            <option key={trigger} value={trigger}>
              {TRIGGER_NAMES[trigger]}
            </option>
          ))}
        </select>
      </label>
      {entrance && (
        <>
          <label className="mb-1 block">
            Effect
            <select
              className="select select-sm w-full"
              value={entrance.effect}
              onChange={({ target: { value } }) =>
                change(
                  { effect: value as Effect, seconds: value === "appear" ? 0 : entrance.seconds || 0.5 },
                  `Comes in ${EFFECT_NAMES[value as Effect].toLowerCase()}`,
                )
              }
            >
              {EFFECTS.map((effect) => (
                <option key={effect} value={effect}>
                  {EFFECT_NAMES[effect]}
                </option>
              ))}
            </select>
          </label>
          <div className="grid grid-cols-2 gap-2">
            <Measure
              label="Delay"
              unit="s"
              step={0.25}
              value={entrance.delay ?? 0}
              least={0}
              most={600}
              onSet={(delay) =>
                set((before) => {
                  if (!before) return before;
                  const { delay: _, ...rest } = before;
                  return delay ? { ...rest, delay } : rest;
                }, "Changed how long an entrance waits")
              }
            />
            {entrance.effect !== "appear" && (
              <Measure
                label="Duration"
                unit="s"
                step={0.25}
                value={entrance.seconds}
                least={0}
                most={60}
                onSet={(seconds) => change({ seconds }, "Changed how long an entrance takes")}
              />
            )}
          </div>
        </>
      )}
      {texts.length > 0 && (
        <label className="mt-2 block">
          Its points
          <select
            className="select select-sm w-full"
            value={points}
            onChange={({ target: { value } }) =>
              acts.set(
                (element) => (element.kind === "text" ? pointed(element, value as Points) : element),
                POINT_ACTS[value as Points],
              )
            }
          >
            {(Object.keys(POINT_NAMES) as Points[]).map((name) => (
              <option key={name} value={name} disabled={name === "own"} hidden={name === "own" && points !== "own"}>
                {POINT_NAMES[name]}
              </option>
            ))}
          </select>
        </label>
      )}
    </Fold>
  );
}

/** Lists what appears on the slide, in order, and sets the slide's transition. */
export function Motion({
  slide,
  playing,
  onPlay,
  onChoose,
}: {
  slide: Slide;
  playing: boolean;
  onPlay: (what: Played | undefined) => void;
  onChoose: (element: string) => void;
}) {
  const { deck, session, canEdit } = useDeck();
  const reveals = revealsOf(slide);
  const coming = [...new Map(reveals.map((reveal) => [reveal.element, reveal]))].flatMap(([id, reveal]) => {
    const element = slide.elements.find((one) => one.id === id);
    return element ? [{ element, reveal, points: reveals.filter((one) => one.element === id).length }] : [];
  });
  const presses = pressesOf(slide);
  const { transition } = slide;
  const setTransition = (next: Transition | undefined, all: boolean) => {
    const changes = (all ? deck.slides : [slide]).flatMap((one): SingleChange[] => {
      const { transition: _, ...look } = slidePropertiesOf(one);
      return JSON.stringify(one.transition) === JSON.stringify(next)
        ? []
        : [
            {
              kind: "setSlideProperties",
              slide: one.id,
              properties: { ...look, ...(next ? { transition: next } : {}) },
            },
          ];
    });
    if (changes.length)
      session.apply(batch(changes), {
        words: all
          ? "Gave all slides this transition"
          : next
            ? `Transition: ${TRANSITION_NAMES[next.kind].toLowerCase()}`
            : "Removed the transition",
      });
  };
  /** Moves an entrance one place earlier or later. */
  const move = (at: number, by: -1 | 1) => {
    const order = coming.map(({ element }) => element.id);
    [order[at], order[at + by]] = [must(order[at + by]), must(order[at])];
    const elements = orderedEntrances({
      ...slide,
      elements: slide.elements.map((element) =>
        order.includes(element.id)
          ? ({
              ...element,
              entrance: {
                trigger: "press",
                effect: "appear",
                seconds: 0,
                ...element.entrance,
                order: order.indexOf(element.id),
              },
            } as Element)
          : element,
      ),
    });
    const changes = elements
      .filter((element, nth) => JSON.stringify(element) !== JSON.stringify(slide.elements[nth]))
      .map((element): SingleChange => ({ kind: "setElement", slide: slide.id, element }));
    if (changes.length) session.apply(batch(changes), { words: "Changed the order of entrances" });
  };
  return (
    <fieldset disabled={!canEdit} className="mb-5">
      <legend className="sr-only">Motion</legend>
      <label className="mb-1 block">
        The slide comes in
        <select
          className="select select-sm w-full"
          value={transition?.kind ?? ""}
          onChange={({ target: { value } }) => {
            setTransition(
              value ? { kind: value as Transition["kind"], seconds: transition?.seconds ?? 1 } : undefined,
              false,
            );
            onPlay(value ? "transition" : undefined);
          }}
        >
          <option value="">At once</option>
          {TRANSITIONS.map((kind) => (
            <option key={kind} value={kind}>
              {TRANSITION_NAMES[kind]}
            </option>
          ))}
        </select>
      </label>
      {transition && (
        <button type="button" className="btn btn-xs mb-1 w-full" onClick={() => onPlay("transition")}>
          Play it
        </button>
      )}
      {transition && (
        <Measure
          label="Duration"
          unit="s"
          step={0.25}
          value={transition.seconds}
          least={0}
          most={10}
          onSet={(seconds) => setTransition({ ...transition, seconds: Math.max(0.1, seconds) }, false)}
        />
      )}
      <button
        type="button"
        className="btn btn-xs mt-1 mb-3 w-full"
        disabled={deck.slides.every((one) => JSON.stringify(one.transition) === JSON.stringify(transition))}
        onClick={() => setTransition(transition, true)}
      >
        So on every slide
      </button>
      {coming.length === 0 ? (
        <p className="quiet">Everything is visible from the start. Select something to give it an entrance.</p>
      ) : (
        <>
          <ol aria-label="Entrances" className="mb-2 flex flex-col gap-1">
            {coming.map(({ element, reveal, points }, at) => (
              <li key={element.id} className="hairline bg-base-100 flex items-center gap-1 border px-1">
                <span
                  className="w-5 shrink-0 text-right tabular-nums"
                  title={reveal.press ? `At press ${reveal.press}` : "With the slide"}
                >
                  {reveal.trigger === "press" ? reveal.press : reveal.trigger === "with" ? "+" : "→"}
                </span>
                <button
                  type="button"
                  className="min-w-0 flex-1 truncate py-1 text-left hover:underline"
                  onClick={() => onChoose(element.id)}
                >
                  {nameOfElement(element)}
                  <span className="quiet">{points > 1 ? `, ${points} points` : ""}</span>
                </button>
                {([-1, 1] as const).map((by) => (
                  <button
                    key={by}
                    type="button"
                    className="btn btn-xs btn-square"
                    disabled={at + by < 0 || at + by >= coming.length}
                    aria-label={`${nameOfElement(element)} ${by < 0 ? "earlier" : "later"}`}
                    title={by < 0 ? "Earlier" : "Later"}
                    onClick={() => move(at, by)}
                  >
                    {by < 0 ? "↑" : "↓"}
                  </button>
                ))}
              </li>
            ))}
          </ol>
          <button
            type="button"
            className="btn btn-sm w-full"
            aria-pressed={playing}
            onClick={() => onPlay(playing ? undefined : "entrances")}
          >
            {playing ? "Stop" : `Try it: ${presses} ${presses === 1 ? "press" : "presses"}`}
          </button>
          <p className="quiet mt-1 text-xs">A number is a press, + comes together with the one before, → after it.</p>
        </>
      )}
      {slide.unsupportedMotion && slide.unsupportedMotion.length > 0 && (
        <p className="quiet mt-2 text-xs">
          Its file also has {slide.unsupportedMotion.join(", ")}: not shown here, kept in the file.
        </p>
      )}
    </fieldset>
  );
}
