import { useEffect, useRef, useState } from "react";
import { typing } from "../keys";

/** What the keys of a talk do, in the speaker's window and in the hall's. */
export interface TalkActs {
  forward: () => void;
  back: () => void;
  first: () => void;
  last: () => void;
  dark: () => void;
  /** Goes to a slide by its number. */
  goTo: (number: number) => void;
}

/**
 * The keys that clickers send and that people press in a hall, wherever the focus is: PageDown and PageUp, "." and B for
 * a blank screen, and a number with Enter. With `all` also arrows, Home and End, for a window that has no commands of its
 * own. Space and Enter go forward where no button has the focus. Returns the number that was typed so far.
 */
export function useTalkKeys(acts: TalkActs, all = false): string {
  const [typed, setTyped] = useState("");
  const latest = useRef({ typed, acts });
  latest.current = { typed, acts };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (typing(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (document.querySelector("dialog[open], [role=menu]")) return;
      const now = latest.current;
      const free = !(event.target as HTMLElement | null)?.closest?.("button, a, [role=button], summary, video");
      const keys: Record<string, (() => void) | undefined> = {
        PageDown: now.acts.forward,
        PageUp: now.acts.back,
        ".": now.acts.dark,
        ...(free ? { " ": now.acts.forward, Enter: now.acts.forward } : {}),
        ...(all
          ? {
              ArrowRight: now.acts.forward,
              ArrowDown: now.acts.forward,
              ArrowLeft: now.acts.back,
              ArrowUp: now.acts.back,
              Home: now.acts.first,
              End: now.acts.last,
              b: now.acts.dark,
            }
          : {}),
      };
      if (/^\d$/.test(event.key)) setTyped((before) => (before + event.key).slice(-4));
      else if (event.key === "Enter" && now.typed) {
        now.acts.goTo(Number(now.typed));
        setTyped("");
      } else if (event.key === "Escape") {
        setTyped("");
        return;
      } else if (keys[event.key]) keys[event.key]?.();
      else return;
      event.preventDefault();
      event.stopPropagation();
    };
    // Before buttons hear it: a number with Enter works wherever the focus is.
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  }, [all]);
  return typed;
}
