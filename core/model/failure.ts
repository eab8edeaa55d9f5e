import type { z } from "zod";

/** The kind of fault in the input, which the server and the command line turn into a status or exit code. */
export type FailureCode =
  | "not-found"
  | "not-readable"
  | "too-large"
  | "not-valid"
  | "conflict"
  | "not-supported"
  | "not-permitted"
  | "sign-in-needed"
  | "too-many"
  | "unavailable"
  | "no-space";

/** Refused input: where the fault is, and a sentence for the user. Nothing was changed. */
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

/** Checks a value against a schema. Throws a Failure that names the first invalid field. */
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
