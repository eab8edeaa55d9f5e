import { Asset } from "./asset";
import { Element } from "./elements";
import { z } from "zod";
import { ArrangementName } from "./arrangement";
import { Comment } from "./comment";
import { Fill, TextBox, TextStyle } from "./look";
import { RichText } from "./richtext";
import { BreakRule } from "./rule";
import { Theme } from "./theme";
import { Colour, Frame, Id, Language, Page } from "./units";

/** The lines of the document that a slide was generated from, and a hash of the generated content. */
export const Source = z.object({
  document: z.string(),
  from: z.number().int(),
  to: z.number().int(),
  hash: z.string(),
});
export type Source = z.infer<typeof Source>;

/** The slide, deck and version that a slide was copied from. */
export const Origin = z.object({ deck: Id, slide: Id, version: z.number().int().nonnegative() });
export type Origin = z.infer<typeof Origin>;

/**
 * A background behind everything else on a slide. A picture covers the page; `veil` is the share of paper over it, so that
 * text can be read. Without it every text has a plate of paper.
 */
export const Background = z.union([
  z.object({ colour: Colour }),
  z.object({ picture: z.string().min(1).max(1000), veil: z.number().min(0).max(0.95).optional() }),
  z.object({ fill: Fill }),
]);
export type Background = z.infer<typeof Background>;
export const TRANSITIONS = ["fade", "push", "wipe"] as const;

/** How a slide appears, and in how many seconds. */
export const Transition = z.object({ kind: z.enum(TRANSITIONS), seconds: z.number().min(0.1).max(10) });
export type Transition = z.infer<typeof Transition>;

/**
 * A voice recorded for a slide: the name of its sound file, its length in seconds, and a hash of the notes as they were when
 * it was recorded.
 */
export const RecordedVoice = z.object({
  source: z.string().min(1).max(1000),
  seconds: z.number().min(0.1).max(3600),
  notesHash: z.string().max(40),
});
export type RecordedVoice = z.infer<typeof RecordedVoice>;

/**
 * Properties of a slide beside its elements: background, transition, seconds until the next slide comes by itself,
 * column widths in percent, the name of the section that starts with it, and the size of its text and the space between
 * its paragraphs as factors of the theme's.
 */
export const SlideProperties = z.object({
  background: Background.optional(),
  transition: Transition.optional(),
  delay: z.number().min(0.5).max(3600).optional(),
  widths: z.array(z.number().min(5).max(95)).min(2).max(3).optional(),
  section: z.string().min(1).max(300).optional(),
  textSize: z.number().min(0.5).max(2).optional(),
  spacing: z.number().min(0).max(5).optional(),
});
export type SlideProperties = z.infer<typeof SlideProperties>;

/**
 * The footer, number or date of a slide where its source file places it. The number is counted when the slide is shown.
 */
export const RegionBox = z.object({
  region: z.enum(["footer", "number", "date"]),
  text: z.string().max(500),
  frame: Frame,
  style: z.string().max(40).optional(),
  box: TextBox.optional(),
});
export type RegionBox = z.infer<typeof RegionBox>;

/**
 * The part of a source file that a slide was read from. `file` names the asset that stores the package; the hashes are
 * of the slide, its notes, background, transition, entrances and comments as they were read; `master` is its master, and `shapes`
 * are the shapes that became elements.
 */
export const SourcePart = z.object({
  file: z.string().max(200),
  part: z.string().max(500),
  hash: z.string().max(40),
  notesHash: z.string().max(40),
  backgroundHash: z.string().max(40),
  transitionHash: z.string().max(40),
  motionHash: z.string().max(40).optional(),
  commentsHash: z.string().max(40).optional(),
  master: z.string().max(40).optional(),
  shapes: z.array(z.string().max(40)).max(20000),
});
export type SourcePart = z.infer<typeof SourcePart>;

/** What a file draws behind its slides: a background and drawings shared by all slides of one layout. */
export const Master = z.object({
  name: z.string().max(300),
  background: Background.optional(),
  elements: z.array(Element),
});
export type Master = z.infer<typeof Master>;

export const Slide = z.object({
  id: Id,
  parent: Id.nullable(),
  arrangement: ArrangementName,
  elements: z.array(Element),
  notes: RichText,
  hidden: z.boolean(),
  source: Source.optional(),
  origin: Origin.optional(),
  /** The name of the theme imported with the slide; without one it has the deck's theme. */
  theme: z.string().max(80).optional(),
  /** The name of the master drawn behind it. */
  master: z.string().max(40).optional(),
  regions: z.array(RegionBox).max(10).optional(),
  comments: z.array(Comment).max(2000).optional(),
  voice: RecordedVoice.optional(),
  /** Names of motion in its source file that entrances cannot express. */
  unsupportedMotion: z.array(z.string().max(300)).max(500).optional(),
  sourcePart: SourcePart.optional(),
  ...SlideProperties.shape,
});
export type Slide = z.infer<typeof Slide>;

