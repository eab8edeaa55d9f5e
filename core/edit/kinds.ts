import type { Cell, CellOverride, Deck, Element, ElementOverride, TableElement, Theme } from "@unitext/core/model";
import type { SingleChange } from "./change";

/** The kinds of elements that a deck can give one look. */
export type LookKind = "shape" | "picture" | "table";

const appearanceOf = ({ fill, stroke, shadow }: Element): ElementOverride => ({
  ...(fill ? { fill } : {}),
  ...(stroke ? { stroke } : {}),
  ...(shadow ? { shadow } : {}),
});

function withAppearance<E extends Element>(element: E, appearance: ElementOverride): E {
  const { fill: _, stroke: __, shadow: ___, ...bare } = element;
  return { ...(bare as E), ...appearance };
}

const cellAppearance = ({ fill, borders }: Cell): CellOverride => ({
  ...(fill ? { fill } : {}),
  ...(borders ? { borders } : {}),
});

/** Returns a table whose cells look as the theme says. */
function withCells(table: TableElement, { header, cell }: NonNullable<Theme["kinds"]>): TableElement {
  const look = (one: Cell, appearance: CellOverride | undefined): Cell => {
    const { fill: _, borders: __, ...bare } = one;
    return { ...bare, ...appearance };
  };
  return {
    ...table,
    rows: table.rows.map((row, y) => row.map((one) => one && look(one, y < table.header ? header : cell))),
  };
}

/** Whether an element is a line, which has no area to fill. */
const isLine = (element: Element): boolean =>
  element.kind === "shape" && "preset" in element.geometry && /^(?:line|.*Connector\d?)$/.test(element.geometry.preset);

const isOfKind = (element: Element, kind: LookKind): boolean =>
  element.kind === kind && !isLine(element) && !(element.kind === "shape" && element.geometry === undefined);

/** Returns an element in the look that the theme sets for its kind; the element itself where it sets none. */
export function inKind<E extends Element>(element: E, { kinds }: Theme): E {
  if (!kinds || isLine(element)) return element;
  if (element.kind === "shape" && kinds.shape) return withAppearance(element, kinds.shape);
  if (element.kind === "picture" && kinds.picture) return withAppearance(element, kinds.picture);
  if (element.kind === "table" && (kinds.header || kinds.cell)) return withCells(element, kinds) as E;
  return element;
}

/** Returns the looks by kind, with that of an element as the look of its kind. */
function kindsLike(element: Element, kinds: Theme["kinds"]): NonNullable<Theme["kinds"]> {
  if (element.kind === "shape") return { ...kinds, shape: appearanceOf(element) };
  if (element.kind === "picture") return { ...kinds, picture: appearanceOf(element) };
  if (element.kind !== "table") return { ...kinds };
  const first = (rows: TableElement["rows"]) => rows.flat().find((one) => one !== null);
  const [header, cell] = [first(element.rows.slice(0, element.header)), first(element.rows.slice(element.header))];
  return {
    ...kinds,
    ...(header ? { header: cellAppearance(header) } : {}),
    ...(cell ? { cell: cellAppearance(cell) } : {}),
  };
}

/** Returns the changes that give all boxes, pictures or tables of a deck the look of one, including those added later. */
export function makeAllSo(deck: Deck, element: Element): SingleChange[] {
  const theme = { ...deck.theme, kinds: kindsLike(element, deck.theme.kinds) };
  return [{ kind: "setTheme", theme }, ...restyled(deck, element.kind as LookKind, theme)];
}

/** Returns the changes that reset a kind: its elements look as in the design again. */
export function takeKindBack(deck: Deck, kind: LookKind): SingleChange[] {
  const { shape, picture, header, cell } = deck.theme.kinds ?? {};
  const plain = { shape: {}, picture: {}, header: {}, cell: {} };
  const kinds = {
    ...(shape && kind !== "shape" ? { shape } : {}),
    ...(picture && kind !== "picture" ? { picture } : {}),
    ...(header && kind !== "table" ? { header } : {}),
    ...(cell && kind !== "table" ? { cell } : {}),
  };
  const { kinds: _, ...bare } = deck.theme;
  const theme = Object.keys(kinds).length ? { ...bare, kinds } : bare;
  return [{ kind: "setTheme", theme }, ...restyled(deck, kind, { ...theme, kinds: plain })];
}

function restyled(deck: Deck, kind: LookKind, theme: Theme): SingleChange[] {
  return deck.slides.flatMap((slide) =>
    slide.elements.flatMap((element): SingleChange[] => {
      if (!isOfKind(element, kind)) return [];
      const next = inKind(element, theme);
      return JSON.stringify(next) === JSON.stringify(element)
        ? []
        : [{ kind: "setElement", slide: slide.id, element: next }];
    }),
  );
}
