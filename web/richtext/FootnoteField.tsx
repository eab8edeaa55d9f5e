import { useState } from "react";

/** Edits a footnote; an empty one is removed. */
export function FootnoteField({ words, onSet }: { words: string; onSet: (words: string) => void }) {
  const [text, setText] = useState(words);
  return (
    <label className="block">
      What the footnote says
      <input
        ref={(field) => field?.focus()}
        className="input input-sm w-full"
        value={text}
        onChange={({ target }) => setText(target.value)}
        onKeyDown={(event) => event.key === "Enter" && onSet(text.trim())}
      />
      <button
        type="button"
        className="btn btn-xs btn-primary mt-1 mr-1"
        disabled={text.trim() === words}
        onClick={() => onSet(text.trim())}
      >
        {words && !text.trim() ? "Remove" : "Set the footnote"}
      </button>
    </label>
  );
}
