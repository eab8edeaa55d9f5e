import { overflowOf } from "@unitext/core/layout";
import { existsSync, mkdirSync, statSync } from "node:fs";
import { join } from "node:path";
import {
  type AskedRule,
  extensionOf,
  pagePictures,
  pdfPages,
  READABLE,
  type ReadResult,
  slidePictures,
  WRITABLE,
  WRITERS,
  type WritableFormat,
  writeReport,
} from "@unitext/core/formats";
import { scenesPdf } from "@unitext/core/draw";
import { parseRanges } from "@unitext/core/divide";
import { copies } from "@unitext/core/edit";
import { TextPlacement, type Cut, type Deck, Language, hasNotes, metadataOf } from "@unitext/core/model";
import { tally } from "@unitext/core/tally";
import { slidePng } from "@unitext/node";
import { bindCommand, bindingsCommand, refreshCommand } from "./data";
import { mergeCommand, splitCommand } from "./divide";
import { tellEntries } from "./entries";
import { fonts, newId, png, readFile, writeAll, writeWhole } from "./files";
import { show, showText } from "./show";
import { segmentsCommand, translateCommand } from "./translate";
import { options, Usage } from "./usage";

interface Command {
  usage: string;
  does: string;
  run(args: readonly string[]): Promise<number | undefined> | number | undefined;
}

const print = (text: string) => process.stdout.write(`${text}\n`);

function one(positionals: readonly string[], what: string): string {
  if (positionals.length !== 1 || !positionals[0]) throw new Usage(`say one ${what}`);
  return positionals[0];
}

/** Returns the rule that the options ask for; undefined when they ask for none. */
function askedRule(cut: string | undefined, body: string | undefined): AskedRule | undefined {
  if (cut === undefined && body === undefined) return undefined;
  const to = body === undefined ? undefined : TextPlacement.safeParse(body);
  if (to && !to.success) throw new Usage(`--body takes slide, notes or both, not “${body}”`);
  return {
    ...(cut === undefined ? {} : { cuts: [cutNamed(cut)], ...(to ? {} : { placement: "slide" as const }) }),
    ...(to ? { placement: to.data } : {}),
  };
}

function cutNamed(text: string): Cut {
  if (text === "mark" || text === "paragraph" || text === "line") return { kind: text };
  const level = Number(/^heading:([1-6])$/.exec(text)?.[1] ?? 0);
  if (level) return { kind: "heading", section: level - 1, slide: level };
  throw new Usage(`--break takes heading:1 to heading:6, paragraph, line or mark, not “${text}”`);
}

function writable(file: string): WritableFormat {
  const extension = extensionOf(file);
  if (file.endsWith("/") || (existsSync(file) && statSync(file).isDirectory()))
    return WRITERS[extension as WritableFormat]?.archive ? (extension as WritableFormat) : "png";
  if (WRITABLE.includes(extension as WritableFormat)) return extension as WritableFormat;
  throw new Usage(
    `cannot tell how to write “${file}”; its ending is one of ${WRITABLE.map((name) => `.${name}`).join(", ")}`,
  );
}

async function write(deck: Deck, blobs: ReadonlyMap<string, Uint8Array>, file: string): Promise<void> {
  const format = writable(file);
  const context = { fonts, picture: (sha256: string) => blobs.get(sha256), at: new Date(), png };
  if (format === "png" || format === "svg") {
    writeAll([...slidePictures(deck, format, context)].map(([name, bytes]) => ({ file: join(file, name), bytes })));
    return;
  }
  writeWhole(file, await WRITERS[format].write(deck, context));
}

function warn(file: string, { adapted, left }: Pick<ReadResult, "adapted" | "left">): void {
  tellEntries(
    file,
    adapted.map(({ slide, what, how }) => ({ slide, what, said: how })),
  );
  tellEntries(
    file,
    left.map(({ slide, what, why }) => ({ slide, what: `left out ${what}`, said: why })),
  );
}

