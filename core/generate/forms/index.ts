import { type ArrangementName, type DeckMetadata, must } from "@unitext/core/model";
import type { Composed } from "../compose";
import { type FitContext, fitsAtSize, sceneOf } from "../fit";
import { comparison } from "./comparison";
import { fact, highlight } from "./fact";
import type { Form } from "./form";
import { message, sentence } from "./message";
import { parts } from "./parts";
import { quotation } from "./quotation";
import { layoutScore } from "./score";
import { steps } from "./steps";
import { terms } from "./terms";

export { inColumns } from "./columns";

const FORMS: readonly Form[] = [steps, parts, terms, fact, quotation, message, comparison, highlight, sentence];

/** How well points suit any content, and the weight of the layout score. */
const POINTS = 0.5;
const LAYOUT = 0.5;
/** The penalty of an arrangement that one of the slides just before has. */
const REPEATED = 0.3;
/** How many previous slides are compared. */
const BEFORE = 2;
/** Arrangements that may follow each other without a penalty. */
const REGULAR: ReadonlySet<ArrangementName> = new Set([
  "points",
  "message",
  "table",
  "diagram",
  "comparison",
  "columns",
]);

/** Arrangements whose text is as large as that of other slides of the section. */
const SAME_SIZE: ReadonlySet<ArrangementName> = new Set(["comparison", "columns", "highlight"]);

/** A slide in one of its forms, with its score. */
interface Candidate {
  composed: Composed;
  score: number;
}

type Known = Pick<DeckMetadata, "theme" | "page" | "language"> & { candidates: Candidate[] };
const knownCandidates = new WeakMap<Composed, Known>();

/** Returns the forms of a slide that fit, each laid out and scored; the slide itself first. Cached. */
function candidatesOf(page: Composed, context: FitContext): Candidate[] {
  const { theme, page: size, language } = context.metadata;
  const known = knownCandidates.get(page);
  if (known && known.theme === theme && known.page === size && known.language === language) return known.candidates;
  const formed = FORMS.flatMap(({ of, reason, suits }) => {
    const made = of(page, language);
    return made ? [{ composed: { ...made, reason }, suits }] : [];
  });
  const scored = (composed: Composed, suits: number): Candidate[] => {
    if (SAME_SIZE.has(composed.arrangement) && !fitsAtSize(composed, 1, context)) return [];
    const scene = sceneOf(composed, context);
    return scene.overflow === 0 ? [{ composed, score: suits + LAYOUT * layoutScore(scene) }] : [];
  };
  const candidates = formed.length
    ? [...scored(page, POINTS), ...formed.flatMap(({ composed, suits }) => scored(composed, suits))]
    : [];
  knownCandidates.set(page, { theme, page: size, language, candidates });
  return candidates;
}

/**
 * Returns slides in the forms that suit their content: steps as a diagram, terms beside their explanations, one thought
 * as a statement, a number as a key figure. Every form that content can have is laid out; of those that fit at a size that
 * the last row reads, the best by what it suits and how it is laid out is taken.
 */
export function inForms(pages: readonly Composed[], context: FitContext): Composed[] {
  const taken: Composed[] = [];
  for (const page of pages) {
    const recent = new Set(taken.slice(-BEFORE).map(({ arrangement }) => arrangement));
    const worth = ({ composed: { arrangement }, score }: Candidate) =>
      score - (recent.has(arrangement) && !REGULAR.has(arrangement) ? REPEATED : 0);
    const ordered = candidatesOf(page, context).toSorted((a, b) => worth(b) - worth(a));
    taken.push(ordered.length ? must(ordered[0]).composed : page);
  }
  return taken;
}
