import { Entrance, type Me } from "@unitext/server/api";
import useSWR from "swr";
import { get } from "./client";

/** Who uses this page, and how the house may be entered. */
export function useEntrance() {
  return useSWR("/entrance", () => get("/entrance", Entrance), { revalidateOnFocus: false });
}

/** The user of the demo, as the server calls it once it is asked for anything. */
const DEMO = { id: "demo", name: "Course team", role: "owner", demo: true } as const satisfies Me;

/** Returns the person who uses this page; undefined while that is not known, or for a stranger. */
export function useMe(): Me | undefined {
  const { data } = useEntrance();
  return data?.me ?? (data?.demo ? DEMO : undefined);
}
