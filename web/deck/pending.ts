/** A document dropped on a deck of the Desk, to be opened in that deck's Write. */
let waiting: { deck: string; file: File } | undefined;

/** Leaves a file for Write, which takes it when it opens. */
export function handOverDocument(deck: string, file: File): void {
  waiting = { deck, file };
}

/** Returns the file that was left for a deck, once; undefined when there is none. */
export function pickUpDocument(deck: string): File | undefined {
  const file = waiting?.deck === deck ? waiting.file : undefined;
  if (file) waiting = undefined;
  return file;
}
