import { canonical, type Deck, NUMBER_SIGN, type RegionBox, type Slide } from "@unitext/core/model";

const known = new WeakMap<readonly Slide[], Map<string, RegionBox[]>>();

/** Returns footer, number and date of masters by the master's name: those of its first slide that has any. */
export function masterRegions({ slides, masters }: Pick<Deck, "slides" | "masters">): ReadonlyMap<string, RegionBox[]> {
  const found = known.get(slides) ?? new Map<string, RegionBox[]>();
  if (!known.has(slides)) {
    for (const { master, regions } of slides)
      if (master !== undefined && masters?.[master] && regions?.length && !found.has(master))
        found.set(master, regions);
    known.set(slides, found);
  }
  return found;
}

const places = ({ region, frame, style, box }: RegionBox) => canonical([region, frame, style ?? null, box ?? null]);

/**
 * Whether a slide's footer, number and date are where its master has them, so that the slide only sets their text. Such
 * text has no fields (OpenDocument 1.3, 9.11), so a footer with the slide number is written on the slide.
 */
export function standsOnMaster({ master, regions = [] }: Slide, deck: Pick<Deck, "slides" | "masters">): boolean {
  const held = new Set((master === undefined ? [] : (masterRegions(deck).get(master) ?? [])).map(places));
  const kinds = new Set(regions.map(({ region }) => region));
  const counts = regions.some(({ region, text }) => region !== "number" && text.includes(NUMBER_SIGN));
  return (
    regions.length > 0 &&
    !counts &&
    kinds.size === regions.length &&
    regions.every((region) => held.has(places(region)))
  );
}
