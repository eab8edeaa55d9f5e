import { readdirSync, readFileSync } from "node:fs";
import {
  applyOwn,
  type Change,
  integrate,
  type LogEntry,
  openReplica,
  rebaseOwn,
  type Replica,
} from "@unitext/core/edit";
import { type Deck, elementWords, must, plainText, type RichText, textOf } from "@unitext/core/model";
import { nanoid } from "nanoid";
import type { ChangesSince, DeckState, Sharing } from "../server/api";
import { ADDRESS, Browser, json } from "./requests";
import type { Row } from "./core";

const EDITORS = 10;
const VIEWERS = 50;
const SECONDS = 60;
/** How often an editor's page sends what was typed, and a viewer's page asks for what has changed, in milliseconds. */
const TYPING = 500;
const LOOKING = 2000;

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));
/** When changes were made, by id, and how long until they were acknowledged and seen, in milliseconds. */
const made = new Map<string, number>();
const acknowledged: number[] = [];
const seen: number[] = [];

/** A page in which somebody types a word after another at the end of a text that several write in. */
class Editor {
  private replica: Replica = openReplica({} as Deck, 0);
  private sending = false;
  private catching = false;
  readonly words: string[] = [];

  constructor(
    private readonly browser: Browser,
    private readonly deck: string,
    private readonly nth: number,
  ) {}

  async open(stop: AbortSignal): Promise<void> {
    const state = (await (await this.browser.ask(`/decks/${this.deck}`)).json()) as DeckState;
    this.replica = openReplica(state.deck, state.version);
    void this.browser.listen(`/decks/${this.deck}/events`, stop, (data) => {
      if (Number(data) > this.replica.version) void this.catchUp();
    });
  }

  private notes(): RichText {
    return must(this.replica.deck.slides[this.nth % 5]).notes;
  }

  type(word: string): void {
    const slide = must(this.replica.deck.slides[this.nth % 5]).id;
    const notes = plainText(`${textOf(this.notes())} ${word}`.trim());
    const id = nanoid(16);
    made.set(id, performance.now());
    this.words.push(word);
    this.replica = applyOwn(this.replica, { id, change: { kind: "setNotes", slide, notes } }).replica;
    void this.send();
  }

  private async send(): Promise<void> {
    if (this.sending || !this.replica.pending.length) return;
    this.sending = true;
    const sent = this.replica.pending;
    const reply = await this.browser.ask(
      `/decks/${this.deck}/changes`,
      json({ base: this.replica.version, changes: sent }),
    );
    if (reply.ok) {
      const { version, changes } = (await reply.json()) as { version: number; changes: LogEntry[] };
      const taken = integrate(this.replica, changes);
      this.replica = { ...taken.replica, version };
      for (const { id } of sent) acknowledged.push(performance.now() - must(made.get(id)));
    } else {
      const { state } = (await reply.json()) as { state: DeckState };
      this.replica = rebaseOwn(
        { version: state.version, committed: state.deck },
        this.replica.pending,
        this.replica.committed,
      ).replica;
    }
    this.sending = false;
    void this.send();
  }

  private async catchUp(): Promise<void> {
    if (this.catching || this.sending) return;
    this.catching = true;
    const since = this.replica.version;
    const { changes } = (await (
      await this.browser.ask(`/decks/${this.deck}/changes?since=${since}`)
    ).json()) as ChangesSince;
    const now = performance.now();
    // While a change of its own was on the way, its reply brings the others'.
    if (!this.sending && this.replica.version === since) {
      const log = changes as { id: string; version: number; change: Change }[];
      const own = new Set(this.replica.pending.map(({ id }) => id));
      for (const { id } of log) if (!own.has(id) && made.has(id)) seen.push(now - must(made.get(id)));
      this.replica = integrate(this.replica, log).replica;
    }
    this.catching = false;
  }
}

