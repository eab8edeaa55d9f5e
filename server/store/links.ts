import { Failure } from "@unitext/core/model";
import { and, desc, eq, inArray, isNull, or, sql } from "drizzle-orm";
import { nanoid } from "nanoid";
import type { SharedRight } from "../access";
import type { Link, Opened, Scope } from "../api";
import { note } from "./audit";
import type { Database } from "./database";
import { decks, links, linkUses, slides, users } from "./schema";
import { announceRights, type Shared, sharedRow } from "./rights";
import { hashOfToken } from "./users";

export type StoredLink = typeof links.$inferSelect;

/** Returns the secret of a link from a text that is its own. */
export type TokenMaker = (text: string) => string;

/** Returns the token of a link after a number of renewals. */
const tokenOf = (make: TokenMaker, { id, renewals }: Pick<StoredLink, "id" | "renewals">) =>
  make(`link ${id} ${renewals}`);

/** The page that a link leads to. */
const pathOf = (token: string) => `/view/${token}`;

/** What a link is to be; without a phrase it keeps the one that it has. */
export interface LinkTerms {
  right: SharedRight;
  notes: boolean;
  translations: boolean;
  expiresAt: Date | null;
  /** The hash of the pass phrase; null for none. */
  phrase?: string | null;
}

const thing = ({ deck, folder }: StoredLink): Shared => (folder === null ? { deck: deck ?? "" } : { folder });

/** Makes a link to a deck or a folder. Returns its id. */
export async function createLink(
  db: Database,
  shared: Shared,
  terms: LinkTerms,
  by: string,
  make: TokenMaker,
): Promise<string> {
  const id = nanoid(12);
  const hash = hashOfToken(tokenOf(make, { id, renewals: 0 }));
  await db.insert(links).values({ id, hash, ...sharedRow(shared), ...terms, phrase: terms.phrase ?? null, by });
  await note(db, {
    user: by,
    act: "share",
    deck: "deck" in shared ? shared.deck : null,
    detail: `link ${id} ${terms.right}`,
  });
  return id;
}

/** Returns a link of a deck or folder by its id. Throws a Failure `not-found`. */
export async function linkOf(db: Database, shared: Shared, id: string): Promise<StoredLink> {
  const same = "deck" in shared ? eq(links.deck, shared.deck) : eq(links.folder, shared.folder);
  const [row] = await db
    .select()
    .from(links)
    .where(and(eq(links.id, id), same));
  if (!row) throw new Failure("not-found", id, "This link was taken back already.");
  return row;
}

/** Changes what a link gives. The pages of those who came by it are told. */
export async function changeLink(db: Database, link: StoredLink, terms: LinkTerms, by: string): Promise<void> {
  await db.update(links).set(terms).where(eq(links.id, link.id));
  await announceRights(db, thing(link));
  await note(db, { user: by, act: "share", deck: link.deck, detail: `link ${link.id} ${terms.right}` });
}

/** Gives a link a new address. The earlier one leads nowhere, and whoever came by it has no right any more. */
export async function renewLink(db: Database, link: StoredLink, by: string, make: TokenMaker): Promise<void> {
  const renewals = link.renewals + 1;
  const hash = hashOfToken(tokenOf(make, { id: link.id, renewals }));
  await db.update(links).set({ renewals, hash }).where(eq(links.id, link.id));
  await announceRights(db, thing(link));
  await note(db, { user: by, act: "share", deck: link.deck, detail: `link ${link.id} renewed` });
}

/** Takes a link back. Whoever came by it has no right any more, and open pages learn it at once. */
export async function removeLink(db: Database, link: StoredLink, by: string): Promise<void> {
  await db.delete(links).where(eq(links.id, link.id));
  await announceRights(db, thing(link));
  await note(db, { user: by, act: "unshare", deck: link.deck, detail: `link ${link.id}` });
}

