import { elementWords, type Quote, quoteOf, rangeOfQuote, type Slide, textAtRange } from "@unitext/core/model";
import { useState } from "react";
import { TextField } from "./TextField";
import type { CommentActs } from "./acts";

/** The longest words that a comment is on, in characters. */
const MOST_WORDS = 2000;

/** Writes a comment on a slide, on an element, or on words that are selected in the text of the element. */
export function Composer({
  slide,
  element,
  nameOf,
  acts,
  onElement,
  onClose,
}: {
  slide: Slide;
  /** The element that it is on; without one it is on the slide. */
  element: string | undefined;
  /** Returns what an element is called. */
  nameOf: (id: string) => string;
  acts: CommentActs;
  onElement: (id: string | undefined) => void;
  onClose: () => void;
}) {
  const [quote, setQuote] = useState<Quote>();
  const [proposal, setProposal] = useState<string>();
  const found = slide.elements.find(({ id }) => id === element);
  const words = found ? elementWords(found) : "";
  const range = quote && rangeOfQuote(words, quote);
  const mayPropose = found !== undefined && range !== undefined && textAtRange(found, range) !== undefined;
  return (
    <div className="hairline bg-base-100 mb-3 border p-2 text-sm" data-composer>
      <label className="mb-2 block">
        On
        <select
          className="select select-sm mt-1 w-full truncate"
          value={found?.id ?? ""}
          onChange={({ target }) => {
            setQuote(undefined);
            setProposal(undefined);
            onElement(target.value || undefined);
          }}
        >
          <option value="">the whole slide</option>
          {slide.elements.map(({ id }) => (
            <option key={id} value={id}>
              {nameOf(id)}
            </option>
          ))}
        </select>
      </label>
      {words.trim() && (
        <>
          <p className="quiet text-xs">
            {quote ? "It is on the words that you selected." : "To comment on words alone, select them here."}
          </p>
          <textarea
            readOnly
            aria-label="The words of the element; select some to comment on them"
            className="textarea textarea-sm mb-2 w-full"
            rows={Math.min(6, words.split("\n").length + 1)}
            value={words}
            onSelect={({ currentTarget: { selectionStart, selectionEnd } }) => {
              if (selectionEnd > selectionStart && selectionEnd - selectionStart <= MOST_WORDS)
                setQuote(quoteOf(words, selectionStart, selectionEnd));
            }}
          />
          {quote && (
            <p className="mb-2 flex flex-wrap items-center gap-2">
              <span>
                on “<strong>{quote.exact}</strong>”
              </span>
              {mayPropose && proposal === undefined && (
                <button type="button" className="btn btn-xs" onClick={() => setProposal(quote.exact)}>
                  Propose other words
                </button>
              )}
              <button
                type="button"
                className="btn btn-ghost btn-xs"
                onClick={() => {
                  setQuote(undefined);
                  setProposal(undefined);
                }}
              >
                On the whole element
              </button>
            </p>
          )}
          {proposal !== undefined && (
            <label className="mb-2 block">
              Words in their place
              <input
                className="input input-sm mt-1 w-full"
                maxLength={2000}
                value={proposal}
                onChange={({ target }) => setProposal(target.value)}
              />
            </label>
          )}
        </>
      )}
      <TextField
        autoFocus
        label="Your comment"
        placeholder="A comment; @ mentions somebody"
        act="Comment"
        onSend={(text) => {
          acts.add(slide, text, {
            ...(found ? { element: found.id } : {}),
            ...(quote ? { quote } : {}),
            ...(quote && proposal !== undefined && proposal !== quote.exact ? { proposal } : {}),
          });
          onClose();
        }}
        onCancel={onClose}
      />
    </div>
  );
}
