import { useEffect, useRef } from "react";
import { type CommandName, keyOf, written } from "./commands";

/** Whether keys typed there are text. */
export function typing(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName))
  );
}

/** Runs commands by their keys while the component is mounted, unless the user is typing or a dialog is open. */
export function useCommands(acts: Partial<Record<CommandName, () => void>>): void {
  const latest = useRef(acts);
  latest.current = acts;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || typing(event.target) || document.querySelector("dialog[open]")) return;
      const key = written(event);
      const name = (Object.keys(latest.current) as CommandName[]).find((candidate) => keyOf(candidate) === key);
      if (!name) return;
      event.preventDefault();
      latest.current[name]?.();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
