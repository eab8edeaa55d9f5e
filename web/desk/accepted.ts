import { WORKBOOKS } from "@unitext/core/model";
import { READABLE } from "@unitext/core/formats/catalogue";

/** The extensions of files that can be brought in: decks, documents, and pages that become pictures. */
export const ACCEPTED_KINDS = [...READABLE, "pdf"] as const;

/** The same, workbooks, which become sources, and archives of everything that a person owns. */
export const ACCEPTED = [...new Set([...ACCEPTED_KINDS, ...WORKBOOKS, "zip"])].map((kind) => `.${kind}`).join(",");
