import { type MediaElement, nameOf, pressesOf, secondsOf, type Slide } from "@unitext/core/model";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { useScene } from "../deck/scenes";
import { SlideLinks } from "../deck/SlideLinks";
import { SlideView } from "../deck/SlideView";
import { clock } from "../ui/time";
import { typing, useCommands } from "../keys";
import { DeckFrame } from "../shell/DeckFrame";
import { type Heard, HallLine } from "./hall";
import { calledMedia, PlayButtons } from "./Media";
import { NotesView } from "../richtext/NotesView";
import { walkFrom } from "./walk";

interface Media {
  playing: string | undefined;
  onPlay: (element: string | undefined) => void;
}
function Small({
  slide,
  label,
  step,
  onOpen,
  media,
}: {
  slide: Slide;
  label: string;
  step?: number;
  onOpen?: (slide: string) => void;
  media?: Media;
}) {
  const { deck, metadata } = useDeck();
  const number = deck.slides.indexOf(slide) + 1;
  const scene = useScene(slide, number, metadata);
  return (
    <div className="hairline relative border">
      {scene ? (
        <SlideView
          scene={scene}
          deck={deck.id}
          label={`${label}: ${number}. ${nameOf(slide)}`}
          {...(step === undefined ? {} : { step })}
        />
      ) : (
        <div style={{ aspectRatio: `${deck.page.width} / ${deck.page.height}` }} />
      )}
      {scene && onOpen && <SlideLinks scene={scene} onOpen={onOpen} />}
      {scene && media && <PlayButtons scene={scene} slide={slide} step={step ?? 0} {...media} />}
    </div>
  );
}

/** The state of a film or sound to be played in the hall. */
function Playing({ heard, called }: { heard: Heard["state"] | "nothing" | undefined; called: string }) {
  if (heard === "nothing")
    return (
      <p role="alert" className="border-warning border-l-4 px-3 py-1 text-sm">
        No hall's window has answered, so the {called} is not to be heard. Open the hall's window, then play it again.
      </p>
    );
  if (heard === "blocked")
    return (
      <p role="alert" className="border-warning border-l-4 px-3 py-1 text-sm">
        The hall's window does not play the {called}: its browser wants a click in that window first, or cannot read the
        file. Click there once, then play it again.
      </p>
    );
  return (
    <p role="status" className="quiet text-sm">
      {heard === "plays" ? `The ${called} plays in the hall.` : `The ${called} is about to play in the hall.`}
    </p>
  );
}

