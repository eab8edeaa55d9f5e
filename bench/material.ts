import { type Deck, emptyDeck, newSlide, plainText, type RichText, run, type Slide, must } from "@unitext/core/model";

/** A generator of numbers with a fixed seed (a linear congruential generator with the constants of Numerical Recipes), so that every run has the same input. */
export function seeded(seed = 7): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 4294967296;
  };
}

const SYLLABLES = [
  "ma",
  "ri",
  "tu",
  "den",
  "sor",
  "ka",
  "lem",
  "vin",
  "po",
  "shal",
  "er",
  "gen",
  "ti",
  "dun",
  "wel",
  "bra",
  "no",
  "fis",
  "ul",
  "ter",
  "ham",
  "quo",
  "el",
  "san",
];

/** Made-up words of one to four syllables, the frequent ones short, about 8,000 different. */
export function words(count: number, random = seeded()): string[] {
  const vocabulary = Array.from({ length: 8000 }, () =>
    Array.from(
      { length: 1 + Math.floor(random() * 3.4) },
      () => SYLLABLES[Math.floor(random() * SYLLABLES.length)],
    ).join(""),
  );
  return Array.from({ length: count }, () => must(vocabulary[Math.floor(random() ** 2 * vocabulary.length)]));
}

/** Paragraphs of about 41 words, as a text with a mark between each. */
export function paragraphs(count: number, seed = 11): string[] {
  const random = seeded(seed);
  const all = words(count * 41, random);
  return Array.from({ length: count }, (_, nth) => `${all.slice(nth * 41, (nth + 1) * 41).join(" ")}.`);
}

function body(from: readonly string[]): RichText {
  return Array.from({ length: 5 }, (_, nth) => ({
    kind: "bullet" as const,
    level: nth % 2,
    runs: [
      run(`${from.slice(nth * 9, nth * 9 + 7).join(" ")} `),
      run(from[nth * 9 + 7] ?? "", ["strong"]),
      run(` ${from[nth * 9 + 8]}`),
    ],
  }));
}

/** A deck of slides with a title, five points and notes. */
export function deckOf(count: number): Deck {
  const all = words(count * 90, seeded(23));
  const slides = Array.from({ length: count }, (_, nth): Slide => {
    const own = all.slice(nth * 90, (nth + 1) * 90);
    return {
      ...newSlide(`s${nth}`, "points"),
      elements: [
        { kind: "text", id: `t${nth}`, slot: "title", text: plainText(own.slice(0, 5).join(" ")) },
        { kind: "text", id: `b${nth}`, slot: "body", text: body(own.slice(5, 50)) },
      ],
      notes: plainText(own.slice(50).join(" ")),
    };
  });
  return { ...emptyDeck("bench", "Bench"), slides };
}
