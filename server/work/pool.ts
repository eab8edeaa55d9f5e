import { Failure } from "@unitext/core/model";
import { boundsOf, type Lane, MOST_WAITING, SLOTS } from "./limits";
import type { ReadProgress, ReadWork } from "./read";
import { carryOut, type Reply, type TaskInput, type TaskName, type TaskOutput } from "./tasks";
import { type Asker, type Entry, sizeOf, type Task, WATCH, Worker } from "./workerprocess";

/** Does work outside the server's own thread. */
export interface Work {
  /**
   * Runs a task. Throws the Failure by which it refuses its input, or `too-large` when it exceeds a limit; an aborted
   * task throws the reason of its signal.
   */
  run<T extends TaskName>(task: T, input: TaskInput<T>, asker: Asker): Promise<TaskOutput<T>>;
  /**
   * Reads a document or presentation and yields its progress. Throws as `run` does; ends silently when it is aborted.
   */
  read(work: ReadWork, asker: Asker): AsyncIterable<ReadProgress>;
  close(): Promise<void>;
}

/** Does the work in this thread: for tests, and where the server runs from source. */
export const inlineWork: Work = {
  run: async (name, input, { signal }) => {
    signal?.throwIfAborted();
    return (await carryOut({ kind: "task", name, input }, () => undefined)) as never;
  },
  async *read(work, { signal }) {
    const { readFile } = await import("./read");
    for await (const progress of readFile(work)) {
      if (signal?.aborted) return;
      yield progress;
      // Others get their turn between batches.
      await new Promise((resolve) => setImmediate(resolve));
    }
  },
  close: async () => undefined,
};

/** How many idle processes are kept warm. */
const IDLE = 2;

/**
 * Worker processes in two lanes. In each, the user with the fewest running orders comes next, so that nobody's files
 * hold up another's.
 */
export class ProcessPool implements Work {
  private readonly waiting: Entry[] = [];
  private readonly workers = new Set<Worker>();
  private readonly idle: Worker[] = [];
  private readonly watcher: NodeJS.Timeout;
  private closed = false;

  /** @param program the worker's program @param fonts the folder of the shipped fonts @param heap megabytes that a worker's JavaScript heap may grow to */
  constructor(
    private readonly program: string,
    private readonly fonts: string,
    private readonly heap = 1280,
  ) {
    this.watcher = setInterval(() => {
      for (const worker of this.workers) worker.watch();
    }, WATCH);
    this.watcher.unref();
    this.refill();
  }

  async run<T extends TaskName>(name: T, input: TaskInput<T>, asker: Asker): Promise<TaskOutput<T>> {
    return new Promise((resolve, reject) => {
      this.enter({ kind: "task", name, input }, asker, reject, (reply) => {
        if (reply.kind === "done") resolve(reply.result as TaskOutput<T>);
        else if (reply.kind === "failed") reject(errorOf(reply));
      });
    });
  }

  async *read(work: ReadWork, asker: Asker): AsyncGenerator<ReadProgress> {
    const queue: Reply[] = [];
    let wake: () => void = () => undefined;
    const push = (reply: Reply) => {
      queue.push(reply);
      wake();
    };
    const leave = this.enter({ kind: "read", work }, asker, () => push({ kind: "done" }), push);
    try {
      for (;;) {
        const reply = queue.shift();
        if (!reply) {
          await new Promise<void>((resolve) => {
            wake = resolve;
          });
          continue;
        }
        if (asker.signal?.aborted) return;
        if (reply.kind === "progress") yield reply.progress;
        else if (reply.kind === "failed") throw errorOf(reply);
        else return;
      }
    } finally {
      leave();
    }
  }

  /** Queues an order in its lane. Returns a function that removes it and ends its process. */
  private enter(
    order: Task,
    { owner, signal }: Asker,
    aborted: (reason: unknown) => void,
    listener: (reply: Reply) => void,
  ): () => void {
    signal?.throwIfAborted();
    const bounds = boundsOf(order, sizeOf(order.kind === "task" ? order.input : order.work));
    if (this.waiting.filter((other) => other.owner === owner).length >= MOST_WAITING)
      throw new Failure(
        "too-many",
        "requests",
        "Too much of yours is waiting already. Wait until some of it is done, then try again.",
      );
    let over = false;
    const entry: Entry = {
      order,
      owner,
      bounds,
      listener: (reply) => {
        if (over) return;
        if (reply.kind !== "progress") end();
        listener(reply);
      },
    };
    const end = () => {
      over = true;
      signal?.removeEventListener("abort", abort);
    };
    const leave = () => {
      if (over) return;
      end();
      const at = this.waiting.indexOf(entry);
      if (at >= 0) this.waiting.splice(at, 1);
      else entry.worker?.stop();
    };
    const abort = () => {
      leave();
      aborted(signal?.reason);
    };
    signal?.addEventListener("abort", abort, { once: true });
    this.waiting.push(entry);
    this.next();
    return leave;
  }

  private atWork(lane: Lane, owner?: string): number {
    let count = 0;
    for (const { entry } of this.workers)
      if (entry?.bounds.lane === lane && (owner === undefined || entry.owner === owner)) count += 1;
    return count;
  }

  /** Gives every free slot to the next order in its lane. */
  private next(): void {
    if (this.closed) return;
    for (const lane of ["quick", "long"] as const) {
      while (this.atWork(lane) < SLOTS[lane].all) {
        let chosen: Entry | undefined;
        let fewest: number = SLOTS[lane].each;
        for (const entry of this.waiting) {
          const busy = entry.bounds.lane === lane ? this.atWork(lane, entry.owner) : fewest;
          if (busy < fewest) [chosen, fewest] = [entry, busy];
        }
        if (!chosen) break;
        this.waiting.splice(this.waiting.indexOf(chosen), 1);
        (this.idle.pop() ?? this.fresh()).take(chosen);
        this.refill();
      }
    }
  }

  private fresh(): Worker {
    const worker = new Worker(this.program, this.heap, (ended, usable) => this.release(ended, usable));
    this.workers.add(worker);
    return worker;
  }

  private release(worker: Worker, usable: boolean): void {
    if (usable && !this.closed && this.idle.length < IDLE) this.idle.push(worker);
    else {
      this.workers.delete(worker);
      const at = this.idle.indexOf(worker);
      if (at >= 0) this.idle.splice(at, 1);
      if (worker.child.exitCode === null && worker.child.signalCode === null) worker.stop();
    }
    // A process that cannot start would be created again and again: the next one is created when there is work.
    if (worker.done > 0) this.refill();
    this.next();
  }

  /** Keeps one process ready, so that the next file does not wait for one to start. */
  private refill(): void {
    if (!this.closed && !this.idle.length) this.idle.push(this.fresh().warm(this.fonts));
  }

  async close(): Promise<void> {
    this.closed = true;
    clearInterval(this.watcher);
    await Promise.all(
      [...this.workers].map(
        (worker) =>
          new Promise<void>((resolve) => {
            if (worker.child.exitCode !== null || worker.child.signalCode !== null) return resolve();
            worker.child.once("exit", () => resolve());
            worker.stop();
          }),
      ),
    );
  }
}

function errorOf({ failure, message }: Extract<Reply, { kind: "failed" }>): Error {
  return failure ? new Failure(failure.code, failure.where, failure.message) : new Error(message);
}
