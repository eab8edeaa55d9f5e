import { type DeckRow, Found } from "@unitext/server/api";
import { Link } from "react-router";
import useSWR from "swr";
import { get } from "../api/client";
import { KeptSlide } from "../deck/KeptSlide";

/** Slides of all decks that have the words, on them or in their notes, each drawn with the place where they are. */
export function FoundSlides({ words, decks }: { words: string; decks: readonly DeckRow[] }) {
  const { data } = useSWR(`/search?words=${words}`, () => get(`/search?words=${encodeURIComponent(words)}`, Found), {
    keepPreviousData: true,
    revalidateOnFocus: false,
  });
  if (!data?.slides.length) return null;
  const versions = new Map(decks.map(({ id, version }) => [id, version]));
  return (
    <section aria-label="Slides with these words" className="px-6 py-4">
      <h2 className="mb-2 font-semibold">On slides and in notes</h2>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(13rem,1fr))] gap-4">
        {data.slides.map(({ deck, title, slide, number, words: found }) => (
          <li key={`${deck}/${slide}`}>
            <Link to={`/decks/${deck}/refine/${slide}`} className="group block text-sm">
              <span className="hairline block aspect-video overflow-hidden border group-hover:outline-2 group-hover:outline-secondary">
                <KeptSlide deck={deck} version={versions.get(deck) ?? 0} slide={slide} label={`Slide ${number}`} />
              </span>
              <span className="block truncate font-semibold">
                {title}, {number}
              </span>
              <span className="quiet line-clamp-2">
                {found.split(/(\u0002[^\u0003]*\u0003)/).map((part, nth) =>
                  part.startsWith("\u0002") ? (
                    <mark key={`${nth} ${part}`} className="bg-warning/40 text-inherit">
                      {part.slice(1, -1)}
                    </mark>
                  ) : (
                    part
                  ),
                )}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
