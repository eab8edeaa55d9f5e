import { type Comment, newSlide, plainText, type Reply, type Slide } from "@unitext/core/model";
import { ChangeReply, type SentChange, type ViewedDeck, type ViewedSlide } from "@unitext/server/api";
import { MessageSquarePlus } from "lucide-react";
import { nanoid } from "nanoid";
import { useState } from "react";
import { post } from "../api/client";
import { useMe } from "../api/entrance";
import { type CommentActs, Composer, Thread } from "../comments/parts";

type Change = SentChange["change"];

/** Returns a slide with what a viewer's page knows of it: its texts, and its comments. */
const slideOf = (id: string, { texts, comments }: ViewedSlide): Slide => ({
  ...newSlide(id, "blank"),
  elements: texts.map(({ id: element, text }) => ({ kind: "text", id: element, slot: null, text: plainText(text) })),
  comments: comments ?? [],
});

/** The comments on a slide beside it, for whoever may comment and opens the deck in its viewer. */
export default function ViewedComments({
  deck,
  id,
  viewed,
  onChanged,
  onProblem,
}: {
  deck: ViewedDeck;
  id: string;
  viewed: ViewedSlide;
  /** Called with the version of the deck that a comment made. */
  onChanged: (version: number) => void;
  onProblem: (problem: string) => void;
}) {
  const me = useMe();
  const [composing, setComposing] = useState<string | null>();
  const slide = slideOf(id, viewed);
  const send = (change: Change) => {
    const sent = { base: deck.version, changes: [{ id: nanoid(16), change }] };
    post(`/decks/${deck.id}/changes`, sent, ChangeReply).then(
      ({ version }) => onChanged(version),
      (error: Error) => onProblem(error.message),
    );
  };
  const said = (text: string): Reply => ({
    id: nanoid(10),
    author: me?.name ?? "",
    ...(me ? { user: me.id } : {}),
    text,
    date: new Date().toISOString(),
  });
  const on = (comment: Comment) => ({ slide: id, comment: comment.id });
  const acts: CommentActs = {
    mayComment: me !== undefined,
    mayEdit: false,
    people: [],
    isOwn: ({ user }) => user !== undefined && user === me?.id,
    add: (_, text, subject) => send({ kind: "putComment", slide: id, comment: { ...said(text), ...subject } }),
    rewrite: (_, comment, text) => send({ kind: "putComment", slide: id, comment: { ...comment, text } }),
    remove: (_, comment) => send({ kind: "removeComment", ...on(comment) }),
    reply: (_, comment, text) => send({ kind: "putReply", ...on(comment), reply: said(text) }),
    removeReply: (_, comment, reply) => send({ kind: "removeReply", ...on(comment), reply: reply.id }),
    setDone: (_, comment, done) => send({ kind: "setDone", ...on(comment), done }),
    take: () => undefined,
  };
  const wordsOf = (element: string) => viewed.texts.find((one) => one.id === element)?.text.slice(0, 60) ?? "";
  return (
    <section aria-label="Comments on this slide" className="p-3 text-sm">
      {composing === undefined ? (
        <button type="button" className="btn btn-sm mb-3" onClick={() => setComposing(null)}>
          <MessageSquarePlus size={16} aria-hidden="true" /> Comment
        </button>
      ) : (
        <Composer
          slide={slide}
          element={composing ?? undefined}
          nameOf={wordsOf}
          acts={acts}
          onElement={(element) => setComposing(element ?? null)}
          onClose={() => setComposing(undefined)}
        />
      )}
      {slide.comments?.length === 0 && composing === undefined && (
        <p className="quiet">Nobody has commented on this slide.</p>
      )}
      <ul className="flex flex-col gap-3">
        {(slide.comments ?? []).map((comment) => (
          <Thread key={comment.id} slide={slide} comment={comment} acts={acts} />
        ))}
      </ul>
    </section>
  );
}
