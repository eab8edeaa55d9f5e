import { parseArgs, type ParseArgsConfig } from "node:util";

/** A command was called with unknown options or arguments. */
export class Usage extends Error {}

type Options = NonNullable<ParseArgsConfig["options"]>;

/** Returns the values of a command's options and its arguments. Throws a Usage for an unknown option. */
export function options<O extends Options>(args: readonly string[], known: O) {
  try {
    return parseArgs({ args: [...args], options: known, allowPositionals: true, strict: true });
  } catch (error) {
    throw new Usage((error as Error).message.split(". ")[0] ?? "wrong usage");
  }
}
