import { SEGMENT_FILES } from "@unitext/core/formats/segments";
import { Id, Language, Segmentation } from "@unitext/core/model";
import { SEGMENT_STATES, type Term, TRANSLATION_FAULTS, XLIFF_VERSIONS } from "@unitext/core/translate";
import { z } from "zod";

/** Words, or a placeholder by its number. */
export const PieceSchema = z.union([
  z.string().max(100_000),
  z.object({ code: z.number().int().positive(), at: z.enum(["open", "close", "single"]) }),
]);

export const ENGINES = ["none", "local", "pseudo", "service"] as const;

/** The translation service that is set up, by the host to which texts are sent; null when there is none. */
export const EngineList = z.object({ service: z.object({ host: z.string() }).nullable() });
export type EngineList = z.infer<typeof EngineList>;

/** Asks for a deck in another language, with proposals of an engine. */
export const TranslationAsked = z.object({
  language: Language,
  title: z.string().trim().min(1).max(500).optional(),
  engine: z.enum(ENGINES),
  segmentation: Segmentation.optional(),
});

/** The deck that was made, and what the engine said where it proposed nothing. */
export const TranslationMade = z.object({ id: Id, remark: z.string() });

const State = z.enum(SEGMENT_STATES);

/** A translation as it is stored, of a segment of a deck. */
export const StoredTargetSchema = z.object({
  id: z.string().max(1000),
  source: z.array(PieceSchema),
  target: z.array(PieceSchema),
  state: State,
});

/** A segment beside its translation. */
export const PairedSegment = z.object({
  id: z.string(),
  kind: z.string(),
  /** The number of its slide in the original, and the slide of the translated deck that follows it. */
  slide: z.number().int().nullable(),
  slideId: Id.nullable(),
  originalSlide: Id.nullable(),
  source: z.array(PieceSchema),
  target: z.array(PieceSchema).nullable(),
  before: z.array(PieceSchema).nullable(),
  state: State,
  /**
   * The words of the text on the slide where they are not those of its translation; `whole` is whether the text has no
   * other segment.
   */
  onSlide: z.object({ words: z.string(), whole: z.boolean() }).nullable(),
  /** The meanings of the placeholders, by number. */
  codes: z.record(z.string(), z.object({ single: z.boolean(), label: z.string() })),
  /** The person's terms that occur in the source. */
  terms: z.array(z.object({ source: z.string(), target: z.string(), note: z.string().optional() })),
  findings: z.array(z.object({ fault: z.enum(TRANSLATION_FAULTS), sentence: z.string() })),
});
export type PairedSegment = z.infer<typeof PairedSegment>;

/** The segments of a translated deck in reading order. */
export const SegmentList = z.object({
  original: z.object({ id: Id, title: z.string(), version: z.number().int(), newest: z.number().int() }),
  from: z.string(),
  to: z.string(),
  segments: z.array(PairedSegment),
});
export type SegmentList = z.infer<typeof SegmentList>;

/** The same deck in all its languages, the original first. */
export const DeckLanguages = z.object({
  decks: z.array(z.object({ id: Id, title: z.string(), language: z.string() })),
});
export type DeckLanguages = z.infer<typeof DeckLanguages>;

/** How many texts of each slide of a translated deck are untranslated, and how many there are. */
export const SegmentStates = z.object({
  slides: z.array(z.object({ slide: Id, texts: z.number().int(), untranslated: z.number().int() })),
});
export type SegmentStates = z.infer<typeof SegmentStates>;

/** Translations to store. */
export const TargetsSent = z.object({
  targets: z
    .array(
      z.object({
        id: z.string().max(400),
        target: z.array(PieceSchema).max(2000),
        state: State,
        /** The translation that the person saw before; without it, another one is replaced without a word. */
        was: z.array(PieceSchema).max(2000).nullable().optional(),
      }),
    )
    .min(1)
    .max(5000),
});
export type TargetsSent = z.infer<typeof TargetsSent>;

