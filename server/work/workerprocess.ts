import { readFileSync } from "node:fs";
import { type ChildProcess, fork } from "node:child_process";
import { Failure } from "@unitext/core/model";
import type { Bounds } from "./limits";
import type { Order, Reply } from "./tasks";

/** Whose order it is, and a signal that aborts it. */
export interface Asker {
  owner: string;
  signal?: AbortSignal | undefined;
}

export type Task = Exclude<Order, { kind: "warm" }>;

/** An order that waits for a process or has one. */
export interface Entry {
  order: Task;
  owner: string;
  bounds: Bounds;
  listener: (reply: Reply) => void;
  worker?: Worker;
}

/** How often the memory of busy processes is checked, in milliseconds. */
export const WATCH = 100;

/** A process is replaced after this many orders, so that memory held by packages does not grow without end. */
export const MOST_ORDERS = 40;
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

/** Returns what an order is about, for a sentence: the file that it names, else the task. */
function describe(order: Task): string {
  if (order.kind === "read") return order.work.name;
  const { name } = (order.input ?? {}) as { name?: unknown };
  return typeof name === "string" ? name : order.name;
}

/** One process and its current order. */
export class Worker {
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
              "This met a fault that ended its work; nothing was made. Save it again in the program that it comes from, and try again.",
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
