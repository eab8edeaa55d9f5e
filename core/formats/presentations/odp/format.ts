import {
  type FormatDescriptor,
  asRead,
  kept,
  ONLY_THERE,
  OTHER_LOOKS,
  OTHER_MOTION,
  PRESENTATION,
  STAND_IN,
  type Verdicts,
} from "../../shared/features";
import { fromOdp, sameMotion } from "../../shared/sourcepackage";
import { standsOnMaster } from "../../presentations/shared/regions";

/** Describes the format for the lists of formats. */
export const odp: FormatDescriptor = {
  label: "Presentation (.odp)",
  purpose: "The same in OpenDocument, for programs that prefer it.",
  mediaType: "application/vnd.oasis.opendocument.presentation",
};

/** What becomes of each feature in the format. */
export const odpVerdicts: Verdicts = {
  ...PRESENTATION,
  "named sections": { how: "other programs do not show it; Unitext keeps it" },
  "inline formulas": { how: "shown as its TeX; Unitext sets the formula again" },
  "pictures cropped to a shape": (slide) =>
    fromOdp(slide) ? kept : { how: "shown in its whole frame; Unitext cuts it again" },
  "gradient fills": { how: "runs from its first colour to its last; Unitext knows all of them" },
  "soft shadows": (slide) => (fromOdp(slide) ? kept : { how: "drawn with a hard edge; Unitext keeps it soft" }),
  "other motion": (slide) => (fromOdp(slide) && sameMotion(slide) ? kept : OTHER_MOTION),
  "masters from files": kept,
  "footers from files": (slide, deck) =>
    fromOdp(slide) || standsOnMaster(slide, deck) ? kept : { how: "drawn on the slide itself" },
  comments: ({ comments }) =>
    comments?.some(({ replies }) => replies?.length)
      ? { how: "replies follow as comments of their own, because the format has none" }
      : kept,
  "foreign content": (slide) => (fromOdp(slide) ? kept : STAND_IN),
  "unsupported features": (slide, deck) => (!fromOdp(slide) ? ONLY_THERE : asRead(slide, deck) ? kept : OTHER_LOOKS),
  "imported themes": { how: "drawn in that theme; Unitext keeps its name" },
};
