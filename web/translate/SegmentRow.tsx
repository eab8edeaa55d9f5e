import type { PairedSegment } from "@unitext/server/api";
import { useEffect, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { type Context, missingTokens, piecesOf, typedText } from "@unitext/core/translate";
import { type Proposal, ProposalList, useProposals } from "./Proposals";
import type { Sent } from "./waiting";

export const STATE_NAMES: Record<PairedSegment["state"], string> = {
  untranslated: "untranslated",
  proposed: "proposed",
  draft: "draft",
  reviewed: "reviewed",
  outdated: "source changed",
};

const STATE_COLOURS: Record<PairedSegment["state"], string> = {
  untranslated: "bg-transparent",
  proposed: "bg-warning",
  draft: "bg-primary",
  reviewed: "bg-success",
  outdated: "bg-error",
};

/** How long typing pauses before it is stored, in milliseconds. */
const PAUSE = 700;

/** Returns a placeholder as it is in a field; for a pair, both ends. */
const tokenOf = (code: number, codes: PairedSegment["codes"]) =>
  codes[code]?.single ? `⟨${code}⟩` : `⟨${code}⟩⟨/${code}⟩`;

/** The type under which a placeholder is dragged. */
const PLACEHOLDER = "text/x-placeholder";

/** Returns the index in a field's text at window coordinates; the end of the text if they are outside it. */
function offsetAt(field: HTMLTextAreaElement, x: number, y: number): number {
  const position = document.caretPositionFromPoint?.(x, y);
  return position?.offsetNode === field ? position.offset : field.value.length;
}

/** Attributes of what can be dragged into a field, which puts the token where it is dropped. */
const draggedAs = (token: string) => ({
  draggable: true,
  onDragStart: ({ dataTransfer }: React.DragEvent) => {
    dataTransfer.setData(PLACEHOLDER, token);
  },
});

/** A coded text to read: words, and placeholders as small numbers that say what they stand for. */
function Coded({ pieces, codes }: { pieces: PairedSegment["source"]; codes: PairedSegment["codes"] }) {
  return pieces.map((piece, nth) =>
    typeof piece === "string" ? (
      <span key={nth}>{piece}</span>
    ) : (
      <span
        key={nth}
        className="bg-base-300 mx-0.5 cursor-grab rounded px-1 text-[0.7rem] tabular-nums"
        title={codes[piece.code]?.label}
        {...draggedAs(tokenOf(piece.code, codes))}
      >
        {piece.at === "close" ? `/${piece.code}` : piece.code}
      </span>
    ),
  );
}

/** A segment: its source, the field for its translation, its state, and what the checks found. */
export function SegmentRow({
  segment,
  context,
  languages: { from, to },
  current,
  canEdit,
  onEnter,
  onNext,
  onType,
  onSave,
}: {
  segment: PairedSegment;
  context: Context | undefined;
  languages: { from: string; to: string };
  current: boolean;
  canEdit: boolean;
  onEnter: () => void;
  onNext: () => void;
  /** Called with every change of the field, before it is stored. */
  onType: (id: string, target: PairedSegment["source"]) => void;
  onSave: (sent: Sent) => void;
}) {
  const { id, slide, kind, source, target, codes, state, before, onSlide, findings, terms } = segment;
  const codesInUse = source.filter((piece) => typeof piece !== "string").length;
  const stored = target ? typedText(target) : "";
  const [text, setText] = useState(stored);
  const proposals = useProposals(current ? { from, to, source, context } : undefined).filter(
    ({ pieces }) => typedText(pieces) !== text,
  );
  const field = useRef<HTMLTextAreaElement>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    if (document.activeElement !== field.current) setText(stored);
  }, [stored]);
  useEffect(() => {
    if (current && document.activeElement !== field.current) field.current?.focus();
  }, [current]);

  const seen = useRef(target);
  const send = (words: string, next: Sent["state"]) => {
    const pieces = piecesOf(words, codes);
    onSave({ id, target: pieces, state: next, was: seen.current });
    seen.current = pieces;
  };
  const type = (words: string) => {
    setText(words);
    onType(id, piecesOf(words, codes));
    clearTimeout(timer.current);
    timer.current = setTimeout(() => send(words, "draft"), PAUSE);
  };
  const insert = (words: string, at?: number) => {
    const { selectionStart: start = text.length, selectionEnd = text.length } = field.current ?? {};
    const [from, end] = at === undefined ? [start, selectionEnd] : [at, at];
    // Drawn at once, so that the caret is in its place before the next key.
    flushSync(() => type(text.slice(0, from) + words + text.slice(end)));
    // Between the ends of a pair, where its words go.
    const caret = from + (words.includes("⟩⟨/") ? words.indexOf("⟩") + 1 : words.length);
    field.current?.focus();
    field.current?.setSelectionRange(caret, caret);
  };
  const missing = missingTokens(source, text);
  const confirm = () => {
    clearTimeout(timer.current);
    if (text.trim()) send(text, "reviewed");
    onNext();
  };
  const take = (proposal: Proposal) => type(typedText(proposal.pieces));
  const onKeyDown = (event: React.KeyboardEvent) => {
    const proposal = event.altKey ? proposals[Number(event.key) - 1] : undefined;
    if (!event.ctrlKey && !event.metaKey && !proposal) return;
    const acts: Record<string, () => void> = {
      Enter: confirm,
      ArrowDown: onNext,
      ".": () => missing[0] && insert(missing[0]),
      ",": () => type(typedText(source)),
      ";": () => terms[0] && insert(terms[0].target),
    };
    const act = proposal ? () => take(proposal) : acts[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  };
  return (
    <div className={`hairline relative border-b py-2 pr-3 pl-4 ${current ? "bg-base-200" : ""}`} data-segment={state}>
      <span className={`absolute inset-y-0 left-0 w-1 ${STATE_COLOURS[state]}`} aria-hidden="true" />
      <div className="grid gap-x-3 gap-y-1 sm:grid-cols-2">
        <div>
          {before && (
            <p className="quiet text-xs line-through" title="The source when it was translated">
              <Coded pieces={before} codes={codes} />
            </p>
          )}
          <p lang={from} dir="auto" className="leading-relaxed">
            <Coded pieces={source} codes={codes} />
          </p>
          {current && terms.length > 0 && (
            <p className="flex flex-wrap items-center gap-x-3 text-xs">
              {terms.map((term, nth) => (
                <span key={term.source}>
                  <span className="quiet">{term.source}</span>{" "}
                  <button
                    type="button"
                    className="btn btn-xs"
                    title={[nth === 0 ? "Ctrl+;" : "", term.note ?? ""].filter(Boolean).join(" · ") || undefined}
                    disabled={!canEdit}
                    onClick={() => insert(term.target)}
                  >
                    {term.target}
                  </button>
                </span>
              ))}
            </p>
          )}
          <p className="quiet text-xs">{slide === null ? `The deck, ${kind}` : `Slide ${slide}, ${kind}`}</p>
        </div>
        <div>
          <textarea
            ref={field}
            className="textarea field-sizing-content min-h-9 w-full px-2 py-1 leading-relaxed"
            lang={to}
            dir="auto"
            rows={1}
            value={text}
            disabled={!canEdit}
            placeholder={STATE_NAMES[state] === "untranslated" ? "Translation" : ""}
            aria-label={`Translation of “${typedText(source)}”`}
            onFocus={() => {
              seen.current = target;
              onEnter();
            }}
            onChange={(event) => type(event.target.value)}
            onBlur={() => {
              clearTimeout(timer.current);
              if (text !== stored) send(text, "draft");
            }}
            onKeyDown={onKeyDown}
            onDragOver={(event) => event.dataTransfer.types.includes(PLACEHOLDER) && event.preventDefault()}
            onDrop={(event) => {
              const token = event.dataTransfer.getData(PLACEHOLDER);
              if (!token) return;
              event.preventDefault();
              insert(token, offsetAt(event.currentTarget, event.clientX, event.clientY));
            }}
          />
          <p className="flex flex-wrap items-center gap-1 text-xs">
            <span className="quiet mr-1">{STATE_NAMES[state]}</span>
            {current &&
              missing.map((token) => (
                <button
                  key={token}
                  type="button"
                  className="btn btn-xs"
                  title={`Inserts ${codes[token.slice(1, token.indexOf("⟩"))]?.label}; or drag it into the text`}
                  {...draggedAs(token)}
                  onClick={() => insert(token)}
                >
                  {token}
                </button>
              ))}
            {current && (
              <button
                type="button"
                className="btn btn-ghost btn-xs"
                title="Ctrl+Enter"
                onClick={confirm}
                disabled={!canEdit || !text.trim()}
              >
                Confirm
              </button>
            )}
          </p>
          {current && canEdit && <ProposalList proposals={proposals} onTake={take} />}
          {onSlide && (
            <p className="border-secondary mt-0.5 border-l-4 pl-2 text-xs">
              On the slide are other words: <span dir="auto">{onSlide.words}</span>{" "}
              <button
                type="button"
                className="btn btn-xs"
                disabled={!canEdit}
                title="Puts the translation on the slide again"
                onClick={() => send(text, state)}
              >
                Put the translation back
              </button>{" "}
              {onSlide.whole && codesInUse === 0 && (
                <button
                  type="button"
                  className="btn btn-xs"
                  disabled={!canEdit}
                  title="Makes the words on the slide the translation"
                  onClick={() => type(onSlide.words)}
                >
                  Take these words
                </button>
              )}
            </p>
          )}
          {findings.map(({ sentence }) => (
            <p key={sentence} className="border-warning mt-0.5 border-l-4 pl-2 text-xs">
              {sentence}
            </p>
          ))}
        </div>
      </div>
    </div>
  );
}
