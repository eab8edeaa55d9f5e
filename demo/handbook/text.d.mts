/** A chapter of the handbook: its title and its sections, each with paragraphs, points and what else it shows. */
export interface Chapter {
  title: string;
  sections: unknown[];
}
export const CHAPTERS: Chapter[];