/** The speaker's window: this slide and the next, notes, time against plan; the hall's window follows it. */
export default function Speak() {
  const { deck, selected, select } = useDeck();
  const [dark, setDark] = useState(false);
  const [since, setSince] = useState<number>();
  const [elapsed, setElapsed] = useState(0);
  const [typed, setTyped] = useState("");
  const [blocked, setBlocked] = useState(false);
  const current = deck.slides.find(({ id }) => id === selected.at(-1)) ?? deck.slides[0];
  const walk = useMemo(() => walkFrom(deck.slides, current?.id ?? ""), [deck, current]);
  const line = useRef<HallLine>(undefined);
  // What appears at a press starts hidden; a slide that is returned to shows everything.
  const steps = current ? pressesOf(current) : 0;
  const [at, setAt] = useState({ slide: "", step: 0 });
  const step = at.slide === current?.id ? Math.min(at.step, steps) : 0;
  // A film plays in the hall until it ends, is stopped, or another slide is shown.
  const [film, setFilm] = useState({ slide: "", element: "" });
  const [heard, setHeard] = useState<{ element: string; state: Heard["state"] | "nothing" }>();
  const answered = useRef("");
  const playing = film.element && film.slide === current?.id ? film.element : undefined;
  const play = (element: string | undefined) => {
    setHeard(undefined);
    answered.current = "";
    setFilm({ slide: current?.id ?? "", element: element ?? "" });
  };
  const now = { slide: current?.id ?? "", step, dark, ...(playing === undefined ? {} : { playing }) };
  const state = useRef(now);
  state.current = now;

  useEffect(() => {
    const open = new HallLine(deck.id);
    line.current = open;
    open.listen({
      ask: () => open.show(state.current),
      heard: (what) => {
        if (what.element !== state.current.playing) return;
        answered.current = what.element;
        setHeard(what);
        if (what.state !== "plays") setFilm({ slide: "", element: "" });
      },
    });
    return () => open.close();
  }, [deck.id]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the other window is told when one of these values changes; they are read from the ref.
  useEffect(() => line.current?.show(state.current), [current?.id, step, dark, playing]);
  useEffect(() => {
    if (playing === undefined) return;
    const timer = setTimeout(() => {
      if (answered.current === playing) return;
      setHeard({ element: playing, state: "nothing" });
      setFilm({ slide: "", element: "" });
    }, 1500);
    return () => clearTimeout(timer);
  }, [playing]);
  useEffect(() => {
    if (since === undefined) return;
    const timer = setInterval(() => setElapsed((Date.now() - since) / 1000), 250);
    return () => clearInterval(timer);
  }, [since]);

  const start = () => {
    setSince((now) => now ?? Date.now() - elapsed * 1000);
  };
  const go = useCallback(
    (id: string | undefined) => {
      if (!id) return;
      setSince((now) => now ?? Date.now());
      select([id]);
    },
    [select],
  );
  const shown = deck.slides.filter(({ hidden }) => !hidden);
  /** Shows what appears next, and after the last the next slide. */
  const forward = () => {
    if (step >= steps) return go(walk.next);
    setSince((now) => now ?? Date.now());
    setAt({ slide: current?.id ?? "", step: step + 1 });
  };
  const back = () => {
    if (step > 0) return setAt({ slide: current?.id ?? "", step: step - 1 });
    const before = deck.slides.find(({ id }) => id === walk.previous);
    if (before) setAt({ slide: before.id, step: pressesOf(before) });
    go(walk.previous);
  };
  useCommands({
    next: forward,
    previous: back,
    deeper: () => go(walk.deeper),
    shallower: () => go(walk.shallower),
    first: () => go(shown[0]?.id),
    last: () => go(shown.filter(({ parent }) => parent === null).at(-1)?.id),
    dark: () => setDark((was) => !was),
    play: () => {
      const media = current?.elements.find((element) => element.kind === "media" && deck.assets[element.source]);
      if (media) play(playing === undefined ? media.id : undefined);
    },
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: the acts are made anew from these values.
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (
        typing(event.target) ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        document.querySelector("dialog[open]")
      )
        return;
      if (/^\d$/.test(event.key)) setTyped((now) => (now + event.key).slice(-4));
      else if (event.key === "Enter" && typed && event.target === document.body) {
        go(deck.slides[Number(typed) - 1]?.id);
        setTyped("");
        event.preventDefault();
      } else if (event.key === " " && event.target === document.body) {
        forward();
        event.preventDefault();
      } else if (event.key === "Escape") setTyped("");
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [typed, deck, walk, go, step]);

  const main = deck.slides.filter((slide) => slide.parent === null);
  const before = current
    ? main.slice(
        0,
        Math.max(
          0,
          main.findIndex(({ id }) => id === (current.parent ?? current.id)),
        ),
      )
    : [];
  const planned = before.reduce((sum, slide) => sum + secondsOf(slide, deck.rate), 0);
  const plannedEnd = planned + (current ? secondsOf(current, deck.rate) : 0);
  const pace =
    since === undefined
      ? "Not started"
      : elapsed > plannedEnd
        ? `${clock(elapsed - plannedEnd)} behind the plan`
        : elapsed < planned
          ? `${clock(planned - elapsed)} ahead of the plan`
          : "On time";
  const total = main.reduce((sum, slide) => sum + secondsOf(slide, deck.rate), 0);
  const nextSlide = deck.slides.find(({ id }) => id === walk.next);
  const media = current?.elements.find(
    (element): element is MediaElement => element.kind === "media" && element.id === (playing ?? heard?.element),
  );
  const details = current ? deck.slides.filter(({ parent, hidden }) => parent === current.id && !hidden).length : 0;

  const openHall = () => {
    const hall = window.open(`/decks/${deck.id}/hall`, `unitext-hall-${deck.id}`, "popup,width=960,height=540");
    setBlocked(!hall);
  };
  const tools = (
    <div className="flex items-center gap-2">
      <button type="button" className="btn btn-primary btn-sm" onClick={openHall}>
        Open the hall's window
      </button>
      <button
        type="button"
        className="btn btn-sm"
        onClick={() => (since === undefined ? start() : setSince(undefined))}
      >
        {since === undefined ? (elapsed ? "Go on" : "Start") : "Pause"}
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-sm"
        disabled={!elapsed}
        onClick={() => {
          setElapsed(0);
          setSince((now) => (now === undefined ? undefined : Date.now()));
        }}
      >
        Reset timer
      </button>
      <button type="button" className="btn btn-ghost btn-sm" aria-pressed={dark} onClick={() => setDark(!dark)}>
        {dark ? "Show the slide" : "Blank screen"}
      </button>
    </div>
  );
  if (!current)
    return (
      <DeckFrame place="Speak">
        <p className="p-8">There is no slide to show yet.</p>
      </DeckFrame>
    );
  return (
    <DeckFrame place="Speak" tools={tools}>
      <div className="grid h-full grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)] gap-5 overflow-hidden p-4">
        <div className="flex min-h-0 flex-col gap-3 overflow-auto">
          <div className={dark ? "opacity-30" : ""}>
            <Small slide={current} label="Now" step={step} onOpen={go} media={{ playing, onPlay: play }} />
          </div>
          <div className="flex flex-wrap items-center gap-2">
            <button type="button" className="btn btn-sm" disabled={!walk.previous && step === 0} onClick={back}>
              Back
            </button>
            <button
              type="button"
              className="btn btn-primary btn-sm"
              disabled={!walk.next && step >= steps}
              onClick={forward}
            >
              Next
            </button>
            <button type="button" className="btn btn-sm" disabled={!walk.deeper} onClick={() => go(walk.deeper)}>
              {details ? `${details} ${details === 1 ? "detail" : "details"}` : "No details"}
            </button>
            <button type="button" className="btn btn-sm" disabled={!walk.shallower} onClick={() => go(walk.shallower)}>
              Main slide
            </button>
            <p className="quiet ml-auto text-sm" role="status">
              {typed
                ? `Go to ${typed}: press Enter`
                : `${steps ? `${step} of ${steps} shown, ` : ""}${deck.slides.indexOf(current) + 1} of ${deck.slides.length}`}
            </p>
          </div>
          {blocked && (
            <p role="alert" className="border-warning border-l-4 px-3 py-1 text-sm">
              The browser did not open the window. Allow windows for this page, or open{" "}
              <a className="text-primary underline" href={`/decks/${deck.id}/hall`} target="_blank" rel="noreferrer">
                the hall's page
              </a>{" "}
              yourself.
            </p>
          )}
          {media && (playing !== undefined || heard?.state === "nothing" || heard?.state === "blocked") && (
            <Playing heard={heard?.state} called={calledMedia(media)} />
          )}
          {nextSlide && (
            <div className="w-56">
              <p className="quiet pb-1 text-sm">Next</p>
              <Small slide={nextSlide} label="Next" />
            </div>
          )}
        </div>
        <div className="flex min-h-0 flex-col">
          <dl className="hairline grid grid-cols-3 border-b pb-2">
            <div>
              <dt className="quiet text-sm">Elapsed</dt>
              <dd className="text-3xl" data-elapsed>
                {clock(elapsed)}
              </dd>
            </div>
            <div>
              <dt className="quiet text-sm">Planned</dt>
              <dd className="text-3xl">{clock(total)}</dd>
            </div>
            <div>
              <dt className="quiet text-sm">Pace</dt>
              <dd className={`pt-1 ${pace.includes("behind") ? "text-error" : ""}`}>{pace}</dd>
            </div>
          </dl>
          <section
            aria-label="Notes"
            tabIndex={0}
            className="min-h-0 flex-1 overflow-auto pt-3 font-serif text-xl leading-8"
          >
            <NotesView notes={current.notes} />
          </section>
        </div>
      </div>
    </DeckFrame>
  );
}
