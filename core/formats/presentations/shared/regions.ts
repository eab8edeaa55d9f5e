import { canonical, type Deck, NUMBER_SIGN, type RegionBox, type Slide } from "@unitext/core/model";

const known = new WeakMap<readonly Slide[], Map<string, RegionBox[]>>();

/** Footer, number and date as they stand on what files draw behind slides, by the name of the master: those of the first slide on it that has any. */
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

/** Whether footer, number and date of a slide stand where they do on its master, so that the slide only says what they say. What a page says so has no fields (OpenDocument 1.3, 9.11), so a footer that counts its slide stands on the slide. */
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
