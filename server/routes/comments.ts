import { isCommentChange, type SingleChange } from "@unitext/core/edit";
import { type Comment, type Deck, Failure, type Reply, slideWith } from "@unitext/core/model";
import { includes, type Right } from "../access";
import type { Me } from "../api";

const notYours = (what: string) =>
  new Failure("not-permitted", "comment", `Only whoever wrote a ${what} may change it, and only in their own name.`);

/** Throws unless what is written is by the person, under the person's name, and takes the place of nobody else's words. */
function requireOwn(user: Me, said: Reply, before: Reply | undefined, what: string): void {
  if (said.user !== user.id || said.author !== user.name) throw notYours(what);
  if (before && before.user !== user.id) throw notYours(what);
}

/** Throws where a new text of a comment would change what others have added to it. */
function requireSameThread(comment: Comment, before: Comment | undefined): void {
  const thread = ({ replies = [], done = false }: Partial<Comment>) => JSON.stringify([replies, done]);
  if (thread(comment) !== thread(before ?? {}))
    throw new Failure("not-valid", "comment", "Replies are sent one by one, not as a part of their comment.");
}

/**
 * Returns a check of changes to comments: everybody writes in their own name and changes only their own words; whoever
 * may edit the deck also removes those of others, and puts back what an own step had removed.
 */
export function commentCheck(user: Me, right: Right): (before: Deck, change: SingleChange) => void {
  const mayEdit = includes(right, "edit");
  return (deck, change) => {
    if (!isCommentChange(change) || change.kind === "setDone") return;
    const id = change.kind === "putComment" ? change.comment.id : change.comment;
    const before = slideWith(deck, change.slide)?.comments?.find((one) => one.id === id);
    if (change.kind === "putComment") {
      // Undoing a removal brings the comment back as it was, with its replies, whoever wrote it.
      if (mayEdit && !before && change.index !== undefined) return;
      requireOwn(user, change.comment, before, "comment");
      requireSameThread(change.comment, before);
      return;
    }
    if (change.kind === "removeComment") {
      if (!mayEdit && before?.user !== user.id) throw notYours("comment");
      return;
    }
    const replyId = change.kind === "putReply" ? change.reply.id : change.reply;
    const reply = before?.replies?.find((one) => one.id === replyId);
    if (change.kind === "putReply") {
      if (mayEdit && !reply && change.index !== undefined) return;
      requireOwn(user, change.reply, reply, "reply");
    } else if (!mayEdit && reply?.user !== user.id) throw notYours("reply");
  };
}
