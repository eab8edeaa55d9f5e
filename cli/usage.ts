import { parseArgs, type ParseArgsConfig } from "node:util";

/** The command was called in a way that it does not know. */
export class Usage extends Error {}

type Options = NonNullable<ParseArgsConfig["options"]>;

/** The values of a command's options and its other words. Throws a Usage for an option that it does not have. */
export function options<O extends Options>(args: readonly string[], known: O) {
  try {
    return parseArgs({ args: [...args], options: known, allowPositionals: true, strict: true });
  } catch (error) {
    throw new Usage((error as Error).message.split(". ")[0] ?? "wrong usage");
  }
}
