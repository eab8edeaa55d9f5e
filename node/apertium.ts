import { spawn } from "node:child_process";
import { joinPieces, type Piece, proposalOf } from "@unitext/core/translate";
import { Failure } from "@unitext/core/model";
import { languageCode } from "./languagecodes";

/** Returns the code by which Debian's apertium names a language in its pairs. */
const codeOf = (language: string) => languageCode(language) ?? language.slice(0, 3).toLowerCase();

/** How long one run may take, in milliseconds. */
const LIMIT = 60_000;

interface RunOptions {
  signal?: AbortSignal | undefined;
  /** How long the run may take, in milliseconds. */
  limit?: number | undefined;
}

/** Runs apertium. Rejects with a Failure `unavailable` if it is not installed, takes too long or fails. */
function apertium(args: readonly string[], input: string, { signal, limit = LIMIT }: RunOptions = {}): Promise<string> {
  return new Promise((resolve, reject) => {
    // Its scripts open /dev/stdin, which is a socket here and a pipe behind cat.
    const child = spawn(
      "sh",
      ["-c", 'command -v apertium > /dev/null || exit 127; cat | apertium "$@"', "sh", ...args],
      {
        stdio: ["pipe", "pipe", "ignore"],
        env: process.env,
        // A group of its own: apertium is a pipeline of programs, which are ended together.
        detached: true,
      },
    );
    const end = () => {
      try {
        if (child.pid !== undefined) process.kill(-child.pid, "SIGKILL");
      } catch {
        // It has ended by itself.
      }
    };
    const timer = setTimeout(end, limit);
    signal?.addEventListener("abort", end, { once: true });
    const chunks: Buffer[] = [];
    child.stdout.on("data", (chunk: Buffer) => chunks.push(chunk));
    child.stdin.on("error", () => undefined);
    const refuse = (why: string) => reject(new Failure("unavailable", "apertium", why));
    child.once("error", () => refuse("apertium was ended before it had translated."));
    child.once("close", (code) => {
      clearTimeout(timer);
      signal?.removeEventListener("abort", end);
      if (code === 0) resolve(Buffer.concat(chunks).toString("utf8"));
      else if (code === 127)
        refuse("apertium is not installed. Install it with: apt-get install apertium apertium-eng-spa");
      else refuse("apertium did not translate in a minute, or failed. Its texts stay untranslated.");
    });
    child.stdin.end(input);
  });
}

/** Returns the pairs that apertium has on this machine, such as `eng-spa`. Throws a Failure when it is not installed. */
export async function apertiumPairs(): Promise<string[]> {
  return (await apertium(["-l"], "")).split(/\s+/).filter((pair) => /^[a-z]{3}-[a-z]{3}$/.test(pair));
}

/** Characters with a meaning in apertium's stream format. */
const RESERVED = /[[\]{}^$/\\@<>]/g;
/**
 * What separates texts in the stream: a full stop, without which words would move from one text to the next, and blanks
 * that are passed on as they are.
 */
const BETWEEN = ".[][<between>]\n";
const BLANK = /\[<(o|c|s)(\d+)>\]/g;

const inStream = (pieces: readonly Piece[]): string =>
  pieces
    .map((piece) =>
      typeof piece === "string"
        ? piece.replace(RESERVED, (sign) => `\\${sign}`).replace(/\s+/g, " ")
        : `[<${piece.at[0]}${piece.code}>]`,
    )
    .join("");

const AT = { o: "open", c: "close", s: "single" } as const;

function fromStream(text: string): Piece[] {
  const pieces: Piece[] = [];
  let from = 0;
  const words = (to: number) => pieces.push(text.slice(from, to).replace(/\\(.)/g, "$1"));
  for (const found of text.matchAll(BLANK)) {
    words(found.index);
    pieces.push({ code: Number(found[2]), at: AT[found[1] as keyof typeof AT] });
    from = found.index + found[0].length;
  }
  words(text.length);
  return joinPieces(pieces);
}

/**
 * Translates texts with Debian's apertium. A text of which placeholders were lost is undefined. Throws a Failure
 * `unavailable` when the pair is not installed or apertium fails.
 */
export async function translateLocally(
  texts: readonly (readonly Piece[])[],
  { from, to, ...options }: { from: string; to: string } & RunOptions,
): Promise<(Piece[] | undefined)[]> {
  const pair = `${codeOf(from)}-${codeOf(to)}`;
  const pairs = await apertiumPairs();
  if (!pairs.includes(pair))
    throw new Failure(
      "unavailable",
      "apertium",
      `apertium has no pair ${pair} on this machine${pairs.length ? ` (it has ${pairs.join(", ")})` : ""}. Debian's packages of pairs are called apertium-${pair}.`,
    );
  const answer = await apertium(["-u", "-f", "none", pair], texts.map(inStream).join(BETWEEN) + BETWEEN, options);
  const parts = answer.split(/\.?\[\]\[<between>\]\n?/);
  return texts.map((source, nth) => proposalOf(source, fromStream(parts[nth] ?? ""), { from, to }));
}
