export { alignDecks, type AlignedPair, alignLengths, type Bead } from "./align";
export { NOTES_IN, type NotesIn, pairSlides, withNotesOf } from "./bilingual";
export { checkTranslation } from "./checks";
export { type Context, contextsOf, lookupWords } from "./context";
export {
  type Code,
  codeFaults,
  codeLabel,
  type CodedText,
  decode,
  encode,
  joinPieces,
  type Piece,
  wordsOf,
} from "./coded";
export { TRANSLATION_FAULTS, type TranslationFault, type TranslationFinding } from "./findings";
export { languageOfTag, sameLanguage } from "./languagetag";
export { matchTargets, type MatchedTargets } from "./matching";
export { editDistance, LEAST_LIKENESS, likenessOf, Memory, type Proposal, tokensOf } from "./memory";
export { numbersIn, relocalised, type WrittenNumber } from "./numbers";
export {
  isTranslated,
  pairSegments,
  type SegmentPair,
  slidesWithTargets,
  slideWithTarget,
  sourceKey,
  type StoredTarget,
  targetsOf,
  wordsChangedOnSlides,
} from "./pairs";
export { proposalOf } from "./proposal";
export { pseudoTranslation } from "./pseudo";
export { isSpokenByCharacters, translatedRate } from "./rates";
export {
  placeOf,
  type Segment,
  SEGMENT_STATES,
  segmentsOf,
  type SegmentState,
  type Target,
  translateDeck,
  type TranslatedDeck,
} from "./segments";
export { missingTokens, piecesOf, placeholderKinds, typedText } from "./tokens";
export { type Sentence, sentencesOf } from "./sentences";
export { readTerms, readTermsTbx, writeTermsTbx } from "./tbx";
export { hasTerm, readTermsCsv, type Term, termsIn, writeTermsCsv } from "./terms";
export { type MemoryUnit, readTmx, writeTmx } from "./tmx";
export { mapUnits, type TextUnit, type UnitKind, unitsOf } from "./units";
export { xmlText } from "./xmltext";
export {
  type ExchangedSegment,
  type ExchangeFile,
  readXliff,
  writeXliff,
  XLIFF_VERSIONS,
  type XliffVersion,
} from "./xliff";
