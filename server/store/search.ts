import { sql } from "drizzle-orm";
import type { Found } from "../api";
import type { Database } from "./database";

/** How many slides a search returns. */
const MOST = 60;

/** The text search configurations of PostgreSQL by language (its manual, 12.6); other languages are searched as they are. */
const CONFIGURATIONS: Readonly<Record<string, string>> = {
  ar: "arabic",
  ca: "catalan",
  da: "danish",
  de: "german",
  el: "greek",
  en: "english",
  es: "spanish",
  eu: "basque",
  fi: "finnish",
  fr: "french",
  ga: "irish",
  hi: "hindi",
  hu: "hungarian",
  hy: "armenian",
  id: "indonesian",
  it: "italian",
  lt: "lithuanian",
  nb: "norwegian",
  ne: "nepali",
  nl: "dutch",
  nn: "norwegian",
  no: "norwegian",
  pt: "portuguese",
  ro: "romanian",
  ru: "russian",
  sr: "serbian",
  sv: "swedish",
  ta: "tamil",
  tr: "turkish",
  yi: "yiddish",
};

/** The fields of stored slides that hold words. */
const SAID = ["text", "caption", "alt", "title"];

const byLanguage = JSON.stringify(CONFIGURATIONS);

/** Writes the words of the person's decks that have changed since they were last searched. */
async function refreshWords(db: Database, user: string): Promise<void> {
  await db.transaction(async (tx) => {
    const stale = sql`select id, version, coalesce(${byLanguage}::jsonb->>split_part(metadata->>'language', '-', 1), 'simple')::regconfig as language from decks where owner_id = ${user} and words_version <> version`;
    const { rows } = await tx.execute(
      sql`select 1 from decks where owner_id = ${user} and words_version <> version limit 1`,
    );
    if (!rows.length) return;
    await tx.execute(sql`delete from slide_words w using (${stale}) d where w.deck_id = d.id`);
    await tx.execute(sql`
      insert into slide_words (deck_id, slide_id, number, language, words, search)
      select s.deck_id, s.id, row_number() over (partition by s.deck_id order by s.key collate "C"), d.language,
        coalesce(w.words, ''), to_tsvector(d.language, coalesce(w.words, ''))
      from slides s join (${stale}) d on d.id = s.deck_id
      cross join lateral (
        select left(string_agg(t #>> '{}', ' '), 100000) as words
        from unnest(${sql.raw(`array[${SAID.map((name) => `'strict $.**.${name} ? (@.type() == "string")'`).join(", ")}]`)}::jsonpath[]) path
        cross join lateral jsonb_path_query(jsonb_build_array(s.body, s.notes), path) t
      ) w
      on conflict (deck_id, slide_id) do nothing`);
    await tx.execute(sql`update decks d set words_version = x.version from (${stale}) x where x.id = d.id`);
  });
}

/**
 * Finds slides of a person by words on them and in their notes, by the stems of their language, best first; what was typed
 * is also found inside of words. Decks in the bin are left out.
 */
export async function searchSlides(db: Database, user: string, words: string): Promise<Found["slides"]> {
  await refreshWords(db, user);
  const inside = `%${words.replace(/[\\%_]/g, "\\$&")}%`;
  const { rows } = await db.execute(sql`
    select w.deck_id as deck, d.metadata->'properties'->>'title' as title, w.slide_id as slide, w.number as number,
      ts_headline(w.language, w.words, websearch_to_tsquery(w.language, ${words}), ${"StartSel=\u0002, StopSel=\u0003, MaxWords=18, MinWords=8, MaxFragments=1"}) as words
    from slide_words w join decks d on d.id = w.deck_id
    where d.owner_id = ${user} and d.binned_at is null
      and (w.search @@ websearch_to_tsquery(w.language, ${words}) or w.words ilike ${inside})
    order by ts_rank_cd(w.search, websearch_to_tsquery(w.language, ${words}), 1) desc, d.changed_at desc, w.number
    limit ${MOST}`);
  return rows as Found["slides"];
}
