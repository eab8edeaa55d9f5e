import { DndContext, DragOverlay, pointerWithin } from "@dnd-kit/core";
import { brokenLinks } from "@unitext/core/divide";
import { moveTo } from "@unitext/core/edit";
import { must, nameOf, slideIndex } from "@unitext/core/model";
import { type MouseEvent, useMemo, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { useCommands } from "../keys";
import { ArrangeViews } from "../shell/ArrangeViews";
import { DeckFrame } from "../shell/DeckFrame";
import { Arrival } from "./Arrival";
import { lastClipped } from "../insert/useSlideClipboard";
import { useInsert } from "../insert/useInsert";
import { FindSlides } from "./FindSlides";
import { LinksDialog } from "./LinksDialog";
import { MoveTo } from "./MoveTo";
import { landingWords } from "../deck/landing";
import { SkeletonDialog } from "./SkeletonDialog";
import { SlideMap } from "./SlideMap";
import { slideActs, withSelection } from "../deck/slideacts";
import { slideMenu, SlideTools } from "./SlideTools";
import { DRAG_ANNOUNCEMENTS } from "../ui/dragging";
import { WithContextMenu } from "../ui/Menu";
import { applyOrder, orderActs, sectionActs } from "./slideacts";
import { useBand } from "./useBand";
import { useSlideChoice } from "./useSlideChoice";
import { placeFor, useSlideDrag } from "./useSlideDrag";
import { SIZES, useSlideMap } from "./useSlideMap";

type OpenDialog = "links" | "skeleton" | "moveTo";

/** The map of a deck's slides: selecting, moving, copying and structuring them. */
export default function Arrange() {
  const { deck, version, session, selected, select, canEdit } = useDeck();
  const [dialog, setDialog] = useState<OpenDialog>();
  const finder = useRef<HTMLInputElement>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const map = useSlideMap(scroller);
  const { show, setSize } = map;
  const { band, frame } = useBand(scroller);
  const { dialog: inserting, over, handlers, clipboard } = useInsert(undefined);
  const choice = useSlideChoice(map);
  const drag = useSlideDrag();
  const context = { deck, version, session, selected, select, show };
  const { newSlide, ...content } = slideActs(context);
  const acts = {
    ...orderActs(context),
    ...content,
    ...sectionActs(context),
    moveTo: () => setDialog("moveTo"),
    skeleton: () => setDialog("skeleton"),
    search: () => finder.current?.focus(),
    zoomIn: () => setSize((now) => Math.min(SIZES.length - 1, now + 1)),
    zoomOut: () => setSize((now) => Math.max(0, now - 1)),
  };
  useCommands(acts);
  const landing = drag.landing ? `Lands ${landingWords(drag.landing, deck.slides)}` : "";
  const close = () => setDialog(undefined);
  const selectPressed = ({ target }: MouseEvent) => {
    const id = (target as HTMLElement).closest<HTMLElement>("[data-thumb]")?.dataset.thumb;
    if (id && !selected.includes(id)) select([id]);
  };
  const paste = () => clipboard.take(lastClipped());

  return (
    <DeckFrame place="Arrange" tools={<ArrangeViews />} onOpen={show}>
      <DndContext
        {...drag.handlers}
        collisionDetection={pointerWithin}
        accessibility={{ announcements: DRAG_ANNOUNCEMENTS }}
      >
        <div
          className={`flex h-full flex-col ${over ? "outline-2 -outline-offset-4 outline-secondary" : ""}`}
          {...handlers}
        >
          <div className="hairline bg-base-200 flex flex-wrap items-center gap-y-1 border-b px-2 py-1">
            <SlideTools acts={acts} onCopy={clipboard.copy} onPaste={paste} />
            <div className="ml-auto flex flex-wrap items-center gap-2 px-2 text-sm">
              <BrokenLinks onOpen={() => setDialog("links")} />
              <FindSlides input={finder} scrollTo={map.scrollTo} />
              <label className="flex items-center gap-2">
                Size
                <input
                  type="range"
                  className="range range-xs w-16"
                  min={0}
                  max={SIZES.length - 1}
                  value={map.size}
                  onChange={(event) => setSize(Number(event.target.value))}
                />
              </label>
            </div>
          </div>
          <Arrival />
          <div className="relative min-h-0 flex-1">
            <WithContextMenu
              acts={slideMenu({ acts, onCopy: clipboard.copy, onPaste: paste }, canEdit, selected.length)}
            >
              <div className="h-full" onContextMenuCapture={selectPressed}>
                <SlideMap
                  map={map}
                  scroller={scroller}
                  moving={drag.moving}
                  landing={drag.landing}
                  onAdd={newSlide}
                  onPointerDown={frame}
                  {...choice}
                />
              </div>
            </WithContextMenu>
            {band && (
              <div
                aria-hidden="true"
                className="border-secondary bg-secondary/15 pointer-events-none absolute z-10 border"
                style={band}
                data-band
              />
            )}
            {drag.dragged && (
              <p className="bg-secondary text-secondary-content pointer-events-none absolute right-4 bottom-4 px-3 py-1">
                {landing || "Drag over a slide to choose the place"}
              </p>
            )}
            <p className="sr-only" aria-live="assertive">
              {landing}
            </p>
          </div>
        </div>
        <DragOverlay dropAnimation={null}>
          {drag.dragged && <DraggedSlides ids={drag.moving} id={drag.dragged} />}
        </DragOverlay>
      </DndContext>
      {inserting}
      {dialog === "links" && <LinksDialog onClose={close} />}
      {dialog === "skeleton" && <SkeletonDialog onClose={close} />}
      {dialog === "moveTo" && (
        <MoveTo
          slides={deck.slides}
          onClose={close}
          onMove={(at) =>
            applyOrder(
              context,
              moveTo(deck, selected, placeFor(deck, at)),
              `${withSelection(context, "Moved")} ${landingWords(at, deck.slides)}`,
            )
          }
        />
      )}
    </DeckFrame>
  );
}

function BrokenLinks({ onOpen }: { onOpen: () => void }) {
  const { deck } = useDeck();
  const broken = useMemo(() => brokenLinks(deck).length, [deck]);
  if (broken === 0) return null;
  return (
    <button type="button" className="btn btn-warning btn-xs" onClick={onOpen}>
      {broken === 1 ? "One broken link" : `${broken} broken links`}
    </button>
  );
}

/** What follows the pointer while slides are dragged. */
function DraggedSlides({ ids, id }: { ids: readonly string[]; id: string }) {
  const { deck } = useDeck();
  const at = slideIndex(deck, id);
  return (
    <span className="bg-secondary text-secondary-content inline-block px-3 py-1">
      {ids.length > 1 ? `${ids.length} slides` : `${at + 1}. ${nameOf(must(deck.slides[at]))}`}
    </span>
  );
}