/** Returns the link of a token. Throws a Failure `not-found`, the same for one that never was and one that has ended. */
export async function linkWith(db: Database, token: string): Promise<StoredLink> {
  const [row] = await db
    .select()
    .from(links)
    .where(and(eq(links.hash, hashOfToken(token)), or(isNull(links.expiresAt), sql`${links.expiresAt} > now()`)));
  if (!row)
    throw new Failure(
      "not-found",
      "link",
      "This link leads nowhere: it has expired or was taken back. Ask whoever sent it for a new one.",
    );
  return row;
}

/** Notes that somebody has opened a link, which gives the right as long as the link holds. */
export async function noteLinkUse(db: Database, link: StoredLink, user: string): Promise<void> {
  const { id, renewals } = link;
  await db
    .insert(linkUses)
    .values({ link: id, user, renewals })
    .onConflictDoUpdate({
      target: [linkUses.link, linkUses.user],
      set: { renewals, lastAt: new Date(), times: sql`${linkUses.times} + 1` },
    });
}

/** Returns the decks that a link leads to: its own first, then its translations, or those of its folder by title. */
export async function decksOfLink(db: Database, link: StoredLink): Promise<Opened["decks"]> {
  const title = sql<string>`${decks.metadata} -> 'properties' ->> 'title'`;
  const wanted =
    link.folder !== null
      ? eq(decks.folder, link.folder)
      : or(
          eq(decks.id, link.deck ?? ""),
          link.translations
            ? and(
                sql`${decks.metadata} -> 'original' ->> 'deck' = ${link.deck}`,
                sql`${decks.metadata} -> 'original' ->> 'language' is not null`,
                sql`${decks.owner} = (select o.owner_id from decks o where o.id = ${link.deck})`,
              )
            : undefined,
        );
  return db
    .select({
      id: decks.id,
      title,
      language: sql<string>`${decks.metadata} ->> 'language'`,
      slides: sql<number>`(select count(*) from ${slides} s where s.deck_id = "decks"."id")`.mapWith(Number),
    })
    .from(decks)
    .where(and(isNull(decks.binnedAt), wanted))
    .orderBy(desc(sql`${decks.id} = ${link.deck ?? ""}`), sql`lower(${title})`);
}

/** Lists the links of a deck and its folder, or of a folder, newest first, with who has used them. */
export async function linksOf(db: Database, shared: Shared, folder: string | null, make: TokenMaker): Promise<Link[]> {
  const rows = await db
    .select()
    .from(links)
    .where(
      or(
        "deck" in shared ? eq(links.deck, shared.deck) : undefined,
        folder === null ? undefined : eq(links.folder, folder),
      ),
    )
    .orderBy(desc(links.createdAt));
  const uses = rows.length
    ? await db
        .select({
          link: linkUses.link,
          name: users.name,
          role: users.role,
          lastAt: linkUses.lastAt,
          times: linkUses.times,
        })
        .from(linkUses)
        .innerJoin(users, eq(users.id, linkUses.user))
        .where(
          inArray(
            linkUses.link,
            rows.map(({ id }) => id),
          ),
        )
        .orderBy(desc(linkUses.lastAt))
    : [];
  return rows.map((row): Link => {
    const token = tokenOf(make, row);
    const scope: Scope = row.folder !== null ? "folder" : row.translations ? "translations" : "deck";
    return {
      id: row.id,
      scope,
      right: row.right,
      notes: row.notes || row.right === "edit",
      hasPhrase: row.phrase !== null,
      expiresAt: row.expiresAt?.toISOString() ?? null,
      expired: row.expiresAt !== null && row.expiresAt.getTime() <= Date.now(),
      createdAt: row.createdAt.toISOString(),
      // After the key of the house was lost, a link still opens, but its address is known to nobody here.
      path: hashOfToken(token) === row.hash ? pathOf(token) : null,
      uses: uses
        .filter(({ link }) => link === row.id)
        .map(({ name, role, lastAt, times }) => ({
          name,
          guest: role === "guest",
          lastAt: lastAt.toISOString(),
          times,
        })),
    };
  });
}
