import { emptyDeck, Failure } from "@unitext/core/model";
import { nanoid } from "nanoid";
import pg from "pg";
import { FilmRequest, type JOB_KINDS, MergeRequest, RefreshRequest, SplitRequest, WriteRequest } from "../api";
import {
  beat,
  claimJob,
  createDeck,
  createJob,
  type Database,
  isConnectionError,
  JOB_CHANNEL,
  keepOutput,
  loadJob,
  MOST_TRIES,
  openJobs,
  releaseJobs,
  updateJob,
} from "../store";
import type { LanguageService, Work } from "../work";
import { runArchive, runRestore } from "./archive";
import { Cancelled, runMerge, runSplit } from "./divide";
import { runFilm } from "./film";
import { formatsSaid, runWrite } from "./write";
import { runRead } from "./read";
import { runRefresh } from "./refresh";

/** The number of jobs that a server runs at the same time. */
const AT_ONCE = 4;

/** How often a server reports that it is working, and looks for jobs that others left, in milliseconds. */
const BEAT = 2500;

/** The number of jobs of one user that may wait or run. */
const MOST_OPEN = 200;

type Kind = (typeof JOB_KINDS)[number];
type JobRow = Awaited<ReturnType<typeof loadJob>>;

interface Settings {
  db: Database;
  /** The database's address, for the connection that listens. */
  url: string;
  work: Work;
  fonts: string;
  /** The service that speaks, where one is set up. */
  voiceService?: LanguageService | undefined;
  log?: (message: string, error: unknown) => void;
}

/**
 * Runs jobs. The table of jobs is the queue: servers take jobs from it, report every few seconds that they are working,
 * and take over what a server that ended has left. Results are visible at once; a cancelled job leaves them.
 */
export class Jobs {
  private readonly server = nanoid(12);
  private readonly running = new Map<string, AbortController>();
  /** Files that arrived at this server and wait to be read: they need not be fetched from the database first. */
  private readonly waiting = new Map<string, Uint8Array>();
  private listener: pg.Client | undefined;
  private timer: NodeJS.Timeout | undefined;
  private looking = false;
  private lookAgain = false;
  private closed = false;
  private readonly db: Database;
  private readonly work: Work;
  private readonly log: (message: string, error: unknown) => void;

  constructor(private readonly settings: Settings) {
    this.db = settings.db;
    this.work = settings.work;
    this.log = settings.log ?? (() => undefined);
  }

  async start(): Promise<void> {
    await this.listen();
    this.timer = setInterval(() => void this.tick(), BEAT);
    this.timer.unref();
    void this.look();
  }

  /**
   * Listens for new jobs and for cancels, which may reach another server than the one working on them; reconnects when
   * the connection drops.
   */
  private async listen(): Promise<void> {
    const client = new pg.Client({ connectionString: this.settings.url });
    const lost = () => {
      if (this.listener !== client) return;
      this.listener = undefined;
    };
    client.on("error", lost);
    client.on("end", lost);
    client.on("notification", ({ payload }) => {
      const [, job = "", state] = (payload ?? "").split(" ");
      if (state === "cancelled") this.running.get(job)?.abort();
      if (state === "waiting") void this.look();
    });
    this.listener = client;
    try {
      await client.connect();
      await client.query(`listen ${JOB_CHANNEL}`);
    } catch (error) {
      lost();
      await client.end().catch(() => undefined);
      throw error;
    }
  }

  private async tick(): Promise<void> {
    try {
      if (!this.listener && !this.closed) await this.listen();
      // Only jobs that were asked about: one taken over meanwhile belongs to another server.
      const ids = [...this.running.keys()];
      const kept = await beat(this.db, this.server, ids);
      for (const id of ids) if (!kept.has(id)) this.running.get(id)?.abort();
      await this.look();
    } catch {
      // The database is unreachable; the next beat tries again.
    }
  }

