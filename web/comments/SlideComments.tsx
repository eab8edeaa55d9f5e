import type { Comment, Slide } from "@unitext/core/model";
import { MessageSquarePlus } from "lucide-react";
import { useState } from "react";
import { Composer } from "./Composer";
import { Thread } from "./Thread";
import { useCommentActs } from "./useCommentActs";

/** The comments on a slide, those that are done folded away, and a field to write one. */
export function SlideComments({
  slide,
  selected,
  composing,
  nameOf,
  onCompose,
  onShow,
}: {
  slide: Slide;
  /** The element that is selected, which a new comment is on. */
  selected: string | undefined;
  /** The element that a comment is being written on; null for the slide, undefined while none is written. */
  composing: string | null | undefined;
  nameOf: (element: string) => string;
  onCompose: (element: string | null | undefined) => void;
  /** Marks the words of a comment on the slide. */
  onShow: (comment: Comment | undefined) => void;
}) {
  const acts = useCommentActs();
  const [all, setAll] = useState(false);
  const { comments = [] } = slide;
  const done = comments.filter((comment) => comment.done);
  const shown = all ? comments : comments.filter((comment) => !comment.done);
  return (
    <section aria-label="Comments on this slide">
      {comments.length === 0 && composing === undefined && (
        <p className="quiet mb-2">
          Nobody has commented on this slide. A comment is on the slide, on an element, or on some of its words.
        </p>
      )}
      <header className="mb-2 flex flex-wrap items-center gap-2">
        {done.length > 0 && (
          <button type="button" className="btn btn-ghost btn-xs" aria-pressed={all} onClick={() => setAll(!all)}>
            {all ? "Hide those that are done" : `Show ${done.length} done`}
          </button>
        )}
        {acts.mayComment && composing === undefined && (
          <button
            type="button"
            className="btn btn-sm"
            title="Writes a comment on what is selected, or on the slide (C)"
            onClick={() => onCompose(selected ?? null)}
          >
            <MessageSquarePlus size={16} aria-hidden="true" /> Comment
          </button>
        )}
      </header>
      {composing !== undefined && (
        <Composer
          slide={slide}
          element={composing ?? undefined}
          nameOf={nameOf}
          acts={acts}
          onElement={(id) => onCompose(id ?? null)}
          onClose={() => onCompose(undefined)}
        />
      )}
      <ul className="mt-2 flex flex-col gap-3">
        {shown.map((comment) => (
          <Thread key={comment.id} slide={slide} comment={comment} acts={acts} onShow={onShow} />
        ))}
      </ul>
    </section>
  );
}
