import { must } from "@unitext/core/model";
import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test } from "@playwright/test";

const root = join(import.meta.dirname, "..");

/** Starts the product with its own command; resolves with its address once it is printed. */
function start(data: string): Promise<{ process: ChildProcess; address: string }> {
  const child = spawn(process.execPath, ["scripts/start.mjs"], {
    cwd: root,
    env: { ...process.env, UNITEXT_DATA: data, UNITEXT_PORT: "0" },
    stdio: ["ignore", "pipe", "inherit"],
  });
  return new Promise((resolve, reject) => {
    let said = "";
    child.stdout.on("data", (chunk) => {
      said += chunk;
      const address = /http:\/\/[\d.:]+/.exec(said)?.[0];
      if (address) resolve({ process: child, address });
    });
    child.once("exit", () => reject(new Error(`the start ended: ${said}`)));
  });
}

const parents = (): Map<number, number> =>
  new Map(
    execFileSync("ps", ["-eo", "pid=,ppid="], { encoding: "utf8" })
      .trim()
      .split("\n")
      .map((row) => row.trim().split(/\s+/).map(Number) as [number, number]),
  );
function below(pid: number): number[] {
  const all = parents();
  const found = [pid];
  for (const parent of found) for (const [child, above] of all) if (above === parent) found.push(child);
  return found.slice(1);
}
const kill = (pid: number) => {
  try {
    process.kill(pid, "SIGKILL");
  } catch {
    // It has ended by itself meanwhile.
  }
};

test("kill -9 of server and database in the middle of 500 edits keeps every acknowledged one", async () => {
  test.setTimeout(300_000);
  const data = mkdtempSync(join(tmpdir(), "unitext-survive-"));
  execFileSync("chmod", ["755", data]);
  let running = await start(data);
  let cookie = "";
  const api = async (path: string, body?: unknown) => {
    const response = await fetch(
      `${running.address}/api${path}`,
      body === undefined
        ? { headers: { cookie } }
        : {
            method: "POST",
            headers: { "content-type": "application/json", origin: running.address, cookie },
            body: JSON.stringify(body),
          },
    );
    cookie ||= response.headers.get("set-cookie")?.split(";")[0] ?? "";
    return response;
  };
  try {
    const id = "quarterly-monitoring";
    const { deck, version } = await (await api(`/decks/${id}`)).json();
    let base = version;
    const acknowledged: number[] = [];
    const edit = async (nth: number) => {
      const slide = deck.slides[nth % deck.slides.length].id;
      const response = await api(`/decks/${id}/changes`, {
        base,
        changes: [
          {
            id: `edit-${nth}`,
            change: { kind: "setNotes", slide, notes: [{ kind: "plain", level: 0, runs: [{ text: `note ${nth}` }] }] },
          },
        ],
      });
      if (!response.ok) throw new Error(String(response.status));
      base = (await response.json()).version;
      acknowledged.push(nth);
      // In the middle of one of the next, however fast the machine is.
      if (acknowledged.length === 40) setTimeout(die, 7);
    };
    const postmaster = Number(readFileSync(join(data, "postgres/postmaster.pid"), "utf8").split("\n")[0]);
    let dead = false;
    const die = () => {
      dead = true;
      for (const pid of [
        must(running.process.pid),
        ...below(must(running.process.pid)),
        ...below(postmaster),
        postmaster,
      ])
        kill(pid);
    };
    for (let nth = 0; nth < 500; nth++) {
      try {
        await edit(nth);
      } catch {
        break;
      }
    }
    expect(dead).toBe(true);
    expect(acknowledged.length).toBeGreaterThan(10);
    expect(acknowledged.length).toBeLessThan(500);

    running = await start(data);
    const after = await (await api(`/decks/${id}`)).json();
    expect(after.version).toBeGreaterThanOrEqual(base);
    const { changes } = await (await api(`/decks/${id}/changes?since=${version}`)).json();
    const found = new Set(changes.map((item: { id: string }) => item.id));
    expect(acknowledged.filter((nth) => !found.has(`edit-${nth}`))).toEqual([]);
    for (const [at, slide] of after.deck.slides.entries()) {
      const last = Math.max(...acknowledged.filter((nth) => nth % deck.slides.length === at));
      expect(Number(/\d+/.exec(JSON.stringify(slide.notes.at(-1).runs))?.[0])).toBeGreaterThanOrEqual(last);
    }
    const ended = new Promise((resolve) => running.process.once("exit", resolve));
    running.process.kill("SIGINT");
    expect(await ended).toBe(0);
    await expect(fetch(running.address)).rejects.toThrow();
  } finally {
    kill(must(running.process.pid));
    rmSync(data, { recursive: true, force: true });
  }
});
