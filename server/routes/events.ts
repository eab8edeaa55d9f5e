import type { Response } from "express";
import pg from "pg";
import { CHANNEL, JOB_CHANNEL } from "../store";

const JOBS_OF = "jobs of ";

/** Tells the pages that show a deck of its new versions, whichever server took the change. */
export class Announcements {
  private readonly listeners = new Map<string, Set<Response>>();
  private client: pg.Client | undefined;
  private closed = false;
  private beat: NodeJS.Timeout | undefined;

  /** @param versionOf the version of a deck that is committed now */
  constructor(
    private readonly url: string,
    private readonly versionOf: (deck: string) => Promise<number>,
  ) {}

  /** Listens on the database; when the connection drops it is opened again. */
  async start(): Promise<void> {
    const client = new pg.Client({ connectionString: this.url });
    client.on("error", () => this.again());
    client.on("end", () => this.again());
    client.on("notification", ({ channel, payload }) => {
      const [about = "", value = "0"] = (payload ?? "").split(" ");
      this.write(channel === JOB_CHANNEL ? JOBS_OF + about : about, value);
    });
    try {
      await client.connect();
      await client.query(`listen ${CHANNEL}`);
      await client.query(`listen ${JOB_CHANNEL}`);
      this.client = client;
      // What was announced while nobody listened is told now.
      for (const about of this.listeners.keys()) void this.tell(about);
    } catch {
      this.again();
    }
    this.beat ??= setInterval(() => {
      for (const set of this.listeners.values()) for (const response of set) response.write(": beat\n\n");
    }, 20000).unref();
  }

  private waiting = false;
  private again(): void {
    if (this.closed || this.waiting) return;
    this.waiting = true;
    setTimeout(() => {
      this.waiting = false;
      if (!this.closed) void this.start();
    }, 1000).unref();
  }

  /** Streams a deck's versions to a page (server-sent events) until it goes away. */
  stream(deck: string, response: Response): void {
    this.open(deck, response);
  }

  /** Streams the ids of a user's jobs as they go on. */
  streamJobs(user: string, response: Response): void {
    this.open(JOBS_OF + user, response);
  }

  private write(about: string, value: string): void {
    for (const response of this.listeners.get(about) ?? []) response.write(`data: ${value}\n\n`);
  }

  /** Tells how far a deck is, or that there may be news of jobs. */
  private async tell(about: string): Promise<void> {
    try {
      this.write(about, about.startsWith(JOBS_OF) ? "" : String(await this.versionOf(about)));
    } catch {
      // The deck is gone, or the database: its next word tells.
    }
  }

  private open(about: string, response: Response): void {
    response.writeHead(200, { "content-type": "text/event-stream", "cache-control": "no-store", connection: "keep-alive" });
    response.flushHeaders();
    const set = this.listeners.get(about) ?? new Set();
    set.add(response);
    this.listeners.set(about, set);
    // Asked for only now that nothing is missed: what is committed in between would be told to nobody.
    void this.tell(about);
    response.on("close", () => {
      set.delete(response);
      if (set.size === 0) this.listeners.delete(about);
    });
  }

  async stop(): Promise<void> {
    this.closed = true;
    clearInterval(this.beat);
    for (const set of this.listeners.values()) for (const response of set) response.end();
    await this.client?.end().catch(() => undefined);
  }
}
