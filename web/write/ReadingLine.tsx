import type { Job } from "@unitext/server/api";
import { cancelJob, isOpen, jobProgress } from "../jobs";

/** How far the file is read from which the deck is being made. */
export function ReadingLine({ job }: { job: Job }) {
  return (
    <div className="hairline flex items-center gap-3 border-b px-4 py-1.5 text-sm" data-reading>
      <p role="status">
        {job.name} is being read: {jobProgress(job)}. You can open any slide that is there; the text can be changed when
        all are.
      </p>
      <progress
        className="progress progress-primary w-40"
        aria-label="Pages read"
        value={job.pages ? job.page : undefined}
        max={job.pages || 1}
      />
      {isOpen(job) && (
        <button type="button" className="btn btn-xs" onClick={() => cancelJob(job)}>
          Cancel
        </button>
      )}
    </div>
  );
}
