import { type CommentChange, batch } from "@unitext/core/edit";
import type { Reply } from "@unitext/core/model";
import type { People } from "@unitext/server/api";
import { nanoid } from "nanoid";
import { useMe } from "../api/entrance";
import { useDeck } from "../deck/DeckContext";
import type { CommentActs } from "./acts";
import { usePeople } from "./people";
import { takeProposal } from "./quotes";

/** Returns the ids of the people whose names follow an @ in a text. */
const mentionsIn = (text: string, people: People["people"]): string[] =>
  people.filter(({ name }) => text.includes(`@${name}`)).map(({ id }) => id);

export function useCommentActs(): CommentActs {
  const { session, canEdit, right } = useDeck();
  const me = useMe();
  const people = usePeople();
  const apply = (change: CommentChange, words: string) => session.apply(change, { words });
  const said = (text: string): Reply => {
    const mentions = mentionsIn(text, people);
    return {
      id: nanoid(10),
      author: me?.name ?? "",
      ...(me ? { user: me.id } : {}),
      text,
      date: new Date().toISOString(),
      ...(mentions.length ? { mentions } : {}),
    };
  };
  return {
    mayComment: me !== undefined && (canEdit || right === "comment"),
    mayEdit: canEdit,
    people,
    isOwn: ({ user }) => user !== undefined && user === me?.id,
    add: (slide, text, subject) =>
      apply({ kind: "putComment", slide: slide.id, comment: { ...said(text), ...subject } }, "Commented"),
    rewrite: (slide, comment, text) => {
      const { mentions: _, ...bare } = comment;
      const mentions = mentionsIn(text, people);
      const next = { ...bare, text, ...(mentions.length ? { mentions } : {}) };
      apply({ kind: "putComment", slide: slide.id, comment: next }, "Changed a comment");
    },
    remove: (slide, comment) =>
      apply({ kind: "removeComment", slide: slide.id, comment: comment.id }, "Removed a comment"),
    reply: (slide, comment, text) =>
      apply({ kind: "putReply", slide: slide.id, comment: comment.id, reply: said(text) }, "Replied to a comment"),
    removeReply: (slide, comment, reply) =>
      apply({ kind: "removeReply", slide: slide.id, comment: comment.id, reply: reply.id }, "Removed a reply"),
    setDone: (slide, comment, done) =>
      apply(
        { kind: "setDone", slide: slide.id, comment: comment.id, done },
        done ? "Marked a comment as done" : "Opened a comment again",
      ),
    take: (slide, comment) => {
      const changes = takeProposal(slide, comment);
      if (changes) session.apply(batch(changes), { words: `Took the words of ${comment.author}` });
      else
        session.notify(
          `The words “${comment.quote?.exact ?? ""}” are not there any more, so nothing was changed. Proposed were: “${comment.proposal}”.`,
        );
    },
  };
}
