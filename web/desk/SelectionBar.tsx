import type { DeckRow, Folder } from "@unitext/server/api";
import { Download, FolderInput, Layers, RotateCcw, Trash2, X } from "lucide-react";
import { useNavigate } from "react-router";
import { MenuButton } from "../ui/Menu";
import type { DeskActs } from "./useDeskActs";

/** What can be done with the selected decks at once. */
export function SelectionBar({
  rows,
  folders,
  acts,
  onWrite,
  onClear,
}: {
  rows: readonly DeckRow[];
  folders: readonly Folder[];
  acts: DeskActs;
  onWrite: () => void;
  onClear: () => void;
}) {
  const navigate = useNavigate();
  const binned = rows.some(({ binnedAt }) => binnedAt !== null);
  const act = (work: () => unknown) => () => {
    work();
    onClear();
  };
  return (
    <div
      role="toolbar"
      aria-label="Selected decks"
      className="bg-base-200 hairline sticky top-0 z-20 flex flex-wrap items-center gap-1 border-y px-6 py-1 text-sm"
    >
      <span className="mr-2 font-semibold">{rows.length === 1 ? "One deck" : `${rows.length} decks`} selected</span>
      {binned ? (
        <>
          <button
            type="button"
            title="Puts the selected decks back where they were"
            className="btn btn-ghost btn-sm"
            onClick={act(() => acts.restore(rows))}
          >
            <RotateCcw size={16} aria-hidden="true" /> Take out of the bin
          </button>
          <button
            type="button"
            title="Deletes the selected decks; they cannot be taken back"
            className="btn btn-ghost btn-sm"
            onClick={act(() => acts.deleteForGood(rows))}
          >
            <Trash2 size={16} aria-hidden="true" /> Delete for good
          </button>
        </>
      ) : (
        <>
          <button
            type="button"
            title="Makes one deck of the selected ones"
            className="btn btn-ghost btn-sm"
            onClick={() => navigate(`/gather?decks=${rows.map(({ id }) => id).join(",")}`)}
          >
            <Layers size={16} aria-hidden="true" /> Gather
          </button>
          <button
            type="button"
            title="Writes the selected decks as files"
            className="btn btn-ghost btn-sm"
            onClick={onWrite}
          >
            <Download size={16} aria-hidden="true" /> Write …
          </button>
          <MenuButton
            className="btn btn-ghost btn-sm"
            acts={[
              ...folders.map(({ id, name }) => ({ label: name, act: act(() => acts.move(rows, id, name)) })),
              undefined,
              { label: "Out of their folders", act: act(() => acts.move(rows, null, "")) },
            ]}
          >
            <FolderInput size={16} aria-hidden="true" /> Move to …
          </MenuButton>
          <button
            type="button"
            title="Keeps the selected decks for 30 days, then deletes them"
            className="btn btn-ghost btn-sm"
            onClick={act(() => acts.bin(rows))}
          >
            <Trash2 size={16} aria-hidden="true" /> Put into the bin
          </button>
        </>
      )}
      <button
        type="button"
        className="btn btn-ghost btn-sm btn-square ml-auto"
        aria-label="Clear the selection"
        title="Clear the selection"
        onClick={onClear}
      >
        <X size={16} aria-hidden="true" />
      </button>
    </div>
  );
}
