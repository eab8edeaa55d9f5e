import {
  countWords,
  type Extra,
  footnotesOf,
  elementTexts,
  linksOf,
  type Paragraph,
  paragraphText,
  type RichText,
  run,
  type Run,
  type Slide,
  slideLink,
  deckLink,
  textHash,
  textOf,
} from "@unitext/core/model";
import type { Block, Manuscript } from "@unitext/core/text";
import type { Composed } from "./compose";
import { type Draft, emptyDraft } from "./draft";

/** The titles of added slides by language; English for others. */
const TITLES: Readonly<Record<string, { agenda: string; sources: string; closing: string }>> = {
  en: { agenda: "Agenda", sources: "Sources", closing: "Thank you" },
  de: { agenda: "Agenda", sources: "Quellen", closing: "Vielen Dank" },
  es: { agenda: "Agenda", sources: "Fuentes", closing: "Gracias" },
  fr: { agenda: "Sommaire", sources: "Sources", closing: "Merci" },
  it: { agenda: "Agenda", sources: "Fonti", closing: "Grazie" },
  pt: { agenda: "Agenda", sources: "Fontes", closing: "Obrigado" },
  nl: { agenda: "Agenda", sources: "Bronnen", closing: "Bedankt" },
};
const titlesIn = (language: string) => TITLES[language.slice(0, 2).toLowerCase()] ?? TITLES.en;

/** An agenda lists so many topics. */
const TOPICS = { least: 2, most: 10 } as const;

const plain = (text: string): RichText => [{ kind: "plain", level: 0, runs: [run(text)] }];

/** Returns a draft of a slide that no part of the text says. */
function added(
  manuscript: Manuscript,
  kind: Extra,
  title: string,
  text: RichText,
  { line, depth }: { line: number; depth: 1 | 2 },
): Draft {
  return {
    ...emptyDraft(),
    lines: { from: line, to: line },
    title: plain(title),
    depth,
    flow: text.length ? [{ kind: "text", text, lines: text.map(() => line) }] : [],
    made: [manuscript.front],
    key: `${kind}/${textHash(JSON.stringify([title, text]))}`,
  };
}

type Heading = Extract<Block, { kind: "heading" }>;

/** Returns the topics of a text: its headings of the highest level that has several, without the title of the deck. */
function topicsOf(blocks: readonly Block[], title: string | undefined): string[] {
  const headings = blocks.filter((block): block is Heading => block.kind === "heading");
  for (const depth of [1, 2, 3]) {
    const names = headings
      .filter((heading) => heading.depth === depth)
      .map(({ text }) => textOf(text).trim())
      .filter((name) => name && name !== title?.trim());
    const unique = [...new Set(names)];
    if (unique.length >= TOPICS.least) return unique.slice(0, TOPICS.most);
  }
  return [];
}

/** Returns the draft of an agenda; undefined for a text with a single topic. */
export function agendaDraft(manuscript: Manuscript, blocks: readonly Block[], language: string): Draft | undefined {
  const topics = topicsOf(blocks, manuscript.front.title);
  if (!topics.length) return undefined;
  const list = topics.map((topic): Paragraph => ({ kind: "bullet", level: 0, runs: [run(topic)] }));
  return added(manuscript, "agenda", titlesIn(language)?.agenda ?? "", list, {
    line: 1,
    depth: 2,
  });
}

/** Returns the draft of a closing slide with the author and event of the text. */
export function closingDraft(manuscript: Manuscript, language: string, line: number): Draft {
  const { author, event } = manuscript.front;
  const below = [author, event].filter((text): text is string => !!text).flatMap(plain);
  const title = titlesIn(language)?.closing ?? "";
  return added(manuscript, "closing", title, below, { line, depth: 1 });
}

/** The links and footnotes of slides, each once, in order. */
export class Sources {
  private readonly links = new Map<string, string>();
  private readonly footnotes = new Map<string, Run[]>();

  add({ elements }: Slide): void {
    for (const text of elements.flatMap(elementTexts)) {
      for (const { text: words, to } of linksOf(text))
        if (slideLink(to) === undefined && !deckLink(to) && !this.links.has(to)) this.links.set(to, words.trim());
      for (const footnote of footnotesOf(text)) {
        const words = footnote.map((item) => item.text).join("");
        if (!this.footnotes.has(words)) this.footnotes.set(words, [...footnote]);
      }
    }
  }

  /** Returns the draft of a slide that lists them; undefined where there is none. */
  draft(manuscript: Manuscript, language: string, line: number): Draft | undefined {
    const list: RichText = [
      ...[...this.footnotes.values()].map((runs): Paragraph => ({ kind: "plain", level: 0, runs })),
      ...[...this.links].map(([to, words]): Paragraph => {
        const address = to.replace(/^mailto:|^https?:\/\//, "").replace(/\/$/, "");
        const isAddress = words === to || words === address;
        const runs = isAddress ? [run(address, [], to)] : [run(`${words}: `), run(address, [], to)];
        return { kind: "plain", level: 0, runs };
      }),
    ];
    if (!list.length) return undefined;
    const title = titlesIn(language)?.sources ?? "";
    return added(manuscript, "sources", title, list, { line, depth: 2 });
  }
}

/** The most words of the line that says what a section holds. */
const CONTENTS = 24;

/** Returns the slides of a section, its opener with a line that names what it holds; unchanged where it says something. */
export function withContents(section: readonly Composed[]): Composed[] {
  const [opener, ...pages] = section;
  if (opener?.arrangement !== "section" || opener.flow.length || pages.length < 2) return [...section];
  const names = [...new Set(pages.map(({ title }) => titleOf(title)))].filter(
    (name) => name && name !== titleOf(opener.title),
  );
  let line = "";
  for (const name of names) {
    const next = line ? `${line} · ${name}` : name;
    if (countWords(next) > CONTENTS) break;
    line = next;
  }
  if (!line) return [...section];
  return [{ ...opener, flow: [{ kind: "text", text: plain(line), lines: [1] }] }, ...pages];
}

/** Returns the heading that a title has, without what continued slides add. */
const titleOf = (title: RichText | null): string =>
  (title ?? [])
    .map(paragraphText)
    .join(" ")
    .replace(/\s*\(\d+ \S+ \d+\)$/u, "")
    .split(": ")[0]
    ?.trim() ?? "";
