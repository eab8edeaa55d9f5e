import { workbookKind } from "@unitext/core/model";
import { SourceList, type VersionPreview } from "@unitext/server/api";
import { type ReactNode, useState } from "react";
import { get } from "../api/client";
import { type Decision, NewVersionDialog } from "./NewVersionDialog";
import { bringIn, previewOf } from "./useSources";

interface Asking {
  file: File;
  preview: VersionPreview;
  decide: (decision: Decision) => void;
}

/** Returns a file name that no source has: `gauges (2).xlsx`. */
async function freeName(name: string): Promise<string> {
  const { sources } = await get("/sources", SourceList);
  const taken = new Set(sources.map((source) => source.name));
  const dot = name.lastIndexOf(".");
  for (let nth = 2; ; nth++) {
    const free = `${name.slice(0, dot)} (${nth})${name.slice(dot)}`;
    if (!taken.has(free)) return free;
  }
}

/**
 * Takes workbooks that were dropped or chosen. One with the name of a source is shown beside it before it becomes the
 * newest version. Returns the act, which resolves with a sentence for each file, and the dialog to put on the page.
 */
export function useIncoming(language: string): {
  receive: (files: readonly File[]) => Promise<string[]>;
  dialog: ReactNode;
} {
  const [asking, setAsking] = useState<Asking>();

  async function take(file: File): Promise<string[]> {
    if (!workbookKind(file.name)) return [`${file.name} is no workbook and was not taken.`];
    const preview = await previewOf(file, language);
    if (preview.same) return [`${file.name} is the version that is here already.`];
    const decision = preview.source
      ? await new Promise<Decision>((decide) => setAsking({ file, preview, decide }))
      : "take";
    setAsking(undefined);
    if (decision === "leave") return [`${file.name} was not taken.`];
    const name = decision === "apart" ? await freeName(file.name) : file.name;
    const { known, remarks } = await bringIn(file, name);
    const what = known
      ? "is the newest version now; values that always follow are taken."
      : "is a source now; its cells are put on slides in Data.";
    return [`${name} ${what}`, ...remarks.map((remark) => `${name}: ${remark}`)];
  }

  async function receive(files: readonly File[]): Promise<string[]> {
    const lines: string[] = [];
    for (const file of files) {
      try {
        lines.push(...(await take(file)));
      } catch (reason) {
        lines.push(`${file.name}: ${(reason as Error).message}`);
      }
    }
    return lines;
  }

  const dialog = asking && (
    <NewVersionDialog name={asking.file.name} preview={asking.preview} onDecide={asking.decide} />
  );
  return { receive, dialog };
}
