import { type FormatDescriptor, allFeatures, type Verdicts } from "../../shared/features";

/** Describes the format for the lists of formats. */
export const json: FormatDescriptor = {
  label: "Unitext deck (.json)",
  purpose: "The whole deck with its pictures, for programs and for safe keeping.",
  mediaType: "application/json",
};

/** What becomes of each feature in the format. */
export const jsonVerdicts: Verdicts = allFeatures("kept");
