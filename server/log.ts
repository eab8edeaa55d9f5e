import { renameSync, statSync } from "node:fs";
import pino, { type Logger } from "pino";

/** A log file of this many bytes is rotated, and this many old ones are kept. */
const LARGEST = 10 * 1024 * 1024;
const KEPT = 5;
/** The most bytes that wait for a slow or full disk; further lines are dropped, and the service goes on. */
const WAITING = 1024 * 1024;
const LONGEST = 500;

interface Described {
  type: string;
  code?: string;
  message: string;
  stack?: string;
}

/** Describes an error without content: drivers put the values of a query into their messages. */
export function describeError(error: unknown): Described {
  if (!(error instanceof Error)) return { type: typeof error, message: String(error).slice(0, LONGEST) };
  let innermost: Error = error;
  while (innermost.cause instanceof Error) innermost = innermost.cause;
  const { code } = innermost as { code?: unknown };
  // The stack starts with the message, which may have content: only the places are kept.
  const places = (error.stack ?? "")
    .split("\n")
    .filter((line) => /^\s+at /.test(line))
    .slice(0, 12)
    .join("\n");
  const message = /^Failed query/.test(innermost.message) ? "A query failed." : innermost.message;
  return {
    type: innermost.name,
    ...(typeof code === "string" ? { code } : {}),
    message: message.slice(0, LONGEST),
    stack: places,
  };
}

/** Rotates a log file when it is large: `server.log` becomes `server.log.1`, and so on. Returns whether it did. */
export function rotate(file: string, largest = LARGEST): boolean {
  try {
    if (statSync(file).size < largest) return false;
    for (let nth = KEPT - 1; nth >= 0; nth--) {
      try {
        renameSync(nth ? `${file}.${nth}` : file, `${file}.${nth + 1}`);
      } catch {
        // There are not that many yet.
      }
    }
    return true;
  } catch {
    return false;
  }
}

/** Opens a log that never blocks the service: written in the background, bounded, rotated, without content. */
export function openLog({ level, file }: { level: string; file?: string }): Logger {
  const options = { level, base: null, serializers: { err: describeError } };
  if (!file) return pino(options);
  const destination = pino.destination({ dest: file, sync: false, mkdir: true, maxLength: WAITING });
  // On a full disk, lines wait and are dropped when there are too many.
  destination.on("error", () => undefined);
  setInterval(() => {
    if (rotate(file)) destination.reopen();
  }, 30_000).unref();
  return pino(options, destination);
}
