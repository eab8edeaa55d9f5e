import { type Film, Films } from "@unitext/server/api";
import { Download, Trash2 } from "lucide-react";
import { useEffect, useRef } from "react";
import useSWR, { mutate } from "swr";
import { get, remove } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { languageName } from "../ui/languages";
import { clock } from "../ui/time";

const megabytes = (size: number) =>
  size < 1e6 ? `${Math.max(1, Math.round(size / 1000))} kB` : `${(size / 1e6).toFixed(1)} MB`;

/** A film to watch: with its captions and chapters, and its files to take away. */
function Watch({ film, first }: { film: Film; first: boolean }) {
  const { deck, version, session, canEdit } = useDeck();
  const at = `/api/decks/${deck.id}/films/${film.id}`;
  const isOlder = film.version < version;
  const made = new Date(film.createdAt);
  return (
    <article className="hairline border p-3" data-film={film.id}>
      {first && (
        // biome-ignore lint/a11y/useMediaCaption: the captions are those that were asked for.
        <video
          controls
          preload="metadata"
          className="mb-2 w-full bg-black"
          style={{ aspectRatio: `${film.width} / ${film.height}` }}
          src={`${at}/file`}
          aria-label={`Film of ${deck.properties.title}`}
        >
          {film.captions.map((language) => (
            <track
              key={language}
              kind="captions"
              src={`${at}/captions/${language}.vtt`}
              srcLang={language}
              label={languageName(language)}
            />
          ))}
        </video>
      )}
      <p className="text-sm">
        <strong className="tabular-nums">{clock(film.seconds)}</strong> · {film.format.toUpperCase()} {film.width} ×{" "}
        {film.height} · {megabytes(film.size)} ·{" "}
        <time dateTime={film.createdAt}>
          {made.toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" })}
        </time>
      </p>
      {isOlder && <p className="quiet text-sm">The deck was changed after it was made.</p>}
      {film.remarks.length > 0 && (
        <ul className="border-warning my-1 border-l-4 pl-3 text-sm">
          {film.remarks.map((remark) => (
            <li key={remark}>{remark}</li>
          ))}
        </ul>
      )}
      <p className="mt-2 flex flex-wrap gap-1">
        <a className="btn btn-sm" href={`${at}/file?download`} download>
          <Download size={16} aria-hidden="true" /> Film
        </a>
        {film.captions.map((language) => (
          <a key={language} className="btn btn-sm" href={`${at}/captions/${language}.vtt`} download={`${language}.vtt`}>
            <Download size={16} aria-hidden="true" /> Captions, {languageName(language)}
          </a>
        ))}
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          disabled={!canEdit}
          aria-label={`Delete the film of ${made.toLocaleString()}`}
          onClick={() =>
            void remove(`/decks/${deck.id}/films/${film.id}`)
              .then(() => session.notify("Deleted a film; its slides are kept, so it is soon made again"))
              .catch((error: Error) => session.notify(error.message))
              .finally(() => void mutate(`/decks/${deck.id}/films`))
          }
        >
          <Trash2 size={16} aria-hidden="true" /> Delete
        </button>
      </p>
    </article>
  );
}

/** The films that were made of the open deck. `made` counts those whose making has ended, to look for them. */
export function MadeFilms({ made }: { made: number }) {
  const { deck } = useDeck();
  const { data, mutate: lookAgain } = useSWR(`/decks/${deck.id}/films`, (path: string) => get(path, Films));
  const known = useRef(made);
  useEffect(() => {
    if (known.current === made) return;
    known.current = made;
    void lookAgain();
  }, [made, lookAgain]);
  if (!data?.films.length)
    return (
      <p className="quiet hairline border border-dashed p-6 text-center text-sm">
        {data
          ? "The film appears here, with its captions and chapters. It stays with the deck."
          : "Looking for films …"}
      </p>
    );
  return (
    <section aria-label="Films of this deck" className="flex flex-col gap-3">
      {data.films.map((film, nth) => (
        <Watch key={film.id} film={film} first={nth === 0} />
      ))}
    </section>
  );
}
