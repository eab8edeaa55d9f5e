import { pressesOf, revealsOf, type Slide } from "@unitext/core/model";
import { useEffect, useState } from "react";

/** The pause after a press, in milliseconds. */
const PAUSE = 700;

/** What is played of a slide: how it comes in, or its entrances. */
export type Played = "transition" | "entrances";

/**
 * Plays how a slide comes in, or its entrances press by press. `press` is undefined while no entrances are played, and
 * `transition` while the slide does not come in.
 */
export function usePlay(slide: Slide): {
  press: number | undefined;
  transition: Slide["transition"];
  play: (what: Played | undefined) => void;
} {
  const [press, setPress] = useState<number>();
  /** Counts how often the transition was played; 0 while it is not. A new number starts its time again. */
  const [turn, setTurn] = useState(0);
  const { transition } = slide;
  // biome-ignore lint/correctness/useExhaustiveDependencies: playing stops when another slide is shown.
  useEffect(() => {
    setPress(undefined);
    setTurn(0);
  }, [slide.id]);
  useEffect(() => {
    if (!turn) return;
    const timer = setTimeout(() => setTurn(0), (transition?.seconds ?? 0) * 1000 + PAUSE);
    return () => clearTimeout(timer);
  }, [turn, transition]);
  useEffect(() => {
    if (press === undefined) return;
    const ends = revealsOf(slide).map((reveal) => (reveal.press === press ? reveal.start + reveal.seconds : 0));
    const last = press >= pressesOf(slide);
    const timer = setTimeout(
      () => setPress(last ? undefined : press + 1),
      Math.max(0, ...ends) * 1000 + PAUSE * (last ? 2 : 1),
    );
    return () => clearTimeout(timer);
  }, [press, slide]);
  const play = (what: Played | undefined) => {
    setPress(what === "entrances" ? 0 : undefined);
    setTurn((now) => (what === "transition" ? now + 1 : 0));
  };
  return { press, transition: turn ? transition : undefined, play };
}
