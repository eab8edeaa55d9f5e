import { type ViewedDeck, ViewedSlide } from "@unitext/server/api";
import {
  ChevronDown,
  ChevronLeft,
  ChevronRight,
  ChevronUp,
  Expand,
  LayoutGrid,
  MessageCircle,
  MessageSquareText,
  Pause,
  PenLine,
  Play,
  Printer,
  ZoomIn,
  ZoomOut,
} from "lucide-react";
import { lazy, type ReactNode, Suspense, useCallback, useEffect, useRef, useState } from "react";
import useSWR from "swr";
import { get } from "../api/client";
import { DownloadMenu } from "./DownloadMenu";
import { drawingAddress, ViewedSlideView } from "./ViewedSlideView";
import { type Viewed, useViewedDeck } from "./useViewedDeck";
import { useViewerKeys } from "./useViewerKeys";
import { after, before, below } from "./walk";

const ViewedComments = lazy(() => import("./ViewedComments"));

/** The sizes of a slide, in parts of the window. */
const ZOOMS = [1, 1.5, 2, 3] as const;
/** How far a finger moves before it turns a slide, in pixels. */
const SWIPE = 60;

/** The page on which a deck is looked at: slides one by one, zoom, notes where they are shared, print, download. */
export function Viewer({ deck: id, choice }: { deck: string; choice?: ReactNode }) {
  const { deck, problem } = useViewedDeck(id);
  return <ShownDeck base={`/decks/${id}`} deck={deck} problem={problem} choice={choice} />;
}

/** A deck, or why it is not shown. */
export function ShownDeck({ deck, problem, ...props }: Viewed & Omit<Props, "deck">) {
  if (!deck)
    return (
      <main className="grid h-full place-items-center p-6 text-center" aria-busy={!problem}>
        {problem ? <p role="alert">{problem}</p> : <p className="quiet">One moment …</p>}
      </main>
    );
  if (!deck.slides.length)
    return (
      <main className="grid h-full place-items-center p-6 text-center">
        <p>{deck.title || "This deck"} has no slides yet.</p>
      </main>
    );
  return <Open deck={deck} {...props} />;
}

interface Props {
  /** The path of the deck or the published page in the API. */
  base: string;
  deck: ViewedDeck;
  choice?: ReactNode;
  /** Turns the slides of its own: the seconds of each slide, and whether it starts again. */
  turning?: { secondsOf: (slide: string) => number; loop: boolean } | undefined;
  /** Whether the deck can be downloaded. */
  download?: boolean;
}

