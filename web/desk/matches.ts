/** A pattern of a name: `*` stands for anything; words without it are found anywhere in the title. Case does not matter. */
export function matches(title: string, pattern: string): boolean {
  const wanted = pattern.trim().toLowerCase();
  if (!wanted) return true;
  if (!wanted.includes("*")) return title.toLowerCase().includes(wanted);
  const parts = wanted.split("*").map((part) => part.replace(/[.*+?^${}()|[\]\\]/g, "\\$&"));
  return new RegExp(`^${parts.join(".*")}$`).test(title.toLowerCase());
}
