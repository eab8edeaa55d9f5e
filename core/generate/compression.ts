import { countWords } from "@unitext/core/model";
import { type Token, tokensOf, type Range } from "./grammar";
import { withoutSubordinates } from "./subordinates";

/** The words that a point should have at most, and how many one may have that cannot be shortened (common practice, no source). */
export const POINT_WORDS = { wanted: 14, most: 24 } as const;

/** A sentence of so many words is short. */
const SHORT = 8;

const NOMINAL = new Set(["NOUN", "PROPN", "PRON", "NUM", "SYM"]);
const VERBAL = new Set(["VERB", "AUX"]);
/** Words after which a clause cannot end. */
const OPEN_END = new Set(["ADP", "DET", "CCONJ", "SCONJ"]);
const OPEN_WORDS =
  /^(?:an?|the|of|to|and|or|but|nor|with|without|for|from|by|as|than|that|which|who|whose|whom|where|when|while|if|because|although|into|onto|per|via|is|are|was|were|be|been|has|have|had|will|would|can|could|may|might|shall|should|must|not|e\.g|i\.e)$/i;

/** What a clause loses its truth without: numbers, negations, hedges and conditions. */
const TELLING =
  /\d|\b(?:not|no|none|never|neither|nor|nobody|nothing|without|cannot|except|unless|only|about|almost|nearly|roughly|approximately|at (?:most|least)|up to|less than|more than|may|might|perhaps|probably|usually|generally|normally|typically|in (?:general|principle|theory|practice|(?:most|some|many) cases)|often|sometimes|mostly|mainly|partly|possibly|likely|unlikely|rarely|seldom|hardly|fail(?:s|ed)?|if|when|whenever|wherever|until|once|zero|one|two|three|four|five|six|seven|eight|nine|ten|hundred|thousand|half|twice)\b|n['’]t\b|%/i;
/** Bracketed text that only refers: to a source, a figure, a section. */
const REFERENCE =
  /^\s*[([]\s*(?:see\b|cf\b|fig|table|section|chapter|eq|p\.|pp\.|ref|\d{1,3}\s*[\])]|[\p{Lu}][^()]*\b\d{4}[a-z]?\s*[)\]])/iu;

/** “These …”, “this …” inside a sentence, which name something said before, except the text itself. */
const INNER =
  /\b(?:these|those)\b|\sthis (?:(?:is|was|means|has|can|may|will|would|must|should|does|did|gives|makes)\b|(?!(?:chapter|section|manual|document|guide|handbook|book|paper|report|course|lecture|page|article|study|way|year|month|week|day)\b)[a-z]+\b(?=[\s.,;]*$|\s+(?:of|in|on|at|to|for|by|with|and|or|is|are|was|were|can|may|will)\b))/i;

/** Beginnings that need the sentence before: pronouns and connectives whose partner is elsewhere. */
const ANAPHOR =
  /^(?:they|them|he|she|his|her|hers|their|theirs|its|these|those|such|both|neither|either|another|others?|the (?:former|latter|other|others|same|second|third|next)|each of|all of (?:these|this|them)|some of (?:these|them)|so|then|also|but|and|or|nor|yet|instead|otherwise|hence|thus|therefore|however|again|here|there(?!\s+(?:is|are|was|were|will|has|have|can|may)\b)|one of (?:these|them)|for (?:this|that|these|those)|in (?:this|that|these|those|such)|at (?:this|that)|to do (?:so|this)|as (?:above|before|such)|if so|on the other|in other words|(?:first|second|third|fourth|last|next|finally)(?:ly)?\b)/i;
/** “It” that stands for nothing before it (“It is important to …”), against one that does. */
const EXPLETIVE =
  /^it (?:(?:is|was|may be|might be|can be|will be|would be) (?:\w+ly |also |often |always |usually |very |more |most |not )*(?:important|essential|possible|impossible|necessary|likely|unlikely|easy|easier|hard|harder|difficult|useful|useless|better|best|worth|clear|true|recommended|advisable|common|good|sufficient|enough|safe|safer|time|customary|usual|helpful|wise|sensible)\b|seems\b|appears\b|takes?\b|makes sense\b|turns out\b)/i;
const DEMONSTRATIVE = /^(?:this|that)\b/i;
/** What “this …” at the beginning names by itself. */
const SELF =
  /^this (?:\w+ )?(?:chapter|section|manual|document|guide|handbook|book|paper|report|course|lecture|page|article|study|work|tutorial|policy|standard|specification)\b/i;
