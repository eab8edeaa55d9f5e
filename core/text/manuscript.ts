import { type Element, LinkTarget, type RichText, type SlideProperties } from "@unitext/core/model";
import { z } from "zod";

/** Lines of the source, counted from 1, both ends included. */
export interface Lines {
  from: number;
  to: number;
}

/** A problem in a text: where it is and what to do; the rest of the text is taken all the same. */
export interface Problem {
  line: number;
  message: string;
}

/** What the front matter may say about the deck. Every key is optional. */
export const FrontMatter = z.object({
  title: z.string().optional(),
  author: z.string().optional(),
  event: z.string().optional(),
  date: z.string().optional(),
  language: z.string().optional(),
  theme: z.string().optional(),
  page: z.string().optional(),
  footer: z.string().optional(),
  numbers: z.boolean().optional(),
  rate: z.number().optional(),
  titleSlide: z.boolean().optional(),
});
export type FrontMatter = z.infer<typeof FrontMatter>;

/** Whether points come one at a time, each by itself or the main ones with what is below them. */
export type Steps = boolean | "main";

/** What a `::slide` line says about the slide it stands on. */
export interface SlideMark extends SlideProperties {
  id?: string;
  arrangement?: string;
  hidden?: boolean;
  level?: number;
  steps?: Steps;
}

/** What an element is made from: an element without id and place. */
type Bare<E> = E extends Element ? Omit<E, "id" | "slot" | "frame" | "binding"> : never;
export type Content = Bare<Element>;
export type Figure = Exclude<Content, { kind: "text" | "picture" }>;

/** A block of a manuscript. Every reader of text and documents makes these, every break rule cuts between them. */
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

/** A text read: what it says of the deck, its blocks in order, and what could not be taken as it stood. */
export interface Manuscript {
  front: FrontMatter;
  blocks: Iterable<Block>;
  problems: Problem[];
}

/** The address as a link of the model, or undefined for one that leads nowhere (an anchor, a script, a relative path). */
export function linkTarget(url: string): string | undefined {
  const target = url.startsWith("#") && url.length > 1 ? `slide:${url.slice(1)}` : url;
  const encoded = target.replace(/\s/g, "%20");
  return LinkTarget.safeParse(encoded).success ? encoded : undefined;
}
