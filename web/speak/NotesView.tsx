import { isEmptyText, type RichText, type Run } from "@unitext/core/model";

function Piece({ item }: { item: Run }) {
  const marks = new Set(item.marks);
  let node = <>{item.text}</>;
  if (marks.has("code")) node = <code className="bg-base-200 px-1 font-mono text-[0.85em]">{node}</code>;
  if (marks.has("strike")) node = <s>{node}</s>;
  if (marks.has("emphasis")) node = <em>{node}</em>;
  if (marks.has("strong")) node = <strong>{node}</strong>;
  if (item.link && !item.link.startsWith("slide:")) return <a className="underline" href={item.link} target="_blank" rel="noreferrer">{node}</a>;
  return node;
}

/** The notes to speak from, large, with their lists and marks. */
export function NotesView({ notes }: { notes: RichText }) {
  if (isEmptyText(notes)) return <p className="quiet">This slide has no notes.</p>;
  return notes.map((paragraph, nth) => (
    <p key={nth} className="mb-3 whitespace-pre-wrap" style={{ marginInlineStart: `${(paragraph.level + (paragraph.kind === "plain" ? 0 : 1)) * 1.1}em` }}>
      {paragraph.kind !== "plain" && <span aria-hidden="true">– </span>}
      {paragraph.runs.map((item, at) => (
        <Piece key={at} item={item} />
      ))}
    </p>
  ));
}
