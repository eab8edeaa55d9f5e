// Unpacks the shipped fonts (web fonts from npm packages) to TrueType in dist/fonts and writes the catalogue of faces.
// `node scripts/fonts.mjs` does what is missing; `--catalogue` writes core/layout/fonts/catalogue.json again.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { convert } from "fontverter";
import { Blob, Face } from "harfbuzzjs";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const require = createRequire(join(root, "web/package.json"));
const CATALOGUE = join(root, "core/layout/fonts/catalogue.json");
const OUT = join(root, "dist/fonts");

const LATIN_GREEK_CYRILLIC = ["latin", "latin-ext", "greek", "greek-ext", "cyrillic", "cyrillic-ext", "vietnamese"];
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
];

const folderOf = (name) => dirname(require.resolve(`@fontsource/${name}/package.json`));

const truetype = (name, id) => convert(readFileSync(join(folderOf(name), "files", `${id}.woff`)), "sfnt");

/** The characters that the face really has, as ranges, from the font's own table. */
async function rangesOf(name, id) {
  const points = [...new Face(new Blob(await truetype(name, id))).collectUnicodes()].sort((a, b) => a - b);
  const ranges = [];
  for (const point of points) {
    const last = ranges.at(-1);
    if (last && last[1] === point - 1) last[1] = point;
    else ranges.push([point, point]);
  }
  return ranges
    .map(([from, to]) => (from === to ? from.toString(16) : `${from.toString(16)}-${to.toString(16)}`))
    .join(",");
}

async function catalogue() {
  const families = [];
  for (const [family, name, subsets, styles] of FAMILIES) {
    const faces = [];
    for (const style of styles) {
      const [weight, slant] = style.split("-");
      for (const subset of subsets) {
        const id = `${name}-${subset}-${style}`;
        faces.push({ id, package: name, weight: Number(weight), slant, ranges: await rangesOf(name, id) });
      }
    }
    families.push({ family, faces });
  }
  return families;
}

if (process.argv.includes("--catalogue")) writeFileSync(CATALOGUE, `${JSON.stringify(await catalogue(), null, 1)}\n`);
mkdirSync(OUT, { recursive: true });
for (const { faces } of JSON.parse(readFileSync(CATALOGUE, "utf8"))) {
  for (const face of faces) {
    const file = join(OUT, `${face.id}.ttf`);
    if (existsSync(file)) continue;
    writeFileSync(file, await truetype(face.package, face.id));
  }
}
