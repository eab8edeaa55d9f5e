import { useVirtualizer } from "@tanstack/react-virtual";
import type { DeckRow as Row, Folder } from "@unitext/server/api";
import { type RefObject, useLayoutEffect, useMemo, useRef, useState } from "react";
import { DeskRow, type RowActs } from "./DeskRow";
import { ORDERS, type Order } from "./order";
import type { DeskActs } from "./useDeskActs";

/** The height of a row, in CSS pixels. */
const HEIGHT = 80;
const NUMBERS: ReadonlySet<Order> = new Set(["slides", "seconds"]);

/** The decks as a table that is sorted by its headings; only the rows in view are in the page. */
export function DeckTable({
  rows,
  folders,
  chosen,
  order,
  turned,
  scroller,
  acts,
  onShare,
  onOrder,
  onChoose,
}: {
  rows: readonly Row[];
  folders: readonly Folder[];
  chosen: ReadonlySet<string>;
  order: Order;
  /** Whether the order is the other way round. */
  turned: boolean;
  scroller: RefObject<HTMLElement | null>;
  acts: DeskActs;
  onShare: (row: Row) => void;
  onOrder: (order: Order) => void;
  onChoose: (ids: ReadonlySet<string>) => void;
}) {
  const element = useRef<HTMLTableElement>(null);
  const anchor = useRef<string>(undefined);
  const [top, setTop] = useState(0);
  useLayoutEffect(() => setTop(element.current?.offsetTop ?? 0));
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => HEIGHT,
    overscan: 4,
    scrollMargin: top,
  });
  const items = virtual.getVirtualItems();
  const before = (items[0]?.start ?? top) - top;
  const after = Math.max(0, virtual.getTotalSize() - ((items.at(-1)?.end ?? top) - top));
  const choose = (id: string, extend: boolean) => {
    const next = new Set(chosen);
    const at = rows.findIndex((row) => row.id === id);
    const from = extend && anchor.current ? rows.findIndex((row) => row.id === anchor.current) : at;
    const on = !chosen.has(id);
    for (const row of rows.slice(Math.min(at, from), Math.max(at, from) + 1)) {
      if (on) next.add(row.id);
      else next.delete(row.id);
    }
    anchor.current = id;
    onChoose(next);
  };
  const draggedWith = (id: string) => (chosen.has(id) ? [...chosen] : [id]);
  const latest = useRef({ acts, onShare, choose, draggedWith });
  latest.current = { acts, onShare, choose, draggedWith };
  // The same object at each render: only rows that changed are drawn again.
  const table = useMemo<RowActs>(
    () => ({
      acts: () => latest.current.acts,
      share: (row) => latest.current.onShare(row),
      choose: (id, extend) => latest.current.choose(id, extend),
      draggedWith: (id) => latest.current.draggedWith(id),
    }),
    [],
  );
  const heading = (name: Order, className: string) => (
    <th
      scope="col"
      aria-sort={order === name ? (turned ? "ascending" : "descending") : undefined}
      className={`px-3 font-normal ${NUMBERS.has(name) ? "text-right" : "text-left"} ${className}`}
    >
      <button type="button" className="min-h-6 underline-offset-4 hover:underline" onClick={() => onOrder(name)}>
        {ORDERS[name].label}
        {order === name ? (turned ? " ↑" : " ↓") : ""}
      </button>
    </th>
  );
  const all = rows.length > 0 && rows.every(({ id }) => chosen.has(id));
  return (
    <table ref={element} className="w-full" aria-rowcount={rows.length + 1}>
      <caption className="sr-only">Decks</caption>
      <thead>
        <tr className="quiet text-sm">
          <td className="pl-4">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              aria-label="Select all"
              checked={all}
              onChange={() => onChoose(all ? new Set() : new Set(rows.map(({ id }) => id)))}
            />
          </td>
          <td />
          <th
            scope="col"
            aria-sort={order === "title" ? (turned ? "descending" : "ascending") : undefined}
            className="px-3 text-left font-normal"
          >
            <button
              type="button"
              className="min-h-6 underline-offset-4 hover:underline"
              onClick={() => onOrder("title")}
            >
              Deck{order === "title" ? (turned ? " ↑" : " ↓") : ""}
            </button>
            <span aria-hidden="true"> · </span>
            <button
              type="button"
              className="min-h-6 underline-offset-4 hover:underline"
              onClick={() => onOrder("changed")}
            >
              Changed{order === "changed" ? (turned ? " ↑" : " ↓") : ""}
            </button>
          </th>
          {heading("slides", "max-md:hidden")}
          {heading("seconds", "max-md:hidden")}
          {heading("language", "max-lg:hidden")}
          <th scope="col" className="px-3 text-left font-normal max-lg:hidden">
            To do
          </th>
          <td />
        </tr>
      </thead>
      <tbody>
        {before > 0 && <Space height={before} />}
        {items.map(({ index }) => {
          const row = rows[index];
          if (!row) return null;
          return <DeskRow key={row.id} row={row} folders={folders} chosen={chosen.has(row.id)} table={table} />;
        })}
        {after > 0 && <Space height={after} />}
      </tbody>
    </table>
  );
}

/** The room of the rows that are not in the page. */
const Space = ({ height }: { height: number }) => (
  <tr>
    <td style={{ height }} />
  </tr>
);
