import { type Deck, bindingsOn, slideTexts, textOf } from "@unitext/core/model";
import { contextsOf } from "@unitext/core/translate";
import {
  Alignment,
  DeckState,
  MemoryFound,
  Proposals,
  SegmentList,
  SegmentStates,
  TargetsTaken,
  TranslationMade,
} from "./api";
import { json, type TestServer, testServer } from "./testing";

const TEXT = `# Tides

## The quay

- The water rises **twice** a day. See [the dunes](#dunes)

:::notes
Ask the class. Then go on.
:::

::slide{#dunes}

## The dunes

- Sand holds
`;

let server: TestServer;
beforeAll(async () => {
  server = await testServer("unitext_translations");
});
afterAll(() => server.close());

type Ask = Awaited<ReturnType<TestServer["as"]>>;
const make = async (ask: Ask): Promise<string> =>
  ((await (await ask("/api/decks", json({ title: "Tides", text: TEXT }))).json()) as { id: string }).id;
const translate = async (ask: Ask, deck: string, language: string, engine: string) =>
  TranslationMade.parse(await (await ask(`/api/decks/${deck}/translations`, json({ language, engine }))).json());
const segmentsOf = async (ask: Ask, deck: string) =>
  SegmentList.parse(await (await ask(`/api/decks/${deck}/segments`)).json());
const deckOf = async (ask: Ask, deck: string): Promise<Deck> =>
  DeckState.parse(await (await ask(`/api/decks/${deck}`)).json()).deck;
const words = ({ slides }: Deck) => slides.flatMap((slide) => slideTexts(slide).map(textOf));
const wordsOf = (pieces: readonly unknown[] | null) =>
  (pieces ?? []).filter((piece) => typeof piece === "string").join("");

