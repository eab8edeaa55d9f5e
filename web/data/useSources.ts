import { SourceList, SourceTaken } from "@unitext/server/api";
import useSWR, { mutate } from "swr";
import { get, post } from "../api/client";

/** The sources of the person, and the act that brings in a workbook: as a new source or as a newer version. */
export function useSources() {
  const { data, error } = useSWR("/sources", () => get("/sources", SourceList));
  async function bringIn(file: File): Promise<SourceTaken> {
    const taken = await post(`/sources?name=${encodeURIComponent(file.name)}`, file, SourceTaken);
    await mutate(
      (key) => typeof key === "string" && (key === "/sources" || key === "/jobs" || key.includes("/bindings")),
    );
    return taken;
  }
  return { sources: data?.sources, error: error as Error | undefined, bringIn };
}
