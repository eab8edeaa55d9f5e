import type { LinkFace, LinkOpening } from "@unitext/server/api";
import { useState } from "react";

/** What is asked before a link opens, or why it does not. */
export function LinkQuestion({
  title,
  face,
  problem,
  onAnswer,
}: {
  title: string;
  face?: LinkFace | undefined;
  problem: string;
  onAnswer: (answer: LinkOpening) => void;
}) {
  const [phrase, setPhrase] = useState("");
  const [name, setName] = useState("");
  return (
    <main className="grid min-h-full place-items-center p-4">
      <form
        className="hairline w-full max-w-md border p-6"
        onSubmit={(event) => {
          event.preventDefault();
          onAnswer({ ...(face?.needsPhrase ? { phrase } : {}), ...(face?.needsName ? { name } : {}) });
        }}
      >
        <h1 className="mb-3 font-serif text-xl">{title}</h1>
        {problem && (
          <p role="alert" className="border-error mb-3 border-l-4 pl-2">
            {problem}
          </p>
        )}
        {face?.needsPhrase && (
          <label className="mb-3 block text-sm">
            Pass phrase
            <input
              required
              className="input mt-1 w-full"
              autoComplete="off"
              value={phrase}
              onChange={({ target }) => setPhrase(target.value)}
            />
          </label>
        )}
        {face?.needsName && (
          <label className="mb-3 block text-sm">
            Your name, which others see beside what you write
            <input
              required
              maxLength={100}
              className="input mt-1 w-full"
              autoComplete="name"
              value={name}
              onChange={({ target }) => setName(target.value)}
            />
          </label>
        )}
        {face && (
          <button type="submit" className="btn btn-primary w-full">
            Open
          </button>
        )}
      </form>
    </main>
  );
}
