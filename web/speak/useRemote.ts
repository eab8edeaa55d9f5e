import type { Press, TalkState } from "@unitext/server/api";
import { Remote, TalkNews } from "@unitext/server/api";
import { useEffect, useRef, useState } from "react";
import { post, put, remove } from "../api/client";
import { useDeck } from "../deck/DeckContext";

/** Returns the news in the data of a server-sent event; undefined for a beat or anything else. */
export function newsIn(data: string): TalkNews | undefined {
  try {
    const bytes = Uint8Array.from(atob(data.replaceAll("-", "+").replaceAll("_", "/")), (one) => one.charCodeAt(0));
    return TalkNews.parse(JSON.parse(new TextDecoder().decode(bytes)));
  } catch {
    return undefined;
  }
}

/** How often the elapsed time is told, in milliseconds; what is shown is told at once. */
const TOLD = 5000;

/**
 * The link by which a phone follows this talk: made on request, told what is shown, and ended with the talk. What is
 * pressed on the phone is passed on.
 */
export function useRemote(state: TalkState | undefined, onPress: (press: Press) => void) {
  const { deck } = useDeck();
  const [remote, setRemote] = useState<Remote>();
  const [problem, setProblem] = useState("");
  const latest = useRef({ state, onPress, told: 0 });
  latest.current = { ...latest.current, state, onPress };
  const path = remote && `/decks/${deck.id}/remote/${remote.token}`;

  const begin = async () => {
    try {
      setRemote(await post(`/decks/${deck.id}/remote`, {}, Remote));
      setProblem("");
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const end = async () => {
    setRemote(undefined);
    if (path) await remove(path).catch(() => undefined);
  };

  // A lost connection is opened again by the browser; what was pressed meanwhile is sent again by the phone.
  useEffect(() => {
    if (!remote || !path) return;
    const events = new EventSource(`/api/remote/${remote.token}/events`);
    events.onmessage = ({ data }) => {
      const news = newsIn(data as string);
      if (news?.kind === "press") latest.current.onPress(news.press);
    };
    const leave = () => void remove(path).catch(() => undefined);
    window.addEventListener("pagehide", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      events.close();
      leave();
    };
  }, [remote, path]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: told when what is shown changes, and every few seconds while the time runs.
  useEffect(() => {
    if (!path || !latest.current.state) return;
    latest.current.told = Date.now();
    void put(path, latest.current.state).catch((error: Error) => setProblem(error.message));
  }, [path, state?.slide, state?.step, state?.dark, state?.running, Math.floor(((state?.elapsed ?? 0) * 1000) / TOLD)]);
  return { remote, problem, begin, end };
}
