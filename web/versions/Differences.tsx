import { type Deck, nameOf } from "@unitext/core/model";
import { Differs } from "@unitext/server/api";
import { Link } from "react-router";
import useSWR from "swr";
import { get } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { FOLLOWING } from "./TailorView";

/** A table of what each tailored version made of every slide of the deck. */
export function DiffersTable({ deck }: { deck: Deck }) {
  const { version } = useDeck();
  const { data } = useSWR(`/decks/${deck.id}/differs@${version}`, () => get(`/decks/${deck.id}/differs`, Differs));
  if (!data) return <p className="quiet p-4">Looking at the versions …</p>;
  if (!data.decks.length)
    return (
      <p className="quiet p-4">
        This deck has no version for another audience yet. Make one at the left: it follows this deck, and shows what is
        new here.
      </p>
    );
  const names = new Map(deck.slides.map((slide) => [slide.id, nameOf(slide)]));
  return (
    <div className="h-full overflow-auto p-4" tabIndex={0} role="region" aria-label="What differs between the versions">
      <table className="text-sm" data-differs>
        <caption className="mb-2 text-left">Each slide of this deck in its versions</caption>
        <thead>
          <tr>
            <th scope="col" className="pr-4 text-left font-normal">
              Slide
            </th>
            {data.decks.map(({ id, title }) => (
              <th key={id} scope="col" className="px-3 text-left">
                <Link className="text-primary underline" to={`/decks/${id}/arrange/versions`}>
                  {title}
                </Link>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {data.rows.map(({ slide, number, states }) => (
            <tr key={slide} className="hairline border-t">
              <th scope="row" className="max-w-80 truncate py-0.5 pr-4 text-left font-normal">
                {number}. {names.get(slide)}
              </th>
              {states.map((state, nth) => (
                <td
                  key={nth}
                  className={`px-3 ${state === "followed" ? "quiet" : state === "changed" ? "text-primary font-semibold" : "text-warning-content bg-warning/25"}`}
                >
                  {FOLLOWING[state]}
                </td>
              ))}
            </tr>
          ))}
          <tr className="hairline border-t">
            <th scope="row" className="pr-4 text-left font-normal">
              Only in the version
            </th>
            {data.own.map((list, nth) => (
              <td key={nth} className="px-3">
                {list.length} slides
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </div>
  );
}
