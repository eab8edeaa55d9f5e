import type { MediaElement } from "@unitext/core/model";
import {
  Eraser,
  MonitorPlay,
  MousePointer2,
  Pause,
  PenTool,
  Play,
  Presentation,
  Repeat,
  RotateCcw,
  Grid3x3,
  Smartphone,
  SquareDashed,
} from "lucide-react";
import { lazy, Suspense, useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { useDeck } from "../deck/DeckContext";
import { SlidePicker } from "../deck/SlidePicker";
import { Tool, useCommands } from "../keys";
import { NotesView } from "../richtext/NotesView";
import { DeckFrame } from "../shell/DeckFrame";
import { clock } from "../ui/time";
import { ByItselfDialog } from "../deck/ByItselfDialog";
import { NO_INK } from "./hall";
import type { InkTool } from "./InkLayer";
import { calledMedia } from "./Media";
import { MediaStatus } from "./MediaStatus";
import { NotesSize, useNotesSize } from "./NotesSize";
import { paceOf } from "./pace";
import { pressed } from "./press";
import { RehearsalPanel } from "./RehearsalPanel";
import { SpokenSlide } from "./SpokenSlide";
import { useAwake } from "./useAwake";
import { useHall } from "./useHall";
import { useRehearsal } from "./useRehearsal";
import { useRemote } from "./useRemote";
import { useTalkKeys } from "./useTalkKeys";
import { useTimer } from "./useTimer";
import { useWalk } from "./useWalk";

const PhoneDialog = lazy(() => import("./PhoneDialog").then((module) => ({ default: module.PhoneDialog })));

/** The speaker's window: this slide and the next, notes, time against plan; the hall's window follows it. */
export default function Speak() {
  const { deck, session, canEdit, others } = useDeck();
  const [alone, setAlone] = useState(false);
  // The others can edit again when the speaker leaves.
  useEffect(() => {
    session.move({ speaking: alone });
    return () => session.move({ speaking: false });
  }, [session, alone]);
  const [dark, setDark] = useState(false);
  const [blocked, setBlocked] = useState(false);
  const timer = useTimer();
  const { elapsed } = timer;
  const navigate = useNavigate();
  const [tool, setTool] = useState<InkTool>("none");
  const [dialog, setDialog] = useState<"overview" | "byItself" | "phone">();
  const [notesSize, setNotesSize] = useNotesSize();
  const walking = useWalk(timer.start);
  const { current, walk, steps, step, go, forward, back, first, last } = walking;
  const toggle = (next: InkTool) => setTool((now) => (now === next ? "none" : next));
  const present = () => {
    void document.documentElement.requestFullscreen?.();
    navigate(`/decks/${deck.id}/hall?here`);
  };
  const { playing, heard, play, ink, draw } = useHall({ slide: current?.id ?? "", step, dark }, (press) =>
    pressed(press, { deck, walk: walking, setDark }),
  );
  const { spent, forget } = useRehearsal(current?.id, elapsed);
  useAwake(timer.running);
  useCommands({
    next: forward,
    previous: back,
    deeper: () => go(walk.deeper),
    shallower: () => go(walk.shallower),
    first,
    last,
    dark: () => setDark((was) => !was),
    overview: () => setDialog("overview"),
    pointer: () => toggle("pointer"),
    pen: () => toggle("pen"),
    present,
    play: () => {
      const media = current?.elements.find((element) => element.kind === "media" && deck.assets[element.source]);
      if (media) play(playing === undefined ? media.id : undefined);
    },
  });
  const typed = useTalkKeys({
    forward,
    back,
    first,
    last,
    dark: () => setDark((was) => !was),
    goTo: (number) => go(deck.slides[number - 1]?.id),
  });
  const { total, pace, late } = paceOf(deck, current, timer.running || elapsed > 0 ? elapsed : undefined);
  const phone = useRemote(
    current && {
      slide: current.id,
      next: walk.next ?? null,
      step,
      dark,
      elapsed,
      planned: total,
      running: timer.running,
    },
    (press) => pressed(press, { deck, walk: walking, setDark }),
  );
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
    <div className="flex flex-wrap items-center gap-1">
      <button
        type="button"
        className="btn btn-primary btn-sm"
        title="Opens a second window with the slide alone, for the projector"
        onClick={openHall}
      >
        <Presentation size={16} aria-hidden="true" /> Open the hall's window
      </button>
      <Tool command="present" label="Present here" icon={MonitorPlay} onPress={present} />
      <button
        type="button"
        className="btn btn-ghost btn-sm px-2 font-normal"
        title="The slides turn on their own, for a screen that people walk past"
        onClick={() => setDialog("byItself")}
      >
        <Repeat size={16} aria-hidden="true" /> By itself …
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-sm px-2 font-normal"
        title="A phone shows notes and time, and turns the slides"
        onClick={() => {
          setDialog("phone");
          if (!phone.remote) void phone.begin();
        }}
      >
        <Smartphone size={16} aria-hidden="true" /> Phone …
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
    <DeckFrame place="Speak" tools={tools} spent={spent}>
      {dialog === "byItself" && <ByItselfDialog from={current.id} onClose={() => setDialog(undefined)} />}
      {dialog === "phone" && (
        <Suspense>
          <PhoneDialog
            remote={phone.remote}
            problem={phone.problem}
            onEnd={() => void phone.end()}
            onClose={() => setDialog(undefined)}
          />
        </Suspense>
      )}
      {dialog === "overview" && (
        <SlidePicker title="Go to a slide" onChoose={go} onClose={() => setDialog(undefined)} />
      )}
      <div className="grid h-full grid-cols-[minmax(0,1.7fr)_minmax(0,1fr)] gap-5 overflow-hidden p-4 max-md:auto-rows-max max-md:grid-cols-1 max-md:overflow-y-auto">
        <div className="flex min-h-0 flex-col gap-3 overflow-auto max-md:overflow-visible">
          <div className={dark ? "opacity-30" : ""}>
            <SpokenSlide
              slide={current}
              label="Now"
              step={step}
              onOpen={go}
              media={{ playing, onPlay: play }}
              ink={{ ink, tool, onInk: draw }}
            />
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
            <span className="bg-base-300 h-5 w-px" />
            <Tool
              command="dark"
              label={dark ? "Show the slide" : "Blank"}
              icon={SquareDashed}
              pressed={dark}
              onPress={() => setDark(!dark)}
            />
            <Tool command="overview" label="All slides" icon={Grid3x3} onPress={() => setDialog("overview")} />
            <Tool
              command="pointer"
              label="Pointer"
              icon={MousePointer2}
              bare
              pressed={tool === "pointer"}
              onPress={() => toggle("pointer")}
            />
            <Tool
              command="pen"
              label="Pen"
              icon={PenTool}
              bare
              pressed={tool === "pen"}
              onPress={() => toggle("pen")}
            />
            {ink.strokes.length > 0 && (
              <button
                type="button"
                title="Takes off what was drawn on the slide"
                className="btn btn-ghost btn-sm px-2 font-normal"
                onClick={() => draw(NO_INK)}
              >
                <Eraser size={16} aria-hidden="true" /> Erase
              </button>
            )}
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
          <div className="flex gap-1" role="toolbar" aria-label="Time">
            <button
              type="button"
              className="btn btn-ghost btn-sm px-2 font-normal"
              onClick={timer.running ? timer.pause : timer.start}
            >
              {timer.running ? <Pause size={16} aria-hidden="true" /> : <Play size={16} aria-hidden="true" />}
              {timer.running ? "Pause" : elapsed ? "Go on" : "Start"}
            </button>
            <button
              type="button"
              className="btn btn-ghost btn-sm px-2 font-normal"
              disabled={!elapsed}
              title="A new rehearsal: the time begins at 0:00, and the times of the slides are forgotten"
              onClick={() => {
                timer.reset();
                forget();
              }}
            >
              <RotateCcw size={16} aria-hidden="true" /> Reset timer
            </button>
          </div>
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
          <RehearsalPanel spent={spent} onForget={forget} onGo={go} />
          {canEdit && (others.length > 0 || alone) && (
            <label
              className="flex min-h-8 items-center gap-2 text-sm"
              title="While it is on, the others can read the deck and not change it"
            >
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={alone}
                onChange={({ target }) => setAlone(target.checked)}
              />
              Keep the deck as it is while I speak
            </label>
          )}
          <NotesSize size={notesSize} onSize={setNotesSize} />
          <section
            aria-label="Notes"
            tabIndex={0}
            className="min-h-0 flex-1 overflow-auto pt-1 font-serif leading-[1.6]"
            style={{ fontSize: notesSize }}
          >
            <NotesView notes={current.notes} />
          </section>
        </div>
      </div>
    </DeckFrame>
  );
}
