import { type DeckMetadata, Language, OFFERED_DESIGNS, pageNamed, themeNamed } from "@unitext/core/model";
import type { FrontMatter, Problem } from "@unitext/core/text";

/** Returns metadata with what the front matter sets. Invalid values are added to `problems`. */
export function metadataFrom(front: FrontMatter, metadata: DeckMetadata, problems: Problem[]): DeckMetadata {
  const theme = front.theme === undefined ? undefined : themeNamed(front.theme);
  const page = front.page === undefined ? undefined : pageNamed(front.page);
  const language = front.language === undefined ? undefined : Language.safeParse(front.language).data;
  const say = (key: string, value: unknown, hint: string) =>
    problems.push({ line: 1, message: `“${key}: ${value}” is passed over. ${hint}` });
  if (front.theme !== undefined && !theme) say("theme", front.theme, `Themes are ${OFFERED_DESIGNS.join(", ")}.`);
  if (front.page !== undefined && !page)
    say("page", front.page, "A page is 16:9, 16:10, 4:3 or its size in points such as 960x540.");
  if (front.language !== undefined && !language)
    say("language", front.language, "A language is a tag such as en or pt-BR.");
  const rate = front.rate !== undefined && front.rate >= 40 && front.rate <= 400 ? front.rate : undefined;
  if (front.rate !== undefined && rate === undefined)
    say("rate", front.rate, "A speaking rate is 40 to 400 words a minute.");
  return {
    ...metadata,
    properties: {
      title: front.title ?? metadata.properties.title,
      author: front.author ?? metadata.properties.author,
      event: front.event ?? metadata.properties.event,
      date: front.date ?? metadata.properties.date,
    },
    language: language ?? metadata.language,
    theme: theme ?? metadata.theme,
    page: page ?? metadata.page,
    regions: {
      ...metadata.regions,
      footer: front.footer ?? metadata.regions.footer,
      ...(front.header === undefined ? {} : { header: front.header }),
      number: front.numbers ?? metadata.regions.number,
      ...(front.stamp === undefined ? {} : { stamp: front.stamp }),
    },
    rate: rate ?? metadata.rate,
  };
}
