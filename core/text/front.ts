import { stringify } from "yaml";
import type { FrontMatter } from "./manuscript";

/** Front matter as it stands at the top of a text; nothing when it says nothing. */
export function frontMatterText(front: FrontMatter): string {
  return Object.keys(front).length ? `---\n${stringify(front, { lineWidth: 0 }).trimEnd()}\n---\n` : "";
}
