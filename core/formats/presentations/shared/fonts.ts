import { isSymbolFont, shownFamily } from "@unitext/core/layout";
import type { Report } from "@unitext/core/tally";

/** Reports the fonts that a file names and that do not ship. */
export function standInFonts(families: Iterable<string>): Report["adapted"] {
  return [...families].flatMap((family) => {
    if (isSymbolFont(family))
      return [
        {
          slide: null,
          what: `the font ${family}`,
          how: "its signs are shown as the characters that they stand for; the file keeps its name",
        },
      ];
    const { family: shown, fit } = shownFamily(family);
    return fit === "same"
      ? []
      : [
          {
            slide: null,
            what: `the font ${family}`,
            how: `${shown} is shown in its place, ${fit === "metric" ? "whose letters are as wide" : "since it does not ship"}; the file keeps its name`,
          },
        ];
  });
}
