import { Languages, ListTree, type LucideIcon, Mic, PenLine, Send, SquareMousePointer, Table2 } from "lucide-react";

/** A place of a deck: the last part of its address, its name, and what one does there. */
export interface PlaceEntry {
  path: string;
  label: string;
  icon: LucideIcon;
  does: string;
}

/** The places of a deck in the order of the work. */
export const PLACES: readonly PlaceEntry[] = [
  { path: "write", label: "Write", icon: PenLine, does: "Text on the left, the slides that it makes on the right" },
  { path: "arrange", label: "Arrange", icon: ListTree, does: "Order, details, sections; split and merge" },
  {
    path: "refine",
    label: "Refine",
    icon: SquareMousePointer,
    does: "One slide: its elements, look, notes and motion",
  },
  { path: "data", label: "Data", icon: Table2, does: "Workbooks and the values that come from them" },
  { path: "translate", label: "Translate", icon: Languages, does: "The deck in another language" },
  { path: "speak", label: "Speak", icon: Mic, does: "Rehearse and present" },
  { path: "deliver", label: "Deliver", icon: Send, does: "Files of every format, and what each keeps" },
];
