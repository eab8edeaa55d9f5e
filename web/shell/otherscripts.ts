import { facesForPage } from "@unitext/core/layout";

/** The name under which the page uses the shipped faces of scripts that its own font does not have. */
const NAME = "Unitext other scripts";

const FAMILIES = [
  "Noto Sans SC",
  "Noto Sans KR",
  "Noto Sans JP",
  "Noto Sans Arabic",
  "Noto Sans Hebrew",
  "Noto Sans Devanagari",
  "Noto Sans Bengali",
  "Noto Sans Tamil",
  "Noto Sans Thai",
  "Noto Sans",
];

/** Declares the shipped faces of other scripts. The browser loads one when a character of it is shown. */
export function declareOtherScripts(): void {
  for (const family of FAMILIES)
    for (const { id, weight, unicodeRange } of facesForPage(family))
      if (weight === 400) document.fonts.add(new FontFace(NAME, `url(/fonts/${id}.ttf)`, { unicodeRange }));
}
