import { allMetadataChanges, metadataChanges } from "@unitext/core/diff";
import type { SingleChange } from "@unitext/core/edit";
import { isPresentation } from "@unitext/core/formats";
import { Failure, metadataOf } from "@unitext/core/model";
import { nanoid } from "nanoid";
import {
  addBlobs,
  appendSlides,
  applyChanges,
  changedByHand,
  type Database,
  deleteDeck,
  isConnectionError,
  keepTypedText,
  loadDeck,
  updateJob,
  versionOf,
  writeDocument,
} from "../store";
import type { ReadProgress, Work } from "../work";

interface ReadServices {
  db: Database;
  work: Work;
  /** The folder of the fonts. */
  fonts: string;
  log: (message: string, error: unknown) => void;
}

/** A job that reads a file into a deck. */
interface ReadJob {
  id: string;
  owner: string;
  deck: string;
  name: string;
}

/** The part of a file that has been stored so far. */
class Reading {
  private slides = 0;
  private isDocument = false;
  /** The text of a typed deck. */
  private typed: string | undefined;
  private readonly document = nanoid(10);

  constructor(
    private readonly services: ReadServices,
    private readonly job: ReadJob,
  ) {}

  private get db(): Database {
    return this.services.db;
  }

  private update(values: Parameters<typeof updateJob>[2]): Promise<boolean> {
    return updateJob(this.db, this.job.id, values);
  }

  /** Applies changes to the deck, on its newest version unless one is given. */
  private async change(changes: SingleChange[], base?: number): Promise<void> {
    const { deck, owner } = this.job;
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

  async run(bytes: Uint8Array, signal: AbortSignal): Promise<void> {
    const { owner, deck, name } = this.job;
    const { work, fonts } = this.services;
    try {
      const file = { fonts, name, bytes: new Uint8Array(bytes), deck, document: this.document };
      for await (const progress of work.read(file, { owner, signal })) if (!(await this.store(progress))) return;
    } catch (error) {
      if (signal.aborted) return;
      if (isConnectionError(error)) throw error;
      await this.fail(error);
    }
  }

  private async fail(error: unknown): Promise<void> {
    const { id, deck, name } = this.job;
    if (!(error instanceof Failure)) this.services.log(`job ${id}`, error);
    await this.update({
      state: "failed",
      message:
        error instanceof Failure
          ? error.message
          : isPresentation(name)
            ? "The presentation could not be read; nothing of it was taken."
            : "The document could not be read to its end; what was made is kept.",
    });
    // A presentation is refused whole; an empty deck of a document is of no use to anybody.
    const empty = async () => (await loadDeck(this.db, deck).catch(() => undefined))?.deck.slides.length === 0;
    if (isPresentation(name) || (this.slides === 0 && (await empty()))) await deleteDeck(this.db, deck);
  }

  /**
   * Deletes what an interrupted job has read, so that it can start again. Returns false when somebody has edited it
   * since: then it stays, and the job ends.
   */
  async startAgain(): Promise<boolean> {
    const { deck } = this.job;
    if (await changedByHand(this.db, deck)) {
      await this.update({
        state: "failed",
        message:
          "Reading was interrupted; what was made until then is kept, as it has been changed since. Bring the file in again for the rest.",
      });
      return false;
    }
    const { deck: now, version } = await loadDeck(this.db, deck);
    const deletions = now.slides.toReversed().map(({ id }): SingleChange => ({ kind: "deleteSlide", slide: id }));
    if (deletions.length) await this.change(deletions, version);
    return this.update({ slides: 0, page: 0 });
  }

  /** Stores what was read. Returns whether the job continues. */
  private async store(progress: ReadProgress): Promise<boolean> {
    const { owner, deck, name } = this.job;
    switch (progress.kind) {
      case "head":
        await this.storeHead(progress);
        return true;
      case "text":
        if (this.isDocument) {
          await writeDocument(this.db, deck, this.document, name, progress.text);
          // An empty change tells the pages that the text is there; no slides may follow that would.
          await this.change([]);
        } else this.typed = progress.text;
        await this.update({ pages: progress.pages });
        return true;
      case "pictures":
        await addBlobs(this.db, deck, progress.blobs);
        // Other changes made meanwhile stay.
        await this.change(
          Object.entries(progress.assets).map(([source, asset]) => ({ kind: "setAsset", name: source, asset })),
        );
        return true;
      case "slides":
        // Also checked before: slides on their way do not overtake a cancel.
        if (!(await this.update({ page: progress.page }))) return false;
        await appendSlides(this.db, deck, owner, progress.slides);
        this.slides += progress.slides.length;
        return this.update({ slides: this.slides });
      case "end":
        if (this.typed !== undefined) await keepTypedText(this.db, deck, this.typed);
        await this.update({ state: "done", report: { adapted: progress.adapted, left: progress.left } });
        return true;
    }
  }

  private async storeHead({ metadata, blobs, typed, of }: ReadProgress & { kind: "head" }): Promise<void> {
    const { deck } = this.job;
    if (of !== undefined) await this.update({ pages: of });
    await addBlobs(this.db, deck, blobs);
    this.isDocument = !typed;
    const { deck: now, version } = await loadDeck(this.db, deck);
    const changes =
      of === undefined ? metadataChanges(metadataOf(now), metadata) : allMetadataChanges(metadataOf(now), metadata);
    if (changes.length) await this.change(changes, version);
  }
}

/**
 * Reads a file into the deck of its job. `again` says that an earlier run was interrupted. Throws only
 * when the connection to the database is lost; what is wrong with the file is kept with the job.
 */
export async function runRead(
  services: ReadServices,
  job: ReadJob,
  { again, bytes, signal }: { again: boolean; bytes: Uint8Array; signal: AbortSignal },
): Promise<void> {
  const reading = new Reading(services, job);
  // The job's count of slides may be too low: slides are stored before they are counted.
  if (again && !(await reading.startAgain())) return;
  await reading.run(bytes, signal);
}
