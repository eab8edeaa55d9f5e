import { mkdirSync } from "node:fs";
import { basename, join } from "node:path";
import { extensionOf, WRITERS, type WritableFormat } from "@unitext/core/formats";
import { type MergeSource, merge, readPlan, resolvePlan, split } from "@unitext/core/divide";
import { type Deck, deckLink, Failure, slideLinks, must } from "@unitext/core/model";
import { type Account, balance, balanceSentence } from "@unitext/core/tally";
import { tellEntries } from "./entries";
import { fonts, newId, readBytes, readFile, writeAll } from "./files";
import { options, Usage } from "./usage";

/** Returns a file name that every system accepts. */
const fileName = (name: string) =>
  name
    .replace(/[\\/:*?"<>|\p{Cc}]/gu, " ")
    .replace(/\s+/g, " ")
    .trim()
    .slice(0, 120) || "part";

function tell(file: string, accounts: readonly Account[], numbers: ReadonlyMap<string, number>): void {
  tellEntries(
    file,
    accounts.map(({ deck, slide, what, why, left }) => ({
      slide: numbers.get(`${deck}/${slide}`) ?? null,
      what: `${left ? "left out " : ""}${what}`,
      said: why,
    })),
  );
}

/** `split DECK --plan FILE -o DIR [--format EXT]`: writes a file for each part, all or none. */
export async function splitCommand(
  args: readonly string[],
  writable: (file: string) => WritableFormat,
): Promise<undefined> {
  const { values, positionals } = options(args, {
    plan: { type: "string" },
    output: { type: "string", short: "o" },
    format: { type: "string" },
  });
  const [file] = positionals;
  if (!file || positionals.length !== 1 || !values.plan || !values.output)
    throw new Usage("split needs one DECK, --plan FILE and -o DIR");
  const extension = (values.format ?? extensionOf(file)).replace(/^\./, "");
  const format = writable(`part.${extension === "txt" ? "md" : extension}`);
  const { deck, blobs } = await readFile(file);
  const plan = readPlan(new TextDecoder().decode(readBytes(values.plan)), basename(values.plan));
  let resolved: ReturnType<typeof resolvePlan>;
  try {
    resolved = resolvePlan(deck, plan, new Date().toISOString().slice(0, 10));
  } catch (error) {
    if (error instanceof Failure)
      throw Object.assign(new Failure(error.code, `${basename(values.plan)}: ${error.where}`, error.message), {
        file: values.plan,
      });
    throw error;
  }
  const { parts, accounts } = split({ deck, version: 0 }, resolved.parts, { newId, deckId: newId });
  const closing = balance([deck], parts, accounts);
  const digits = String(parts.length).length;
  const written = await Promise.all(
    parts.map(async (part, nth) => ({
      file: join(
        must(values.output),
        `${String(nth + 1).padStart(digits, "0")} ${fileName(part.properties.title)}.${format}`,
      ),
      bytes: await WRITERS[format].write(part, { fonts, picture: (sha256) => blobs.get(sha256), at: new Date() }),
    })),
  );
  mkdirSync(values.output, { recursive: true });
  writeAll(written);
  for (const remark of resolved.remarks) process.stderr.write(`unitext: ${values.plan}: ${remark}\n`);
  tell(file, accounts, new Map(deck.slides.map(({ id }, nth) => [`${deck.id}/${id}`, nth + 1])));
  // Files cannot follow links into each other; each link names the part that it leads to.
  const titles = new Map(parts.map(({ id, properties }) => [id, properties.title]));
  for (const part of format === "json" || format === "md" ? [] : parts) {
    for (const [nth, slide] of part.slides.entries()) {
      for (const { text, to } of slideLinks(slide)) {
        const other = deckLink(to);
        if (other)
          process.stderr.write(
            `unitext: ${part.properties.title}: slide ${nth + 1}: the link “${text}”: it leads into “${titles.get(other.deck)}”, which is another file; its words stay\n`,
          );
      }
    }
  }
  process.stdout.write(
    `${written.map((one, nth) => `${one.file}\t${parts[nth]?.slides.length} slides`).join("\n")}\n${balanceSentence(closing)}\n`,
  );
}

/**
 * `merge DECK… -o OUT [--look match|keep] [--at N]`: merges decks in the given order; with `--at` the others go into
 * the first after its slide N.
 */
export async function mergeCommand(
  args: readonly string[],
  write: (deck: Deck, blobs: ReadonlyMap<string, Uint8Array>, file: string) => Promise<void>,
): Promise<undefined> {
  const { values, positionals } = options(args, {
    output: { type: "string", short: "o" },
    look: { type: "string" },
    at: { type: "string" },
  });
  if (positionals.length < 1 || !values.output) throw new Usage("merge needs at least one DECK and -o OUT");
  const look = values.look ?? "keep";
  if (look !== "match" && look !== "keep") throw new Usage(`--look takes match or keep, not “${look}”`);
  const read = await Promise.all(positionals.map(async (file) => ({ file, result: await readFile(file) })));
  const taken = new Set<string>();
  // Copies of a file carry the same id, so each gets its own here.
  const gathered: MergeSource[] = read.map(({ result: { deck } }) => {
    const id = taken.has(deck.id) ? newId() : deck.id;
    taken.add(id);
    return { deck: id === deck.id ? deck : { ...deck, id }, version: 0 };
  });
  const at = values.at === undefined ? undefined : Number(values.at);
  const [first, ...others] = gathered as [MergeSource, ...MergeSource[]];
  if (at !== undefined && (!Number.isInteger(at) || at < 0 || at > first.deck.slides.length))
    throw new Usage(
      `--at takes a slide of the first deck from 0 to ${first.deck.slides.length}, after which the others go`,
    );
  const title =
    at === undefined
      ? first.deck.properties.title && gathered.length > 1
        ? `${first.deck.properties.title} and others`
        : first.deck.properties.title
      : first.deck.properties.title;
  const all = merge(gathered, { appearance: look, title }, { newId, deckId: newId });
  const deck = at === undefined || others.length === 0 ? all.deck : placed(all.deck, first.deck.slides.length, at);
  const closing = balance(
    gathered.map((one) => one.deck),
    [deck],
    all.accounts,
  );
  await write(deck, new Map(read.flatMap(({ result }) => [...result.blobs])), values.output);
  tell(
    values.output,
    all.accounts,
    new Map(
      gathered.flatMap((one) => one.deck.slides.map(({ id }, nth) => [`${one.deck.id}/${id}`, nth + 1] as const)),
    ),
  );
  process.stdout.write(`${values.output}\t${deck.slides.length} slides\n${balanceSentence(closing)}\n`);
}

/** Moves the slides after the first `count` behind slide `at`, and behind its details. */
function placed(deck: Deck, count: number, at: number): Deck {
  const own = deck.slides.slice(0, count);
  let after = at;
  while (after > 0 && after < count && own[after]?.parent !== null) after += 1;
  return { ...deck, slides: [...own.slice(0, after), ...deck.slides.slice(count), ...own.slice(after)] };
}
