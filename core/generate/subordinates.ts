import { countWords } from "@unitext/core/model";
import type { Range } from "./grammar";

/**
 * The words of a language by which subordinate clauses are found without a tagger: those that begin one after a comma, and
 * what a sentence loses its truth without.
 */
interface ClauseWords {
  /** Begins a reason, a concession, a comparison. */
  conjunction: RegExp;
  /** Begins a relative clause. */
  relative: RegExp;
  /** Negations, hedges and conditions; a clause with one of them is kept. */
  telling: RegExp;
}

const WORDS: Readonly<Record<string, ClauseWords>> = {
  de: {
    conjunction: /^(?:weil|da|obwohl|obgleich|während|wobei|wodurch|womit|worauf|sodass|so dass|indem|nachdem|denn)\s/i,
    relative:
      /^(?:(?:in|an|auf|mit|von|aus|bei|nach|zu|für|durch|unter|über) )?(?:der|die|das|den|dem|deren|dessen|denen|welche[rsnm]?)\s/i,
    telling:
      /\d|(?<!\p{L})(?:nicht|kein\w*|nie|niemals|niemand|nichts|ohne|nur|etwa|rund|ungefähr|fast|kaum|höchstens|mindestens|bis|wenn|falls|sofern|außer|vielleicht|wahrscheinlich|meist\w*|oft|manchmal|selten|kann|können|könnte\w*|dürfte\w*|ein(?:s|en|e)?|zwei|drei|vier|fünf|sechs|sieben|acht|neun|zehn|hälfte)(?!\p{L})|%/iu,
  },
  fr: {
    conjunction: /^(?:parce qu[e']|car|puisqu[e']|bien qu[e']|alors qu[e']|tandis qu[e']|ce qui|ce que|quoiqu[e'])/i,
    relative:
      /^(?:qui|dont|où|lequel|laquelle|lesquels|lesquelles|(?:avec|pour|dans|par|sur) (?:qui|le\w*quel\w*|laquelle))\s/i,
    telling:
      /\d|(?<!\p{L})(?:ne|pas|jamais|aucun\w*|rien|personne|sans|seulement|environ|presque|au (?:plus|moins)|jusqu|si|sauf|peut|peuvent|pourrai\w*|probablement|souvent|parfois|rarement|un|une|deux|trois|quatre|cinq|six|sept|huit|neuf|dix|moitié)(?!\p{L})|n['’]|%/iu,
  },
  es: {
    conjunction: /^(?:porque|ya que|puesto que|aunque|mientras que|lo que|lo cual|pues)\s/i,
    relative:
      /^(?:que|quien|quienes|cuyo|cuya|cuyos|cuyas|donde|(?:en|con|por|para|de) (?:el|la|los|las) (?:que|cual|cuales))\s/i,
    telling:
      /\d|(?<!\p{L})(?:no|nunca|jamás|nadie|nada|ningún\w*|ningun[ao]s?|sin|solo|sólo|unos|casi|como (?:máximo|mínimo)|al menos|hasta|si|salvo|puede|pueden|podría\w*|quizás?|probablemente|a menudo|a veces|rara vez|un|una|dos|tres|cuatro|cinco|seis|siete|ocho|nueve|diez|mitad)(?!\p{L})|%/iu,
  },
};

/** The fewest words of a main clause. */
const LEAST = 4;

/**
 * Returns a sentence without subordinate clauses between commas or at its end, one after the other from the last, until it
 * has no more words than wanted; in German, French and Spanish, whose subordinate clauses begin with words of a closed class.
 * What comes before the subject stays, since a verb may stand in its place. Returns undefined in other languages.
 */
export function withoutSubordinates(sentence: string, language: string, wanted: number): Range[] | undefined {
  const words = WORDS[language.slice(0, 2).toLowerCase()];
  if (!words) return undefined;
  const commas = [...sentence.matchAll(/[,;]\s+/g)].map(({ index, 0: sign }) => ({
    at: index,
    after: index + sign.length,
  }));
  const end = sentence.replace(/[.!?]["”’»)]*\s*$/u, "").length;
  let kept: Range[] = [{ from: 0, to: sentence.length }];
  const text = () => kept.map(({ from, to }) => sentence.slice(from, to)).join("");
  const drop = (from: number, to: number) => {
    kept = kept.flatMap((range) => [
      ...(range.from < from ? [{ from: range.from, to: Math.min(range.to, from) }] : []),
      ...(range.to > to ? [{ from: Math.max(range.from, to), to: range.to }] : []),
    ]);
  };
  for (let nth = commas.length - 1; nth >= 0 && countWords(text()) > wanted; nth--) {
    const comma = commas[nth];
    if (!comma) continue;
    const clause = sentence.slice(comma.after, end);
    const isRelative = words.relative.test(clause);
    if (!isRelative && !words.conjunction.test(clause)) continue;
    // A relative clause ends at the next comma, where the main clause goes on; others end the sentence.
    const next = commas[nth + 1];
    const to = isRelative && next ? next.at + 1 : end;
    const before = sentence.slice(0, comma.at);
    if (countWords(before) < (isRelative && next ? 1 : LEAST)) continue;
    if (words.telling.test(sentence.slice(comma.after, to))) continue;
    drop(comma.at, to);
  }
  return kept;
}
