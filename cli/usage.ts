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

/** Numbers from a list such as `1,3-5,8-`, in the order given; `count` closes an open run. Throws a Usage. */
export function numbers(list: string, count: number): number[] {
  return list.split(",").flatMap((part) => {
    const run = /^\s*(\d+)?\s*(-)?\s*(\d+)?\s*$/.exec(part);
    const from = Number(run?.[1] ?? 1);
    const to = run?.[2] ? Number(run[3] ?? count) : from;
    if (!run || (!run[1] && !run[3]) || from < 1 || to > count || from > to) throw new Usage(`“${part.trim()}” is not a slide or a run of slides from 1 to ${count}`);
    return Array.from({ length: to - from + 1 }, (_, nth) => from + nth);
  });
}
