import type { Comment, Reply, Slide } from "@unitext/core/model";
import { Check, MoreHorizontal, RotateCcw } from "lucide-react";
import { type ReactNode, useState } from "react";
import { MenuButton, type MenuActs } from "../ui/Menu";
import { quotedWords } from "./quotes";
import { TextField } from "./TextField";
import type { CommentActs } from "./acts";

const when = new Intl.DateTimeFormat(undefined, {
  month: "short",
  day: "numeric",
  hour: "numeric",
  minute: "2-digit",
});

/** Returns a text with the names of people after an @ set off. */
function withMentions(text: string, people: CommentActs["people"]): ReactNode[] {
  const names = people.map(({ name }) => `@${name}`).sort((one, other) => other.length - one.length);
  const pattern = names.map((name) => name.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")).join("|");
  if (!pattern) return [text];
  return text.split(new RegExp(`(${pattern})`, "u")).map((part, nth) =>
    names.includes(part) ? (
      <strong key={nth} className="text-secondary">
        {part}
      </strong>
    ) : (
      part
    ),
  );
}

function Said({ said, people, acts }: { said: Reply; people: CommentActs["people"]; acts: MenuActs }) {
  const moment = said.date === undefined ? Number.NaN : Date.parse(said.date);
  return (
    <>
      <p className="flex items-baseline gap-2">
        <strong>{said.author || "Somebody"}</strong>
        {Number.isFinite(moment) && (
          <time className="quiet text-xs" dateTime={said.date}>
            {when.format(moment)}
          </time>
        )}
        {acts.length > 0 && (
          <span className="ml-auto">
            <MenuButton
              label={`More for what ${said.author} wrote`}
              className="btn btn-ghost btn-xs btn-square"
              acts={acts}
            >
              <MoreHorizontal size={14} aria-hidden="true" />
            </MenuButton>
          </span>
        )}
      </p>
      <p className="whitespace-pre-wrap">{withMentions(said.text, people)}</p>
    </>
  );
}

/** A comment with what it is on, its replies, and what can be done with it. */
export function Thread({
  slide,
  comment,
  acts,
  onShow,
}: {
  slide: Slide;
  comment: Comment;
  acts: CommentActs;
  /** Shows what the comment is on while it is pointed at; undefined ends it. */
  onShow?: (comment: Comment | undefined) => void;
}) {
  const [answering, setAnswering] = useState(false);
  const [rewriting, setRewriting] = useState(false);
  const { quote, proposal, done = false, replies = [] } = comment;
  const now = quote && quotedWords(slide, comment);
  const own: MenuActs = [
    ...(acts.isOwn(comment) ? [{ label: "Change", act: () => setRewriting(true) }] : []),
    ...(acts.isOwn(comment) || acts.mayEdit ? [{ label: "Remove", act: () => acts.remove(slide, comment) }] : []),
  ];
  return (
    <li
      data-comment={comment.id}
      className={`border-l-4 py-1 pl-3 text-sm ${done ? "border-success opacity-80" : "border-secondary"}`}
      onPointerEnter={() => onShow?.(comment)}
      onPointerLeave={() => onShow?.(undefined)}
      onFocus={() => onShow?.(comment)}
    >
      {quote && (
        <p className="quiet mb-1 line-clamp-2">
          {now === undefined ? <>on words that are gone: “{quote.exact}”</> : <>on “{now}”</>}
        </p>
      )}
      {rewriting ? (
        <TextField
          autoFocus
          label="Your comment"
          placeholder=""
          act="Save"
          value={comment.text}
          onSend={(text) => {
            acts.rewrite(slide, comment, text);
            setRewriting(false);
          }}
          onCancel={() => setRewriting(false)}
        />
      ) : (
        <Said said={comment} people={acts.people} acts={own} />
      )}
      {proposal !== undefined && (
        <p className="mt-1">
          proposes <del>{quote?.exact}</del> <ins className="font-semibold no-underline">{proposal || "nothing"}</ins>{" "}
          {acts.mayEdit && !done && (
            <button type="button" className="btn btn-xs" onClick={() => acts.take(slide, comment)}>
              Take it
            </button>
          )}
        </p>
      )}
      {replies.length > 0 && (
        <ul className="mt-1 flex flex-col gap-1">
          {replies.map((reply) => (
            <li key={reply.id} className="border-base-300 border-l-2 pl-3">
              <Said
                said={reply}
                people={acts.people}
                acts={
                  acts.isOwn(reply) || acts.mayEdit
                    ? [{ label: "Remove", act: () => acts.removeReply(slide, comment, reply) }]
                    : []
                }
              />
            </li>
          ))}
        </ul>
      )}
      {acts.mayComment &&
        (answering ? (
          <TextField
            autoFocus
            label="Your reply"
            placeholder="A reply; @ mentions somebody"
            act="Reply"
            onSend={(text) => {
              acts.reply(slide, comment, text);
              setAnswering(false);
            }}
            onCancel={() => setAnswering(false)}
          />
        ) : (
          <p className="mt-1 flex gap-1">
            <button type="button" className="btn btn-ghost btn-xs" onClick={() => setAnswering(true)}>
              Reply
            </button>
            <button type="button" className="btn btn-ghost btn-xs" onClick={() => acts.setDone(slide, comment, !done)}>
              {done ? <RotateCcw size={14} aria-hidden="true" /> : <Check size={14} aria-hidden="true" />}
              {done ? "Open again" : "Done"}
            </button>
          </p>
        ))}
    </li>
  );
}
