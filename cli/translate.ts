import { extensionOf } from "@unitext/core/formats";
import { readSegments, SEGMENT_FILES, writeSegments } from "@unitext/core/formats/segments";
import { Failure, type Deck, Language } from "@unitext/core/model";
import {
  checkTranslation,
  contextsOf,
  matchTargets,
  Memory,
  type Piece,
  placeOf,
  pseudoTranslation,
  readTerms,
  readTmx,
  type Segment,
  segmentsOf,
  type Target,
  type Term,
  sameLanguage,
  translateDeck,
  XLIFF_VERSIONS,
  xmlText,
} from "@unitext/core/translate";
import { translateLocally } from "@unitext/node";
import { tellEntries } from "./entries";
import { readBytes, readFile, writeWhole } from "./files";
import { options, Usage } from "./usage";

const say = (text: string) => process.stderr.write(`unitext: ${text}\n`);

/** Returns a language by its tag. Throws a Usage for what is none. */
function languageTag(tag: string | undefined): string {
  const found = Language.safeParse(tag);
  if (!found.success) throw new Usage(`--to takes the tag of a language, such as es or pt-BR, not “${tag ?? ""}”`);
  return found.data;
}

const textOf = (file: string) => xmlText(readBytes(file), file);

/** `segments DECK --to TAG -o FILE.xlf`: the texts to translate, as XLIFF or as a table, by extension. */
export async function segmentsCommand(args: readonly string[]): Promise<undefined> {
  const { values, positionals } = options(args, {
    to: { type: "string" },
    output: { type: "string", short: "o" },
    xliff: { type: "string", default: "1.2" },
  });
  const [file] = positionals;
  if (positionals.length !== 1 || !file || !values.output || !values.to)
    throw new Usage("segments needs one DECK, --to TAG and -o FILE.xlf");
  const version = XLIFF_VERSIONS.find((one) => one === values.xliff);
  if (!version) throw new Usage(`--xliff takes 1.2 or 2.1, not “${values.xliff}”`);
  const as = SEGMENT_FILES.find((one) => one === extensionOf(values.output ?? "").replace("xliff", "xlf"));
  if (!as) throw new Usage(`segments writes .${SEGMENT_FILES.join(", .")}, not “${values.output}”`);
  const to = languageTag(values.to);
  const { deck } = await readFile(file);
  writeWhole(values.output, writeSegments({ deck, to, segments: segmentsOf(deck) }, as, version));
}

interface Given {
  segments: string | undefined;
  memory: string | undefined;
  terms: string | undefined;
  engine: Engine;
}

const ENGINES = ["none", "local", "pseudo"] as const;
type Engine = (typeof ENGINES)[number];

/** Where the translation of a segment came from, for the summary. */
type Origin = "file" | "memory" | "engine";

/** Returns the translations of a file of exchange. Throws a Failure when it is for another language. */
function fromFile(file: string, segments: readonly Segment[], to: string): Map<string, Target> {
  const read = readSegments(readBytes(file), file);
  if (read.to && !sameLanguage(read.to, to))
    throw Object.assign(
      new Failure("not-valid", "target-language", `The file is in “${read.to}”, and “${to}” was asked for.`),
      { file },
    );
  const { targets, remarks } = matchTargets(segments, read);
  for (const remark of remarks) say(`${file}: ${remark}`);
  return targets;
}

function fromMemory(file: string, segments: readonly Segment[], from: string, to: string): Map<string, Target> {
  const memory = new Memory(from, to);
  const { units } = readTmx([textOf(file)], file, { from, to }, (unit) => memory.add(unit));
  if (!units) say(`${file}: it has no unit in ${from} and ${to}`);
  const targets = new Map<string, Target>();
  const contexts = contextsOf(segments);
  for (const { id, source } of segments) {
    const [best] = memory.proposals(source, contexts.get(id));
    if (best?.likeness === 1) targets.set(id, { pieces: best.pieces, state: "proposed" });
  }
  return targets;
}

