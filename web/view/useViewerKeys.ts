import { useEffect, useRef } from "react";

/** What the keys of a viewer's page do. */
export interface ViewerActs {
  next: () => void;
  back: () => void;
  deeper: () => void;
  up: () => void;
  first: () => void;
  last: () => void;
  larger: () => void;
  smaller: () => void;
  notes: () => void;
  full: () => void;
}

const KEYS: Readonly<Record<string, keyof ViewerActs>> = {
  ArrowRight: "next",
  PageDown: "next",
  " ": "next",
  ArrowLeft: "back",
  PageUp: "back",
  ArrowDown: "deeper",
  ArrowUp: "up",
  Home: "first",
  End: "last",
  "+": "larger",
  "-": "smaller",
  n: "notes",
  f: "full",
};

/** The keys of a viewer's page, wherever the focus is; Space presses a button that has it. */
export function useViewerKeys(acts: ViewerActs): void {
  const latest = useRef(acts);
  latest.current = acts;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement | null;
      const busy = target?.closest?.("input, select, textarea, [role=menu], video, audio");
      if (event.ctrlKey || event.metaKey || event.altKey || busy) return;
      const act = KEYS[event.key];
      if (!act || (event.key === " " && target?.closest?.("button, a, summary"))) return;
      event.preventDefault();
      latest.current[act]();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
