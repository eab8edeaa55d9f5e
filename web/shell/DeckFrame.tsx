import { FilePlus2, ListChecks, Palette, Plus, Redo2, Settings2, SquarePlus, Undo2 } from "lucide-react";
import { lazy, type ReactNode, Suspense, useState } from "react";
import { useNavigate } from "react-router";
import { useDeck } from "../deck/DeckContext";
import { slideActs } from "../deck/slideacts";
import { Spine } from "../deck/Spine";
import { menuAct, useCommands } from "../keys";
import { MenuButton } from "../ui/Menu";
import { Rail } from "./Rail";
import { NoticeLine } from "./NoticeLine";

// Dialogs are loaded when they are opened.
const CheckDialog = lazy(() => import("../design/CheckDialog").then((module) => ({ default: module.CheckDialog })));
const DeckDialog = lazy(() => import("../design/DeckDialog").then((module) => ({ default: module.DeckDialog })));
const DesignDialog = lazy(() => import("../design/DesignDialog").then((module) => ({ default: module.DesignDialog })));

/** The frame of every place of a deck: rail, heading with the place's own tools, content, notice, spine. */
export function DeckFrame({
  place,
  tools,
  children,
  onOpen,
  spent,
}: {
  place: string;
  tools?: ReactNode;
  children: ReactNode;
  onOpen?: (id: string) => void;
  /** The seconds that slides took in the last rehearsal, for the spine. */
  spent?: ReadonlyMap<string, number>;
}) {
  const { deck, version, session, selected, select, advice, canUndo, canRedo, canEdit } = useDeck();
  const [open, setOpen] = useState<"design" | "deck" | "check">();
  const navigate = useNavigate();
  const { newSlide } = slideActs({ deck, version, session, selected, select, show: (id) => onOpen?.(id) });
  useCommands({
    undo: () => session.undo(),
    redo: () => session.redo(),
    deckSettings: () => setOpen("deck"),
    check: () => setOpen("check"),
    ...(canEdit ? { design: () => setOpen("design") } : {}),
    ...(canEdit && place !== "Speak" ? { newSlide } : {}),
  });
  return (
    <div className="flex h-full max-md:flex-col-reverse">
      <Rail />
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        <header className="hairline flex min-h-12 flex-wrap items-center gap-x-3 gap-y-1 border-b px-4 py-1 max-md:max-h-28 max-md:overflow-x-auto max-md:px-2">
          <h1 className="min-w-40 flex-1 truncate text-lg font-semibold">
            {deck.properties.title || "Untitled"} <span className="quiet font-normal">· {place}</span>
          </h1>
          {tools}
          <div className="flex gap-1">
            <MenuButton
              className="btn btn-ghost btn-sm"
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
                className="btn btn-ghost btn-sm"
                title="Choose the design, fonts and colours of the deck"
                onClick={() => setOpen("design")}
              >
                <Palette size={16} aria-hidden="true" />
                <span className="max-lg:sr-only">Design</span>
              </button>
            )}
            <button
              type="button"
              className="btn btn-ghost btn-sm"
              title="Page, title, author, language, and the lines on every slide"
              onClick={() => setOpen("deck")}
            >
              <Settings2 size={16} aria-hidden="true" />
              <span className="max-lg:sr-only">Deck</span>
            </button>
            <button
              type="button"
              className="btn btn-ghost btn-sm"
              title="What could be better for the audience, slide by slide"
              onClick={() => setOpen("check")}
            >
              <ListChecks size={16} aria-hidden="true" />
              <span className="max-lg:sr-only">Check</span>
              {advice.found.length > 0 && <span className="quiet tabular-nums">{advice.found.length}</span>}
            </button>
            <button type="button" className="btn btn-ghost btn-sm" disabled={!canUndo} onClick={() => session.undo()}>
              <Undo2 size={16} aria-hidden="true" />
              <span className="max-lg:sr-only">Undo</span>
            </button>
            <button type="button" className="btn btn-ghost btn-sm" disabled={!canRedo} onClick={() => session.redo()}>
              <Redo2 size={16} aria-hidden="true" />
              <span className="max-lg:sr-only">Redo</span>
            </button>
          </div>
        </header>
        <main className="min-h-0 flex-1">{children}</main>
        <Suspense>
          {open === "design" && <DesignDialog onClose={() => setOpen(undefined)} />}
          {open === "deck" && <DeckDialog onClose={() => setOpen(undefined)} />}
          {open === "check" && <CheckDialog onClose={() => setOpen(undefined)} />}
        </Suspense>
        <footer>
          <NoticeLine place={place} />
          <Spine {...(onOpen ? { onOpen } : {})} {...(spent ? { spent } : {})} />
        </footer>
      </div>
    </div>
  );
}
