import { type FormatDescriptor, PRESENTATION, type Verdicts } from "../../shared/features";

/** Describes the format for the lists of formats. */
export const pptx: FormatDescriptor = {
  label: "Presentation (.pptx)",
  purpose: "To go on editing in another program, and to come back from there.",
  mediaType: "application/vnd.openxmlformats-officedocument.presentationml.presentation",
};

/** What becomes of each feature in the format. */
export const pptxVerdicts: Verdicts = {
  ...PRESENTATION,
  "large line ends": { how: "smaller: no end is more than five times as wide as its line" },
};