describe("a deck in another language", () => {
  it("has the words of the original until they are translated, and takes translations as steps that can be undone", async () => {
    const ask = await server.as("ana");
    const original = await make(ask);
    const { id } = await translate(ask, original, "de", "none");
    expect(words(await deckOf(ask, id))).toEqual(words(await deckOf(ask, original)));
    const list = await segmentsOf(ask, id);
    expect([list.from, list.to, list.original.id]).toEqual(["en", "de", original]);
    expect(list.segments.every(({ state }) => state === "untranslated")).toBe(true);
    const found = list.segments.find(({ source }) => wordsOf(source).startsWith("The water"));
    expect(found).toMatchObject({
      slide: 2,
      source: ["The water rises ", { code: 1, at: "open" }, "twice", { code: 1, at: "close" }, " a day."],
    });

    const open = async () => SegmentStates.parse(await (await ask(`/api/decks/${id}/segments/states`)).json()).slides;
    const before = await open();
    expect(before.every(({ texts, untranslated }) => texts > 0 && texts === untranslated)).toBe(true);
    const target = ["Zweimal am Tag ", { code: 1, at: "open" }, "steigt", { code: 1, at: "close" }, " das Wasser."];
    const sent = await ask(
      `/api/decks/${id}/segments`,
      json({ targets: [{ id: found?.id, target, state: "reviewed" }] }),
    );
    expect(TargetsTaken.parse(await sent.json())).toEqual({ taken: 1, remarks: [] });
    const made = await deckOf(ask, id);
    expect(words(made)).toContain("Zweimal am Tag steigt das Wasser. See the dunes");
    // The bold word is another one now, and the link leads to the slide of this deck.
    const [, quay, dunes] = made.slides;
    expect(JSON.stringify(quay)).toContain('{"text":"steigt","marks":["strong"]}');
    expect(JSON.stringify(quay)).toContain(`"link":"slide:${dunes?.id}"`);
    const history = JSON.stringify(await (await ask(`/api/decks/${id}/history`)).json());
    expect(history).toContain("Translated a text");
    const again = (await segmentsOf(ask, id)).segments.find((one) => one.id === found?.id);
    expect([again?.state, again?.target]).toEqual(["reviewed", target]);
    // Other words on the slide are shown beside the translation, and it can be put back.
    const bolder = {
      ...quay,
      elements: quay?.elements.map((element) => JSON.parse(JSON.stringify(element).replace("steigt", "stieg"))),
    };
    const { version } = DeckState.parse(await (await ask(`/api/decks/${id}`)).json());
    const change = { kind: "setSlide", slide: quay?.id, as: bolder };
    const edit = { base: version, changes: [{ id: "ana-changes-words", change, description: "Changed a word" }] };
    expect((await ask(`/api/decks/${id}/changes`, json(edit))).status).toBe(200);
    const shown = async () => (await segmentsOf(ask, id)).segments.find((one) => one.id === found?.id)?.onSlide;
    expect(await shown()).toEqual({ words: "Zweimal am Tag stieg das Wasser. See the dunes", whole: false });
    await ask(`/api/decks/${id}/segments`, json({ targets: [{ id: found?.id, target, state: "reviewed" }] }));
    expect(await shown()).toBeNull();
    const left = (states: Awaited<ReturnType<typeof open>>) => states.reduce((sum, one) => sum + one.untranslated, 0);
    expect(left(await open())).toBe(left(before) - 1);
  });

  it("has proposals of an engine, which are not reviewed, or says why there are none", async () => {
    const ask = await server.as("bela");
    const original = await make(ask);
    const { id, remark } = await translate(ask, original, "fr", "pseudo");
    expect(remark).toBe("All of it came along: slides 3, notes 1, links 1.");
    const { segments } = await segmentsOf(ask, id);
    expect(new Set(segments.map(({ state }) => state))).toEqual(new Set(["proposed"]));
    expect(words(await deckOf(ask, id))[0]).toMatch(/^⟦/);
    const none = await translate(ask, original, "eo-x-none", "local");
    expect(none.remark).toMatch(/apertium/);
    const same = await ask(`/api/decks/${original}/translations`, json({ language: "en", engine: "none" }));
    expect(same.status).toBe(400);
    expect((await ask(`/api/decks/${original}/segments`)).status).toBe(404);
  });

  it("goes out as XLIFF and takes it back translated", async () => {
    const ask = await server.as("cleo");
    const { id } = await translate(ask, await make(ask), "de", "none");
    for (const version of ["1.2", "2.1"]) {
      const file = await (await ask(`/api/decks/${id}/segments/file?version=${version}`)).text();
      const done = file.replace(
        /(<source[^>]*>)Sand holds<\/source>/,
        `$1Sand holds</source><target>Sand hält ${version}</target>`,
      );
      const body = { method: "POST", body: done, headers: { "content-type": "application/octet-stream" } };
      const answer = await ask(`/api/decks/${id}/segments/file?name=a.xlf`, body);
      expect(TargetsTaken.parse(await answer.json()).remarks).toEqual([]);
      expect(words(await deckOf(ask, id))).toContain(`Sand hält ${version}`);
    }
    const other = { method: "POST", body: "<a/>", headers: { "content-type": "application/octet-stream" } };
    expect((await ask(`/api/decks/${id}/segments/file?name=a.xlf`, other)).status).toBe(422);
  });

  it("proposes what was confirmed before, also with other numbers, and what a TMX brings", async () => {
    const ask = await server.as("gina");
    const note = (text: string) =>
      ask("/api/decks", json({ title: "Notes", text: `## Quay\n\n- ${text}\n` })).then(
        async (answer) => ((await answer.json()) as { id: string }).id,
      );
    const first = await translate(ask, await note("The quay is under water at 4.6 m"), "de", "none");
    const segment = async (deck: string) =>
      (await segmentsOf(ask, deck)).segments.find(({ source }) => wordsOf(source).includes("under water"));
    const own = await segment(first.id);
    await ask(
      `/api/decks/${first.id}/segments`,
      json({ targets: [{ id: own?.id, target: ["Der Kai steht bei 4,6 m unter Wasser"], state: "reviewed" }] }),
    );
    const proposals = async (deck: string) => {
      const list = (await segmentsOf(ask, deck)).segments;
      const { id = "", source } = (await segment(deck)) ?? {};
      const asked = { from: "en", to: "de", source, context: contextsOf(list).get(id) };
      return Proposals.parse(await (await ask("/api/memory/proposals", json(asked))).json()).proposals;
    };
    const second = await translate(ask, await note("The quay is under water at 5.2 m"), "de", "none");
    expect(await proposals(second.id)).toEqual([
      { pieces: ["Der Kai steht bei 5,2 m unter Wasser"], likeness: 1, sameContext: false, numbersAdapted: true },
    ]);
    const again = await translate(ask, await note("The quay is under water at 4.6 m"), "de", "none");
    expect(await proposals(again.id)).toMatchObject([{ likeness: 1, sameContext: true }]);
    const third = await translate(ask, await note("The old quay is under water at 4.6 m"), "de", "none");
    const [alike] = await proposals(third.id);
    expect(alike?.likeness).toBeGreaterThan(0.8);
    const tmx =
      '<tmx version="1.4"><header srclang="en"/><body><tu><tuv xml:lang="en"><seg>The old quay is under water at 4.6 m</seg></tuv><tuv xml:lang="de"><seg>Der alte Kai</seg></tuv></tu></body></tmx>';
    const sent = { method: "POST", body: tmx, headers: { "content-type": "application/octet-stream" } };
    expect(await (await ask("/api/memory?from=en&to=de&name=a.tmx", sent)).json()).toEqual({ units: 1 });
    expect(await proposals(third.id)).toMatchObject([{ pieces: ["Der alte Kai"], likeness: 1 }]);
    const written = await (await ask("/api/memory?from=en&to=de")).text();
    expect(written).toContain("Der Kai steht bei 4,6 m unter Wasser");
    const stranger = await server.as("hugo");
    expect(await (await stranger("/api/memory?from=en&to=de")).text()).not.toContain("Der Kai");
  });

  it("shows the terms of the person in its segments, and checks them", async () => {
    const ask = await server.as("ines");
    const deck = await ask("/api/decks", json({ title: "Notes", text: "## Quay\n\n- The quay is wet\n" }));
    const { id } = await translate(ask, ((await deck.json()) as { id: string }).id, "de", "none");
    const send = (text: string) =>
      ask("/api/terms?from=en-GB&to=de&name=terms.csv", {
        method: "POST",
        body: text,
        headers: { "content-type": "application/octet-stream" },
      });
    expect((await send("quay\n")).status).toBe(400);
    expect(await (await send("quay,Kai,of stone,Ufer\n,x\n")).json()).toEqual({
      terms: 1,
      remarks: ["Line 2: there is no term."],
    });
    const segment = async () =>
      (await segmentsOf(ask, id)).segments.find(({ source }) => wordsOf(source).includes("wet"));
    expect((await segment())?.terms).toEqual([{ source: "quay", target: "Kai", note: "of stone" }]);
    const target = ["Das Ufer ist nass"];
    await ask(`/api/decks/${id}/segments`, json({ targets: [{ id: (await segment())?.id, target, state: "draft" }] }));
    expect((await segment())?.findings.map(({ fault }) => fault)).toEqual(["term", "forbidden"]);
    expect(await (await ask("/api/terms?from=en&to=de")).text()).toContain("quay,Kai,of stone,Ufer");
    expect(await (await ask("/api/terms?from=en&to=de&form=tbx")).text()).toContain("<term>Kai</term>");
  });

  it("divides its texts into whole paragraphs where that is wanted", async () => {
    const ask = await server.as("mia");
    const original = await make(ask);
    const asked = json({ language: "de", engine: "none", segmentation: "paragraph" });
    const { id } = TranslationMade.parse(await (await ask(`/api/decks/${original}/translations`, asked)).json());
    const { segments } = await segmentsOf(ask, id);
    const notes = segments.filter(({ kind }) => kind === "notes");
    expect(notes.map(({ source }) => wordsOf(source))).toEqual(["Ask the class. Then go on."]);
    const target = ["Fragen Sie die Klasse und gehen Sie weiter."];
    await ask(`/api/decks/${id}/segments`, json({ targets: [{ id: notes[0]?.id, target, state: "reviewed" }] }));
    expect(JSON.stringify(await deckOf(ask, id))).toContain(target[0]);
    expect((await segmentsOf(ask, id)).segments.find(({ kind }) => kind === "notes")?.onSlide).toBeNull();
  });

  it("tells a translator who replaces what somebody else has written meanwhile", async () => {
    const ask = await server.as("lea");
    const { id } = await translate(ask, await make(ask), "de", "none");
    const [first] = (await segmentsOf(ask, id)).segments;
    const send = async (words: string, was: string[] | null) =>
      TargetsTaken.parse(
        await (
          await ask(
            `/api/decks/${id}/segments`,
            json({ targets: [{ id: first?.id, target: [words], state: "draft", was }] }),
          )
        ).json(),
      ).remarks;
    expect(await send("Gezeiten", null)).toEqual([]);
    expect(await send("Die Gezeiten", ["Gezeiten"])).toEqual([]);
    expect(await send("Ebbe und Flut", ["Gezeiten"])).toEqual([expect.stringContaining("as “Die Gezeiten”")]);
    expect((await segmentsOf(ask, id)).segments[0]?.target).toEqual(["Ebbe und Flut"]);
  });

  it("has a memory in which words are found, corrected and removed, and only by its owner", async () => {
    const ask = await server.as("gail");
    const mark = { code: 1, at: "single" };
    const unit = { source: ["Low ", mark, "water"], target: ["Niedrig", mark, "wasser"] };
    const sent = json({ from: "en", to: "de", units: [unit] });
    expect(await (await ask("/api/memory/units", sent)).json()).toEqual({ units: 1 });
    const find = async (words: string, who = ask) =>
      MemoryFound.parse(await (await who(`/api/memory/units?from=en&to=de&words=${words}`)).json()).units;
    const [found] = await find("niedrig");
    expect(found).toMatchObject({ source: unit.source, target: unit.target, deck: null });
    expect(await find("low")).toHaveLength(1);
    expect(await find("100%25")).toEqual([]);
    // The names by which placeholders are stored are no words.
    expect(await find("single")).toEqual([]);
    const stranger = await server.as("hal");
    expect(await find("low", stranger)).toEqual([]);
    const put = { ...json({ target: ["Ebbe"] }), method: "PUT" };
    expect((await stranger(`/api/memory/units/${found?.id}`, put)).status).toBe(404);
    expect((await ask(`/api/memory/units/${found?.id}`, put)).status).toBe(204);
    expect((await find("ebbe"))[0]?.target).toEqual(["Ebbe"]);
    expect((await stranger(`/api/memory/units/${found?.id}`, { method: "DELETE" })).status).toBe(404);
    expect((await ask(`/api/memory/units/${found?.id}`, { method: "DELETE" })).status).toBe(204);
    expect(await find("low")).toEqual([]);
  });

  it("fills the memory from a deck that exists in both languages", async () => {
    const ask = await server.as("kim");
    const english = await make(ask);
    const text = "# Gezeiten\n\n## Der Kai\n\n- Zweimal am Tag steigt das Wasser\n\n## Die Dünen\n\n- Sand hält\n";
    const german = await ask("/api/decks", json({ title: "Gezeiten", text }));
    const { id: other } = (await german.json()) as { id: string };
    const align = () => ask(`/api/decks/${english}/alignment?with=${other}`);
    expect((await align()).status).toBe(400);
    const { version } = DeckState.parse(await (await ask(`/api/decks/${other}`)).json());
    const change = { kind: "setLanguage", language: "de" };
    await ask(
      `/api/decks/${other}/changes`,
      json({ base: version, changes: [{ id: "kim-german-deck1", change, description: "Set the language" }] }),
    );
    const { from, to, pairs } = Alignment.parse(await (await align()).json());
    expect([from, to]).toEqual(["en", "de"]);
    expect(pairs).toContainEqual({ slide: 3, source: ["Sand holds"], target: ["Sand hält"] });
    const units = pairs.map(({ source, target }) => ({ source, target }));
    await ask("/api/memory/units", json({ from, to, deck: english, units }));
    const found = await (await ask("/api/memory/units?from=en&to=de&words=sand")).json();
    expect(MemoryFound.parse(found).units[0]?.deck).toEqual({ id: english, title: "Tides" });
  });

  it("has terms that are edited as a list, without doubles", async () => {
    const ask = await server.as("ida");
    const address = "/api/terms/list?from=en&to=de";
    const put = (terms: unknown) => ask(address, { ...json({ terms }), method: "PUT" });
    expect(
      (
        await put([
          { source: "quay", target: "Kai" },
          { source: "Quay", target: "Ufer" },
        ])
      ).status,
    ).toBe(400);
    expect((await put([{ source: "", target: "Kai" }])).status).toBe(400);
    expect((await put([{ source: "quay", target: "Kai", note: "", forbidden: ["Ufer"] }])).status).toBe(204);
    expect(await (await ask(address)).json()).toEqual({
      terms: [{ source: "quay", target: "Kai", forbidden: ["Ufer"] }],
    });
  });

  it("has proposals of a service where one is set up, and says to which host the texts go", async () => {
    const ask = await server.as("joe");
    expect(await (await ask("/api/engines")).json()).toEqual({ service: null });
    const { remark } = await translate(ask, await make(ask), "de", "service");
    expect(remark).toMatch(/^No translation service is set up here\./);
  });

  it("is nobody else's", async () => {
    const ask = await server.as("dora");
    const { id } = await translate(ask, await make(ask), "de", "none");
    const stranger = await server.as("eric");
    expect((await stranger(`/api/decks/${id}/segments`)).status).toBe(404);
  });

  it("follows its original: the change arrives in the words of the translation, and a changed sentence is outdated", async () => {
    const ask = await server.as("fay");
    const original = await make(ask);
    const { id } = await translate(ask, original, "de", "none");
    const { segments } = await segmentsOf(ask, id);
    const sand = segments.find(({ source }) => wordsOf(source) === "Sand holds");
    await ask(
      `/api/decks/${id}/segments`,
      json({ targets: [{ id: sand?.id, target: ["Sand hält"], state: "reviewed" }] }),
    );
    const state = DeckState.parse(await (await ask(`/api/decks/${original}`)).json());
    const slide = state.deck.slides[1];
    if (!slide) throw new Error("no slide");
    const change = {
      kind: "setNotes",
      slide: slide.id,
      notes: [{ kind: "plain", level: 0, runs: [{ text: "Ask nobody." }] }],
    };
    await ask(
      `/api/decks/${original}/changes`,
      json({ base: state.version, changes: [{ id: "notes-of-fay", change }] }),
    );
    const { base, now } = (await (await ask(`/api/decks/${id}/original`)).json()) as { base: Deck; now: Deck };
    expect(words(base)).toContain("Sand hält");
    expect(words(now)).toEqual(expect.arrayContaining(["Sand hält", "Ask nobody."]));
    expect(bindingsOn(now.slides[0] as Deck["slides"][number])).toEqual([]);
    const list = await segmentsOf(ask, id);
    expect(list.original.newest).toBeGreaterThan(list.original.version);
  });

  it("stays as it is when its original is deleted, and says so", async () => {
    const ask = await server.as("noor");
    const original = await make(ask);
    const { id } = await translate(ask, original, "de", "pseudo");
    const before = DeckState.parse(await (await ask(`/api/decks/${id}`)).json()).deck;
    const { segments } = await segmentsOf(ask, id);
    await ask(`/api/decks/${original}`, { method: "DELETE" });
    const refused = await ask(`/api/decks/${id}/segments`);
    expect(refused.status).toBe(404);
    expect(await refused.text()).toContain("The original of this translation was deleted");
    const sent = json({ targets: [{ id: segments[0]?.id, target: ["x"], state: "draft" }] });
    expect((await ask(`/api/decks/${id}/segments`, sent)).status).toBe(404);
    expect(DeckState.parse(await (await ask(`/api/decks/${id}`)).json()).deck).toEqual(before);
  });
});
