import type { Point } from "@unitext/core/generate";

/** The points of a slide, with its title and the line where its text begins. */
export interface SlidePoints {
  title: string;
  line: number;
  points: Point[];
}