export const Properties = z.object({
  title: z.string().max(500),
  author: z.string().max(500),
  event: z.string().max(500),
  date: z.string().max(100),
});
export type Properties = z.infer<typeof Properties>;

/** What is repeated on every slide: a line at the foot, one at the top, and the slide number. */
export const Regions = z.object({
  footer: z.string().max(300),
  /** A line at the top of slides with content, such as the name of an event; none unless given. */
  header: z.string().max(300).optional(),
  number: z.boolean(),
  /** The part of the footer that says which day the linked values are of; it follows them. Undefined without one. */
  stamp: z.string().max(100).optional(),
});
export type Regions = z.infer<typeof Regions>;

export const Manuscript = z.object({ document: Id, rule: BreakRule });
export type ManuscriptRef = z.infer<typeof Manuscript>;

/** Whether the texts of a translation are divided into sentences or kept as whole paragraphs. */
export const Segmentation = z.enum(["sentence", "paragraph"]);
export type Segmentation = z.infer<typeof Segmentation>;

/**
 * A layout of a file for an arrangement: the master behind it, its footer, and where its slots are, with the text style of
 * each.
 */
export const FileLayout = z.object({
  master: z.string().max(40),
  regions: z.array(RegionBox).max(20).optional(),
  slots: z.record(
    z.string(),
    z.object({ frame: Frame, style: z.string().max(40).optional(), box: TextBox.optional() }),
  ),
});
export type FileLayout = z.infer<typeof FileLayout>;

/**
 * The deck that this deck is a version of, and the version of it that was taken last. With a language, this deck is its
 * translation, and that is the language of the original; `segmentation` is by sentences unless it says otherwise.
 */
export const Original = z.object({
  deck: Id,
  version: z.number().int().nonnegative(),
  language: Language.optional(),
  segmentation: Segmentation.optional(),
});
export type Original = z.infer<typeof Original>;

export const DeckMetadata = z.object({
  id: Id,
  properties: Properties,
  language: Language,
  page: Page,
  theme: Theme,
  regions: Regions,
  /** Speaking rate in words a minute. */
  rate: z.number().min(40).max(400),
  assets: z.record(z.string(), Asset),
  /** The document that the slides were generated from, and the rule that cut it. */
  manuscript: Manuscript.optional(),
  /** Themes imported with slides from other decks, by name. */
  themes: z.record(z.string(), Theme).optional(),
  original: Original.optional(),
  /** Masters and text styles imported from files, by the hash of each. */
  masters: z.record(z.string(), Master).optional(),
  styles: z.record(z.string(), TextStyle).optional(),
  /** The layouts of a file, in which slides made from text look like those of the file. */
  layouts: z.partialRecord(ArrangementName, FileLayout).optional(),
});
export type DeckMetadata = z.infer<typeof DeckMetadata>;

const DeckShape = DeckMetadata.extend({ slides: z.array(Slide) });

/** A deck: its slides in running order, with details directly after the slide that they belong to. */
export const Deck = DeckShape.superRefine((deck, context) => {
  for (const problem of orderProblems(deck.slides))
    context.addIssue({ code: "custom", path: ["slides", problem.index], message: problem.message });
});
export type Deck = z.infer<typeof DeckShape>;

/**
 * Lists where a running order breaks the rules: an id used twice, a parent that does not come before, details apart
 * from their slide.
 */
export function orderProblems(slides: readonly Slide[]): { index: number; message: string }[] {
  const problems: { index: number; message: string }[] = [];
  const seen = new Set<string>();
  const elements = new Set<string>();
  const open: string[] = [];
  slides.forEach((slide, index) => {
    if (seen.has(slide.id)) problems.push({ index, message: `the slide id ${slide.id} is used twice` });
    seen.add(slide.id);
    while (open.length && open.at(-1) !== slide.parent) open.pop();
    if (slide.parent !== null && open.length === 0)
      problems.push({ index, message: `slide ${slide.id} does not follow its main slide ${slide.parent}` });
    open.push(slide.id);
    elements.clear();
    for (const { id } of slide.elements) {
      if (elements.has(id))
        problems.push({ index, message: `the element id ${id} is used twice on slide ${slide.id}` });
      elements.add(id);
    }
  });
  return problems;
}
