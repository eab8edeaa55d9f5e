import { type ChildProcess, fork } from "node:child_process";
import { once } from "node:events";
import type { Piece } from "@unitext/core/translate";
import { translateByService, type TranslationService, translationServiceFrom } from "./index";

const children: ChildProcess[] = [];
afterAll(() => {
  for (const child of children) child.kill();
});

/** Starts the stand-in that ships, with a fault, and returns where it listens. */
async function standIn(fault = ""): Promise<string> {
  const child = fork("demo/translator.mjs", ["0"], {
    env: { ...process.env, FAULT: fault },
    execArgv: [],
  });
  children.push(child);
  const [port] = await once(child, "message");
  return `http://127.0.0.1:${port}`;
}

const open = (code: number): Piece => ({ code, at: "open" });
const close = (code: number): Piece => ({ code, at: "close" });
const texts: Piece[][] = [
  ["The tide and ", open(1), "the dunes", close(1), " at 4.6 m"],
  ["Storm", { code: 1, at: "single" }],
];
const languages = { from: "en", to: "es", terms: [] };
const translate = (service: TranslationService, given = texts) => translateByService(given, languages, service);

describe("a translation service", () => {
  it.each([
    ["json", "/"],
    ["chat", "/v1/chat/completions"],
  ] as const)(
    "proposes over %s, with placeholders kept and numbers in the form of the language",
    async (protocol, path) => {
      const { proposals, remark } = await translate({ url: `${await standIn()}${path}`, protocol });
      expect(remark).toBe("");
      expect(proposals).toEqual([
        ["La marea y ", open(1), "la dunas", close(1), " at 4,6 m"],
        ["Tormenta", { code: 1, at: "single" }],
      ]);
    },
  );

  it("is sent the terms that occur, and more texts than go at once", async () => {
    const many = Array.from({ length: 90 }, (_, nth): Piece[] => [`Tide ${nth}`]);
    const terms = [
      { source: "Tide", target: "Pleamar" },
      { source: "gauge", target: "mareógrafo" },
    ];
    const url = await standIn();
    const { proposals } = await translateByService(many, { ...languages, terms }, { url, protocol: "json" });
    expect(proposals).toHaveLength(90);
    expect(proposals[89]).toEqual(["Pleamar 89"]);
  });

  it("has no proposal where placeholders are lost", async () => {
    const { proposals } = await translate({ url: await standIn("drop"), protocol: "json" });
    expect(proposals).toEqual([undefined, undefined]);
  });

  it.each([
    ["nonsense", /did not answer with one translation/],
    ["gone", /could not be reached/],
  ])("says what went wrong when it is %s", async (fault, sentence) => {
    const url = fault === "gone" ? "http://127.0.0.1:9" : await standIn(fault);
    const { proposals, remark } = await translate({ url, protocol: "json" });
    expect(proposals).toEqual([]);
    expect(remark).toMatch(sentence);
  });

  it("is off until an address is set, and refuses settings that make no sense", () => {
    expect(translationServiceFrom({})).toBeUndefined();
    expect(translationServiceFrom({ UNITEXT_TRANSLATION_URL: "https://t.example/" })).toEqual({
      url: "https://t.example/",
      protocol: "json",
    });
    expect(() => translationServiceFrom({ UNITEXT_TRANSLATION_URL: "ftp://t.example" })).toThrow(/http/);
    expect(() =>
      translationServiceFrom({ UNITEXT_TRANSLATION_URL: "http://t.example", UNITEXT_TRANSLATION_PROTOCOL: "xml" }),
    ).toThrow(/json or chat/);
  });
});
