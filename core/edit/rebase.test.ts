import { canonical, type Deck, orderProblems, must } from "@unitext/core/model";
import { actOn, deckArbitrary, idSource } from "@unitext/core/testing";
import fc from "fast-check";
import {
  apply,
  type Change,
  conflicts,
  integrate,
  type LogEntry,
  rebaseOwn,
  openReplica,
  type Replica,
  writeSet,
} from "./index";
import { applyOwn } from "./rebase";

/** The server's rule: changes that write the same thing as others since their version are refused, all others go on top of what there is; one that is in the log already is not taken twice. */
class Server {
  readonly log: (LogEntry & { change: Change })[] = [];
  constructor(public deck: Deck) {}
  get version(): number {
    return this.log.length;
  }

  commit(
    base: number,
    sent: readonly { id: string; change: Change }[],
  ): { version: number; changes: LogEntry[] } | "conflict" {
    const own = new Set(sent.map(({ id }) => id));
    const known = new Set(this.log.map(({ id }) => id));
    const fresh = sent.filter(({ id }) => !known.has(id));
    const written = this.log.slice(base).flatMap(({ id, change }) => (own.has(id) ? [] : writeSet(change)));
    if (fresh.some(({ change }) => conflicts(writeSet(change), written))) return "conflict";
    let { deck } = this;
    const entries: typeof this.log = [];
    try {
      for (const { id, change } of fresh) {
        deck = apply(deck, change).deck;
        entries.push({ id, change, version: this.version + entries.length + 1 });
      }
    } catch {
      return "conflict";
    }
    this.deck = deck;
    this.log.push(...entries);
    return {
      version: this.version,
      changes: this.log
        .slice(base)
        .map(({ id, version, change }) => (own.has(id) ? { id, version } : { id, version, change })),
    };
  }
}

/** A page: what it shows, what it has sent and waits for, and what it was told that it cannot have. */
class Page {
  replica: Replica;
  readonly refused: string[] = [];
  constructor(
    private readonly server: Server,
    private readonly newId: () => string,
  ) {
    this.replica = openReplica(server.deck, server.version);
  }

  act(kind: number, pick: readonly number[]): string | undefined {
    const change = actOn(this.replica.deck, kind, pick, this.newId);
    if (!change) return undefined;
    const id = this.newId();
    try {
      this.replica = applyOwn(this.replica, { id, change }).replica;
      return id;
    } catch {
      return undefined;
    }
  }

  private take({ replica, refused }: ReturnType<typeof integrate>): void {
    this.replica = replica;
    this.refused.push(...refused.map(({ own }) => own.id));
  }

  catchUp(): void {
    this.take(integrate(this.replica, this.server.log.slice(this.replica.version)));
  }

  /** Sends what waits; the answer may be lost on its way. */
  send(lost: boolean): void {
    const { pending, version } = this.replica;
    if (!pending.length) return;
    const reply = this.server.commit(version, pending);
    if (lost) return;
    if (reply === "conflict") {
      if (version < this.server.version) this.catchUp();
      else this.take(rebaseOwn(this.replica, pending.slice(1), this.replica.committed));
    } else this.take(integrate(this.replica, reply.changes));
  }
}

const step = fc.record({
  page: fc.nat(3),
  does: fc.constantFrom("act", "act", "act", "send", "lose", "repeat", "listen"),
  kind: fc.nat(200),
  pick: fc.array(fc.nat(50), { minLength: 4, maxLength: 4 }),
});

