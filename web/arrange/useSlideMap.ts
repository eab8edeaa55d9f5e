import { useVirtualizer } from "@tanstack/react-virtual";
import { must } from "@unitext/core/model";
import { type RefObject, useEffect, useLayoutEffect, useMemo, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { filledGrid, headerOf, mapRows } from "./rows";

/** Widths of thumbnails in CSS pixels, smallest first. */
export const SIZES = [64, 96, 128, 176, 232, 320, 448, 640, 880];

/** Rows, grid and scrolling of the map of slides, for the size of thumbnails that the user chose. */
export function useSlideMap(scroller: RefObject<HTMLDivElement | null>) {
  const { deck } = useDeck();
  const [size, setSize] = useState(() => Number(sessionStorage.getItem("unitext:zoom") ?? 3));
  const [room, setRoom] = useState({ width: 900, height: 560 });
  const rows = useMemo(() => mapRows(deck.slides, deck.rate), [deck]);
  const grid = filledGrid(rows, SIZES[size] ?? 232, deck.page, room);
  const perSheet = grid.rowsPerColumn * grid.columns;
  const [settled, setSettled] = useState(false);
  useEffect(() => {
    const soon = setTimeout(() => setSettled(true), 400);
    return () => clearTimeout(soon);
  }, []);
  const virtual = useVirtualizer({
    count: Math.ceil(rows.length / perSheet),
    getScrollElement: () => scroller.current,
    estimateSize: (nth) => Math.min(grid.rowsPerColumn, rows.length - nth * perSheet) * grid.rowHeight,
    // The first drawing is of what is in view alone.
    overscan: settled ? 1 : 0,
    getItemKey: (nth) => `${size}/${perSheet}/${nth}`,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: measures again when the size of a row changes; the virtualiser itself is new at every render.
  useEffect(() => virtual.measure(), [grid.rowHeight, perSheet, rows.length]);
  useLayoutEffect(() => {
    const element = must(scroller.current ?? undefined);
    const observer = new ResizeObserver(() => setRoom({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, [scroller]);
  useEffect(() => sessionStorage.setItem("unitext:zoom", String(size)), [size]);

  /** Returns the id of the main slide of a slide's family; the slide's own id where it is one. */
  const familyRoot = (id: string): string => {
    let slide = deck.slides.find((candidate) => candidate.id === id);
    while (slide?.parent) slide = deck.slides.find((candidate) => candidate.id === slide?.parent);
    return slide?.id ?? id;
  };
  /** Returns the row of a slide, or -1. */
  const rowOf = (id: string): number => {
    const main = familyRoot(id);
    return rows.findIndex((row) => row.main.id === main);
  };
  const scrollTo = (id: string) => {
    const at = rowOf(id);
    if (at >= 0) virtual.scrollToIndex(Math.floor(at / perSheet), { align: "auto" });
  };
  /** Scrolls to a slide and moves the keyboard focus to it. */
  const show = (id: string) => {
    scrollTo(id);
    requestAnimationFrame(() => {
      const thumb = scroller.current?.querySelector<HTMLElement>(`[data-thumb="${id}"]`);
      thumb?.focus({ preventScroll: true });
      thumb?.scrollIntoView({ block: "nearest" });
    });
  };
  return { rows, header: headerOf(rows), grid, perSheet, virtual, size, setSize, rowOf, scrollTo, show };
}

export type SlideMapLayout = ReturnType<typeof useSlideMap>;
