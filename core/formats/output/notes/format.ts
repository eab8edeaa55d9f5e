import { type FormatDescriptor, allFeatures, kept, type Verdicts } from "../../shared/features";

/** Describes the format for the lists of formats. */
export const notes: FormatDescriptor = {
  label: "Notes (.txt)",
  purpose: "What is said, slide by slide, to read through or to have read aloud.",
  mediaType: "text/plain; charset=utf-8",
};

/** What becomes of each feature in the format. */
export const notesVerdicts: Verdicts = {
  ...allFeatures({ why: "the file holds the notes alone" }),
  notes: kept,
  "detail slides": kept,
  "hidden slides": kept,
};
