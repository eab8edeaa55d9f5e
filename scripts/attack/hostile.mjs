// Hostile files against every reader, while another user works.
import { hostileFiles } from "./files.mjs";
import {
  PROMISED,
  SCALE,
  told,
  serverProcess,
  sql,
  person,
  percentile,
  bystander,
  newDeck,
  ended,
} from "./service.mjs";

export async function hostile() {
  const attacker = await person("mallory");
  const other = await person("olive");
  const deck = await newDeck(other);
  const all = hostileFiles();
  const step = Math.max(1, Math.floor(all.length / SCALE.files));
  const files = all.filter((_, nth) => nth % step === 0);
  const by = bystander(other, deck);
  const pid = serverProcess();
  const outcome = { taken: 0, refused: 0 };
  const wrong = [];
  let slowest = ["", 0];
  const one = async ({ name, what, bytes }) => {
    const begun = performance.now();
    const response = await attacker(`/api/files?name=${name}`, {
      method: "POST",
      body: bytes,
      headers: { "content-type": "application/octet-stream" },
      timeout: 330_000,
    });
    const body = await response.json().catch(() => ({}));
    let end = response.status < 300 ? "taken" : "refused";
    if (response.status >= 500) wrong.push(`${name}, ${what}: ${response.status}`);
    if (body.job) {
      const { state, message } = await ended(attacker, body.job);
      end = state === "done" ? "taken" : "refused";
      if (state !== "done" && state !== "failed") wrong.push(`${name}, ${what}: ${state}`);
      if (/could not be read to its end|could not be read; nothing/.test(message ?? ""))
        wrong.push(`${name}, ${what}: refused without a reason (${message})`);
    }
    outcome[end] += 1;
    const took = performance.now() - begun;
    if (took > slowest[1]) slowest = [`${name}, ${what}`, took];
    if (process.env.UNITEXT_ATTACK_VERBOSE)
      process.stdout.write(
        `       ${end} in ${Math.round(took)} ms: ${name}, ${what}${response.status >= 400 ? ` (${response.status} ${body.error?.message})` : ""}\n`,
      );
  };
  const queue = [...files];
  await Promise.all(
    Array.from({ length: 3 }, async () => {
      for (let next = queue.shift(); next; next = queue.shift())
        await one(next).catch((error) => wrong.push(`${next.name}, ${next.what}: ${error.message}`));
    }),
  );
  const took = await by.stop();
  told(
    "hostile files",
    wrong.length === 0,
    `${files.length} files, ${outcome.taken} taken, ${outcome.refused} refused with a sentence; the slowest took ${(slowest[1] / 1000).toFixed(1)} s (${slowest[0]})${wrong.length ? `; ${wrong.slice(0, 8).join("; ")}` : ""}`,
  );
  told(
    "the server's process",
    pid === serverProcess(),
    pid === serverProcess() ? "is the one that began" : "was restarted",
  );
  const p95 = percentile(took, 0.95);
  told(
    "requests of others meanwhile",
    p95 < PROMISED,
    `${took.length} requests, 95th percentile ${Math.round(p95)} ms, longest ${Math.round(Math.max(...took))} ms`,
  );
  const left = await sql("select count(*)::int as n from jobs where state in ('waiting', 'running')");
  told("jobs", left[0].n === 0, `${left[0].n} have not ended`);
}