/** The result of storing translations, from the page or from a file. */
export const TargetsTaken = z.object({ taken: z.number().int(), remarks: z.array(z.string()) });
export type TargetsTaken = z.infer<typeof TargetsTaken>;

/** Asks what a memory has for a text between two others. */
export const ProposalsAsked = z.object({
  from: Language,
  to: Language,
  source: z.array(PieceSchema).max(2000),
  context: z.object({ before: z.string().max(1000), after: z.string().max(1000) }).optional(),
});

/** What a memory proposes for a segment, the most similar first; `likeness` is from 0 to 1. */
export const Proposals = z.object({
  proposals: z.array(
    z.object({
      pieces: z.array(PieceSchema),
      likeness: z.number(),
      sameContext: z.boolean(),
      numbersAdapted: z.boolean(),
    }),
  ),
});

export type Proposals = z.infer<typeof Proposals>;

/** A pair of languages. */
export const LanguagePair = z.object({ from: Language, to: Language });

/** Asks for the terms in a pair of languages as a file. */
export const TermsAsked = LanguagePair.extend({ form: z.enum(["csv", "tbx"]).default("csv") });

/** How many units of a memory were stored. */
export const MemoryTaken = z.object({ units: z.number().int() });

/** How many terms were stored, and which entries of the list were not. */
export const TermsTaken = z.object({ terms: z.number().int(), remarks: z.array(z.string()) });

/** Asks for the segments of a deck as a file of exchange; `version` is that of XLIFF. */
export const SegmentFileAsked = z.object({
  as: z.enum(SEGMENT_FILES).default("xlf"),
  version: z.enum(XLIFF_VERSIONS).default("1.2"),
});

/** A term as a person edits it. */
export const TermSchema = z.object({
  source: z.string().trim().min(1).max(200),
  target: z.string().trim().max(200),
  note: z.string().trim().max(1000).optional(),
  forbidden: z.array(z.string().trim().min(1).max(200)).max(50).optional(),
});

/** Returns a term without the fields that a person left empty. */
export function termOf({ source, target, note, forbidden }: z.output<typeof TermSchema>): Term {
  return { source, target, ...(note ? { note } : {}), ...(forbidden?.length ? { forbidden } : {}) };
}

/** The terms of a person in a pair of languages. */
export const TermList = z.object({ terms: z.array(TermSchema).max(20_000) });
export type TermList = z.infer<typeof TermList>;

/** Looks for words in a memory. */
export const MemorySearch = LanguagePair.extend({ words: z.string().trim().min(1).max(200) });

/** Units of a memory that have words, each with the deck that it comes from. */
export const MemoryFound = z.object({
  units: z.array(
    z.object({
      id: z.string(),
      source: z.array(PieceSchema),
      target: z.array(PieceSchema),
      deck: z.object({ id: Id, title: z.string() }).nullable(),
      at: z.string(),
    }),
  ),
});
export type MemoryFound = z.infer<typeof MemoryFound>;

/** The corrected translation of a unit of a memory. */
export const UnitCorrected = z.object({ target: z.array(PieceSchema).min(1).max(2000) });

/** Pairs of texts to store in a memory, and the deck that they come from. */
export const UnitsSent = LanguagePair.extend({
  deck: Id.optional(),
  units: z
    .array(z.object({ source: z.array(PieceSchema).min(1).max(2000), target: z.array(PieceSchema).min(1).max(2000) }))
    .min(1)
    .max(20_000),
});

/** Asks for the texts of a deck beside those of the same deck in another language. */
export const AlignmentAsked = z.object({ with: Id });

/** Texts of two decks that say the same, in reading order; `slide` is the number in the first deck. */
export const Alignment = LanguagePair.extend({
  pairs: z.array(
    z.object({ slide: z.number().int().nullable(), source: z.array(PieceSchema), target: z.array(PieceSchema) }),
  ),
});
export type Alignment = z.infer<typeof Alignment>;
