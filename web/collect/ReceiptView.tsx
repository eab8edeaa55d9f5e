import type { Receipt } from "@unitext/server/api";

const when = new Intl.DateTimeFormat(undefined, { dateStyle: "full", timeStyle: "medium" });

/** Returns what a deck carries, in words. */
function carried({ slides, notes, pictures, tables, charts, links, media }: NonNullable<Receipt["tally"]>): string[] {
  const many = (count: number, one: string) => (count === 0 ? [] : [`${count} ${count === 1 ? one : `${one}s`}`]);
  return [
    ...many(slides, "slide"),
    ...(notes.words ? [`notes on ${notes.slides} of them`] : []),
    ...many(pictures, "picture"),
    ...many(tables, "table"),
    ...many(charts, "chart"),
    ...many(links.external + links.internal, "link"),
    ...many(media, "film or sound"),
  ];
}

/** The receipt of whoever handed in: what came when, under which name, and what was found in it. */
export function ReceiptView({ receipt, onAgain }: { receipt: Receipt; onAgain: () => void }) {
  const { collection, name, file, at, late, nth, sha256, size, state, message, tally, code } = receipt;
  return (
    <div role="status">
      <dl className="mb-4 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-sm [&_dt]:text-base-content/70">
        <dt>To</dt>
        <dd>{collection}</dd>
        <dt>Name</dt>
        <dd className="font-semibold">{name}</dd>
        <dt>File</dt>
        <dd className="break-all">
          {file}, {size.toLocaleString()} bytes
        </dd>
        <dt>At</dt>
        <dd>
          {when.format(new Date(at))}
          {late && " (late)"}
        </dd>
        {nth > 1 && (
          <>
            <dt>Hand-in</dt>
            <dd>number {nth} of this name; the earlier ones are kept, the newest counts</dd>
          </>
        )}
        <dt>Read</dt>
        <dd>
          {state === "waiting"
            ? "being read …"
            : state === "failed"
              ? `It could not be read: ${message ?? "the deck was deleted."} Hand it in again.`
              : tally && carried(tally).join(", ")}
        </dd>
        <dt>SHA-256</dt>
        <dd className="font-mono text-xs break-all">{sha256}</dd>
        <dt>Receipt</dt>
        <dd className="font-mono text-xs break-all">{code}</dd>
      </dl>
      <button type="button" className="btn btn-sm mr-2" onClick={() => window.print()}>
        Print the receipt
      </button>
      <button type="button" className="btn btn-sm" onClick={onAgain}>
        Hand in again
      </button>
    </div>
  );
}
