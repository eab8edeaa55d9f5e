import { type Deck, metadataOf, nameOf, type Slide } from "@unitext/core/model";
import { type Press, Talk, type TalkState } from "@unitext/server/api";
import { useEffect, useMemo, useState } from "react";
import { useParams } from "react-router";
import { get, Refused } from "../api/client";
import { useScene } from "../deck/scenes";
import { SlideView } from "../deck/SlideView";
import { NotesView } from "../richtext/NotesView";
import { clock } from "../ui/time";
import { newsIn } from "./useRemote";

/** How long a press waits before it is sent again while the network is gone, in milliseconds. */
const AGAIN = 1500;

/** Sends what was pressed; while the server is not reached it is tried again. Throws Refused when the talk has ended. */
async function send(token: string, press: Press): Promise<void> {
  for (;;) {
    const answer = await fetch(`/api/remote/${token}/presses`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ press }),
    }).catch(() => undefined);
    if (answer?.ok) return;
    if (answer && answer.status < 500) throw new Refused(answer.status, "ended", "This talk has ended.");
    await new Promise((resolve) => setTimeout(resolve, AGAIN));
  }
}

/** A phone in the speaker's hand: this slide, the next one, notes and time, and large buttons that turn the slides. */
export default function Phone() {
  const { token = "" } = useParams();
  const [deck, setDeck] = useState<Deck>();
  const [state, setState] = useState<TalkState>();
  const [ended, setEnded] = useState("");
  const [lost, setLost] = useState(false);
  const [received, setReceived] = useState(Date.now());
  const [now, setNow] = useState(Date.now());
  useEffect(() => {
    document.title = "Unitext";
    get(`/remote/${token}`, Talk).then(
      (talk) => {
        setDeck(talk.deck);
        setState((known) => known ?? talk.state ?? undefined);
      },
      (error: Error) => setEnded(error.message),
    );
    const events = new EventSource(`/api/remote/${token}/events`);
    events.onopen = () => setLost(false);
    events.onerror = () => setLost(true);
    events.onmessage = ({ data }) => {
      const news = newsIn(data as string);
      if (news?.kind === "state") {
        setState(news.state);
        setReceived(Date.now());
      } else if (news?.kind === "ended") {
        setEnded("This talk has ended.");
        events.close();
      }
    };
    return () => events.close();
  }, [token]);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  const press = (what: Press) => {
    setLost(!navigator.onLine);
    send(token, what).then(
      () => setLost(false),
      (error: Error) => setEnded(error.message),
    );
  };
  if (ended)
    return (
      <main className="grid h-full place-items-center p-6 text-center">
        <p role="status">{ended}</p>
      </main>
    );
  const slide = deck?.slides.find(({ id }) => id === state?.slide) ?? deck?.slides[0];
  if (!deck || !slide)
    return (
      <main className="grid h-full place-items-center" aria-busy="true">
        <p className="quiet">One moment …</p>
      </main>
    );
  const next = deck.slides.find(({ id }) => id === state?.next);
  const elapsed = (state?.elapsed ?? 0) + (state?.running ? Math.max(0, now - received) / 1000 : 0);
  return (
    <main className="flex h-full flex-col gap-2 p-2">
      <h1 className="sr-only">{deck.properties.title}</h1>
      {lost && (
        <p role="status" className="bg-warning text-warning-content px-2 text-sm">
          The network is gone. What you press is sent when it is back.
        </p>
      )}
      <div className={state?.dark ? "opacity-30" : ""}>
        <PhoneSlide deck={deck} slide={slide} token={token} label="Now" step={state?.step ?? 0} />
      </div>
      <p className="flex justify-between text-sm tabular-nums">
        <span>
          {deck.slides.indexOf(slide) + 1} of {deck.slides.length}
        </span>
        <strong>
          {clock(elapsed)} of {clock(state?.planned ?? 0)}
        </strong>
      </p>
      <section aria-label="Notes" tabIndex={0} className="min-h-0 flex-1 overflow-auto font-serif text-lg leading-7">
        <NotesView notes={slide.notes} />
      </section>
      {next && (
        <div className="flex items-center gap-2 text-sm">
          <div className="w-28 shrink-0">
            <PhoneSlide deck={deck} slide={next} token={token} label="Next" />
          </div>
          <span className="min-w-0 truncate">
            <span className="quiet">Next: </span>
            {nameOf(next)}
          </span>
        </div>
      )}
      <div className="grid grid-cols-[1fr_auto_2fr] gap-2">
        <button type="button" className="btn h-16 text-lg" onClick={() => press("back")}>
          Back
        </button>
        <button type="button" className="btn h-16" aria-pressed={state?.dark ?? false} onClick={() => press("dark")}>
          Blank
        </button>
        <button type="button" className="btn btn-primary h-16 text-lg" onClick={() => press("forward")}>
          Next
        </button>
      </div>
    </main>
  );
}

function PhoneSlide({
  deck,
  slide,
  token,
  label,
  step,
}: {
  deck: Deck;
  slide: Slide;
  token: string;
  label: string;
  step?: number;
}) {
  const metadata = useMemo(() => metadataOf(deck), [deck]);
  const scene = useScene(slide, deck.slides.indexOf(slide) + 1, metadata);
  return (
    <div className="hairline border" data-phone-slide={slide.id}>
      {scene ? (
        <SlideView
          scene={scene}
          deck={`/api/remote/${token}`}
          label={`${label}: ${nameOf(slide)}`}
          {...(step === undefined ? {} : { step })}
        />
      ) : (
        <div style={{ aspectRatio: `${deck.page.width} / ${deck.page.height}` }} />
      )}
    </div>
  );
}
