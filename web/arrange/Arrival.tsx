import { useArrival } from "../deck/useArrival";
import { isPlain, JobLine } from "../jobs";

/** Shows how far the file of the deck has been read, and what of it was changed or left out. */
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
