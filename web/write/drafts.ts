const draftKey = (deck: string) => `unitext:draft:${deck}`;

/** Returns what was typed and is not yet part of the deck; it outlives the page. */
export function readDraft(deck: string): string | null {
  try {
    return localStorage.getItem(draftKey(deck));
  } catch {
    return null;
  }
}

/** Keeps typed text until it is part of the deck; undefined removes it. */
export function keepDraft(deck: string, text: string | undefined): void {
  try {
    if (text === undefined) localStorage.removeItem(draftKey(deck));
    else localStorage.setItem(draftKey(deck), text);
  } catch {
    // The browser's storage is full: the text is still on its way to the server.
  }
}
