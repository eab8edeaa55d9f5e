import {
  alignElements,
  batch,
  type Depth,
  distributeElements,
  expandToGroups,
  groupElements,
  placed,
  putElement,
  reorderElements,
  type Side,
  type SingleChange,
  ungroupElements,
} from "@unitext/core/edit";
import { drawnPlaces, type Scene } from "@unitext/core/layout";
import {
  ARRANGEMENTS,
  type Element,
  type Frame,
  kindOf,
  must,
  type Slide,
  slotsOf,
  type TableElement,
} from "@unitext/core/model";
import { nanoid } from "nanoid";
import { useDeck } from "../deck/DeckContext";
import type { RotatedFrame } from "./frames";

const ORDERED: Record<Depth, (what: string) => string> = {
  front: (what) => `Brought ${what} to the front`,
  forward: (what) => `Brought ${what} forward`,
  backward: (what) => `Put ${what} back a step`,
  back: (what) => `Put ${what} to the back`,
};

/** The commands for the selected elements of a slide, each an act that can be undone. */
export function useActs(
  slide: Slide,
  chosen: readonly string[],
  frames: ReadonlyMap<string, RotatedFrame>,
  scene: Scene | undefined,
  choose: (ids: string[]) => void,
) {
  const { deck, session } = useDeck();
  const elements = slide.elements.filter(({ id }) => chosen.includes(id));
  const what =
    elements.length === 1 ? `the ${elements[0] ? kindOf(elements[0]).label : ""}` : `${elements.length} elements`;
  const apply = (changes: readonly SingleChange[], words: string) => {
    if (changes.length) session.apply(batch(changes), { words });
  };
  const set = (next: readonly Element[], words: string) =>
    apply(
      next
        .filter((element, nth) => element !== elements[nth])
        .map((element) => ({ kind: "setElement", slide: slide.id, element })),
      words,
    );
  const framed = elements.flatMap((element) => frames.get(element.id) ?? []);
  const at = (next: readonly Frame[], words: string) =>
    set(
      elements.map((element, nth) => (next[nth] ? placed(element, next[nth]) : element)),
      words,
    );
  return {
    elements,
    set: (change: (element: Element) => Element, words: string) => set(elements.map(change), words),
    place: (next: ReadonlyMap<string, RotatedFrame>, words = `Moved ${what}`) =>
      set(
        elements.map((element) => {
          const frame = next.get(element.id);
          return frame ? placed(element, frame, frame.rotation ?? 0) : element;
        }),
        words,
      ),
    nudge: (dx: number, dy: number) =>
      at(
        framed.map((frame) => ({ ...frame, x: frame.x + dx, y: frame.y + dy })),
        `Moved ${what}`,
      ),
    align: (side: Side) => at(alignElements(framed, side, deck.page), `Lined up ${what}`),
    space: (axis: "x" | "y") => at(distributeElements(framed, axis), `Spaced ${what}`),
    order: (depth: Depth) => apply(reorderElements(slide, chosen, depth), ORDERED[depth](what)),
    group: () => apply(grouping(slide, elements), `Grouped ${what}`),
    ungroup: () => set(ungroupElements(elements), `Took the group of ${what} apart`),
    remove: () => {
      apply(
        elements.map((element) => deletion(slide, element)),
        `Deleted ${what}`,
      );
      choose([]);
    },
    duplicate: () => {
      const copies = copiesOf(elements, frames);
      const end = slide.elements.length;
      apply(
        copies.map((element, nth) => insertion(slide, element, end + nth)),
        `Duplicated ${what}`,
      );
      choose(copies.map(({ id }) => id));
    },
    /** Puts the elements back into their slots of the arrangement. */
    release: () => set(elements.map(withoutFrame), `Put ${what} back into place`),
    add: (element: Element, words: string) => {
      apply(putElement(deck, slide, element, scene ? drawnPlaces(scene) : []), words);
      choose([element.id]);
    },
    /** Changes the selected table; a change that cannot be made says so. */
    changeTable: (change: (table: TableElement) => TableElement | undefined, words: string) => {
      const [table] = elements;
      if (table?.kind !== "table") return;
      const next = change(table);
      if (next) set([next], words);
      else session.notify("That would tear a merged cell, or there is nothing beyond. Split the cell first.");
    },
    withGroups: (ids: readonly string[]) => expandToGroups(slide, ids),
    canRelease: elements.length > 0 && elements.every((element) => hasLeftSlot(slide, element)),
  };
}

export type Acts = ReturnType<typeof useActs>;

const deletion = (slide: Slide, element: Element): SingleChange => ({
  kind: "deleteElement",
  slide: slide.id,
  element: element.id,
});

const insertion = (slide: Slide, element: Element, index: number): SingleChange => ({
  kind: "insertElement",
  slide: slide.id,
  element,
  index,
});

/** Returns the changes that make elements a group; its members become neighbours in the drawing order. */
function grouping(slide: Slide, elements: readonly Element[]): SingleChange[] {
  const last = Math.max(...elements.map((element) => slide.elements.indexOf(element)));
  const before = slide.elements.slice(0, last + 1).filter((element) => !elements.includes(element)).length;
  return [
    ...elements.map((element) => deletion(slide, element)),
    ...groupElements(elements, nanoid(8)).map((element, nth) => insertion(slide, element, before + nth)),
  ];
}

/** Where a copy lies from its original, in points. */
const COPY_OFFSET = 16;

/** Returns copies of elements, out of their slots and a little lower; copied groups are groups of their own. */
function copiesOf(elements: readonly Element[], frames: ReadonlyMap<string, Frame>): Element[] {
  const names = new Map<string, string>();
  return elements.map((element): Element => {
    const { sourceShape: _, ...rest } = element;
    const { x, y, width, height } = frames.get(element.id) ?? { x: 100, y: 100, width: 300, height: 200 };
    const groups = element.groups?.map((group) => names.get(group) ?? must(names.set(group, nanoid(8)).get(group)));
    return {
      ...rest,
      id: nanoid(10),
      slot: null,
      frame: { x: x + COPY_OFFSET, y: y + COPY_OFFSET, width, height },
      ...(groups ? { groups } : {}),
    };
  });
}

function withoutFrame(element: Element): Element {
  const { frame: _, rotation: __, ...rest } = element;
  return rest;
}

/** Whether an element was moved out of a slot that the arrangement still has. */
function hasLeftSlot(slide: Slide, { slot, frame }: Element): boolean {
  return (
    slide.master === undefined &&
    slot !== null &&
    frame !== undefined &&
    Boolean(ARRANGEMENTS[slide.arrangement]) &&
    slotsOf(slide.arrangement).some(([name]) => name === slot)
  );
}
