import type { WritableFormat } from "../catalogue";
import { handoutVerdicts } from "../output/handout/format";
import { htmlVerdicts } from "../output/html/format";
import { notesVerdicts } from "../output/notes/format";
import { pdfVerdicts } from "../output/pdf/format";
import { drawingsVerdicts, picturesVerdicts } from "../output/pictures/format";
import { jsonVerdicts } from "../presentations/json/format";
import { markdownVerdicts } from "../presentations/markdown/format";
import { odpVerdicts } from "../presentations/odp/format";
import { pptxVerdicts } from "../presentations/pptx/format";
import type { Verdicts } from "../shared/features";

/**
 * What becomes of every feature in every format; features.test.ts checks it against what is found when a file is read
 * again.
 */
export const TABLE: Record<WritableFormat, Verdicts> = {
  pptx: pptxVerdicts,
  odp: odpVerdicts,
  pdf: pdfVerdicts,
  html: htmlVerdicts,
  docx: handoutVerdicts,
  png: picturesVerdicts,
  svg: drawingsVerdicts,
  md: markdownVerdicts,
  txt: notesVerdicts,
  json: jsonVerdicts,
};
