import { NavLink } from "react-router";
import { useDeck } from "../deck/DeckContext";

const VIEWS = [
  ["", "Map"],
  ["notes", "Notes"],
  ["split", "Split"],
  ["gather", "Bring in"],
  ["versions", "Versions"],
] as const;

/** The views of Arrange, each with an address of its own. */
export function ArrangeViews() {
  const { deck } = useDeck();
  return (
    <nav aria-label="Views of Arrange" className="flex gap-1">
      {VIEWS.map(([path, label]) => (
        <NavLink
          key={path}
          end={path === ""}
          to={`/decks/${deck.id}/arrange${path ? `/${path}` : ""}`}
          className={({ isActive }) =>
            `border-b-2 px-2.5 py-1 text-sm ${isActive ? "border-primary font-semibold" : "hover:bg-base-200 border-transparent"}`
          }
        >
          {label}
        </NavLink>
      ))}
    </nav>
  );
}
