import { type Job, JobList } from "@unitext/server/api";
import { useEffect } from "react";
import useSWR, { mutate } from "swr";
import { get } from "../api/client";

let events: EventSource | undefined;
let users = 0;
let asked = false;
let asking = false;

/** Asks for the jobs again whenever the server tells of one, but never twice at once; the last word is never missed. */
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
    // Without a server its next word asks again.
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

/** The jobs of the user as they go on. */
export function useJobs(): readonly Job[] {
  const { data } = useSWR("/jobs", () => get("/jobs", JobList));
  useEffect(() => {
    users += 1;
    if (!events) {
      events = new EventSource("/api/jobs/events");
      events.onmessage = () => void refresh();
      // While the line was down something may have been missed.
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
  return data?.jobs ?? [];
}
