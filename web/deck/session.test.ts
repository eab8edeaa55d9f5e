import { apply, type Change } from "@unitext/core/edit";
import { type Deck, emptyDeck, newSlide, plainText, textOf, must } from "@unitext/core/model";
import type { ChangeRequest } from "@unitext/server/api";

/** A stand-in for the server: one deck, its log, and a network that can be cut. */
class Backend {
  deck: Deck = {
    ...emptyDeck("d", "Deck"),
    slides: [newSlide("a", "points"), newSlide("b", "points"), newSlide("c", "points")],
  };
  version = 0;
  log: { version: number; id: string; change: Change }[] = [];
  online = true;
  conflict = false;
  received = 0;
  asked = 0;
  /** The server has a fault; loses its next answer; refuses one rate. */
  failing = false;
  losing = false;
  poison = 0;
  right = "own";
  user = "ines";
  binned = false;
  notes = true;

  /** Steps of earlier sessions, the last first. */
  steps: { id: string; change: Change; made: Change[]; description: string }[] = [];
  sent: ChangeRequest["changes"] = [];

  take(id: string, change: Change): void {
    this.deck = apply(this.deck, change).deck;
    this.version += 1;
    this.log.push({ version: this.version, id, change });
  }

  state() {
    return {
      version: this.version,
      deck: this.deck,
      text: null,
      right: this.right,
      user: this.user,
      binned: this.binned,
    };
  }

  answer(path: string, init: RequestInit): Response {
    this.asked += 1;
    if (!this.online) throw new TypeError("network");
    const json = (body: unknown, status = 200) =>
      new Response(JSON.stringify(body), { status, headers: { "content-type": "application/json" } });
    if (path.includes("/steps?"))
      return json({ undo: this.steps.slice(Number(path.split("=")[1])), redo: [], more: false });
    if (path.includes("/changes?since="))
      return json({
        version: this.version,
        changes: this.log.filter(({ version }) => version > Number(path.split("=")[1])),
      });
    if (path.endsWith("/presence")) return new Response(null, { status: 204 });
    if (path.endsWith("/look")) {
      if (this.right === "none")
        return json({ error: { code: "not-found", where: "d", message: "There is no deck at this address." } }, 404);
      const { id, language, page } = this.deck;
      const { version, right, notes } = this;
      return json({ id, version, title: "Deck", language, right, notes, page, slides: [] });
    }
    if (path.endsWith("/bin")) {
      this.binned = false;
      return new Response(null, { status: 204 });
    }
    if (!path.endsWith("/changes")) return json(this.state());
    const { base, changes } = JSON.parse(String(init.body)) as ChangeRequest;
    this.received += 1;
    if (this.conflict) {
      this.conflict = false;
      return json(
        {
          error: { code: "conflict", where: "d", message: "Somebody else changed the same thing meanwhile." },
          state: this.state(),
        },
        409,
      );
    }
    const poison = changes.find(({ change }) => change.kind === "setRate" && change.rate === this.poison);
    if (this.failing)
      return json({ error: { code: "failed", where: "/", message: "Something went wrong on the server." } }, 500);
    if (poison)
      return json({ error: { code: "not-valid", where: "changes", message: "A rate like this is not taken." } }, 400);
    this.sent.push(...changes);
    for (const { id, change } of changes) if (!this.log.some((known) => known.id === id)) this.take(id, change);
    if (this.losing) {
      this.losing = false;
      throw new TypeError("network");
    }
    return json({ version: this.version, changes: this.log.filter(({ version }) => version > base) });
  }
}

const backend = { current: new Backend() };
const stored = new Map<string, string>();
const listeners = new Map<string, Set<() => void>>();
let announce: (news: number | string) => void = () => undefined;

beforeAll(() => {
  Object.assign(globalThis, {
    fetch: async (path: string, init: RequestInit = {}) => backend.current.answer(path, init),
    localStorage: {
      get length() {
        return stored.size;
      },
      key: (at: number) => [...stored.keys()][at] ?? null,
      getItem: (key: string) => stored.get(key) ?? null,
      setItem: (key: string, value: string) => stored.set(key, value),
      removeItem: (key: string) => stored.delete(key),
    },
    window: {
      addEventListener: (name: string, listener: () => void) =>
        listeners.set(name, new Set([...(listeners.get(name) ?? []), listener])),
      removeEventListener: (name: string, listener: () => void) => listeners.get(name)?.delete(listener),
    },
    EventSource: class {
      onmessage: (event: { data: string }) => void = () => undefined;
      constructor() {
        announce = (news) => this.onmessage({ data: String(news) });
      }
      close() {}
    },
  });
});
beforeEach(() => {
  backend.current = new Backend();
  stored.clear();
});

