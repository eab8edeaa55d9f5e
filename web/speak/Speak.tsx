import type { MediaElement } from "@unitext/core/model";
import { useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { useCommands } from "../keys";
import { NotesView } from "../richtext/NotesView";
import { DeckFrame } from "../shell/DeckFrame";
import { clock } from "../ui/time";
import { calledMedia } from "./Media";
import { MediaStatus } from "./MediaStatus";
import { paceOf } from "./pace";
import { SpokenSlide } from "./SpokenSlide";
import { useHall } from "./useHall";
import { useTimer } from "./useTimer";
import { useTypedNumber } from "./useTypedNumber";
import { useWalk } from "./useWalk";

/** The speaker's window: this slide and the next, notes, time against plan; the hall's window follows it. */
export default function Speak() {
  const { deck } = useDeck();
  const [dark, setDark] = useState(false);
  const [blocked, setBlocked] = useState(false);
  const timer = useTimer();
  const { elapsed } = timer;
  const { current, walk, steps, step, go, forward, back, first, last } = useWalk(timer.start);
  const { playing, heard, play } = useHall({ slide: current?.id ?? "", step, dark });
  useCommands({
    next: forward,
    previous: back,
    deeper: () => go(walk.deeper),
    shallower: () => go(walk.shallower),
    first,
    last,
    dark: () => setDark((was) => !was),
    play: () => {
      const media = current?.elements.find((element) => element.kind === "media" && deck.assets[element.source]);
      if (media) play(playing === undefined ? media.id : undefined);
    },
  });
  const typed = useTypedNumber((number) => go(deck.slides[number - 1]?.id), forward);
  const { total, pace, late } = paceOf(deck, current, timer.running || elapsed > 0 ? elapsed : undefined);
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
      <button type="button" className="btn btn-sm" onClick={timer.running ? timer.pause : timer.start}>
        {timer.running ? "Pause" : elapsed ? "Go on" : "Start"}
      </button>
      <button type="button" className="btn btn-ghost btn-sm" disabled={!elapsed} onClick={timer.reset}>
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
            <SpokenSlide slide={current} label="Now" step={step} onOpen={go} media={{ playing, onPlay: play }} />
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
            <MediaStatus heard={heard?.state} called={calledMedia(media)} />
          )}
          {nextSlide && (
            <div className="w-56">
              <p className="quiet pb-1 text-sm">Next</p>
              <SpokenSlide slide={nextSlide} label="Next" />
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
              <dd className={`pt-1 ${late ? "text-error" : ""}`}>{pace}</dd>
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
