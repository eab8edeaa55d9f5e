/** The extensions of texts and documents that slides are made from. */
export const DOCUMENTS = ["md", "txt", "docx", "odt", "html", "htm", "csv", "tsv", "opml"] as const;
export type DocumentFormat = (typeof DOCUMENTS)[number];
