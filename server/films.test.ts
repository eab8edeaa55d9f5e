import { execFileSync } from "node:child_process";
import { chmodSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Deck, emptyDeck, must, newSlide, plainText, textHash } from "@unitext/core/model";
import { nanoid } from "nanoid";
import { Films, type FilmRequest, Job, Recording } from "./api";
import { createDeck, share } from "./store";
import { json, type TestServer, testServer } from "./testing";

let server: TestServer;
let voices: Server;
let folder = "";
/** What the stand-in for a voice service answers for a text; undefined for a fault. */
let speak: (text: string) => { sound: string; seconds: number } | undefined;
let spoken: string[] = [];
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "unitext-films-test-"));
  voices = createServer((request, response) => {
    const chunks: Buffer[] = [];
    request.on("data", (chunk: Buffer) => chunks.push(chunk));
    request.on("end", () => {
      const { text } = JSON.parse(Buffer.concat(chunks).toString()) as { text: string };
      spoken.push(text);
      const answer = speak(text);
      response.statusCode = answer ? 200 : 500;
      response.end(JSON.stringify(answer ?? {}));
    });
  });
  await new Promise<void>((resolve) => voices.listen(0, "127.0.0.1", resolve));
  const url = `http://127.0.0.1:${(voices.address() as AddressInfo).port}/`;
  server = await testServer("unitext_films", { voiceService: { url } });
}, 60_000);
afterAll(async () => {
  voices.close();
  await server.close();
  rmSync(folder, { recursive: true, force: true });
});

/** A second of a tone, made by ffmpeg in a file of a kind. */
function tone(kind: string): Buffer {
  const file = join(folder, `tone.${kind}`);
  execFileSync("ffmpeg", ["-v", "error", "-y", "-f", "lavfi", "-i", "sine=frequency=440:duration=1", file]);
  return readFileSync(file);
}

async function deckOf(notes: readonly string[]): Promise<Deck> {
  const deck: Deck = {
    ...emptyDeck(nanoid(12), "Bay"),
    slides: notes.map((said, nth) => ({
      ...newSlide(`s${nth}`, "opening"),
      elements: [{ kind: "text" as const, id: `t${nth}`, slot: "title", text: plainText(`Slide ${nth + 1}`) }],
      notes: plainText(said),
    })),
  };
  await createDeck(server.db, "ines", deck, new Map(), null);
  return deck;
}

const REQUEST: FilmRequest = { format: "mp4", width: 1280, voice: "service", captions: [] };
type Client = Awaited<ReturnType<TestServer["as"]>>;

