import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { readDeck } from "@unitext/core/formats";
import { count } from "drizzle-orm";
import { nanoid } from "nanoid";
import { createDeck, type Database, DEMO_USER, ensureUser, schema } from "../server/store";

/** The texts of the demo, in the order in which the Desk shows them from the last to the first. */
const TEXTS = ["quarterly-monitoring.md", "tides-dunes-storms.md"];

/** Puts the demo decks into a database that has no deck yet; pictures come from the folder beside the texts. */
export async function loadDemo(db: Database, folder: string): Promise<void> {
  await ensureUser(db, DEMO_USER);
  const [found] = await db.select({ decks: count() }).from(schema.decks);
  if (found?.decks) return;
  const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
  const pictures = new Set(readdirSync(join(folder, "content/pictures")).map((name) => `pictures/${name}`));
  for (const name of TEXTS) {
    const picture = (source: string) => (pictures.has(source) ? readFileSync(join(folder, "content", source)) : undefined);
    const { deck, blobs, text } = readDeck(readFileSync(join(folder, "content", name)), name, { newId: () => nanoid(10), sha256, picture });
    await createDeck(db, DEMO_USER.id, { ...deck, id: name.replace(/\.md$/, "") }, blobs, text ?? null);
  }
}
