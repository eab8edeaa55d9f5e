import type { KeyboardEvent, PointerEvent, RefObject } from "react";
import { useDeck } from "../deck/DeckContext";
import { useOutOfDate } from "../deck/useOutOfDate";
import { useUntranslated } from "../deck/useUntranslated";
import type { Landing } from "../deck/landing";
import { GAP, type MapRow } from "./rows";
import { SectionName } from "./SectionName";
import { Thumb } from "./Thumb";
import type { HeldKeys } from "./useSlideChoice";
import type { SlideMapLayout } from "./useSlideMap";

interface Props {
  map: SlideMapLayout;
  scroller: RefObject<HTMLDivElement | null>;
  /** Ids of the slides that are dragged, and where they would land. */
  moving: readonly string[];
  landing: Landing | undefined;
  onChoose: (id: string, keys: HeldKeys) => void;
  onOpen: (id: string) => void;
  onAdd: () => void;
  onKeyDown: (event: KeyboardEvent) => void;
  onPointerDown: (event: PointerEvent<HTMLDivElement>) => void;
}

/** The slides in running order; only those in view are rendered. */
export function SlideMap(props: Props) {
  const { map, scroller, onAdd, onKeyDown, onPointerDown } = props;
  const { rows, grid, perSheet, virtual } = map;
  const { deck } = useDeck();
  const outdated = useOutOfDate(deck);
  const untranslated = useUntranslated(deck);
  return (
    <div
      ref={scroller}
      onPointerDown={onPointerDown}
      role="listbox"
      aria-multiselectable="true"
      aria-label="Slides in running order; details stand to the right of their main slide"
      tabIndex={-1}
      className="h-full overflow-auto px-4 outline-none"
      onKeyDown={onKeyDown}
      data-map
    >
      {rows.length === 0 && (
        <div className="py-16 text-center">
          <p className="mb-4">There is no slide yet.</p>
          <button type="button" className="btn btn-primary" onClick={onAdd}>
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
            {rows.slice(sheet.index * perSheet, (sheet.index + 1) * perSheet).map((row) => (
              <Row key={row.main.id} row={row} outdated={outdated} untranslated={untranslated} {...props} />
            ))}
          </div>
        ))}
      </div>
    </div>
  );
}

/** A slide of the main line, its details at its side, and the name of the section that starts with it. */
function Row({
  row,
  outdated,
  untranslated,
  map,
  moving,
  landing,
  onChoose,
  onOpen,
}: Props & { row: MapRow; outdated: ReadonlySet<string>; untranslated: ReadonlySet<string> }) {
  const { selected } = useDeck();
  const { main, details, section, opens, number } = row;
  return (
    <div role="presentation" className="relative flex" style={{ gap: GAP, paddingTop: map.header }}>
      {section > 0 && (
        <span
          aria-hidden="true"
          className={`absolute top-0 bottom-0 -left-2.5 w-1 ${section % 2 ? "bg-primary" : "bg-secondary"}`}
        />
      )}
      {opens && <SectionName slide={main} section={section} band={opens} />}
      {[main, ...details].map((slide, nth) => (
        <Thumb
          key={slide.id}
          slide={slide}
          number={number + nth}
          width={map.grid.thumb}
          detail={slide !== main}
          selected={selected.includes(slide.id)}
          current={slide.id === selected.at(-1)}
          moving={moving.includes(slide.id)}
          outdated={outdated.has(slide.id)}
          untranslated={untranslated.has(slide.id)}
          landing={landing?.target === slide.id ? landing.side : undefined}
          onChoose={onChoose}
          onOpen={onOpen}
        />
      ))}
    </div>
  );
}
