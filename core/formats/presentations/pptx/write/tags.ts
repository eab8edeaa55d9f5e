import { type DeckMetadata, slidePropertiesOf, sharedItemsOf, type Slide } from "@unitext/core/model";
import { XML_HEAD, xml } from "../../../shared/xml";
import { boundRunsTag, needsExtendedRuns, usesSourceLayout } from "../../../shared/sourcepackage";
import { namespaces } from "../package/layouts";
import { TAG } from "../package/names";

/** Writes a part with user-defined tags (ECMA-376-1, 19.3.2), each with a value as JSON. */
export function tagsPart(tags: Record<string, unknown>): string {
  return (
    XML_HEAD +
    xml(
      "p:tagLst",
      namespaces,
      ...Object.entries(tags).map(([name, value]) => xml("p:tag", { name, val: JSON.stringify(value) })),
    )
  );
}

/** Returns what the tags of a slide store. */
export function slideTag(slide: Slide): object {
  const { id, parent, arrangement, section, source, origin, theme, notes, master, regions, comments } = slide;
  const foreign = usesSourceLayout(slide);
  const shared = foreign ? {} : { ...(master === undefined ? {} : { master }), ...(regions ? { regions } : {}) };
  return {
    ...shared,
    ...(comments ? { comments } : {}),
    id,
    parent,
    arrangement,
    ...(source ? { source } : {}),
    ...(origin ? { origin } : {}),
    ...(theme ? { theme } : {}),
    ...(foreign ? (section ? { section } : {}) : slidePropertiesOf(slide)),
    ...(needsExtendedRuns(notes) ? { notes } : {}),
    ...boundRunsTag(slide),
  };
}

/** Writes the tags of the deck; `own` are the slides that no source package has. */
export function deckTags(metadata: DeckMetadata, own: readonly Slide[]): string {
  const { id, properties, language, regions, rate, theme, themes, assets, manuscript, original, layouts } = metadata;
  const shared = sharedItemsOf(own, metadata);
  const shown = Object.fromEntries(
    Object.entries(assets).filter(([, { mediaType }]) => mediaType !== "application/zip"),
  );
  return tagsPart({
    [TAG.deck]: {
      id,
      properties,
      language,
      regions,
      rate,
      theme,
      assets: shown,
      ...(manuscript ? { manuscript } : {}),
      ...(themes ? { themes } : {}),
      ...(original ? { original } : {}),
      ...(layouts ? { layouts } : {}),
      ...shared,
    },
  });
}
