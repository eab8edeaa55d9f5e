import type { Scope, SharedRight } from "@unitext/server/api";

/** What is shared: its path in the API, its name, and whether it is a folder. */
export interface SharedThing {
  path: string;
  name: string;
  folder: boolean;
}

/** What each right lets somebody do, as the page says it. */
export const RIGHT_WORDS: Record<SharedRight, string> = {
  view: "may view",
  comment: "may comment",
  edit: "may edit",
  copy: "may take a copy only",
};

/** Returns what is shared in words. */
export const scopeWords = (scope: Scope, translations: number): string =>
  scope === "folder"
    ? "all decks of the folder"
    : scope === "translations"
      ? translations === 0
        ? "this deck and translations to come"
        : `this deck and its ${translations === 1 ? "translation" : `${translations} translations`}`
      : "this deck";
