import { withSourceList } from "@unitext/core/edit";
import { createHash } from "node:crypto";
import { existsSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import {
  type BindingCheck,
  bindCells,
  checkBindings,
  isOutOfDate,
  openWorkbook,
  putOnSlide,
  refreshDeck,
  slideWithBound,
  type SourceAtHand,
} from "@unitext/core/data";
import {
  BINDING_MODES,
  type BindingUse,
  bindingsOn,
  type Deck,
  Failure,
  type Slide,
  workbookKind,
} from "@unitext/core/model";
import { newId, readBytes, readFile } from "./files";
import { options, Usage } from "./usage";

/** What `--as` takes, and what it makes of cells. */
const AS: Readonly<Record<string, BindingUse>> = { table: "table", chart: "chart", number: "value" };

/** Returns the name and the file of an option NAME=FILE; a file alone has its own name. */
function namedFile(option: string): [name: string, file: string] {
  const at = option.indexOf("=");
  return at < 0 ? [basename(option), option] : [option.slice(0, at), option.slice(at + 1)];
}

/** Reads a workbook. Throws a Failure that names its file. */
function readSource(name: string, file: string): SourceAtHand {
  const bytes = readBytes(file);
  try {
    return {
      // Under the name by which the deck knows it, as a sheet of values has the name of its file.
      workbook: openWorkbook(bytes, workbookKind(name) ? basename(name) : basename(file)),
      version: createHash("sha256").update(bytes).digest("hex"),
    };
  } catch (error) {
    if (error instanceof Failure) throw Object.assign(error, { file, where: name });
    throw error;
  }
}

/** Returns the sources of a deck: those that are given, and files of their names beside the deck. */
function sourcesFor(deckFile: string, given: readonly string[]): (name: string) => SourceAtHand | undefined {
  const files = new Map(given.map(namedFile));
  const read = new Map<string, SourceAtHand | undefined>();
  return (name) => {
    if (!read.has(name)) {
      const beside = join(dirname(deckFile), basename(name));
      const file = files.get(name) ?? (existsSync(beside) ? beside : undefined);
      read.set(name, file === undefined ? undefined : readSource(name, file));
    }
    return read.get(name);
  };
}

const contextFor = (deck: Deck, source: (name: string) => SourceAtHand | undefined) => ({
  source,
  language: deck.language,
  takenAt: new Date().toISOString(),
});

type Write = (deck: Deck, blobs: ReadonlyMap<string, Uint8Array>, file: string) => Promise<void>;

/** `bind DECK -o OUT --workbook NAME=FILE --range RANGE`: puts cells on a slide and links them. */
export async function bindCommand(args: readonly string[], write: Write): Promise<undefined> {
  const { values, positionals } = options(args, {
    output: { type: "string", short: "o" },
    workbook: { type: "string" },
    range: { type: "string" },
    slide: { type: "string" },
    as: { type: "string" },
    mode: { type: "string", default: "latest" },
  });
  const [file] = positionals;
  if (positionals.length !== 1 || !file || !values.output || !values.workbook || !values.range)
    throw new Usage("bind needs one DECK, -o OUT, --workbook NAME=FILE and --range RANGE");
  const use = values.as === undefined ? undefined : AS[values.as];
  if (values.as !== undefined && !use) throw new Usage(`--as takes table, chart or number, not “${values.as}”`);
  const mode = BINDING_MODES.find((one) => one === values.mode);
  if (!mode) throw new Usage(`--mode takes latest, asked or fixed, not “${values.mode}”`);
  const { deck, blobs } = await readFile(file);
  const number = values.slide === undefined ? undefined : Number(values.slide);
  const slide = number === undefined ? undefined : deck.slides[number - 1];
  if (number !== undefined && !slide)
    throw new Usage(`there is no slide ${values.slide}; the deck has ${deck.slides.length}`);
  const [name, path] = namedFile(values.workbook);
  const source = readSource(name, path);
  const bound = bindCells(
    source,
    { source: name, range: values.range, mode, ...(use ? { use } : {}) },
    { language: deck.language, newId, takenAt: new Date().toISOString() },
  );
  const slides: Slide[] = slide
    ? deck.slides.map((one) => (one === slide ? putOnSlide(one, bound, deck, newId) : one))
    : [...deck.slides, slideWithBound(bound, newId)];
  await write(withSourceList({ ...deck, slides }), blobs, values.output);
}

/** The state of a binding where nothing newer than what was taken is at hand. */
const stateOf = ({ state }: BindingCheck) => (state === "unknown" ? "current" : state);

/** Returns where a binding stands on its slide, in words. */
function placeOf(deck: Deck, { slide, element }: BindingCheck): string {
  if (element === null) return "notes";
  return deck.slides[slide - 1]?.elements.find(({ id }) => id === element)?.kind ?? "slide";
}

const print = (text: string) => process.stdout.write(`${text}\n`);

/** `bindings DECK [--json]`: every binding with its place, source, state and what it shows. */
export async function bindingsCommand(args: readonly string[]): Promise<undefined> {
  const { values, positionals } = options(args, { json: { type: "boolean" } });
  const [file] = positionals;
  if (positionals.length !== 1 || !file) throw new Usage("say one DECK");
  const { deck } = await readFile(file);
  const rows = checkBindings(deck, contextFor(deck, sourcesFor(file, []))).map((check) => ({
    slide: check.slide,
    place: placeOf(deck, check),
    source: check.binding.source,
    range: check.binding.range,
    use: check.binding.use ?? "value",
    mode: check.binding.mode,
    state: stateOf(check),
    ...(check.reason ? { reason: check.reason } : {}),
    shown: check.from,
  }));
  if (values.json) print(JSON.stringify(rows));
  else if (!rows.length) print("No slide has values from a workbook.");
  else
    for (const { slide, place, source, range, mode, state, shown, reason } of rows)
      print(
        `${slide}. ${place}: ${source}, ${range} (${mode}, ${state}): ${shown.replaceAll("\n", " / ").slice(0, 120)}${reason ? ` – ${reason}` : ""}`,
      );
}

/** Returns the bindings of a slide for `show`, with the states that the deck knows by itself. */
export const shownBindings = (slide: Slide) =>
  bindingsOn(slide).map(({ binding }) => ({
    source: binding.source,
    range: binding.range,
    mode: binding.mode,
    state: binding.problem?.state ?? (binding.mode === "fixed" ? "fixed" : "current"),
  }));

/** `refresh DECK -o OUT`: takes new values and says what changed; with --check, only says it. */
export async function refreshCommand(args: readonly string[], write: Write): Promise<number> {
  const { values, positionals } = options(args, {
    output: { type: "string", short: "o" },
    workbook: { type: "string", multiple: true },
    check: { type: "boolean" },
    json: { type: "boolean" },
  });
  const [file] = positionals;
  if (positionals.length !== 1 || !file || !(values.output || values.check))
    throw new Usage("refresh needs one DECK, and -o OUT or --check");
  const { deck, blobs } = await readFile(file);
  const given = values.workbook ?? [];
  checkNames(deck, given);
  const { slides, checks } = refreshDeck(deck, contextFor(deck, sourcesFor(file, given)), () => !values.check);
  for (const name of new Set(checks.filter(({ state }) => state === "unknown").map(({ binding }) => binding.source)))
    process.stderr.write(
      `unitext: ${file}: ${name}: the workbook is not beside the deck; its values stay. Name it with --workbook ${name}=FILE.\n`,
    );
  const changed = checks.filter(isOutOfDate).map(({ slide, binding: { source, range }, from, to, state, reason }) => ({
    slide,
    source,
    range,
    from,
    to,
    state,
    ...(reason ? { reason } : {}),
  }));
  if (values.json) print(JSON.stringify(changed));
  else
    for (const { slide, source, range, from, to, state, reason } of changed)
      print(
        `${slide}. ${source}, ${range}: ${state === "missing" || state === "error" ? state : `${from.replaceAll("\n", " / ")} → ${to.replaceAll("\n", " / ")}`}${reason ? ` (${reason})` : ""}`,
      );
  if (!values.check && values.output) await write(withSourceList({ ...deck, slides }), blobs, values.output);
  return values.check && changed.length ? 1 : 0;
}

/** Refuses a workbook that the deck does not name: most likely a mistake in its name. */
function checkNames(deck: Deck, given: readonly string[]): void {
  const known = new Set(deck.slides.flatMap((slide) => bindingsOn(slide).map(({ binding }) => binding.source)));
  for (const [name] of given.map(namedFile))
    if (!known.has(name))
      throw new Failure(
        "not-found",
        name,
        `The deck has no values from a workbook of this name. ${known.size ? `Its workbooks are ${[...known].join(", ")}.` : "It has no linked values."}`,
      );
}
