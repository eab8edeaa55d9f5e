import { type Entry, entryGroups, rangesOf } from "@unitext/core/divide";

/** Writes what is said of a file to stderr, each once with its slides: `unitext: FILE: slides 2-4: WHAT: SAID`. */
export function tellEntries(file: string, entries: readonly Entry[]): void {
  for (const { slides, whats, said } of entryGroups(entries)) {
    const where =
      slides.length === 0 ? "deck" : slides.length === 1 ? `slide ${slides[0]}` : `slides ${rangesOf(slides)}`;
    for (const what of whats) process.stderr.write(`unitext: ${file}: ${where}: ${what}: ${said}\n`);
  }
}
