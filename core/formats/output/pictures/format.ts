import { type FormatDescriptor, NO_LINKS, PAGES, type Verdicts } from "../../shared/features";

/** Describes the format for the lists of formats. */
export const pictures: FormatDescriptor = {
  label: "Pictures (.png)",
  purpose: "A picture of each slide, 1,920 pixels wide, in one archive.",
  mediaType: "application/zip",
  archive: true,
  forAudience: true,
};

/** What becomes of each feature in the format. */
export const picturesVerdicts: Verdicts = {
  ...PAGES,
  "links on pictures": NO_LINKS,
  "links on shapes": NO_LINKS,
  "links to the web": { why: "a picture has no links; its words stay" },
  "links between slides": { why: "a picture has no links; its words stay" },
};

/** Describes the format for the lists of formats. */
export const drawings: FormatDescriptor = {
  label: "Drawings (.svg)",
  purpose: "A drawing of each slide that stays sharp at any size, in one archive.",
  mediaType: "application/zip",
  archive: true,
  forAudience: true,
};

/** What becomes of each feature in the format. */
export const drawingsVerdicts: Verdicts = picturesVerdicts;
