import { headChanges } from "@unitext/core/generate";
import { emptyDeck, Failure, headOf } from "@unitext/core/model";
import { nanoid } from "nanoid";
import pg from "pg";
import PgBoss from "pg-boss";
import { addBlobs, appendSlides, applyChanges, createDeck, createJob, type Database, deleteDeck, JOB_CHANNEL, keepTypedText, loadDeck, loadJob, updateJob, writeDocument } from "../store";
import type { Reader } from "./reader";

const QUEUE = "read";
/** How many documents one server reads at the same time. */
const AT_ONCE = 2;

/**
 * Reads documents into decks as jobs of a queue in the database: a server that ends leaves them to the next, several
 * share them. What is made is there at once; a job that is cancelled leaves it so.
 */
export class Jobs {
  private readonly boss: PgBoss;
  private readonly stops = new Map<string, AbortController>();
  private workers: string[] = [];
  private listener: pg.Client | undefined;

  constructor(
    private readonly db: Database,
    private readonly url: string,
    private readonly reader: Reader,
    private readonly fonts: string,
    private readonly log: (message: string, error: unknown) => void = () => undefined,
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
    await createDeck(this.db, owner, emptyDeck(deck, name.replace(/\.[^.]*$/, "") || "Untitled"), new Map(), null);
    await createJob(this.db, { id: job, owner, deck, kind: "read", name }, bytes);
    await this.resume(job);
    return { deck, job };
  }

  /** Puts a job that is noted into the queue again, as the queue itself does when a server has ended. */
  async resume(job: string): Promise<void> {
    await this.boss.send(QUEUE, { job });
    for (const worker of this.workers) this.boss.notifyWorker(worker);
  }

  private async run(id: string): Promise<void> {
    const { owner, deck, name, state, bytes, slides: before } = await loadJob(this.db, id);
    if (!deck || !bytes || (state !== "waiting" && state !== "running")) return;
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
          const { head, blobs, typed } = progress;
          const types = new Map(Object.values(head.assets).map(({ sha256, mediaType }) => [sha256, mediaType]));
          await addBlobs(this.db, deck, [...blobs].map(([sha256, file]) => ({ sha256, mediaType: types.get(sha256) ?? "image/png", bytes: file })));
          kept = !typed;
          const { deck: now, version } = await loadDeck(this.db, deck);
          const changes = headChanges(headOf(now), head);
          if (changes.length) await applyChanges(this.db, deck, owner, { base: version, changes: [{ id: nanoid(16), change: { kind: "batch", changes } }] });
        } else if (progress.kind === "text") {
          if (kept) await writeDocument(this.db, deck, document, name, progress.text);
          else typed = progress.text;
          await updateJob(this.db, id, { pages: progress.pages });
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
      await updateJob(this.db, id, { state: "failed", message: error instanceof Failure ? error.message : "The document could not be read to its end; what was made is kept." });
      // An empty deck of a file that was refused is of no use to anybody.
      if (slides === 0 && (await loadDeck(this.db, deck).catch(() => undefined))?.deck.slides.length === 0) await deleteDeck(this.db, deck);
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
