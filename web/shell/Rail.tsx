import {
  Keyboard,
  Languages,
  LayoutGrid,
  ListTree,
  type LucideIcon,
  Mic,
  PenLine,
  Send,
  SquareMousePointer,
  SunMoon,
  Table2,
} from "lucide-react";
import { useState } from "react";
import { NavLink, useParams } from "react-router";
import { KeyList, useCommands } from "../keys";
import { nextAppearance, useAppearance } from "./appearance";

const PLACES: readonly [place: string, label: string, icon: LucideIcon, does: string][] = [
  ["write", "Write", PenLine, "Text on the left, the slides that it makes on the right"],
  ["arrange", "Arrange", ListTree, "Order, details, sections; split and merge"],
  ["refine", "Refine", SquareMousePointer, "One slide: its elements, look, notes and motion"],
  ["data", "Data", Table2, "Workbooks and the values that come from them"],
  ["translate", "Translate", Languages, "The deck in another language"],
  ["speak", "Speak", Mic, "Rehearse and present"],
  ["deliver", "Deliver", Send, "Files of every format, and what each keeps"],
];

const entry = ({ isActive }: { isActive: boolean }) =>
  `flex flex-col items-center gap-0.5 border-l-4 py-1.5 pr-1 text-[0.8rem] hover:bg-base-300 ${isActive ? "border-primary bg-base-100 font-semibold" : "border-transparent"}`;

/** The places in the order of the work, each an icon with its word. */
export function Rail() {
  const { deck } = useParams();
  const [keys, setKeys] = useState(false);
  const [appearance, setAppearance] = useAppearance();
  useCommands({ keys: () => setKeys(true) });
  return (
    <nav
      aria-label="Places"
      className="bg-base-200 hairline flex w-[4.75rem] shrink-0 flex-col overflow-y-auto border-r"
    >
      <p className="pt-3 pb-2 text-center font-serif">Unitext</p>
      <NavLink to="/" end className={entry} title="All decks: find, start, bring in, gather">
        <LayoutGrid size={20} aria-hidden="true" />
        Desk
      </NavLink>
      {deck &&
        PLACES.map(([place, label, Icon, does]) => (
          <NavLink key={place} to={`/decks/${deck}/${place}`} className={entry} title={does}>
            <Icon size={20} aria-hidden="true" />
            {label}
          </NavLink>
        ))}
      <div className="mt-auto flex flex-col items-stretch gap-1 p-1 pb-3">
        <button
          type="button"
          className="btn btn-ghost h-auto flex-col gap-0.5 px-0 py-1 text-[0.8rem] font-normal"
          title="Lists all keys, which can be changed"
          onClick={() => setKeys(true)}
        >
          <Keyboard size={20} aria-hidden="true" />
          Keys
        </button>
        <button
          type="button"
          className="btn btn-ghost h-auto flex-col gap-0.5 px-0 py-1 text-[0.8rem] font-normal"
          title="Changes between light, dark and the setting of the computer"
          onClick={() => setAppearance(nextAppearance(appearance))}
        >
          <SunMoon size={20} aria-hidden="true" />
          {appearance === "system" ? "Light or dark" : appearance === "light" ? "Light" : "Dark"}
        </button>
      </div>
      {keys && <KeyList onClose={() => setKeys(false)} />}
    </nav>
  );
}
