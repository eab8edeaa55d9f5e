import { type Comment, nameOf, type Slide } from "@unitext/core/model";
import { useState } from "react";
import { useNavigate } from "react-router";
import { useMe } from "../api/entrance";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";
import { Dialog } from "../ui/Dialog";
import { Thread } from "./Thread";
import { useCommentActs } from "./useCommentActs";

const FILTERS = {
  open: "Open",
  mentions: "Mention me",
  mine: "Mine",
  proposals: "With proposals",
  done: "Done",
} as const;
type Filter = keyof typeof FILTERS;

/** Returns whether a comment, or a reply to it, passes a filter for a person. */
function passes(comment: Comment, filter: Filter, me: string | undefined): boolean {
  const all = [comment, ...(comment.replies ?? [])];
  const tests: Record<Filter, () => boolean> = {
    open: () => comment.done !== true,
    done: () => comment.done === true,
    mine: () => all.some(({ user }) => user !== undefined && user === me),
    mentions: () => all.some(({ mentions = [] }) => me !== undefined && mentions.includes(me)),
    proposals: () => comment.proposal !== undefined && comment.done !== true,
  };
  return tests[filter]();
}

/** All comments of the deck, slide by slide, by whether they are open, mention me, or are mine. */
export function CommentsDialog({ onClose }: { onClose: () => void }) {
  const { deck, metadata, select } = useDeck();
  const acts = useCommentActs();
  const me = useMe();
  const navigate = useNavigate();
  const [filter, setFilter] = useState<Filter>("open");
  const all = deck.slides.flatMap(({ comments = [] }) => comments);
  const count = (name: Filter) => all.filter((comment) => passes(comment, name, me?.id)).length;
  const shown = deck.slides.flatMap((slide, nth) => {
    const comments = (slide.comments ?? []).filter((comment) => passes(comment, filter, me?.id));
    return comments.length ? [{ slide, number: nth + 1, comments }] : [];
  });
  const open = ({ id }: Slide) => {
    select([id]);
    onClose();
    navigate(`/decks/${deck.id}/refine/${id}`);
  };
  return (
    <Dialog
      title="Comments"
      width="widest"
      tall={shown.length > 2}
      onClose={onClose}
      actions={(close) => (
        <button type="button" className="btn btn-primary" onClick={close}>
          Done
        </button>
      )}
    >
      <div className="mb-3 flex flex-wrap gap-1" role="group" aria-label="Which comments">
        {(Object.keys(FILTERS) as Filter[]).map((name) => (
          <button
            key={name}
            type="button"
            aria-pressed={filter === name}
            className={`btn btn-sm ${filter === name ? "btn-primary" : ""}`}
            onClick={() => setFilter(name)}
          >
            {FILTERS[name]} <span className="tabular-nums">{count(name)}</span>
          </button>
        ))}
      </div>
      {shown.length === 0 && (
        <p className="quiet py-6 text-center">
          {all.length === 0
            ? "Nobody has commented yet. Comments are written in Refine, on a slide, an element, or some words."
            : "No comment is like this."}
        </p>
      )}
      <ul className="min-h-0 flex-1 overflow-y-auto">
        {shown.map(({ slide, number, comments }) => (
          <li key={slide.id} className="hairline flex gap-4 border-b py-3">
            <SmallSlide
              slide={slide}
              number={number}
              metadata={metadata}
              deck={deck.id}
              width={160}
              className="self-start max-md:hidden"
            />
            <div className="min-w-0 flex-1">
              <p className="mb-2 flex items-baseline gap-2">
                <strong className="min-w-0 flex-1 truncate">
                  {number}. {nameOf(slide) || "(empty)"}
                </strong>
                <button type="button" className="btn btn-ghost btn-xs" onClick={() => open(slide)}>
                  Open<span className="sr-only"> slide {number}</span>
                </button>
              </p>
              <ul className="flex flex-col gap-3">
                {comments.map((comment) => (
                  <Thread key={comment.id} slide={slide} comment={comment} acts={acts} />
                ))}
              </ul>
            </div>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
