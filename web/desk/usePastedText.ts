import { useEffect, useRef, useState } from "react";
import { typing } from "../keys";
import { core } from "../worker";

/** Returns the text that was pasted on the Desk, in the text form; `onPaste` is called when there is one. */
export function usePastedText(onPaste: (text: string) => void): string {
  const [text, setText] = useState("");
  const latest = useRef(onPaste);
  latest.current = onPaste;
  useEffect(() => {
    const paste = async (event: ClipboardEvent) => {
      const data = event.clipboardData;
      if (!data || typing(event.target) || document.querySelector("dialog[open]")) return;
      const [html, plain] = [data.getData("text/html"), data.getData("text/plain")];
      if (!plain && !html) return;
      event.preventDefault();
      // Plain text stays as it was typed: the form shows it, and making the deck reads it.
      const found = /<(h[1-6]|ul|ol|table|blockquote)\b/i.test(html) ? await core.pastedText(html, plain) : plain;
      setText(found);
      latest.current(found);
    };
    document.addEventListener("paste", paste);
    return () => document.removeEventListener("paste", paste);
  }, []);
  return text;
}
