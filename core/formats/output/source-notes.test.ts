import { emptyDeck, newSlide, run, type Deck } from "@unitext/core/model";
import { strFromU8, unzipSync } from "fflate";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { FontSet } from "@unitext/core/layout";
import { WRITERS } from "../index";

const fonts = new FontSet((id) => readFileSync(join(process.cwd(), `dist/fonts/${id}.ttf`)));
const value = (range: string) =>
  run("4.6", [], undefined, undefined, {
    source: "gauges.xlsx",
    range,
    mode: "latest",
    takenAt: "2026-07-02T09:00:00Z",
  });
const deck: Deck = {
  ...emptyDeck("d", "Levels"),
  slides: [
    {
      ...newSlide("one", "points"),
      elements: [
        { kind: "text", id: "t", slot: "body", text: [{ kind: "plain", level: 0, runs: [value("Levels!D2")] }] },
      ],
      notes: [{ kind: "plain", level: 0, runs: [value("Peak")] }],
    },
    newSlide("two", "points"),
  ],
};
const NOTE = "Source: gauges.xlsx, Levels!D2, Peak, as of Jul 2, 2026.";
const write = async (format: "pdf" | "html" | "docx", sourceNotes: boolean) =>
  new Uint8Array(await WRITERS[format].write(deck, { fonts, picture: () => undefined, at: new Date(0), sourceNotes }));

describe("notes of where linked values come from", () => {
  it("are on the web page and in the handout when they are wanted, and not otherwise", async () => {
    const handout = async (on: boolean) =>
      strFromU8(unzipSync(await write("docx", on))["word/document.xml"] ?? new Uint8Array()).replace(/<[^>]+>/g, "");
    expect(strFromU8(await write("html", true))).toContain(`<p>${NOTE}</p></details>`);
    expect(strFromU8(await write("html", false))).not.toContain(NOTE);
    expect(await handout(true)).toContain(NOTE);
    expect(await handout(false)).not.toContain(NOTE);
  });

  it("are text annotations in a PDF, on the pages that have linked values (ISO 32000-1, 12.5.6.4)", async () => {
    const annotations = async (on: boolean) =>
      strFromU8(await write("pdf", on), true).match(/\/Subtype \/Text\b/g)?.length ?? 0;
    expect(await annotations(true)).toBe(1);
    expect(await annotations(false)).toBe(0);
  });
});
