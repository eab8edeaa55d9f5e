import { brokenLinks } from "@unitext/core/divide";
import { WRITABLE } from "@unitext/core/formats/catalogue";
import { bindingsOn, isEmptyText, openCommentsOn, type PrivatePart } from "@unitext/core/model";
import { Begun, DeckBindings, DeckLanguages } from "@unitext/server/api";
import { Check, TriangleAlert } from "lucide-react";
import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import useSWR from "swr";
import { get, post } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { useUntranslated } from "../deck/useUntranslated";
import { activeCommands } from "../keys";

const many = (count: number, one: string, more: string) => (count === 1 ? `1 ${one}` : `${count} ${more}`);

/** Returns the part of an address that says what is taken out of a file. */
export const withoutQuery = (without: readonly PrivatePart[]) =>
  without.length ? `&without=${without.join(",")}` : "";

/** Something to look at before a deck is given away. */
interface Item {
  /** How many there are; undefined while it is looked at. */
  count: number | undefined;
  open: string;
  good: string;
  act: string;
  onAct: () => void;
}

/** The things to look at before the open deck is given away, those that do not apply left out. */
function useItems(): Item[] {
  const { deck, version, advice } = useDeck();
  const navigate = useNavigate();
  const to = (place: string) => () => navigate(`/decks/${deck.id}/${place}`);
  const isBound = useMemo(() => deck.slides.some((slide) => bindingsOn(slide).length > 0), [deck]);
  const { data: bindings } = useSWR(isBound ? `/decks/${deck.id}/bindings@${version}` : null, () =>
    get(`/decks/${deck.id}/bindings`, DeckBindings),
  );
  const untranslated = useUntranslated(deck);
  const broken = useMemo(() => brokenLinks(deck).length, [deck]);
  const shown = deck.slides.filter(({ hidden }) => !hidden);
  const withoutNotes = shown.filter(({ notes }) => isEmptyText(notes)).length;
  const comments = deck.slides.reduce((sum, slide) => sum + openCommentsOn(slide), 0);
  const stale = bindings?.checks.filter(({ state }) => state !== "current" && state !== "fixed").length;
  const found = advice.isComplete || advice.found.length ? advice.found.length : undefined;
  return [
    {
      count: withoutNotes,
      open: many(withoutNotes, "slide has no notes", "slides have no notes"),
      good: "Every slide has notes",
      act: "Notes",
      onAct: to("arrange/notes"),
    },
    {
      count: broken,
      open: many(broken, "link leads nowhere", "links lead nowhere"),
      good: "No link of the deck is broken",
      act: "Map",
      onAct: to("arrange"),
    },
    ...(isBound
      ? [
          {
            count: stale,
            open: many(stale ?? 0, "linked value is not up to date", "linked values are not up to date"),
            good: "Linked data is up to date",
            act: "Data",
            onAct: to("data"),
          },
        ]
      : []),
    ...(deck.original?.language
      ? [
          {
            count: untranslated.size,
            open: many(untranslated.size, "slide is not fully translated", "slides are not fully translated"),
            good: "Everything is translated",
            act: "Translate",
            onAct: to("translate"),
          },
        ]
      : []),
    {
      count: found,
      open: many(found ?? 0, "piece of advice is open", "pieces of advice are open"),
      good: "No advice is open",
      act: "Check",
      onAct: () => activeCommands().check?.(),
    },
    {
      count: comments,
      open: many(comments, "comment is open", "comments are open"),
      good: "No comment is open",
      act: "Comments",
      onAct: () => activeCommands().comments?.(),
    },
  ];
}

/** What to look at before the deck is given away, what to take out of its files, and all of them in one archive. */
export function HandingOver({
  without,
  onWithout,
}: {
  without: readonly PrivatePart[];
  onWithout: (without: readonly PrivatePart[]) => void;
}) {
  const { deck, session, status } = useDeck();
  const items = useItems();
  const { data } = useSWR(`/decks/${deck.id}/languages`, (path: string) => get(path, DeckLanguages));
  const [busy, setBusy] = useState(false);
  const decks = data?.decks.map(({ id }) => id) ?? [deck.id];
  const count = (has: (slide: (typeof deck.slides)[number]) => boolean) => deck.slides.filter(has).length;
  const noted = count(({ notes }) => !isEmptyText(notes));
  const hidden = count(({ hidden: isHidden }) => isHidden);
  const comments = deck.slides.reduce((sum, slide) => sum + (slide.comments?.length ?? 0), 0);
  const parts: { part: PrivatePart; label: string; there: boolean }[] = [
    { part: "notes", label: `the notes (${many(noted, "slide", "slides")})`, there: noted > 0 },
    { part: "comments", label: `the comments (${comments})`, there: comments > 0 },
    { part: "hidden", label: `the hidden slides (${hidden})`, there: hidden > 0 },
    {
      part: "author",
      label: `the author’s name (${deck.properties.author})`,
      there: deck.properties.author.trim() !== "",
    },
  ];
  const removable = parts.filter(({ there }) => there);
  async function writeAll() {
    setBusy(true);
    try {
      await post("/writes", { decks, formats: WRITABLE, without }, Begun);
      session.notify("All formats are being written; the archive is listed on the Desk.");
    } catch (reason) {
      session.notify((reason as Error).message);
    } finally {
      setBusy(false);
    }
  }
  return (
    <section aria-labelledby="handing-over" className="hairline mb-4 max-w-5xl border p-4">
      <h2 id="handing-over" className="text-lg font-semibold">
        Before you hand it over
      </h2>
      <ul className="mt-2 grid grid-cols-1 gap-x-8 gap-y-1 text-sm md:grid-cols-2">
        {items.map(({ count: open, ...item }) => (
          <li key={item.act} className="flex min-h-8 items-center gap-2" data-item={item.act}>
            {open === 0 ? (
              <Check size={16} aria-hidden="true" className="text-success shrink-0" />
            ) : (
              <TriangleAlert size={16} aria-hidden="true" className="shrink-0" />
            )}
            <span className="flex-1">{open === undefined ? "Looking …" : open === 0 ? item.good : item.open}</span>
            {open !== 0 && (
              <button type="button" className="btn btn-xs" onClick={item.onAct}>
                {item.act}
              </button>
            )}
          </li>
        ))}
      </ul>
      {removable.length > 0 && (
        <fieldset className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-1 text-sm">
          <legend className="float-left mr-1">Take out of every file:</legend>
          {removable.map(({ part, label }) => (
            <label key={part} className="flex items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={without.includes(part)}
                onChange={({ target }) =>
                  onWithout(target.checked ? [...without, part] : without.filter((one) => one !== part))
                }
              />
              {label}
            </label>
          ))}
        </fieldset>
      )}
      <p className="mt-3 flex flex-wrap items-center gap-3 text-sm">
        <button
          type="button"
          className="btn btn-sm"
          disabled={busy || status !== "saved"}
          onClick={() => void writeAll()}
        >
          Write all formats in one archive
        </button>
        <span className="quiet">
          {decks.length > 1 ? `${decks.length === 2 ? "Both" : `All ${decks.length}`} languages, each in` : "In"}{" "}
          {WRITABLE.length} formats, with a report of what each keeps
        </span>
      </p>
    </section>
  );
}
