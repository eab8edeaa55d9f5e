import { isDocumentName } from "@unitext/core/formats/catalogue";
import type { DeckRow, Folder } from "@unitext/server/api";
import { Copy, FolderInput, FolderPlus, MoreHorizontal, Pencil, RotateCcw, Trash2, UserPlus } from "lucide-react";
import { memo, useState } from "react";
import { Link, useNavigate } from "react-router";
import { KeptSlide } from "../deck/KeptSlide";
import { handOverDocument } from "../deck/pending";
import { RIGHT_WORDS } from "../sharing";
import { MenuButton, type MenuActs, WithContextMenu } from "../ui/Menu";
import { clock } from "../ui/time";
import { DECKS_TYPE } from "./FolderBar";
import type { DeskActs } from "./useDeskActs";

const when = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

/** Callbacks of a row, the same objects at each render. */
export interface RowActs {
  acts(): DeskActs;
  /** Opens the panel of who sees a deck. */
  share(row: DeckRow): void;
  /** Selects a deck or takes it out of the selection; `extend` does so with all from the last one chosen. */
  choose(id: string, extend: boolean): void;
  /** Returns the ids that are dragged with a deck. */
  draggedWith(id: string): readonly string[];
}

interface Props {
  row: DeckRow;
  folders: readonly Folder[];
  chosen: boolean;
  table: RowActs;
}

/** Whether two rows show the same. A list that is read again has new objects, so their fields are compared. */
function isSame(one: Props, other: Props): boolean {
  return (
    one.chosen === other.chosen &&
    one.table === other.table &&
    (Object.keys(one.row) as (keyof DeckRow)[]).every((name) => one.row[name] === other.row[name]) &&
    one.folders.length === other.folders.length &&
    one.folders.every(({ id, name }, nth) => id === other.folders[nth]?.id && name === other.folders[nth]?.name)
  );
}

