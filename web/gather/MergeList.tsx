import { SortableItem, SortableList } from "../ui/SortableList";
import { Choices } from "../ui/Choices";
import { duplicates, type MergeSource, type MergeOptions } from "@unitext/core/divide";
import { metadataOf, type Theme, must } from "@unitext/core/model";
import { DeckList, DeckState } from "@unitext/server/api";
import { ArrowDown, ArrowUp, ListPlus, X } from "lucide-react";
import { type ReactNode, useMemo, useState } from "react";
import useSWR from "swr";
import { SmallSlide } from "../deck/SmallSlide";
import { get } from "../api/client";
import { clock } from "../ui/time";
import { keepAppearance, lastAppearance } from "../deck/lastappearance";
import { chosenSlides, type Found, found, gatheredOf, type Listed, ordered } from "./list";

/** Loads the decks of a list. */
function useStates(ids: readonly string[], versions: ReadonlyMap<string, number>): Map<string, DeckState> {
  const key = ids
    .map((id) => `${id}@${versions.get(id) ?? 0}`)
    .sort()
    .join(",");
  const { data } = useSWR(
    key ? `/gathered/${key}` : null,
    async () => {
      const states = await Promise.all(ids.map((id) => get(`/decks/${id}`, DeckState).catch(() => undefined)));
      return states.flatMap((state) => (state ? [state] : []));
    },
    { keepPreviousData: true, revalidateOnFocus: false },
  );
  return useMemo(() => new Map((data ?? []).map((state) => [state.deck.id, state])), [data]);
}

export interface MergeChoice {
  gathered: MergeSource[];
  options: MergeOptions;
}

interface Props {
  /** The deck into which the others are merged; none for a new deck. */
  into?: { id: string; theme: Theme } | undefined;
  pattern: string;
  onPattern: (pattern: string) => void;
  /** What is shown and done at the end for the chosen decks. */
  children: (choice: MergeChoice | undefined, slides: number, problem: string | undefined) => ReactNode;
}

/**
 * The merge list: decks found by a name pattern, ordered by hand or by a part of their names, all or some slides of
 * each, with a preview.
 */