function Open({ base, deck, choice, turning, download = true }: Props) {
  const { slides } = deck;
  const [current, setCurrent] = useState(() => decodeURIComponent(window.location.hash.slice(1)));
  const [zoom, setZoom] = useState(0);
  const [notes, setNotes] = useState(false);
  const [overview, setOverview] = useState(false);
  const [printing, setPrinting] = useState(false);
  const [said, setSaid] = useState("");
  const [commenting, setCommenting] = useState(false);
  const stage = useRef<HTMLElement>(null);
  const shown = slides.find((slide) => slide.id === current) ?? slides[0];
  const at = shown?.id ?? "";
  const show = useCallback((id: string | undefined) => {
    if (id === undefined) return;
    setCurrent(id);
    setOverview(false);
    window.history.replaceState(window.history.state, "", `#${encodeURIComponent(id)}`);
  }, []);
  const path = `${base}/look/${at}`;
  const { data, mutate } = useSWR(`${path}@${deck.version}`, () => get(path, ViewedSlide), {
    revalidateOnFocus: false,
    keepPreviousData: false,
  });
  const comments = data?.comments;
  const number = slides.findIndex((slide) => slide.id === at) + 1;
  const ways = {
    next: after(slides, at),
    back: before(slides, at),
    deeper: below(slides, at),
    up: shown?.parent ?? undefined,
  };
  // The next slide is drawn while this one is looked at.
  useEffect(() => {
    if (data && ways.next !== undefined) new Image().src = drawingAddress(base, deck, ways.next);
  }, [data, base, deck, ways.next]);
  useEffect(() => {
    document.title = deck.title || "Untitled";
    document.documentElement.lang = deck.language;
  }, [deck.title, deck.language]);
  // A link inside of a slide changes the address.
  useEffect(() => {
    const follow = () => show(decodeURIComponent(window.location.hash.slice(1)) || undefined);
    window.addEventListener("hashchange", follow);
    return () => window.removeEventListener("hashchange", follow);
  }, [show]);
  const resize = (by: number) => setZoom((nth) => Math.min(ZOOMS.length - 1, Math.max(0, nth + by)));
  useViewerKeys({
    next: () => show(ways.next),
    back: () => show(ways.back),
    deeper: () => show(ways.deeper),
    up: () => show(ways.up),
    first: () => show(slides[0]?.id),
    last: () => show(slides.at(-1)?.id),
    larger: () => resize(1),
    smaller: () => resize(-1),
    notes: () => setNotes((on) => !on),
    full: () => void stage.current?.requestFullscreen?.(),
  });
  const latest = useRef(ways);
  latest.current = ways;
  // The slides turn of their own until somebody turns one.
  const [turns, setTurns] = useState(turning !== undefined);
  useEffect(() => {
    if (!turning || !turns || !at) return;
    const timer = setTimeout(() => {
      const next = latest.current.next ?? (turning.loop ? slides[0]?.id : undefined);
      if (next !== undefined) show(next);
    }, turning.secondsOf(at) * 1000);
    return () => clearTimeout(timer);
  }, [turning, turns, at, slides, show]);
  const touch = useRef<{ x: number; y: number }>(undefined);
  const print = () => {
    setPrinting(true);
    setSaid("All slides are drawn for the printer …");
  };
  return (
    <div className="flex h-full flex-col print:block print:h-auto">
      <header className="hairline flex flex-wrap items-center gap-x-2 gap-y-1 border-b px-3 py-1 print:hidden">
        <h1 className="min-w-0 flex-1 basis-40 truncate font-serif text-lg">{deck.title || "Untitled"}</h1>
        {choice}
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          aria-pressed={overview}
          title="Shows all slides small"
          onClick={() => setOverview(!overview)}
        >
          <LayoutGrid size={16} aria-hidden="true" /> Overview
        </button>
        {deck.notes && (
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            aria-pressed={notes}
            title="Shows the speaker’s notes below the slide (N)"
            onClick={() => setNotes(!notes)}
          >
            <MessageSquareText size={16} aria-hidden="true" /> Notes
          </button>
        )}
        {comments && (
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            aria-pressed={commenting}
            title="Shows the comments on the slide"
            onClick={() => setCommenting(!commenting)}
          >
            <MessageCircle size={16} aria-hidden="true" /> Comments{" "}
            {comments.length > 0 && <span className="tabular-nums">{comments.length}</span>}
          </button>
        )}
        {turning && (
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            aria-pressed={turns}
            title={turns ? "Stops turning the slides" : "Turns the slides by itself"}
            onClick={() => setTurns(!turns)}
          >
            {turns ? <Pause size={16} aria-hidden="true" /> : <Play size={16} aria-hidden="true" />}
            {turns ? "Pause" : "Play"}
          </button>
        )}
        <span className="flex items-center max-md:hidden">
          <button
            type="button"
            className="btn btn-ghost btn-sm btn-square"
            aria-label="Smaller"
            title="Smaller (−)"
            disabled={zoom === 0}
            onClick={() => resize(-1)}
          >
            <ZoomOut size={16} aria-hidden="true" />
          </button>
          <span className="w-12 text-center text-sm tabular-nums">{ZOOMS[zoom] ? ZOOMS[zoom] * 100 : 100} %</span>
          <button
            type="button"
            className="btn btn-ghost btn-sm btn-square"
            aria-label="Larger"
            title="Larger (+)"
            disabled={zoom === ZOOMS.length - 1}
            onClick={() => resize(1)}
          >
            <ZoomIn size={16} aria-hidden="true" />
          </button>
        </span>
        <button
          type="button"
          className="btn btn-ghost btn-sm max-md:hidden"
          title="Fills the screen with the slide (F)"
          onClick={() => void stage.current?.requestFullscreen?.()}
        >
          <Expand size={16} aria-hidden="true" /> Full screen
        </button>
        <button type="button" className="btn btn-ghost btn-sm max-md:hidden" title="Prints all slides" onClick={print}>
          <Printer size={16} aria-hidden="true" /> Print
        </button>
        {download && <DownloadMenu deck={deck.id} onProblem={setSaid} />}
        {(deck.right === "edit" || deck.right === "own") && (
          <a className="btn btn-primary btn-sm" href={`/decks/${deck.id}/write`}>
            <PenLine size={16} aria-hidden="true" /> Edit
          </a>
        )}
      </header>
      {said && (
        <p role="status" className="bg-base-200 px-3 py-1 text-sm print:hidden">
          {said}
        </p>
      )}
      {overview ? (
        <Overview base={base} deck={deck} current={at} onOpen={show} />
      ) : (
        <div className="flex min-h-0 flex-1 max-md:flex-col print:hidden">
          <main
            ref={stage}
            className="bg-base-200 min-h-0 min-w-0 flex-1 overflow-auto"
            onTouchStart={({ touches }) => {
              const first = touches[0];
              touch.current = first && zoom === 0 ? { x: first.clientX, y: first.clientY } : undefined;
            }}
            onTouchEnd={({ changedTouches }) => {
              const last = changedTouches[0];
              if (!touch.current || !last) return;
              const [dx, dy] = [last.clientX - touch.current.x, last.clientY - touch.current.y];
              if (Math.abs(dx) > SWIPE && Math.abs(dx) > 2 * Math.abs(dy)) show(dx < 0 ? ways.next : ways.back);
            }}
          >
            <ViewedSlideView
              base={base}
              deck={deck}
              slide={at}
              number={number}
              zoom={ZOOMS[zoom] ?? 1}
              notes={deck.notes && notes}
              data={data}
            />
          </main>
          {commenting && data && comments && (
            <aside className="hairline w-72 shrink-0 overflow-auto border-l max-md:h-1/2 max-md:w-full max-md:border-t max-md:border-l-0">
              <Suspense>
                <ViewedComments
                  deck={deck}
                  id={at}
                  viewed={data}
                  onChanged={(since) => void mutate(get(`${path}?since=${since}`, ViewedSlide), { revalidate: false })}
                  onProblem={setSaid}
                />
              </Suspense>
            </aside>
          )}
        </div>
      )}
      <nav
        aria-label="Slides"
        className="hairline flex items-center justify-center gap-1 border-t p-1 max-md:p-2 print:hidden"
      >
        <Way small label="Main slide" to={ways.up} onGo={show} icon={<ChevronUp size={20} aria-hidden="true" />} />
        <Way label="Back" to={ways.back} onGo={show} icon={<ChevronLeft size={20} aria-hidden="true" />} />
        <span className="min-w-20 text-center text-sm tabular-nums" aria-live="polite">
          {number} of {slides.length}
        </span>
        <Way label="Next" to={ways.next} onGo={show} icon={<ChevronRight size={20} aria-hidden="true" />} />
        <Way small label="Details" to={ways.deeper} onGo={show} icon={<ChevronDown size={20} aria-hidden="true" />} />
      </nav>
      {printing && (
        <ForPrint
          base={base}
          deck={deck}
          onDrawn={() => {
            setSaid("");
            window.print();
            setPrinting(false);
          }}
        />
      )}
    </div>
  );
}

