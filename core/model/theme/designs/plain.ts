import { colourSet } from "../colours";
import type { DesignDescriptor } from "../design";

/** The design of themes that are read from files: nothing but text in its places. */
export const plain: DesignDescriptor = {
  label: "Plain",
  description: "Nothing but text in its places",
  fonts: "worldwide",
  colours: { light: colourSet("#0f5c63", "#7a2e57", "light"), dark: colourSet("#0f5c63", "#7a2e57", "dark") },
  mood: "light",
};
