import { loadFormulas } from "@unitext/core/figures";
import { Failure } from "@unitext/core/model";
import { COMMANDS, help } from "./commands";
import { Usage } from "./usage";

/** Runs one command; exit 0 done, 1 the input was refused or a check failed, 2 wrong usage. */
async function main(words: readonly string[]): Promise<number> {
  const [name = "help", ...rest] = words;
  if (name === "help" || name === "--help" || rest.includes("--help")) {
    process.stdout.write(help(name === "help" ? rest[0] : name));
    return 0;
  }
  const command = COMMANDS[name];
  if (!command) throw new Usage(`there is no command “${name}”; “unitext help” lists them`);
  await loadFormulas();
  return (await command.run(rest)) ?? 0;
}

try {
  process.exitCode = await main(process.argv.slice(2));
} catch (error) {
  if (error instanceof Usage) {
    process.stderr.write(`unitext: ${error.message}\n`);
    process.exitCode = 2;
  } else if (error instanceof Failure) {
    const file = (error as Failure & { file?: string }).file ?? error.where;
    process.stderr.write(`unitext: ${file}: ${error.where}: ${error.message}\n`);
    process.exitCode = 1;
  } else {
    process.stderr.write(`unitext: unexpected: ${error instanceof Error ? error.message : String(error)}\n`);
    process.exitCode = 1;
  }
}
