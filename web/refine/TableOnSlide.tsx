import {
  changeCells,
  fillCells,
  insertRow,
  moveColumn,
  moveColumnEdge,
  moveRow,
  setRowHeight,
} from "@unitext/core/edit";
import type { TableGrid } from "@unitext/core/layout";
import { type Frame, type RichText, type TableElement, textOf } from "@unitext/core/model";
import { type ClipboardEvent, type KeyboardEvent, useEffect, useMemo, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { RichTextEditor } from "../richtext/RichTextEditor";
import { type CellBox, type CellPlace, cellAt, cellBoxes, neighbour, rangeOf, tabbedCells } from "./cells";
import { placeOnStage } from "./FrameButtons";
import { TableEdges } from "./TableEdges";
import { type ChangeTable, TableTools } from "./TableTools";

/** The longest text that is pasted into a cell, in characters. */
const LONGEST = 20_000;
const ARROWS: Record<string, readonly [down: number, right: number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

interface Props {
  table: TableElement;
  /** The column widths and row heights that the layout found, the place of the table, and its text size, in points. */
  grid: TableGrid;
  frame: Frame;
  size: number;
  scale: number;
  font: { family: string; css: string; colour: string; background: string };
  change: ChangeTable;
  onLeave: () => void;
}

/**
 * A table that is edited where it is: cells are selected with the pointer or the arrow keys, and written in with Enter, a
 * double click, or by typing; Tab goes from cell to cell.
 */
export function TableOnSlide({ table, grid, frame, size, scale, font, change, onLeave }: Props) {
  const { deck, session } = useDeck();
  const [at, setAt] = useState<CellPlace>({ row: 0, column: 0 });
  const [anchor, setAnchor] = useState<CellPlace>(at);
  /** Whether the cell is written in, and whether its old words are replaced. */
  const [writing, setWriting] = useState<"change" | "replace">();
  const root = useRef<HTMLDivElement>(null);
  const boxes = useMemo(() => cellBoxes(table, grid, frame, deck.language), [table, grid, frame, deck.language]);
  const range = rangeOf(anchor, at);
  const box = boxes.find(({ row, column }) => row === at.row && column === at.column) ?? boxes[0];

  // The focus is on the current cell, unless it is written in.
  useEffect(() => {
    if (!writing) root.current?.querySelector<HTMLElement>(`[data-at="${at.row}/${at.column}"]`)?.focus();
  }, [at, writing]);

  const go = (to: CellPlace | undefined, extend = false) => {
    if (!to) return;
    setAt(to);
    if (!extend) setAnchor(to);
  };
  const arrow = ([down, right]: readonly [number, number], extend: boolean) => {
    const cell = table.rows[at.row]?.[at.column];
    const row = down > 0 ? at.row + (cell?.rows ?? 1) : at.row + down;
    const column = right > 0 ? at.column + (cell?.columns ?? 1) : at.column + right;
    go(cellAt(table, row, column), extend);
  };
  const tab = (by: 1 | -1) => {
    const next = neighbour(boxes, at, by);
    if (next) go(next);
    else if (by === 1) {
      const below = table.rows.length;
      change((now) => insertRow(now, now.rows.length), "Added a row");
      go({ row: below, column: 0 });
    }
  };
  const write = (text: RichText) =>
    change((now) => changeCells(now, rangeOf(at, at), (cell) => ({ ...cell, text })), "Changed a cell of a table");
  const clear = () => change((now) => changeCells(now, range, (cell) => ({ ...cell, text: [] })), "Emptied cells");
  const move = ([down, right]: readonly [number, number]) => {
    change(
      (now) => (down ? moveRow(now, at.row, at.row + down) : moveColumn(now, at.column, at.column + right)),
      down ? "Moved a row" : "Moved a column",
    );
    go(cellAt(table, at.row + down, at.column + right));
  };

  const onKeyDown = (event: KeyboardEvent) => {
    const { key } = event;
    if (key === "Tab") {
      setWriting(writing && "change");
      tab(event.shiftKey ? -1 : 1);
    } else if (writing || (event.target as HTMLElement).closest("[role=toolbar]")) return;
    else if (key === "Escape") onLeave();
    else if (ARROWS[key])
      (event.altKey ? move : (step: readonly [number, number]) => arrow(step, event.shiftKey))(ARROWS[key]);
    else if (key === "Enter" || key === "F2") setWriting("change");
    else if (key === "Delete" || key === "Backspace") clear();
    else if (key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey) {
      // The key itself is typed into the editor that appears.
      setWriting("replace");
      event.stopPropagation();
      return;
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const onPaste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData("text/plain");
    if (writing || !text) return;
    event.preventDefault();
    event.stopPropagation();
    const texts = tabbedCells(text);
    const longest = Math.max(...texts.flat().map(({ length }) => length));
    if (longest > LONGEST) {
      session.notify(
        `The text has ${longest.toLocaleString()} characters; a cell takes ${LONGEST.toLocaleString()}. Nothing was pasted.`,
      );
      return;
    }
    change((now) => fillCells(now, range.top, range.left, texts), "Pasted cells");
  };
  const onCopy = (event: ClipboardEvent) => {
    if (writing) return;
    const rows = table.rows
      .slice(range.top, range.bottom + 1)
      .map((row) => row.slice(range.left, range.right + 1).map((cell) => (cell ? textOf(cell.text) : "")));
    event.clipboardData.setData("text/plain", rows.map((row) => row.join("\t")).join("\n"));
    event.preventDefault();
    event.stopPropagation();
  };

  if (!box) return null;
  return (
    <div
      ref={root}
      role="grid"
      aria-label={`Cells of the table, ${table.rows.length} rows by ${table.rows[0]?.length ?? 0} columns`}
      aria-multiselectable="true"
      tabIndex={-1}
      className="rich-text on-slide table-on-slide absolute z-10 outline-2 outline-secondary"
      style={{
        ...placeOnStage(frame, scale),
        height: grid.heights.reduce((sum, height) => sum + height, 0) * scale,
        ["--lift" as string]: `${frame.y * scale}px`,
        ["--shift" as string]: `${frame.x * scale}px`,
      }}
      onKeyDown={onKeyDown}
      onPaste={onPaste}
      onCopy={onCopy}
      data-table={table.id}
    >
      {!writing && <TableTools table={table} range={range} colour={font.colour} change={change} />}
      {table.rows.map((_, row) => (
        <div key={row} role="row" tabIndex={-1} className="contents">
          {boxes
            .filter((one) => one.row === row)
            .map((one) => (
              <CellButton
                key={one.column}
                box={one}
                origin={frame}
                scale={scale}
                text={textOf(table.rows[one.row]?.[one.column]?.text ?? [])}
                current={one === box}
                chosen={isIn(range, one)}
                onChoose={(extend) => go(one, extend)}
                onWrite={() => {
                  go(one);
                  setWriting("change");
                }}
              />
            ))}
        </div>
      ))}
      <TableEdges
        grid={grid}
        scale={scale}
        onColumn={(column, by) =>
          change((now) => moveColumnEdge(now, grid.widths, column, by), "Changed the width of a column")
        }
        onRow={(row, height) =>
          change((now) => setRowHeight(now, grid.heights, row, height), "Changed the height of a row")
        }
      />
      {writing && (
        <RichTextEditor
          key={`${at.row}/${at.column}`}
          text={writing === "replace" ? [] : (table.rows[at.row]?.[at.column]?.text ?? [])}
          label={`Cell in row ${at.row + 1}, column ${at.column + 1}`}
          placeholder=""
          language={deck.language}
          autoFocus
          className="on-slide absolute z-20 flex flex-col outline-2 outline-secondary"
          style={{
            left: (box.x - frame.x) * scale,
            top: (box.y - frame.y) * scale,
            width: box.width * scale,
            minHeight: box.height * scale,
            padding: `${0.28 * size * scale}px ${0.5 * size * scale}px`,
            background: font.background,
            color: font.colour,
            fontFamily: font.css,
            fontSize: size * scale,
            fontWeight: at.row < table.header ? 700 : 400,
            lineHeight: 1.25,
            textAlign: { start: "start", centre: "center", end: "end" }[table.align[at.column] ?? "start"] as "start",
            ["--lift" as string]: `${box.y * scale}px`,
            ["--shift" as string]: `${box.x * scale}px`,
            ["--point" as string]: `${scale}px`,
          }}
          base={{ font: font.family, size, colour: font.colour }}
          onChange={write}
          onLeave={() => setWriting(undefined)}
        />
      )}
    </div>
  );
}

const isIn = ({ top, left, bottom, right }: ReturnType<typeof rangeOf>, { row, column }: CellPlace) =>
  row >= top && row <= bottom && column >= left && column <= right;

function CellButton({
  box,
  origin,
  scale,
  text,
  current,
  chosen,
  onChoose,
  onWrite,
}: {
  box: CellBox;
  origin: Frame;
  scale: number;
  text: string;
  current: boolean;
  chosen: boolean;
  onChoose: (extend: boolean) => void;
  onWrite: () => void;
}) {
  return (
    <div
      role="gridcell"
      aria-label={`Row ${box.row + 1}, column ${box.column + 1}: ${text || "empty"}`}
      aria-selected={chosen}
      tabIndex={current ? 0 : -1}
      data-at={`${box.row}/${box.column}`}
      className={`absolute cursor-cell ${chosen ? "bg-secondary/20" : ""} ${current ? "outline-2 -outline-offset-2 outline-secondary" : "hover:bg-secondary/10"}`}
      style={placeOnStage({ x: box.x - origin.x, y: box.y - origin.y, width: box.width, height: box.height }, scale)}
      onPointerDown={(event) => {
        event.stopPropagation();
        onChoose(event.shiftKey);
      }}
      onPointerEnter={(event) => event.buttons === 1 && onChoose(true)}
      onDoubleClick={onWrite}
    />
  );
}
