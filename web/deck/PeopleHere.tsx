import { useDeck } from "./DeckContext";
import { colourOf, type Other } from "./presence";

/** Returns up to two letters for a name. */
const initials = (name: string): string =>
  name
    .split(/\s+/)
    .map((word) => [...word][0] ?? "")
    .join("")
    .slice(0, 2)
    .toUpperCase();

/** How many people are shown by their letters. */
const MOST = 4;

/** Returns each person once, however many pages they have open. */
export const eachOnce = (others: readonly Other[]): Other[] => [
  ...new Map(others.map((other) => [other.user, other])).values(),
];

/** Who else has the deck open, by the letters of their names; pressing one goes to their slide. */
export function PeopleHere({ onOpen }: { onOpen: (slide: string) => void }) {
  const { others, deck } = useDeck();
  const people = eachOnce(others);
  if (!people.length) return null;
  return (
    <ul className="flex items-center" aria-label="Who else is here">
      {people.slice(0, MOST).map(({ user, name, slide }) => {
        const number = deck.slides.findIndex(({ id }) => id === slide) + 1;
        const where = number ? `${name} is on slide ${number}` : `${name} is here`;
        return (
          <li key={user}>
            <button
              type="button"
              className="-ml-1 size-7 cursor-pointer rounded-full border-2 border-base-100 text-xs font-semibold text-white"
              style={{ backgroundColor: colourOf(user) }}
              title={where}
              aria-label={`${initials(name)}: ${where}`}
              data-person={user}
              onClick={() => slide !== null && number > 0 && onOpen(slide)}
            >
              {initials(name)}
            </button>
          </li>
        );
      })}
      {people.length > MOST && <li className="quiet pl-1 text-sm">and {people.length - MOST}</li>}
    </ul>
  );
}

/** The names of those who are on a slide, as small flags. */
export function PeopleOn({ slide }: { slide: string }) {
  const { others } = useDeck();
  const people = eachOnce(others.filter((other) => other.slide === slide));
  if (!people.length) return null;
  return (
    <span className="pointer-events-none absolute -top-2 right-1 z-10 flex gap-0.5">
      {people.map(({ user, name }) => (
        <span
          key={user}
          className="max-w-24 truncate rounded-sm px-1 text-[0.65rem] leading-4 text-white"
          style={{ backgroundColor: colourOf(user) }}
          data-person-on={user}
        >
          {name}
        </span>
      ))}
    </span>
  );
}
