import { countWords, type PointFault } from "@unitext/core/model";
import { isWholeClause, POINT_WORDS } from "./compression";

/**
 * Makes points from paragraphs, each given as its sentences: for every sentence a point, or null where it gives none. The
 * engines are a table (`POINT_ENGINES`): `extract` takes points out of their sentences and is what decks are generated
 * with; `service` asks a service outside, where one is set up.
 */
export type PointEngine = (
  paragraphs: readonly (readonly string[])[],
  language: string,
) => Promise<(string | null)[][]>;

const NEGATION =
  /(?<![\p{L}])(?:not|no|none|never|neither|nor|nobody|nothing|without|cannot|nicht|kein\w*|nie|niemals|niemand|nichts|ohne|weder|nunca|nadie|nada|sin|ni|ningún\w*|ne|pas|jamais|personne|rien|sans|aucun\w*)(?![\p{L}])|n['’]t\b|(?<![\p{L}])n['’](?=\p{L})/iu;
const HEDGE =
  /(?<![\p{L}])(?:about|almost|nearly|roughly|approximately|at (?:most|least)|up to|less than|more than|may|might|perhaps|probably|usually|only|etwa|rund|ungefähr|knapp|höchstens|mindestens|bis zu|vielleicht|wahrscheinlich|meist|nur|unos|aproximadamente|casi|como máximo|al menos|hasta|quizás?|probablemente|sólo|solo|environ|presque|au plus|au moins|jusqu['’]à|peut-être|probablement|seulement)(?![\p{L}])/iu;
const NUMBER = /\d+(?:[.,:]\d+)*/g;
/** A word with a capital inside a text, which is a name where a language writes common nouns small. */
const NAME = /(?<=[\p{L}\d,;]\s)\p{Lu}[\p{L}\d-]+/gu;

const bare = (text: string): string => text.trim().replace(/[.!?]+$/u, "");
const numbersIn = (text: string): Set<string> => new Set(text.match(NUMBER) ?? []);
const wordsIn = (text: string): Set<string> => new Set(text.toLowerCase().match(/[\p{L}\d-]+/gu) ?? []);

/**
 * Returns what is wrong with a point for its sentence: every number, name, negation and limit has to be as in the sentence,
 * and the point has to be a whole clause of a point's length. Empty where it can be shown.
 */
export function pointFaults(sentence: string, point: string, language: string): PointFault[] {
  const faults: PointFault[] = [];
  const [source, made] = [numbersIn(sentence), numbersIn(point)];
  if ([...made].some((number) => !source.has(number))) faults.push("number");
  if ([...source].some((number) => !made.has(number))) faults.push("lost-number");
  const known = wordsIn(sentence);
  const names = language.toLowerCase().startsWith("de") ? [] : (point.match(NAME) ?? []);
  if (names.some((name) => !known.has(name.toLowerCase()))) faults.push("name");
  if (NEGATION.test(sentence) !== NEGATION.test(point)) faults.push("negation");
  if (HEDGE.test(sentence) && !HEDGE.test(point)) faults.push("hedge");
  if (countWords(point) > POINT_WORDS.most) faults.push("long");
  // A sentence without its full stop is a clause, whatever the tagger thinks of its verb.
  const isSentence = bare(point) === bare(sentence);
  if (!point.trim() || !(isSentence || isWholeClause(point, language))) faults.push("clause");
  return faults;
}
