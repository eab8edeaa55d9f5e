import type { MergeOptions, MergeSource } from "@unitext/core/divide";
import type { Theme } from "@unitext/core/model";
import type { ReactNode } from "react";
import { SmallSlide } from "../deck/SmallSlide";
import { keepAppearance } from "../deck/lastappearance";
import { Choices } from "../ui/Choices";
import { SortableList } from "../ui/SortableList";
import { Duplicates } from "./Duplicates";
import { FoundDecks } from "./FoundDecks";
import { MergeItem } from "./MergeItem";
import { useMergeList } from "./useMergeList";

export interface MergeChoice {
  gathered: MergeSource[];
  options: MergeOptions;
}

interface Props {
  /** The deck into which the others are merged; none for a new deck. */
  into?: { id: string; theme: Theme } | undefined;
  pattern: string;
  /** Ids of decks that are in the list from the start. */
  first?: readonly string[];
  onPattern: (pattern: string) => void;
  /** What is shown and done at the end for the chosen decks. */
  children: (choice: MergeChoice | undefined, slides: number, problem: string | undefined) => ReactNode;
}

/**
 * The merge list: decks found by a name pattern, ordered by hand or by a part of their names, all or some slides of
 * each, with a preview.
 */
export function MergeList({ into, pattern, first, onPattern, children }: Props) {
  const merge = useMergeList(into, pattern, first);
  const { list, setList, look, setLook, sections, setSections, contents, setContents, openingsOnce, setOpeningsOnce } =
    merge;
  const { column, gathered, problem, count, preview, drop, twins, move, order } = merge;
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
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(20rem,5fr)_7fr] max-md:grid-cols-1 max-md:grid-rows-2">
        <FoundDecks merge={merge} pattern={pattern} onPattern={onPattern} />
        <section aria-label="Merge list" className="flex min-h-0 flex-col">
          <div className="flex flex-wrap items-center justify-between gap-x-3 px-4 py-2 text-sm">
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
              Add decks from the list of those found. They stay as they are, whoever owns them.
            </p>
          )}
          <SortableList
            ids={list.map(({ id }) => id)}
            label="Decks in order"
            className="min-h-0 flex-1 overflow-auto px-4"
            onMove={move}
          >
            {list.map((item, at) => (
              <MergeItem key={item.id} item={item} at={at} merge={merge} />
            ))}
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
                  content: preview.pairs.length > 0 && (
                    <span className="flex flex-wrap gap-2">
                      {preview.pairs.map(({ deck, number, metadata, ...pair }) => (
                        <SmallSlide
                          key={`${deck.id}/${number}`}
                          slide={pair[value]}
                          number={number}
                          metadata={metadata[value]}
                          deck={deck.id}
                          width={104}
                          label={`Slide ${number} of ${deck.properties.title}, ${value === "match" ? "in the theme of this deck" : "in its own theme"}`}
                        />
                      ))}
                    </span>
                  ),
                }))}
              />
              {preview.changed > 0 && (
                <p className="quiet max-w-48" role="status">
                  {preview.changed} {preview.changed === 1 ? "slide looks" : "slides look"} different in the theme of
                  this deck; those that change most are shown.
                  {preview.overflowing > 0 &&
                    ` The text of ${preview.overflowing} ${preview.overflowing === 1 ? "slide" : "slides"} would overflow.`}
                </p>
              )}
              <div className="space-y-1">
                {check("a section for each deck", sections, setSections)}
                {check("a contents slide with links", contents, setContents)}
                {check("equal opening slides once", openingsOnce, setOpeningsOnce)}
              </div>
            </div>
            {twins.length > 0 && <Duplicates merge={merge} />}
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
