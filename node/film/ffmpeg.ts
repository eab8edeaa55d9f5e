import { spawn } from "node:child_process";
import { writeFileSync } from "node:fs";
import { constants, setPriority } from "node:os";
import { Failure } from "@unitext/core/model";

const INSTALL = "ffmpeg is not installed. Install it with: apt-get install ffmpeg";

/** How long one run may take at most, in seconds. */
const MOST_SECONDS = 3600;

/** What ffmpeg reads from, and the signal that ends it. */
interface RunOptions {
  /** The folder in which it runs. */
  folder?: string;
  input?: Uint8Array;
  /** How long it may run, in seconds. */
  limit?: number;
  signal?: AbortSignal | undefined;
}

/**
 * Lets a process run when nothing else has to: a film is long work, and whoever waits for an answer comes first. Linux
 * shares processors between sessions before it looks at the processes in them (sched(7), autogroup), so the session of the
 * process yields too, which has to be its own.
 */
export function yieldToOthers(pid: number): void {
  try {
    setPriority(pid, constants.priority.PRIORITY_LOW);
    writeFileSync(`/proc/${pid}/autogroup`, String(constants.priority.PRIORITY_LOW));
  } catch {
    // It has ended already, or the system has no such groups.
  }
}

/**
 * Runs ffmpeg and returns what it writes to its standard output. Throws a Failure `unavailable` when it is not installed,
 * is ended, or fails; throws the reason of the signal when it is aborted.
 */
export function ffmpeg(
  args: readonly string[],
  { folder, input, signal, limit = MOST_SECONDS }: RunOptions = {},
): Promise<Uint8Array> {
  return new Promise((resolve, reject) => {
    signal?.throwIfAborted();
    const child = spawn("ffmpeg", ["-hide_banner", "-loglevel", "error", ...(input ? [] : ["-nostdin"]), ...args], {
      cwd: folder,
      stdio: [input ? "pipe" : "ignore", "pipe", "pipe"],
      env: process.env,
      // A session of its own, which yields to others.
      detached: true,
    });
    if (child.pid !== undefined) yieldToOthers(child.pid);
    const refuse = (why: string) => reject(new Failure("unavailable", "ffmpeg", why));
    const end = () => child.kill("SIGKILL");
    const timer = setTimeout(end, limit * 1000);
    signal?.addEventListener("abort", end, { once: true });
    const [out, said]: [Buffer[], Buffer[]] = [[], []];
    child.stdout?.on("data", (chunk: Buffer) => out.push(chunk));
    child.stderr?.on("data", (chunk: Buffer) => said.push(chunk));
    child.stdin?.on("error", () => undefined);
    child.once("error", (error: NodeJS.ErrnoException) => {
      clearTimeout(timer);
      signal?.removeEventListener("abort", end);
      refuse(error.code === "ENOENT" ? INSTALL : "ffmpeg could not be started.");
    });
    child.once("close", (code, killed) => {
      clearTimeout(timer);
      signal?.removeEventListener("abort", end);
      if (signal?.aborted) return reject(signal.reason);
      if (code === 0) return resolve(new Uint8Array(Buffer.concat(out)));
      if (killed) return refuse("ffmpeg was ended before it was done.");
      const last = Buffer.concat(said).toString("utf8").trim().split("\n").at(-1) ?? "";
      refuse(`ffmpeg failed: ${last.slice(0, 300)}`);
    });
    child.stdin?.end(input);
  });
}

/** Returns the version of ffmpeg on this machine; undefined without it. */
export async function ffmpegVersion(): Promise<string | undefined> {
  try {
    const said = Buffer.from(await ffmpeg(["-version"])).toString("utf8");
    return /^ffmpeg version (\S+)/.exec(said)?.[1] ?? "unknown";
  } catch {
    return undefined;
  }
}
