import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { loadFormulas } from "@unitext/core/figures";
import { readDeck } from "@unitext/core/formats";
import { count } from "drizzle-orm";
import { nanoid } from "nanoid";
import { fontsIn } from "../server/export";
import { createDeck, type Database, DEMO_USER, ensureUser, schema, writeDocument } from "../server/store";

/** The texts and documents of the demo, in the order in which the Desk shows them from the last to the first. */
const TEXTS = ["class-list.txt", "field-handbook.docx", "quarterly-monitoring.md", "tides-dunes-storms.md"];
const TITLES: Record<string, string> = { "class-list.txt": "Class list, coastal processes" };

/** Puts the demo decks into a database that has no deck yet; pictures come from the folder beside the texts. */
export async function loadDemo(db: Database, folder: string, fonts: string): Promise<void> {
  await ensureUser(db, DEMO_USER);
  const [found] = await db.select({ decks: count() }).from(schema.decks);
  if (found?.decks) return;
  await loadFormulas();
  const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
  const pictures = new Set(readdirSync(join(folder, "content/pictures")).map((name) => `pictures/${name}`));
  for (const name of TEXTS) {
    const picture = (source: string) => (pictures.has(source) ? readFileSync(join(folder, "content", source)) : undefined);
    const { deck, blobs, text } = readDeck(readFileSync(join(folder, "content", name)), name, { newId: () => nanoid(10), sha256, picture, fonts: fontsIn(fonts), document: nanoid(10) });
    const title = TITLES[name] ?? deck.properties.title;
    const id = await createDeck(db, DEMO_USER.id, { ...deck, id: name.replace(/\.[^.]*$/, ""), properties: { ...deck.properties, title } }, blobs, deck.manuscript ? null : (text ?? null));
    if (deck.manuscript && text !== undefined) await writeDocument(db, id, deck.manuscript.document, name, text);
  }
}
