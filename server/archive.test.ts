import { type Deck, emptyDeck, newSlide, plainText, type Slide } from "@unitext/core/model";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { nanoid } from "nanoid";
import { PNG } from "pngjs";
import { Begun, DeckList, type Job, SourceList } from "./api";
import {
  createDeck,
  createFolder,
  loadBlobs,
  loadDeck,
  memoryUnits,
  putInFolder,
  remember,
  setBinned,
  sourceNamed,
  storedTargets,
  storedTerms,
  storedThemes,
  storeTargets,
  storeTerms,
  storeTheme,
} from "./store";
import { ended, json, type TestServer, testServer } from "./testing";

let server: TestServer;
beforeAll(async () => {
  server = await testServer("archive");
});
afterAll(() => server.close());

type Client = Awaited<ReturnType<TestServer["as"]>>;

const slide = (id: string, title: string, more: Partial<Slide> = {}): Slide => ({
  ...newSlide(id, "points"),
  elements: [{ kind: "text", id: `${id}t`, slot: "title", text: plainText(title) }],
  notes: plainText(`Say ${title}.`),
  ...more,
});

async function archived(ask: Client): Promise<Uint8Array> {
  const { job } = Begun.parse(await (await ask("/api/archives", json({}))).json());
  expect((await ended(ask, job)).state).toBe("done");
  return new Uint8Array(await (await ask(`/api/jobs/${job}/file`)).arrayBuffer());
}

async function restored(ask: Client, bytes: Uint8Array, name = "all.zip"): Promise<Job> {
  const { job } = Begun.parse(
    await (
      await ask(`/api/archives/contents?name=${name}`, {
        method: "POST",
        headers: { "content-type": "application/octet-stream" },
        body: Buffer.from(bytes),
      })
    ).json(),
  );
  return ended(ask, job);
}

const listOf = async (ask: Client) => DeckList.parse(await (await ask("/api/decks")).json());

/** A person with two decks that name each other, a folder, a workbook in two versions, a design, terms and a memory. */
async function everything(owner: string): Promise<Client> {
  const ask = await server.as(owner);
  const picture = PNG.sync.write(new PNG({ width: 4, height: 3 }));
  const { createHash } = await import("node:crypto");
  const sha256 = createHash("sha256").update(picture).digest("hex");
  const tides: Deck = {
    ...emptyDeck(nanoid(12), "Tides"),
    assets: { "quay.png": { sha256, mediaType: "image/png", width: 4, height: 3 } },
    slides: [slide("a", "Springs"), slide("b", "Neaps", { parent: "a" })],
  };
  await createDeck(server.db, owner, tides, new Map([[sha256, picture]]), "# Tides\n\n## Springs");
  const german: Deck = {
    ...emptyDeck(nanoid(12), "Gezeiten"),
    language: "de",
    original: { deck: tides.id, version: 0, language: "en" },
    slides: [slide("c", "Springtide", { origin: { deck: tides.id, slide: "a", version: 0 } })],
  };
  await createDeck(server.db, owner, german, new Map(), null);
  await storeTargets(server.db, german.id, owner, [
    { id: "a/t", source: ["Springs"], target: ["Springtide"], state: "reviewed" },
  ]);
  await createDeck(
    server.db,
    owner,
    { ...emptyDeck(nanoid(12), "Old"), slides: [slide("d", "Gone")] },
    new Map(),
    null,
  );
  const list = await listOf(ask);
  const folder = await createFolder(server.db, owner, "Course");
  await putInFolder(server.db, tides.id, owner, folder);
  await setBinned(server.db, list.decks.find(({ title }) => title === "Old")?.id ?? "", true);
  for (const cell of ["3.4", "3.6"])
    await ask("/api/sources?name=levels.csv", {
      method: "POST",
      headers: { "content-type": "application/octet-stream" },
      body: `Gauge,Metres\nQuay,${cell}\n`,
    });
  await storeTheme(server.db, owner, { ...tides.theme, name: "Boat shed" });
  await storeTerms(server.db, owner, { from: "en", to: "de", terms: [{ source: "neap", target: "Nipptide" }] });
  await remember(server.db, owner, [{ from: "en", to: "de", source: ["High water"], target: ["Hochwasser"] }]);
  return ask;
}

