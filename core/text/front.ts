import { parse, stringify } from "yaml";
import { FrontMatter, type Problem } from "./manuscript";

/** Returns front matter as text; empty when it has no values. */
export function frontMatterText(front: FrontMatter): string {
  return Object.keys(front).length ? `---\n${stringify(front, { lineWidth: 0 }).trimEnd()}\n---\n` : "";
}

const KEYS = Object.keys(FrontMatter.shape).join(", ");

/** Reads front matter: its values, the index of the first line after it, and its problems. */
export function readFront(lines: readonly string[]): { front: FrontMatter; next: number; problems: Problem[] } {
  const end =
    lines[0]?.trimEnd() === "---" ? lines.findIndex((line, index) => index > 0 && line.trimEnd() === "---") : -1;
  if (end < 0) return { front: {}, next: 0, problems: [] };
  const problems: Problem[] = [];
  let value: unknown;
  try {
    value = parse(lines.slice(1, end).join("\n")) ?? {};
  } catch (error) {
    const line = 2 + (((error as { linePos?: { line: number }[] }).linePos?.[0]?.line ?? 1) - 1);
    return {
      front: {},
      next: end + 1,
      problems: [
        { line, message: "The properties at the top are not in the form “key: value”; they are passed over." },
      ],
    };
  }
  if (typeof value !== "object" || value === null || Array.isArray(value)) {
    if (lines.slice(1, end).every((line) => line.trim() === "")) return { front: {}, next: end + 1, problems };
    return { front: {}, next: 0, problems };
  }
  const front: Record<string, unknown> = {};
  for (const [key, given] of Object.entries(value)) {
    const line = lines.findIndex((text) => text.startsWith(`${key}:`)) + 1;
    const schema = FrontMatter.shape[key as keyof FrontMatter];
    const plain =
      typeof given === "number" && key !== "rate"
        ? String(given)
        : given instanceof Date
          ? given.toISOString().slice(0, 10)
          : given;
    if (!schema) problems.push({ line, message: `“${key}” is not a property of a deck. Known are ${KEYS}.` });
    else if (schema.safeParse(plain).success) front[key] = plain;
    else problems.push({ line, message: `“${key}” cannot be ${JSON.stringify(given)}; it is passed over.` });
  }
  return { front: front as FrontMatter, next: end + 1, problems };
}
