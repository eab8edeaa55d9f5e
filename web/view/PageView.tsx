import { PageDeck } from "@unitext/server/api";
import { useEffect, useMemo, useState } from "react";
import { useParams } from "react-router";
import { get, Refused } from "../api/client";
import { ShownDeck } from "./Viewer";

/** How often a page asks whether its deck has changed, in milliseconds. */
const AGAIN = 30_000;

/** A published deck, for everybody who has its address. */
export default function PageView() {
  const { page = "" } = useParams();
  const base = `/pages/${page}`;
  const [shown, setShown] = useState<PageDeck>();
  const [problem, setProblem] = useState("");
  useEffect(() => {
    let gone = false;
    const load = (query: string) =>
      get(`${base}/look${query}`, PageDeck).then(
        (next) => !gone && setShown(next),
        (error: Error) => {
          // Without a network the page goes on with what it has.
          if (gone || !(error instanceof Refused)) return;
          setShown(undefined);
          setProblem(error.message);
        },
      );
    void load("?view=new");
    const timer = setInterval(() => void load(""), AGAIN);
    const events = new EventSource(`/api${base}/events`);
    events.onmessage = () => void load("");
    return () => {
      gone = true;
      clearInterval(timer);
      events.close();
    };
  }, [base]);
  const turning = useMemo(
    () =>
      shown?.turning
        ? {
            loop: shown.turning.loop,
            secondsOf: (slide: string) => shown.delays[slide] ?? shown.turning?.seconds ?? 10,
          }
        : undefined,
    [shown],
  );
  return <ShownDeck base={base} deck={shown?.deck} problem={problem} turning={turning} download={false} />;
}
