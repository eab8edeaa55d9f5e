// Unpacks the shipped fonts (web fonts from npm packages) to TrueType in dist/fonts and writes the catalogue of faces.
// `node scripts/fonts.mjs` does what is missing; `--catalogue` writes core/layout/fonts/catalogue.json again.
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { convert } from "fontverter";
import { Blob, Face } from "harfbuzzjs";
import subsetFont from "subset-font";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const require = createRequire(join(root, "web/package.json"));
const CATALOGUE = join(root, "core/layout/fonts/catalogue.json");
const OUT = join(root, "dist/fonts");

const LATIN_GREEK_CYRILLIC = ["latin", "latin-ext", "greek", "greek-ext", "cyrillic", "cyrillic-ext", "vietnamese"];
const LATIN = ["latin", "latin-ext"];
const COMMON = ["latin", "latin-ext", "greek", "cyrillic"];
const STYLES = ["400-normal", "700-normal", "400-italic", "700-italic"];
const UPRIGHT = ["400-normal", "700-normal"];
const FAMILIES = [
  ["Noto Sans", "noto-sans", LATIN_GREEK_CYRILLIC, STYLES],
  ["Atkinson Hyperlegible Next", "atkinson-hyperlegible-next", ["latin", "latin-ext"], STYLES],
  ["Literata", "literata", LATIN_GREEK_CYRILLIC, STYLES],
  ["JetBrains Mono", "jetbrains-mono", LATIN_GREEK_CYRILLIC.filter((name) => name !== "greek-ext"), STYLES],
  ["Noto Sans Arabic", "noto-sans-arabic", ["arabic"], UPRIGHT],
  ["Noto Sans Hebrew", "noto-sans-hebrew", ["hebrew"], UPRIGHT],
  ["Noto Sans Devanagari", "noto-sans-devanagari", ["devanagari"], UPRIGHT],
  ["Noto Sans Bengali", "noto-sans-bengali", ["bengali"], UPRIGHT],
  ["Noto Sans Tamil", "noto-sans-tamil", ["tamil"], UPRIGHT],
  ["Noto Sans Thai", "noto-sans-thai", ["thai"], UPRIGHT],
  ["Noto Sans Symbols 2", "noto-sans-symbols-2", ["math", "symbols"], ["400-normal"]],
  ["DejaVu Sans", "dejavu-sans", ["latin"], UPRIGHT],
  ["Carlito", "carlito", COMMON, STYLES],
  ["Caladea", "caladea", ["latin", "latin-ext"], STYLES],
  ["Arimo", "arimo", COMMON, STYLES],
  ["Tinos", "tinos", COMMON, STYLES],
  ["Cousine", "cousine", COMMON, STYLES],
  ["Gelasio", "gelasio", ["latin", "latin-ext"], STYLES],
  ["Archivo Narrow", "archivo-narrow", ["latin", "latin-ext"], STYLES],
  ["Comic Relief", "comic-relief", COMMON, UPRIGHT],
  ["Source Serif 4", "source-serif-4", COMMON, STYLES],
  ["Fraunces", "fraunces", LATIN, STYLES],
  ["Bitter", "bitter", [...LATIN, "cyrillic"], STYLES],
  ["Work Sans", "work-sans", LATIN, STYLES],
  ["Figtree", "figtree", LATIN, STYLES],
  ["Nunito", "nunito", [...LATIN, "cyrillic"], STYLES],
  ["Baloo 2", "baloo-2", LATIN, UPRIGHT],
  ["Barlow", "barlow", LATIN, STYLES],
  ["Barlow Condensed", "barlow-condensed", LATIN, STYLES],
  ["Archivo", "archivo", LATIN, STYLES],
  ["Kalam", "kalam", LATIN, UPRIGHT],
  ["Courier Prime", "courier-prime", LATIN, STYLES],
  // Variable fonts in about a hundred parts each; every part becomes one file a weight.
  ...["SC", "TC", "JP", "KR"].map((name) => {
    const folder = `noto-sans-${name.toLowerCase()}`;
    return [`Noto Sans ${name}`, folder, numberedParts(folder), UPRIGHT, "variable"];
  }),
];

/** The parts of a variable font that hold its own script; the others hold Latin letters. */
function numberedParts(name) {
  const numbers = readdirSync(join(folderOf(name, true), "files")).flatMap(
    (file) => /-(\d+)-wght/.exec(file)?.[1] ?? [],
  );
  return numbers.sort((a, b) => Number(a) - Number(b));
}

function folderOf(name, variable) {
  return dirname(require.resolve(`@fontsource${variable ? "-variable" : ""}/${name}/package.json`));
}

/** Returns a face as TrueType. A variable font is instanced at the weight. */
async function truetype(name, subset, style, variable) {
  if (!variable) return convert(readFileSync(join(folderOf(name), "files", `${name}-${subset}-${style}.woff`)), "sfnt");
  const file = join(folderOf(name, true), "files", `${name}-${subset}-wght-normal.woff2`);
  const font = await convert(readFileSync(file), "sfnt");
  const text = String.fromCodePoint(...new Face(new Blob(font)).collectUnicodes());
  return subsetFont(font, text, { targetFormat: "sfnt", variationAxes: { wght: Number.parseInt(style, 10) } });
}

/** The characters that the face really has, as ranges, from the font's own table. */
async function rangesOf(...face) {
  const points = [...new Face(new Blob(await truetype(...face))).collectUnicodes()].sort((a, b) => a - b);
  const ranges = [];
  for (const point of points) {
    const last = ranges.at(-1);
    if (last && last[1] === point - 1) last[1] = point;
    else ranges.push([point, point]);
  }
  // Each range as its distance from the one before, and its length where it is longer than one character.
  let end = 0;
  return ranges
    .map(([from, to]) => {
      const distance = (from - end).toString(36);
      end = to;
      return from === to ? distance : `${distance}+${(to - from).toString(36)}`;
    })
    .join(" ");
}

async function catalogue() {
  const ranges = [];
  const families = [];
  for (const [family, name, subsets, styles, variable] of FAMILIES) {
    const faces = [];
    for (const style of styles) {
      const [weight, slant] = style.split("-");
      for (const subset of subsets) {
        const covered = await rangesOf(name, subset, style, variable);
        if (!ranges.includes(covered)) ranges.push(covered);
        const id = `${name}-${subset}-${style}`;
        faces.push({ id, weight: Number(weight), slant, ranges: ranges.indexOf(covered) });
      }
    }
    families.push({ family, faces });
  }
  return { ranges, families };
}

if (process.argv.includes("--catalogue")) writeFileSync(CATALOGUE, `${JSON.stringify(await catalogue())}\n`);
mkdirSync(OUT, { recursive: true });
for (const [, name, subsets, styles, variable] of FAMILIES)
  for (const style of styles)
    for (const subset of subsets) {
      const file = join(OUT, `${name}-${subset}-${style}.ttf`);
      if (!existsSync(file)) writeFileSync(file, await truetype(name, subset, style, variable));
    }
