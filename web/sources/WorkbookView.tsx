import { CHART } from "@unitext/core/data";
import { parseCells } from "@unitext/core/model";
import type { SourceSummary, WorkbookContents } from "@unitext/server/api";
import { CsvReadingForm } from "./CsvReadingForm";
import { type GridMark, SheetGrid } from "./SheetGrid";
import { type CellChoice, stateOf } from "./useCellChoice";

/** The names, tables and the chosen chart of a sheet, to be marked in its grid. */
function marksOf(contents: WorkbookContents, sheet: string, named: string | undefined): GridMark[] {
  const areas = [
    ...[...contents.tables, ...contents.names].flatMap(({ name, at }) => (at ? [{ name, at }] : [])),
    ...contents.charts
      .filter(({ name }) => named === CHART + name)
      .flatMap(({ name, areas: own }) => own.map((at) => ({ name, at }))),
  ];
  return areas.flatMap(({ name, at }) => {
    const range = at.sheet === sheet ? parseCells(at.cells) : undefined;
    return range ? [{ name, range }] : [];
  });
}

function NameButton({
  label,
  pressed,
  disabled = false,
  onPress,
}: {
  label: string;
  pressed: boolean;
  disabled?: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      className={`btn btn-xs ${pressed ? "btn-secondary" : "btn-ghost"}`}
      aria-pressed={pressed}
      disabled={disabled}
      onClick={onPress}
    >
      {label}
    </button>
  );
}

/** A workbook to choose cells from: its sheets, what has a name in it, and the cells. */
export function WorkbookView({
  source,
  choice,
  language,
}: {
  source: SourceSummary;
  choice: CellChoice;
  language: string;
}) {
  const { contents, info, named } = choice;
  if (choice.problem) return <p role="alert">{choice.problem}</p>;
  if (!contents || !info) return <p className="quiet">Reading {source.name} …</p>;
  const hasNames = contents.names.length > 0 || contents.tables.length > 0 || contents.charts.length > 0;
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col">
      <div className="flex flex-wrap gap-1 pb-1" role="group" aria-label="Sheets">
        {contents.sheets.map(({ name, hidden }) => (
          <button
            key={name}
            type="button"
            className={`btn btn-xs ${name === info.name ? "btn-primary" : ""}`}
            aria-pressed={name === info.name}
            onClick={() => choice.showSheet(name)}
          >
            {name}
            {hidden ? " (hidden)" : ""}
          </button>
        ))}
      </div>
      {hasNames && (
        <div
          className="flex flex-wrap items-center gap-1 pb-1 text-xs"
          role="group"
          aria-label="Names, tables and charts"
        >
          <span className="quiet">Followed by name:</span>
          {[...contents.tables, ...contents.names].map(({ name, at }) => (
            <NameButton
              key={name}
              label={name}
              pressed={named === name}
              disabled={!at}
              onPress={() => choice.chooseName(name, at ?? undefined)}
            />
          ))}
          {contents.charts.map(({ name, sheet }) => (
            <NameButton
              key={name}
              label={`Chart “${name}”`}
              pressed={named === CHART + name}
              onPress={() => {
                choice.showSheet(sheet);
                choice.chooseName(CHART + name);
              }}
            />
          ))}
        </div>
      )}
      {contents.csv && !source.typed && <CsvReadingForm source={source} read={contents.csv} />}
      <SheetGrid
        key={info.name}
        source={source.id}
        state={stateOf(source)}
        sheet={info.name}
        rows={info.rows}
        columns={info.columns}
        language={language}
        range={choice.area}
        marks={marksOf(contents, info.name, named)}
        onRange={choice.chooseArea}
      />
      {contents.remarks.map((remark) => (
        <p key={remark} className="quiet pt-1 text-xs">
          {remark}
        </p>
      ))}
    </div>
  );
}
