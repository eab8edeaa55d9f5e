import { metadataChanges } from "@unitext/core/diff";
import { apply, batch, type Change, insertAt, placeOf, type SingleChange, singles } from "@unitext/core/edit";
import { type Deck, metadataOf, type Slide, slideIndex } from "@unitext/core/model";

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** Returns the change that restores an earlier state of a deck; undefined when it is in that state. */
export function restoreChange(now: Deck, then: Deck): Change | undefined {
  const changes: SingleChange[] = metadataChanges(metadataOf(now), metadataOf(then));
  if (now.theme.name === then.theme.name && !same(now.theme, then.theme))
    changes.push({ kind: "setTheme", theme: then.theme });
  for (const name of Object.keys(now.assets))
    if (!then.assets[name]) changes.push({ kind: "setAsset", name, asset: null });
  for (const name of new Set([...Object.keys(now.themes ?? {}), ...Object.keys(then.themes ?? {})]))
    if (!same(now.themes?.[name], then.themes?.[name]))
      changes.push({ kind: "setImportedTheme", name, theme: then.themes?.[name] ?? null });
  for (const name of new Set([...Object.keys(now.masters ?? {}), ...Object.keys(then.masters ?? {})]))
    if (!same(now.masters?.[name], then.masters?.[name]))
      changes.push({ kind: "setMaster", name, master: then.masters?.[name] ?? null });
  for (const name of new Set([...Object.keys(now.styles ?? {}), ...Object.keys(then.styles ?? {})]))
    if (!same(now.styles?.[name], then.styles?.[name]))
      changes.push({ kind: "setTextStyle", name, style: then.styles?.[name] ?? null });
  if (!same(now.original, then.original)) changes.push({ kind: "setOriginal", original: then.original ?? null });
  let current = changes.length ? apply(now, batch(changes)).deck : now;
  const take = (change: SingleChange) => {
    changes.push(change);
    current = apply(current, change).deck;
  };
  const wanted = new Map(then.slides.map((slide) => [slide.id, slide]));
  const there = new Map(now.slides.map((slide) => [slide.id, slide]));
  for (const { id } of now.slides) if (!wanted.has(id)) take({ kind: "deleteSlide", slide: id });
  const last = new Map<string | null, string>();
  for (const slide of then.slides) {
    const place = { parent: slide.parent, after: last.get(slide.parent) ?? null };
    const mine = there.get(slide.id);
    if (!mine) take({ kind: "insertSlide", slide, place });
    else {
      if (!standsAt(current.slides, slide.id, place)) take({ kind: "moveSlide", slide: slide.id, place });
      const { parent: _, ...own } = mine;
      const { parent: __, ...its } = slide;
      if (!same(own, its)) take({ kind: "setSlide", slide: slide.id, as: slide });
    }
    last.set(slide.parent, slide.id);
  }
  return changes.length ? batch(changes) : undefined;
}

function standsAt(
  slides: readonly Slide[],
  id: string,
  { parent, after }: { parent: string | null; after: string | null },
): boolean {
  let before: string | null = null;
  for (const slide of slides) {
    if (slide.id === id) return slide.parent === parent && before === after;
    if (slide.parent === parent) before = slide.id;
  }
  return false;
}

/**
 * Returns the change that brings one slide back as it is in another state of the deck: over the slide that it has
 * become, or, where it is gone, at the place that it had. The pictures that it needs come with it.
 */
export function takeSlideChange(now: Deck, { here, there }: { here: Slide | null; there: Slide }, then: Deck): Change {
  const text = JSON.stringify(there);
  const pictures = Object.entries(then.assets)
    .filter(([name, { sha256 }]) => now.assets[name]?.sha256 !== sha256 && text.includes(name))
    .map(([name, asset]): SingleChange => ({ kind: "setAsset", name, asset }));
  if (here)
    return batch([
      ...pictures,
      { kind: "setSlide", slide: here.id, as: { ...there, id: here.id, parent: here.parent } },
    ]);
  const place = placeOf(then.slides, slideIndex(then, there.id));
  const known = (id: string | null) => now.slides.find((slide) => slide.id === id);
  const after = known(place.after);
  const parent = after ? after.parent : (known(place.parent)?.id ?? null);
  return batch([...pictures, ...singles(insertAt([{ ...there, parent: null }], { parent, after: after?.id ?? null }))]);
}
