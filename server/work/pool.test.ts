import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { strToU8, zipSync } from "fflate";
import { ProcessPool } from "./index";

const fonts = join(process.cwd(), "dist/fonts");

/** A worker's program whose orders do what their text says: answer, never end, use up memory, or end the process. */
function obedient(): string {
  const file = join(mkdtempSync(join(tmpdir(), "unitext-work-")), "worker.mjs");
  writeFileSync(
    file,
    `const held = [];
    process.on("message", (order) => {
      if (order.kind !== "task") return;
      const { text } = order.input;
      if (text === "spin") for (;;) {}
      if (text === "grow") for (;;) held.push(Buffer.alloc(32e6, 1));
      if (text === "die") process.exit(1);
      if (text.startsWith("wait")) setTimeout(() => process.send({ kind: "done", result: text }), Number(text.slice(4)));
      else process.send({ kind: "done", result: text });
    });
    process.on("disconnect", () => process.exit(0));`,
  );
  return file;
}

let pool: ProcessPool;
beforeAll(() => {
  pool = new ProcessPool(obedient(), fonts);
});
afterAll(() => pool.close());
const ask = (owner: string, text: string, signal?: AbortSignal) =>
  pool.run("text", { title: "", text }, { owner, ...(signal ? { signal } : {}) }) as unknown as Promise<string>;

describe("a worker process", () => {
  it("is ended when it uses more memory than it may, and the person reads why", async () => {
    await expect(ask("olive", "grow")).rejects.toMatchObject({
      code: "too-large",
      message: expect.stringMatching(/more than 1024 MB of memory/),
    });
    expect(await ask("olive", "next")).toBe("next");
  });

  it("that ends by itself takes nothing with it", async () => {
    await expect(ask("olive", "die")).rejects.toMatchObject({
      code: "not-readable",
      message: expect.stringContaining("met a fault"),
    });
    expect(await ask("olive", "next")).toBe("next");
  });

  it("that ends in a task without input takes nothing with it either", async () => {
    // The program of this test reads a text that is not there, and ends.
    await expect(pool.run("filmTools", undefined, { owner: "olive" })).rejects.toMatchObject({
      code: "not-readable",
      where: "filmTools",
    });
    expect(await ask("olive", "next")).toBe("next");
  });

  it("is ended when nobody waits for it any more, also in the middle of a computation", async () => {
    const gone = new AbortController();
    const spinning = ask("olive", "spin", gone.signal);
    setTimeout(() => gone.abort(new Error("gone")), 200);
    await expect(spinning).rejects.toThrow("gone");
    expect(await ask("olive", "next")).toBe("next");
  });

  it("takes no further order once it was ended, also where its last answer was on its way", async () => {
    for (let round = 0; round < 5; round++) {
      expect(await ask("olive", "ready")).toBe("ready");
      const gone = new AbortController();
      const answer = ask("olive", "late", gone.signal).catch(() => "gone");
      // The answer comes while nobody looks, and is seen only after the process was ended.
      for (const until = performance.now() + 100; performance.now() < until; );
      gone.abort(new Error("gone"));
      expect(await answer).toBe("gone");
      const next = Array.from({ length: 2 }, () =>
        new Promise((resolve) => setImmediate(resolve)).then(() => ask("olive", "next")),
      );
      expect(await Promise.all(next)).toEqual(["next", "next"]);
    }
  });

  it("serves others while one person keeps all of theirs busy", async () => {
    const gone = new AbortController();
    const busy = Array.from({ length: 6 }, () => ask("olive", "spin", gone.signal).catch(() => "ended"));
    expect(await ask("perry", "mine")).toBe("mine");
    gone.abort();
    expect(await Promise.all(busy)).toEqual(Array(6).fill("ended"));
  });

  it("refuses more than a hundred waiting orders of one person", async () => {
    const gone = new AbortController();
    const orders = Array.from({ length: 110 }, () =>
      ask("olive", "spin", gone.signal).then(
        () => "done",
        (error: { code?: string }) => error.code ?? "ended",
      ),
    );
    // Orders beyond the limit are refused at once.
    await Promise.all(orders.slice(-8));
    gone.abort();
    expect((await Promise.all(orders)).filter((code) => code === "too-many").length).toBeGreaterThanOrEqual(8);
  });
});

describe("hostile files", () => {
  let real: ProcessPool;
  beforeAll(() => {
    real = new ProcessPool(join(process.cwd(), "dist/server/worker.js"), fonts);
  });
  afterAll(() => real.close());

  it("a document of 160 MB of empty paragraphs in one megabyte is refused by what it becomes", async () => {
    const body = `<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${"<w:p/>".repeat(27_000_000)}</w:body></w:document>`;
    const bytes = zipSync({ "word/document.xml": [strToU8(body), { level: 9 }] });
    expect(bytes.length).toBeLessThan(1_100_000);
    await expect(real.run("document", { bytes, name: "empty.docx" }, { owner: "olive" })).rejects.toMatchObject({
      code: "too-large",
    });
    expect((await real.run("text", { title: "After", text: "# Tides" }, { owner: "olive" })).deck.slides).toHaveLength(
      1,
    );
  });
});
