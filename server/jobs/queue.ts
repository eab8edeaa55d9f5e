import { isPresentation } from "@unitext/core/formats";
import type { SingleChange } from "@unitext/core/edit";
import { headChanges, wholeHeadChanges } from "@unitext/core/generate";
import { type DeckHead, emptyDeck, Failure, headOf } from "@unitext/core/model";
import { nanoid } from "nanoid";
import pg from "pg";
import PgBoss from "pg-boss";
import { MergeRequest, SplitRequest, WriteRequest } from "../api";
import { type Exporter, inlineExporter } from "../export";
import { addBlobs, appendSlides, applyChanges, createDeck, createJob, type Database, deleteDeck, JOB_CHANNEL, keepOutput, keepTypedText, loadDeck, loadJob, updateJob, versionOf, writeDocument } from "../store";
import { Cancelled, runMerge, runSplit } from "./divide";
import type { Reader } from "./reader";
import { runWrite } from "./write";

const QUEUE = "read";
/** How many documents one server reads at the same time. */
const AT_ONCE = 2;

/**
 * Reads documents and presentations into decks as jobs of a queue in the database: a server that ends leaves them to the next, several
 * share them. What is made is there at once; a job that is cancelled leaves it so.
 */
export class Jobs {
  private readonly boss: PgBoss;
  private readonly stops = new Map<string, AbortController>();
  /** Files that came in here and wait to be read: they need not be fetched from the database first. */
  private readonly waiting = new Map<string, Uint8Array>();
  private workers: string[] = [];
  private listener: pg.Client | undefined;

  constructor(
    private readonly db: Database,
    private readonly url: string,
    private readonly reader: Reader,
    private readonly fonts: string,
    private readonly log: (message: string, error: unknown) => void = () => undefined,
    private readonly exporter: Exporter = inlineExporter,
  ) {
    this.boss = new PgBoss({ connectionString: url, schema: "queue", max: 3 });
    this.boss.on("error", (error) => this.log("queue", error));
  }

  async start(): Promise<void> {
    await this.boss.start();
    await this.boss.createQueue(QUEUE, { name: QUEUE, retryLimit: 2, expireInSeconds: 900 });
    for (let nth = 0; nth < AT_ONCE; nth++) this.workers.push(await this.boss.work<{ job: string }>(QUEUE, { pollingIntervalSeconds: 1, batchSize: 1 }, async ([task]) => task && this.run(task.data.job)));
    // A cancel may reach another server than the one that works.
    this.listener = new pg.Client({ connectionString: this.url });
    this.listener.on("error", (error) => this.log("job listener", error));
    this.listener.on("notification", ({ payload }) => {
      const [, job = "", state] = (payload ?? "").split(" ");
      if (state === "cancelled") this.stops.get(job)?.abort();
    });
    await this.listener.connect();
    await this.listener.query(`listen ${JOB_CHANNEL}`);
  }

  /** Takes a document: the deck is there at once, its slides follow. */
  async read(owner: string, name: string, bytes: Uint8Array): Promise<{ deck: string; job: string }> {
    const deck = nanoid(12);
    const job = nanoid(12);
    const file = name.replace(/\.[^.]*$/, "");
    await createDeck(this.db, owner, emptyDeck(deck, file || "Untitled"), new Map(), null, file || null);
    await createJob(this.db, { id: job, owner, deck, kind: "read", name }, bytes);
    this.waiting.set(job, bytes);
    await this.resume(job);
    return { deck, job };
  }

  /** Puts a job that is noted into the queue again, as the queue itself does when a server has ended. */
  async resume(job: string): Promise<void> {
    await this.boss.send(QUEUE, { job });
    for (const worker of this.workers) this.boss.notifyWorker(worker);
  }

  /** Takes a plan by which a deck becomes several. */
  async split(owner: string, deck: string, name: string, request: SplitRequest): Promise<string> {
    return this.divide({ owner, deck, kind: "split", name }, request);
  }

  /** Takes a list of decks that become one. */
  async merge(owner: string, request: MergeRequest): Promise<string> {
    return this.divide({ owner, deck: null, kind: "merge", name: request.title || "Merged deck" }, request);
  }

  /** Takes a list of decks that are written in one format. */
  async write(owner: string, request: WriteRequest): Promise<string> {
    const count = request.decks.length;
    return this.divide({ owner, deck: null, kind: "write", name: `${count} ${count === 1 ? "deck" : "decks"} as .${request.format}` }, request);
  }

  private async divide(job: { owner: string; deck: string | null; kind: "split" | "merge" | "write"; name: string }, request: SplitRequest | MergeRequest | WriteRequest): Promise<string> {
    const id = nanoid(12);
    await createJob(this.db, { id, ...job }, new TextEncoder().encode(JSON.stringify(request)));
    await this.resume(id);
    return id;
  }

