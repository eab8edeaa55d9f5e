import { batch, type LookKind, makeAllSo, takeKindBack } from "@unitext/core/edit";
import type { Element } from "@unitext/core/model";
import { useDeck } from "../deck/DeckContext";
import { Fold } from "../ui/Fold";

const KINDS: Record<LookKind, { all: string; title: string }> = {
  shape: { all: "boxes", title: "Gives all boxes of the deck, now and later, this fill, outline and shadow" },
  picture: { all: "pictures", title: "Gives all pictures of the deck, now and later, this outline and shadow" },
  table: { all: "tables", title: "Gives the cells of all tables of the deck, now and later, these fills and borders" },
};

/** Makes the look of a box, a picture or a table that of all of its kind in the deck, and takes it back. */
export function KindOfElement({ element }: { element: Element }) {
  const { deck, session, canEdit } = useDeck();
  if (element.kind !== "shape" && element.kind !== "picture" && element.kind !== "table") return null;
  const { kind } = element;
  const { all, title } = KINDS[kind];
  const { shape, picture, header, cell } = deck.theme.kinds ?? {};
  const hasRule = { shape, picture, table: header ?? cell }[kind] !== undefined;
  return (
    <Fold name="element-kind" title={`All ${all} of the deck`}>
      <fieldset disabled={!canEdit}>
        <div className="flex flex-wrap gap-2">
          <button
            type="button"
            className="btn btn-xs"
            title={title}
            onClick={() =>
              session.apply(batch(makeAllSo(deck, element)), { words: `Made all ${all} look like this one` })
            }
          >
            Make all look like this
          </button>
          <button
            type="button"
            className="btn btn-xs"
            disabled={!hasRule}
            onClick={() =>
              session.apply(batch(takeKindBack(deck, kind)), { words: `Took the look of all ${all} back` })
            }
          >
            As the design has them
          </button>
        </div>
      </fieldset>
    </Fold>
  );
}
