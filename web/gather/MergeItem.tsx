import { metadataOf } from "@unitext/core/model";
import { ArrowDown, ArrowUp, X } from "lucide-react";
import { SmallSlide } from "../deck/SmallSlide";
import { SortableItem } from "../ui/SortableList";
import { clock } from "../ui/time";
import { chosenSlides, type Listed } from "./list";
import type { MergeListState } from "./useMergeList";

/** A deck in the merge list, with the slides that are taken of it. */
export function MergeItem({
  item: { id, slides },
  at,
  merge: { byId, states, list, setList, move },
}: {
  item: Listed;
  at: number;
  merge: MergeListState;
}) {
  const row = byId.get(id);
  const state = states.get(id);
  let wrong: string | undefined;
  try {
    if (state) chosenSlides(state.deck, slides);
  } catch (error) {
    wrong = (error as Error).message;
  }
  return (
    <SortableItem id={id} name={row?.title ?? "the deck"} className="hairline flex items-center gap-2 border-t py-1">
      <span className="w-6 text-right text-sm">{at + 1}</span>
      {state?.deck.slides[0] ? (
        <SmallSlide slide={state.deck.slides[0]} number={1} metadata={metadataOf(state.deck)} deck={id} width={64} />
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
          title={`Move ${row?.title} up`}
          disabled={at === 0}
          onClick={() => move(id, at - 1)}
        >
          <ArrowUp size={14} aria-hidden="true" />
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-xs px-1"
          aria-label={`Move ${row?.title} down`}
          title={`Move ${row?.title} down`}
          disabled={at === list.length - 1}
          onClick={() => move(id, at + 1)}
        >
          <ArrowDown size={14} aria-hidden="true" />
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-xs px-1"
          aria-label={`Remove ${row?.title} from the list`}
          title={`Remove ${row?.title} from the list`}
          onClick={() => setList((now) => now.toSpliced(at, 1))}
        >
          <X size={14} aria-hidden="true" />
        </button>
      </span>
    </SortableItem>
  );
}
