import {
  FilePlus2,
  ListChecks,
  MessageSquareText,
  Palette,
  Plus,
  Redo2,
  Settings2,
  SquarePlus,
  Undo2,
  UserPlus,
} from "lucide-react";
import {
  createContext,
  lazy,
  type ReactNode,
  type RefObject,
  Suspense,
  use,
  useCallback,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { createPortal } from "react-dom";
import { Outlet, useNavigate } from "react-router";
import { openCommentsOn } from "@unitext/core/model";
import { useDeck } from "../deck/DeckContext";
import { PeopleHere } from "../deck/PeopleHere";
import { slideActs } from "../deck/slideacts";
import { Spine } from "../deck/Spine";
import { menuAct, Tool, useCommands } from "../keys";
import { MenuButton } from "../ui/Menu";
import { Rail } from "./Rail";
import { NoticeLine } from "./NoticeLine";

// Dialogs are loaded when they are opened.
const CheckDialog = lazy(() => import("../design/CheckDialog").then((module) => ({ default: module.CheckDialog })));
const CommentsDialog = lazy(() =>
  import("../comments/CommentsDialog").then((module) => ({ default: module.CommentsDialog })),
);
const DeckDialog = lazy(() => import("../design/DeckDialog").then((module) => ({ default: module.DeckDialog })));
const ShareDialog = lazy(() => import("../sharing/ShareDialog").then((module) => ({ default: module.ShareDialog })));
const DesignDialog = lazy(() => import("../design/DesignDialog").then((module) => ({ default: module.DesignDialog })));

/** What a place tells the frame around it. */
interface PlaceShown {
  place: string;
  /** The seconds that slides took in the last rehearsal, for the spine. */
  spent?: ReadonlyMap<string, number> | undefined;
}

interface Frame {
  /** Where the place's tools are drawn: in the heading. */
  toolsAt: HTMLElement | null;
  show: (shown: PlaceShown) => void;
  /** What pressing a slide on the spine does in the place. */
  onOpen: RefObject<((id: string) => void) | undefined>;
}
const FrameContext = createContext<Frame | undefined>(undefined);

/**
 * The frame of every place of a deck: rail, heading, content, notice, spine. It stays while one goes from place to
 * place.
 */
export function DeckPlaces() {
  const { deck, version, session, selected, select, advice, canUndo, canRedo, canEdit, right } = useDeck();
  const [open, setOpen] = useState<"design" | "deck" | "check" | "share" | "comments">();
  const [{ place, spent }, show] = useState<PlaceShown>({ place: "" });
  const [toolsAt, setToolsAt] = useState<HTMLElement | null>(null);
  const onOpen = useRef<(id: string) => void>(undefined);
  const frame = useMemo<Frame>(() => ({ toolsAt, show, onOpen }), [toolsAt]);
  const openInPlace = useCallback((id: string) => onOpen.current?.(id), []);
  const openComments = deck.slides.reduce((sum, slide) => sum + openCommentsOn(slide), 0);
  const navigate = useNavigate();
  const { newSlide } = slideActs({ deck, version, session, selected, select, show: openInPlace });
  useCommands({
    undo: () => session.undo(),
    redo: () => session.redo(),
    deckSettings: () => setOpen("deck"),
    check: () => setOpen("check"),
    comments: () => setOpen("comments"),
    ...(canEdit ? { design: () => setOpen("design") } : {}),
    ...(canEdit && place !== "Speak" ? { newSlide } : {}),
  });
  return (
    <div className="flex h-full max-md:flex-col-reverse">
      <Rail />
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        <header className="hairline flex min-h-12 flex-wrap items-center gap-x-3 gap-y-1 border-b px-4 py-1 max-md:max-h-28 max-md:overflow-x-auto max-md:px-2">
          <h1 className="min-w-40 flex-1 truncate text-lg font-semibold">
            {deck.properties.title || "Untitled"} {place && <span className="quiet font-normal">· {place}</span>}
          </h1>
          <div ref={setToolsAt} className="contents" />
          <PeopleHere onOpen={openInPlace} />
          <div className="flex gap-1">
            <MenuButton
              className="btn btn-ghost btn-sm gap-1 px-2 font-normal"
              acts={[
                menuAct("newSlide", newSlide, { label: "New slide", icon: SquarePlus, disabled: !canEdit }),
                menuAct("newDeck", () => navigate("/?new"), { label: "New deck …", icon: FilePlus2 }),
              ]}
            >
              <Plus size={16} aria-hidden="true" />
              <span className="max-lg:sr-only">New</span>
            </MenuButton>
            {canEdit && (
              <button
                type="button"
                className="btn btn-ghost btn-sm gap-1 px-2 font-normal"
                title="Choose the design, fonts and colours of the deck"
                onClick={() => setOpen("design")}
              >
                <Palette size={16} aria-hidden="true" />
                <span className="max-lg:sr-only">Design</span>
              </button>
            )}
            <button
              type="button"
              className="btn btn-ghost btn-sm gap-1 px-2 font-normal"
              title="Page, title, author, language, and the lines on every slide"
              onClick={() => setOpen("deck")}
            >
              <Settings2 size={16} aria-hidden="true" />
              <span className="max-lg:sr-only">Deck</span>
            </button>
            <button
              type="button"
              className="btn btn-ghost btn-sm gap-1 px-2 font-normal"
              title="What could be better for the audience, slide by slide"
              onClick={() => setOpen("check")}
            >
              <ListChecks size={16} aria-hidden="true" />
              <span className="max-lg:sr-only">Check</span>
              {advice.found.length > 0 && <span className="quiet tabular-nums">{advice.found.length}</span>}
            </button>
            <button
              type="button"
              className="btn btn-ghost btn-sm gap-1 px-2 font-normal"
              title="All comments of the deck"
              onClick={() => setOpen("comments")}
            >
              <MessageSquareText size={16} aria-hidden="true" />
              <span className="max-lg:sr-only">Comments</span>
              {openComments > 0 && <span className="quiet tabular-nums">{openComments}</span>}
            </button>
            {right === "own" && (
              <button
                type="button"
                className="btn btn-ghost btn-sm gap-1 px-2 font-normal"
                title="Who sees this deck: people of the house, and links"
                onClick={() => setOpen("share")}
              >
                <UserPlus size={16} aria-hidden="true" />
                <span className="max-lg:sr-only">Share</span>
              </button>
            )}
            <Tool command="undo" label="Undo" icon={Undo2} disabled={!canUndo} onPress={() => session.undo()} />
            <Tool command="redo" label="Redo" icon={Redo2} disabled={!canRedo} onPress={() => session.redo()} />
          </div>
        </header>
        <main className="min-h-0 flex-1">
          <FrameContext value={frame}>
            <Suspense
              fallback={
                <p className="quiet grid h-full place-items-center" aria-busy="true">
                  One moment …
                </p>
              }
            >
              <Outlet />
            </Suspense>
          </FrameContext>
        </main>
        <Suspense>
          {open === "design" && <DesignDialog onClose={() => setOpen(undefined)} />}
          {open === "deck" && <DeckDialog onClose={() => setOpen(undefined)} />}
          {open === "comments" && <CommentsDialog onClose={() => setOpen(undefined)} />}
          {open === "share" && (
            <ShareDialog
              thing={{ path: `/decks/${deck.id}`, name: deck.properties.title || "Untitled", folder: false }}
              onClose={() => setOpen(undefined)}
            />
          )}
          {open === "check" && <CheckDialog onClose={() => setOpen(undefined)} />}
        </Suspense>
        <footer>
          <NoticeLine place={place} />
          <Spine onOpen={openInPlace} {...(spent ? { spent } : {})} />
        </footer>
      </div>
    </div>
  );
}

/** A place of a deck: its content, with its tools in the heading and its name beside the deck's. */
export function DeckFrame({
  place,
  tools,
  children,
  onOpen,
  spent,
}: PlaceShown & {
  tools?: ReactNode;
  children: ReactNode;
  onOpen?: (id: string) => void;
}) {
  const frame = use(FrameContext);
  if (!frame) throw new Error("A place of a deck is drawn inside DeckPlaces");
  const { toolsAt, show } = frame;
  useLayoutEffect(() => show({ place, spent }), [show, place, spent]);
  useLayoutEffect(() => {
    frame.onOpen.current = onOpen;
  });
  return (
    <>
      {toolsAt && createPortal(tools, toolsAt)}
      {children}
    </>
  );
}
