// npm run attack: starts a service on data of its own, on loopback alone, and attacks it: hostile files against every reader,
// every route with every right, clients that edit while server and database are killed and answers are dropped, and many imports.
// `--short` does a part of each within two minutes. Prints one line for each case; the exit code says whether all held.
import { faults } from "./attack/faults.mjs";
import { hostile } from "./attack/hostile.mjs";
import { backup, imports, interrupted, streams } from "./attack/load.mjs";
import { rights } from "./attack/rights.mjs";
import { endService, failures, told } from "./attack/service.mjs";

const wanted = process.argv.find((argument) => argument.startsWith("--only="))?.slice(7);

try {
  for (const [name, act] of Object.entries({ rights, streams, backup, interrupted, hostile, faults, imports }))
    if (!wanted || wanted === name) await act();
} catch (error) {
  told("the attack", false, error.stack);
} finally {
  await endService();
}
process.stdout.write(`${failures.length ? `${failures.length} did not hold` : "All held"}\n`);
process.exitCode = failures.length ? 1 : 0;