/** Words that send the reader to another place of the document, or to what a result is of. */
const POINTER =
  /^(?:see|refer to|cf)\b|^the (?:result|resulting|above|following)\b|\b(?:like (?:this|these|those|that)\b|these \w+$|the following|as follows|(?:shown|described|mentioned|listed|given|discussed|explained|see|seen|noted) (?:above|below|earlier|later|previously)|(?:above|below)\.?$|like (?:this|so)\b|(?:want|do|use|with|by|of|for|to|in|on|than|like|from|about|after|before) (?:this|these|those)(?=[\s.,;]*$|\s+(?:to|is|was|by|in|with|and)\b))/i;

/** Connectives at the beginning that add nothing to the sentence alone. */
const CONNECTIVE =
  /^(?:however|moreover|furthermore|in addition|additionally|therefore|thus|hence|for example|for instance|as a result|consequently|in contrast|by contrast|on the other hand|nevertheless|nonetheless|finally|in fact|of course|in short|in other words|similarly|likewise|meanwhile|accordingly|that said|above all|note that|please note that|also|obviously|clearly|naturally|unfortunately|fortunately|interestingly|indeed|then),?\s+/i;

/** A sentence under shortening: what is left of it. */
class Clause {
  private readonly gone: Range[] = [];
  private counted: { gone: number; words: number } | undefined;

  constructor(
    readonly sentence: string,
    readonly tokens: readonly Token[],
  ) {}

  get ranges(): Range[] {
    const sorted = [...this.gone].sort((a, b) => a.from - b.from);
    const left: Range[] = [];
    let at = 0;
    for (const { from, to } of sorted) {
      if (from > at) left.push({ from: at, to: from });
      at = Math.max(at, to);
    }
    if (at < this.sentence.length) left.push({ from: at, to: this.sentence.length });
    return left;
  }

  get text(): string {
    return this.ranges.map(({ from, to }) => this.sentence.slice(from, to)).join("");
  }

  /** The number of words that are left; counted again only after something was taken out. */
  get words(): number {
    if (this.counted?.gone !== this.gone.length)
      this.counted = { gone: this.gone.length, words: countWords(this.text) };
    return this.counted.words;
  }

  get left(): Token[] {
    return this.tokens.filter(({ from }) => !this.gone.some((range) => from >= range.from && from < range.to));
  }

  drop(range: Range): void {
    this.gone.push(range);
  }

  /** Whether a stretch may go: it holds no number, negation, hedge or condition. */
  isSpare({ from, to }: Range): boolean {
    return !TELLING.test(this.sentence.slice(from, to));
  }
}

/** Verbs that begin no order. */
const MODAL = /^(?:can|could|will|would|may|might|shall|should|must|is|are|am|was|were|has|have|had|does|did)$/i;

/** Whether a verb is that of a relative clause: “the page that says …”. */
function isOfRelative(tokens: readonly Token[], verb: number): boolean {
  let before = verb - 1;
  while (before > 0 && /^(?:ADV|PART|AUX)$/.test(tokens[before]?.tag ?? "")) before -= 1;
  return before > 0 && /^(?:that|which|who|what)$/i.test(tokens[before]?.text ?? "");
}

/** Whether tokens are a whole clause: something nominal before a finite verb, “there is …”, or an order. */
export function isClause(tokens: readonly Token[]): boolean {
  const first = tokens.find(({ tag }) => tag !== "PUNCT");
  if (!first) return false;
  const verb = tokens.findIndex(
    ({ tag, text }, nth) =>
      VERBAL.has(tag) &&
      !/ing$/i.test(text) &&
      !/^to$/i.test(tokens[nth - 1]?.text ?? "") &&
      !isOfRelative(tokens, nth),
  );
  if (verb < 0) return false;
  if (tokens.slice(0, verb).some(({ tag }) => NOMINAL.has(tag) || tag === "DET")) return true;
  if (/^there$/i.test(first.text)) return true;
  // An order begins with its verb, or with an adverb or “do not” before it; “has” and “forces” are no orders.
  const [order] = tokens.slice(verb);
  if (
    order &&
    /(?:[^s]s|ed)$/i.test(order.text) &&
    !/^(?:focus|bias|need|feed|proceed|embed|speed|seed)$/i.test(order.text)
  )
    return false;
  return tokens.slice(0, verb).every(({ tag }) => tag === "ADV" || tag === "PART" || tag === "AUX" || tag === "INTJ");
}

