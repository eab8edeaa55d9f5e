import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { FontSet } from "@unitext/core/layout";
import { bindingsOn, type Deck } from "@unitext/core/model";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { readDeck, type WritableFormat, WRITERS } from "./index";

const TEXT = `# Levels

## The quay

The quay was high[^1], in [4.6](cell:gauges.xlsx?range=Levels!D2&mode=latest).

| Station | Level |
| --- | --: |
| Quay | [4.7](cell:gauges.xlsx?range=Levels!D3&mode=latest) |

:::notes
In notes [4.8](cell:gauges.xlsx?range=Levels!D4&mode=asked) too[^2].
:::

[^1]: At [4.9](cell:gauges.xlsx?range=Levels!D5&mode=latest) metres.

[^2]: Note [3.1](cell:gauges.xlsx?range=Peak&mode=fixed) metres.
`;
const fonts = new FontSet((id) => readFileSync(join(process.cwd(), `dist/fonts/${id}.ttf`)));
const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
let serial = 0;
const read = (bytes: Uint8Array, name: string) => readDeck(bytes, name, { newId: () => `n${++serial}`, sha256 });
const linked = ({ slides }: Deck) =>
  slides
    .flatMap((slide) => bindingsOn(slide).map(({ binding: { range, mode }, shown }) => [shown, range, mode]))
    .sort();

const { deck } = read(strToU8(TEXT), "levels.md");
const written = async (format: WritableFormat) =>
  new Uint8Array(await WRITERS[format].write(deck, { fonts, picture: () => undefined, at: new Date(0) }));

describe("values in sentences, cells, notes and footnotes", () => {
  it.each(["pptx", "odp", "json", "md"] as const)("come back from a .%s with their links", async (format) => {
    expect(linked(deck)).toHaveLength(5);
    expect(linked(read(await written(format), `levels.${format}`).deck)).toEqual(linked(deck));
  });

  it("that another program changed are linked no more, and the report says so", async () => {
    const parts = unzipSync(await written("pptx"));
    for (const [path, bytes] of Object.entries(parts))
      if (/^ppt\/slides\/slide\d+\.xml$/.test(path))
        parts[path] = strToU8(strFromU8(bytes).replace("<a:t>4.7</a:t>", "<a:t>5.7</a:t>"));
    const changed = read(zipSync(parts), "levels.pptx");
    expect(linked(changed.deck).map(([shown]) => shown)).toEqual(["3.1", "4.6", "4.8", "4.9"]);
    expect(changed.left).toEqual([
      { slide: 2, what: "the link of “4.7” to gauges.xlsx, Levels!D3", why: "another program changed the value" },
    ]);
  });
});
