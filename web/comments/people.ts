import { People } from "@unitext/server/api";
import useSWR from "swr";
import { get } from "../api/client";

/** The people of the house, whom a comment may mention. */
export function usePeople(): People["people"] {
  const { data } = useSWR("/people", () => get("/people", People), { revalidateOnFocus: false });
  return data?.people ?? [];
}