/** The sessions that a test has opened, which end with it. */
const opened: { close(): void }[] = [];
const open = async () => {
  const session = await (await import("./session")).DeckSession.open("d");
  opened.push(session);
  return session;
};
afterEach(() => {
  for (const session of opened.splice(0)) session.close();
});
/** Waits until something is so. */
const until = async (test: () => boolean) => {
  for (let tries = 0; tries < 400 && !test(); tries++) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(test()).toBe(true);
};
const settled = (session: Awaited<ReturnType<typeof open>>) =>
  until(() => session.settled && session.snapshot().status === "saved");
const hide = (slide: string, hidden = true): Change => ({ kind: "setHidden", slide, hidden });
const hidden = (deck: Deck) => deck.slides.filter((slide) => slide.hidden).map(({ id }) => id);

describe("a deck open in a page", () => {
  it("says that somebody put it into the bin, goes on taking changes, and takes it out again", async () => {
    const session = await open();
    announce("binned");
    expect(session.snapshot().binned).toBe(true);
    session.apply(hide("b"));
    await settled(session);
    expect(backend.current.log).toHaveLength(1);
    await session.restore();
    expect(session.snapshot()).toMatchObject({ binned: false, status: "saved" });
    announce(1);
    expect(session.snapshot().version).toBe(1);
  });

  it("learns at once what it may do, and loses no change that is not saved when the right is taken back", async () => {
    const session = await open();
    backend.current.right = "view";
    announce("rights");
    await until(() => !session.snapshot().canEdit);
    expect(session.snapshot()).toMatchObject({ right: "view", withheld: false });
    backend.current.right = "edit";
    announce("rights");
    await until(() => session.snapshot().canEdit);
    backend.current.online = false;
    session.apply(hide("b"));
    backend.current.online = true;
    backend.current.right = "none";
    announce("rights");
    await until(() => session.snapshot().withheld);
    expect(session.snapshot().canEdit).toBe(false);
    expect(session.snapshot().aside).toHaveLength(1);
    expect(backend.current.log).toHaveLength(0);
  });

  it("is closed to a person from whom its notes are taken back", async () => {
    const session = await open();
    Object.assign(backend.current, { right: "view", notes: false });
    announce("rights");
    await until(() => session.snapshot().withheld);
  });

  it("shows a change at once, and says that it is kept only when the server has it", async () => {
    const session = await open();
    session.apply(hide("b"));
    expect(hidden(session.snapshot().deck)).toEqual(["b"]);
    expect(session.snapshot().status).toBe("saving");
    expect(session.snapshot().notice).toMatchObject({ text: "Hid a slide", undo: true });
    await settled(session);
    expect(hidden(backend.current.deck)).toEqual(["b"]);
    session.close();
  });

  it("is up to date only when all that the server has is here, also when nothing was announced and the network was away", async () => {
    const session = await open();
    backend.current.take("other", hide("a"));
    backend.current.online = false;
    let whole = false;
    const waiting = session.upToDate().then(() => {
      whole = true;
    });
    const asked = backend.current.asked;
    await until(() => backend.current.asked > asked + 1);
    expect(whole).toBe(false);
    backend.current.online = true;
    await waiting;
    expect(hidden(session.snapshot().deck)).toEqual(["a"]);
    session.close();
  });

  it("undoes and does again without limit, each as a change of its own", async () => {
    const session = await open();
    for (const id of ["a", "b", "c"]) session.apply(hide(id));
    for (let nth = 0; nth < 3; nth++) session.undo();
    expect(hidden(session.snapshot().deck)).toEqual([]);
    expect(session.snapshot()).toMatchObject({ canUndo: false, canRedo: true });
    session.redo();
    session.redo();
    await settled(session);
    expect(hidden(backend.current.deck)).toEqual(["a", "b"]);
    expect(backend.current.version).toBe(8);
    session.close();
  });

  it("takes back what was done in an earlier session, and tells the log which step it was", async () => {
    backend.current.deck = apply(apply(backend.current.deck, hide("a")).deck, hide("b")).deck;
    backend.current.steps = [
      { id: "second", change: hide("b", false), made: [], description: "Hid slide 2" },
      { id: "first", change: hide("a", false), made: [], description: "Hid slide 1" },
    ];
    const session = await open();
    await until(() => session.snapshot().canUndo);
    session.apply(hide("c"), { words: "Hid slide 3" });
    for (let nth = 0; nth < 3; nth++) session.undo();
    expect(session.snapshot()).toMatchObject({ canUndo: false, canRedo: true });
    session.redo();
    await settled(session);
    expect(hidden(backend.current.deck)).toEqual(["a"]);
    const [done, ...others] = backend.current.sent;
    expect([done?.description, others.map(({ undoes, redoes }) => undoes ?? `again ${redoes}`)]).toEqual([
      "Hid slide 3",
      [done?.id, "second", "first", "again first"],
    ]);
    session.close();
  });

  it("sends what follows closely together, and nothing twice", async () => {
    const session = await open();
    for (let nth = 0; nth < 20; nth++) session.apply({ kind: "setNotes", slide: "a", notes: plainText(`note ${nth}`) });
    await settled(session);
    expect(backend.current.received).toBeLessThan(5);
    expect(backend.current.version).toBe(20);
    session.close();
  });

  it("keeps changes made without a network, and sends them when it is there again", async () => {
    const session = await open();
    backend.current.online = false;
    session.apply(hide("a"));
    session.apply(hide("c"));
    await until(() => session.snapshot().status === "waiting");
    backend.current.online = true;
    await settled(session);
    expect(hidden(backend.current.deck)).toEqual(["a", "c"]);
    session.close();
  });

  it("sends what a closed page left behind, also when the server had taken it already", async () => {
    const session = await open();
    backend.current.online = false;
    session.apply(hide("a"));
    session.close();
    const [outbox] = [...stored.values()];
    const { changes } = JSON.parse(must(outbox)) as ChangeRequest;
    backend.current.online = true;
    backend.current.take(must(changes[0]?.id), must(changes[0]?.change));
    const again = await open();
    expect(hidden(again.snapshot().deck)).toEqual(["a"]);
    expect(backend.current.version).toBe(1);
    expect(stored.size).toBe(0);
    again.close();
    await settled(session);
    expect(backend.current.version).toBe(1);
  });

  it("leaves what somebody else could not send in this browser until that person is here again", async () => {
    const waiting = { user: "ines", base: 0, changes: [{ id: "left", change: hide("a") }] };
    stored.set("unitext:outbox:d:gone", JSON.stringify(waiting));
    backend.current.user = "tom";
    const other = await open();
    other.apply(hide("b"));
    await settled(other);
    other.close();
    expect(hidden(backend.current.deck)).toEqual(["b"]);
    backend.current.user = "ines";
    const again = await open();
    await settled(again);
    expect(hidden(backend.current.deck)).toEqual(["a", "b"]);
    expect(stored.size).toBe(0);
    again.close();
  });

  it("takes in what others change", async () => {
    const session = await open();
    backend.current.take("other", hide("c"));
    announce(1);
    await until(() => session.snapshot().version === 1);
    expect(hidden(session.snapshot().deck)).toEqual(["c"]);
    expect(session.snapshot().version).toBe(1);
    session.close();
  });

  it("merges what others change while its own is on the way", async () => {
    const session = await open();
    session.apply(hide("a"));
    backend.current.take("other", { kind: "setNotes", slide: "b", notes: plainText("theirs") });
    await settled(session);
    const { deck, version } = session.snapshot();
    expect(version).toBe(2);
    expect(hidden(deck)).toEqual(["a"]);
    expect(textOf(deck.slides[1]?.notes ?? [])).toBe("theirs");
    session.close();
  });

  it("puts its change on top of theirs after a conflict, and says so", async () => {
    const session = await open();
    backend.current.take("other", { kind: "setNotes", slide: "a", notes: plainText("theirs") });
    backend.current.conflict = true;
    session.apply({ kind: "setNotes", slide: "a", notes: plainText("mine") });
    await settled(session);
    expect(textOf(backend.current.deck.slides[0]?.notes ?? [])).toBe("theirs\nmine");
    expect(session.snapshot().notice?.text).toContain("both your words and theirs");
    session.close();
  });

  it("of two who replaced the same words, the words that came first are on the slide, and the others are kept", async () => {
    backend.current.take("start", { kind: "setNotes", slide: "a", notes: plainText("Say it slowly") });
    const session = await open();
    backend.current.take("other", { kind: "setNotes", slide: "a", notes: plainText("Say it loudly") });
    backend.current.conflict = true;
    session.apply({ kind: "setNotes", slide: "a", notes: plainText("Say it twice") });
    await until(() => session.snapshot().aside.length === 1);
    expect(textOf(backend.current.deck.slides[0]?.notes ?? [])).toBe("Say it loudly");
    expect(session.snapshot().aside[0]?.reason).toContain("Say it loudly");
    expect(JSON.stringify(session.snapshot().aside[0])).toContain("Say it twice");
    session.close();
  });

  it("undo takes back one's own words, and leaves what others wrote in the same text since", async () => {
    backend.current.take("start", { kind: "setNotes", slide: "a", notes: plainText("Tides") });
    const session = await open();
    session.apply({ kind: "setNotes", slide: "a", notes: plainText("Tides come late") });
    await settled(session);
    backend.current.take("other", { kind: "setNotes", slide: "a", notes: plainText("All Tides come late") });
    announce(backend.current.version);
    await until(() => textOf(session.snapshot().deck.slides[0]?.notes ?? []).startsWith("All"));
    session.undo();
    await settled(session);
    expect(textOf(backend.current.deck.slides[0]?.notes ?? [])).toBe("All Tides");
    session.redo();
    await settled(session);
    expect(textOf(backend.current.deck.slides[0]?.notes ?? [])).toBe("All Tides come late");
    session.close();
  });

  it("says how many changes could not be put on top, and keeps the rest", async () => {
    const session = await open();
    backend.current.take("other", { kind: "deleteSlide", slide: "a" });
    backend.current.conflict = true;
    session.apply(hide("a"));
    session.apply(hide("b"));
    await settled(session);
    expect(session.snapshot().notice?.text).toContain("“Hid a slide” of yours could not be put on top");
    expect(hidden(backend.current.deck)).toEqual(["b"]);
    session.close();
  });

  it("keeps what was not sent while the server has a fault, also where the page is opened again, and sends it afterwards", async () => {
    const session = await open();
    backend.current.failing = true;
    session.apply(hide("a"));
    await until(() => session.snapshot().status === "waiting");
    session.close();
    const again = await open();
    expect(hidden(again.snapshot().deck)).toEqual(["a"]);
    const received = backend.current.received;
    await until(() => backend.current.received > received);
    expect([...stored.values()].some((value) => value.includes("setHidden"))).toBe(true);
    backend.current.failing = false;
    await settled(again);
    expect(hidden(backend.current.deck)).toEqual(["a"]);
    expect([...stored.keys()].filter((key) => key.includes("outbox"))).toEqual([]);
    again.close();
  });

  it("sets aside a change that can never be taken, with its words, and sends what was done after it", async () => {
    const session = await open();
    backend.current.poison = 99;
    session.apply(hide("a"));
    session.apply({ kind: "setRate", rate: 99 }, { words: "Changed the rate" });
    session.apply({ kind: "setNotes", slide: "b", notes: plainText("kept") });
    await settled(session);
    expect([
      hidden(backend.current.deck),
      textOf(backend.current.deck.slides[1]?.notes ?? []),
      backend.current.deck.rate,
    ]).toEqual([["a"], "kept", emptyDeck("d", "").rate]);
    expect(session.snapshot().aside).toMatchObject([
      { description: "Changed the rate", reason: "A rate like this is not taken." },
    ]);
    expect(session.snapshot().deck.rate).toBe(emptyDeck("d", "").rate);
    session.close();
    const again = await open();
    expect(again.snapshot().aside).toHaveLength(1);
    again.forgetAside();
    expect(again.snapshot().aside).toEqual([]);
    again.close();
  });

  it("has each change once where an answer was lost and another's change came between", async () => {
    const session = await open();
    const insert = (id: string): Change => ({
      kind: "insertSlide",
      slide: newSlide(id, "points"),
      place: { parent: null, after: "a" },
    });
    backend.current.losing = true;
    session.apply(insert("mine"));
    await until(() => backend.current.version === 1);
    backend.current.take("other", insert("theirs"));
    await settled(session);
    const order = (deck: Deck) => deck.slides.map(({ id }) => id);
    expect(order(backend.current.deck)).toEqual(["a", "theirs", "mine", "b", "c"]);
    expect(order(session.snapshot().deck)).toEqual(order(backend.current.deck));
    session.close();
  });

  it("replaces what no database can hold, so that pasting it never blocks saving", async () => {
    const session = await open();
    session.apply({ kind: "setNotes", slide: "a", notes: plainText("x\0\ud800y") });
    await settled(session);
    expect(textOf(backend.current.deck.slides[0]?.notes ?? [])).toBe("x\ufffd\ufffdy");
    session.close();
  });

  it("changes nothing in a deck that one may only look at, and says why", async () => {
    backend.current.right = "view";
    const session = await open();
    expect(session.apply(hide("a"))).toBe(false);
    expect(session.snapshot()).toMatchObject({ canEdit: false, status: "saved" });
    expect(session.snapshot().notice?.text).toContain("to look at");
    expect(backend.current.received).toBe(0);
    session.close();
  });

  it("refuses at once what the deck cannot take, and changes nothing", async () => {
    const session = await open();
    expect(session.apply({ kind: "moveSlide", slide: "a", place: { parent: "a", after: null } })).toBe(false);
    expect(session.snapshot().notice?.text).toContain("under itself");
    expect(session.settled).toBe(true);
    session.close();
  });
});
