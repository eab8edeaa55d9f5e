import type { Document } from "docx";
import type { Chapter } from "./text.mjs";

export function handbook(chapters?: Chapter[]): Document;
/** The edition after it: something is new, changed, moved and gone. */
export function nextEdition(chapters: Chapter[]): Chapter[];
