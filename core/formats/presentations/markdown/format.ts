import {
  type FormatDescriptor,
  kept,
  ONLY_THERE,
  OTHER_MOTION,
  PRESENTATION,
  type Verdicts,
} from "../../shared/features";

/** Describes the format for the lists of formats. */
export const markdown: FormatDescriptor = {
  label: "Text (.md)",
  purpose: "To keep as plain text, to compare, to put under version control.",
  mediaType: "text/markdown; charset=utf-8",
};

/** What becomes of each feature in the format. */
export const markdownVerdicts: Verdicts = {
  ...PRESENTATION,
  "detail slides": kept,
  "named sections": kept,
  "links into other decks": kept,
  "broken links": kept,
  "links on shapes": { why: "text has no place for it" },
  "linked data": ({ elements }) =>
    elements.some(
      (element) =>
        "captionValues" in element ||
        "titleValues" in element ||
        (element.binding && element.kind !== "table" && element.kind !== "chart"),
    )
      ? { why: "text links tables, charts and values in sentences, and nothing else; what it shows stays" }
      : kept,
  pictures: { how: "named by its path; its file is not inside the text" },
  "missing pictures": kept,
  "vector pictures": kept,
  "animated pictures": kept,
  "chart formatting": { why: "text has only its numbers" },
  recolouring: { why: "text has no place for it" },
  "pictures cropped to a shape": { why: "text has no place for it" },
  "gradient fills": { why: "text has no place for it" },
  "large line ends": { why: "text has no place for it" },
  "soft shadows": { why: "text has no place for it" },
  code: kept,
  "films and sounds": { why: "text has no place for it; its description stays" },
  diagrams: kept,
  formulas: kept,
  shapes: { how: "its words stay, the drawing does not" },
  "positioned elements": { how: "placed with the other content of the slide" },
  groups: { why: "text has no place for it" },
  "text formatting": { how: "shown in the theme of the deck" },
  "picture bullets": { why: "text has no place for them; the items stay" },
  footnotes: kept,
  "points one at a time": kept,
  "points in groups": { how: "each comes by itself" },
  entrances: { why: "text has no place for it; everything is visible at once" },
  "other motion": OTHER_MOTION,
  backgrounds: ({ background }) => (background && "fill" in background ? { how: "named by one colour" } : kept),
  "masters from files": { why: "text has no place for it" },
  "footers from files": { why: "text has no place for them" },
  comments: { why: "text has no place for them" },
  "foreign content": { how: "its words stay" },
  "unsupported features": ONLY_THERE,
  "imported themes": { why: "a text has one theme for all its slides" },
};
