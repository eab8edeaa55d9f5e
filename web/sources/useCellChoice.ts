import { type CellRange, formatAddress, parseAddress, parseCells } from "@unitext/core/model";
import { type SourceSummary, WorkbookContents } from "@unitext/server/api";
import { useState } from "react";
import useSWR from "swr";
import { get } from "../api/client";

/** Names the version of a source and how it is read: what was loaded of it is valid as long as this is the same. */
export const stateOf = ({ versions, csv }: SourceSummary) => `${versions[0]?.version} ${JSON.stringify(csv)}`;

/** What is in a workbook, and which of its cells are chosen: an area of a sheet, or what has a name. */
export function useCellChoice(source: SourceSummary | undefined, initial?: string) {
  const { data: contents, error } = useSWR(source ? `/sources/${source.id}/contents@${stateOf(source)}` : null, () =>
    get(`/sources/${source?.id}/contents`, WorkbookContents),
  );
  const start = initial === undefined ? undefined : parseAddress(initial);
  const [sheet, setSheet] = useState<string | undefined>(start?.sheet);
  const [area, setArea] = useState<CellRange | undefined>(start);
  const [named, setNamed] = useState<string | undefined>(start ? undefined : initial);
  const areaOfName = [...(contents?.tables ?? []), ...(contents?.names ?? [])].find(({ name }) => name === named)?.at;
  const shownSheet = sheet ?? areaOfName?.sheet;
  const info =
    contents?.sheets.find(({ name }) => name === shownSheet) ?? contents?.sheets.find(({ hidden }) => !hidden);
  const shownArea = area ?? (areaOfName && areaOfName.sheet === info?.name ? parseCells(areaOfName.cells) : undefined);
  return {
    contents,
    problem: (error as Error | undefined)?.message,
    /** The sheet that is shown, with its size. */
    info,
    area: shownArea,
    named,
    /** The chosen cells as a binding names them; undefined when nothing is chosen. */
    range: named ?? (info && area ? formatAddress({ ...area, sheet: info.name }) : undefined),
    showSheet: (name: string) => {
      setSheet(name);
      setArea(undefined);
      setNamed(undefined);
    },
    chooseArea: (next: CellRange) => {
      setSheet(info?.name);
      setArea(next);
      setNamed(undefined);
    },
    chooseName: (name: string, at?: { sheet: string; cells: string } | undefined) => {
      setNamed(name);
      setArea(at ? parseCells(at.cells) : undefined);
      if (at) setSheet(at.sheet);
    },
    /** Forgets what was chosen, for another workbook. */
    clear: () => {
      setSheet(undefined);
      setArea(undefined);
      setNamed(undefined);
    },
  };
}
export type CellChoice = ReturnType<typeof useCellChoice>;
