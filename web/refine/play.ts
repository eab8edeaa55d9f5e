import { pressesOf, revealsOf, type Slide } from "@unitext/core/model";
import { useEffect, useState } from "react";

/** The pause after a press, in milliseconds. */
const PAUSE = 700;

/** Plays the entrances of a slide, press by press; `press` is undefined while nothing is played. */
export function usePlay(slide: Slide): { press: number | undefined; play: (on: boolean) => void } {
  const [press, setPress] = useState<number>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: playing stops when another slide is shown.
  useEffect(() => setPress(undefined), [slide.id]);
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
  return { press, play: (on) => setPress(on ? 0 : undefined) };
}
