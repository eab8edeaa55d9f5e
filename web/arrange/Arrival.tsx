import { useEffect } from "react";
import { isOpen, isPlain, JobLine, takeOff, useJobs } from "../jobs";

/** How far the file is that a deck is read from, and what of it is not there as it was. */
export function Arrival({ deck }: { deck: string }) {
  const jobs = useJobs().filter((job) => job.deck === deck && job.kind === "read");
  // A file that was read and taken whole needs no more words once its slides are seen.
  const seen = jobs.filter(isPlain);
  useEffect(() => void (seen.length > 0 && takeOff(...seen)), [seen.length]);
  return jobs.filter((job) => isOpen(job) || !isPlain(job)).map((job) => (
    <div key={job.id} className="hairline border-b px-4 pt-2 text-sm" data-reading={isOpen(job) ? "" : undefined}>
      <JobLine job={job} here />
    </div>
  ));
}
