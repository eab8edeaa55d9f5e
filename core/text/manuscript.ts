import { type Element, LinkTarget, type RichText, type SlideProperties } from "@unitext/core/model";
import { z } from "zod";

/** Lines of the source, counted from 1, both ends included. */
export interface Lines {
  from: number;
  to: number;
}

/** A problem in a text: where it is and what to do. The rest of the text is read all the same. */
export interface Problem {
  line: number;
  message: string;
}

/** What front matter can say about the deck. Every key is optional. */
export const FrontMatter = z.object({
  title: z.string().optional(),
  /** A line below the title on the title slide. */
  subtitle: z.string().optional(),
  author: z.string().optional(),
  event: z.string().optional(),
  date: z.string().optional(),
  language: z.string().optional(),
  theme: z.string().optional(),
  page: z.string().optional(),
  footer: z.string().optional(),
  header: z.string().optional(),
  stamp: z.string().optional(),
  numbers: z.boolean().optional(),
  rate: z.number().optional(),
  titleSlide: z.boolean().optional(),
});
export type FrontMatter = z.infer<typeof FrontMatter>;

/** Whether points appear one at a time: each by itself, or the main ones with those below them. */
export type Steps = boolean | "main";

/** What a `::slide` line says about its slide. */
export interface SlideMark extends SlideProperties {
  id?: string;
  arrangement?: string;
  hidden?: boolean;
  level?: number;
  steps?: Steps;
}

/** An element without id and place. */
type Bare<E> = E extends Element ? Omit<E, "id" | "slot" | "frame"> : never;
export type Content = Bare<Element>;
export type Figure = Exclude<Content, { kind: "text" | "picture" }>;

/** A block of a manuscript: the output of every reader of texts and documents, and what break rules cut between. */
export type Block = Lines &
  (
    | { kind: "heading"; depth: number; text: RichText; id?: string }
    | { kind: "text"; text: RichText; items?: readonly number[] }
    | { kind: "quote"; text: RichText }
    | { kind: "figure"; figure: Figure }
    | { kind: "picture"; picture: Extract<Content, { kind: "picture" }> }
    | { kind: "notes"; text: RichText }
    | { kind: "slot"; slot: string; steps?: Steps; width?: number; blocks: Block[] }
    | { kind: "mark"; mark: SlideMark }
    | { kind: "break" }
    | { kind: "join" }
  );

/** A text that was read: its front matter, its blocks in order, and its problems. */
export interface Manuscript {
  front: FrontMatter;
  blocks: Iterable<Block>;
  problems: Problem[];
}

/** Returns the address as a link of the model; undefined for anchors, scripts and relative paths. */
export function linkTarget(url: string): string | undefined {
  const target = url.startsWith("#") && url.length > 1 ? `slide:${url.slice(1)}` : url;
  const encoded = target.replace(/\s/g, "%20");
  return LinkTarget.safeParse(encoded).success ? encoded : undefined;
}
