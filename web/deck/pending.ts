/** A document dropped on a deck of the Desk, to be opened in that deck's Write. */
let waiting: { deck: string; file: File } | undefined;

export function handOverDocument(deck: string, file: File): void {
  waiting = { deck, file };
}

export function pickUpDocument(deck: string): File | undefined {
  const file = waiting?.deck === deck ? waiting.file : undefined;
  if (file) waiting = undefined;
  return file;
}
