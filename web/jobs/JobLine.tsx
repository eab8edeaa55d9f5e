import { Job } from "@unitext/server/api";
import { Link } from "react-router";
import { mutate } from "swr";
import { post, remove } from "../api/client";

const STATE = { waiting: "waits its turn", running: "is being read", done: "is now on the Desk", cancelled: "was cancelled; what was made is kept", failed: "could not be read to its end" } as const;

export const isOpen = ({ state }: Job) => state === "waiting" || state === "running";

export function cancelJob(job: Job): void {
  void post(`/jobs/${job.id}/cancel`, {}, Job).then(() => mutate("/jobs"));
}

/** How far a job is, in words: slides and pages. */
export function jobProgress({ slides, page, pages }: Job): string {
  return `${slides} ${slides === 1 ? "slide" : "slides"}${pages > 1 ? `, page ${Math.max(1, page)} of about ${pages}` : ""}`;
}

/** A line on a document that is being read, or was: how far it is, what was adapted, and where its slides are. */
export function JobLine({ job }: { job: Job }) {
  const open = isOpen(job);
  const lines = [...(job.report?.left ?? []).map(({ slide, what, why }) => `${slide ? `Slide ${slide}: ` : ""}${what} left out: ${why}`), ...(job.report?.adapted ?? []).map(({ slide, what, how }) => `${slide ? `Slide ${slide}: ` : ""}${what}: ${how}`)];
  return (
    <div data-job={job.state} className={`mb-2 border-l-4 px-3 py-1 ${open ? "border-primary" : job.state === "done" ? "border-success" : job.state === "failed" ? "border-error" : "border-warning"}`}>
      <div className="flex flex-wrap items-center gap-3">
        <p role={open ? "status" : undefined}>
          {job.name} {STATE[job.state]}
          {open || job.slides ? ` (${jobProgress(job)})` : ""}. {job.message}{" "}
          {job.deck && job.slides > 0 && (
            <Link className="text-primary underline" to={`/decks/${job.deck}/${open ? "write" : "arrange"}`}>
              {open ? "See it arrive" : "Open it"}
            </Link>
          )}
        </p>
        {open && <progress className="progress progress-primary w-40" aria-label={`Reading ${job.name}`} value={job.pages ? job.page : undefined} max={job.pages || 1} />}
        {open ? (
          <button type="button" className="btn btn-ghost btn-xs" onClick={() => cancelJob(job)}>
            Cancel
          </button>
        ) : (
          <button type="button" className="btn btn-ghost btn-xs" aria-label={`Take ${job.name} off this list`} onClick={() => void remove(`/jobs/${job.id}`).then(() => mutate("/jobs"))}>
            Take off the list
          </button>
        )}
      </div>
      {lines.length > 0 && (
        <details>
          <summary className="cursor-pointer text-sm">{lines.length === 1 ? "One thing" : `${lines.length} things`} could not be taken as {lines.length === 1 ? "it was" : "they were"}</summary>
          <ul className="list-disc pl-6 text-sm">{lines.slice(0, 200).map((line, at) => <li key={at}>{line}</li>)}</ul>
        </details>
      )}
    </div>
  );
}
