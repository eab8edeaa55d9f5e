import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { sourcesSlide } from "@unitext/core/edit";
import { bindingsOn, type Slide } from "@unitext/core/model";
import { sql } from "drizzle-orm";
import {
  BoundCells,
  CellsFound,
  DeckBindings,
  DeckState,
  type Job,
  SourceList,
  SourceTaken,
  VersionPreview,
  WorkbookContents,
} from "./api";
import { json, type TestServer, testServer } from "./testing";

const FIRST = "Station,January,March\nQuay,4.1,4.6\nBar,3.2,3.1\n";
const NEXT = FIRST.replace("4.6", "5.2");

let server: TestServer;
beforeAll(async () => {
  server = await testServer("unitext_sources");
});
afterAll(() => server.close());

type Ask = Awaited<ReturnType<TestServer["as"]>>;
const send = (ask: Ask, name: string, body: string | Uint8Array) =>
  ask(`/api/sources?name=${name}`, {
    method: "POST",
    body: body as BodyInit,
    headers: { "content-type": "application/octet-stream" },
  });
const taken = async (response: Response) => SourceTaken.parse(await response.json());
const bindingsOf = async (ask: Ask, deck: string) =>
  DeckBindings.parse(await (await ask(`/api/decks/${deck}/bindings`)).json());
const stateOf = async (ask: Ask, deck: string) => DeckState.parse(await (await ask(`/api/decks/${deck}`)).json());

