import { useArrival } from "../deck/useArrival";
import { isPlain, JobLine } from "../jobs";

/** How far the file is that the deck is read from, and what of it is not there as it was. */
export function Arrival() {
  const { jobs, coming } = useArrival();
  return jobs
    .filter((job) => job === coming || !isPlain(job))
    .map((job) => (
      <div key={job.id} className="hairline border-b px-4 pt-2 text-sm" data-reading={job === coming ? "" : undefined}>
        <JobLine job={job} here />
      </div>
    ));
}