export function MergeList({ into, pattern, onPattern, children }: Props) {
  const { data } = useSWR("/decks", () => get("/decks", DeckList));
  const [list, setList] = useState<Listed[]>([]);
  const [column, setColumn] = useState<number | "name">("name");
  const [look, setLook] = useState(lastAppearance);
  const [sections, setSections] = useState(false);
  const [contents, setContents] = useState(false);
  const [openingsOnce, setOpeningsOnce] = useState(true);
  const [drop, setDrop] = useState<ReadonlySet<string>>(new Set());
  const rows = (data?.decks ?? []).filter(({ id }) => id !== into?.id);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the rows are made anew at every render from these values.
  const byId = useMemo(() => new Map(rows.map((row) => [row.id, row])), [data, into?.id]);
  const fits = useMemo(() => ordered(found(rows, pattern), column), [rows, pattern, column]);
  const stars = fits[0]?.parts.length ?? 0;
  const states = useStates(
    list.map(({ id }) => id),
    // biome-ignore lint/correctness/useExhaustiveDependencies: the rows are made anew at every render from these values.
    useMemo(() => new Map(rows.map(({ id, version }) => [id, version])), [data]),
  );
  const listed = new Set(list.map(({ id }) => id));

  const { gathered, problem } = useMemo(() => {
    const all: MergeSource[] = [];
    for (const { id, slides } of list) {
      const state = states.get(id);
      if (!state) return { gathered: undefined, problem: undefined };
      try {
        all.push(gatheredOf(state, slides));
      } catch (error) {
        return { gathered: undefined, problem: `${state.deck.properties.title}: ${(error as Error).message}` };
      }
    }
    return { gathered: all.length ? all : undefined, problem: undefined };
  }, [list, states]);
  const twins = useMemo(() => (gathered ? duplicates(gathered) : []), [gathered]);
  const count =
    (gathered ?? []).reduce((sum, { deck, slides }) => sum + (slides?.length ?? deck.slides.length), 0) -
    [...drop].length;
  const shown = list
    .map(({ id }) => states.get(id))
    .find(
      (state) =>
        state &&
        (into
          ? JSON.stringify(state.deck.theme) !== JSON.stringify(into.theme)
          : JSON.stringify(state.deck.theme) !== JSON.stringify(states.get(list[0]?.id ?? "")?.deck.theme)),
    );
  const place = into?.theme ?? states.get(list[0]?.id ?? "")?.deck.theme;

  // A slide drawn in two themes counts as two slides for the drawing.
  const twin = useMemo(
    () =>
      shown?.deck.slides[0] ? { match: { ...shown.deck.slides[0] }, keep: { ...shown.deck.slides[0] } } : undefined,
    [shown],
  );

  const add = (more: readonly Found[]) =>
    setList((now) => [
      ...now,
      ...more.filter(({ row }) => !listed.has(row.id)).map(({ row }) => ({ id: row.id, slides: "" })),
    ]);
  const move = (id: string, to: number) =>
    setList((now) => {
      const from = now.findIndex((item) => item.id === id);
      const target = Math.max(0, Math.min(now.length - 1, to));
      if (from < 0 || from === target) return now;
      const item = must(now[from]);
      return now.toSpliced(from, 1).toSpliced(target, 0, item);
    });
  const order = () => {
    const places = new Map(fits.map(({ row }, nth) => [row.id, nth]));
    setList((now) =>
      [...now].sort(
        (a, b) => (places.get(a.id) ?? now.length + fits.length) - (places.get(b.id) ?? now.length + fits.length),
      ),
    );
  };
  const check = (label: string, value: boolean, onValue: (value: boolean) => void) => (
    <label className="flex min-h-6 items-center gap-2">
      <input
        type="checkbox"
        className="checkbox checkbox-xs"
        checked={value}
        onChange={(event) => onValue(event.target.checked)}
      />
      {label}
    </label>
  );

  return (
    <div className="flex h-full flex-col" data-merge>
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(20rem,5fr)_7fr]">
        <section aria-label="Decks on the Desk" className="hairline flex min-h-0 flex-col border-r">
          <div className="flex items-center gap-2 px-4 py-2">
            <label className="input input-sm min-w-0 flex-1">
              <span className="sr-only">Pattern of the names</span>
              <input
                type="search"
                placeholder="TB2-*-* finds by name"
                value={pattern}
                onChange={(event) => onPattern(event.target.value)}
              />
            </label>
            <button
              type="button"
              className="btn btn-sm"
              disabled={fits.every(({ row }) => listed.has(row.id))}
              onClick={() => add(fits)}
            >
              <ListPlus size={16} aria-hidden="true" /> Add all {fits.length}
            </button>
          </div>
          <div className="min-h-0 flex-1 overflow-auto" tabIndex={0} role="region" aria-label="Decks found">
            <table className="w-full text-sm">
              <thead className="bg-base-100 sticky top-0">
                <tr className="quiet">
                  {(["name", ...Array.from({ length: stars }, (_, nth) => nth)] as const).map((key) => (
                    <th
                      key={key}
                      scope="col"
                      aria-sort={column === key ? "ascending" : undefined}
                      className="px-2 text-left font-normal first:pl-4"
                    >
                      <button
                        type="button"
                        className="min-h-6 underline-offset-4 hover:underline"
                        onClick={() => setColumn(key)}
                      >
                        {key === "name" ? "Name" : `Part ${key + 1}`}
                        {column === key ? " ↓" : ""}
                      </button>
                    </th>
                  ))}
                  <th scope="col" className="px-2 text-right font-normal">
                    Slides
                  </th>
                  <td />
                </tr>
              </thead>
              <tbody>
                {fits.map(({ row, name, parts }) => (
                  <tr key={row.id} className={`hairline border-t ${listed.has(row.id) ? "quiet" : ""}`}>
                    <th
                      scope="row"
                      className="max-w-56 truncate py-1 pr-2 pl-4 text-left font-normal"
                      title={row.file ? `${row.title}, from ${row.file}` : row.title}
                    >
                      {name}
                      {row.file && (
                        <span className="quiet block truncate text-xs">
                          {name === row.file ? row.title : `from ${row.file}`}
                        </span>
                      )}
                    </th>
                    {parts.map((part, nth) => (
                      <td key={nth} className="max-w-32 truncate px-2">
                        {part}
                      </td>
                    ))}
                    <td className="px-2 text-right">{row.slides}</td>
                    <td className="pr-3 text-right">
                      <button
                        type="button"
                        className="btn btn-ghost btn-xs"
                        disabled={listed.has(row.id)}
                        aria-label={`${listed.has(row.id) ? "added:" : "Add"} ${name}`}
                        onClick={() => add([{ row, name, parts }])}
                      >
                        {listed.has(row.id) ? "added" : "Add"}
                      </button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {data && fits.length === 0 && (
              <p className="quiet px-4 py-6 text-sm">
                No other deck on the Desk has a name like that. A star stands for anything, as in TB2-*-*.
              </p>
            )}
          </div>
        </section>
        <section aria-label="Merge list" className="flex min-h-0 flex-col">
          <div className="flex items-center justify-between gap-3 px-4 py-2 text-sm">
            <p>
              <strong>{list.length}</strong> {list.length === 1 ? "deck" : "decks"},{" "}
              <strong>{Math.max(0, count)}</strong> slides, in this order
            </p>
            {list.length > 0 && (
              <span className="flex gap-1">
                <button type="button" className="btn btn-ghost btn-xs" onClick={order}>
                  Order by {column === "name" ? "name" : `part ${column + 1}`}
                </button>
                <button type="button" className="btn btn-ghost btn-xs" onClick={() => setList([])}>
                  Empty the list
                </button>
              </span>
            )}
          </div>
          {list.length === 0 && (
            <p className="quiet px-4 py-8 text-center text-sm">
              Add decks from the left. They stay as they are, whoever owns them.
            </p>
          )}
          <SortableList
            ids={list.map(({ id }) => id)}
            label="Decks in order"
            className="min-h-0 flex-1 overflow-auto px-4"
            onMove={move}
          >
            {list.map(({ id, slides }, at) => {
              const row = byId.get(id);
              const state = states.get(id);
              let wrong: string | undefined;
              try {
                if (state) chosenSlides(state.deck, slides);
              } catch (error) {
                wrong = (error as Error).message;
              }
              return (
                <SortableItem
                  key={id}
                  id={id}
                  name={row?.title ?? "the deck"}
                  className="hairline flex items-center gap-2 border-t py-1"
                >
                  <span className="w-6 text-right text-sm">{at + 1}</span>
                  {state?.deck.slides[0] ? (
                    <SmallSlide
                      slide={state.deck.slides[0]}
                      number={1}
                      metadata={metadataOf(state.deck)}
                      deck={id}
                      width={64}
                    />
                  ) : (
                    <span className="bg-base-200 h-9 w-16" />
                  )}
                  <span className="min-w-0 flex-1 text-sm">
                    <span className="block truncate">{row?.title ?? "…"}</span>
                    <span className="quiet text-xs">
                      {row ? `${row.file ? `from ${row.file}, ` : ""}${row.slides} slides, ${clock(row.seconds)}` : ""}
                    </span>
                    {wrong && (
                      <span role="alert" className="text-error block text-xs">
                        {wrong}
                      </span>
                    )}
                  </span>
                  <input
                    className={`input input-xs w-28 font-mono ${wrong ? "border-error" : ""}`}
                    aria-label={`Slides of ${row?.title ?? "the deck"}`}
                    placeholder="all slides"
                    value={slides}
                    onChange={(event) => setList((now) => now.with(at, { id, slides: event.target.value }))}
                  />
                  <span className="flex">
                    <button
                      type="button"
                      className="btn btn-ghost btn-xs px-1"
                      aria-label={`Move ${row?.title} up`}
                      disabled={at === 0}
                      onClick={() => move(id, at - 1)}
                    >
                      <ArrowUp size={14} aria-hidden="true" />
                    </button>
                    <button
                      type="button"
                      className="btn btn-ghost btn-xs px-1"
                      aria-label={`Move ${row?.title} down`}
                      disabled={at === list.length - 1}
                      onClick={() => move(id, at + 1)}
                    >
                      <ArrowDown size={14} aria-hidden="true" />
                    </button>
                    <button
                      type="button"
                      className="btn btn-ghost btn-xs px-1"
                      aria-label={`Remove ${row?.title} from the list`}
                      onClick={() => setList((now) => now.toSpliced(at, 1))}
                    >
                      <X size={14} aria-hidden="true" />
                    </button>
                  </span>
                </SortableItem>
              );
            })}
          </SortableList>
          <div className="hairline bg-base-200 max-h-[45%] space-y-2 overflow-auto border-t px-4 py-2 text-sm">
            <div className="flex flex-wrap items-start gap-4">
              <Choices
                legend="Appearance of the slides"
                layout="cards"
                value={look}
                onChange={(value) => {
                  setLook(value);
                  keepAppearance(value);
                }}
                options={(["match", "keep"] as const).map((value) => ({
                  value,
                  label: value === "match" ? "the theme of this deck" : "each keeps its own theme",
                  content: shown && twin && place && (
                    <SmallSlide
                      slide={twin[value]}
                      number={1}
                      metadata={{ ...metadataOf(shown.deck), ...(value === "match" ? { theme: place } : {}) }}
                      deck={shown.deck.id}
                      width={104}
                    />
                  ),
                }))}
              />
              <div className="space-y-1">
                {check("a section for each deck", sections, setSections)}
                {check("a contents slide with links", contents, setContents)}
                {check("equal opening slides once", openingsOnce, setOpeningsOnce)}
              </div>
            </div>
            {twins.length > 0 && (
              <details data-twins>
                <summary className="cursor-pointer">
                  {twins.length === 1 ? "One slide stands" : `${twins.length} slides stand`} more than once; {drop.size}{" "}
                  dropped
                </summary>
                <p className="my-1">
                  <button
                    type="button"
                    className="btn btn-xs"
                    onClick={() =>
                      setDrop(
                        new Set(twins.flatMap((group) => group.slice(1).map(({ deck, slide }) => `${deck}/${slide}`))),
                      )
                    }
                  >
                    Drop all but the first of each
                  </button>{" "}
                  <button type="button" className="btn btn-ghost btn-xs" onClick={() => setDrop(new Set())}>
                    Keep all
                  </button>
                </p>
                <ul className="max-h-32 overflow-auto">
                  {twins.slice(0, 200).map((group) => (
                    <li key={`${group[0]?.deck}/${group[0]?.slide}`} className="py-1">
                      “{group[0]?.name || "(empty)"}”:{" "}
                      {group.map(({ deck, slide, number }, nth) => {
                        const key = `${deck}/${slide}`;
                        return (
                          <label key={key} className="mr-3 inline-flex min-h-6 items-center gap-1">
                            <input
                              type="checkbox"
                              className="checkbox checkbox-xs"
                              checked={!drop.has(key)}
                              disabled={nth === 0}
                              onChange={(event) =>
                                setDrop(
                                  (now) =>
                                    new Set(
                                      event.target.checked ? [...now].filter((other) => other !== key) : [...now, key],
                                    ),
                                )
                              }
                            />
                            {byId.get(deck)?.title}, {number}
                          </label>
                        );
                      })}
                    </li>
                  ))}
                </ul>
              </details>
            )}
            {children(
              gathered && { gathered, options: { appearance: look, sections, contents, openingsOnce, drop } },
              Math.max(0, count),
              problem,
            )}
          </div>
        </section>
      </div>
    </div>
  );
}
