import type { WritableFormat } from "@unitext/core/formats";
import type { Sheets } from "@unitext/core/layout";

/** Names of formats, and what each is for. */
export const LABEL: Record<WritableFormat, string> = {
  pptx: "Presentation (.pptx)",
  odp: "Presentation (.odp)",
  pdf: "Pages (.pdf)",
  html: "Web page (.html)",
  docx: "Handout (.docx)",
  png: "Pictures (.png)",
  svg: "Drawings (.svg)",
  md: "Text (.md)",
  txt: "Notes (.txt)",
  json: "Unitext deck (.json)",
};
export const FOR: Record<WritableFormat, string> = {
  pptx: "To go on editing in another program, and to come back from there.",
  odp: "The same in OpenDocument, for programs that prefer it.",
  pdf: "To show, print or hand out: a page a slide, with links and an outline.",
  html: "To show or to send: one page for any browser, with details, points one by one, links and a window for the notes; it needs no network.",
  docx: "To read on paper or to write in: each slide as a picture with its words and its notes.",
  png: "A picture of each slide, 1,920 pixels wide, in one archive.",
  svg: "A drawing of each slide that stays sharp at any size, in one archive.",
  txt: "What is said, slide by slide, to read through or to have read aloud.",
  md: "To keep as plain text, to compare, to put under version control.",
  json: "The whole deck with its pictures, for programs and for safe keeping.",
};
export const PAGES_SHOW: Record<Sheets, string> = {
  slides: "slides",
  notes: "a slide above its notes",
  "handout-2": "two slides to a page",
  "handout-3": "three slides, lines beside them",
  "handout-6": "six slides to a page",
  "handout-9": "nine slides to a page",
};
