import { contentsNote } from "@unitext/core/divide";
import type { Job, JobResult } from "@unitext/server/api";
import { ClipboardCopy } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { download } from "../api/client";
import { clock } from "../ui/time";

const KINDS: Record<string, string> = { slide: "Slides", notes: "Notes", link: "Links", binding: "Linked data" };

/** What became of the input: a sentence, and the table behind it. */
export function BalanceTable({ result }: { result: Pick<JobResult, "sentence" | "rows"> }) {
  return (
    <details className="text-sm" data-balance>
      <summary className="cursor-pointer">{result.sentence}</summary>
      <table className="mt-1">
        <thead>
          <tr className="quiet">
            <th scope="col" className="pr-4 text-left font-normal">
              What
            </th>
            {["went in", "as it was", "adapted", "left out", "more than once"].map((label) => (
              <th key={label} scope="col" className="px-3 text-right font-normal">
                {label}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {result.rows
            .filter(({ before }) => before > 0)
            .map(({ kind, before, carried, adapted, left, again }) => (
              <tr key={kind}>
                <th scope="row" className="pr-4 text-left font-normal">
                  {KINDS[kind] ?? kind}
                </th>
                {[before, carried, adapted, left, again].map((value, nth) => (
                  <td key={nth} className="px-3 text-right">
                    {value}
                  </td>
                ))}
              </tr>
            ))}
        </tbody>
      </table>
    </details>
  );
}

/** The values that were taken in decks, and what is to be looked at in Data. */
function Refreshed({ job, result }: { job: Job; result: JobResult }) {
  const taken = job.report?.adapted ?? [];
  const problems = job.report?.left ?? [];
  return (
    <div className="mt-1 text-sm" data-outcome>
      <p>
        {result.sentence}{" "}
        {result.decks.map(({ id, title }) => (
          <Link key={id} className="text-primary mr-2 underline" to={`/decks/${id}/data`}>
            {title}
          </Link>
        ))}
      </p>
      {[
        { label: "What changed", lines: taken.map(({ slide, what, how }) => `Slide ${slide}, ${what}: ${how}`) },
        { label: "To look at", lines: problems.map(({ slide, what, why }) => `Slide ${slide}, ${what}: ${why}`) },
      ].map(
        ({ label, lines }) =>
          lines.length > 0 && (
            <details key={label}>
              <summary className="cursor-pointer">
                {label}: {lines.length}
              </summary>
              <ul className="list-disc pl-6">
                {lines.slice(0, 200).map((line, nth) => (
                  <li key={nth}>{line}</li>
                ))}
              </ul>
            </details>
          ),
      )}
    </div>
  );
}

/** The result of taking an archive. Its decks are on the Desk, so only what differs from the archive is listed. */
function Restored({ result: { sentence, remarks } }: { result: JobResult }) {
  return (
    <div className="mt-1 text-sm" data-outcome>
      <p>{sentence}</p>
      {remarks.length > 0 && (
        <details>
          <summary className="cursor-pointer">Not as in the archive: {remarks.length}</summary>
          <ul className="list-disc pl-6">
            {remarks.map((remark, nth) => (
              <li key={nth}>{remark}</li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

/** The result of a job: decks with their links, repairs, what became of the input, and a table of contents to copy. */
export function Outcome({ job }: { job: Job }) {
  const [copied, setCopied] = useState(false);
  const { result } = job;
  if (!result) return null;
  if (result.file) {
    const { name, size } = result.file;
    return (
      <div className="mt-1" data-outcome>
        <p className="text-sm">{result.sentence}</p>
        {result.remarks.length > 0 && (
          <ul className="border-warning my-1 border-l-4 pl-3 text-sm">
            {result.remarks.map((remark, nth) => (
              <li key={nth}>{remark}</li>
            ))}
          </ul>
        )}
        <button
          type="button"
          className="btn btn-sm btn-primary my-1"
          onClick={() => void download(`/jobs/${job.id}/file`)}
        >
          Download {name}, {size < 1e6 ? `${Math.max(1, Math.round(size / 1000))} kB` : `${(size / 1e6).toFixed(1)} MB`}
        </button>
      </div>
    );
  }
  if (job.kind === "film")
    return (
      <p className="mt-1 text-sm" data-outcome>
        {result.sentence}{" "}
        {job.deck && (
          <Link className="text-primary underline" to={`/decks/${job.deck}/deliver/film`}>
            Watch it
          </Link>
        )}
      </p>
    );
  if (job.kind === "refresh") return <Refreshed job={job} result={result} />;
  if (job.kind === "restore") return <Restored result={result} />;
  const note = contentsNote(
    job.name,
    result.decks.map((deck) => ({
      ...deck,
      name: deck.title,
      address: new URL(`/decks/${deck.id}/speak`, window.location.href).href,
    })),
  );
  return (
    <div className="mt-1" data-outcome>
      <ol className="mb-2 list-decimal pl-6">
        {result.decks.map(({ id, title, slides, seconds }) => (
          <li key={id}>
            <Link className="text-primary underline" to={`/decks/${id}/arrange`}>
              <bdi>{title}</bdi>
            </Link>{" "}
            <span className="quiet text-sm">
              {slides} slides, {clock(seconds)}
            </span>
          </li>
        ))}
      </ol>
      {result.remarks.length > 0 && (
        <ul className="border-warning mb-2 border-l-4 pl-3 text-sm">
          {result.remarks.map((remark, nth) => (
            <li key={nth}>{remark}</li>
          ))}
        </ul>
      )}
      <BalanceTable result={result} />
      <button
        type="button"
        className="btn btn-ghost btn-xs mt-1"
        onClick={() => void navigator.clipboard.writeText(note).then(() => setCopied(true))}
      >
        <ClipboardCopy size={14} aria-hidden="true" /> {copied ? "Copied" : "Copy the list with links"}
      </button>
    </div>
  );
}
