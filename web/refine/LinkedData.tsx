import { bindingsOn, type Slide } from "@unitext/core/model";
import { Link } from "react-router";
import { useDeck } from "../deck/DeckContext";

const when = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

/** Where the values of an element come from: workbook, cells, and when and by whom they were taken. */
export function LinkedData({ slide, element }: { slide: Slide; element: string }) {
  const { deck } = useDeck();
  const own = bindingsOn(slide).filter((one) => one.element === element);
  if (!own.length) return null;
  return (
    <section aria-label="Linked data" className="border-primary mb-3 border-l-4 pl-2">
      {own.map(({ binding, shown }, nth) => (
        <p key={nth} className="mb-1">
          {shown === undefined ? "" : <strong className="tabular-nums">{shown} </strong>}
          {binding.source}, {binding.range}
          <span className="quiet block text-xs">
            {binding.takenAt ? `taken ${when.format(new Date(binding.takenAt))}` : "not taken yet"}
            {binding.takenBy ? ` by ${binding.takenBy}` : ""}
            {binding.version ? `, version ${binding.version.slice(0, 8)}` : ""}
          </span>
          {binding.problem && <span className="text-error block text-xs">{binding.problem.reason}</span>}
        </p>
      ))}
      <Link className="text-primary text-sm underline" to={`/decks/${deck.id}/data`}>
        See it in Data
      </Link>
    </section>
  );
}
