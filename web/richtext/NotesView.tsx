import { deckLink, isEmptyText, type Paragraph, paragraphText, type RichText, type Run } from "@unitext/core/model";
import { ClipboardCopy } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";

function Piece({ item }: { item: Run }) {
  const marks = new Set(item.marks);
  let node = <>{item.text}</>;
  if (marks.has("code")) node = <code className="bg-base-200 px-1 font-mono text-[0.85em]">{node}</code>;
  if (marks.has("strike")) node = <s>{node}</s>;
  if (marks.has("emphasis")) node = <em>{node}</em>;
  if (marks.has("strong")) node = <strong>{node}</strong>;
  const other = item.link ? deckLink(item.link) : undefined;
  if (other)
    return (
      <Link className="underline" to={`/decks/${other.deck}/refine/${other.slide}`}>
        {node}
      </Link>
    );
  if (item.link && !item.link.startsWith("slide:"))
    return (
      <a className="underline" href={item.link} target="_blank" rel="noreferrer">
        {node}
      </a>
    );
  return node;
}

const isCode = ({ kind, runs }: Paragraph) =>
  kind === "plain" && runs.length > 0 && runs.every(({ marks }) => marks?.includes("code"));

/** Lines of code or commands, to copy while speaking. */
function Code({ text }: { text: string }) {
  const [copied, setCopied] = useState(false);
  return (
    <div className="bg-base-200 mb-3 flex items-start gap-2 p-2">
      <pre className="min-w-0 flex-1 overflow-auto font-mono text-[0.8em]">{text}</pre>
      <button
        type="button"
        className="btn btn-ghost btn-xs"
        onClick={() => void navigator.clipboard.writeText(text).then(() => setCopied(true))}
      >
        <ClipboardCopy size={14} aria-hidden="true" /> {copied ? "Copied" : "Copy"}
      </button>
    </div>
  );
}

/** Notes to speak from, in large type, with lists and marks; lines of code can be copied. */
export function NotesView({ notes }: { notes: RichText }) {
  if (isEmptyText(notes)) return <p className="quiet">This slide has no notes.</p>;
  // Consecutive lines of code are one block.
  const pieces: { code: boolean; paragraphs: Paragraph[] }[] = [];
  for (const paragraph of notes) {
    const code = isCode(paragraph);
    const last = pieces.at(-1);
    if (last && code && last.code) last.paragraphs.push(paragraph);
    else pieces.push({ code, paragraphs: [paragraph] });
  }
  return pieces.map(({ code, paragraphs }, nth) =>
    code ? (
      <Code key={nth} text={paragraphs.map(paragraphText).join("\n")} />
    ) : (
      paragraphs.map((paragraph) => (
        <p
          key={nth}
          className="mb-3 whitespace-pre-wrap"
          style={{ marginInlineStart: `${(paragraph.level + (paragraph.kind === "plain" ? 0 : 1)) * 1.1}em` }}
        >
          {paragraph.kind !== "plain" && <span aria-hidden="true">– </span>}
          {paragraph.runs.map((item, at) => (
            <Piece key={at} item={item} />
          ))}
        </p>
      ))
    ),
  );
}
