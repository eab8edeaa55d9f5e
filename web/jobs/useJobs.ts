import { type Job, JobList } from "@unitext/server/api";
import { useEffect } from "react";
import useSWR, { mutate } from "swr";
import { get } from "../api/client";

let events: EventSource | undefined;
let listeners = 0;
let _waiting: ReturnType<typeof setTimeout> | undefined;

/** Asks for the jobs again, at most five times a second, whenever the server tells of one. */
function refresh(): void {
  _waiting ??= setTimeout(() => {
    _waiting = undefined;
    void mutate("/jobs");
  }, 200);
}

/** The jobs of the user as they go on. */
export function useJobs(): readonly Job[] {
  const { data } = useSWR("/jobs", () => get("/jobs", JobList));
  useEffect(() => {
    listeners += 1;
    if (!events) {
      events = new EventSource("/api/jobs/events");
      events.onmessage = refresh;
    }
    return () => {
      listeners -= 1;
      if (listeners === 0) {
        events?.close();
        events = undefined;
      }
    };
  }, []);
  return data?.jobs ?? [];
}
