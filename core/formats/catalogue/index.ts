import { handout } from "../output/handout/format";
import { html } from "../output/html/format";
import { notes } from "../output/notes/format";
import { pdf } from "../output/pdf/format";
import { drawings, pictures } from "../output/pictures/format";
import { json } from "../presentations/json/format";
import { markdown } from "../presentations/markdown/format";
import { odp } from "../presentations/odp/format";
import { pptx } from "../presentations/pptx/format";
import { DOCUMENTS } from "../documents/extensions";
import type { FormatDescriptor } from "../shared/features";

export { DOCUMENTS, type DocumentFormat } from "../documents/extensions";

export type { FormatDescriptor } from "../shared/features";

/** The formats that decks are written in, by extension, in the order in which they are offered. */
export const FORMATS = {
  pptx,
  odp,
  pdf,
  html,
  docx: handout,
  png: pictures,
  svg: drawings,
  md: markdown,
  txt: notes,
  json,
} satisfies Record<string, FormatDescriptor>;
export type WritableFormat = keyof typeof FORMATS;
export const WRITABLE = Object.keys(FORMATS) as WritableFormat[];

/** The extensions of presentations by standard: presentation, show, template, and each of these with macros. */
export const OFFICE_OPEN_XML = ["pptx", "ppsx", "potx", "pptm", "ppsm", "potm"] as const;
export const OPEN_DOCUMENT = ["odp", "fodp", "otp"] as const;

/** The extensions of all files that core reads as a deck. */
export const READABLE = [...DOCUMENTS, ...OFFICE_OPEN_XML, ...OPEN_DOCUMENT, "json"] as const;
export type ReadableFormat = (typeof READABLE)[number];

/** Returns the extension of a file name in lower case. */
export function extensionOf(name: string): string {
  return /\.([^./\\]+)$/.exec(name)?.[1]?.toLowerCase() ?? "";
}

const among = (extensions: readonly string[]) => (name: string) => extensions.includes(extensionOf(name));

/** Whether a file of this name is a document or text that slides are made from. */
export const isDocumentName = among(DOCUMENTS);

/** Whether a file of this name is a presentation of an office program. */
export const isPresentationName = among([...OFFICE_OPEN_XML, ...OPEN_DOCUMENT]);

/** Lists extensions for a sentence: “.md, .txt and .docx”. */
export const listExtensions = (extensions: readonly string[], before = "and"): string =>
  `${extensions
    .slice(0, -1)
    .map((one) => `.${one}`)
    .join(", ")} ${before} .${extensions.at(-1)}`;
