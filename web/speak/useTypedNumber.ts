import { useEffect, useRef, useState } from "react";
import { typing } from "../keys";

/**
 * Collects the digits of a slide number until Enter, which goes to it; a space goes forward. Returns what was typed so
 * far.
 */
export function useTypedNumber(onNumber: (number: number) => void, onSpace: () => void): string {
  const [typed, setTyped] = useState("");
  const latest = useRef({ typed, onNumber, onSpace });
  latest.current = { typed, onNumber, onSpace };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (typing(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (document.querySelector("dialog[open]")) return;
      const free = event.target === document.body;
      if (/^\d$/.test(event.key)) setTyped((now) => (now + event.key).slice(-4));
      else if (event.key === "Enter" && latest.current.typed && free) {
        latest.current.onNumber(Number(latest.current.typed));
        setTyped("");
        event.preventDefault();
      } else if (event.key === " " && free) {
        latest.current.onSpace();
        event.preventDefault();
      } else if (event.key === "Escape") setTyped("");
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return typed;
}
