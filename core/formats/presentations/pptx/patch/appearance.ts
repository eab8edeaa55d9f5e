import { textHash } from "@unitext/core/model";
import type { AppearanceHashes } from "../../../shared/sourcepackage";

/** The sums of what a slide wears, its background and how it comes in, as the words of its part stand. What another program has changed has another. */
export function appearanceHashes(text: string): AppearanceHashes {
  const sum = (pattern: RegExp) => textHash(pattern.exec(text)?.[0] ?? "");
  return {
    background: sum(/<p:bg(?:\s[^>]*)?>[\s\S]*?<\/p:bg>/),
    transition: sum(/<p:transition\b[^>]*?(?:\/>|>[\s\S]*?<\/p:transition>)/),
  };
}

/** The sums of how the shapes of a part stand and look (`p:spPr`), by their ids: one that another program has moved or painted has another. */
export function shapeHashes(text: string): Map<string, string> {
  const sums = new Map<string, string>();
  for (const part of text.split(/(?=<p:(?:sp|pic|cxnSp|graphicFrame|grpSp)>)/)) {
    const id = /<p:cNvPr id="(\d+)"/.exec(part)?.[1];
    const properties = /<p:spPr(?:\s[^>]*)?(?:\/>|>[\s\S]*?<\/p:spPr>)/.exec(part)?.[0];
    if (id !== undefined && properties !== undefined) sums.set(id, textHash(properties));
  }
  return sums;
}
