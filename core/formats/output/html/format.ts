import { type FormatDescriptor, kept, OTHER_MOTION, PAGES, type Verdicts } from "../../shared/features";

/** Describes the format for the lists of formats. */
export const html: FormatDescriptor = {
  label: "Web page (.html)",
  purpose:
    "To show or to send: one page for any browser, with details, points one by one, links and a window for the notes; it needs no network.",
  mediaType: "text/html; charset=utf-8",
  forAudience: true,
};

/** What becomes of each feature in the format. */
export const htmlVerdicts: Verdicts = {
  ...PAGES,
  notes: kept,
  "films and sounds": ({ elements }, { assets }) =>
    elements.some((element) => element.kind === "media" && !assets[element.source])
      ? { how: "shown by its picture" }
      : kept,
  "points one at a time": kept,
  "points in groups": kept,
  entrances: kept,
  "other motion": OTHER_MOTION,
  transitions: kept,
  "slide timings": { why: "the page waits for the reader" },
};