async function ended(user: Client, job: string): Promise<Job> {
  for (let wait = 0; wait < 600; wait++) {
    const now = Job.parse(await (await user(`/api/jobs/${job}`)).json());
    if (now.state !== "waiting" && now.state !== "running") return now;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error("The job does not end.");
}

async function film(user: Client, deck: Deck, request: Partial<FilmRequest> = {}): Promise<Job> {
  const begun = await user(`/api/decks/${deck.id}/films`, json({ ...REQUEST, captions: [deck.id], ...request }));
  expect(begun.status).toBe(202);
  return ended(user, ((await begun.json()) as { job: string }).job);
}
const filmsOf = async (user: Client, deck: Deck) =>
  Films.parse(await (await user(`/api/decks/${deck.id}/films`)).json()).films;

const second = () => ({ sound: tone("wav").toString("base64"), seconds: 1 });

describe("a film of a deck", () => {
  it("is made once, read in parts, captioned, and makes again only what has changed", async () => {
    speak = second;
    spoken = [];
    const user = await server.as("ines");
    const deck = await deckOf(["One two three.", "Four five.", ""]);
    expect(await film(user, deck)).toMatchObject({ state: "done", deck: deck.id, result: { remarks: [] } });
    expect(spoken.sort()).toEqual(["Four five.", "One two three."]);
    const [made] = await filmsOf(user, deck);
    // The third slide is shown in silence, for as long as it takes to be read.
    expect(made).toMatchObject({ format: "mp4", width: 1280, height: 720, slides: 3, captions: ["en"], remarks: [] });
    expect(must(made).seconds).toBeGreaterThan(8);
    const at = `/api/decks/${deck.id}/films/${must(made).id}`;
    const whole = Buffer.from(await (await user(`${at}/file`)).arrayBuffer());
    expect(whole.length).toBe(must(made).size);
    expect(whole.subarray(4, 8).toString("latin1")).toBe("ftyp");
    const part = await user(`${at}/file`, { headers: { range: "bytes=10-19" } });
    expect([part.status, part.headers.get("content-range")]).toEqual([206, `bytes 10-19/${whole.length}`]);
    expect(Buffer.from(await part.arrayBuffer())).toEqual(whole.subarray(10, 20));
    expect((await user(`${at}/file`, { headers: { range: `bytes=${whole.length}-` } })).status).toBe(416);
    expect(await (await user(`${at}/captions/en.vtt`)).text()).toContain("One two three.");
    expect((await user(`${at}/captions/fr.vtt`)).status).toBe(404);

    // Other notes on one slide: it alone is spoken and drawn again.
    const { version } = (await (await user(`/api/decks/${deck.id}`)).json()) as { version: number };
    const change = { kind: "setNotes", slide: "s1", notes: plainText("Six.") };
    await user(`/api/decks/${deck.id}/changes`, json({ base: version, changes: [{ id: nanoid(), change }] }));
    spoken = [];
    const again = await film(user, deck);
    expect(spoken).toEqual(["Six."]);
    // The picture of its slide lasts as long as before, so that it is taken too.
    expect(again.result?.sentence).toMatch(/(2|3) of 3 slides were taken/);

    const other = await server.as("tom");
    expect((await other(`${at}/file`)).status).toBe(404);
    await share(server.db, { deck: deck.id, user: "tom", right: "view", by: "ines", notes: false });
    for (const path of [`${at}/file`, `${at}/captions/en.vtt`, `/api/decks/${deck.id}/films`])
      expect((await other(path)).status).toBe(403);
    expect((await user(at, { method: "DELETE" })).status).toBe(204);
    expect((await user(`${at}/file`)).status).toBe(404);
  }, 120_000);

  it("has a person's own voice where there is one, and says when its file is damaged", async () => {
    speak = second;
    const user = await server.as("ines");
    const deck = await deckOf(["Said by me.", "Also by me."]);
    const take = (bytes: Buffer) =>
      user(`/api/decks/${deck.id}/recordings`, {
        method: "POST",
        body: new Uint8Array(bytes),
        headers: { "content-type": "application/octet-stream" },
      });
    const good = Recording.parse(await (await take(tone("webm"))).json());
    expect(good.mediaType).toBe("audio/webm");
    const damaged = Recording.parse(await (await take(Buffer.from("OggS, and then nothing of a sound"))).json());
    expect((await take(Buffer.from("a text"))).status).toBe(422);
    const voice = (recording: Recording) => ({
      source: recording.name,
      seconds: 1,
      notesHash: textHash("Said by me."),
    });
    const changes = [good, damaged].flatMap((one, nth) => [
      {
        kind: "setAsset",
        name: one.name,
        asset: { sha256: one.sha256, mediaType: one.mediaType, width: 1, height: 1 },
      },
      { kind: "setVoice", slide: `s${nth}`, voice: voice(one) },
    ]);
    const { version } = (await (await user(`/api/decks/${deck.id}`)).json()) as { version: number };
    const sent = changes.map((change) => ({ id: nanoid(), change }));
    expect((await user(`/api/decks/${deck.id}/changes`, json({ base: version, changes: sent }))).status).toBe(200);
    spoken = [];
    const done = await film(user, deck, { voice: "none" });
    expect(done.state).toBe("done");
    expect(spoken).toEqual([]);
    expect(done.result?.remarks).toEqual([expect.stringMatching(/^Slide 2 has no voice: ffmpeg failed/)]);
  }, 60_000);

  it("is made without the voice of a slide at which the service fails", async () => {
    speak = (text) => (text.startsWith("Two") ? undefined : second());
    const user = await server.as("ines");
    const deck = await deckOf(["One.", "Two, which fails."]);
    const done = await film(user, deck);
    expect(done.state).toBe("done");
    expect(done.result?.remarks).toEqual(["Slide 2 has no voice: The voice service answered with status 500."]);
    expect(must((await filmsOf(user, deck))[0]).remarks).toEqual(done.result?.remarks);
    expect(
      await (
        await user(`/api/decks/${deck.id}/films/${must((await filmsOf(user, deck))[0]).id}/captions/en.vtt`)
      ).text(),
    ).toContain("Two, which fails.");
  }, 60_000);

  it("is refused where every slide is hidden, or captions are of a deck that one may not see", async () => {
    const user = await server.as("ines");
    const deck = await deckOf(["One."]);
    const { version } = (await (await user(`/api/decks/${deck.id}`)).json()) as { version: number };
    const change = { kind: "setHidden", slide: "s0", hidden: true };
    await user(`/api/decks/${deck.id}/changes`, json({ base: version, changes: [{ id: nanoid(), change }] }));
    expect(await film(user, deck)).toMatchObject({
      state: "failed",
      message: expect.stringContaining("all are hidden"),
    });
    const asked = json({ ...REQUEST, captions: ["nobodys"] });
    expect((await user(`/api/decks/${deck.id}/films`, asked)).status).toBe(404);
  });
});

describe("ffmpeg", () => {
  const path = process.env.PATH;
  afterEach(() => {
    process.env.PATH = path;
  });

  /** Puts a program called ffmpeg before the one of the system. */
  function instead(script: string): void {
    const bin = mkdtempSync(join(folder, "bin-"));
    writeFileSync(join(bin, "ffmpeg"), `#!/bin/sh\n${script}\n`);
    chmodSync(join(bin, "ffmpeg"), 0o755);
    process.env.PATH = `${bin}:${path}`;
  }

  it("that is missing is said with the line that installs it, and nothing is lost", async () => {
    speak = second;
    const user = await server.as("ines");
    const deck = await deckOf(["One."]);
    process.env.PATH = "/nowhere";
    expect(await (await user("/api/film-tools")).json()).toMatchObject({ ffmpeg: false });
    expect(await film(user, deck)).toMatchObject({
      state: "failed",
      message: "ffmpeg is not installed on this machine. Install it with: apt-get install ffmpeg",
    });
    expect(await filmsOf(user, deck)).toEqual([]);
  });

  it("that is killed in the middle fails the film with a sentence; the next try takes what was finished", async () => {
    speak = second;
    tone("wav");
    const answer = second();
    speak = () => answer;
    const user = await server.as("ines");
    const deck = await deckOf(["One.", "Two."]);
    // Everything works until the film is joined.
    instead('case "$*" in *parts.txt*) kill -9 $$;; *) PATH=/usr/bin:/bin exec ffmpeg "$@";; esac');
    expect(await film(user, deck)).toMatchObject({ state: "failed", message: "ffmpeg was ended before it was done." });
    process.env.PATH = path;
    const done = await film(user, deck);
    expect(done).toMatchObject({ state: "done" });
    expect(done.result?.sentence).toContain("2 of 2 slides were taken as they were made before.");
  }, 60_000);

  it("is ended when the film is cancelled", async () => {
    const answer = second();
    speak = () => answer;
    const user = await server.as("ines");
    // Its third slide was never drawn before.
    const deck = await deckOf(["One.", "Two.", "Three."]);
    const started = join(folder, "started");
    instead(
      `case "$*" in *pictures.txt*) echo $$ > ${started}; exec sleep 60;; *) PATH=/usr/bin:/bin exec ffmpeg "$@";; esac`,
    );
    const { job } = (await (await user(`/api/decks/${deck.id}/films`, json(REQUEST))).json()) as { job: string };
    let pid = 0;
    for (let wait = 0; wait < 200 && !pid; wait++) {
      await new Promise((resolve) => setTimeout(resolve, 50));
      try {
        pid = Number(readFileSync(started, "utf8"));
      } catch {
        // Not yet.
      }
    }
    await user(`/api/jobs/${job}/cancel`, json({}));
    const gone = async () => {
      for (let wait = 0; wait < 100; wait++) {
        try {
          process.kill(pid, 0);
        } catch {
          return true;
        }
        await new Promise((resolve) => setTimeout(resolve, 50));
      }
      return false;
    };
    expect(pid).toBeGreaterThan(0);
    expect(await gone()).toBe(true);
    expect(await ended(user, job)).toMatchObject({ state: "cancelled" });
  }, 60_000);
});
