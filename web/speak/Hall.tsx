import type { Press } from "@unitext/server/api";
import { MOTION_CSS } from "@unitext/core/draw";
import { type TouchEvent, useCallback, useEffect, useRef, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { useDeck } from "../deck/DeckContext";
import { useScene } from "../deck/scenes";
import { SlidePicker } from "../deck/SlidePicker";
import { SlideView } from "../deck/SlideView";
import { styleNonce } from "../shell/nonce";
import { type Heard, HallLine, type Ink, NO_INK, type Shown } from "./hall";
import { InkLayer } from "./InkLayer";
import { HallMedia } from "./Media";
import { pressed } from "./press";
import { useAwake } from "./useAwake";
import { useByItself } from "./useByItself";
import { useTalkKeys } from "./useTalkKeys";
import { useWalk } from "./useWalk";

/** How long a speaker's window may take to answer, in milliseconds; after that the window works alone. */
const ANSWER = 600;
/** How far a finger must move for a swipe, in CSS pixels. */
const SWIPE = 50;
/** How long the line about keys and full screen is shown, in milliseconds. */
const HINT = 7000;

/** What the hall shows: the slide after a number of presses, and the press after which its effects play. */
interface Scenery extends Shown {
  since: number | undefined;
}

/** Effects play on the way forward; a slide that is returned to is as it was left. */
const played = (before: Scenery | undefined, shown: Shown): Scenery => ({
  ...shown,
  since: before?.slide === shown.slide ? before.since : shown.step ? shown.step : before ? -1 : 0,
});

interface FullProps {
  step: number | undefined;
  since: number | undefined;
  playing: string | undefined;
  ink: Ink;
  onHeard: (heard: Heard) => void;
}
function Full({ id, ...shown }: FullProps & { id: string }) {
  const { deck, metadata } = useDeck();
  const at = Math.max(
    0,
    deck.slides.findIndex((slide) => slide.id === id),
  );
  const slide = deck.slides[at];
  return slide ? <Drawn slide={slide} number={at + 1} metadata={metadata} {...shown} /> : null;
}
function Drawn({
  slide,
  number,
  metadata,
  step,
  since,
  playing,
  ink,
  onHeard,
}: FullProps & {
  slide: ReturnType<typeof useDeck>["deck"]["slides"][number];
  number: number;
  metadata: ReturnType<typeof useDeck>["metadata"];
}) {
  const { deck } = useDeck();
  const scene = useScene(slide, number, metadata);
  const { width, height } = deck.page;
  const { transition } = slide;
  const coming = transition && since === -1 ? { "data-transition": transition.kind } : {};
  return (
    <div
      key={slide.id}
      {...coming}
      className="relative"
      style={{
        width: `min(100vw, calc(100vh * ${width / height}))`,
        ["--seconds" as string]: `${transition?.seconds ?? 0}s`,
      }}
      data-hall={slide.id}
    >
      {scene && (
        <SlideView
          scene={scene}
          deck={deck.id}
          label={`Slide ${number}`}
          {...(step === undefined ? {} : { step })}
          {...(since === undefined ? {} : { since })}
        />
      )}
      {scene && <HallMedia scene={scene} slide={slide} step={step} playing={playing} onHeard={onHeard} />}
      <InkLayer ink={ink} ratio={height / width} />
    </div>
  );
}

/**
 * The hall's window: the slide alone, as large as the window allows. It follows the speaker's window, which hears what is
 * pressed here; without one it works alone, also by itself with a delay for each slide.
 */
export default function Hall() {
  const { deck } = useDeck();
  const navigate = useNavigate();
  const [asked] = useSearchParams();
  const byItself = asked.has("auto");
  const here = asked.has("here") || byItself;
  const [shown, setShown] = useState<Scenery>();
  const [ink, setInk] = useState(NO_INK);
  const [alone, setAlone] = useState(here);
  const [dark, setDark] = useState(false);
  const [overview, setOverview] = useState(false);
  const [hint, setHint] = useState(here && !byItself);
  const open = useRef<HallLine>(undefined);
  const heard = useCallback((what: Heard) => open.current?.tell(what), []);
  const walk = useWalk(useCallback(() => undefined, []));
  useEffect(() => {
    if (here) return;
    const line = new HallLine(deck.id);
    open.current = line;
    const timer = setTimeout(() => setAlone(true), ANSWER);
    line.listen({
      show: (next) => {
        clearTimeout(timer);
        setAlone(false);
        setShown((before) => {
          if (before?.slide !== next.slide) setInk(NO_INK);
          return played(before, next);
        });
      },
      ink: setInk,
    });
    line.ask();
    return () => {
      clearTimeout(timer);
      line.close();
    };
  }, [deck.id, here]);
  useEffect(() => {
    const timer = setTimeout(() => setHint(false), HINT);
    return () => clearTimeout(timer);
  }, []);

  const act = (press: Press) => {
    setHint(false);
    if (!alone) open.current?.press(press);
    else pressed(press, { deck, walk, setDark });
  };
  const typed = useTalkKeys(
    {
      forward: () => act("forward"),
      back: () => act("back"),
      first: () => act("first"),
      last: () => act("last"),
      dark: () => act("dark"),
      goTo: (number) => act({ goTo: number }),
    },
    true,
  );
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (document.querySelector("dialog[open]")) return;
      if (event.key === "f" || event.key === "o") event.preventDefault();
      if (event.key === "f") void document.documentElement.requestFullscreen?.();
      else if (event.key === "o") setOverview(true);
      else if (event.key === "Escape" && here && !document.fullscreenElement) navigate(`/decks/${deck.id}/speak`);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [deck.id, here, navigate]);
  useAwake(true);
  useByItself({
    on: byItself,
    seconds: Number(asked.get("auto")),
    loop: asked.has("loop"),
    from: asked.get("from"),
    walk,
  });
  const touch = useRef<number>(undefined);
  const onTouchEnd = (event: TouchEvent) => {
    const distance = (event.changedTouches[0]?.clientX ?? 0) - (touch.current ?? 0);
    if (Math.abs(distance) >= SWIPE) act(distance < 0 ? "forward" : "back");
  };

  const slide = alone ? walk.current?.id : shown?.slide;
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the keys are heard by the window, wherever the focus is.
    <main
      className={`grid h-full place-items-center overflow-hidden bg-black ${hint ? "" : "cursor-none"}`}
      onClick={(event) => {
        // A finger that swipes is no click; a click on a button is the button's.
        if (!(event.target as HTMLElement).closest("button, dialog") && event.detail < 2) act("forward");
      }}
      onContextMenu={(event) => {
        event.preventDefault();
        act("back");
      }}
      onTouchStart={(event) => {
        touch.current = event.touches[0]?.clientX;
      }}
      onTouchEnd={onTouchEnd}
      data-alone={alone || undefined}
    >
      <style nonce={styleNonce}>{MOTION_CSS}</style>
      <h1 className="sr-only">{deck.properties.title}</h1>
      {!(alone ? dark : shown?.dark) && (
        <Full
          id={slide ?? deck.slides[0]?.id ?? ""}
          step={alone ? walk.step : shown?.step}
          since={alone ? 0 : shown?.since}
          playing={alone ? undefined : shown?.playing}
          ink={alone ? NO_INK : ink}
          onHeard={heard}
        />
      )}
      {typed && (
        <p role="status" className="fixed top-4 right-4 bg-black/70 px-3 py-1 text-2xl text-white">
          {typed}
        </p>
      )}
      {hint && (
        <div className="fixed bottom-6 flex items-center gap-3 rounded bg-black/75 px-4 py-2 text-white">
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => {
              setHint(false);
              void document.documentElement.requestFullscreen?.();
            }}
          >
            Full screen
          </button>
          Arrow keys, clicks and swipes turn the slides · B blanks · O shows all · Esc ends
        </div>
      )}
      {overview && (
        <SlidePicker
          title="Go to a slide"
          onChoose={(id) => act({ goTo: deck.slides.findIndex((one) => one.id === id) + 1 })}
          onClose={() => setOverview(false)}
        />
      )}
    </main>
  );
}
