import type { DeckRow, Folder } from "@unitext/server/api";
import { Folder as FolderIcon, FolderPlus, LayoutGrid, Trash2 } from "lucide-react";
import { type ReactNode, useState } from "react";
import { MenuButton } from "../ui/Menu";
import type { DeskActs } from "./useDeskActs";

/** The clipboard type of decks that are dragged to a folder. */
export const DECKS_TYPE = "application/x-unitext-decks";

/** Where one is on the Desk: all decks, a folder, or the bin. */
export type Shelf = { kind: "all" } | { kind: "folder"; id: string } | { kind: "bin" };

/** The folders of the Desk and its bin; decks are dragged onto them. */
export function FolderBar({
  folders,
  decks,
  binned,
  shelf,
  acts,
  onShelf,
  onShare,
}: {
  folders: readonly Folder[];
  decks: readonly DeckRow[];
  binned: number;
  shelf: Shelf;
  acts: DeskActs;
  onShelf: (shelf: Shelf) => void;
  onShare: (folder: string, name: string) => void;
}) {
  const [naming, setNaming] = useState<"new" | string>();
  const dropped = (event: React.DragEvent) => {
    const ids = new Set(JSON.parse(event.dataTransfer.getData(DECKS_TYPE) || "[]") as string[]);
    return decks.filter(({ id }) => ids.has(id));
  };
  const named = folders.find(({ id }) => id === naming);
  return (
    <nav aria-label="Folders" className="flex flex-wrap items-center gap-1 px-6 pb-2">
      <ShelfButton
        on={shelf.kind === "all"}
        onPress={() => onShelf({ kind: "all" })}
        onDecks={(event) => acts.move(dropped(event), null, "")}
      >
        <LayoutGrid size={16} aria-hidden="true" /> All decks <Count of={decks.length} />
      </ShelfButton>
      {folders.map(({ id, name }) => {
        const on = shelf.kind === "folder" && shelf.id === id;
        return (
          <span key={id} className="flex items-center">
            <ShelfButton
              on={on}
              onPress={() => onShelf({ kind: "folder", id })}
              onDecks={(event) => acts.move(dropped(event), id, name)}
            >
              <FolderIcon size={16} aria-hidden="true" /> {name}{" "}
              <Count of={decks.filter((row) => row.folder === id).length} />
            </ShelfButton>
            {on && (
              <MenuButton
                label={`Folder ${name}`}
                className="btn btn-ghost btn-sm px-1"
                acts={[
                  { label: "Rename …", act: () => setNaming(id) },
                  { label: "Share …", act: () => onShare(id, name) },
                  {
                    label: "Delete the folder, keep its decks",
                    act: () => {
                      onShelf({ kind: "all" });
                      void acts.deleteFolder(id, name);
                    },
                  },
                ]}
              >
                ⋯
              </MenuButton>
            )}
          </span>
        );
      })}
      {naming === undefined ? (
        <button
          type="button"
          title="Makes a folder; drag decks onto it to put them there"
          className="btn btn-ghost btn-sm font-normal"
          onClick={() => setNaming("new")}
        >
          <FolderPlus size={16} aria-hidden="true" /> New folder
        </button>
      ) : (
        <form
          className="flex gap-1"
          onSubmit={(event) => {
            event.preventDefault();
            const name = String(new FormData(event.currentTarget).get("name") ?? "").trim();
            if (name) void (named ? acts.renameFolder(named.id, named.name, name) : acts.makeFolder(name));
            setNaming(undefined);
          }}
        >
          <input
            name="name"
            ref={(field) => field?.focus()}
            className="input input-sm w-44"
            aria-label="Name of the folder"
            placeholder="Name of the folder"
            maxLength={200}
            defaultValue={named?.name ?? ""}
            onKeyDown={(event) => event.key === "Escape" && setNaming(undefined)}
          />
          <button type="submit" className="btn btn-sm">
            Save
          </button>
        </form>
      )}
      <span className="ml-auto">
        <ShelfButton
          on={shelf.kind === "bin"}
          onPress={() => onShelf({ kind: "bin" })}
          onDecks={(event) => acts.bin(dropped(event))}
        >
          <Trash2 size={16} aria-hidden="true" /> Bin <Count of={binned} />
        </ShelfButton>
      </span>
    </nav>
  );
}

const Count = ({ of }: { of: number }) => <span className="quiet tabular-nums">{of}</span>;

function ShelfButton({
  on,
  onPress,
  onDecks,
  children,
}: {
  on: boolean;
  onPress: () => void;
  onDecks: (event: React.DragEvent) => void;
  children: ReactNode;
}) {
  const [over, setOver] = useState(false);
  const takes = (event: React.DragEvent) => event.dataTransfer.types.includes(DECKS_TYPE);
  return (
    <button
      type="button"
      aria-current={on ? "true" : undefined}
      className={`btn btn-sm gap-1.5 font-normal ${on ? "border-primary" : "btn-ghost"} ${over ? "outline-2 outline-secondary" : ""}`}
      onClick={onPress}
      onDragOver={(event) => {
        if (!takes(event)) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        setOver(false);
        if (!takes(event)) return;
        event.preventDefault();
        onDecks(event);
      }}
    >
      {children}
    </button>
  );
}
