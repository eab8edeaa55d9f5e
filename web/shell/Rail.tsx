import { useState } from "react";
import { NavLink, useParams } from "react-router";
import { KeyList, useCommands } from "../keys";
import { nextAppearance, useAppearance } from "./appearance";

const PLACES = [
  ["write", "Write"],
  ["arrange", "Arrange"],
  ["refine", "Refine"],
  ["data", "Data"],
  ["translate", "Translate"],
  ["speak", "Speak"],
  ["deliver", "Deliver"],
] as const;

const entry = ({ isActive }: { isActive: boolean }) =>
  `block border-l-4 px-4 py-2 text-[0.95rem] hover:bg-base-300 ${isActive ? "border-primary bg-base-100 font-semibold" : "border-transparent"}`;

/** The places in the order of the work, in words. */
export function Rail() {
  const { deck } = useParams();
  const [keys, setKeys] = useState(false);
  const [appearance, setAppearance] = useAppearance();
  useCommands({ keys: () => setKeys(true) });
  return (
    <nav aria-label="Places" className="bg-base-200 hairline flex w-32 shrink-0 flex-col border-r">
      <p className="px-5 pt-4 pb-3 font-serif text-lg">Unitext</p>
      <NavLink to="/" end className={entry}>
        Desk
      </NavLink>
      {deck &&
        PLACES.map(([place, label]) => (
          <NavLink key={place} to={`/decks/${deck}/${place}`} className={entry}>
            {label}
          </NavLink>
        ))}
      <div className="mt-auto flex flex-col items-start gap-1 p-3 text-sm">
        <button type="button" className="btn btn-ghost btn-sm justify-start" onClick={() => setKeys(true)}>
          Keys
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-sm justify-start"
          onClick={() => setAppearance(nextAppearance(appearance))}
        >
          {appearance === "system" ? "Light or dark" : appearance === "light" ? "Light" : "Dark"}
        </button>
      </div>
      {keys && <KeyList onClose={() => setKeys(false)} />}
    </nav>
  );
}
