import { READABLE } from "@unitext/core/formats/catalogue";

/** The extensions of files that can be brought in: decks, documents, and pages that become pictures. */
export const ACCEPTED_KINDS = [...READABLE, "pdf"] as const;
export const ACCEPTED = ACCEPTED_KINDS.map((kind) => `.${kind}`).join(",");
