import { type Bound, withBindingAt, withBoundContent, withLineValue } from "@unitext/core/data";
import { type Binding, bindingsOn, type Element, type PlacedBinding, type Slide } from "@unitext/core/model";
import { useState } from "react";
import { Link } from "react-router";
import { useDeck } from "../deck/DeckContext";
import { ChooseCells } from "../sources/ChooseCells";

const when = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

/** Where a value comes from, in words: when it was taken, by whom, and of which version. */
const takenWords = ({ takenAt, takenBy, version }: Binding) =>
  [
    takenAt ? `taken ${when.format(new Date(takenAt))}` : "not taken yet",
    takenBy ? ` by ${takenBy}` : "",
    version ? `, version ${version.slice(0, 8)}` : "",
  ].join("");

/** Linked values, a paragraph each: what is shown, where it comes from, and when it was taken. */
export function LinkedValues({ values }: { values: readonly Pick<PlacedBinding, "binding" | "shown">[] }) {
  return values.map(({ binding, shown }, nth) => (
    <p key={nth} className="mb-1">
      {shown === undefined ? "" : <strong className="tabular-nums">{shown} </strong>}
      {binding.source}, {binding.range}
      <span className="quiet block text-xs">{takenWords(binding)}</span>
      {binding.problem && <span className="text-error block text-xs">{binding.problem.reason}</span>}
    </p>
  ));
}

/** Whether an element has a line of text that can hold a value: the title of a chart, or a caption. */
const hasLine = (element: Element) =>
  (element.kind === "chart" && Boolean(element.title)) ||
  ((element.kind === "table" || element.kind === "picture") && Boolean(element.caption));

/** Where the values of an element come from, and what can be done with its links to workbooks. */
export function LinkedData({ slide, element }: { slide: Slide; element: Element }) {
  const { deck, session, canEdit } = useDeck();
  const [choosing, setChoosing] = useState<"content" | "line">();
  const own = bindingsOn(slide).filter((one) => one.element === element.id);
  const figure = element.kind === "table" || element.kind === "chart" ? element.kind : undefined;
  const set = (next: Element, words: string) =>
    session.apply({ kind: "setElement", slide: slide.id, element: next }, { words });

  function unlink() {
    // Every link of the element goes; the last first, since the others are renumbered after it.
    const single: Slide = { ...slide, elements: [element], notes: [] };
    const count = bindingsOn(single).length;
    const bare = Array.from({ length: count }, (_, nth) => count - 1 - nth).reduce(
      (now, nth) => withBindingAt(now, nth, () => undefined),
      single,
    );
    const [next] = bare.elements;
    if (next) set(next, count === 1 ? "Unlinked a value" : `Unlinked ${count} values`);
  }
  function take(bound: Bound) {
    const next = choosing === "content" ? withBoundContent(element, bound) : withLineValue(element, bound);
    if (next && next !== element) set(next, `Linked the ${element.kind} to ${bound.name}`);
  }

  const canLink = canEdit && (figure !== undefined || hasLine(element));
  if (!own.length && !canLink) return null;
  return (
    <section aria-label="Linked data" className={`mb-3 ${own.length ? "border-primary border-l-4 pl-2" : ""}`}>
      <LinkedValues values={own} />
      <div className="flex flex-wrap items-center gap-1">
        {canLink && figure && (
          <button type="button" className="btn btn-xs" onClick={() => setChoosing("content")}>
            {element.binding ? "Other cells …" : `Link the ${figure} to cells …`}
          </button>
        )}
        {canLink && hasLine(element) && (
          <button type="button" className="btn btn-xs" onClick={() => setChoosing("line")}>
            {element.kind === "chart" ? "Value in the title …" : "Value in the caption …"}
          </button>
        )}
        {own.length > 0 && canEdit && (
          <button type="button" className="btn btn-ghost btn-xs" onClick={unlink}>
            Unlink
          </button>
        )}
        {own.length > 0 && (
          <Link className="text-primary px-1 text-sm underline" to={`/decks/${deck.id}/data`}>
            See it in Data
          </Link>
        )}
      </div>
      {choosing && (
        <ChooseCells
          title={choosing === "content" ? `Cells of the ${figure}` : "A value of a workbook"}
          wanted={choosing === "content" && figure ? figure : "value"}
          binding={choosing === "content" ? element.binding : undefined}
          chartType={element.kind === "chart" ? element.type : undefined}
          act={choosing === "content" ? "Link to these cells" : "Insert the value"}
          onChosen={take}
          onClose={() => setChoosing(undefined)}
        />
      )}
    </section>
  );
}
