import { strFromU8, unzipSync } from "fflate";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { emptyDeck, Failure, newSlide, plainText, must } from "@unitext/core/model";

import { WRITERS } from "@unitext/core/formats";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { readPdf } from "@unitext/node";
import { Job } from "./api";
import { json, type TestServer, testServer } from "./testing";

let server: TestServer;
beforeAll(async () => {
  server = await testServer("unitext_write");
}, 60000);
afterAll(() => server.close());

describe("decks written together", () => {
  it("come as files of one archive, with one report, and can be fetched by nobody else", async () => {
    const user = await server.as("ines");
    const ids: string[] = [];
    for (const title of ["Tides", "Tides", "a/b"])
      ids.push(
        (
          (await (
            await user(
              "/api/decks",
              json({
                title,
                text: `---\ntitle: ${title}\n---\n\n# ${title}\n\n## One\n\n- [the web](https://example.org)\n\n:::notes\nSay it.\n:::`,
              }),
            )
          ).json()) as { id: string }
        ).id,
      );
    const begun = (await (await user("/api/writes", json({ decks: ids, formats: ["pdf"] }))).json()) as { job: string };
    const ask = async () => Job.parse(await (await user(`/api/jobs/${begun.job}`)).json());
    let job = await ask();
    for (let wait = 0; wait < 200 && (job.state === "waiting" || job.state === "running"); wait++) {
      await new Promise((resolve) => setTimeout(resolve, 200));
      job = await ask();
    }
    expect(job).toMatchObject({ state: "done", result: { file: { name: "3 decks as pdf.zip" } } });
    expect(job.report?.left.map(({ what }) => what)).toContain("“Tides”, its notes");
    const parts = unzipSync(new Uint8Array(await (await user(`/api/jobs/${begun.job}/file`)).arrayBuffer()));
    expect(Object.keys(parts).sort()).toEqual(["Tides (2).pdf", "Tides.pdf", "a-b.pdf", "report.json", "report.txt"]);
    expect(strFromU8(must(parts["Tides.pdf"]).subarray(0, 5))).toBe("%PDF-");
    expect(JSON.parse(strFromU8(must(parts["report.json"]))).decks).toHaveLength(3);
    expect(strFromU8(must(parts["report.txt"]))).toMatch(/^Tides.pdf\n- .*its notes.* left out, /);
    const other = await server.as("tom");
    expect((await other(`/api/jobs/${begun.job}/file`)).status).toBe(404);
    expect((await other("/api/writes", json({ decks: ids, formats: ["pdf"] }))).status).toBeGreaterThanOrEqual(403);
  }, 60000);
});

describe("a deck that is handed over", () => {
  it("has in no file what is taken out of it, alone and with all its formats in one archive", async () => {
    const user = await server.as("ines");
    const text = "---\ntitle: Quay\nauthor: The keeper\n---\n\n# Quay\n\n- a wall\n\n:::notes\nNot for guests.\n:::";
    const { id } = (await (await user("/api/decks", json({ title: "Quay", text }))).json()) as { id: string };
    const md = async (query: string) => (await user(`/api/decks/${id}/export?format=md${query}`)).text();
    expect(await md("")).toMatch(/The keeper[\s\S]*Not for guests/);
    const bare = await md("&without=notes,author");
    expect(bare).toContain("a wall");
    expect(bare).not.toMatch(/keeper|guests/);
    const wrong = await user(`/api/decks/${id}/export?format=md&without=slides`);
    expect([wrong.status, await wrong.text()]).toEqual([
      400,
      expect.stringContaining("notes, comments, hidden, author"),
    ]);

    const asked = { decks: [id], formats: ["md", "json", "svg"], without: ["notes", "author"] };
    const { job: begun } = (await (await user("/api/writes", json(asked))).json()) as { job: string };
    const ask = async () => Job.parse(await (await user(`/api/jobs/${begun}`)).json());
    let job = await ask();
    for (let wait = 0; wait < 200 && (job.state === "waiting" || job.state === "running"); wait++) {
      await new Promise((resolve) => setTimeout(resolve, 200));
      job = await ask();
    }
    expect(job).toMatchObject({ state: "done", result: { file: { name: "1 deck as md, json, svg.zip" } } });
    const parts = unzipSync(new Uint8Array(await (await user(`/api/jobs/${begun}/file`)).arrayBuffer()));
    expect(Object.keys(parts).sort()).toEqual(["Quay.json", "Quay.md", "Quay.svg.zip", "report.json", "report.txt"]);
    for (const name of ["Quay.json", "Quay.md"]) expect(strFromU8(must(parts[name]))).not.toMatch(/keeper|guests/);
  }, 60000);
});

describe("a PDF", () => {
  it("is read as a slide a page, its words as description and notes", async () => {
    const deck = {
      ...emptyDeck("d", "Gauges"),
      language: "en",
      slides: ["First words", "Second words"].map((words, nth) => ({
        ...newSlide(`s${nth}`, "title"),
        elements: [{ kind: "text" as const, id: "t", slot: "title", text: plainText(words) }],
      })),
    };
    const bytes = await WRITERS.pdf.write(deck, { fonts: shippedFonts(), at: new Date(0), picture: () => undefined });
    const read = await readPdf({ bytes, name: "gauges.pdf" });
    expect(read.deck).toMatchObject({
      page: { width: 960, height: 540 },
      properties: { title: "Gauges" },
      language: "en",
    });
    expect(read.deck.slides.map(({ notes }) => notes[0]?.runs[0]?.text)).toEqual(["First words", "Second words"]);
    expect(read.deck.slides[0]?.elements[0]).toMatchObject({
      kind: "picture",
      alt: expect.stringContaining("First words"),
      frame: { x: 0, y: 0, width: 960, height: 540 },
    });
    const [picture] = read.blobs.values();
    expect([...must(picture).subarray(1, 4)].map((code) => String.fromCharCode(code)).join("")).toBe("PNG");
    const user = await server.as("ines");
    const answer = await user("/api/files?name=gauges.pdf", {
      method: "POST",
      headers: { "content-type": "application/octet-stream" },
      body: bytes as Uint8Array<ArrayBuffer>,
    });
    expect([answer.status, typeof ((await answer.json()) as { id: unknown }).id]).toEqual([201, "string"]);
  }, 60000);

  it("that is none, or is locked, is refused with a sentence", async () => {
    await expect(readPdf({ bytes: new Uint8Array([1, 2, 3]), name: "x.pdf" })).rejects.toThrow(Failure);
    await expect(
      readPdf({ bytes: readFileSync(join(import.meta.dirname, "../README.md")), name: "x.pdf" }),
    ).rejects.toThrow(/no PDF/);
  });
});
