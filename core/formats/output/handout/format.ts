import { type FormatDescriptor, kept, NO_LINKS_SHOWN, PAGES, type Verdicts } from "../../shared/features";

/** Describes the format for the lists of formats. */
export const handout: FormatDescriptor = {
  label: "Handout (.docx)",
  purpose: "To read on paper or to write in: each slide as a picture with its words and its notes.",
  mediaType: "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
  forAudience: true,
};

/** What becomes of each feature in the format. */
export const handoutVerdicts: Verdicts = {
  ...PAGES,
  "links on pictures": NO_LINKS_SHOWN,
  "links on shapes": NO_LINKS_SHOWN,
  notes: kept,
  "links between slides": { why: "a handout has no slides to go to; its words stay" },
};
