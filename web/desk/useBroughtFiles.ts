import { workbookKind } from "@unitext/core/model";
import { isDocumentName } from "@unitext/core/formats/catalogue";
import { ImportResult } from "@unitext/server/api";
import { useState } from "react";
import { useNavigate } from "react-router";
import { post } from "../api/client";
import { arrivalOf, noteReading } from "../jobs";
import { reportLines } from "@unitext/core/divide";

/** A file that was read at once: its deck, and what the report says of it. */
export interface ArrivedFile {
  name: string;
  id: string;
  lines: string[];
}

/** Hands files to the server, a few at a time. One file alone opens its deck as soon as the server reads it. */
export function useBroughtFiles({
  onBegin,
  onBusy,
  onProblem,
  onDone,
  onWorkbooks,
}: {
  onBegin: () => void;
  /** Says what is being done; empty when it has ended. */
  onBusy: (text: string) => void;
  onProblem: (text: string) => void;
  onDone: () => Promise<unknown>;
  /** Takes workbooks as sources; resolves with a sentence for each. */
  onWorkbooks: (files: readonly File[]) => Promise<string[]>;
}) {
  const navigate = useNavigate();
  const [arrived, setArrived] = useState<ArrivedFile[]>([]);
  const [broughtSources, setBroughtSources] = useState<string[]>([]);

  async function bring(files: readonly File[]) {
    onBegin();
    const list: ArrivedFile[] = [];
    const isWorkbook = ({ name }: File) => workbookKind(name) !== undefined && !isDocumentName(name);
    const workbooks = files.filter(isWorkbook);
    const waiting = files.filter((file) => !isWorkbook(file));
    let taken = 0;
    const take = async (file: File): Promise<void> => {
      try {
        const { id, report, job } = await post(`/files?name=${encodeURIComponent(file.name)}`, file, ImportResult);
        if (job) {
          noteReading(job, id, file.name);
          if (files.length === 1) navigate(`/decks/${id}/${arrivalOf(file.name)}`, { state: { job } });
          return;
        }
        if (!report) return;
        list.push({ name: file.name, id, lines: reportLines(report) });
      } catch (reason) {
        onProblem(`${file.name}: ${(reason as Error).message}`);
      }
    };
    // A few files are uploaded at a time; the server reads them as jobs, also when this page is closed.
    const hand = async () => {
      for (let file = waiting.shift(); file; file = waiting.shift()) {
        onBusy(
          files.length === 1
            ? `Handing over ${file.name} …`
            : `Handing over ${files.length} files: ${++taken}, ${file.name} …`,
        );
        await take(file);
      }
    };
    await Promise.all([hand(), hand(), hand()]);
    onBusy("");
    setArrived(list);
    setBroughtSources(await onWorkbooks(workbooks));
    await onDone();
  }

  return { arrived, broughtSources, bring };
}
