import { ListChecks, Palette, Redo2, Settings2, Undo2 } from "lucide-react";
import { type ReactNode, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { Spine } from "../deck/Spine";
import { CheckDialog } from "../design/CheckDialog";
import { DeckDialog } from "../design/DeckDialog";
import { DesignDialog } from "../design/DesignDialog";
import { useCommands } from "../keys";
import { Rail } from "./Rail";
import { NoticeLine } from "./NoticeLine";

/** The frame of every place of a deck: rail, heading with the place's own tools, content, notice, spine. */
export function DeckFrame({
  place,
  tools,
  children,
  onOpen,
}: {
  place: string;
  tools?: ReactNode;
  children: ReactNode;
  onOpen?: (id: string) => void;
}) {
  const { deck, session, advice, canUndo, canRedo, canEdit } = useDeck();
  const [open, setOpen] = useState<"design" | "deck" | "check">();
  useCommands({ undo: () => session.undo(), redo: () => session.redo() });
  return (
    <div className="flex h-full">
      <Rail />
      <div className="flex min-w-0 flex-1 flex-col">
        <header className="hairline flex min-h-12 flex-wrap items-center gap-x-4 gap-y-1 border-b px-4 py-1">
          <h1 className="min-w-0 flex-1 truncate text-lg font-semibold">
            {deck.properties.title || "Untitled"} <span className="quiet font-normal">· {place}</span>
          </h1>
          {tools}
          <div className="flex gap-1">
            {canEdit && (
              <button
                type="button"
                className="btn btn-ghost btn-sm"
                title="Choose the design, fonts and colours of the deck"
                onClick={() => setOpen("design")}
              >
                <Palette size={16} aria-hidden="true" />
                Design
              </button>
            )}
            <button
              type="button"
              className="btn btn-ghost btn-sm"
              title="Page, title, author, language, and the lines on every slide"
              onClick={() => setOpen("deck")}
            >
              <Settings2 size={16} aria-hidden="true" />
              Deck
            </button>
            <button
              type="button"
              className="btn btn-ghost btn-sm"
              title="What could be better for the audience, slide by slide"
              onClick={() => setOpen("check")}
            >
              <ListChecks size={16} aria-hidden="true" />
              Check
              {advice.found.length > 0 && <span className="quiet tabular-nums">{advice.found.length}</span>}
            </button>
            <button type="button" className="btn btn-ghost btn-sm" disabled={!canUndo} onClick={() => session.undo()}>
              <Undo2 size={16} aria-hidden="true" />
              Undo
            </button>
            <button type="button" className="btn btn-ghost btn-sm" disabled={!canRedo} onClick={() => session.redo()}>
              <Redo2 size={16} aria-hidden="true" />
              Redo
            </button>
          </div>
        </header>
        <main className="min-h-0 flex-1">{children}</main>
        {open === "design" && <DesignDialog onClose={() => setOpen(undefined)} />}
        {open === "deck" && <DeckDialog onClose={() => setOpen(undefined)} />}
        {open === "check" && <CheckDialog onClose={() => setOpen(undefined)} />}
        <footer>
          <NoticeLine />
          <Spine {...(onOpen ? { onOpen } : {})} />
        </footer>
      </div>
    </div>
  );
}