/**
 * Whether a short sentence has a verb that the tagger takes for a plural: “The tide rises.”, “Figure 2 shows the classes.”
 */
function hasHiddenVerb(sentence: string, tokens: readonly Token[]): boolean {
  if (!/[.!]["”’)]*$/.test(sentence) || tokens.length > SHORT + 1) return false;
  const words = tokens.filter(({ tag }) => tag !== "PUNCT");
  return words.some(({ tag, text }, nth) => {
    const before = words[nth - 1];
    const isPlural = tag === "NOUN" && /[^su]s$/i.test(text) && before !== undefined && NOMINAL.has(before.tag);
    return isPlural && (nth < words.length - 1 || words[0]?.tag === "DET");
  });
}

/** The least share of letters among the characters of a sentence; below it are dumps of data, rules and addresses. */
const LETTERS = 0.7;

/** Whether a text is made of words, and is not in brackets, a question, or a list that trails off. */
function isProse(text: string): boolean {
  const signs = text.replace(/\s+/g, "");
  const letters = signs.replace(/[^\p{L}\p{M}]+/gu, "").length;
  return letters >= signs.length * LETTERS && !/^[([].*[)\]]\.?$|(?:\.{2,}|…|\?)["”’)]*$/u.test(text.trim());
}

/** Takes out what stands in brackets. */
function withoutBrackets(clause: Clause): void {
  for (const found of clause.sentence.matchAll(/\s*(?:\([^()]*\)|\[[^[\]]*\])/g)) {
    const range = { from: found.index, to: found.index + found[0].length };
    // “as in [10]” and “that of [9]” need their reference.
    const isNeeded = OPEN_WORDS.test(/[\p{L}.]+\s*$/u.exec(clause.sentence.slice(0, found.index))?.[0].trim() ?? "");
    if (found.index > 0 && !isNeeded && (REFERENCE.test(found[0]) || clause.isSpare(range))) clause.drop(range);
  }
}

/** Takes out what stands between two dashes. */
function withoutDashes(clause: Clause): void {
  for (const found of clause.sentence.matchAll(/\s[–—-]{1,2}\s[^–—]*?\s[–—-]{1,2}(?=\s)/g)) {
    const range = { from: found.index, to: found.index + found[0].length };
    if (clause.isSpare(range)) clause.drop(range);
  }
}

/** Returns the commas, semicolons and dashes at which a clause may end, outside brackets and quotations. */
function breaksOf({ sentence, tokens }: Clause): number[] {
  let depth = 0;
  let quoted = false;
  return tokens.flatMap(({ text, from }, nth) => {
    if (/^[([{]$/.test(text)) depth += 1;
    else if (/^[)\]}]$/.test(text)) depth -= 1;
    else if (/^["“”«»]$/.test(text)) quoted = !quoted;
    else if (depth === 0 && !quoted && /^[,;–—]$/.test(text) && nth > 0 && /\s/.test(sentence[from + 1] ?? " "))
      return [nth];
    return [];
  });
}

/** Whether a comma is one of a list: “silence, white noise, and music”. */
function isListComma(tokens: readonly Token[], comma: number, breaks: readonly number[]): boolean {
  const next = breaks.find((one) => one > comma) ?? tokens.length;
  const after = tokens.slice(comma + 1, next);
  // A short stretch without a verb between commas, or up to “and”, is an item.
  const item = after.slice(
    0,
    Math.max(
      0,
      after.findIndex(({ tag }) => tag === "CCONJ"),
    ) || after.length,
  );
  const hasVerb = item.some(({ tag }) => VERBAL.has(tag));
  const conjoined = after[0]?.tag === "CCONJ" && !after.slice(1, 10).some(({ tag }) => VERBAL.has(tag));
  return conjoined || (!hasVerb && tokens.slice(comma + 1).some(({ tag }) => tag === "CCONJ") && item.length <= 8);
}

const RELATIVE = /^(?:which|who|whose|whom|where)$/i;
const REASON = /^(?:because|since|although|though|whereas|while|as|so)$/i;

/** Takes off what follows the main clause: a relative clause, a reason, a participle, a second clause. */
function withoutTail(clause: Clause): void {
  const { tokens, sentence } = clause;
  const breaks = breaksOf(clause);
  for (const nth of [...breaks].reverse()) {
    if (clause.words <= POINT_WORDS.wanted) return;
    const here = tokens[nth];
    const next = tokens[nth + 1];
    if (!here || !next || here.from >= (clause.ranges.at(-1)?.to ?? 0)) continue;
    const end = clause.ranges.at(-1)?.to ?? sentence.length;
    const range = { from: here.from, to: end };
    const before = tokens.slice(0, nth).filter((token) => clause.left.includes(token));
    if (!clause.isSpare(range) || !isClause(before) || isListComma(tokens, nth, breaks)) continue;
    const after = tokens.slice(nth + 1);
    const isRelative =
      RELATIVE.test(next.text) ||
      (/^(?:in|of|for|to|by|with)$/i.test(next.text) && RELATIVE.test(after[1]?.text ?? ""));
    const isReason = REASON.test(next.text);
    const isParticiple = next.tag === "VERB" && /ing$/i.test(next.text);
    const isExample = /^(?:including|especially|particularly|such|like|e\.g|i\.e|namely|for)$/i.test(next.text);
    const isLast = breaks.every((one) => one <= nth || isListComma(tokens, one, breaks));
    const isSecond =
      (isLast && next.tag === "CCONJ" && isClause(after.slice(1)) && !/^or$/i.test(next.text)) ||
      (here.text === ";" && isClause(after)) ||
      (/^[–—]$/.test(here.text) && isClause(before));
    if (isRelative || isReason || isParticiple || isExample || isSecond) clause.drop(range);
  }
}

/** Takes off an adverbial phrase before the subject: a time, a place; never a condition. */
function withoutLead(clause: Clause): void {
  if (clause.words <= POINT_WORDS.wanted) return;
  const { tokens, sentence } = clause;
  const left = clause.left;
  const [first] = left;
  if (!first) return;
  const comma = breaksOf(clause).find((nth) => (tokens[nth]?.from ?? 0) > first.from);
  const sign = comma === undefined ? undefined : tokens[comma];
  if (comma === undefined || sign?.text !== ",") return;
  const lead = tokens.slice(tokens.indexOf(first), comma);
  const rest = tokens.slice(comma + 1).filter((token) => left.includes(token));
  const range = { from: first.from, to: rest[0]?.from ?? sentence.length };
  const isAdverbial =
    first.tag === "ADP" || first.tag === "ADV" || /^(?:as|while|since|because|although|though)$/i.test(first.text);
  if (!isAdverbial || lead.length > 14 || !clause.isSpare(range) || !isClause(rest)) return;
  if (
    !rest[0] ||
    RELATIVE.test(rest[0].text) ||
    VERBAL.has(rest[0].tag) ||
    rest[0].tag === "CCONJ" ||
    isListComma(tokens, comma, breaksOf(clause))
  )
    return;
  clause.drop(range);
}

const OPENING = /[([{“«]/g;
const CLOSING = /[)\]}”»]/g;

/** Whether brackets and quotation marks of a text are closed. */
function isBalanced(text: string): boolean {
  const straight = (text.match(/"/g) ?? []).length;
  return (text.match(OPENING) ?? []).length === (text.match(CLOSING) ?? []).length && straight % 2 === 0;
}

/** Whether a text stands alone: it begins with its subject and not with what refers to another sentence. */
export function standsAlone(text: string): boolean {
  const words = text.trim();
  if (MODAL.test(/^\p{L}+/u.exec(words)?.[0] ?? "")) return false;
  if (/^it\b/i.test(words)) return EXPLETIVE.test(words);
  // “This is …” refers back; “This manual describes …” names what it is about.
  if (DEMONSTRATIVE.test(words)) return SELF.test(words);
  return !ANAPHOR.test(words) && !POINTER.test(words) && !INNER.test(words);
}

/** Whether a text can end where it does. */
function endsWell(text: string, tokens: readonly Token[]): boolean {
  const last = tokens.filter(({ tag }) => tag !== "PUNCT").at(-1);
  if (!last || /[:,–—-]\s*$/.test(text.trim())) return false;
  return (
    !OPEN_WORDS.test(last.text) &&
    !(
      OPEN_END.has(last.tag) &&
      !/^(?:in|out|up|down|off|on|over|away|back|through|below|above|before|after|this|that|these|those|all|both|each|some|any|so)$/i.test(
        last.text,
      )
    )
  );
}

/** Sentences of languages without a tagger that cannot stand alone begin so. */
const FOREIGN_ANAPHOR: Readonly<Record<string, RegExp>> = {
  de: /^(?:er|sie|es (?!ist|gibt)|dies(?:e[rsmn]?)?|jene[rsmn]?|dabei|dadurch|damit|daher|deshalb|danach|dann|jedoch|aber|und|oder|auch|außerdem|zudem|hier|dort|so)\b/i,
  es: /^(?:ést?[aeo]s?|est[aeo]s?|ellos?|ellas?|él|también|además|sin embargo|pero|y|o|así|entonces|luego|por eso|aquí|allí)\b/i,
  fr: /^(?:il(?!\s+(?:y a|faut|est))|elles?|ils|ce(?:ci|la|lui|lle|ux|lles)?|cette|ces|aussi|mais|et|ou|donc|ainsi|alors|puis|ici|de plus|en outre|cependant)\b/i,
};

/** Connectives of other languages that add nothing to a sentence alone. */
const FOREIGN_CONNECTIVE: Readonly<Record<string, RegExp>> = {
  de: /^(?:außerdem|zudem|ferner|dagegen|schließlich|zum beispiel|allerdings),\s+/i,
  es: /^(?:sin embargo|además|por tanto|por lo tanto|por ejemplo|en cambio|finalmente|así pues|de hecho),\s+/i,
  fr: /^(?:cependant|de plus|en outre|par exemple|par conséquent|en revanche|enfin|en effet|toutefois|ainsi),\s+/i,
};

/**
 * Returns what stays of a sentence as a point; undefined when it cannot be one: it is no whole clause, refers to another
 * sentence, or is too long and cannot be shortened. Shortening takes out whole constituents until the point is short enough,
 * as Hedge Trimmer does (Dorr, Zajic and Schwartz 2003, “Hedge Trimmer: A Parse-and-Trim Approach to Headline Generation”):
 * connectives, brackets, adverbials before the subject, clauses after the main clause. Numbers, negations, hedges and
 * conditions are never taken out. Words stay in their order.
 */
export function compressed(sentence: string, language: string): Range[] | undefined {
  if (!isProse(sentence)) return undefined;
  const tokens = tokensOf(sentence, language);
  const whole = [{ from: 0, to: sentence.length }];
  if (!tokens) return compressedWithoutTags(sentence, language);
  const clause = new Clause(sentence, tokens);
  const connective = CONNECTIVE.exec(sentence);
  if (connective && isClause(tokens.filter(({ from }) => from >= connective[0].length)))
    clause.drop({ from: 0, to: connective[0].length });
  if (clause.words > POINT_WORDS.wanted) withoutBrackets(clause);
  if (clause.words > POINT_WORDS.wanted) withoutDashes(clause);
  withoutTail(clause);
  withoutLead(clause);
  withoutTail(clause);
  const { text, left } = clause;
  if (clause.words > POINT_WORDS.most || !isBalanced(text) || !standsAlone(text)) return undefined;
  const isWhole = clause.words === countWords(sentence);
  if (!(isClause(left) || (isWhole && hasHiddenVerb(sentence, tokens))) || !endsWell(text, left)) return undefined;
  return isWhole ? whole : clause.ranges;
}

/** Whether a text is a whole clause, as far as the grammar of its language is known; it may refer to another sentence. */
export function isWholeClause(text: string, language: string): boolean {
  const tokens = tokensOf(text, language);
  if (!isBalanced(text)) return false;
  return tokens
    ? (isClause(tokens) || hasHiddenVerb(/[.!?]$/.test(text) ? text : `${text}.`, tokens)) && endsWell(text, tokens)
    : !/[,:–—-]\s*$/.test(text);
}

function compressedWithoutTags(sentence: string, language: string): Range[] | undefined {
  const short = language.slice(0, 2).toLowerCase();
  const english = short === "en";
  const connective = (english ? CONNECTIVE : FOREIGN_CONNECTIVE[short])?.exec(sentence)?.[0].length ?? 0;
  const text = sentence.slice(connective);
  const refers = english ? !standsAlone(text) : (FOREIGN_ANAPHOR[short]?.test(text) ?? false);
  if (refers || /[:,]\s*$/.test(text) || !isBalanced(text)) return undefined;
  const kept = withoutSubordinates(text, language, POINT_WORDS.wanted) ?? [{ from: 0, to: text.length }];
  const left = kept.map(({ from, to }) => text.slice(from, to)).join("");
  if (countWords(left) > POINT_WORDS.most || !isBalanced(left)) return undefined;
  return kept.map(({ from, to }) => ({ from: from + connective, to: to + connective }));
}
