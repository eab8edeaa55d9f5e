import type { Press } from "@unitext/server/api";
import { useEffect, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { type Heard, HallLine, type Ink, NO_INK } from "./hall";

/** How long the hall's window may take to answer that a film plays, in milliseconds. */
const ANSWER = 1500;

/**
 * Keeps the hall's window at the slide that is shown, with what is pointed at and drawn on it, and plays films and sounds
 * in it. A film plays until it ends, is stopped, or another slide is shown. What is pressed in the hall is passed on.
 */
export function useHall(shown: { slide: string; step: number; dark: boolean }, onPress: (press: Press) => void) {
  const { deck } = useDeck();
  const line = useRef<HallLine>(undefined);
  const [film, setFilm] = useState({ slide: "", element: "" });
  const [heard, setHeard] = useState<{ element: string; state: Heard["state"] | "nothing" }>();
  const [drawn, setDrawn] = useState<{ slide: string; ink: Ink }>({ slide: "", ink: NO_INK });
  const answered = useRef("");
  const playing = film.element && film.slide === shown.slide ? film.element : undefined;
  const now = { ...shown, ...(playing === undefined ? {} : { playing }) };
  const ink = drawn.slide === shown.slide ? drawn.ink : NO_INK;
  const state = useRef({ now, ink, onPress });
  state.current = { now, ink, onPress };
  const play = (element: string | undefined) => {
    setHeard(undefined);
    answered.current = "";
    setFilm({ slide: shown.slide, element: element ?? "" });
  };
  const draw = (next: Ink) => {
    setDrawn({ slide: shown.slide, ink: next });
    line.current?.ink(next);
  };

  useEffect(() => {
    const open = new HallLine(deck.id);
    line.current = open;
    open.listen({
      ask: () => {
        open.show(state.current.now);
        open.ink(state.current.ink);
      },
      press: (press) => state.current.onPress(press),
      heard: (what) => {
        if (what.element !== state.current.now.playing) return;
        answered.current = what.element;
        setHeard(what);
        if (what.state !== "plays") setFilm({ slide: "", element: "" });
      },
    });
    return () => open.close();
  }, [deck.id]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the other window is told when one of these values changes; they are read from the ref.
  useEffect(() => line.current?.show(state.current.now), [shown.slide, shown.step, shown.dark, playing]);
  useEffect(() => {
    if (playing === undefined) return;
    const timer = setTimeout(() => {
      if (answered.current === playing) return;
      setHeard({ element: playing, state: "nothing" });
      setFilm({ slide: "", element: "" });
    }, ANSWER);
    return () => clearTimeout(timer);
  }, [playing]);

  return { playing, heard, play, ink, draw };
}
