import { type Element, plainText } from "@unitext/core/model";
import {
  ArrowDown,
  ArrowUp,
  BringToFront,
  ChartColumn,
  CopyPlus,
  Group,
  Image,
  MessageSquarePlus,
  Pencil,
  SendToBack,
  SquarePlus,
  Table2,
  Trash2,
  Type,
  Ungroup,
  Workflow,
} from "lucide-react";
import { activeCommands, menuAct } from "../keys";
import type { MenuActs } from "../ui/Menu";
import { NEW_FIGURES } from "./newfigures";
import type { Acts } from "./selection";

/** Menu labels for opening an element, by its kind. Kinds without a label cannot be opened. */
const OPENED: Partial<Record<Element["kind"], string>> = {
  text: "Write in it",
  shape: "Write in it",
  picture: "Crop",
  table: "Write in its cells",
  chart: "Go to its data",
  diagram: "Go to its words",
};

/** Returns the context menu of the selected elements. */
export function elementMenu(acts: Acts, open: (element: Element) => void, comment: () => void): MenuActs {
  const { elements } = acts;
  const [only, second] = elements;
  const opened = only && !second && !(only.kind === "table" && only.binding) ? OPENED[only.kind] : undefined;
  return [
    ...(only && opened ? [{ label: opened, icon: Pencil, keys: "Enter", act: () => open(only) }, undefined] : []),
    menuAct("comment", comment, { label: "Comment …", icon: MessageSquarePlus }),
    menuAct("duplicateElement", acts.duplicate, { label: "Duplicate", icon: CopyPlus }),
    menuAct("removeElement", acts.remove, { label: "Delete", icon: Trash2 }),
    undefined,
    menuAct("front", () => acts.order("front"), { label: "To the front", icon: BringToFront }),
    { label: "One step forward", icon: ArrowUp, act: () => acts.order("forward") },
    { label: "One step back", icon: ArrowDown, act: () => acts.order("backward") },
    menuAct("back", () => acts.order("back"), { label: "To the back", icon: SendToBack }),
    ...(second ? [undefined, menuAct("group", acts.group, { label: "Group", icon: Group })] : []),
    ...(elements.some(({ groups }) => groups?.length)
      ? [menuAct("ungroup", acts.ungroup, { label: "Take the group apart", icon: Ungroup })]
      : []),
  ];
}

/** Returns the context menu of the slide: adding elements, and acts on the slide itself. */
export function slideMenu(
  page: { width: number; height: number },
  add: (element: Omit<Element, "id">, words: string) => void,
  choosePictures: () => void,
): MenuActs {
  const figure = (kind: keyof typeof NEW_FIGURES) => () => add(NEW_FIGURES[kind].element, NEW_FIGURES[kind].words);
  const frame = { x: page.width / 2 - 160, y: page.height / 2 - 40, width: 320, height: 80 };
  const run = (name: "newSlide" | "duplicateSlide" | "deleteSlide") => () => activeCommands()[name]?.();
  return [
    {
      label: "Add text",
      icon: Type,
      act: () => add({ kind: "text", slot: null, frame, text: plainText("Text") } as Omit<Element, "id">, "Added text"),
    },
    { label: "Add pictures …", icon: Image, act: choosePictures },
    { label: "Add a table", icon: Table2, act: figure("table") },
    { label: "Add a chart", icon: ChartColumn, act: figure("chart") },
    { label: "Add a diagram", icon: Workflow, act: figure("diagram") },
    undefined,
    menuAct("newSlide", run("newSlide"), { label: "New slide", icon: SquarePlus }),
    menuAct("duplicateSlide", run("duplicateSlide"), { label: "Duplicate this slide", icon: CopyPlus }),
    menuAct("deleteSlide", run("deleteSlide"), { label: "Delete this slide", icon: Trash2 }),
  ];
}