  /** Takes jobs as long as there are any and this server has room. */
  private async look(): Promise<void> {
    // A job may arrive after the running query has read the table, so the table is queried once more.
    if (this.looking) {
      this.lookAgain = true;
      return;
    }
    this.looking = true;
    this.lookAgain = false;
    try {
      while (!this.closed && this.running.size < AT_ONCE) {
        const id = await claimJob(this.db, this.server);
        if (id === undefined) break;
        const stop = new AbortController();
        this.running.set(id, stop);
        void this.run(id, stop.signal)
          .catch((error) => this.log(`job ${id}`, error))
          .finally(() => {
            this.running.delete(id);
            void this.look();
          });
      }
    } catch {
      // The database is unreachable; the next beat looks again.
    } finally {
      this.looking = false;
    }
    if (this.lookAgain && !this.closed) void this.look();
  }

  /** Accepts a document: the deck is there at once, its slides follow. Throws a Failure `too-many`. */
  async read(owner: string, name: string, bytes: Uint8Array): Promise<{ deck: string; job: string }> {
    await this.permitMore(owner);
    const deck = nanoid(12);
    const job = nanoid(12);
    const file = name.replace(/\.[^.]*$/, "");
    await createDeck(this.db, owner, emptyDeck(deck, file || "Untitled"), new Map(), null, file || null);
    this.waiting.set(job, bytes);
    await createJob(this.db, { id: job, owner, deck, kind: "read", name }, bytes);
    void this.look();
    return { deck, job };
  }

  /** Accepts a plan by which to split a deck. */
  async split(owner: string, deck: string, name: string, request: SplitRequest): Promise<string> {
    return this.order({ owner, deck, kind: "split", name }, request);
  }

  /** Accepts a list of decks to merge. */
  async merge(owner: string, request: MergeRequest): Promise<string> {
    return this.order({ owner, deck: null, kind: "merge", name: request.title || "Merged deck" }, request);
  }

  /** Accepts a list of decks to write in one format. */
  async write(owner: string, request: WriteRequest): Promise<string> {
    const count = request.decks.length;
    return this.order(
      {
        owner,
        deck: null,
        kind: "write",
        name: `${count} ${count === 1 ? "deck" : "decks"} as ${formatsSaid(request.formats)}`,
      },
      request,
    );
  }

  /** Accepts to make a film of a deck. */
  async film(owner: string, deck: string, name: string, request: FilmRequest): Promise<string> {
    return this.order({ owner, deck, kind: "film", name }, request);
  }

  /** Accepts to take the newest values of a source in the decks that use it. */
  async refresh(owner: string, name: string, request: RefreshRequest): Promise<string> {
    return this.order({ owner, deck: null, kind: "refresh", name }, request);
  }

  /** Starts a job that writes everything the owner has into one archive. Throws a Failure `too-many`. */
  async archive(owner: string): Promise<string> {
    return this.order({ owner, deck: null, kind: "archive", name: "Archive of everything" }, {});
  }

  /** Starts a job that adds the contents of an archive to what the owner has. Throws a Failure `too-many`. */
  async restore(owner: string, name: string, bytes: Uint8Array): Promise<string> {
    await this.permitMore(owner);
    const id = nanoid(12);
    await createJob(this.db, { id, owner, deck: null, kind: "restore", name }, bytes);
    void this.look();
    return id;
  }

  private async permitMore(owner: string): Promise<void> {
    if ((await openJobs(this.db, owner)) >= MOST_OPEN)
      throw new Failure(
        "too-many",
        "jobs",
        `${MOST_OPEN} of your jobs are waiting already. Wait until some have ended, or cancel some, then try again.`,
      );
  }

  private async order(
    job: { owner: string; deck: string | null; kind: Exclude<Kind, "read">; name: string },
    request: SplitRequest | MergeRequest | WriteRequest | RefreshRequest | FilmRequest | Record<string, never>,
  ): Promise<string> {
    await this.permitMore(job.owner);
    const id = nanoid(12);
    await createJob(this.db, { id, ...job }, new TextEncoder().encode(JSON.stringify(request)));
    void this.look();
    return id;
  }

