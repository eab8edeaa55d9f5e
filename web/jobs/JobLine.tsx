import { isPresentationName } from "@unitext/core/formats/catalogue";
import { Job } from "@unitext/server/api";
import { Link } from "react-router";
import { mutate } from "swr";
import { post, remove } from "../api/client";
import { reportLines } from "@unitext/core/divide";
import { Outcome } from "./Outcome";

const STATE: Record<Job["kind"], Record<Job["state"], string>> = {
  read: {
    waiting: "waits its turn",
    running: "is being read",
    done: "is now on the Desk",
    cancelled: "was cancelled; what was made is kept",
    failed: "could not be read to its end",
  },
  split: {
    waiting: "waits to be split",
    running: "is being split",
    done: "was split",
    cancelled: "was not split: cancelled, and nothing was made",
    failed: "was not split, and nothing was made",
  },
  write: {
    waiting: "wait to be written",
    running: "are being written",
    done: "are written",
    cancelled: "were not written: cancelled",
    failed: "could not be written",
  },
  archive: {
    waiting: "waits to be written",
    running: "is being written",
    done: "is written",
    cancelled: "was not written: cancelled",
    failed: "could not be written",
  },
  restore: {
    waiting: "waits to be taken",
    running: "is being taken",
    done: "was taken",
    cancelled: "was cancelled; the decks taken before are on the Desk",
    failed: "could not be taken",
  },
  refresh: {
    waiting: "waits to be compared with the decks that use it",
    running: "is compared with the decks that use it",
    done: "was compared with the decks that use it",
    cancelled: "was compared with some decks only: cancelled",
    failed: "could not be compared; every value stays",
  },
  film: {
    waiting: "waits to be made into a film",
    running: "is being made into a film",
    done: "is a film now",
    cancelled: "was not made into a film: cancelled; its finished slides are kept for the next time",
    failed: "could not be made into a film; its finished slides are kept for the next time",
  },
  merge: {
    waiting: "waits to be merged",
    running: "is being merged",
    done: "was merged",
    cancelled: "was not merged: cancelled, and nothing was made",
    failed: "was not merged, and nothing was made",
  },
};

/** Returns where the slides of a file appear: a presentation in the map, a document beside its text. */
export const arrivalOf = (name: string): "arrange" | "write" => (isPresentationName(name) ? "arrange" : "write");

export const isOpen = ({ state }: Job) => state === "waiting" || state === "running";

/** Asks the server to cancel a job; what it made stays. */
export function cancelJob(job: Job): void {
  void post(`/jobs/${job.id}/cancel`, {}, Job).then(() => mutate("/jobs"));
}

/** Describes how far a job is: slides and pages, or the number of slides made. */
export function jobProgress({ kind, name, state, slides, page, pages }: Job): string {
  if (kind === "film")
    return page <= slides ? `the voice of slide ${page} of ${slides}` : `slide ${page - slides} of ${slides} drawn`;
  if (kind !== "read") return `${page} of ${pages} ${kind === "split" ? "parts" : "decks"}`;
  if (state === "done") return `${slides} ${slides === 1 ? "slide" : "slides"}`;
  if (arrivalOf(name) === "arrange" && pages) return `${slides} of ${pages} ${pages === 1 ? "slide" : "slides"}`;
  return `${slides} ${slides === 1 ? "slide" : "slides"}${pages > 1 ? `, page ${Math.max(1, page)} of about ${pages}` : ""}`;
}

// What a refresh took is listed with its outcome.
const jobSentence = ({ kind, report }: Job): string[] => (report && kind !== "refresh" ? reportLines(report) : []);

/** Whether a job has ended without remarks, so that seeing its slides is enough. */
export const isPlain = (job: Job) =>
  job.kind === "read" && job.state === "done" && !job.message && jobSentence(job).length === 0;

/** Removes ended jobs from the list. */
export async function dismissJobs(...jobs: readonly Job[]): Promise<void> {
  await Promise.all(jobs.map(({ id }) => remove(`/jobs/${id}`)));
  await mutate("/jobs");
}

/** The jobs of the Desk: running ones and the last that ended; older ones are folded away. */
export function JobLines({ jobs }: { jobs: readonly Job[] }) {
  const ended = jobs.filter((job) => !isOpen(job));
  const line = (job: Job) => <JobLine key={job.id} job={job} />;
  return (
    <>
      {jobs.filter(isOpen).map(line)}
      {ended.slice(0, 3).map(line)}
      {ended.length > 3 && (
        <details className="mb-2">
          <summary className="cursor-pointer text-sm">{ended.length - 3} more that have ended</summary>
          <div className="mt-2">{ended.slice(3).map(line)}</div>
        </details>
      )}
      {ended.length > 1 && (
        <button type="button" className="btn btn-ghost btn-xs mb-2" onClick={() => void dismissJobs(...ended)}>
          Take all {ended.length} off the list
        </button>
      )}
    </>
  );
}

/**
 * A line on a document being read: how far it is, what was adapted, and where its slides are, unless they are `here`.
 */
export function JobLine({ job, here = false }: { job: Job; here?: boolean }) {
  const open = isOpen(job);
  const lines = jobSentence(job);
  const refused = job.kind === "read" && job.state === "failed" && arrivalOf(job.name) === "arrange";
  return (
    <div
      data-job={job.state}
      className={`mb-2 border-l-4 px-3 py-1 ${open ? "border-primary" : job.state === "done" ? "border-success" : job.state === "failed" ? "border-error" : "border-warning"}`}
    >
      <div className="flex flex-wrap items-center gap-3">
        <p role={open ? "status" : undefined}>
          {job.name}{" "}
          {refused
            ? "was refused; nothing of it was imported"
            : here && job.kind === "read" && job.state === "done"
              ? "has been read"
              : STATE[job.kind][job.state]}
          {(open && job.pages > 0) || (job.slides && job.kind === "read" && !refused) ? ` (${jobProgress(job)})` : ""}.{" "}
          {job.message}{" "}
          {!here && job.kind === "read" && job.deck && job.slides > 0 && (
            <Link
              className="text-primary underline"
              to={`/decks/${job.deck}/${open ? arrivalOf(job.name) : "arrange"}`}
              onClick={() => isPlain(job) && void dismissJobs(job)}
            >
              {open ? "See it arrive" : "Open it"}
            </Link>
          )}
        </p>
        {open && (
          <progress
            className="progress progress-primary w-40"
            aria-label={`${job.name}: how far it is`}
            value={job.pages ? job.page : undefined}
            max={job.pages || 1}
          />
        )}
        {open ? (
          <button type="button" className="btn btn-ghost btn-xs" onClick={() => cancelJob(job)}>
            Cancel
          </button>
        ) : (
          <button
            type="button"
            className="btn btn-ghost btn-xs"
            aria-label={`Take off the list: ${job.name}`}
            onClick={() => void dismissJobs(job)}
          >
            Take off the list
          </button>
        )}
      </div>
      <Outcome job={job} />
      {lines.length > 0 && (
        <details>
          <summary className="cursor-pointer text-sm">
            {lines.length === 1 ? "One thing is" : `${lines.length} things are`} not there as{" "}
            {lines.length === 1 ? "it was" : "they were"}
          </summary>
          <ul className="list-disc pl-6 text-sm">
            {lines.slice(0, 200).map((line, at) => (
              <li key={at}>{line}</li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}
