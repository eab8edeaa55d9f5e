import {
  ArrangementName,
  Asset,
  Comment,
  type Deck,
  DeckMetadata,
  Element,
  Id,
  Language,
  Manuscript,
  Master,
  Original,
  Page,
  Properties,
  RecordedVoice,
  Regions,
  Reply,
  RichText,
  Slide,
  SlideProperties,
  Source,
  TextStyle,
  Theme,
} from "@unitext/core/model";
import { z } from "zod";

/**
 * A place in the running order: under `parent` (null: on the main line), directly after its sibling `after` (null:
 * first).
 */
export const Place = z.object({ parent: Id.nullable(), after: Id.nullable() });
export type Place = z.infer<typeof Place>;

const single = [
  z.object({ kind: z.literal("insertSlide"), slide: Slide, place: Place }),
  z.object({ kind: z.literal("deleteSlide"), slide: Id }),
  z.object({ kind: z.literal("moveSlide"), slide: Id, place: Place }),
  z.object({ kind: z.literal("setHidden"), slide: Id, hidden: z.boolean() }),
  z.object({ kind: z.literal("setNotes"), slide: Id, notes: RichText }),
  z.object({ kind: z.literal("setVoice"), slide: Id, voice: RecordedVoice.nullable() }),
  z.object({
    kind: z.literal("setArrangement"),
    slide: Id,
    arrangement: ArrangementName,
    slots: z.record(Id, z.string().max(40).nullable()),
  }),
  z.object({ kind: z.literal("setText"), slide: Id, element: Id, text: RichText }),
  z.object({ kind: z.literal("insertElement"), slide: Id, element: Element, index: z.number().int().nonnegative() }),
  z.object({ kind: z.literal("deleteElement"), slide: Id, element: Id }),
  z.object({ kind: z.literal("setElement"), slide: Id, element: Element }),
  z.object({ kind: z.literal("setSlideProperties"), slide: Id, properties: SlideProperties }),
  z.object({
    kind: z.literal("putComment"),
    slide: Id,
    comment: Comment,
    /** Its place among the comments; a new one without it comes last. */
    index: z.number().int().nonnegative().optional(),
  }),
  z.object({ kind: z.literal("removeComment"), slide: Id, comment: Id }),
  z.object({
    kind: z.literal("putReply"),
    slide: Id,
    comment: Id,
    reply: Reply,
    index: z.number().int().nonnegative().optional(),
  }),
  z.object({ kind: z.literal("removeReply"), slide: Id, comment: Id, reply: Id }),
  z.object({ kind: z.literal("setDone"), slide: Id, comment: Id, done: z.boolean() }),
  z.object({ kind: z.literal("setSource"), slide: Id, source: Source.nullable() }),
  z.object({ kind: z.literal("setProperties"), properties: Properties }),
  z.object({ kind: z.literal("setLanguage"), language: Language }),
  z.object({ kind: z.literal("setPage"), page: Page }),
  z.object({ kind: z.literal("setTheme"), theme: Theme }),
  z.object({ kind: z.literal("setRegions"), regions: Regions }),
  z.object({ kind: z.literal("setRate"), rate: z.number().min(40).max(400) }),
  z.object({ kind: z.literal("setAsset"), name: z.string().min(1).max(1000), asset: Asset.nullable() }),
  z.object({ kind: z.literal("setManuscript"), manuscript: Manuscript.nullable() }),
  z.object({ kind: z.literal("setSlide"), slide: Id, as: Slide }),
  z.object({ kind: z.literal("setSlideTheme"), slide: Id, theme: z.string().max(80).nullable() }),
  z.object({ kind: z.literal("setImportedTheme"), name: z.string().min(1).max(80), theme: Theme.nullable() }),
  z.object({ kind: z.literal("setMaster"), name: z.string().min(1).max(40), master: Master.nullable() }),
  z.object({ kind: z.literal("setTextStyle"), name: z.string().min(1).max(40), style: TextStyle.nullable() }),
  z.object({ kind: z.literal("setLayouts"), layouts: DeckMetadata.shape.layouts.unwrap().nullable() }),
  z.object({ kind: z.literal("setOriginal"), original: Original.nullable() }),
] as const;

export const SingleChange = z.discriminatedUnion("kind", [...single]);
export type SingleChange = z.infer<typeof SingleChange>;

/** Several changes that are applied in order, all or none. */
export const Batch = z.object({ kind: z.literal("batch"), changes: z.array(SingleChange).max(20000) });
export const Change = z.discriminatedUnion("kind", [...single, Batch]);
export type Change = z.infer<typeof Change>;

/** Returns a change as a list of single changes. */
export function singles(change: Change): readonly SingleChange[] {
  return change.kind === "batch" ? change.changes : [change];
}

/** Joins changes into one. A single change is returned as it is. */
export function batch(changes: readonly SingleChange[]): Change {
  return changes.length === 1 && changes[0] ? changes[0] : { kind: "batch", changes: [...changes] };
}

/**
 * Handles one kind of change. `apply` returns the new deck and the changes that undo it, and throws a Failure
 * `conflict` when something that the change names is missing.
 */
export interface Handler<C extends SingleChange> {
  apply(deck: Deck, change: C): { deck: Deck; inverse: readonly SingleChange[] };
  /** The aspects of the deck that the change writes, as `slide:ID/aspect` or `deck/aspect`. */
  writeSet(change: C): readonly string[];
  /** Describes what was done, in a few words for the user. */
  describe(change: C): string;
}
