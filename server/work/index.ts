export { inlineWork, ProcessPool, type Work } from "./pool";

export type { Asker } from "./workerprocess";

export type { ReadProgress, ReadWork } from "./read";
export type { Compared, SourceFile } from "./data";
export { type MadeDeck, parseBody } from "./tasks";
export type { LanguageService, TranslationService } from "@unitext/node";
