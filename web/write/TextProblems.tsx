import type { Problem } from "@unitext/core/text";

/** The most problems that are listed at once. */
const MOST = 50;

/** What could not be understood in the text, line by line. */
export function TextProblems({ problems, onGoTo }: { problems: readonly Problem[]; onGoTo: (line: number) => void }) {
  if (!problems.length) return null;
  return (
    <section
      aria-label="Notes on the text"
      className="hairline bg-base-200 max-h-28 overflow-auto border-t px-4 py-2 text-sm"
    >
      <ul>
        {problems.slice(0, MOST).map(({ line, message }, nth) => (
          <li key={nth}>
            <button type="button" className="text-primary underline" onClick={() => onGoTo(line)}>
              Line {line}
            </button>{" "}
            {message}
          </li>
        ))}
      </ul>
    </section>
  );
}
