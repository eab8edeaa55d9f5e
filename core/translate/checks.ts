import { codeFaults, type Piece, wordsOf } from "./coded";
import { numbersIn } from "./numbers";
import type { TranslationFinding } from "./findings";
import { missedTerms, type Term } from "./terms";
import { TYPOGRAPHY } from "./typography";

interface Checked {
  source: readonly Piece[];
  target: readonly Piece[];
  from: string;
  to: string;
  terms?: readonly Term[];
}

const list = (numbers: readonly number[]) => numbers.join(", ");

/** Returns the final punctuation mark of a text as its Latin equivalent; empty if there is none. */
function endOf(text: string): string {
  const last = text.replace(/["'”“’»«)\]\s]+$/u, "").slice(-1);
  const kinds: Record<string, string> = {
    "。": ".",
    "．": ".",
    "।": ".",
    "۔": ".",
    "？": "?",
    "؟": "?",
    "！": "!",
    "：": ":",
    "…": "…",
  };
  const kind = kinds[last] ?? last;
  return /[.?!:…]/.test(kind) ? kind : "";
}

/** Returns how many brackets of each kind a text opens and closes. */
const bracketsOf = (text: string) =>
  ["(", ")", "[", "]"]
    .map(
      (sign) =>
        text.split(sign).length -
        1 +
        (sign === "(" ? text.split("（").length - 1 : sign === ")" ? text.split("）").length - 1 : 0),
    )
    .join();

const CHECKS: readonly ((checked: Checked, words: { source: string; target: string }) => TranslationFinding[])[] = [
  ({ source, target }) => {
    const { missing, wrong } = codeFaults(source, target);
    return [
      ...(missing.length
        ? [{ fault: "placeholder-missing" as const, sentence: `Placeholder ${list(missing)} is missing.` }]
        : []),
      ...(wrong.length
        ? [
            {
              fault: "placeholder-wrong" as const,
              sentence: `Placeholder ${list(wrong)} is doubled, crossed or unknown.`,
            },
          ]
        : []),
    ];
  },
  (_, { source, target }) =>
    source.trim() === target.trim() && /\p{L}{4}/u.test(source)
      ? [{ fault: "same", sentence: "The translation is the same as the source." }]
      : [],
  ({ from, to }, { source, target }) => {
    const values = (text: string, language: string) =>
      numbersIn(text, language)
        .map(({ value }) => value)
        .sort((a, b) => a - b);
    const [was, is] = [values(source, from), values(target, to)];
    return JSON.stringify(was) === JSON.stringify(is)
      ? []
      : [
          {
            fault: "number",
            sentence: `The numbers differ: ${was.join("; ") || "none"} in the source, ${is.join("; ") || "none"} here.`,
          },
        ];
  },
  ({ terms = [], from, to }, { source, target }) => missedTerms(terms, source, target, from, to),
  (_, { source, target }) => {
    const doubled = /(?<!\p{L})(\p{L}{2,})\s+\1(?!\p{L})/iu.exec(target)?.[1];
    return doubled && !/(?<!\p{L})(\p{L}{2,})\s+\1(?!\p{L})/iu.test(source)
      ? [{ fault: "repeated", sentence: `The word “${doubled}” stands twice.` }]
      : [];
  },
  (_, { source, target }) =>
    / {2}/.test(target) && !/ {2}/.test(source)
      ? [{ fault: "spaces", sentence: "There are two spaces side by side." }]
      : [],
  (_, { source, target }) =>
    endOf(source) === endOf(target)
      ? []
      : [
          {
            fault: "ending",
            sentence: `The source ends with “${endOf(source) || "no sign"}”, the translation with “${endOf(target) || "no sign"}”.`,
          },
        ],
  (_, { source, target }) =>
    bracketsOf(source) === bracketsOf(target)
      ? []
      : [{ fault: "brackets", sentence: "The brackets differ from those of the source." }],
];

/** Checks a translation against its source: placeholders, numbers, terms, punctuation. Returns nothing for a sound one. */
export function checkTranslation(checked: Checked): TranslationFinding[] {
  const words = { source: wordsOf(checked.source), target: wordsOf(checked.target) };
  if (words.target.trim() === "") return [{ fault: "empty", sentence: "There is no translation yet." }];
  const { from, to } = checked;
  return [
    ...CHECKS.flatMap((check) => check(checked, words)),
    ...TYPOGRAPHY.flatMap((check) => check({ ...words, from, to })),
  ];
}
