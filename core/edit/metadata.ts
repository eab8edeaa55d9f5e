import type { Deck, DeckMetadata } from "@unitext/core/model";
import type { Handler, SingleChange } from "./change";
import type { Of } from "./order";

type HeadKind = "setProperties" | "setLanguage" | "setPage" | "setTheme" | "setRegions" | "setRate";

/** Makes the handler of a change that replaces one field of the deck's metadata. */
function metadataField<K extends HeadKind, F extends keyof DeckMetadata & keyof Of<K>>(
  kind: K,
  field: F,
  describeChange: string,
): Handler<Of<K>> {
  return {
    apply(deck, change) {
      const back = { kind, [field]: deck[field] } as unknown as SingleChange;
      return { deck: { ...deck, [field]: change[field] }, inverse: [back] };
    },
    writeSet: () => [`deck/${field}`],
    describe: () => describeChange,
  };
}

export const setProperties = metadataField("setProperties", "properties", "Changed the deck's title and author");
export const setLanguage = metadataField("setLanguage", "language", "Changed the language");
export const setPage = metadataField("setPage", "page", "Changed the page shape");
export const setTheme = metadataField("setTheme", "theme", "Changed the theme");
export const setRegions = metadataField("setRegions", "regions", "Changed footer and slide numbers");
export const setRate = metadataField("setRate", "rate", "Changed the speaking rate");

export const setAsset: Handler<Of<"setAsset">> = {
  apply(deck, { name, asset }) {
    const { [name]: before, ...others } = deck.assets;
    return {
      deck: { ...deck, assets: asset ? { ...others, [name]: asset } : others },
      inverse: [{ kind: "setAsset", name, asset: before ?? null }],
    };
  },
  writeSet: ({ name }) => [`deck/assets:${name}`],
  describe: () => "Added a picture file",
};

export const setManuscript: Handler<Of<"setManuscript">> = {
  apply(deck, { manuscript }) {
    const { manuscript: before, ...rest } = deck;
    return {
      deck: manuscript ? { ...rest, manuscript } : rest,
      inverse: [{ kind: "setManuscript", manuscript: before ?? null }],
    };
  },
  writeSet: () => ["deck/manuscript"],
  describe: () => "Changed the document or its rule",
};

export const setLayouts: Handler<Of<"setLayouts">> = {
  apply(deck, { layouts }) {
    const { layouts: before, ...rest } = deck;
    return {
      deck: layouts ? { ...rest, layouts } : rest,
      inverse: [{ kind: "setLayouts", layouts: before ?? null }],
    };
  },
  writeSet: () => ["deck/layouts"],
  describe: () => "Changed the layouts that new slides have",
};

/** Makes the handler of a change that sets an entry in one of the metadata's lists; null removes it. */
function importedItem<
  K extends "setImportedTheme" | "setMaster" | "setTextStyle",
  L extends "themes" | "masters" | "styles",
>(kind: K, list: L, field: "theme" | "master" | "style"): Handler<Of<K>> {
  return {
    apply(deck, change) {
      const { name, [field]: value } = change as unknown as Record<string, unknown> & { name: string };
      const { [list]: there = {}, ...rest } = deck;
      const { [name]: before, ...others } = there as Record<string, unknown>;
      const next = value ? { ...others, [name]: value } : others;
      return {
        deck: (Object.keys(next).length ? { ...rest, [list]: next } : rest) as Deck,
        inverse: [{ kind, name, [field]: before ?? null } as unknown as SingleChange],
      };
    },
    writeSet: (change) => [`deck/${list}:${(change as unknown as { name: string }).name}`],
    describe: () => "Imported a theme",
  };
}

/** Adds a theme of another deck under a name that slides can use. Masters and text styles work the same way. */
export const setImportedTheme = importedItem("setImportedTheme", "themes", "theme");
export const setMaster = importedItem("setMaster", "masters", "master");
export const setTextStyle = importedItem("setTextStyle", "styles", "style");

export const setOriginal: Handler<Of<"setOriginal">> = {
  apply(deck, { original }) {
    const { original: before, ...rest } = deck;
    return {
      deck: original ? { ...rest, original } : rest,
      inverse: [{ kind: "setOriginal", original: before ?? null }],
    };
  },
  writeSet: () => ["deck/original"],
  describe: () => "Recorded what was taken from the original",
};