async function make(args: readonly string[]): Promise<undefined> {
  const { values, positionals } = options(args, {
    output: { type: "string", short: "o" },
    break: { type: "string" },
    body: { type: "string" },
    language: { type: "string" },
    title: { type: "string" },
  });
  if (!positionals.length || !values.output) throw new Usage("make needs at least one SOURCE and -o OUT");
  if (values.language !== undefined && !Language.safeParse(values.language).success)
    throw new Usage(`“${values.language}” is not a language tag such as en or pt-BR`);
  writable(values.output);
  const rule = askedRule(values.break, values.body);
  const read = await Promise.all(positionals.map(async (file) => ({ file, result: await readFile(file, rule) })));
  const [first] = read as [(typeof read)[number]];
  const blobs = new Map(read.flatMap(({ result }) => [...result.blobs]));
  const seen = new Set<string>();
  const joined = read.flatMap(({ result: { deck: part } }) => {
    const fresh = part.slides.some(({ id }) => seen.has(id)) ? copies(part.slides, newId) : part.slides;
    for (const { id } of fresh) seen.add(id);
    return fresh;
  });
  const deck: Deck = {
    ...first.result.deck,
    assets: Object.assign({}, ...read.map(({ result }) => result.deck.assets)),
    slides: joined,
  };
  if (values.title) deck.properties = { ...deck.properties, title: values.title };
  if (values.language) deck.language = values.language;
  await write(deck, blobs, values.output);
  for (const { file, result } of read) {
    warn(file, result);
    tellPlaces(file, result.deck);
  }
}

/** Says how many slides have the text that they were made from in their notes, and which overflow. */
function tellPlaces(file: string, deck: Deck): void {
  const { slides, manuscript } = deck;
  const spoken = slides.filter(hasNotes).length;
  if (manuscript && manuscript.rule.placement !== "slide" && spoken)
    process.stderr.write(
      `unitext: ${file}: deck: the text of ${spoken} of ${slides.length} slides is in their notes\n`,
    );
  const metadata = metadataOf(deck);
  slides.forEach((slide, nth) => {
    const overflow = overflowOf(slide, { metadata, number: nth + 1, fonts });
    if (overflow > 0)
      process.stderr.write(`unitext: ${file}: slide ${nth + 1}: overflows by ${Math.ceil(overflow)} points\n`);
  });
}

async function showCommand(args: readonly string[]): Promise<undefined> {
  const { values, positionals } = options(args, { json: { type: "boolean" } });
  const { deck } = await readFile(one(positionals, "DECK"));
  print(values.json ? JSON.stringify(show(deck, fonts)) : showText(show(deck, fonts)));
}

async function tallyCommand(args: readonly string[]): Promise<undefined> {
  const { values, positionals } = options(args, { json: { type: "boolean" } });
  const counts = tally((await readFile(one(positionals, "DECK"))).deck);
  if (values.json) print(JSON.stringify(counts));
  else
    for (const [name, value] of Object.entries(counts))
      print(
        `${name.padEnd(12)} ${
          typeof value === "number"
            ? value
            : Object.entries(value)
                .map(([part, n]) => `${n} ${part}`)
                .join(", ")
        }`,
      );
}

async function convert(args: readonly string[]): Promise<undefined> {
  const { values, positionals } = options(args, { report: { type: "string" } });
  const [input, output] = positionals;
  if (!input || !output || positionals.length !== 2) throw new Usage("convert needs IN and OUT");
  const format = writable(output);
  const read = await readFile(input);
  await write(read.deck, read.blobs, output);
  const report = writeReport(read.deck, format, read);
  if (values.report) writeWhole(values.report, `${JSON.stringify(report, null, 2)}\n`);
  else warn(input, report);
}

function chosenSlides(list: string, count: number): number[] {
  try {
    return parseRanges(list, count, "--slides");
  } catch (error) {
    throw new Usage(error instanceof Error ? error.message : "--slides takes numbers and runs");
  }
}