async function fromEngine(engine: Engine, segments: readonly Segment[], from: string, to: string) {
  const targets = new Map<string, Target>();
  if (engine === "none" || !segments.length) return targets;
  const made: (Piece[] | undefined)[] =
    engine === "pseudo"
      ? segments.map(({ source }) => pseudoTranslation(source, to))
      : await translateLocally(
          segments.map(({ source }) => source),
          { from, to },
        );
  segments.forEach(({ id }, nth) => {
    const pieces = made[nth];
    if (pieces) targets.set(id, { pieces, state: "proposed" });
  });
  return targets;
}

/** Translates all segments from the file first, then from the memory, then with the engine. */
async function targetsFor(deck: Deck, segments: readonly Segment[], to: string, given: Given) {
  const { language } = deck;
  const targets = new Map<string, Target>();
  const counts: Record<Origin, number> = { file: 0, memory: 0, engine: 0 };
  const add = (found: ReadonlyMap<string, Target>, origin: Origin) => {
    for (const [id, target] of found) {
      if (targets.has(id)) continue;
      targets.set(id, target);
      counts[origin] += 1;
    }
  };
  const open = () => segments.filter(({ id }) => !targets.has(id));
  if (given.segments) add(fromFile(given.segments, segments, to), "file");
  if (given.memory) add(fromMemory(given.memory, open(), language, to), "memory");
  add(await fromEngine(given.engine, open(), language, to), "engine");
  return { targets, counts };
}

function termsFrom(file: string | undefined, languages: { from: string; to: string }): Term[] {
  if (!file) return [];
  const { terms, problems } = readTerms(readBytes(file), file, languages);
  for (const problem of problems) say(`${file}: ${problem}`);
  return terms;
}

/** `translate DECK --to TAG -o OUT`: a deck in another language. */
export async function translateCommand(
  args: readonly string[],
  write: (deck: Deck, blobs: ReadonlyMap<string, Uint8Array>, file: string) => Promise<void>,
): Promise<undefined> {
  const { values, positionals } = options(args, {
    to: { type: "string" },
    output: { type: "string", short: "o" },
    segments: { type: "string" },
    memory: { type: "string" },
    terms: { type: "string" },
    engine: { type: "string", default: "none" },
  });
  const [file] = positionals;
  if (positionals.length !== 1 || !file || !values.output || !values.to)
    throw new Usage("translate needs one DECK, --to TAG and -o OUT");
  const engine = ENGINES.find((one) => one === values.engine);
  if (!engine) throw new Usage(`--engine takes ${ENGINES.join(", ")}, not “${values.engine}”`);
  for (const [option, found, kinds] of [
    ["--segments", values.segments, ["xlf", "xliff", "xlsx", "ods", "csv", "docx"]],
    ["--memory", values.memory, ["tmx"]],
    ["--terms", values.terms, ["csv", "tsv", "tbx"]],
  ] as const)
    if (found && !(kinds as readonly string[]).includes(extensionOf(found)))
      throw new Usage(`${option} takes a .${kinds[0]} file, not “${found}”`);
  const to = languageTag(values.to);
  const { deck, blobs } = await readFile(file);
  const segments = segmentsOf(deck);
  const terms = termsFrom(values.terms, { from: deck.language, to });
  const { segments: exchanged, memory } = values;
  const { targets, counts } = await targetsFor(deck, segments, to, {
    segments: exchanged,
    memory,
    terms: values.terms,
    engine,
  });
  const result = translateDeck(deck, to, ({ id }) => targets.get(id));
  tellEntries(
    file,
    result.adapted.map(({ slide, what, how }) => ({ slide, what, said: how })),
  );
  for (const segment of segments) {
    const target = targets.get(segment.id);
    if (!target?.pieces.length || engine === "pseudo") continue;
    for (const { fault, sentence } of checkTranslation({
      source: segment.source,
      target: target.pieces,
      from: deck.language,
      to,
      terms,
    }))
      if (!fault.startsWith("placeholder")) say(`${file}: ${placeOf(segment, deck)}: ${sentence}`);
  }
  await write(result.deck, blobs, values.output);
  const untranslated = result.segments - result.translated;
  say(
    `${file}: ${result.segments} segments: ${counts.file} from the file, ${counts.memory} from the memory, ${counts.engine} from the engine, ${untranslated} untranslated`,
  );
}
