import {
  type Comment,
  type Deck,
  elementWords,
  type Quote,
  quoteOf,
  rangeOfQuote,
  type Slide,
} from "@unitext/core/model";

/** A side of a translation: its text, and the language by which it is divided into sentences. */
interface Side {
  words: string;
  language: string;
}

/** A sentence of a text with its place. */
interface Sentence {
  start: number;
  end: number;
}

const sentencesOf = (line: string, at: number, language: string): Sentence[] =>
  [...new Intl.Segmenter(language, { granularity: "sentence" }).segment(line)].map(({ index, segment }) => ({
    start: at + index,
    end: at + index + segment.trimEnd().length,
  }));

/** Returns the sentences of each paragraph. */
function paragraphsOf({ words, language }: Side): Sentence[][] {
  let at = 0;
  return words.split("\n").map((line) => {
    const found = sentencesOf(line, at, language);
    at += line.length + 1;
    return found;
  });
}

/** Returns the quote in a translated text: the sentences that stand for those of the quoted words, else their paragraphs. */
function translatedQuote(quote: Quote, before: Side, after: Side): Quote | undefined {
  const range = rangeOfQuote(before.words, quote);
  if (!range) return undefined;
  const [from, to] = [paragraphsOf(before), paragraphsOf(after)];
  const touched = from.flatMap((sentences, paragraph) =>
    sentences.flatMap(({ start, end }, sentence) =>
      start < range.end && end > range.start ? [{ paragraph, sentence, count: sentences.length }] : [],
    ),
  );
  const places = touched.flatMap(({ paragraph, sentence, count }) => {
    const sentences = to[paragraph] ?? [];
    return sentences.length === count ? sentences.slice(sentence, sentence + 1) : sentences;
  });
  const [start, end] = [Math.min(...places.map((one) => one.start)), Math.max(...places.map((one) => one.end))];
  return places.length && end > start && end - start <= 2000 ? quoteOf(after.words, start, end) : undefined;
}

/** Returns a comment of a slide for its translation. Words that are the same in both stay quoted as they are. */
function translatedComment(comment: Comment, slide: Slide, made: Slide, languages: [string, string]): Comment {
  const { element, quote } = comment;
  if (!quote) return comment;
  const wordsIn = ({ elements }: Slide) => {
    const found = elements.find(({ id }) => id === element);
    return found ? elementWords(found) : "";
  };
  const [before, after] = [wordsIn(slide), wordsIn(made)];
  if (before === after) return comment;
  const next = translatedQuote(
    quote,
    { words: before, language: languages[0] },
    { words: after, language: languages[1] },
  );
  return next ? { ...comment, quote: next } : comment;
}

/**
 * Returns the slides of a translation with comments on the words that stand for those that they were on. Slides and
 * elements have the ids of the original, whose texts have as many paragraphs.
 */
export function withTranslatedComments(before: Deck, made: Deck): Deck {
  const originals = new Map(before.slides.map((slide) => [slide.id, slide]));
  const languages: [string, string] = [before.language, made.language];
  return {
    ...made,
    slides: made.slides.map((slide) => {
      const original = originals.get(slide.id);
      if (!original || !slide.comments?.some(({ quote }) => quote)) return slide;
      return {
        ...slide,
        comments: slide.comments.map((comment) => translatedComment(comment, original, slide, languages)),
      };
    }),
  };
}
