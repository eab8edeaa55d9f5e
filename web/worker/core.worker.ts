import { expose } from "comlink";
import type { core } from "./core";

export type CoreWorker = typeof core;

/**
 * The core waits for its WebAssembly while it loads, and calls in the meantime would be lost. So the worker listens at
 * once and loads the core behind.
 */
const loading = import("./core").then((module) => module.core);

const worker: CoreWorker = {
  layout: async (metadata, items) => (await loading).layout(metadata, items),
  measure: async (metadata, slides) => (await loading).measure(metadata, slides),
  fit: async (metadata, slide, number) => (await loading).fit(metadata, slide, number),
  advise: async (deck, slides) => (await loading).advise(deck, slides),
  veil: async (metadata, slide, pixels) => (await loading).veil(metadata, slide, pixels),
  follow: async (deck, text, prefix) => (await loading).follow(deck, text, prefix),
  review: async (deck, base, next) => (await loading).review(deck, base, next),
  take: async (deck, base, next, choices, typing) => (await loading).take(deck, base, next, choices, typing),
  points: async (cutting) => (await loading).points(cutting),
  asMade: async (deck, cutting, id) => (await loading).asMade(deck, cutting, id),
  compare: async (here, there) => (await loading).compare(here, there),
  reviewTailored: async (version, base, now, choices) => (await loading).reviewTailored(version, base, now, choices),
  takeTailored: async (version, base, now, choices) => (await loading).takeTailored(version, base, now, choices),
  pasted: async (html, text, metadata) => (await loading).pasted(html, text, metadata),
  slides: async (text, rule, metadata) => (await loading).slides(text, rule, metadata),
  pastedText: async (html, text) => (await loading).pastedText(html, text),
};
expose(worker);
