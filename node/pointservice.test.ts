import { type ChildProcess, fork } from "node:child_process";
import { once } from "node:events";
import { type LanguageService, pointsByService, pointServiceFrom } from "./index";

const children: ChildProcess[] = [];
afterAll(() => {
  for (const child of children) child.kill();
});

/** Starts the stand-in that ships, with a fault, and returns it as a service. */
async function standIn(fault = ""): Promise<LanguageService> {
  const child = fork("demo/pointwriter.mjs", ["0"], { env: { ...process.env, FAULT: fault }, execArgv: [] });
  children.push(child);
  const [port] = await once(child, "message");
  return { url: `http://127.0.0.1:${port}/v1/chat/completions` };
}

const paragraphs = [["The gate closes at 22:00 (in winter).", "It is not locked."], ["Sand moves."]];

describe("a service that writes points", () => {
  it("answers with a point for each sentence", async () => {
    const { points, remark } = await pointsByService(paragraphs, "en", await standIn());
    expect(points).toEqual([["The gate closes at 22:00", "It is not locked"], ["Sand moves"]]);
    expect(remark).toBe("");
  });

  it("is asked again where there are more paragraphs than go at once", async () => {
    const many = Array.from({ length: 45 }, (_, nth) => [`Tide ${nth} rises.`]);
    const { points } = await pointsByService(many, "en", await standIn());
    expect(points.map(([point]) => point)).toEqual(many.map((_, nth) => `Tide ${nth} rises`));
  });

  it.each([
    ["short", "did not answer with one point for each sentence"],
    ["nonsense", "did not answer with one point for each sentence"],
  ])("says what is wrong with an answer that is %s", async (fault, why) => {
    const { points, remark } = await pointsByService(paragraphs, "en", await standIn(fault));
    expect(points).toEqual([]);
    expect(remark).toContain(why);
  });

  it("says that it cannot be reached, and stops when it is cancelled", async () => {
    const gone = await pointsByService(paragraphs, "en", { url: "http://127.0.0.1:9/" });
    expect(gone.remark).toContain("could not be reached");
    const stopped = new AbortController();
    const asked = pointsByService(paragraphs, "en", await standIn("hang"), stopped.signal);
    stopped.abort();
    expect((await asked).points).toEqual([]);
  });

  it("is none until an address is set, and has to be an address", () => {
    expect(pointServiceFrom({})).toBeUndefined();
    expect(pointServiceFrom({ UNITEXT_POINTS_URL: "http://127.0.0.1:4301/", UNITEXT_POINTS_MODEL: "m" })).toEqual({
      url: "http://127.0.0.1:4301/",
      model: "m",
    });
    expect(() => pointServiceFrom({ UNITEXT_POINTS_URL: "ftp://example.org" })).toThrow("It is an address");
  });
});