  /** Splits, merges or writes: all that is made, or nothing. */
  private async runDivide(id: string, kind: "split" | "merge" | "write", owner: string, deck: string | null, bytes: Uint8Array): Promise<void> {
    let told = 0;
    const progress = async (page: number, pages: number, slides: number) => {
      // Told a few times a second, and at the end.
      if (page < pages && page > 0 && Date.now() - told < 100) return true;
      told = Date.now();
      return updateJob(this.db, id, { state: "running", page, pages, slides });
    };
    const work = { db: this.db, owner, progress };
    try {
      const request: unknown = JSON.parse(new TextDecoder().decode(bytes));
      if (kind === "write") {
        const { result, report, file } = await runWrite(work, WriteRequest.parse(request), this.exporter, this.fonts);
        await keepOutput(this.db, id, file);
        await updateJob(this.db, id, { state: "done", result, report });
        return;
      }
      const { result, report } = kind === "split" ? await runSplit(work, deck ?? "", SplitRequest.parse(request)) : await runMerge(work, MergeRequest.parse(request));
      await updateJob(this.db, id, { state: "done", result, report, ...(kind === "merge" ? { deck: result.decks[0]?.id ?? null } : {}) });
    } catch (error) {
      if (error instanceof Cancelled) return;
      if (!(error instanceof Failure)) this.log(`job ${id}`, error);
      const where = error instanceof Failure && /^(parts|opening|closing|names)/.test(error.where) ? `${error.where}: ` : "";
      await updateJob(this.db, id, { state: "failed", message: error instanceof Failure ? `${where}${error.message}` : "This could not be done; nothing was made." });
    }
  }

  private async keepFiles(deck: string, assets: DeckHead["assets"], blobs: ReadonlyMap<string, Uint8Array>): Promise<void> {
    const types = new Map(Object.values(assets).map(({ sha256, mediaType }) => [sha256, mediaType]));
    await addBlobs(this.db, deck, [...blobs].map(([sha256, bytes]) => ({ sha256, mediaType: types.get(sha256) ?? "image/png", bytes })));
  }

  private async arrive(deck: string, owner: string, changes: SingleChange[], base?: number): Promise<void> {
    await applyChanges(this.db, deck, owner, { base: base ?? (await versionOf(this.db, deck)), changes: [{ id: nanoid(16), change: { kind: "batch", changes } }] }, { arrival: true });
  }

  private async run(id: string): Promise<void> {
    const here = this.waiting.get(id);
    this.waiting.delete(id);
    const { owner, deck, kind, name, state, bytes: stored, slides: before } = await loadJob(this.db, id, here === undefined);
    const bytes = here ?? stored;
    if (!bytes || (state !== "waiting" && state !== "running")) return;
    if (kind !== "read") return this.runDivide(id, kind, owner, deck, new Uint8Array(bytes));
    if (!deck) return;
    if (before > 0) {
      // The server ended while it read: what was made may have been changed since, and stays.
      await updateJob(this.db, id, { state: "failed", message: "Reading was interrupted; what was made until then is kept. Bring the file in again for the rest." });
      return;
    }
    const stop = new AbortController();
    this.stops.set(id, stop);
    const document = nanoid(10);
    let slides = 0;
    let kept = false;
    let typed: string | undefined;
    try {
      await updateJob(this.db, id, { state: "running" });
      for await (const progress of this.reader.read({ fonts: this.fonts, name, bytes: new Uint8Array(bytes), deck, document }, stop.signal)) {
        if (progress.kind === "head") {
          const { head, blobs, typed, of } = progress;
          if (of !== undefined) await updateJob(this.db, id, { pages: of });
          await this.keepFiles(deck, head.assets, blobs);
          kept = !typed;
          const { deck: now, version } = await loadDeck(this.db, deck);
          const changes = of === undefined ? headChanges(headOf(now), head) : wholeHeadChanges(headOf(now), head);
          if (changes.length) await this.arrive(deck, owner, changes, version);
        } else if (progress.kind === "text") {
          if (kept) {
            await writeDocument(this.db, deck, document, name, progress.text);
            // A change that changes nothing tells the pages that the text is there: no slides may follow that would.
            await this.arrive(deck, owner, []);
          } else typed = progress.text;
          await updateJob(this.db, id, { pages: progress.pages });
        } else if (progress.kind === "pictures") {
          await this.keepFiles(deck, progress.assets, progress.blobs);
          // What else was changed meanwhile stays.
          await this.arrive(deck, owner, Object.entries(progress.assets).map(([name, asset]) => ({ kind: "setAsset", name, asset })));
        } else if (progress.kind === "slides") {
          // Asked before as well: a cancel that was noted just now is not outrun by slides on their way.
          if (!(await updateJob(this.db, id, { page: progress.page }))) return;
          await appendSlides(this.db, deck, owner, progress.slides);
          slides += progress.slides.length;
          if (!(await updateJob(this.db, id, { slides }))) return;
        } else {
          if (typed !== undefined) await keepTypedText(this.db, deck, typed);
          await updateJob(this.db, id, { state: "done", report: { adapted: progress.adapted, left: progress.left } });
        }
      }
    } catch (error) {
      if (!(error instanceof Failure)) this.log(`job ${id}`, error);
      await updateJob(this.db, id, { state: "failed", message: error instanceof Failure ? error.message : isPresentation(name) ? "The presentation could not be read; nothing of it was taken." : "The document could not be read to its end; what was made is kept." });
      // A presentation is refused whole; an empty deck of a document is of no use to anybody.
      if (isPresentation(name)) await deleteDeck(this.db, deck);
      else if (slides === 0 && (await loadDeck(this.db, deck).catch(() => undefined))?.deck.slides.length === 0) await deleteDeck(this.db, deck);
    } finally {
      this.stops.delete(id);
    }
  }

  async close(): Promise<void> {
    for (const stop of this.stops.values()) stop.abort();
    await this.listener?.end().catch(() => undefined);
    await this.boss.stop({ graceful: true, timeout: 3000, wait: true }).catch(() => undefined);
    await this.reader.close();
  }
}
