import { type DeckHead, Language, pageNamed, THEMES, type Theme, type ThemeKey } from "@unitext/core/model";
import type { FrontMatter, Problem } from "@unitext/core/text";

function themeNamed(name: string): Theme | undefined {
  if (name in THEMES) return THEMES[name as ThemeKey];
  return Object.values(THEMES).find((theme) => theme.name.toLowerCase() === name.toLowerCase());
}

/** What the front matter says of the deck, put over a head; what cannot be taken is added to `problems`. */
export function headFrom(front: FrontMatter, head: DeckHead, problems: Problem[]): DeckHead {
  const theme = front.theme === undefined ? undefined : themeNamed(front.theme);
  const page = front.page === undefined ? undefined : pageNamed(front.page);
  const language = front.language === undefined ? undefined : Language.safeParse(front.language).data;
  const say = (key: string, value: unknown, hint: string) =>
    problems.push({ line: 1, message: `“${key}: ${value}” is passed over. ${hint}` });
  if (front.theme !== undefined && !theme) say("theme", front.theme, `Themes are ${Object.keys(THEMES).join(", ")}.`);
  if (front.page !== undefined && !page)
    say("page", front.page, "A page is 16:9, 16:10, 4:3 or its size in points such as 960x540.");
  if (front.language !== undefined && !language)
    say("language", front.language, "A language is a tag such as en or pt-BR.");
  const rate = front.rate !== undefined && front.rate >= 40 && front.rate <= 400 ? front.rate : undefined;
  if (front.rate !== undefined && rate === undefined)
    say("rate", front.rate, "A speaking rate is 40 to 400 words a minute.");
  return {
    ...head,
    properties: {
      title: front.title ?? head.properties.title,
      author: front.author ?? head.properties.author,
      event: front.event ?? head.properties.event,
      date: front.date ?? head.properties.date,
    },
    language: language ?? head.language,
    theme: theme ?? head.theme,
    page: page ?? head.page,
    regions: { footer: front.footer ?? head.regions.footer, number: front.numbers ?? head.regions.number },
    rate: rate ?? head.rate,
  };
}
