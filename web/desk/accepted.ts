/** The extensions of files that can be brought in: decks, documents, and pages that become pictures. */
export const ACCEPTED_KINDS = [
  "md",
  "txt",
  "docx",
  "odt",
  "html",
  "htm",
  "csv",
  "tsv",
  "opml",
  "pptx",
  "ppsx",
  "potx",
  "pptm",
  "ppsm",
  "potm",
  "odp",
  "fodp",
  "otp",
  "json",
  "pdf",
] as const;
export const ACCEPTED = ACCEPTED_KINDS.map((kind) => `.${kind}`).join(",");
