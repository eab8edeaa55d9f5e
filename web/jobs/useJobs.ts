import { type Job, JobList } from "@unitext/server/api";
import { useEffect } from "react";
import useSWR, { mutate } from "swr";
import { get } from "../api/client";

let events: EventSource | undefined;
let users = 0;
let asked = false;
let asking = false;
const NONE: readonly Job[] = [];

/**
 * Asks for the jobs whenever the server announces a change, but never twice at once; the last announcement is never
 * missed.
 */
async function refresh(): Promise<void> {
  asked = true;
  if (asking) return;
  asking = true;
  try {
    while (asked) {
      asked = false;
      await mutate("/jobs", await get("/jobs", JobList), { revalidate: false });
      await new Promise((resolve) => setTimeout(resolve, 150));
    }
  } catch {
    // Without a server, the next announcement asks again.
  } finally {
    asking = false;
  }
}

/** Notes that a file is being read, before the server's list says so. */
export function noteReading(id: string, deck: string, name: string): void {
  const job: Job = {
    id,
    deck,
    kind: "read",
    name,
    state: "waiting",
    slides: 0,
    page: 0,
    pages: 0,
    message: null,
    report: null,
    result: null,
    createdAt: new Date().toISOString(),
  };
  void mutate<JobList>("/jobs", (list) => ({ jobs: [job, ...(list?.jobs ?? []).filter((known) => known.id !== id)] }));
}

/** Returns the jobs of the user with their progress, and whether their list is still on its way. */
export function useJobList(): { jobs: readonly Job[]; loading: boolean } {
  const { data, isLoading } = useSWR("/jobs", () => get("/jobs", JobList));
  useEffect(() => {
    users += 1;
    if (!events) {
      events = new EventSource("/api/jobs/events");
      events.onmessage = () => void refresh();
      // Announcements may have been missed while the connection was down.
      events.onopen = () => void refresh();
    }
    return () => {
      users -= 1;
      if (users === 0) {
        events?.close();
        events = undefined;
      }
    };
  }, []);
  return { jobs: data?.jobs ?? NONE, loading: isLoading };
}

/** Returns the jobs of the user with their progress; none while their list is on its way. */
export const useJobs = (): readonly Job[] => useJobList().jobs;
