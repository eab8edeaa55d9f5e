// One Unitext per data folder: who holds it, and how its server and database are kept running.
import { closeSync, openSync, readFileSync, rmSync, writeFileSync, writeSync } from "node:fs";
import { join } from "node:path";

const lockFile = (data) => join(data, "unitext.lock");

function alive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === "EPERM";
  }
}

/** Returns the process and port that hold a data folder; undefined when nobody does. */
export function holderOf(data) {
  try {
    const { pid, port } = JSON.parse(readFileSync(lockFile(data), "utf8"));
    return alive(pid) ? { pid, port } : undefined;
  } catch {
    return undefined;
  }
}

/** Takes a data folder for this process. Returns a function that releases it; undefined when somebody else holds it. */
export function hold(data) {
  for (let tries = 0; tries < 2; tries++) {
    try {
      const file = openSync(lockFile(data), "wx");
      writeSync(file, JSON.stringify({ pid: process.pid, port: 0 }));
      closeSync(file);
      return {
        at: (port) => writeFileSync(lockFile(data), JSON.stringify({ pid: process.pid, port })),
        release: () => rmSync(lockFile(data), { force: true }),
      };
    } catch (error) {
      if (error.code !== "EEXIST" || holderOf(data)) return undefined;
      // The process that wrote it has ended without removing it.
      rmSync(lockFile(data), { force: true });
    }
  }
  return undefined;
}

/**
 * Returns the seconds to wait before the next start: doubled with every run shorter than a minute, up to half a minute.
 */
export class BackOff {
  #wait = 0.5;
  #since = Date.now();

  started() {
    this.#since = Date.now();
  }

  next() {
    if (Date.now() - this.#since > 60_000) this.#wait = 0.5;
    const wait = this.#wait;
    this.#wait = Math.min(30, this.#wait * 2);
    return wait;
  }
}
