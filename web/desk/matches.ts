/**
 * Whether a name matches a pattern: `*` stands for anything; a pattern without it matches anywhere in the name. Case is
 * ignored.
 */
export function matches(title: string, pattern: string): boolean {
  const wanted = pattern.trim().toLowerCase();
  if (!wanted) return true;
  if (!wanted.includes("*")) return title.toLowerCase().includes(wanted);
  const parts = wanted.split("*").map((part) => part.replace(/[.*+?^${}()|[\]\\]/g, "\\$&"));
  return new RegExp(`^${parts.join(".*")}$`).test(title.toLowerCase());
}
