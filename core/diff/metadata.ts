import type { SingleChange } from "@unitext/core/edit";
import type { DeckMetadata } from "@unitext/core/model";

/** Returns the changes that turn one deck's metadata into another's. */
export function metadataChanges(before: DeckMetadata, after: DeckMetadata): SingleChange[] {
  const changed = (a: unknown, b: unknown) => JSON.stringify(a) !== JSON.stringify(b);
  const changes: SingleChange[] = [];
  if (changed(before.properties, after.properties))
    changes.push({ kind: "setProperties", properties: after.properties });
  if (before.language !== after.language) changes.push({ kind: "setLanguage", language: after.language });
  if (changed(before.page, after.page)) changes.push({ kind: "setPage", page: after.page });
  if (before.theme.name !== after.theme.name) changes.push({ kind: "setTheme", theme: after.theme });
  if (changed(before.regions, after.regions)) changes.push({ kind: "setRegions", regions: after.regions });
  if (before.rate !== after.rate) changes.push({ kind: "setRate", rate: after.rate });
  for (const [name, asset] of Object.entries(after.assets))
    if (changed(before.assets[name], asset)) changes.push({ kind: "setAsset", name, asset });
  if (changed(before.manuscript, after.manuscript))
    changes.push({ kind: "setManuscript", manuscript: after.manuscript ?? null });
  return changes;
}

/**
 * Returns the changes that turn one deck's metadata into another's, including imported themes, masters and text styles.
 */
export function allMetadataChanges(before: DeckMetadata, after: DeckMetadata): SingleChange[] {
  const changed = (a: unknown, b: unknown) => JSON.stringify(a) !== JSON.stringify(b);
  const changes = metadataChanges({ ...before, theme: after.theme }, after);
  if (changed(before.theme, after.theme)) changes.push({ kind: "setTheme", theme: after.theme });
  for (const [name, theme] of Object.entries(after.themes ?? {}))
    if (changed(before.themes?.[name], theme)) changes.push({ kind: "setImportedTheme", name, theme });
  for (const [name, master] of Object.entries(after.masters ?? {}))
    if (changed(before.masters?.[name], master)) changes.push({ kind: "setMaster", name, master });
  for (const [name, style] of Object.entries(after.styles ?? {}))
    if (changed(before.styles?.[name], style)) changes.push({ kind: "setTextStyle", name, style });
  if (changed(before.original, after.original)) changes.push({ kind: "setOriginal", original: after.original ?? null });
  return changes;
}
