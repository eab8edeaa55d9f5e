import { metadataChanges, allMetadataChanges } from "@unitext/core/diff";
import type { SingleChange } from "@unitext/core/edit";
import { isPresentation } from "@unitext/core/formats";
import { emptyDeck, Failure, metadataOf } from "@unitext/core/model";
import { nanoid } from "nanoid";
import pg from "pg";
import { MergeRequest, SplitRequest, WriteRequest } from "../api";
import {
  addBlobs,
  appendSlides,
  applyChanges,
  beat,
  changedByHand,
  claimJob,
  createDeck,
  createJob,
  type Database,
  deleteDeck,
  isConnectionError,
  JOB_CHANNEL,
  keepOutput,
  keepTypedText,
  loadDeck,
  loadJob,
  MOST_TRIES,
  openJobs,
  releaseJobs,
  updateJob,
  versionOf,
  writeDocument,
} from "../store";
import type { ReadProgress, Work } from "../work";
import { Cancelled, runMerge, runSplit } from "./divide";
import { runWrite } from "./write";
import { Arrival } from "./arrival";

/** The number of jobs that a server runs at the same time. */
const AT_ONCE = 4;

/** How often a server reports that it is working, and looks for jobs that others left, in milliseconds. */
const BEAT = 2500;

/** The number of jobs of one user that may wait or run. */
const MOST_OPEN = 200;

type Kind = "read" | "split" | "merge" | "write";
type JobRow = Awaited<ReturnType<typeof loadJob>>;

interface Settings {
  db: Database;
  /** The database's address, for the connection that listens. */
  url: string;
  work: Work;
  fonts: string;
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
      { owner, deck: null, kind: "write", name: `${count} ${count === 1 ? "deck" : "decks"} as .${request.format}` },
      request,
    );
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
    request: SplitRequest | MergeRequest | WriteRequest,
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
    if (job.kind === "read") await this.runRead(job, bytes, signal);
    else await this.runOrder(job, job.kind, bytes, signal);
  }

  /** Splits, merges or writes: everything or nothing. */
  private async runOrder(
    { id, owner, deck }: JobRow,
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
      const request: unknown = JSON.parse(new TextDecoder().decode(bytes));
      if (kind === "write") {
        const { result, report, file } = await runWrite(
          { ...work, signal, work: this.work, fonts: this.settings.fonts },
          WriteRequest.parse(request),
        );
        await keepOutput(this.db, id, file);
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

  private async arrive(deck: string, owner: string, changes: SingleChange[], base?: number): Promise<void> {
    await applyChanges(
      this.db,
      deck,
      owner,
      {
        base: base ?? (await versionOf(this.db, deck)),
        changes: [{ id: nanoid(16), change: { kind: "batch", changes } }],
      },
      { arrival: true },
    );
  }

  private async runRead(
    { id, owner, deck, name, slides: before }: JobRow,
    bytes: Uint8Array,
    signal: AbortSignal,
  ): Promise<void> {
    if (!deck) return;
    if (before > 0 && !(await this.beganAgain(id, deck, owner))) return;
    const arrival = new Arrival(nanoid(10));
    try {
      for await (const progress of this.work.read(
        { fonts: this.settings.fonts, name, bytes: new Uint8Array(bytes), deck, document: arrival.document },
        { owner, signal },
      )) {
        if (!(await this.take({ id, owner, deck, name }, arrival, progress))) return;
      }
    } catch (error) {
      if (signal.aborted) return;
      if (isConnectionError(error)) throw error;
      if (!(error instanceof Failure)) this.log(`job ${id}`, error);
      await updateJob(this.db, id, {
        state: "failed",
        message:
          error instanceof Failure
            ? error.message
            : isPresentation(name)
              ? "The presentation could not be read; nothing of it was taken."
              : "The document could not be read to its end; what was made is kept.",
      });
      // A presentation is refused whole; an empty deck of a document is of no use to anybody.
      if (isPresentation(name)) await deleteDeck(this.db, deck);
      else if (arrival.slides === 0 && (await loadDeck(this.db, deck).catch(() => undefined))?.deck.slides.length === 0)
        await deleteDeck(this.db, deck);
    }
  }

  /**
   * Deletes what an interrupted job has read, so that it can start again. Returns false when somebody has edited it
   * since: then it stays, and the job ends.
   */
  private async beganAgain(id: string, deck: string, owner: string): Promise<boolean> {
    if (await changedByHand(this.db, deck)) {
      await updateJob(this.db, id, {
        state: "failed",
        message:
          "Reading was interrupted; what was made until then is kept, as it has been changed since. Bring the file in again for the rest.",
      });
      return false;
    }
    const { deck: now, version } = await loadDeck(this.db, deck);
    if (now.slides.length)
      await this.arrive(
        deck,
        owner,
        [...now.slides].reverse().map(({ id: slide }) => ({ kind: "deleteSlide", slide })),
        version,
      );
    return updateJob(this.db, id, { slides: 0, page: 0 });
  }

  /** Stores what was read. Returns whether the job continues. */
  private async take(
    { id, owner, deck, name }: { id: string; owner: string; deck: string; name: string },
    arrival: Arrival,
    progress: ReadProgress,
  ): Promise<boolean> {
    switch (progress.kind) {
      case "head": {
        const { metadata, blobs, typed, of } = progress;
        if (of !== undefined) await updateJob(this.db, id, { pages: of });
        await addBlobs(this.db, deck, blobs);
        arrival.isDocument = !typed;
        const { deck: now, version } = await loadDeck(this.db, deck);
        const changes =
          of === undefined ? metadataChanges(metadataOf(now), metadata) : allMetadataChanges(metadataOf(now), metadata);
        if (changes.length) await this.arrive(deck, owner, changes, version);
        return true;
      }
      case "text":
        if (arrival.isDocument) {
          await writeDocument(this.db, deck, arrival.document, name, progress.text);
          // An empty change tells the pages that the text is there; no slides may follow that would.
          await this.arrive(deck, owner, []);
        } else arrival.typed = progress.text;
        await updateJob(this.db, id, { pages: progress.pages });
        return true;
      case "pictures":
        await addBlobs(this.db, deck, progress.blobs);
        // Other changes made meanwhile stay.
        await this.arrive(
          deck,
          owner,
          Object.entries(progress.assets).map(([source, asset]) => ({ kind: "setAsset", name: source, asset })),
        );
        return true;
      case "slides":
        // Also checked before: slides on their way do not overtake a cancel.
        if (!(await updateJob(this.db, id, { page: progress.page }))) return false;
        await appendSlides(this.db, deck, owner, progress.slides);
        arrival.slides += progress.slides.length;
        return updateJob(this.db, id, { slides: arrival.slides });
      case "end":
        if (arrival.typed !== undefined) await keepTypedText(this.db, deck, arrival.typed);
        await updateJob(this.db, id, { state: "done", report: { adapted: progress.adapted, left: progress.left } });
        return true;
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