/** A row of the Desk: the first slide of a deck, its name, figures and actions. A document dropped on it opens the comparison with the deck's own. */
export const DeskRow = memo(function DeskRow({ row, folders, chosen, table }: Props) {
  const navigate = useNavigate();
  const [over, setOver] = useState(false);
  const [renaming, setRenaming] = useState(false);
  const mine = row.right === "own";
  const editable = mine || row.right === "edit";
  // Without the notes a deck opens in its viewer.
  const address = `/decks/${row.id}/${row.notes && row.right !== "copy" ? "write" : "view"}`;
  const binned = row.binnedAt !== null;
  const menu: MenuActs = binned
    ? [
        { label: "Take out of the bin", icon: RotateCcw, act: () => void table.acts().restore([row]) },
        { label: "Delete for good", icon: Trash2, act: () => void table.acts().deleteForGood([row]) },
      ]
    : [
        { label: "Rename …", icon: Pencil, disabled: !editable, act: () => setRenaming(true) },
        { label: "Share …", icon: UserPlus, disabled: !mine, act: () => table.share(row) },
        { label: "Copy", icon: Copy, act: () => void table.acts().copy(row) },
        undefined,
        ...folders
          .filter(({ id }) => id !== row.folder)
          .map(({ id, name }) => ({
            label: `Move to “${name}”`,
            icon: FolderInput,
            disabled: !mine,
            act: () => void table.acts().move([row], id, name),
          })),
        ...(row.folder === null
          ? []
          : [
              {
                label: "Take out of its folder",
                icon: FolderInput,
                act: () => void table.acts().move([row], null, ""),
              },
            ]),
        {
          label: "Into a folder of its own",
          icon: FolderPlus,
          disabled: !mine,
          act: () => void table.acts().makeFolder(row.title || "Untitled", [row]),
        },
        undefined,
        { label: "Put into the bin", icon: Trash2, disabled: !mine, act: () => void table.acts().bin([row]) },
      ];
  return (
    <WithContextMenu acts={menu}>
      <tr
        className={`hairline hover:bg-base-200 h-20 border-t align-middle ${chosen ? "bg-base-200" : ""} ${over ? "outline-2 -outline-offset-2 outline-secondary" : ""}`}
        draggable={mine && !binned && !renaming}
        onDragStart={(event) => event.dataTransfer.setData(DECKS_TYPE, JSON.stringify(table.draggedWith(row.id)))}
        onDragOver={(event) => {
          if (binned || !event.dataTransfer.types.includes("Files")) return;
          event.preventDefault();
          event.stopPropagation();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => {
          // A document dropped on a deck is compared with the one that its slides were made from.
          const [file] = event.dataTransfer.files;
          setOver(false);
          if (binned || !file || !isDocumentName(file.name)) return;
          event.preventDefault();
          event.stopPropagation();
          handOverDocument(row.id, file);
          navigate(`/decks/${row.id}/write`);
        }}
      >
        <td className="w-10 pl-4">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            aria-label={`Select ${row.title}`}
            checked={chosen}
            onChange={() => undefined}
            onClick={(event) => table.choose(row.id, event.shiftKey)}
          />
        </td>
        <td className="w-32 py-2 pl-2">
          <Link
            to={address}
            tabIndex={-1}
            aria-hidden="true"
            draggable={false}
            className="hairline block aspect-video w-28 overflow-hidden border"
          >
            {row.right !== "copy" && <KeptSlide deck={row.id} version={row.version} label="First slide" />}
          </Link>
        </td>
        <th scope="row" className="px-3 text-left font-normal">
          {renaming ? (
            <RenameField
              title={row.title}
              onName={(title) => {
                setRenaming(false);
                if (title !== undefined && title !== row.title) void table.acts().rename(row, title);
              }}
            />
          ) : (
            <Link
              to={address}
              title={row.title}
              draggable={false}
              className="line-clamp-2 text-base font-semibold underline-offset-4 hover:underline"
              onKeyDown={(event) => event.key === "F2" && editable && setRenaming(true)}
            >
              {row.title || "Untitled"}
            </Link>
          )}
          <p className="quiet text-sm">
            {row.file && `from ${row.file}, `}
            {row.owner !== null && row.right !== "own" && `by ${row.owner}, you ${RIGHT_WORDS[row.right]}, `}
            {binned
              ? `in the bin since ${when.format(new Date(row.binnedAt ?? ""))}`
              : `changed ${when.format(new Date(row.changedAt))}`}
          </p>
        </th>
        <td className="px-3 text-right max-md:hidden">{row.slides}</td>
        <td className="px-3 text-right max-md:hidden">{clock(row.seconds)}</td>
        <td className="px-3 max-lg:hidden">{row.language}</td>
        <td className="px-3 text-sm max-lg:hidden">
          {row.withoutNotes > 0 ? `${row.withoutNotes} without notes` : ""}
        </td>
        <td className="pr-4 pl-3 text-right whitespace-nowrap">
          {binned ? (
            <button
              type="button"
              title="Takes the deck out of the bin"
              className="btn btn-ghost btn-sm"
              onClick={() => void table.acts().restore([row])}
            >
              <RotateCcw size={16} aria-hidden="true" /> Restore<span className="sr-only"> {row.title}</span>
            </button>
          ) : (
            <>
              <button
                type="button"
                className="btn btn-ghost btn-sm max-lg:hidden"
                aria-label={`Copy ${row.title}`}
                title={`Copy ${row.title}`}
                onClick={() => void table.acts().copy(row)}
              >
                <Copy size={16} aria-hidden="true" /> Copy
              </button>
              {mine && (
                <button
                  type="button"
                  className="btn btn-ghost btn-sm max-lg:hidden"
                  aria-label={`Put ${row.title} into the bin`}
                  title={`Put ${row.title} into the bin`}
                  onClick={() => void table.acts().bin([row])}
                >
                  <Trash2 size={16} aria-hidden="true" /> Bin
                </button>
              )}
            </>
          )}
          <MenuButton label={`More for ${row.title}`} className="btn btn-ghost btn-sm btn-square" acts={menu}>
            <MoreHorizontal size={16} aria-hidden="true" />
          </MenuButton>
        </td>
      </tr>
    </WithContextMenu>
  );
}, isSame);

/** The name of a deck, to be changed where it is. Enter takes it, Escape leaves it. */
function RenameField({ title, onName }: { title: string; onName: (title: string | undefined) => void }) {
  return (
    <input
      ref={(field) => {
        if (field && document.activeElement !== field) {
          field.focus();
          field.select();
        }
      }}
      className="input input-sm w-full max-w-md font-semibold"
      aria-label={`New name of ${title}`}
      defaultValue={title}
      maxLength={500}
      onBlur={({ target }) => onName(target.value.trim())}
      onKeyDown={(event) => {
        if (event.key === "Enter") event.currentTarget.blur();
        else if (event.key === "Escape") onName(undefined);
      }}
    />
  );
}
