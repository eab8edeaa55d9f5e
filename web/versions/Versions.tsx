import type { CompareRow } from "@unitext/core/diff";
import { restoreChange, takeSlideChange } from "@unitext/core/divide";
import { type Deck, nameOf, must } from "@unitext/core/model";
import { DeckAt, DeckList, DeckState, NamedVersions } from "@unitext/server/api";
import { useSearchParams } from "react-router";
import useSWR from "swr";
import { get } from "../api/client";
import { ArrangeViews } from "../shell/ArrangeViews";
import { useDeck } from "../deck/DeckContext";
import { DeckFrame } from "../shell/DeckFrame";
import { CompareView } from "./CompareView";
import { NewVersionForms } from "./NewVersionForms";
import { TailorView } from "./TailorView";
import { useComparison } from "./useComparison";
import { DiffersTable } from "./Differences";
import { useHistory, Entry } from "./History";

/** The history: what was done, named states, comparison with another time or deck, and versions that follow. */
export default function Versions() {
  const { deck, version, session, canEdit } = useDeck();
  const [search, setSearch] = useSearchParams();
  const { entries, first, more } = useHistory(deck.id, version);
  const { data: named } = useSWR(`/decks/${deck.id}/versions@${version}`, () =>
    get(`/decks/${deck.id}/versions`, NamedVersions),
  );
  const { data: desk } = useSWR("/decks", () => get("/decks", DeckList));
  const at = search.get("at");
  const other = search.get("with");
  /** The state to compare with; the present deck when none is chosen. */
  const beside = search.get("beside");
  const view =
    at !== null
      ? "at"
      : other !== null
        ? "with"
        : search.get("view") === "differs"
          ? "differs"
          : deck.original
            ? "original"
            : "none";
  const { data: otherState } = useSWR(
    beside === null ? null : `/decks/${deck.id}/at/${beside}`,
    async () => (await get(`/decks/${deck.id}/at/${beside}`, DeckAt)).deck,
    { revalidateOnFocus: false },
  );
  const mine = beside !== null && otherState ? otherState : deck;
  const past = useComparison(
    mine,
    at === null ? undefined : `/decks/${deck.id}/at/${at}`,
    async () => (await get(`/decks/${deck.id}/at/${at}`, DeckAt)).deck,
  );
  const apart = useComparison(
    deck,
    other === null ? undefined : `/decks/${other}?compare`,
    async () => (await get(`/decks/${other}`, DeckState)).deck,
  );
  const began = named?.versions.find((one) => one.version === 0)?.name;
  const label = (number: number) =>
    named?.versions.find((one) => one.version === number)?.name ??
    entries.find((one) => one.version === number)?.description ??
    `version ${number}`;

  const takeSlide = (row: CompareRow, from: Deck) => {
    const { here, there } = row;
    if (there)
      session.apply(takeSlideChange(deck, { here, there }, from), { words: `Took “${nameOf(there)}” as it was` });
  };
  const restore = (then: Deck, words: string) => {
    const change = restoreChange(deck, then);
    if (change) session.apply(change, { words });
    else session.notify("The deck is as it was then.");
  };

  const compared = view === "at" ? past : apart;
  return (
    <DeckFrame place="Versions" tools={<ArrangeViews />}>
      <div className="grid h-full grid-cols-[19rem_1fr] max-md:grid-cols-1 max-md:grid-rows-[minmax(12rem,2fr)_3fr]">
        <aside
          aria-label="States and versions"
          className="hairline flex min-h-0 flex-col border-r max-md:overflow-auto max-md:border-r-0 max-md:border-b"
        >
          <div className="space-y-3 px-4 py-3 text-sm">
            <NewVersionForms />
            <label className="flex items-center gap-2">
              <span className="shrink-0">Compare with</span>
              <select
                className="select select-xs min-w-0 flex-1"
                value={other ?? ""}
                onChange={(event) => setSearch(event.target.value ? { with: event.target.value } : {})}
              >
                <option value="">another deck …</option>
                {desk?.decks
                  .filter(({ id }) => id !== deck.id)
                  .map(({ id, title }) => (
                    <option key={id} value={id}>
                      {title}
                    </option>
                  ))}
              </select>
            </label>
            <p className="flex flex-wrap gap-1">
              {deck.original && (
                <button
                  type="button"
                  className={`btn btn-xs ${view === "original" ? "btn-primary" : ""}`}
                  aria-pressed={view === "original"}
                  onClick={() => setSearch({})}
                >
                  Its original
                </button>
              )}
              <button
                type="button"
                className={`btn btn-xs ${view === "differs" ? "btn-primary" : ""}`}
                aria-pressed={view === "differs"}
                onClick={() => setSearch({ view: "differs" })}
              >
                What differs between versions
              </button>
            </p>
          </div>
          <h2 className="quiet px-4 text-sm">History, newest first</h2>
          <ol className="min-h-0 flex-1 overflow-auto" aria-label="History">
            {entries.map((entry) => (
              <Entry
                key={entry.version}
                entry={entry}
                current={at === String(entry.version)}
                onCompare={() => setSearch({ at: String(entry.version) })}
              />
            ))}
            {!first && (
              <li className="px-4 py-2">
                <button type="button" className="btn btn-ghost btn-xs" onClick={() => void more()}>
                  Earlier
                </button>
              </li>
            )}
            {first && (
              <li className="hairline border-t">
                <button
                  type="button"
                  className="hover:bg-base-200 block w-full px-4 py-1.5 text-left text-sm"
                  aria-pressed={at === "0"}
                  onClick={() => setSearch({ at: "0" })}
                >
                  {began && <strong className="text-secondary block">{began}</strong>}
                  As the deck began
                </button>
              </li>
            )}
          </ol>
        </aside>
        <div className="min-h-0 min-w-0">
          {(view === "at" || view === "with") && (
            <div className="flex h-full min-h-0 flex-col">
              {compared.error && (
                <p role="alert" className="p-4">
                  {compared.error.message}
                </p>
              )}
              {!compared.comparison && !compared.error && <p className="quiet p-4">Comparing …</p>}
              {compared.comparison && compared.there && (
                <>
                  {view === "at" && (
                    <div className="hairline flex flex-wrap items-center gap-x-3 gap-y-1 border-b px-4 py-2 text-sm">
                      <label className="flex items-center gap-2">
                        <span className="sr-only">State to compare with</span>
                        <select
                          className="select select-xs w-40"
                          value={beside ?? ""}
                          onChange={(event) =>
                            setSearch({ at: at ?? "0", ...(event.target.value ? { beside: event.target.value } : {}) })
                          }
                        >
                          <option value="">The deck now</option>
                          {[
                            ...(named?.versions ?? []).map(
                              ({ version: number, name: title }) => [number, title] as const,
                            ),
                            ...(began ? [] : [[0, "As it was imported"] as const]),
                          ]
                            .filter(([number]) => String(number) !== at)
                            .map(([number, title]) => (
                              <option key={number} value={number}>
                                {title}
                              </option>
                            ))}
                        </select>
                      </label>
                      <p className="min-w-0 flex-1 truncate">
                        beside how it was after{" "}
                        <strong>{at === "0" ? (began ?? "it began") : label(Number(at))}</strong>
                      </p>
                      <button
                        type="button"
                        className="btn btn-primary btn-sm"
                        disabled={!canEdit}
                        onClick={() =>
                          restore(
                            must(compared.there),
                            `Restored the state after “${at === "0" ? "the beginning" : label(Number(at))}”`,
                          )
                        }
                      >
                        Restore this state
                      </button>
                    </div>
                  )}
                  <div className="min-h-0 flex-1">
                    <CompareView
                      comparison={compared.comparison}
                      here={{
                        deck: view === "at" ? mine : deck,
                        label:
                          view !== "at"
                            ? deck.properties.title
                            : beside === null
                              ? "Now"
                              : beside === "0"
                                ? (began ?? "As it was imported")
                                : label(Number(beside)),
                      }}
                      there={{
                        deck: compared.there,
                        label:
                          view === "at"
                            ? at === "0"
                              ? "As it was imported"
                              : `After: ${label(Number(at))}`
                            : compared.there.properties.title,
                      }}
                      {...(view === "at" && canEdit && beside === null
                        ? {
                            act: (row: CompareRow) =>
                              row.there && row.state !== "same" && row.state !== "moved" ? (
                                <button
                                  type="button"
                                  className="btn btn-xs mt-2"
                                  onClick={() => takeSlide(row, must(compared.there))}
                                >
                                  {row.here ? "Restore this slide" : "Insert this slide again"}
                                </button>
                              ) : null,
                          }
                        : {})}
                    />
                  </div>
                </>
              )}
            </div>
          )}
          {view === "original" && <TailorView />}
          {view === "differs" && <DiffersTable deck={deck} />}
          {view === "none" && (
            <div className="mx-auto max-w-lg px-6 py-16 text-center">
              <p className="mb-2">
                Choose a state in the history to see what has changed since, slide by slide, and to bring back all of it
                or one slide.
              </p>
              <p className="quiet">
                A version for another audience is a copy that follows this deck: what is new here is offered there.
              </p>
            </div>
          )}
        </div>
      </div>
    </DeckFrame>
  );
}
