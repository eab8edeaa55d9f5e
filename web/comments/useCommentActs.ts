import { type CommentChange, batch } from "@unitext/core/edit";
import type { Comment, Reply, Slide } from "@unitext/core/model";
import { People } from "@unitext/server/api";
import { nanoid } from "nanoid";
import useSWR from "swr";
import { get } from "../api/client";
import { useMe } from "../api/entrance";
import { useDeck } from "../deck/DeckContext";
import { takeProposal } from "./quotes";

/** What a comment is on, and what its author proposes. */
export type Subject = Pick<Comment, "element" | "quote" | "proposal">;

/** What the person may do with comments. Each act is a change of the deck that can be undone. */
export interface CommentActs {
  /** Whether the person may comment at all. */
  mayComment: boolean;
  mayEdit: boolean;
  people: People["people"];
  isOwn: (said: Reply) => boolean;
  add: (slide: Slide, text: string, subject: Subject) => void;
  rewrite: (slide: Slide, comment: Comment, text: string) => void;
  remove: (slide: Slide, comment: Comment) => void;
  reply: (slide: Slide, comment: Comment, text: string) => void;
  removeReply: (slide: Slide, comment: Comment, reply: Reply) => void;
  setDone: (slide: Slide, comment: Comment, done: boolean) => void;
  /** Puts the proposed words in the place of the quoted ones. */
  take: (slide: Slide, comment: Comment) => void;
}

/** The people of the house, whom a comment may mention. */
export function usePeople(): People["people"] {
  const { data } = useSWR("/people", () => get("/people", People), { revalidateOnFocus: false });
  return data?.people ?? [];
}

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
