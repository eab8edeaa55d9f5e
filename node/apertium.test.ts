import type { Piece } from "@unitext/core/translate";
import { execFileSync } from "node:child_process";
import { chmodSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { translateLocally } from "./apertium";

const pair = { from: "en", to: "es" };

describe("apertium as Debian ships it", () => {
  // Sentences of our own; their translations are what the command `apertium eng-spa` prints for each of them.
  const sentences = [
    "The tide rises twice a day.",
    "The dune is higher than the road.",
    "We measured the water level every hour.",
    "The storm came from the north.",
    "Nobody was on the beach.",
    "The students draw the line of the wrack.",
    "The gauge stands at the end of the quay.",
    "Plants hold the sand.",
    "In winter the sea takes the sand away.",
    "Do not walk on the dune.",
  ];

  it("gives for ten sentences at once what the command gives for each alone", async () => {
    const alone = sentences.map((sentence) =>
      execFileSync("sh", ["-c", "cat | apertium -u eng-spa"], { input: sentence, encoding: "utf8" }).trim(),
    );
    const made = await translateLocally(
      sentences.map((sentence) => [sentence]),
      pair,
    );
    expect(made.map((pieces) => pieces?.join(""))).toEqual(alone);
  });

  it("keeps the placeholders of a sentence", async () => {
    const source: Piece[] = ["The ", { code: 1, at: "open" }, "tide", { code: 1, at: "close" }, " rises"];
    const [made] = await translateLocally([source], pair);
    expect(made?.filter((piece) => typeof piece !== "string")).toEqual([
      { code: 1, at: "open" },
      { code: 1, at: "close" },
    ]);
  });
});

describe("an apertium that does not do its work", () => {
  const folder = mkdtempSync(join(tmpdir(), "unitext-apertium-"));
  const path = process.env.PATH;
  afterEach(() => {
    process.env.PATH = path;
  });
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  /** Puts a program in the place of apertium that knows the pair and then runs other commands. */
  function instead(commands: string): void {
    const program = join(folder, "apertium");
    writeFileSync(program, `#!/bin/sh\nif [ "$1" = -l ]; then echo eng-spa; exit 0; fi\n${commands}\n`);
    chmodSync(program, 0o755);
    process.env.PATH = `${folder}:${path}`;
  }

  it("is ended with all that it started when it hangs", async () => {
    const mark = `6${process.pid}`;
    instead(`cat > /dev/null; sleep ${mark} | cat`);
    await expect(translateLocally([["Tide"]], { ...pair, limit: 400 })).rejects.toThrow(/did not translate/);
    const processes = execFileSync("ps", ["-eo", "args"], { encoding: "utf8" });
    expect(processes).not.toContain(`sleep ${mark}`);
  });

  it("is reported when it crashes", async () => {
    instead("cat > /dev/null; kill -SEGV $$");
    await expect(translateLocally([["Tide"]], pair)).rejects.toThrow(/did not translate/);
  });

  it.each([
    ["answers nonsense", "cat > /dev/null; echo '^%%$ [<o9>]'"],
    ["answers nothing", "cat > /dev/null"],
    ["drops placeholders", "sed 's/\\[<[ocs][0-9]*>\\]//g'"],
  ])("has no proposal when it %s", async (_, commands) => {
    instead(commands);
    const source: Piece[] = [{ code: 1, at: "open" }, "Tide", { code: 1, at: "close" }, " at noon"];
    expect(await translateLocally([source, source], pair)).toEqual([undefined, undefined]);
  });
});
