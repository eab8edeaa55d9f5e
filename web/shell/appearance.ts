import { useEffect, useState } from "react";

/** As the system says, or always light, or always dark. */
export type Appearance = "system" | "light" | "dark";
const STORE = "unitext:appearance";
const THEME: Record<Appearance, string | undefined> = { system: undefined, light: "marram", dark: "marram-dark" };

/** Returns the appearance that the button changes to. */
export function nextAppearance(appearance: Appearance): Appearance {
  return appearance === "system" ? "light" : appearance === "light" ? "dark" : "system";
}

function show(appearance: Appearance): void {
  const theme = THEME[appearance];
  if (theme) document.documentElement.dataset.theme = theme;
  else delete document.documentElement.dataset.theme;
}

function kept(): Appearance {
  const value = localStorage.getItem(STORE);
  return value === "light" || value === "dark" ? value : "system";
}
show(kept());

/** Returns whether pages are light, dark or as the system is, and the function that sets it for this browser. */
export function useAppearance(): [Appearance, (next: Appearance) => void] {
  const [appearance, set] = useState(kept);
  useEffect(() => {
    show(appearance);
    localStorage.setItem(STORE, appearance);
  }, [appearance]);
  return [appearance, set];
}
