import {
  ArrowDown,
  ArrowUp,
  ClipboardPaste,
  Copy,
  CopyPlus,
  EyeOff,
  Heading,
  Indent,
  ListOrdered,
  type LucideIcon,
  MoreHorizontal,
  MoveVertical,
  Outdent,
  PanelTop,
  Puzzle,
  Trash2,
} from "lucide-react";
import { useDeck } from "../deck/DeckContext";
import { type CommandName, menuAct, Tool } from "../keys";
import { MenuButton, type MenuActs } from "../ui/Menu";

const TOOLS = {
  moveUp: ["Up", ArrowUp],
  moveDown: ["Down", ArrowDown],
  nest: ["Make detail of", Indent],
  unnest: ["Move out", Outdent],
  duplicate: ["Duplicate", CopyPlus],
  hide: ["Hide", EyeOff],
  delete: ["Delete", Trash2],
  moveTo: ["Move to …", MoveVertical],
  section: ["Section slide", PanelTop],
  nameSection: ["Name a section", Heading],
  menu: ["Contents slide", ListOrdered],
  skeleton: ["Skeleton …", Puzzle],
} as const satisfies Partial<Record<CommandName, readonly [label: string, icon: LucideIcon]>>;

type ToolName = keyof typeof TOOLS;
export type SlideToolActs = Record<ToolName, () => void>;

const GROUPS: readonly (readonly ToolName[])[] = [
  ["moveUp", "moveDown"],
  ["nest", "unnest"],
  ["duplicate", "hide", "delete"],
];
const MORE: readonly ToolName[] = ["moveTo", "section", "nameSection", "menu", "skeleton"];

interface Props {
  acts: SlideToolActs;
  onCopy: () => void;
  onPaste: () => void;
}

const listed = (acts: SlideToolActs, names: readonly ToolName[], disabled: boolean): MenuActs =>
  names.map((name) => menuAct(name, acts[name], { label: TOOLS[name][0], icon: TOOLS[name][1], disabled }));

/** Returns what can be done with the selected slides, as a menu: everything of the toolbar. */
export function slideMenu({ acts, onCopy, onPaste }: Props, canEdit: boolean, selected: number): MenuActs {
  const none = selected === 0;
  const groups = GROUPS.map((names) => listed(acts, names, !canEdit || none));
  return [
    { label: "Copy", icon: Copy, keys: "Ctrl+C", disabled: none, act: onCopy },
    { label: "Paste", icon: ClipboardPaste, keys: "Ctrl+V", disabled: !canEdit, act: onPaste },
    undefined,
    ...groups.flatMap((group) => [...group, undefined]),
    ...listed(acts, MORE, !canEdit || none),
  ];
}

/** The toolbar of Arrange: order, level, copies; everything else in a menu. */
export function SlideTools(props: Props) {
  const { selected, canEdit } = useDeck();
  const none = selected.length === 0;
  const copying: MenuActs = [
    { label: "Copy", icon: Copy, keys: "Ctrl+C", disabled: none, act: props.onCopy },
    { label: "Paste", icon: ClipboardPaste, keys: "Ctrl+V", disabled: !canEdit, act: props.onPaste },
    undefined,
  ];
  return (
    <div className="flex flex-wrap items-center" role="toolbar" aria-label="Commands for the selected slides">
      {GROUPS.map((names) => (
        <div key={names[0]} className="hairline flex border-r px-1">
          {names.map((name) => (
            <Tool
              key={name}
              command={name}
              label={TOOLS[name][0]}
              icon={TOOLS[name][1]}
              disabled={!canEdit || none}
              onPress={props.acts[name]}
            />
          ))}
        </div>
      ))}
      <MenuButton
        className="btn btn-ghost btn-sm gap-1 px-2 font-normal"
        acts={[...copying, ...listed(props.acts, MORE, !canEdit || none)]}
      >
        <MoreHorizontal size={16} aria-hidden="true" />
        More
      </MenuButton>
    </div>
  );
}
