import { Failure } from "@unitext/core/model";
import type { Response } from "express";
import pg from "pg";
import { CHANNEL, type Database, EVERY_DECK, JOB_CHANNEL, RIGHTS_CHANNEL, stillPermitted, versionsOf } from "../store";
import { PRESENCE_NEWS, RIGHTS_NEWS } from "../api";
import { PERSON } from "./limits";

const JOBS_OF = "jobs of ";
/** How often streams are kept alive, and the rights on them checked again, in milliseconds. */
const BEAT = 20_000;
/** The least time between two versions of a deck that its pages are told of, in milliseconds. */
const GATHER = 100;
/** A stream with more unread bytes than this is closed; the page reconnects by itself. */
const MOST_WAITING = 256 * 1024;

/** A page that listens: its user, and the deck where it listens to one. */
interface Listener {
  response: Response;
  user: string;
  deck: string | undefined;
  /** Whether it is told who else is in the deck. */
  people?: boolean;
}

/** The queries by which pages are told the news. */
export interface NewsSource {
  /** Returns the committed versions of decks; deleted decks are missing. */
  versions(decks: readonly string[]): Promise<ReadonlyMap<string, number>>;
  /** Returns the pairs that may still see their deck, as `deck user`. */
  permitted(pairs: readonly { deck: string; user: string }[]): Promise<ReadonlySet<string>>;
}

export const newsFrom = (db: Database): NewsSource => ({
  versions: (decks) => versionsOf(db, decks),
  permitted: (pairs) => stillPermitted(db, pairs),
});

/**
 * Tells the pages that show a deck of its new versions, whichever server took the change: one database connection for
 * all of them.
 */
