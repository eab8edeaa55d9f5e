import { type RefObject, useEffect, useRef } from "react";
import { type CommandName, keyOf, written } from "./commands";

type Acts = Partial<Record<CommandName, () => void>>;

/** The commands of all mounted components; the one that was mounted last wins where two have the same. */
const mounted = new Set<RefObject<Acts>>();

/** Returns what can be done now, by command. */
export function activeCommands(): Acts {
  return Object.assign({}, ...[...mounted].map(({ current }) => current));
}

/** Whether keys typed there are text. */
export function typing(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName))
  );
}

/** Whether the key means the same while somebody types, because it has Ctrl. */
const isForAnyFocus = (name: CommandName) => name === "finder";

/**
 * Runs commands by their keys while the component is mounted, unless the user is typing or a dialog is open. The command
 * finder lists them.
 */
export function useCommands(acts: Acts): void {
  const latest = useRef(acts);
  latest.current = acts;
  useEffect(() => {
    mounted.add(latest);
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || document.querySelector("dialog[open], [role=menu]")) return;
      const key = written(event);
      const name = (Object.keys(latest.current) as CommandName[]).find(
        (candidate) => latest.current[candidate] && keyOf(candidate) === key,
      );
      if (!name || (typing(event.target) && !isForAnyFocus(name))) return;
      event.preventDefault();
      latest.current[name]?.();
    };
    window.addEventListener("keydown", onKey);
    return () => {
      mounted.delete(latest);
      window.removeEventListener("keydown", onKey);
    };
  }, []);
}
