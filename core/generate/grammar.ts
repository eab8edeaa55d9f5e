/**
 * A word or sign of a sentence with its place and its part of speech (Universal Dependencies, universal POS tags, such as
 * NOUN, VERB, AUX, ADP, SCONJ).
 */
export interface Token {
  text: string;
  from: number;
  to: number;
  tag: string;
}

/** A stretch of a sentence, from the index of its first character to that after its last. */
export interface Range {
  from: number;
  to: number;
}

type Tagger = (sentence: string) => Token[];

/** The form of a Wink document that is read here. */
interface WinkDocument {
  tokens(): { out(what?: unknown): string[] };
}

let english: Tagger | undefined;

/**
 * Loads the tagger of English (wink-nlp with its web model, MIT). Until it is loaded, and in other languages, sentences are
 * not shortened. Everything that generates slides loads it first, so that the same text always gives the same slides.
 */
export async function loadGrammar(): Promise<void> {
  if (english) return;
  const [{ default: winkNLP }, { default: model }] = await Promise.all([
    import("wink-nlp"),
    import("wink-eng-lite-web-model"),
  ]);
  const nlp = winkNLP(model, ["sbd", "pos"]);
  english = (sentence) => {
    const tokens = (nlp.readDoc(sentence) as unknown as WinkDocument).tokens();
    const tags = tokens.out(nlp.its.pos);
    const found: Token[] = [];
    let at = 0;
    tokens.out().forEach((text, nth) => {
      const from = sentence.indexOf(text, at);
      if (from < 0) return;
      at = from + text.length;
      found.push({ text, from, to: at, tag: tags[nth] ?? "X" });
    });
    return found;
  };
}

/** Returns the tokens of a sentence; undefined in a language without a tagger, or before it is loaded. */
export function tokensOf(sentence: string, language: string): Token[] | undefined {
  return /^en\b/i.test(language) ? english?.(sentence) : undefined;
}
