import type { Job } from "@unitext/server/api";
import { useEffect, useState } from "react";
import { useDeck } from "./DeckContext";
import { isOpen, isPlain, dismissJobs, useJobList } from "../jobs";

export interface Arrival {
  /** The jobs that read or have read files into the open deck, newest first. */
  jobs: readonly Job[];
  /** The file whose slides are not all on this page yet, though its job may have ended. */
  coming: Job | undefined;
  /** Whether slides may still arrive: a file is coming, or it is not known yet. */
  arriving: boolean;
}

/**
 * Returns how the slides of the open deck arrive. A file that was read without remarks is taken off the list once this
 * page has all of it.
 */
export function useArrival(): Arrival {
  const { deck, session } = useDeck();
  const { jobs: all, loading } = useJobList();
  const jobs = all.filter((job) => job.deck === deck.id && job.kind === "read");
  const [here, setHere] = useState<readonly string[]>([]);
  const ended = jobs.filter((job) => !isOpen(job));
  const ids = ended.map(({ id }) => id).join(" ");
  // The end of a job may be announced before its last slides are here.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the ids stand for the list of jobs, which is new at every render.
  useEffect(() => {
    if (!ids) return;
    let shown = true;
    void session.upToDate().then(() => {
      if (!shown) return;
      setHere(ids.split(" "));
      void dismissJobs(...ended.filter(isPlain));
    });
    return () => {
      shown = false;
    };
  }, [session, ids]);
  const coming = jobs.find((job) => isOpen(job) || !here.includes(job.id));
  return { jobs, coming, arriving: loading || coming !== undefined };
}
