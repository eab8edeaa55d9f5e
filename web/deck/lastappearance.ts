const LOOK = "unitext:look";
/** The look that was chosen last for slides from elsewhere. */
export const lastAppearance = (): "match" | "keep" => {
  try {
    return localStorage.getItem(LOOK) === "match" ? "match" : "keep";
  } catch {
    return "keep";
  }
};
export function keepAppearance(look: "match" | "keep"): void {
  try {
    localStorage.setItem(LOOK, look);
  } catch {
    // The choice is asked for again next time.
  }
}
