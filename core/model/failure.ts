import type { z } from "zod";

/** What the input did wrong, by code; the server and the command line turn it into a status and an exit code. */
export type FailureCode =
  | "not-found"
  | "not-readable"
  | "too-large"
  | "not-valid"
  | "conflict"
  | "not-supported"
  | "not-permitted"
  | "too-many"
  | "unavailable"
  | "no-space";

/** Input that is refused: where it went wrong and a sentence for the person. Nothing was changed. */
export class Failure extends Error {
  override name = "Failure";
  constructor(
    readonly code: FailureCode,
    readonly where: string,
    message: string,
  ) {
    super(message);
  }
}

/** Checks a value against a schema. Throws a Failure that names the first field that is wrong. */
export function checked<S extends z.ZodType>(schema: S, value: unknown, what: string): z.output<S> {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const issue = result.error.issues[0];
  const path = issue?.path.map(String).join(".") ?? "";
  throw new Failure(
    "not-valid",
    path || what,
    `${what}${path ? ` at ${path}` : ""}: ${issue?.message ?? "is not valid"}.`,
  );
}