describe("changes of several pages", () => {
  it("end everywhere in the deck that the server has, each that was acknowledged once, whatever comes between, is lost or is sent again", () => {
    fc.assert(
      fc.property(
        deckArbitrary({ minLength: 1, maxLength: 6 }),
        fc.integer({ min: 2, max: 4 }),
        fc.array(step, { maxLength: 40 }),
        (deck, count, steps) => {
          const newId = idSource("x");
          const server = new Server(deck);
          const pages = Array.from({ length: count }, () => new Page(server, newId));
          const made = new Set<string>();
          for (const { page: nth, does, kind, pick } of steps) {
            const page = must(pages[nth % count]);
            if (does === "act") {
              const id = page.act(kind, pick);
              if (id) made.add(id);
            } else if (does === "listen") page.catchUp();
            else {
              page.send(does === "lose");
              if (does === "repeat") page.send(false);
            }
            expect(orderProblems(page.replica.deck.slides)).toEqual([]);
          }
          for (let round = 0; round < 200 && pages.some(({ replica }) => replica.pending.length); round++)
            for (const page of pages) page.send(false);
          for (const page of pages) page.catchUp();
          for (const { replica } of pages) {
            expect(replica.pending).toEqual([]);
            expect(canonical(replica.deck)).toBe(canonical(server.deck));
          }
          const committed = server.log.map(({ id }) => id);
          expect(new Set(committed).size).toBe(committed.length);
          for (const id of made)
            expect([committed.includes(id), pages.some(({ refused }) => refused.includes(id))]).toContain(true);
          expect(orderProblems(server.deck.slides)).toEqual([]);
        },
      ),
      { numRuns: 150 },
    );
  });

  it("that insert at the same place have one order on both pages", () => {
    const deck = must(fc.sample(deckArbitrary({ minLength: 2, maxLength: 2 }), { numRuns: 1, seed: 1 })[0]);
    const server = new Server(deck);
    const newId = idSource("n");
    const [one, other] = [new Page(server, newId), new Page(server, newId)];
    const first = must(deck.slides.find(({ parent }) => parent === null)?.id);
    for (const [page, id] of [
      [one, "mine"],
      [other, "theirs"],
    ] as const) {
      page.replica = applyOwn(page.replica, {
        id: `change-${id}`,
        change: {
          kind: "insertSlide",
          slide: { ...must(deck.slides[0]), id, parent: null },
          place: { parent: null, after: first },
        },
      }).replica;
    }
    one.send(false);
    other.send(false);
    one.catchUp();
    const order = (page: Page) => page.replica.deck.slides.map(({ id }) => id);
    expect(order(one)).toEqual(order(other));
    expect(order(one)).toEqual(server.deck.slides.map(({ id }) => id));
  });

  it("put a slide next to what is there, where its neighbour was deleted meanwhile", () => {
    const deck = must(fc.sample(deckArbitrary({ minLength: 3, maxLength: 3 }), { numRuns: 1, seed: 2 })[0]);
    const flat = { ...deck, slides: deck.slides.map((slide) => ({ ...slide, parent: null })) };
    const [a, b, c] = flat.slides.map(({ id }) => id) as [string, string, string];
    const replica = applyOwn(openReplica(flat, 0), {
      id: "own",
      change: {
        kind: "insertSlide",
        slide: { ...(flat.slides[0] as Deck["slides"][number]), id: "new" },
        place: { parent: null, after: b },
      },
    }).replica;
    const {
      replica: now,
      adapted,
      refused,
    } = integrate(replica, [{ version: 1, id: "other", change: { kind: "deleteSlide", slide: b } }]);
    expect(now.deck.slides.map(({ id }) => id)).toEqual([a, "new", c]);
    expect([adapted.map(({ id }) => id), refused]).toEqual([["own"], []]);
    expect(() => apply(now.committed, must(now.pending[0]?.change))).not.toThrow();
  });
});

it("twenty thousand moves are compared with twenty thousand others in one pass", () => {
  const moves = (prefix: string) => Array.from({ length: 20_000 }, (_, nth) => `slide:${prefix}${nth}/place`);
  expect(conflicts(moves("a"), moves("b"))).toBe(false);
  expect(conflicts([...moves("a"), "slide:b7"], moves("b"))).toBe(true);
});
