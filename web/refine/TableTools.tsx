import {
  changeCells,
  type CellRange,
  deleteColumn,
  deleteRow,
  insertColumn,
  insertRow,
  mergeCells,
  moveColumn,
  moveRow,
  splitCell,
} from "@unitext/core/edit";
import type { Align, Cell, TableElement } from "@unitext/core/model";
import {
  AlignCenter,
  AlignLeft,
  AlignRight,
  Columns3,
  Grid2x2,
  Heading,
  PaintBucket,
  Rows3,
  TableCellsMerge,
  TableCellsSplit,
} from "lucide-react";
import { type MenuActs, MenuButton } from "../ui/Menu";
import { ToolButton } from "../richtext/ToolButton";
import { Tooltip } from "../ui/Tooltip";

export type ChangeTable = (change: (table: TableElement) => TableElement | undefined, words: string) => void;

const MENU = "btn btn-ghost btn-xs h-7 gap-1 px-1.5 font-normal";

/** The tools of a table on the slide: its rows, columns and cells. Fills, borders and merging are of the selected range. */
export function TableTools({
  table,
  range,
  colour,
  change,
}: {
  table: TableElement;
  range: CellRange;
  /** The colour that new borders get. */
  colour: string;
  change: ChangeTable;
}) {
  const one = range.top === range.bottom && range.left === range.right;
  const cell = table.rows[range.top]?.[range.left];
  const spans = (cell?.columns ?? 1) > 1 || (cell?.rows ?? 1) > 1;
  const side = table.align[range.left];
  const isHeader = range.top < table.header;
  const align = (to: Align) =>
    change(
      ({ align: now, ...rest }) => ({
        ...rest,
        align: now.map((old, nth) => (nth >= range.left && nth <= range.right ? to : old)),
      }),
      "Aligned columns of a table",
    );
  const fill = cell?.fill?.kind === "solid" ? cell.fill.colour : "#ffffff";
  return (
    <div className="rich-tools flex items-center gap-0.5" role="toolbar" aria-label="Table">
      <MenuButton label="Rows" className={MENU} acts={rowActs(range, change)}>
        <Rows3 size={16} aria-hidden="true" />
        Row
      </MenuButton>
      <MenuButton label="Columns" className={MENU} acts={columnActs(range, change)}>
        <Columns3 size={16} aria-hidden="true" />
        Column
      </MenuButton>
      <ToolButton
        label="Merge the selected cells"
        icon={TableCellsMerge}
        disabled={one}
        onPress={() => change((now) => mergeCells(now, range), "Merged cells")}
      />
      <ToolButton
        label="Split the cell"
        icon={TableCellsSplit}
        disabled={!spans}
        onPress={() => change((now) => splitCell(now, range.top, range.left), "Split a cell")}
      />
      <ToolButton
        label="Header: the rows down to this one are headings"
        icon={Heading}
        pressed={isHeader}
        onPress={() =>
          change(
            (now) => ({ ...now, header: isHeader ? range.top : range.bottom + 1 }),
            isHeader ? "Took rows out of the header" : "Made rows the header",
          )
        }
      />
      <span className="bg-base-300 mx-0.5 h-5 w-px" />
      <ToolButton
        label="Align the column at the start"
        icon={AlignLeft}
        pressed={side === "start"}
        onPress={() => align("start")}
      />
      <ToolButton
        label="Centre the column"
        icon={AlignCenter}
        pressed={side === "centre"}
        onPress={() => align("centre")}
      />
      <ToolButton
        label="Align the column at the end"
        icon={AlignRight}
        pressed={side === "end"}
        onPress={() => align("end")}
      />
      <Tooltip text="Fill of the selected cells">
        <label className="btn btn-ghost btn-xs btn-square relative h-7 w-7">
          <PaintBucket size={16} aria-hidden="true" />
          <span className="absolute inset-x-1.5 bottom-0.5 h-1" style={{ background: fill }} />
          <input
            type="color"
            aria-label="Fill of the selected cells"
            className="absolute inset-0 cursor-pointer opacity-0"
            value={fill}
            onChange={({ target }) =>
              change(
                (now) => changeCells(now, range, (old) => ({ ...old, fill: { kind: "solid", colour: target.value } })),
                "Filled cells",
              )
            }
          />
        </label>
      </Tooltip>
      <MenuButton label="Borders and fill" className={MENU} acts={lookActs(range, colour, change)}>
        <Grid2x2 size={16} aria-hidden="true" />
        Borders
      </MenuButton>
    </div>
  );
}

function rowActs({ top, bottom }: CellRange, change: ChangeTable): MenuActs {
  return [
    { label: "Row above", act: () => change((now) => insertRow(now, top), "Added a row") },
    { label: "Row below", act: () => change((now) => insertRow(now, bottom + 1), "Added a row") },
    undefined,
    {
      label: "Move up",
      keys: "Alt+ArrowUp",
      act: () => change((now) => moveRow(now, top, top - 1), "Moved a row up"),
    },
    {
      label: "Move down",
      keys: "Alt+ArrowDown",
      act: () => change((now) => moveRow(now, top, top + 1), "Moved a row down"),
    },
    undefined,
    {
      label: bottom > top ? "Delete the rows" : "Delete the row",
      act: () =>
        change((now) => {
          let next: TableElement | undefined = now;
          for (let row = bottom; row >= top && next; row--) next = deleteRow(next, row);
          return next;
        }, "Deleted rows"),
    },
    {
      label: "Heights as the text needs",
      act: () => change(({ heights: _, ...now }) => now, "Fitted the rows to their text"),
    },
  ];
}

function columnActs({ left, right }: CellRange, change: ChangeTable): MenuActs {
  return [
    { label: "Column before", act: () => change((now) => insertColumn(now, left), "Added a column") },
    { label: "Column after", act: () => change((now) => insertColumn(now, right + 1), "Added a column") },
    undefined,
    {
      label: "Move to the left",
      keys: "Alt+ArrowLeft",
      act: () => change((now) => moveColumn(now, left, left - 1), "Moved a column"),
    },
    {
      label: "Move to the right",
      keys: "Alt+ArrowRight",
      act: () => change((now) => moveColumn(now, left, left + 1), "Moved a column"),
    },
    undefined,
    {
      label: right > left ? "Delete the columns" : "Delete the column",
      act: () =>
        change((now) => {
          let next: TableElement | undefined = now;
          for (let column = right; column >= left && next; column--) next = deleteColumn(next, column);
          return next;
        }, "Deleted columns"),
    },
    {
      label: "Widths as the text needs",
      act: () => change(({ shares: _, ...now }) => now, "Fitted the columns to their text"),
    },
  ];
}

function lookActs(range: CellRange, colour: string, change: ChangeTable): MenuActs {
  const line = { colour, width: 1 };
  const each = (look: (cell: Cell) => Cell, words: string) => change((now) => changeCells(now, range, look), words);
  const bordered = (borders: NonNullable<Cell["borders"]>, words: string) =>
    each((cell) => ({ ...cell, borders }), words);
  return [
    {
      label: "Lines on all sides",
      act: () => bordered({ left: line, right: line, top: line, bottom: line }, "Drew borders"),
    },
    { label: "Line above and below", act: () => bordered({ top: line, bottom: line }, "Drew borders") },
    { label: "Line below", act: () => bordered({ bottom: line }, "Drew a border") },
    undefined,
    { label: "No fill of their own", act: () => each(({ fill: _, ...cell }) => cell, "Removed the fill of cells") },
    {
      label: "No borders of their own",
      act: () => each(({ borders: _, ...cell }) => cell, "Removed the borders of cells"),
    },
  ];
}