async function draw(args: readonly string[]): Promise<undefined> {
  const { values, positionals } = options(args, {
    output: { type: "string", short: "o" },
    slides: { type: "string" },
    width: { type: "string" },
    notes: { type: "boolean" },
  });
  const file = one(positionals, "DECK");
  if (!values.output) throw new Usage("draw needs -o DIR or -o FILE.pdf");
  if (values.notes && extensionOf(values.output) !== "pdf")
    throw new Usage("--notes draws pages of a PDF; say -o FILE.pdf");
  const width = Number(values.width ?? 1280);
  if (!Number.isInteger(width) || width < 16 || width > 8192) throw new Usage("--width takes pixels from 16 to 8192");
  const { deck, blobs } = await readFile(file);
  const chosen = values.slides ? chosenSlides(values.slides, deck.slides.length) : deck.slides.map((_, nth) => nth + 1);
  const picture = (sha256: string) => blobs.get(sha256);
  if (extensionOf(values.output) === "pdf") {
    const pages = pdfPages(deck, fonts, values.notes ? "notes" : "slides", chosen);
    writeWhole(
      values.output,
      await scenesPdf(pages, {
        fonts,
        ...pagePictures(deck.assets, picture, png),
        title: deck.properties.title,
        author: deck.properties.author,
        language: deck.language,
        at: new Date(),
      }),
    );
    return;
  }
  if (!existsSync(values.output)) mkdirSync(values.output, { recursive: true });
  const digits = String(deck.slides.length).length;
  for (const number of chosen)
    writeWhole(
      join(values.output, `${String(number).padStart(digits, "0")}.png`),
      slidePng(deck, number, width, fonts, png, picture),
    );
}

export const COMMANDS: Record<string, Command> = {
  make: {
    usage:
      "make SOURCE… -o OUT [--break heading:N|paragraph|line|mark] [--body slide|notes|both] [--language TAG] [--title TEXT]",
    does: "makes one deck from texts and documents",
    run: make,
  },
  show: { usage: "show DECK [--json]", does: "prints what is on each slide", run: showCommand },
  tally: { usage: "tally DECK [--json]", does: "counts what the deck carries", run: tallyCommand },
  convert: {
    usage: "convert IN OUT [--report FILE.json]",
    does: "writes any readable deck in any writable format, by extension; OUT with .png, .svg or a / at its end is a folder of pictures",
    run: convert,
  },
  draw: {
    usage: "draw DECK -o DIR|FILE.pdf [--slides 1,3-5] [--width PX] [--notes]",
    does: "draws slides as PNG files or a PDF, with --notes above their notes",
    run: draw,
  },
  split: {
    usage: "split DECK --plan FILE.json|FILE.csv -o DIR [--format EXT]",
    does: "one deck into several, by a plan of slides or by minutes, sections, count or turns",
    run: (args) => splitCommand(args, writable),
  },
  merge: {
    usage: "merge DECK… -o OUT [--look match|keep] [--at N]",
    does: "several decks into one; with --at the others go after slide N of the first",
    run: (args) => mergeCommand(args, write),
  },
  bind: {
    usage:
      "bind DECK -o OUT --workbook NAME=FILE --range RANGE [--slide N] [--as table|chart|number] [--mode latest|asked|fixed]",
    does: "puts cells on a slide and links them; RANGE is Sheet!A1:C5, a defined name, a table or Table[Column]",
    run: (args) => bindCommand(args, write),
  },
  bindings: {
    usage: "bindings DECK [--json]",
    does: "lists the linked values of a deck and their states",
    run: bindingsCommand,
  },
  refresh: {
    usage: "refresh DECK -o OUT [--workbook NAME=FILE]… [--check] [--json]",
    does: "takes new values from workbooks, which are given or beside the deck; --check only says what is out of date",
    run: (args) => refreshCommand(args, write),
  },
  segments: {
    usage: "segments DECK --to TAG -o FILE.xlf [--xliff 1.2|2.1]",
    does: "writes the texts to translate as XLIFF",
    run: segmentsCommand,
  },
  translate: {
    usage:
      "translate DECK --to TAG -o OUT [--segments FILE.xlf] [--memory FILE.tmx] [--terms FILE.csv|FILE.tbx] [--engine none|local|pseudo]",
    does: "makes a deck in another language, from a translated XLIFF, a memory, or an engine",
    run: (args) => translateCommand(args, write),
  },
};

/** Returns the command's help. */
export function help(name?: string): string {
  const command = name ? COMMANDS[name] : undefined;
  if (command) return `unitext ${command.usage}\n  ${command.does}\n`;
  const rows = Object.values(COMMANDS).map(({ usage, does }) => `  unitext ${usage}\n      ${does}\n`);
  return `Unitext turns texts into decks of slides and writes them in open formats.\n\n${rows.join("")}\nReadable: ${READABLE.map((kind) => `.${kind}`).join(" ")}. Writable: ${WRITABLE.map((format) => `.${format}`).join(" ")}, .png and .svg as a folder of pictures.\nExit 0 done; 1 the input was refused; 2 wrong usage.\n`;
}
