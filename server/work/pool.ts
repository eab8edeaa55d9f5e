import { type ChildProcess, fork } from "node:child_process";
import { readFileSync } from "node:fs";
import { Failure } from "@unitext/core/model";
import { type Bounds, boundsOf, type Lane, MOST_WAITING, SLOTS } from "./limits";
import type { ReadProgress, ReadWork } from "./read";
import { carryOut, type Order, type Reply, type TaskInput, type TaskName, type TaskOutput } from "./tasks";

/** Whose order it is, and a signal that aborts it. */
export interface Asker {
  owner: string;
  signal?: AbortSignal | undefined;
}

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

type Task = Exclude<Order, { kind: "warm" }>;

/** An order that waits for a process or has one. */
interface Entry {
  order: Task;
  owner: string;
  bounds: Bounds;
  listener: (reply: Reply) => void;
  worker?: Worker;
}

/** How often the memory of busy processes is checked, in milliseconds. */
const WATCH = 100;
/** A process is replaced after this many orders, so that memory held by packages does not grow without end. */
const MOST_ORDERS = 40;
/** How many idle processes are kept warm. */
const IDLE = 2;
const PAGE_SIZE = 4096;

/**
 * Returns the bytes of memory that a process uses; 0 where the system does not say (proc(5), statm: resident pages).
 */
function memoryOf(pid: number | undefined): number {
  try {
    return Number(readFileSync(`/proc/${pid}/statm`, "latin1").split(" ")[1]) * PAGE_SIZE;
  } catch {
    return 0;
  }
}

/** Returns the bytes of the files and texts in a value that is sent to or from a process. */
export function sizeOf(value: unknown): number {
  if (value instanceof Uint8Array) return value.byteLength;
  if (typeof value === "string") return value.length;
  if (value instanceof Map) return [...value.values()].reduce<number>((sum, one) => sum + sizeOf(one), 0);
  if (typeof value !== "object" || value === null) return 0;
  let sum = 0;
  for (const one of Object.values(value))
    if (one instanceof Uint8Array || one instanceof Map || typeof one === "string") sum += sizeOf(one);
  return sum;
}

const describe = (order: Task) =>
  order.kind === "read"
    ? order.work.name
    : typeof (order.input as { name?: unknown }).name === "string"
      ? (order.input as { name: string }).name
      : order.name;

/** One process and its current order. */
class Worker {
  readonly child: ChildProcess;
  entry: Entry | undefined;
  done = 0;
  private timer: NodeJS.Timeout | undefined;
  /**
   * Whether this pool ended it, and why, as a sentence: its last reply may still arrive, but it gets no further order.
   */
  private stopped = false;
  private reason: Failure | undefined;

  constructor(
    program: string,
    heap: number,
    private readonly released: (worker: Worker, usable: boolean) => void,
  ) {
    this.child = fork(program, [], {
      serialization: "advanced",
      execArgv: [`--max-old-space-size=${heap}`],
      stdio: ["ignore", "ignore", "ignore", "ipc"],
      env: { NODE_ENV: "production", PATH: process.env.PATH },
    });
    this.child.on("message", (reply: Reply) => this.receive(reply));
    this.child.on("error", () => this.ended(null, null));
    this.child.on("exit", (code, signal) => this.ended(code, signal));
    // An idle process does not keep the server from ending.
    this.child.unref();
    this.child.channel?.unref();
  }

  /** Prepares it for the first file. One that is needed at once skips this, which takes longer than most files. */
  warm(fonts: string): this {
    this.send({ kind: "warm", fonts });
    return this;
  }

  private send(order: Order): void {
    this.child.send(order, () => undefined);
  }

  take(entry: Entry): void {
    this.entry = entry;
    entry.worker = this;
    const { seconds } = entry.bounds;
    this.timer = setTimeout(
      () =>
        this.stop(
          new Failure(
            "too-large",
            describe(entry.order),
            `This needs more than ${seconds} seconds, the most that one file may take. Divide it, or leave out what is largest in it.`,
          ),
        ),
      seconds * 1000,
    );
    this.timer.unref();
    this.child.ref();
    this.child.channel?.ref();
    this.send(entry.order);
  }

  /** Ends the process when it uses more memory than its order may. */
  watch(): void {
    if (!this.entry) return;
    const { memory } = this.entry.bounds;
    if (memoryOf(this.child.pid) > memory) this.stop(this.tooMuchMemory(this.entry));
  }

  private tooMuchMemory({ order, bounds }: Entry): Failure {
    return new Failure(
      "too-large",
      describe(order),
      `This needs more than ${Math.round(bounds.memory / 1024 / 1024)} MB of memory, the most that one file may take. Divide it, or leave out what is largest in it.`,
    );
  }

  stop(reason?: Failure): void {
    this.stopped = true;
    this.reason ??= reason;
    this.child.kill("SIGKILL");
  }

  private receive(reply: Reply): void {
    const { entry } = this;
    if (reply.kind === "ready" || !entry) return;
    if (reply.kind === "done" && sizeOf(reply.result) > entry.bounds.output) {
      this.finish(
        {
          kind: "failed",
          message: "output",
          failure: {
            code: "too-large",
            where: describe(entry.order),
            message: `What this makes is larger than ${Math.round(entry.bounds.output / 1024 / 1024)} MB, the most that is kept. Divide it.`,
          },
        },
        true,
      );
    } else if (reply.kind === "progress") entry.listener(reply);
    else this.finish(reply, true);
  }

  private ended(code: number | null, signal: NodeJS.Signals | null): void {
    clearTimeout(this.timer);
    const { entry } = this;
    // An engine that has used up its heap aborts, and the kernel kills; everything else is a fault in the code that
    // reads or writes.
    const memory = code === 134 || signal === "SIGABRT" || signal === "SIGKILL";
    const reason =
      this.reason ??
      (entry &&
        (memory
          ? this.tooMuchMemory(entry)
          : new Failure(
              "not-readable",
              describe(entry.order),
              "This met a fault that ended its work; nothing was made. Save it anew in the program that it comes from, and try again.",
            )));
    if (entry)
      this.finish(
        {
          kind: "failed",
          message: "ended",
          ...(reason ? { failure: { code: reason.code, where: reason.where, message: reason.message } } : {}),
        },
        false,
      );
    else this.released(this, false);
  }

  private finish(reply: Reply, usable: boolean): void {
    clearTimeout(this.timer);
    const { entry } = this;
    this.entry = undefined;
    this.done += 1;
    this.child.unref();
    this.child.channel?.unref();
    this.released(this, usable && !this.stopped && this.done < MOST_ORDERS);
    entry?.listener(reply);
  }
}

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
