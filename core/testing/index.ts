import { apply, type Change, copies, duplicate, hide, moveTo, nest, newSlide, rearrange, remove, step, unnest } from "@unitext/core/edit";
import { type ArrangementName, ARRANGEMENTS, type Deck, emptyDeck, type Mark, MARKS, type Paragraph, type RichText, type Run, run, type Slide, slotsOf, THEMES } from "@unitext/core/model";
import { mainSlot, normalText } from "@unitext/core/text";
import fc from "fast-check";

/** Ids in a row, so that a failing example can be read. */
export function idSource(prefix = "n"): () => string {
  let next = 0;
  return () => `${prefix}${++next}`;
}

const WORDS = ["tide", "dune", "storm", "marram", "gauge", "Level 2.4 m", "north-west", "a*b", "1. not a list", "# no heading", "x_y_z", "[brackets]", "<tag>", "50 %", "«quay»", "παλίρροια", "прилив", "مدّ", "ים", "潮汐", "e\u0301", "`tick`", "a|b", "~~", ":colon:", "&amp;", "- dash", "+", "!", "10:am", "::"];

const words = fc.array(fc.constantFrom(...WORDS), { minLength: 1, maxLength: 5 }).map((list) => list.join(" "));
const marks = fc.subarray([...MARKS], { maxLength: 2 }).filter((list) => !(list.includes("code") && list.length > 1)) as fc.Arbitrary<Mark[]>;
const link = fc.option(fc.constantFrom("https://example.org/tides", "mailto:station@example.org"), { nil: undefined, freq: 6 });

const anyRun: fc.Arbitrary<Run> = fc.tuple(words, marks, link).map(([text, list, to]) => run(list.includes("code") ? text.replace(/`/g, "'") : text, list, to));
const runs = fc.array(anyRun, { minLength: 1, maxLength: 3 }).map((list) => list.flatMap((item, index) => (index ? [run(" "), item] : [item])));

/** Text as the text form can hold it. */
export const richText: fc.Arbitrary<RichText> = fc
  .array(
    fc.record({ kind: fc.constantFrom<Paragraph["kind"]>("plain", "bullet", "number"), level: fc.integer({ min: 0, max: 3 }), runs }),
    { maxLength: 5 },
  )
  .map((list) => normalText(list as RichText));

const oneLine: fc.Arbitrary<RichText> = runs.map((list) => normalText([{ kind: "plain", level: 0, runs: list }]));

/** A slide with text in its slots, notes, and now and then a picture. */
export function slideArbitrary(newId: () => string): fc.Arbitrary<Slide> {
  return fc.constantFrom(...(Object.keys(ARRANGEMENTS) as ArrangementName[])).chain((arrangement) =>
    fc.record({ title: oneLine, texts: fc.array(richText, { minLength: 4, maxLength: 4 }), notes: richText, hidden: fc.boolean(), picture: fc.option(words, { freq: 4 }) }).map(({ title, texts, notes, hidden, picture }) => {
      const slide = { ...newSlide(newId(), arrangement), notes, hidden };
      slotsOf(arrangement).forEach(([slot, role], index) => {
        if (role === "picture") {
          if (picture) slide.elements.push({ kind: "picture", id: newId(), slot, source: "pictures/dune.png", alt: "A dune" });
          return;
        }
        const text = slot === "title" ? title : (texts[index] ?? []);
        if (text.length && (slot === "title" || slot === mainSlot(arrangement) || text.length)) slide.elements.push({ kind: "text", id: newId(), slot, text });
      });
      return slide;
    }),
  );
}

/** A deck with details under some of its slides. */
export function deckArbitrary(options: { minLength?: number; maxLength?: number } = {}): fc.Arbitrary<Deck> {
  const newId = idSource("s");
  return fc.tuple(fc.array(fc.tuple(slideArbitrary(newId), fc.integer({ min: 0, max: 2 })), { minLength: options.minLength ?? 0, maxLength: options.maxLength ?? 7 }), fc.constantFrom(...Object.values(THEMES))).map(([list, theme]) => {
    const open: string[] = [];
    const slides = list.map(([slide, depth]) => {
      open.length = Math.min(open.length, depth);
      const parent = open.at(-1) ?? null;
      open.push(slide.id);
      return { ...slide, parent };
    });
    return { ...emptyDeck("deck", "Tides & dunes"), theme, slides };
  });
}

/** An act that a person could do on the deck as it stands, or undefined where there is nothing to do. */
export function actOn(deck: Deck, kind: number, pick: readonly number[], newId: () => string): Change | undefined {
  const { slides } = deck;
  const ids = [...new Set(pick.slice(0, 3).map((at) => slides[at % Math.max(1, slides.length)]?.id))].filter((id): id is string => !!id);
  const first = slides.find(({ id }) => id === ids[0]);
  if (!first) return { kind: "insertSlide", slide: newSlide(newId(), "points"), place: { parent: null, after: null } };
  const text = first.elements.find((element) => element.kind === "text");
  const other = slides[(pick[3] ?? 0) % slides.length] as Slide;
  const acts: (() => Change | undefined)[] = [
    () => step(deck, ids, -1),
    () => step(deck, ids, 1),
    () => nest(deck, ids),
    () => unnest(deck, ids),
    () => duplicate(deck, ids, newId, 1),
    () => hide(ids, (pick[0] ?? 0) % 2 === 0),
    () => remove(ids),
    () => rearrange(first, (Object.keys(ARRANGEMENTS) as ArrangementName[])[(pick[3] ?? 0) % 10] as ArrangementName),
    () => (text ? { kind: "setText", slide: first.id, element: text.id, text: [{ kind: "plain", level: 0, runs: [run("new")] }] } : undefined),
    () => ({ kind: "setNotes", slide: first.id, notes: [{ kind: "plain", level: 0, runs: [run("note")] }] }),
    () => (ids.includes(other.id) ? undefined : moveTo(deck, ids, { parent: other.parent, after: other.id })),
    () => ({ kind: "setProperties", properties: { ...deck.properties, title: `T${pick[0]}` } }),
    () => ({ kind: "setTheme", theme: THEMES.chalk }),
    () => ({ kind: "setPage", page: { width: 720, height: 540 } }),
    () => ({ kind: "insertSlide", slide: newSlide(newId(), "points"), place: { parent: other.id, after: null } }),
  ];
  return acts[kind % acts.length]?.();
}

export { apply, copies };
