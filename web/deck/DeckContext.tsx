import { levels, sections, type DeckMetadata } from "@unitext/core/model";
import { createContext, type ReactNode, useContext, useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { Navigate, useParams } from "react-router";
import { Refused } from "../api/client";
import { useRefusal } from "../jobs";
import { speakerIn } from "./presence";
import { DeckSession, type DeckView } from "./session";
import { useHead } from "./scenes";
import { type DeckAdvice, useAdvice } from "./useAdvice";

interface OpenDeck extends DeckView {
  session: DeckSession;
  metadata: DeckMetadata;
  /** Level and section title by slide id. */
  level: Map<string, number>;
  section: Map<string, string>;
  /** What the checks found on the slides so far. */
  advice: DeckAdvice;
  /** The selected slides; the last of them is the current one. */
  selected: readonly string[];
  select(ids: readonly string[]): void;
}

const Context = createContext<OpenDeck | undefined>(undefined);

/** Returns the open deck. Throws outside of a deck's pages. */
export function useDeck(): OpenDeck {
  const deck = useContext(Context);
  if (!deck) throw new Error("useDeck outside a deck");
  return deck;
}

/** Returns the open deck; undefined on the Desk. */
export const useOpenDeck = (): OpenDeck | undefined => useContext(Context);

function Opened({ session, children }: { session: DeckSession; children: ReactNode }) {
  const view = useSyncExternalStore(session.subscribe, session.snapshot);
  const metadata = useHead(view.deck);
  const [chosen, select] = useState<readonly string[]>([]);
  const { slides } = view.deck;
  const selected = useMemo(() => {
    const known = new Set(slides.map(({ id }) => id));
    const left = chosen.filter((id) => known.has(id));
    return left.length || !slides[0] ? left : [slides[0].id];
  }, [slides, chosen]);
  const current = selected.at(-1) ?? null;
  useEffect(() => session.move({ slide: current, element: null, at: null }), [session, current]);
  const level = useMemo(() => levels(slides), [slides]);
  const section = useMemo(() => sections(slides), [slides]);
  const advice = useAdvice(view.deck, metadata);
  const value = useMemo(
    () => ({
      ...view,
      canEdit: view.canEdit && !speakerIn(view.others),
      session,
      metadata,
      level,
      section,
      advice,
      selected,
      select,
    }),
    [view, session, metadata, level, section, advice, selected],
  );
  useEffect(() => {
    document.title = `${view.deck.properties.title || "Untitled"} · Unitext`;
  }, [view.deck.properties.title]);
  if (view.withheld) return <Withheld deck={view.deck.id} />;
  return <Context value={value}>{children}</Context>;
}

/** Shown in the place of a deck whose right was taken back while it was open. */
function Withheld({ deck }: { deck: string }) {
  return (
    <main className="grid h-full place-items-center p-8">
      <div className="max-w-md text-center" role="alert">
        <h1 className="mb-2 text-xl font-semibold">This deck is no longer shared with you</h1>
        <p className="mb-4">
          Its owner has taken it back, or its notes. What you did and was not saved is kept in this browser. Where the
          slides alone are still shared, they open in their viewer.
        </p>
        <a className="btn btn-primary mr-2" href="/">
          Go to the Desk
        </a>
        <a className="btn" href={`/decks/${deck}/view`}>
          Try the viewer
        </a>
      </div>
    </main>
  );
}

/** Opens the deck of the address once for all its places. */
export function DeckProvider({ children }: { children: ReactNode }) {
  const { deck = "" } = useParams();
  const [session, setSession] = useState<DeckSession>();
  const [error, setError] = useState<Error>();
  useRefusal();
  useEffect(() => {
    let opened: DeckSession | undefined;
    let gone = false;
    setSession(undefined);
    setError(undefined);
    DeckSession.open(deck).then(
      (next) => {
        opened = next;
        if (gone) next.close();
        else setSession(next);
      },
      (reason) => !gone && setError(reason),
    );
    return () => {
      gone = true;
      opened?.close();
    };
  }, [deck]);
  // Without its notes a deck opens in its viewer.
  if (error instanceof Refused && error.status === 403) return <Navigate to={`/decks/${deck}/view`} replace />;
  if (error) {
    return (
      <main className="grid h-full place-items-center p-8">
        <div className="max-w-md text-center">
          <h1 className="mb-2 text-xl font-semibold">This deck cannot be opened</h1>
          <p className="mb-4">{error.message}</p>
          <a className="btn btn-primary" href="/">
            Go to the Desk
          </a>
        </div>
      </main>
    );
  }
  if (!session) {
    return (
      <main className="grid h-full place-items-center" aria-busy="true">
        <p className="quiet">Opening the deck …</p>
      </main>
    );
  }
  return <Opened session={session}>{children}</Opened>;
}
