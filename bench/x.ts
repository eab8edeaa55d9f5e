import { createHash } from "node:crypto";
import { loadGrammar } from "@unitext/core/generate";
import { loadFormulas } from "@unitext/core/figures";
import { readDeck } from "@unitext/core/formats";
import { type Deck, designTheme, THEMES } from "@unitext/core/model";
import { slidePng, svgPng } from "@unitext/node";
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { layoutSlide } from "@unitext/core/layout";
import { metadataOf } from "@unitext/core/model";
import { folder, freshFonts } from "./core";
const [, , file = "", out = "", width, mood, names, only] = process.argv;
const fonts = freshFonts();
let id = 0;
await loadGrammar(); await loadFormulas();
const read = readDeck(new Uint8Array(readFileSync(file)), "x." + file.split(".").pop(), { newId: () => `i${++id}`, fonts, sha256: (b: Uint8Array) => createHash("sha256").update(b).digest("hex"), document: "doc" } as never) as any;
const deck: Deck = read.deck ?? read;
const png = svgPng(folder);
mkdirSync(out, { recursive: true });
for (const name of names && names !== "all" ? names.split(",") : Object.keys(THEMES)) {
  const theme = designTheme(name as never, mood === "home" ? undefined : (mood as never));
  const themed: Deck = { ...deck, theme, regions: { footer: "Marram Bay Field Station", number: true } };
  deck.slides.forEach((slide, at) => {
    if (only && only !== "all" && !only.split(",").includes(String(at + 1))) return;
    const scene = layoutSlide(slide, { metadata: metadataOf(themed), number: at + 1, fonts });
    if (scene.overflow) console.log(name, slide.arrangement, at + 1, "overflow", Math.round(scene.overflow));
    writeFileSync(`${out}/${name}-${String(at + 1).padStart(2, "0")}.png`, slidePng(themed, at + 1, Number(width), fonts, png, (h: string) => read.blobs?.get?.(h)));
  });
}
