import { textHash } from "@unitext/core/model";
import type { AppearanceHashes } from "../../../shared/sourcepackage";

/**
 * Returns hashes of the slide's background and transition as its part has them; a change by another program changes
 * them.
 */
export function appearanceHashes(text: string): AppearanceHashes {
  const sum = (pattern: RegExp) => textHash(pattern.exec(text)?.[0] ?? "");
  return {
    background: sum(/<p:bg(?:\s[^>]*)?>[\s\S]*?<\/p:bg>/),
    transition: sum(/<p:transition\b[^>]*?(?:\/>|>[\s\S]*?<\/p:transition>)/),
  };
}

/**
 * Returns hashes of the place and appearance of a part's shapes (`p:spPr`) by id; a change by another program changes
 * them.
 */
export function shapeHashes(text: string): Map<string, string> {
  const sums = new Map<string, string>();
  for (const part of text.split(/(?=<p:(?:sp|pic|cxnSp|graphicFrame|grpSp)>)/)) {
    const id = /<p:cNvPr id="(\d+)"/.exec(part)?.[1];
    const properties = /<p:spPr(?:\s[^>]*)?(?:\/>|>[\s\S]*?<\/p:spPr>)/.exec(part)?.[0];
    if (id !== undefined && properties !== undefined) sums.set(id, textHash(properties));
  }
  return sums;
}
