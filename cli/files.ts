import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { basename, dirname, isAbsolute, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { type AskedRule, DOCUMENTS, extensionOf, type ReadResult, readDeck, withDrawings } from "@unitext/core/formats";
import { loadGrammar } from "@unitext/core/generate";
import { FontSet, loadHyphenation } from "@unitext/core/layout";
import { Failure, must } from "@unitext/core/model";
import { nanoid } from "nanoid";
import { readPdf, svgPng } from "@unitext/node";

const folder = join(dirname(fileURLToPath(import.meta.url)), "../fonts");
export const fonts = new FontSet((id) => readFileSync(join(folder, `${id}.ttf`)));
export const png = svgPng(folder);
export const newId = () => nanoid(10);
const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");

/** Adds the file to a Failure's place. */
function named<T>(file: string, act: () => T): T {
  try {
    return act();
  } catch (error) {
    if (error instanceof Failure) throw Object.assign(error, { file });
    throw error;
  }
}

/** Reads a file. Throws a Failure `not-found` that names it when it is not there. */
export function readBytes(file: string): Uint8Array {
  return named(file, () => {
    if (!existsSync(file)) throw new Failure("not-found", file, "There is no such file.");
    try {
      return readFileSync(file);
    } catch {
      throw new Failure("not-readable", file, "The file cannot be read.");
    }
  });
}

/** Reads a deck or a text. Pictures that a text names are looked up beside it, never above its folder. */
export async function readFile(file: string, rule?: AskedRule): Promise<ReadResult> {
  const bytes = readBytes(file);
  if (extensionOf(file) === "pdf")
    return readPdf({ bytes, name: basename(file) }).catch((error) =>
      named(file, () => {
        throw error;
      }),
    );
  // Slides are made of documents only.
  if (DOCUMENTS.some((kind) => kind === extensionOf(file))) await loadGrammar();
  const beside = resolve(dirname(file));
  const picture = (source: string) => {
    const path = resolve(beside, source);
    return !isAbsolute(source) && path.startsWith(`${beside}/`) && existsSync(path) ? readFileSync(path) : undefined;
  };
  const read = named(file, () =>
    readDeck(bytes, basename(file), { newId, sha256, picture, fonts, document: newId(), ...(rule ? { rule } : {}) }),
  );
  await loadHyphenation(read.deck.language);
  return withDrawings(read, sha256);
}

/** Writes a file completely or not at all. */
export function writeWhole(file: string, bytes: Uint8Array | string): void {
  const partial = `${file}.${process.pid}.part`;
  try {
    mkdirSync(dirname(resolve(file)), { recursive: true });
    writeFileSync(partial, bytes);
    renameSync(partial, file);
  } catch {
    rmSync(partial, { force: true });
    throw Object.assign(new Failure("not-readable", file, "The file cannot be written there."), { file });
  }
}

/** Writes several files, all of them or none. */
export function writeAll(files: readonly { file: string; bytes: Uint8Array }[]): void {
  const partial = files.map(({ file }) => `${file}.${process.pid}.part`);
  let done = 0;
  try {
    files.forEach(({ bytes }, nth) => {
      mkdirSync(dirname(resolve(must(partial[nth]))), { recursive: true });
      writeFileSync(must(partial[nth]), bytes);
    });
    for (; done < files.length; done++) renameSync(must(partial[done]), (files[done] as { file: string }).file);
  } catch {
    for (const part of partial) rmSync(part, { force: true });
    for (const { file } of files.slice(0, done)) rmSync(file, { force: true });
    const [first] = files;
    throw Object.assign(new Failure("not-readable", first?.file ?? "", "The files cannot be written there."), {
      file: first?.file,
    });
  }
}