describe("an archive of everything", () => {
  it("gives another person all of it: decks that name each other, folders, bin, workbooks, designs, terms, memory", async () => {
    const bytes = await archived(await everything("keeper"));
    expect(Object.keys(unzipSync(bytes)).sort()).toEqual([
      "contents.json",
      "decks/Gezeiten.json",
      "decks/Old.json",
      "decks/Tides.json",
      "memory/en-de.tmx",
      "workbooks/1/levels.csv",
      "workbooks/2/levels.csv",
    ]);
    const heir = await server.as("heir");
    const job = await restored(heir, bytes);
    expect([job.state, job.result?.remarks]).toEqual(["done", []]);
    expect(job.result?.sentence).toBe("3 decks, 1 folder, 1 workbook and 1 saved design were taken from the archive.");
    const { decks, binned, folders } = await listOf(heir);
    expect(decks.map(({ title }) => title).sort()).toEqual(["Gezeiten", "Tides"]);
    expect([binned.map(({ title }) => title), folders.map(({ name }) => name)]).toEqual([["Old"], ["Course"]]);
    const tides = decks.find(({ title }) => title === "Tides");
    const german = decks.find(({ title }) => title === "Gezeiten");
    expect(tides?.folder).toBe(folders[0]?.id);
    const { deck, text } = await loadDeck(server.db, tides?.id ?? "");
    expect([text, deck.slides.map(({ id, parent }) => [id, parent])]).toEqual([
      "# Tides\n\n## Springs",
      [
        ["a", null],
        ["b", "a"],
      ],
    ]);
    expect((await loadBlobs(server.db, deck.id)).size).toBe(1);
    const translated = (await loadDeck(server.db, german?.id ?? "")).deck;
    expect([translated.original?.deck, translated.slides[0]?.origin?.deck]).toEqual([tides?.id, tides?.id]);
    expect(await storedTargets(server.db, translated.id)).toMatchObject([{ target: ["Springtide"] }]);
    const { sources } = SourceList.parse(await (await heir("/api/sources")).json());
    expect(sources.map(({ name, versions }) => [name, versions.length])).toEqual([["levels.csv", 2]]);
    // Both people have the same newest version.
    const given = await sourceNamed(server.db, "keeper", "levels.csv");
    expect((await sourceNamed(server.db, "heir", "levels.csv"))?.newest).toBe(given?.newest);
    expect((await storedThemes(server.db, "heir")).map(({ theme }) => theme.name)).toEqual(["Boat shed"]);
    expect(await storedTerms(server.db, "heir", "en", "de")).toEqual([{ source: "neap", target: "Nipptide" }]);
    expect(await memoryUnits(server.db, "heir", "en", "de")).toMatchObject([{ target: ["Hochwasser"] }]);
  });

  it("replaces nothing that is there: decks get the next name, a workbook with other contents stays", async () => {
    const ask = await everything("twice");
    const bytes = await archived(ask);
    await ask("/api/sources?name=levels.csv", {
      method: "POST",
      headers: { "content-type": "application/octet-stream" },
      body: "Gauge,Metres\nQuay,9.9\n",
    });
    const { result } = await restored(ask, bytes);
    expect((await listOf(ask)).decks.map(({ title }) => title).sort()).toEqual([
      "Gezeiten",
      "Gezeiten 2",
      "Tides",
      "Tides 2",
    ]);
    expect(result?.remarks).toContain("A deck “Tides” is here already; the one of the archive is “Tides 2”.");
    expect(result?.remarks).toContain(
      "A workbook “levels.csv” is here already with other contents; it stays as it is.",
    );
  });

  it("is refused where it is none, and taken with a remark where a deck in it is damaged", async () => {
    const ask = await server.as("careful");
    const refused = await restored(ask, zipSync({ "a.txt": strToU8("x") }));
    expect([refused.state, refused.message]).toEqual([
      "failed",
      "This is no archive of Unitext: it does not say what is in it. Unpack it and bring in its files.",
    ]);
    expect((await restored(ask, strToU8("no zip at all"))).state).toBe("failed");
    const parts = unzipSync(await archived(await everything("giver")));
    const damaged = zipSync({
      ...parts,
      "decks/Tides.json": strToU8(strFromU8(parts["decks/Tides.json"] ?? new Uint8Array()).slice(0, 200)),
    });
    const taken = await restored(ask, damaged);
    expect([taken.state, taken.result?.decks.map(({ title }) => title).sort()]).toEqual(["done", ["Gezeiten", "Old"]]);
    expect(taken.result?.remarks).toEqual([expect.stringMatching(/^decks\/Tides\.json could not be read: /)]);
  });

  it("never stores what cannot be read: a damaged workbook, a forged name, a design that is none", async () => {
    const ask = await server.as("wary");
    const parts = unzipSync(await archived(await everything("forger")));
    const contents = JSON.parse(strFromU8(parts["contents.json"] ?? new Uint8Array()));
    const [levels] = contents.workbooks;
    const forged = {
      ...contents,
      decks: [],
      designs: [{ name: 7 }],
      workbooks: [
        { ...levels, name: "broken.xlsx", versions: levels.versions.slice(0, 1) },
        { ...levels, name: "../levels.csv" },
        { ...levels, versions: [{ ...levels.versions[0], sha256: "0".repeat(64) }] },
      ],
    };
    const taken = await restored(ask, zipSync({ ...parts, "contents.json": strToU8(JSON.stringify(forged)) }));
    expect(taken.result?.remarks).toEqual([
      expect.stringMatching(/^workbooks\/1\/levels\.csv could not be read: /),
      "“../levels.csv” is no name of a workbook; it is left out.",
      "A saved design could not be read; it is left out.",
    ]);
    const { sources } = SourceList.parse(await (await ask("/api/sources")).json());
    expect(sources.map(({ name }) => name)).toEqual(["levels.csv"]);
    expect(sources[0]?.versions[0]?.version).toBe(levels.versions[0].sha256);
  });

  it("has nothing of what others shared", async () => {
    const ask = await server.as("lonely");
    expect(Object.keys(unzipSync(await archived(ask)))).toEqual(["contents.json"]);
  });
});