function Way({
  label,
  to,
  onGo,
  icon,
  small = false,
}: {
  label: string;
  /** Whether it is its icon alone on a phone. */
  small?: boolean;
  to: string | undefined;
  onGo: (id: string | undefined) => void;
  icon: ReactNode;
}) {
  return (
    <button
      type="button"
      className={`btn btn-ghost max-md:h-12 ${small ? "" : "max-md:flex-1"}`}
      title={label}
      disabled={to === undefined}
      onClick={() => onGo(to)}
    >
      {icon} <span className={small ? "max-md:sr-only" : ""}>{label}</span>
    </button>
  );
}

/** All slides small; those out of sight are drawn when they come into it. */
function Overview({
  base,
  deck,
  current,
  onOpen,
}: {
  base: string;
  deck: ViewedDeck;
  current: string;
  onOpen: (id: string) => void;
}) {
  return (
    <main className="min-h-0 flex-1 overflow-auto p-4 print:hidden">
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(10rem,1fr))] gap-4">
        {deck.slides.map((slide, nth) => (
          <li key={slide.id} className={slide.parent === null ? "" : "pl-4"}>
            <button
              type="button"
              aria-current={slide.id === current}
              className={`block w-full cursor-pointer border-2 text-left ${slide.id === current ? "border-secondary" : "border-base-300"}`}
              onClick={() => onOpen(slide.id)}
            >
              <img
                loading="lazy"
                className="block w-full"
                width={deck.page.width}
                height={deck.page.height}
                src={drawingAddress(base, deck, slide.id)}
                alt=""
              />
              <span className="block truncate px-1 text-xs">
                {nth + 1}. {slide.name}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </main>
  );
}

/** All slides, one to a page, which are printed once they are drawn. */
function ForPrint({ base, deck, onDrawn }: { base: string; deck: ViewedDeck; onDrawn: () => void }) {
  const left = useRef(deck.slides.length);
  const drawn = () => {
    left.current -= 1;
    if (left.current === 0) setTimeout(onDrawn, 50);
  };
  return (
    <div className="hidden print:block" aria-hidden="true">
      {deck.slides.map(({ id }) => (
        <img
          key={id}
          className="mb-0 block w-full break-after-page"
          src={drawingAddress(base, deck, id)}
          alt=""
          onLoad={drawn}
          onError={drawn}
        />
      ))}
    </div>
  );
}
