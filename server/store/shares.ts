import { Failure, must } from "@unitext/core/model";
import { and, asc, eq, isNotNull, or, sql } from "drizzle-orm";
import type { SharedRight } from "../access";
import type { Share, Sharing, Scope } from "../api";
import { note } from "./audit";
import type { Database } from "./database";
import { linksOf, type TokenMaker } from "./links";
import { announceRights, type Shared, sharedRow } from "./rights";
import type { Reader } from "./rows";
import { decks, folders, shares, users } from "./schema";

/** Gives a user a right on a deck or a folder, or takes it away with null. The user's open pages are told. */
export async function share(
  db: Database,
  given: Shared & {
    user: string;
    right: SharedRight | null;
    by: string;
    notes?: boolean | undefined;
    translations?: boolean | undefined;
  },
): Promise<void> {
  const { user, right, by, notes = true, translations = false } = given;
  const shared = sharedRow(given);
  const same = and(
    "deck" in given ? eq(shares.deck, given.deck) : eq(shares.folder, given.folder),
    eq(shares.user, user),
  );
  await db.transaction(async (tx) => {
    await tx.delete(shares).where(same);
    if (right !== null) await tx.insert(shares).values({ ...shared, user, right, notes, translations, by });
    await announceRights(tx, given);
  });
  const what = "deck" in given ? {} : { folder: given.folder };
  await note(db, {
    user: by,
    act: right === null ? "unshare" : "share",
    deck: "deck" in given ? given.deck : null,
    detail: [...Object.values(what), user, ...(right === null ? [] : [right])].join(" "),
  });
}

const scopeOf = ({ folder, translations }: { folder: string | null; translations: boolean }): Scope =>
  folder !== null ? "folder" : translations ? "translations" : "deck";

/** Returns the owner of a folder. Throws a Failure `not-found`. */
export async function folderOwner(db: Reader, id: string): Promise<{ id: string; name: string; owner: string }> {
  const [row] = await db.select().from(folders).where(eq(folders.id, id));
  if (!row) throw new Failure("not-found", id, "This folder is not here any more.");
  return row;
}

/** Returns who sees what of a deck, its folder's shares included, or of a folder. */
export async function sharingOf(db: Database, shared: Shared, token: TokenMaker): Promise<Sharing> {
  const [deck] =
    "deck" in shared
      ? await db.select({ owner: decks.owner, folder: decks.folder }).from(decks).where(eq(decks.id, shared.deck))
      : [];
  const folderId = "folder" in shared ? shared.folder : (deck?.folder ?? null);
  const folder = folderId === null ? null : await folderOwner(db, folderId);
  const owner = must(deck?.owner ?? folder?.owner);
  const [person] = await db.select({ id: users.id, name: users.name }).from(users).where(eq(users.id, owner));
  const translations =
    "deck" in shared
      ? await db
          .select({ id: decks.id })
          .from(decks)
          .where(
            and(
              eq(decks.owner, owner),
              sql`${decks.metadata} -> 'original' ->> 'deck' = ${shared.deck}`,
              isNotNull(sql`${decks.metadata} -> 'original' ->> 'language'`),
            ),
          )
      : [];
  const rows = await db
    .select({
      user: shares.user,
      name: users.name,
      folder: shares.folder,
      translations: shares.translations,
      right: shares.right,
      notes: shares.notes,
    })
    .from(shares)
    .innerJoin(users, eq(users.id, shares.user))
    .where(
      or(
        "deck" in shared ? eq(shares.deck, shared.deck) : undefined,
        folderId === null ? undefined : eq(shares.folder, folderId),
      ),
    )
    .orderBy(asc(sql`lower(${users.name})`));
  return {
    owner: must(person),
    folder: folder && { id: folder.id, name: folder.name },
    translations: translations.length,
    shares: rows.map((row): Share => {
      const { user, name, right, notes } = row;
      return { user, name, scope: scopeOf(row), right, notes: notes || right === "edit" };
    }),
    links: await linksOf(db, shared, folderId, token),
  };
}