  private async run(id: string, signal: AbortSignal): Promise<void> {
    const here = this.waiting.get(id);
    this.waiting.delete(id);
    const job = await loadJob(this.db, id, here === undefined);
    const bytes = here ?? job.bytes;
    if (!bytes || job.state !== "running") return;
    if (job.tries > MOST_TRIES) {
      await updateJob(this.db, id, {
        state: "failed",
        message: "This ended the service several times, so it is not tried again.",
      });
      return;
    }
    if (job.kind === "read") await this.runReading(job, bytes, signal);
    else await this.runOrder(job, job.kind, bytes, signal);
  }

  private async runReading({ id, owner, deck, name, tries }: JobRow, bytes: Uint8Array, signal: AbortSignal) {
    const { db, work, log } = this;
    if (deck)
      await runRead(
        { db, work, log, fonts: this.settings.fonts },
        { id, owner, deck, name },
        { again: tries > 1, bytes, signal },
      );
  }

  /** Splits, merges or writes: everything or nothing. */
  private async runOrder(
    { id, owner, deck, name }: JobRow,
    kind: Exclude<Kind, "read">,
    bytes: Uint8Array,
    signal: AbortSignal,
  ): Promise<void> {
    let told = 0;
    const progress = async (page: number, pages: number, slides: number) => {
      if (signal.aborted) return false;
      // Reported a few times a second, and at the end.
      if (page < pages && page > 0 && Date.now() - told < 100) return true;
      told = Date.now();
      return updateJob(this.db, id, { state: "running", page, pages, slides });
    };
    const work = { db: this.db, owner, progress };
    try {
      const reading = { ...work, signal, work: this.work, fonts: this.settings.fonts };
      if (kind === "restore") {
        await updateJob(this.db, id, { state: "done", ...(await runRestore({ name, bytes }, reading)) });
        return;
      }
      const request: unknown = JSON.parse(new TextDecoder().decode(bytes));
      if (kind === "write" || kind === "archive") {
        const { result, report, file } =
          kind === "archive" ? await runArchive(reading) : await runWrite(reading, WriteRequest.parse(request));
        await keepOutput(this.db, id, file);
        await updateJob(this.db, id, { state: "done", result, report });
        return;
      }
      if (kind === "film") {
        const film = { ...reading, voiceService: this.settings.voiceService };
        const result = await runFilm(film, deck ?? "", FilmRequest.parse(request));
        await updateJob(this.db, id, { state: "done", result });
        return;
      }
      if (kind === "refresh") {
        const { result, report } = await runRefresh(
          { ...work, signal, work: this.work },
          RefreshRequest.parse(request),
        );
        await updateJob(this.db, id, { state: "done", result, report });
        return;
      }
      const { result, report } =
        kind === "split"
          ? await runSplit(work, deck ?? "", SplitRequest.parse(request))
          : await runMerge(work, MergeRequest.parse(request));
      await updateJob(this.db, id, {
        state: "done",
        result,
        report,
        ...(kind === "merge" ? { deck: result.decks[0]?.id ?? null } : {}),
      });
    } catch (error) {
      if (error instanceof Cancelled || signal.aborted) return;
      if (isConnectionError(error)) throw error;
      if (!(error instanceof Failure)) this.log(`job ${id}`, error);
      const where =
        error instanceof Failure && /^(parts|opening|closing|names)/.test(error.where) ? `${error.where}: ` : "";
      await updateJob(this.db, id, {
        state: "failed",
        message: error instanceof Failure ? `${where}${error.message}` : "This could not be done; nothing was made.",
      });
    }
  }

  /** Stops all work. Unfinished jobs are taken over by another server, or by the next start. */
  async close(): Promise<void> {
    this.closed = true;
    clearInterval(this.timer);
    for (const stop of this.running.values()) stop.abort();
    const { listener } = this;
    this.listener = undefined;
    await listener?.end().catch(() => undefined);
    await releaseJobs(this.db, this.server).catch(() => undefined);
  }
}