export class Announcements {
  private readonly listeners = new Map<string, Set<Listener>>();
  private readonly streams = new Map<string, number>();
  private client: pg.Client | undefined;
  private closed = false;
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly url: string,
    private readonly source: NewsSource,
  ) {}

  /** Listens to the database, and reconnects when the connection drops. */
  async start(): Promise<void> {
    const client = new pg.Client({ connectionString: this.url });
    client.on("error", () => this.again(client));
    client.on("end", () => this.again(client));
    client.on("notification", ({ channel, payload }) => {
      const [about = "", value = "0"] = (payload ?? "").split(" ");
      if (channel === RIGHTS_CHANNEL)
        void this.checkRights((listener) => about === EVERY_DECK || listener.deck === about, RIGHTS_NEWS);
      else if (channel === JOB_CHANNEL) this.write(JOBS_OF + about, value);
      else if (/^\d+$/.test(value)) this.writeVersion(about, value);
      else this.write(about, value);
    });
    this.client = client;
    try {
      await client.connect();
      for (const channel of [CHANNEL, JOB_CHANNEL, RIGHTS_CHANNEL]) await client.query(`listen ${channel}`);
      // Announcements that were missed are made now.
      this.tell(...this.listeners.keys());
    } catch {
      this.again(client);
    }
    this.timer ??= setInterval(() => this.beat(), BEAT).unref();
  }

  private again(client: pg.Client): void {
    if (this.closed || this.client !== client) return;
    this.client = undefined;
    client.end().catch(() => undefined);
    setTimeout(() => {
      if (!this.closed && !this.client) void this.start();
    }, 1000).unref();
  }

  private beat(): void {
    for (const set of this.listeners.values()) for (const listener of set) this.send(listener, ": beat\n\n");
    void this.checkRights(() => true);
  }

  /** Ends the streams of users who may no longer see their deck, and tells the others `news`. */
  private async checkRights(which: (listener: Listener) => boolean, news?: string): Promise<void> {
    const checked = [...this.listeners.values()]
      .flatMap((set) => [...set])
      .flatMap((listener) =>
        listener.deck !== undefined && which(listener) ? [{ listener, deck: listener.deck, user: listener.user }] : [],
      );
    try {
      const permitted = await this.source.permitted(checked);
      for (const { listener, deck, user } of checked) {
        if (!permitted.has(`${deck} ${user}`)) listener.response.end();
        else if (news) this.send(listener, `data: ${news}\n\n`);
      }
    } catch {
      // The database is unreachable; the next beat looks again.
    }
  }

  /**
   * Streams a deck's versions to a page (server-sent events) until the page closes or its user loses the right. Throws
   * a Failure `too-many`. With `people` it is told who else is in the deck.
   */
  stream(deck: string, user: string, response: Response, people = false): void {
    this.open(deck, { response, user, deck, people });
  }

  /** Streams the ids of a user's jobs as they progress. Throws a Failure `too-many`. */
  streamJobs(user: string, response: Response): void {
    this.open(JOBS_OF + user, { response, user, deck: undefined });
  }

  /** Streams news of a talk or a published page. `user` is whose streams are counted. Throws a Failure `too-many`. */
  streamNews(name: string, response: Response, user = name): void {
    this.open(name, { response, user, deck: undefined });
  }

  private send({ response }: Listener, text: string): void {
    if (response.writableLength > MOST_WAITING) response.destroy();
    else response.write(text);
  }

  private write(about: string, value: string): void {
    for (const listener of this.listeners.get(about) ?? [])
      if (listener.people || !value.startsWith(PRESENCE_NEWS)) this.send(listener, `data: ${value}\n\n`);
  }

  /** The decks whose pages were told a version just now, with the latest that they were not told yet. */
  private readonly justTold = new Map<string, string | undefined>();

  /** Tells pages a version at once, and while many follow one another, only the latest of them. */
  private writeVersion(deck: string, version: string): void {
    if (this.justTold.has(deck)) {
      this.justTold.set(deck, version);
      return;
    }
    this.write(deck, version);
    this.justTold.set(deck, undefined);
    setTimeout(() => {
      const latest = this.justTold.get(deck);
      this.justTold.delete(deck);
      if (latest !== undefined) this.writeVersion(deck, latest);
    }, GATHER).unref();
  }

  private readonly toTell = new Set<string>();
  private telling: NodeJS.Timeout | undefined;

  /**
   * Announces the versions of decks, or that there may be news of jobs. Questions asked at the same time are answered
   * by one query.
   */
  private tell(...abouts: readonly string[]): void {
    for (const about of abouts) this.toTell.add(about);
    this.telling ??= setTimeout(() => {
      this.telling = undefined;
      const list = [...this.toTell];
      this.toTell.clear();
      for (const about of list) if (about.startsWith(JOBS_OF)) this.write(about, "");
      this.source.versions(list.filter((about) => !about.startsWith(JOBS_OF))).then(
        (versions) => {
          for (const [deck, version] of versions) this.write(deck, String(version));
        },
        // The database is unreachable; its next notification tells.
        () => undefined,
      );
    }, 10);
  }

  private open(about: string, listener: Listener): void {
    const { response, user } = listener;
    const count = this.streams.get(user) ?? 0;
    if (count >= PERSON.streams)
      throw new Failure(
        "too-many",
        "streams",
        `You have ${count} pages open that wait for news, the most that one person may have. Close some of them.`,
      );
    this.streams.set(user, count + 1);
    response.writeHead(200, {
      "content-type": "text/event-stream",
      "cache-control": "no-store",
      connection: "keep-alive",
    });
    response.flushHeaders();
    const set = this.listeners.get(about) ?? new Set();
    set.add(listener);
    this.listeners.set(about, set);
    // Queried only now that notifications arrive: what was committed in between would be announced to nobody.
    this.tell(about);
    response.on("close", () => {
      set.delete(listener);
      if (set.size === 0 && this.listeners.get(about) === set) this.listeners.delete(about);
      const left = (this.streams.get(user) ?? 1) - 1;
      if (left > 0) this.streams.set(user, left);
      else this.streams.delete(user);
    });
  }

  async stop(): Promise<void> {
    this.closed = true;
    clearInterval(this.timer);
    clearTimeout(this.telling);
    for (const set of this.listeners.values()) for (const { response } of set) response.end();
    await this.client?.end().catch(() => undefined);
  }
}
