import { SourceList, SourceTaken, type TypedSheet, VersionPreview } from "@unitext/server/api";
import useSWR, { mutate } from "swr";
import { get, post } from "../api/client";

/** Reads everything again that a new source or version may change. */
export const reloadSources = () =>
  mutate(
    (key) => typeof key === "string" && (key.startsWith("/sources") || key === "/jobs" || key.includes("/bindings")),
  );

/** Hands in a workbook: as a new source, or as the newest version of the one with its name. */
export async function bringIn(file: File, name = file.name): Promise<SourceTaken> {
  const taken = await post(`/sources?name=${encodeURIComponent(name)}`, file, SourceTaken);
  await reloadSources();
  return taken;
}

/** Returns what a workbook would change as the newest version of the source with its name. */
export const previewOf = (file: File, language: string): Promise<VersionPreview> =>
  post(
    `/sources/preview?name=${encodeURIComponent(file.name)}&language=${encodeURIComponent(language)}`,
    file,
    VersionPreview,
  );

/** Stores a sheet that was typed. */
export async function storeTyped(sheet: TypedSheet): Promise<SourceTaken> {
  const taken = await post("/sources/typed", sheet, SourceTaken);
  await reloadSources();
  return taken;
}

/** The sources of the person. */
export function useSources() {
  const { data, error } = useSWR("/sources", () => get("/sources", SourceList));
  return { sources: data?.sources, error: error as Error | undefined };
}
