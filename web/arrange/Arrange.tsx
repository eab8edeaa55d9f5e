import {
  DndContext,
  type DragEndEvent,
  type DragMoveEvent,
  DragOverlay,
  type DragStartEvent,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { brokenLinks, contentsSlideFor } from "@unitext/core/divide";
import {
  duplicate,
  hide,
  insertAt,
  makeSection,
  moveTo,
  makeDetail,
  type Place,
  placeOf,
  remove,
  roots,
  step,
  moveOut,
} from "@unitext/core/edit";
import { familyOf, nameOf, newSlide, plainText, slideIndex, must } from "@unitext/core/model";
import { useVirtualizer } from "@tanstack/react-virtual";
import { nanoid } from "nanoid";
import { type KeyboardEvent, useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { useDeck } from "../deck/DeckContext";
import { useMeasures } from "../deck/scenes";
import { keepAppearance, lastAppearance } from "../deck/lastappearance";
import { useCommands } from "../keys";
import { DeckFrame } from "../shell/DeckFrame";
import { type Clipped, unclip } from "./clipboard";
import { findSlides, type Mark, MARKS } from "./find";
import { LinksDialog } from "./LinksDialog";
import { MoveTo } from "./MoveTo";
import { PasteDialog } from "./PasteDialog";
import { SkeletonDialog } from "./SkeletonDialog";
import { Arrival } from "./Arrival";
import { GAP, gridFor, headerOf, type Landing, landingWords, mapRows } from "./rows";
import { nameSection, SectionName } from "./SectionName";
import { Thumb } from "./Thumb";
import { useBand } from "./useBand";
import { lastClipped, useSlideClipboard } from "./useSlideClipboard";
import { ArrangeViews } from "../shell/ArrangeViews";

const SIZES = [64, 96, 128, 176, 232, 320, 448, 640, 880];

export default function Arrange() {
  const { deck, metadata, version, session, selected, select, canEdit } = useDeck();
  const measureOf = useMeasures(deck, metadata);
  const navigate = useNavigate();
  const [size, setSize] = useState(() => Number(sessionStorage.getItem("unitext:zoom") ?? 3));
  const [room, setRoom] = useState({ width: 900, height: 560 });
  const [landing, setLanding] = useState<Landing>();
  const [dragged, setDragged] = useState<string>();
  const [asking, setAsking] = useState(false);
  const [skeleton, setSkeleton] = useState(false);
  const [links, setLinks] = useState(false);
  const [pasting, setPasting] = useState<Clipped>();
  const [sought, setSought] = useState("");
  const [mark, setMark] = useState<Mark | "">("");
  const finder = useRef<HTMLInputElement>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const { band, frame } = useBand(scroller);
  const { after, paste, take, copy } = useSlideClipboard(setPasting);
  const anchor = useRef<string>(undefined);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const rows = useMemo(() => mapRows(deck.slides, deck.rate), [deck]);
  const header = headerOf(rows);
  const grid = gridFor(rows, SIZES[size] ?? 232, deck.page, room);
  const perSheet = grid.rowsPerColumn * grid.columns;
  const sheets = Math.ceil(rows.length / perSheet);
  const sheetHeight = (nth: number) => Math.min(grid.rowsPerColumn, rows.length - nth * perSheet) * grid.rowHeight;
  const virtual = useVirtualizer({
    count: sheets,
    getScrollElement: () => scroller.current,
    estimateSize: sheetHeight,
    overscan: 1,
    getItemKey: (nth) => `${size}/${perSheet}/${nth}`,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: measures again when the size of a row changes; the virtualiser itself is new at every render.
  useEffect(() => virtual.measure(), [grid.rowHeight, perSheet, rows.length]);

  useLayoutEffect(() => {
    const element = scroller.current as HTMLDivElement;
    const observer = new ResizeObserver(() => setRoom({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  useEffect(() => sessionStorage.setItem("unitext:zoom", String(size)), [size]);

  const chosen = useMemo(() => new Set(selected), [selected]);
  const current = selected.at(-1);
  const numbers = useMemo(() => new Map(deck.slides.map(({ id }, nth) => [id, nth + 1])), [deck]);

  const show = (id: string) => {
    const main = familyRoot(id);
    const at = rows.findIndex((row) => row.main.id === main);
    if (at >= 0) virtual.scrollToIndex(Math.floor(at / perSheet), { align: "auto" });
    requestAnimationFrame(() => {
      const thumb = scroller.current?.querySelector<HTMLElement>(`[data-thumb="${id}"]`);
      thumb?.focus({ preventScroll: true });
      thumb?.scrollIntoView({ block: "nearest" });
    });
  };
  function familyRoot(id: string): string {
    let slide = deck.slides.find((candidate) => candidate.id === id);
    while (slide?.parent) slide = deck.slides.find((candidate) => candidate.id === slide?.parent);
    return slide?.id ?? id;
  }

  const change = (next: Parameters<typeof session.apply>[0] | undefined, words?: string) => {
    if (!next) {
      session.notify("They are at the end already.");
      return;
    }
    session.apply(next, words ? { words } : {});
    if (current) requestAnimationFrame(() => show(current));
  };
  const count = (verb: string) => {
    const moved = roots(deck, selected);
    return moved.length === 1 ? `${verb} slide ${numbers.get(must(moved[0]))}` : `${verb} ${moved.length} slides`;
  };

  const acts = {
    moveUp: () => change(step(deck, selected, -1), count("Moved")),
    moveDown: () => change(step(deck, selected, 1), count("Moved")),
    nest: () => change(makeDetail(deck, selected), `${count("Put")} under the slide before`),
    unnest: () => change(moveOut(deck, selected), `${count("Lifted")} to the line above`),
    moveTo: () => setAsking(true),
    skeleton: () => setSkeleton(true),
    duplicate: () => {
      const copy = duplicate(deck, selected, () => nanoid(10), version);
      if (session.apply(copy, { words: count("Duplicated") })) {
        const first = copy.kind === "batch" ? copy.changes[0] : copy;
        if (first?.kind === "insertSlide") select([first.slide.id]);
      }
    },
    hide: () => {
      const shown = selected.some((id) => !deck.slides.find((slide) => slide.id === id)?.hidden);
      change(hide(selected, shown), count(shown ? "Hid" : "Showed"));
    },
    delete: () => {
      const at = slideIndex(deck, selected[0] ?? "");
      const words =
        selected.length === 1 ? `Deleted slide ${numbers.get(must(selected[0]))}` : `Deleted ${selected.length} slides`;
      const next =
        deck.slides.slice(at + 1).find(({ id }) => !chosen.has(id)) ??
        deck.slides
          .slice(0, at)
          .reverse()
          .find(({ id }) => !chosen.has(id));
      if (session.apply(remove(selected), { words })) {
        select(next ? [next.id] : []);
        if (next) requestAnimationFrame(() => show(next.id));
      }
    },
    add: () => {
      const id = nanoid(10);
      const at = current ? slideIndex(deck, current) : -1;
      const parent = at >= 0 ? (deck.slides[at]?.parent ?? null) : null;
      if (
        session.apply(insertAt([newSlide(id, "points")], { parent, after: current ?? null }), {
          words: current ? `Added a slide after ${numbers.get(current)}` : "Added a slide",
        })
      ) {
        select([id]);
        requestAnimationFrame(() => show(id));
      }
    },
    section: () => {
      const id = nanoid(10);
      const made = makeSection(deck, selected, id, {
        kind: "text",
        id: nanoid(10),
        slot: "title",
        text: plainText("New section"),
      });
      if (made && session.apply(made, { words: `Began a section before ${numbers.get(selected[0] ?? "")}` })) {
        select([id]);
        requestAnimationFrame(() => show(id));
      }
    },
    nameSection: () => {
      const main = deck.slides.find((slide) => slide.parent === null && chosen.has(slide.id));
      if (!main) session.notify("Select a slide of the main line: the section starts with it.");
      else if (main.section === undefined)
        session.apply(nameSection(main, "New section"), { words: `A section begins with ${numbers.get(main.id)}` });
      requestAnimationFrame(() =>
        document.querySelector<HTMLInputElement>(`[data-section="${main?.id}"] input`)?.select(),
      );
    },
    menu: () => {
      const made = contentsSlideFor(deck, selected, { title: "Topics", back: "Topics", newId: () => nanoid(10) });
      if (!made) session.notify("Select the slides for the contents.");
      else if (session.apply(made.change, { words: `Linked ${selected.length} slides from a menu and back` }))
        select([made.menu]);
    },
    search: () => finder.current?.focus(),
    zoomIn: () => setSize((now) => Math.min(SIZES.length - 1, now + 1)),
    zoomOut: () => setSize((now) => Math.max(0, now - 1)),
  };
  useCommands(acts);

  const found = useMemo(
    () => findSlides(deck.slides, sought, mark, (slide) => (measureOf(slide)?.overflow ?? 0) > 0),
    [deck, sought, mark, measureOf],
  );
  const broken = useMemo(() => brokenLinks(deck).length, [deck]);
  const look = (next: { words?: string; mark?: Mark | "" }) => {
    const to = { words: next.words ?? sought, mark: next.mark ?? mark };
    setSought(to.words);
    setMark(to.mark);
    const ids = findSlides(deck.slides, to.words, to.mark, (slide) => (measureOf(slide)?.overflow ?? 0) > 0);
    if (ids.length) {
      select([...ids].reverse());
      const at = rows.findIndex((row) => row.main.id === familyRoot(must(ids[0])));
      if (at >= 0) virtual.scrollToIndex(Math.floor(at / perSheet), { align: "auto" });
    }
  };

  function choose(
    id: string,
    { shiftKey, ctrlKey, metaKey }: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean },
  ) {
    if (shiftKey && anchor.current) {
      const from = slideIndex(deck, anchor.current);
      const to = slideIndex(deck, id);
      const run = deck.slides.slice(Math.min(from, to), Math.max(from, to) + 1).map((slide) => slide.id);
      select(from <= to ? run : run.reverse());
    } else if (ctrlKey || metaKey) {
      anchor.current = id;
      select(chosen.has(id) ? selected.filter((other) => other !== id) : [...selected, id]);
    } else {
      anchor.current = id;
      select([id]);
    }
  }

  const latest = useRef({ choose, navigate });
  latest.current = { choose, navigate };
  const chooseThumb = useCallback(
    (id: string, keys: Parameters<typeof choose>[1]) => latest.current.choose(id, keys),
    [],
  );
  const openThumb = useCallback((id: string) => latest.current.navigate(`/decks/${deck.id}/refine/${id}`), [deck.id]);

  function walk(event: KeyboardEvent) {
    if (event.altKey || event.ctrlKey || event.metaKey || !current) return;
    const at = slideIndex(deck, current);
    const row = rows.findIndex(({ main }) => main.id === familyRoot(current));
    const to = {
      ArrowDown: rows[row + 1]?.main.id,
      ArrowUp: deck.slides[at]?.parent === null ? rows[row - 1]?.main.id : rows[row]?.main.id,
      ArrowRight: deck.slides[at + 1]?.id,
      ArrowLeft: deck.slides[at - 1]?.id,
      Home: deck.slides[0]?.id,
      End: deck.slides.at(-1)?.id,
    }[event.key];
    if (event.key === "Enter") navigate(`/decks/${deck.id}/refine/${current}`);
    else if (event.key === "a" && !event.shiftKey) return;
    else if (to) {
      choose(to, { shiftKey: event.shiftKey, ctrlKey: false, metaKey: false });
      show(to);
    } else if (!["ArrowDown", "ArrowUp", "ArrowLeft", "ArrowRight"].includes(event.key)) return;
    event.preventDefault();
  }

  function placeFor({ target, side }: Landing): Place {
    const slide = deck.slides[slideIndex(deck, target)];
    if (side === "under")
      return { parent: target, after: deck.slides.filter(({ parent }) => parent === target).at(-1)?.id ?? null };
    if (side === "after") return { parent: slide?.parent ?? null, after: target };
    return placeOf(deck.slides, slideIndex(deck, target));
  }

  const moving = dragged ? (chosen.has(dragged) ? selected : [dragged]) : [];
  function land({ over, active, delta, activatorEvent }: DragMoveEvent | DragEndEvent): Landing | undefined {
    if (!over?.rect) return undefined;
    const target = String(over.id);
    const taken = new Set(
      (chosen.has(String(active.id)) ? selected : [String(active.id)]).flatMap((id) =>
        familyOf(deck.slides, id).map((slide) => slide.id),
      ),
    );
    if (taken.has(target)) return undefined;
    const pointer = activatorEvent as PointerEvent;
    const x = (pointer.clientX + delta.x - over.rect.left) / over.rect.width;
    const y = (pointer.clientY + delta.y - over.rect.top) / over.rect.height;
    const detail = deck.slides[slideIndex(deck, target)]?.parent !== null;
    if (detail) return { target, side: x < 0.5 ? "before" : "after" };
    return { target, side: x > 0.72 ? "under" : y < 0.5 ? "before" : "after" };
  }

  const words = landing ? landingWords(landing, deck.slides) : "";
  const start = ({ active }: DragStartEvent) => setDragged(String(active.id));
  const end = (event: DragEndEvent) => {
    const at = land(event);
    setDragged(undefined);
    setLanding(undefined);
    if (at) {
      const ids = chosen.has(String(event.active.id)) ? selected : [String(event.active.id)];
      const moved = ids.length === 1 ? `Moved slide ${numbers.get(must(ids[0]))}` : `Moved ${ids.length} slides`;
      session.apply(moveTo(deck, ids, placeFor(at)), { words: `${moved} ${landingWords(at, deck.slides)}` });
    }
  };

  const button = (label: string, act: () => void, disabled = false) => (
    <button type="button" className="btn btn-ghost btn-xs px-1.5" onClick={act} disabled={disabled || !canEdit}>
      {label}
    </button>
  );
  const none = selected.length === 0;
  const bar = (
    <div className="hairline bg-base-200 flex flex-wrap items-center gap-y-1 border-b px-2 py-1">
      <div className="flex flex-wrap items-center" role="toolbar" aria-label="Acts on the selected slides">
        {button("New", acts.add)}
        {button("Up", acts.moveUp, none)}
        {button("Down", acts.moveDown, none)}
        {button("Make detail of", acts.nest, none)}
        {button("Move out", acts.unnest, none)}
        {button("Move to …", acts.moveTo, none)}
        {button("Section", acts.section, none)}
        {button("Name a section", acts.nameSection, none)}
        {button("Contents", acts.menu, none)}
        {button("Skeleton …", acts.skeleton, none)}
        <button type="button" className="btn btn-ghost btn-xs px-1.5" onClick={() => copy()} disabled={none}>
          Copy
        </button>
        {button("Paste", () => take(unclip(lastClipped())))}
        {button("Duplicate", acts.duplicate, none)}
        {button("Hide", acts.hide, none)}
        {button("Delete", acts.delete, none)}
      </div>
      <div className="ml-auto flex flex-wrap items-center gap-2 px-2 text-sm">
        {broken > 0 && (
          <button type="button" className="btn btn-warning btn-xs" onClick={() => setLinks(true)}>
            {broken === 1 ? "One broken link" : `${broken} broken links`}
          </button>
        )}
        <label className="input input-xs w-36">
          <span className="sr-only">Select the slides that say</span>
          <input
            ref={finder}
            type="search"
            placeholder="Select by words"
            value={sought}
            onChange={(event) => look({ words: event.target.value })}
          />
        </label>
        <select
          className="select select-xs w-24"
          aria-label="Select the slides that are"
          value={mark}
          onChange={(event) => look({ mark: event.target.value as Mark | "" })}
        >
          <option value="">any</option>
          {Object.entries(MARKS).map(([name, label]) => (
            <option key={name} value={name}>
              {label}
            </option>
          ))}
        </select>
        <span role="status">{sought || mark ? `${found.length} found` : ""}</span>
        <label className="flex items-center gap-2">
          Size
          <input
            type="range"
            className="range range-xs w-16"
            min={0}
            max={SIZES.length - 1}
            value={size}
            onChange={(event) => setSize(Number(event.target.value))}
          />
        </label>
      </div>
    </div>
  );

  return (
    <DeckFrame place="Arrange" tools={<ArrangeViews />} onOpen={show}>
      <DndContext
        sensors={sensors}
        collisionDetection={pointerWithin}
        onDragStart={start}
        onDragMove={(event) => setLanding((now) => same(now, land(event)))}
        onDragEnd={end}
        onDragCancel={() => {
          setDragged(undefined);
          setLanding(undefined);
        }}
      >
        <div className="flex h-full flex-col">
          {bar}
          <Arrival />
          <div className="relative min-h-0 flex-1">
            <div
              ref={scroller}
              onPointerDown={frame}
              role="listbox"
              aria-multiselectable="true"
              aria-label="Slides in running order; details stand to the right of their main slide"
              tabIndex={-1}
              className="h-full overflow-auto px-4 outline-none"
              onKeyDown={walk}
              data-map
            >
              {rows.length === 0 && (
                <div className="py-16 text-center">
                  <p className="mb-4">There is no slide yet.</p>
                  <button type="button" className="btn btn-primary" onClick={acts.add}>
                    New slide
                  </button>
                </div>
              )}
              <div role="presentation" style={{ height: virtual.getTotalSize(), position: "relative", marginTop: GAP }}>
                {virtual.getVirtualItems().map((sheet) => (
                  <div
                    key={sheet.key}
                    role="presentation"
                    className="absolute grid grid-flow-col justify-start"
                    style={{
                      transform: `translateY(${sheet.start}px)`,
                      gridTemplateRows: `repeat(${grid.rowsPerColumn}, ${grid.rowHeight}px)`,
                      gridAutoColumns: `${grid.columnWidth}px`,
                    }}
                  >
                    {rows
                      .slice(sheet.index * perSheet, (sheet.index + 1) * perSheet)
                      .map(({ main, details, section, opens }) => (
                        <div
                          key={main.id}
                          role="presentation"
                          className="relative flex"
                          style={{ gap: GAP, paddingTop: header }}
                        >
                          {section > 0 && (
                            <span
                              aria-hidden="true"
                              className={`absolute top-0 bottom-0 -left-2.5 w-1 ${section % 2 ? "bg-primary" : "bg-secondary"}`}
                            />
                          )}
                          {opens && <SectionName slide={main} section={section} band={opens} />}
                          {[main, ...details].map((slide) => (
                            <Thumb
                              key={slide.id}
                              slide={slide}
                              number={numbers.get(slide.id) ?? 0}
                              width={grid.thumb}
                              detail={slide !== main}
                              selected={chosen.has(slide.id)}
                              current={slide.id === current}
                              moving={moving.includes(slide.id)}
                              landing={landing?.target === slide.id ? landing.side : undefined}
                              onChoose={chooseThumb}
                              onOpen={openThumb}
                            />
                          ))}
                        </div>
                      ))}
                  </div>
                ))}
              </div>
            </div>
            {band && (
              <div
                aria-hidden="true"
                className="border-secondary bg-secondary/15 pointer-events-none absolute z-10 border"
                style={band}
                data-band
              />
            )}
            {dragged && (
              <p className="bg-secondary text-secondary-content pointer-events-none absolute right-4 bottom-4 px-3 py-1">
                {words ? `Lands ${words}` : "Drag over a slide to choose the place"}
              </p>
            )}
            <p className="sr-only" aria-live="assertive">
              {words && `Lands ${words}`}
            </p>
          </div>
        </div>
        <DragOverlay dropAnimation={null}>
          {dragged && (
            <span className="bg-secondary text-secondary-content inline-block px-3 py-1">
              {moving.length > 1
                ? `${moving.length} slides`
                : `${numbers.get(dragged)}. ${nameOf(deck.slides[slideIndex(deck, dragged)] as never)}`}
            </span>
          )}
        </DragOverlay>
      </DndContext>
      {links && <LinksDialog onClose={() => setLinks(false)} />}
      {pasting && (
        <PasteDialog
          clipped={pasting}
          place={after().words}
          first={lastAppearance()}
          onPaste={(as) => {
            keepAppearance(as);
            paste(pasting, as);
          }}
          onClose={() => setPasting(undefined)}
        />
      )}
      {skeleton && <SkeletonDialog onClose={() => setSkeleton(false)} />}
      {asking && (
        <MoveTo
          slides={deck.slides}
          onClose={() => setAsking(false)}
          onMove={(at) =>
            change(moveTo(deck, selected, placeFor(at)), `${count("Moved")} ${landingWords(at, deck.slides)}`)
          }
        />
      )}
    </DeckFrame>
  );
}

function same(now: Landing | undefined, next: Landing | undefined): Landing | undefined {
  return now?.target === next?.target && now?.side === next?.side ? now : next;
}