/** Waits until no job of a person is open. */
async function jobsDone(ask: Ask): Promise<Job[]> {
  for (;;) {
    const { jobs } = (await (await ask("/api/jobs")).json()) as { jobs: Job[] };
    if (jobs.every(({ state }) => state !== "waiting" && state !== "running")) return jobs;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

/** A deck with one slide whose sentence shows a value of a source. */
async function boundDeck(ask: Ask, source: string, mode: "latest" | "asked" | "fixed"): Promise<string> {
  const made = await ask("/api/decks", json({ title: "Levels", text: "## Levels\n\n- calm\n" }));
  const { id } = (await made.json()) as {
    id: string;
  };
  const answer = await ask(`/api/decks/${id}/bindings`, json({ source, range: "C2", mode }));
  const bound = BoundCells.parse(await answer.json());
  expect(bound).toMatchObject({ kind: "value", name: "Quay, March", run: { text: "4.6" } });
  if (bound.kind !== "value") throw new Error("no value");
  const { deck, version } = await stateOf(ask, id);
  const [slide] = deck.slides as [Slide];
  const notes = [
    { kind: "plain" as const, level: 0, runs: [{ text: "The quay stood at " }, bound.run, { text: "." }] },
  ];
  const change = { kind: "setNotes", slide: slide.id, notes };
  await ask(`/api/decks/${id}/changes`, json({ base: version, changes: [{ id: `bind-${id}`, change }] }));
  return id;
}

const shown = async (ask: Ask, deck: string) =>
  (await stateOf(ask, deck)).deck.slides.flatMap((slide) => bindingsOn(slide).map((one) => one.shown));

describe("a source", () => {
  it("is stored by its name with its versions, and read before it is stored", async () => {
    const ask = await server.as("ana");
    const first = await send(ask, "gauges.csv", FIRST);
    expect([first.status, await taken(first)]).toMatchObject([201, { known: false, fresh: true }]);
    expect(await taken(await send(ask, "gauges.csv", FIRST))).toMatchObject({ known: true, fresh: false });
    expect(await taken(await send(ask, "gauges.csv", NEXT))).toMatchObject({ known: true, fresh: true });
    const broken = await send(ask, "gauges.xlsx", "no workbook");
    expect(broken.status).toBe(422);
    const { sources } = SourceList.parse(await (await ask("/api/sources")).json());
    expect(sources.map(({ name, versions }) => [name, versions.length])).toEqual([["gauges.csv", 2]]);
    const contents = WorkbookContents.parse(await (await ask(`/api/sources/${sources[0]?.id}/contents`)).json());
    expect(contents.sheets).toEqual([{ name: "gauges", hidden: false, rows: 3, columns: 3 }]);
    const cells = await ask(`/api/sources/${sources[0]?.id}/cells?sheet=gauges&top=1&rows=1&columns=3`);
    expect(await cells.json()).toEqual({
      rows: 3,
      columns: 3,
      cells: [[{ text: "Quay" }, { text: "4.1", number: true }, { text: "5.2", number: true }]],
    });
    const stranger = await server.as("bela");
    expect((await stranger(`/api/sources/${sources[0]?.id}/contents`)).status).toBe(404);
    expect((await ask(`/api/sources/${sources[0]?.id}`, { method: "DELETE" })).status).toBe(204);
  });
});

describe("a new version of a source", () => {
  it("is taken by itself where a binding follows it, as a step that can be undone, and proposed elsewhere", async () => {
    const ask = await server.as("cleo");
    const { id: source } = await taken(await send(ask, "gauges.csv", FIRST));
    const [latest, asked, fixed] = [
      await boundDeck(ask, source, "latest"),
      await boundDeck(ask, source, "asked"),
      await boundDeck(ask, source, "fixed"),
    ];
    await send(ask, "gauges.csv", NEXT);
    const [job] = (await jobsDone(ask)).filter(({ kind }) => kind === "refresh");
    expect(job).toMatchObject({ state: "done", result: { sentence: "1 new value in 1 deck." } });
    expect(await shown(ask, latest)).toEqual(["5.2"]);
    expect(await shown(ask, asked)).toEqual(["4.6"]);
    const history = await (await ask(`/api/decks/${latest}/history`)).json();
    expect(JSON.stringify(history)).toContain("Took new values from gauges.csv");
    const { checks } = await bindingsOf(ask, asked);
    expect(checks).toMatchObject([{ state: "stale", from: "4.6", to: "5.2", numbers: { from: 4.6, to: 5.2 } }]);
    expect((await bindingsOf(ask, fixed)).checks).toMatchObject([{ state: "fixed" }]);
    // Where it is used, and what is behind, is one query.
    const { sources } = SourceList.parse(await (await ask("/api/sources")).json());
    expect(sources[0]?.decks.map(({ id, behind }) => [id, behind]).sort()).toEqual(
      [
        [latest, 0],
        [asked, 1],
        [fixed, 0],
      ].sort(),
    );
    // What is asked for comes as slides that the page applies itself.
    const answer = await ask(`/api/decks/${asked}/bindings/take`, json({ take: [checks[0]?.key] }));
    const { slides } = DeckBindings.parse(await answer.json());
    expect(slides.flatMap((slide) => bindingsOn(slide).map((one) => one.shown))).toEqual(["5.2"]);
    // In all decks at once.
    expect((await ask(`/api/sources/${source}/refresh`, json({ take: "all" }))).status).toBe(202);
    await jobsDone(ask);
    expect(await shown(ask, asked)).toEqual(["5.2"]);
    expect(await shown(ask, fixed)).toEqual(["4.6"]);
  });

  it("leaves the values of decks when the source is deleted", async () => {
    const ask = await server.as("dora");
    const { id: source } = await taken(await send(ask, "gauges.csv", FIRST));
    const deck = await boundDeck(ask, source, "latest");
    await ask(`/api/sources/${source}`, { method: "DELETE" });
    expect(await shown(ask, deck)).toEqual(["4.6"]);
    expect((await bindingsOf(ask, deck)).checks).toMatchObject([{ state: "unknown", from: "4.6" }]);
  });
});

describe("a workbook with the name of a source", () => {
  const preview = async (ask: Ask, name: string, text: string) => {
    const body = { method: "POST", body: text, headers: { "content-type": "application/octet-stream" } };
    return VersionPreview.parse(await (await ask(`/api/sources/preview?name=${name}&language=de`, body)).json());
  };

  it("is shown beside its newest version before it is taken, and nothing is stored", async () => {
    const ask = await server.as("hugo");
    const { id: source } = await taken(await send(ask, "gauges.csv", FIRST));
    await boundDeck(ask, source, "latest");
    await boundDeck(ask, source, "asked");
    expect(await preview(ask, "gauges.csv", NEXT)).toMatchObject({
      source,
      same: false,
      count: 1,
      cells: [{ cell: "gauges!C2", row: "Quay", from: "4,6", to: "5,2" }],
      following: { values: 1, decks: 1 },
    });
    expect(await preview(ask, "gauges.csv", FIRST)).toMatchObject({ same: true, count: 0 });
    expect(await preview(ask, "others.csv", FIRST)).toMatchObject({ source: null, count: 0 });
    const { sources } = SourceList.parse(await (await ask("/api/sources")).json());
    expect(sources.map(({ name, versions }) => [name, versions.length])).toEqual([["gauges.csv", 1]]);
  });
});

it("a sheet that was typed is a source whose cells can be changed, and takes no workbook's name", async () => {
  const ask = await server.as("ines");
  const type = (name: string, rows: string[][]) => ask("/api/sources/typed", json({ name, rows }));
  const first = await type("Students", [
    ["Group", "Autumn"],
    ["=A", "12"],
  ]);
  expect([first.status, await taken(first)]).toMatchObject([201, { known: false }]);
  expect(
    await taken(
      await type("Students", [
        ["Group", "Autumn"],
        ["=A", "13"],
      ]),
    ),
  ).toMatchObject({ known: true, fresh: true });
  const { sources } = SourceList.parse(await (await ask("/api/sources")).json());
  expect(sources).toMatchObject([{ name: "Students.csv", typed: true, csv: { delimiter: ",", decimal: "." } }]);
  const cells = await ask(`/api/sources/${sources[0]?.id}/cells?sheet=Students&top=1&rows=1&columns=2`);
  expect(await cells.json()).toMatchObject({ cells: [[{ text: "=A" }, { text: "13", number: true }]] });
  await send(ask, "gauges.csv", FIRST);
  expect((await type("gauges", [["x"]])).status).toBe(409);
  expect((await type("Empty", [])).status).toBe(400);
});

it("a .csv is read again as it is told, and values that follow it are taken", async () => {
  const ask = await server.as("jan");
  const { id: source } = await taken(await send(ask, "gauges.csv", "Station;January;March\nQuay;4.1;4.600\nBar;3;3\n"));
  const deck = await boundDeck(ask, source, "latest");
  const put = (csv: unknown) => ask(`/api/sources/${source}/reading`, { ...json({ csv }), method: "PUT" });
  const german = await put({ decimal: "," });
  expect(WorkbookContents.parse(await german.json()).csv).toEqual({ encoding: "utf-8", delimiter: ";", decimal: "," });
  const cell = async () =>
    (
      (await (await ask(`/api/sources/${source}/cells?sheet=gauges&top=1&rows=1&columns=3`)).json()) as {
        cells: { text: string }[][];
      }
    ).cells[0]?.[2]?.text;
  expect(await cell()).toBe("4600");
  await jobsDone(ask);
  expect(await shown(ask, deck)).toEqual(["4600"]);
  expect((await put({ encoding: "shift_jis" })).status).toBe(200);
  expect((await put({ delimiter: "x" })).status).toBe(400);
  expect((await put(null)).status).toBe(200);
  expect(await cell()).toBe("4.6");
});

it("the slide that lists the sources follows when new values are taken by themselves", async () => {
  const ask = await server.as("kim");
  const { id: source } = await taken(await send(ask, "gauges.csv", FIRST));
  const deck = await boundDeck(ask, source, "latest");
  const { deck: state, version } = await stateOf(ask, deck);
  const [slide] = state.slides as [Slide];
  let serial = 0;
  const list = sourcesSlide({ ...state, slides: [] }, () => `list-${++serial}`);
  const change = { kind: "insertSlide", slide: list, place: { parent: null, after: slide.id } };
  await ask(`/api/decks/${deck}/changes`, json({ base: version, changes: [{ id: `list-${deck}`, change }] }));
  await send(ask, "gauges.csv", NEXT);
  await jobsDone(ask);
  expect(JSON.stringify((await stateOf(ask, deck)).deck.slides[1])).toContain("gauges.csv");
});

it("the index of bindings follows every change, in its transaction", async () => {
  const ask = await server.as("eric");
  const { id: source } = await taken(await send(ask, "gauges.csv", FIRST));
  const deck = await boundDeck(ask, source, "asked");
  const rows = async () =>
    (await server.db.execute(sql`select source, range, mode, state from bindings where deck_id = ${deck}`)).rows;
  expect(await rows()).toEqual([{ source: "gauges.csv", range: "gauges!C2", mode: "asked", state: "current" }]);
  const { deck: state, version } = await stateOf(ask, deck);
  const [slide] = state.slides as [Slide];
  const change = { kind: "setNotes", slide: slide.id, notes: [] };
  await ask(`/api/decks/${deck}/changes`, json({ base: version, changes: [{ id: "unbind", change }] }));
  expect(await rows()).toEqual([]);
  const { id: copy } = (await (await ask(`/api/decks/${deck}/copies`, json({}))).json()) as { id: string };
  await ask(`/api/decks/${copy}`, { method: "DELETE" });
  expect((await server.db.execute(sql`select 1 from bindings where deck_id = ${copy}`)).rows).toEqual([]);
});

it("a source comes back under its name as it was", async () => {
  const ask = await server.as("fay");
  const text = "Name,Level\nQuay,1\n";
  const { id } = await taken(await send(ask, "Tide%20levels.csv", text));
  const answer = await ask(`/api/sources/${id}/file`);
  expect(answer.headers.get("content-disposition")).toContain("Tide levels.csv");
  expect(await answer.text()).toBe(text);
});

it("cells that were copied elsewhere are found in one's own workbooks, where only one place has them", async () => {
  const ask = await server.as("lena");
  await send(ask, "gauges.csv", FIRST);
  const rows = [
    ["Quay", "4,1"],
    ["Bar", "3,2"],
  ];
  const find = async (as: Ask, sought: unknown) =>
    CellsFound.parse(await (await as("/api/sources/cells", json({ rows: sought, languages: ["de"] }))).json()).found;
  expect(await find(ask, rows)).toMatchObject({ range: "gauges!A2:B3" });
  expect(await find(await server.as("mona"), rows)).toBeNull();
  await send(ask, "copy.csv", FIRST);
  expect(await find(ask, rows)).toBeNull();
  expect((await ask("/api/sources/cells", json({ rows: [], languages: ["de"] }))).status).toBe(400);
});

it("a workbook in a watched folder is a source, and read again when its bytes change", async () => {
  const ask = await server.as("gina");
  const folder = mkdtempSync(join(tmpdir(), "unitext-watched-"));
  const faults: string[] = [];
  const end = server.watch(folder, "gina", (message) => faults.push(message));
  const versions = async () => {
    const { sources } = SourceList.parse(await (await ask("/api/sources")).json());
    return sources.map(({ name, versions: all }) => [name, all.length, all[0]?.from]);
  };
  const until = async (wanted: unknown) => {
    for (let tries = 0; tries < 200 && JSON.stringify(await versions()) !== JSON.stringify(wanted); tries++)
      await new Promise((resolve) => setTimeout(resolve, 50));
    expect(await versions()).toEqual(wanted);
  };
  try {
    writeFileSync(join(folder, "gauges.csv"), FIRST);
    writeFileSync(join(folder, "readme.txt"), "no workbook");
    await until([["gauges.csv", 1, "folder"]]);
    writeFileSync(join(folder, "gauges.csv"), NEXT);
    await until([["gauges.csv", 2, "folder"]]);
    writeFileSync(join(folder, "broken.xlsx"), "no workbook");
    for (let tries = 0; tries < 200 && !faults.length; tries++) await new Promise((resolve) => setTimeout(resolve, 50));
    expect(faults).toEqual(["The workbook broken.xlsx of the watched folder was not taken"]);
  } finally {
    await end();
    rmSync(folder, { recursive: true, force: true });
  }
});
