import { linkTarget } from "@unitext/core/text";

/**
 * Returns the link of a field instruction (ECMA-376-1, 17.16.5.25); undefined for other fields, and for targets inside
 * the document.
 */
export function fieldLink(instruction: string): string | undefined {
  const target = /HYPERLINK\s+(?:\\[a-z]\s+)*"([^"]+)"/i.exec(instruction)?.[1];
  return target && !/\\l\s+"/.test(instruction.split(target)[0] ?? "") ? linkTarget(target) : undefined;
}
