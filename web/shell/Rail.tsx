import { CircleUser, Keyboard, LayoutGrid, Search, SunMoon } from "lucide-react";
import { memo, useState } from "react";
import { NavLink, useNavigate, useParams } from "react-router";
import { useMe } from "../api/entrance";
import { KeyList, keyOf, useCommands } from "../keys";
import { nextAppearance, useAppearance } from "./appearance";
import { CommandFinder } from "./CommandFinder";
import { PLACES } from "./places";

const entry = ({ isActive }: { isActive: boolean }) =>
  `flex flex-col items-center gap-0.5 border-l-4 py-1.5 pr-1 text-[0.8rem] max-md:min-w-14 max-md:border-t-4 max-md:border-l-0 max-md:px-1.5 hover:bg-base-300 ${isActive ? "border-primary bg-base-100 font-semibold" : "border-transparent"}`;

/** The places in the order of the work, each an icon with its word. */
export const Rail = memo(function Rail() {
  const { deck } = useParams();
  const navigate = useNavigate();
  const [keys, setKeys] = useState(false);
  const [appearance, setAppearance] = useAppearance();
  const [finding, setFinding] = useState(false);
  const me = useMe();
  useCommands({
    keys: () => setKeys(true),
    finder: () => setFinding(true),
    appearance: () => setAppearance(nextAppearance(appearance)),
    newDeck: () => navigate("/?new"),
  });
  return (
    <nav
      aria-label="Places"
      className="bg-base-200 hairline flex w-[4.75rem] shrink-0 flex-col overflow-y-auto border-r max-md:w-full max-md:flex-row max-md:overflow-x-auto max-md:border-t max-md:border-r-0"
    >
      <p className="pt-3 pb-2 text-center font-serif max-md:hidden">Unitext</p>
      <NavLink to="/" end className={entry} title="All decks: find, start, bring in, gather">
        <LayoutGrid size={20} aria-hidden="true" />
        Desk
      </NavLink>
      {deck &&
        PLACES.map(({ path, label, icon: Icon, does }) => (
          <NavLink key={path} to={`/decks/${deck}/${path}`} className={entry} title={does}>
            <Icon size={20} aria-hidden="true" />
            {label}
          </NavLink>
        ))}
      <div className="mt-auto flex flex-col items-stretch gap-1 p-1 pb-3 max-md:mt-0 max-md:ml-auto max-md:flex-row max-md:pb-1">
        <button
          type="button"
          className="btn btn-ghost h-auto flex-col gap-0.5 px-0 py-1 text-[0.8rem] font-normal max-md:px-2"
          title={`Finds a command, a slide or a place by its name (${keyOf("finder")})`}
          onClick={() => setFinding(true)}
        >
          <Search size={20} aria-hidden="true" />
          Commands
        </button>
        <button
          type="button"
          className="btn btn-ghost h-auto flex-col gap-0.5 px-0 py-1 text-[0.8rem] font-normal max-md:px-2"
          title="Lists all keys, which can be changed"
          onClick={() => setKeys(true)}
        >
          <Keyboard size={20} aria-hidden="true" />
          Keys
        </button>
        <button
          type="button"
          className="btn btn-ghost h-auto flex-col gap-0.5 px-0 py-1 text-[0.8rem] font-normal max-md:px-2"
          title="Changes between light, dark and the setting of the computer"
          onClick={() => setAppearance(nextAppearance(appearance))}
        >
          <SunMoon size={20} aria-hidden="true" />
          {appearance === "system" ? "Light or dark" : appearance === "light" ? "Light" : "Dark"}
        </button>
      </div>
      {me && (
        <NavLink
          to="/account"
          className={entry}
          title={
            me.demo
              ? `This is the demo: whoever uses this computer is “${me.name}”, without a password`
              : `You are ${me.name}: password, sessions${me.role === "owner" ? ", people of the house" : ""}`
          }
        >
          <CircleUser size={20} aria-hidden="true" />
          <span className="max-w-full truncate">{me.demo ? "Demo" : me.name}</span>
        </NavLink>
      )}
      {finding && <CommandFinder onClose={() => setFinding(false)} />}
      {keys && <KeyList onClose={() => setKeys(false)} />}
    </nav>
  );
});
