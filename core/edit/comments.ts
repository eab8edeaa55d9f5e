import { type Comment, Failure, type Reply, type Slide, slideWith } from "@unitext/core/model";
import type { Handler, SingleChange } from "./change";
import { notFound, type Of, onSlide } from "./order";

/** The kinds of changes that whoever may comment may make. */
export const COMMENT_CHANGES = ["putComment", "removeComment", "putReply", "removeReply", "setDone"] as const;
export type CommentChange = Extract<SingleChange, { kind: (typeof COMMENT_CHANGES)[number] }>;

/** Whether a change writes comments alone. */
export const isCommentChange = (change: SingleChange): change is CommentChange =>
  (COMMENT_CHANGES as readonly string[]).includes(change.kind);

/** Puts an item in the place of the one with its id, else at an index, else at the end. */
function put<T extends { id: string }>(list: readonly T[], item: T, index?: number): T[] {
  const at = list.findIndex(({ id }) => id === item.id);
  if (at >= 0) return list.with(at, item);
  return list.toSpliced(index ?? list.length, 0, item);
}

function commentsOf(slide: Slide | undefined, id: string): readonly Comment[] {
  if (!slide) throw notFound("slide", id);
  return slide.comments ?? [];
}

function itemOf<T extends { id: string }>(list: readonly T[], id: string): { item: T; index: number } {
  const index = list.findIndex((one) => one.id === id);
  const item = list[index];
  if (!item) throw new Failure("conflict", id, "This comment was removed meanwhile.");
  return { item, index };
}

/** Returns a slide with comments, and without the field where there are none. */
function withComments({ comments: _, ...slide }: Slide, comments: readonly Comment[]): Slide {
  return comments.length ? { ...slide, comments: [...comments] } : slide;
}

const withReplies = ({ replies: _, ...comment }: Comment, replies: readonly Reply[]): Comment =>
  replies.length ? { ...comment, replies: [...replies] } : comment;

export const putComment: Handler<Of<"putComment">> = {
  apply(deck, { slide: id, comment, index }) {
    const list = commentsOf(slideWith(deck, id), id);
    const before = list.find((one) => one.id === comment.id);
    return {
      deck: onSlide(deck, id, (slide) => withComments(slide, put(list, comment, index))),
      inverse: [
        before
          ? { kind: "putComment", slide: id, comment: before }
          : { kind: "removeComment", slide: id, comment: comment.id },
      ],
    };
  },
  writeSet: ({ slide, comment }) => [`slide:${slide}/comment:${comment.id}`],
  describe: () => "Commented",
};

export const removeComment: Handler<Of<"removeComment">> = {
  apply(deck, { slide: id, comment: commentId }) {
    const list = commentsOf(slideWith(deck, id), id);
    const { item: comment, index } = itemOf(list, commentId);
    return {
      deck: onSlide(deck, id, (slide) => withComments(slide, list.toSpliced(index, 1))),
      inverse: [{ kind: "putComment", slide: id, comment, index }],
    };
  },
  writeSet: ({ slide, comment }) => [`slide:${slide}/comment:${comment}`],
  describe: () => "Removed a comment",
};

export const putReply: Handler<Of<"putReply">> = {
  apply(deck, { slide: id, comment: commentId, reply, index }) {
    const list = commentsOf(slideWith(deck, id), id);
    const { item, index: at } = itemOf(list, commentId);
    const replies = item.replies ?? [];
    const before = replies.find((one) => one.id === reply.id);
    const next = withReplies(item, put(replies, reply, index));
    return {
      deck: onSlide(deck, id, (slide) => withComments(slide, list.with(at, next))),
      inverse: [
        before
          ? { kind: "putReply", slide: id, comment: commentId, reply: before }
          : { kind: "removeReply", slide: id, comment: commentId, reply: reply.id },
      ],
    };
  },
  writeSet: ({ slide, comment, reply }) => [`slide:${slide}/comment:${comment}/reply:${reply.id}`],
  describe: () => "Replied to a comment",
};

export const removeReply: Handler<Of<"removeReply">> = {
  apply(deck, { slide: id, comment: commentId, reply: replyId }) {
    const list = commentsOf(slideWith(deck, id), id);
    const { item, index: at } = itemOf(list, commentId);
    const replies = item.replies ?? [];
    const { item: reply, index } = itemOf(replies, replyId);
    const next = withReplies(item, replies.toSpliced(index, 1));
    return {
      deck: onSlide(deck, id, (slide) => withComments(slide, list.with(at, next))),
      inverse: [{ kind: "putReply", slide: id, comment: commentId, reply, index }],
    };
  },
  writeSet: ({ slide, comment, reply }) => [`slide:${slide}/comment:${comment}/reply:${reply}`],
  describe: () => "Removed a reply",
};

export const setDone: Handler<Of<"setDone">> = {
  apply(deck, { slide: id, comment: commentId, done }) {
    const list = commentsOf(slideWith(deck, id), id);
    const { item, index } = itemOf(list, commentId);
    const { done: before = false, ...bare } = item;
    const next: Comment = done ? { ...bare, done } : bare;
    return {
      deck: onSlide(deck, id, (slide) => withComments(slide, list.with(index, next))),
      inverse: [{ kind: "setDone", slide: id, comment: commentId, done: before }],
    };
  },
  writeSet: ({ slide, comment }) => [`slide:${slide}/comment:${comment}/done`],
  describe: ({ done }) => (done ? "Marked a comment as done" : "Opened a comment again"),
};
