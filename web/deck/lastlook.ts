const LOOK = "unitext:look";
/** The look that was chosen last for slides from elsewhere. */
export const lastLook = (): "match" | "keep" => {
  try {
    return localStorage.getItem(LOOK) === "match" ? "match" : "keep";
  } catch {
    return "keep";
  }
};
export function keepLook(look: "match" | "keep"): void {
  try {
    localStorage.setItem(LOOK, look);
  } catch {
    // The choice is asked for again next time.
  }
}
