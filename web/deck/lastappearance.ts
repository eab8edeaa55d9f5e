const LOOK = "unitext:look";
/** The appearance chosen last for slides from other decks. */
export const lastAppearance = (): "match" | "keep" => {
  try {
    return localStorage.getItem(LOOK) === "match" ? "match" : "keep";
  } catch {
    return "keep";
  }
};
/** Remembers the choice for the next merge in this browser. */
export function keepAppearance(look: "match" | "keep"): void {
  try {
    localStorage.setItem(LOOK, look);
  } catch {
    // Without storage, the choice is asked for again next time.
  }
}
