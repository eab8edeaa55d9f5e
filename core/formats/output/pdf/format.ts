import { type FormatDescriptor, kept, PAGES, type Verdicts } from "../../shared/features";

/** Describes the format for the lists of formats. */
export const pdf: FormatDescriptor = {
  label: "Pages (.pdf)",
  purpose: "To show, print or hand out: a page a slide, with links and an outline.",
  mediaType: "application/pdf",
  forAudience: true,
};

/** What becomes of each feature in the format. */
export const pdfVerdicts: Verdicts = {
  ...PAGES,
  "named sections": kept,
  "soft shadows": { how: "drawn in layers, as pages have no soft edges" },
  "vector pictures": { how: "drawn as pixels, up to 2400 in a row" },
};