/** Returns the memory of the server's process in megabytes, from the table of processes. */
function serverMemory(): number {
  const sizes = readdirSync("/proc")
    .filter((name) => /^\d+$/.test(name))
    .flatMap((name) => {
      try {
        if (!readFileSync(`/proc/${name}/cmdline`, "utf8").includes("dist/server/main.js")) return [];
        return [Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${name}/status`, "utf8"))?.[1] ?? 0) / 1024];
      } catch {
        return [];
      }
    });
  return Math.max(0, ...sizes);
}

const share = (values: readonly number[], part: number) =>
  Math.round([...values].sort((one, other) => one - other)[Math.floor(values.length * part)] ?? 0);

/** Ten people who type in one deck while fifty look at it, for a minute: how soon a change is acknowledged and seen. */
export async function together(): Promise<Row[]> {
  if (!ADDRESS) return [];
  const owner = new Browser();
  await owner.ask("/me");
  const outline = Array.from({ length: 20 }, (_, nth) => `# Slide ${nth + 1}\n\n- a point\n- another one`).join("\n\n");
  const begun = (await (await owner.ask("/decks", json({ title: "Together", text: outline }))).json()) as {
    id: string;
  };
  const deck = begun.id;
  const link = async (right: string) => {
    const asked = { scope: "deck", right, notes: right === "edit", expiresAt: null };
    const { links } = (await (await owner.ask(`/decks/${deck}/sharing/links`, json(asked))).json()) as Sharing;
    return must(links[0]?.path).split("/").at(-1);
  };
  const [editing, viewing] = [await link("edit"), await link("view")];
  const stop = new AbortController();
  const editors = await Promise.all(
    Array.from({ length: EDITORS }, async (_, nth) => {
      const browser = new Browser();
      await browser.ask(`/links/${editing}/opening`, json({ name: `Editor ${nth}` }));
      const editor = new Editor(browser, deck, nth);
      await editor.open(stop.signal);
      return editor;
    }),
  );
  const viewers = Array.from({ length: VIEWERS }, async () => {
    const browser = new Browser();
    await browser.ask(`/links/${viewing}/opening`, json({}));
    let changed = true;
    void browser.listen(`/decks/${deck}/events`, stop.signal, () => {
      changed = true;
    });
    while (!stop.signal.aborted) {
      if (changed) {
        changed = false;
        const { version, slides } = (await (await browser.ask(`/decks/${deck}/look`)).json()) as {
          version: number;
          slides: { id: string }[];
        };
        await (await browser.ask(`/decks/${deck}/drawings/${slides[0]?.id}?version=${version}`)).text();
      }
      await pause(LOOKING);
    }
  });
  let half = 0;
  const begin = performance.now();
  for (let turn = 0; performance.now() - begin < SECONDS * 1000; turn++) {
    for (const [nth, editor] of editors.entries()) {
      editor.type(`w${nth}x${turn}`);
      await pause(TYPING / EDITORS);
    }
    if (!half && performance.now() - begin > (SECONDS * 1000) / 2) half = serverMemory();
  }
  await pause(3000);
  const grown = Math.round(serverMemory() - half);
  stop.abort();
  await Promise.all(viewers);
  const state = (await (await owner.ask(`/decks/${deck}`)).json()) as DeckState;
  const all = state.deck.slides.map(
    ({ notes, elements }) => `${textOf(notes)} ${elements.map(elementWords).join(" ")}`,
  );
  const kept = new Set(all.join(" ").split(/\s+/));
  const lost = editors.flatMap(({ words }) => words.filter((word) => !kept.has(word))).length;
  const of = `${EDITORS} editors and ${VIEWERS} viewers of one deck, ${SECONDS} s`;
  const measured = (name: string, ratio: number, target: number, unit: string): Row => ({
    name: `${of}: ${name}`,
    ratio,
    target,
    holds: ratio <= target,
    unit,
  });
  return [
    measured(
      `changes acknowledged, 95th percentile (${acknowledged.length} changes)`,
      share(acknowledged, 0.95),
      300,
      "ms",
    ),
    measured("changes acknowledged, median", share(acknowledged, 0.5), 60, "ms"),
    measured("changes seen by others, 95th percentile", share(seen, 0.95), 500, "ms"),
    measured("words lost", lost, 0, ""),
    measured("memory of the server grown in the second half", grown, 60, "MB"),
  ];
}
