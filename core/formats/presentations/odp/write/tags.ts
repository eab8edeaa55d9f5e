import type { DeckMetadata } from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import { TAGS } from "../package/names";

/** Writes JSON as element text, in which quotes need no escaping. */
const jsonText = (value: object) =>
  JSON.stringify(value).replace(
    /[&<>\uFFFE\uFFFF]/g,
    (sign) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;" })[sign] ?? "",
  );

/** Writes what OpenDocument has no place for, as user-defined metadata of the deck and of its slides by page name. */
export function metadataFields(
  {
    id,
    properties,
    language,
    regions,
    rate,
    theme,
    themes,
    assets,
    manuscript,
    original,
    masters,
    styles,
    layouts,
  }: DeckMetadata,
  slides: Record<string, object>,
): string {
  const field = (name: string, value: object) =>
    xml("meta:user-defined", { "meta:name": name, "meta:value-type": "string" }, jsonText(value));
  return (
    field(TAGS.deck, {
      id,
      properties,
      language,
      regions,
      rate,
      theme,
      ...(themes ? { themes } : {}),
      assets,
      ...(manuscript ? { manuscript } : {}),
      ...(original ? { original } : {}),
      ...(masters ? { masters } : {}),
      ...(styles ? { styles } : {}),
      ...(layouts ? { layouts } : {}),
    }) + field(TAGS.slides, slides)
  );
}
