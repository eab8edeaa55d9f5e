import {
  kindOf,
  cutText,
  ARRANGEMENTS,
  type Element,
  type Frame,
  slotsOf,
  type Slide,
  textOf,
  must,
} from "@unitext/core/model";
import {
  alignElements,
  type Depth,
  groupElements,
  placed,
  reorderElements,
  type Side,
  type SingleChange,
  distributeElements,
  batch,
  ungroupElements,
  expandToGroups,
} from "@unitext/core/edit";
import type { Scene } from "@unitext/core/layout";
import { nanoid } from "nanoid";
import { useDeck } from "../deck/DeckContext";

const SLOTS: Record<string, string> = {
  title: "title",
  subtitle: "line below the title",
  body: "text",
  left: "left column",
  middle: "middle column",
  right: "right column",
  number: "number",
  caption: "caption",
  picture: "picture",
  pictures: "pictures",
  table: "table",
  chart: "chart",
  diagram: "diagram",
  code: "code",
  formula: "formula",
};
export const slotName = (slot: string) => SLOTS[slot] ?? slot;

/** Names an element: its slot or kind, and its first words or name. */
export function nameOfElement(element: Element): string {
  const kind = element.slot && SLOTS[element.slot] ? must(SLOTS[element.slot]) : kindOf(element).label;
  const words =
    element.kind === "text" || element.kind === "shape"
      ? textOf(element.text).replace(/\s+/g, " ").trim()
      : element.kind === "picture" || element.kind === "media"
        ? element.alt
        : (element.name ?? "");
  return words
    ? `${kind} “${words.length > 40 ? `${cutText(words, 40)}…` : words}”`
    : element.name?.toLowerCase().startsWith(kind)
      ? element.name
      : element.name
        ? `${kind} ${element.name}`
        : kind;
}

/** Returns the frames of elements: their own, or the boxes of the layout. */
export function framesOf(slide: Slide, scene: Scene | undefined): Map<string, Frame & { rotation?: number }> {
  const boxes = new Map(
    (scene?.slide === slide.id ? scene.boxes : []).flatMap(({ element, x, y, width, height, rotation }) =>
      element === null ? [] : [[element, { x, y, width, height, ...(rotation ? { rotation } : {}) }] as const],
    ),
  );
  return new Map(
    slide.elements.flatMap((element) => {
      const box =
        element.frame && (element.slot === null || element.style !== undefined)
          ? { ...element.frame, ...(element.rotation ? { rotation: element.rotation } : {}) }
          : boxes.get(element.id);
      return box ? [[element.id, box] as const] : [];
    }),
  );
}

/** The commands for the selected elements of a slide, each an act that can be undone. */
export function useActs(
  slide: Slide,
  chosen: readonly string[],
  frames: ReadonlyMap<string, Frame>,
  choose: (ids: string[]) => void,
) {
  const { deck, session } = useDeck();
  const elements = slide.elements.filter(({ id }) => chosen.includes(id));
  const what =
    elements.length === 1 ? `the ${elements[0] ? kindOf(elements[0]).label : ""}` : `${elements.length} elements`;
  const set = (next: readonly Element[], words: string) => {
    const changes = next
      .filter((element, nth) => element !== elements[nth])
      .map((element): SingleChange => ({ kind: "setElement", slide: slide.id, element }));
    if (changes.length) session.apply(batch(changes), { words });
  };
  const framed = elements.flatMap((element) => (frames.get(element.id) ? [must(frames.get(element.id))] : []));
  const at = (next: readonly Frame[], words: string) =>
    set(
      elements.map((element, nth) => (next[nth] ? placed(element, next[nth]) : element)),
      words,
    );
  return {
    elements,
    set: (change: (element: Element) => Element, words: string) => set(elements.map(change), words),
    place: (next: ReadonlyMap<string, Frame & { rotation?: number }>, words = `Moved ${what}`) =>
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
    order: (depth: Depth) => {
      const changes = reorderElements(slide, chosen, depth);
      if (changes.length)
        session.apply(batch(changes), {
          words: {
            front: `Brought ${what} to the front`,
            forward: `Brought ${what} forward`,
            backward: `Put ${what} back a step`,
            back: `Put ${what} to the back`,
          }[depth],
        });
    },
    group: () => {
      const made = groupElements(elements, nanoid(8));
      // Members of a group are neighbours in the drawing order.
      const last = Math.max(...elements.map((element) => slide.elements.indexOf(element)));
      const before = slide.elements.slice(0, last + 1).filter(({ id }) => !chosen.includes(id)).length;
      session.apply(
        batch([
          ...elements.map((element): SingleChange => ({ kind: "deleteElement", slide: slide.id, element: element.id })),
          ...made.map(
            (element, nth): SingleChange => ({ kind: "insertElement", slide: slide.id, element, index: before + nth }),
          ),
        ]),
        { words: `Grouped ${what}` },
      );
    },
    ungroup: () => set(ungroupElements(elements), `Took the group of ${what} apart`),
    remove: () => {
      session.apply(
        batch(elements.map(({ id }): SingleChange => ({ kind: "deleteElement", slide: slide.id, element: id }))),
        { words: `Deleted ${what}` },
      );
      choose([]);
    },
    duplicate: () => {
      const names = new Map<string, string>();
      const copies = elements.map((element): Element => {
        const { sourceShape: _, slot: __, binding: ___, ...rest } = element;
        const frame = frames.get(element.id) ?? { x: 100, y: 100, width: 300, height: 200 };
        const groups = element.groups?.map((group) => names.get(group) ?? must(names.set(group, nanoid(8)).get(group)));
        return {
          ...rest,
          id: nanoid(10),
          slot: null,
          frame: { x: frame.x + 16, y: frame.y + 16, width: frame.width, height: frame.height },
          ...(groups ? { groups } : {}),
          ...(element.binding ? { binding: element.binding } : {}),
        } as Element;
      });
      session.apply(
        batch(
          copies.map(
            (element, nth): SingleChange => ({
              kind: "insertElement",
              slide: slide.id,
              element,
              index: slide.elements.length + nth,
            }),
          ),
        ),
        { words: `Duplicated ${what}` },
      );
      choose(copies.map(({ id }) => id));
    },
    /** Back into its slot of the arrangement, where there is one. */
    release: () =>
      set(
        elements.map((element) => {
          const { frame: _, rotation: __, ...rest } = element;
          return rest as Element;
        }),
        `Put ${what} back into place`,
      ),
    add: (element: Element, words: string) => {
      session.apply({ kind: "insertElement", slide: slide.id, element, index: slide.elements.length }, { words });
      choose([element.id]);
    },
    withGroups: (ids: readonly string[]) => expandToGroups(slide, ids),
    canRelease:
      elements.length > 0 &&
      slide.master === undefined &&
      elements.every(
        ({ slot, frame }) => slot !== null && frame && slotsOf(slide.arrangement).some(([name]) => name === slot),
      ) &&
      Boolean(ARRANGEMENTS[slide.arrangement]),
  };
}

export type Acts = ReturnType<typeof useActs>;
