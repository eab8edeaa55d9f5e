import { type ErrorBody, ErrorBody as ErrorSchema } from "@unitext/server/api";
import type { z } from "zod";
import { takeAhead } from "./ahead";

/** A refusal by the server, in its words; `body` is the rest of the reply. */
export class Refused extends Error {
  override name = "Refused";
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly body?: ErrorBody,
  ) {
    super(message);
  }
}

/** The server could not be reached: it is unknown whether it took the request. */
export class Unreachable extends Error {
  override name = "Unreachable";
  constructor() {
    super("The server cannot be reached. What you do is kept on this computer and sent when it answers again.");
  }
}

/** Pages on which a visitor comes in; they say themselves what is needed. */
const ENTRANCES = /^\/(sign-in|setup|join|reset|view|hand-in)\b/;

/** Asks to sign in, and comes back to this page. What is not saved waits in the browser. */
function signIn(): void {
  const { pathname, search, hash } = window.location;
  if (!ENTRANCES.test(pathname)) window.location.assign(`/sign-in?to=${encodeURIComponent(pathname + search + hash)}`);
}

async function answered(path: string, init: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = (await ((init.method ?? "GET") === "GET" && takeAhead(path))) || (await fetch(`/api${path}`, init));
  } catch (error) {
    if (init.signal?.aborted) throw error;
    throw new Unreachable();
  }
  if (response.ok) return response;
  if (response.status >= 502 && response.status <= 504) throw new Unreachable();
  if (response.status === 401) signIn();
  const body = ErrorSchema.safeParse(await response.json().catch(() => undefined));
  if (body.success) throw new Refused(response.status, body.data.error.code, body.data.error.message, body.data);
  throw new Refused(response.status, "failed", `The server answered with ${response.status}.`);
}

/** Gets and checks. Throws Refused or Unreachable. */
export async function get<S extends z.ZodType>(path: string, schema: S): Promise<z.output<S>> {
  return schema.parse(await (await answered(path, {})).json());
}

/** Sends a body and returns the checked answer. Throws Refused with the server's sentence, or Unreachable. */
export async function post<S extends z.ZodType>(
  path: string,
  body: unknown,
  schema: S,
  init: RequestInit = {},
): Promise<z.output<S>> {
  const file = body instanceof Blob;
  const response = await answered(path, {
    method: "POST",
    headers: { "content-type": file ? "application/octet-stream" : "application/json" },
    body: file ? body : JSON.stringify(body),
    ...init,
  });
  return schema.parse(await response.json());
}

/** Sends a body by another method than POST and returns the checked answer. Throws Refused or Unreachable. */
export const send = <S extends z.ZodType>(
  method: "PUT" | "PATCH" | "DELETE",
  path: string,
  body: unknown,
  schema: S,
): Promise<z.output<S>> => post(path, body, schema, { method });

/** Sends a body without an answer. Throws Refused or Unreachable. */
export async function put(path: string, body: unknown): Promise<void> {
  await answered(path, { method: "PUT", headers: { "content-type": "application/json" }, body: JSON.stringify(body) });
}

/** Deletes what is at an address. Throws Refused or Unreachable. */
export async function remove(path: string, body?: unknown): Promise<void> {
  const sent =
    body === undefined ? {} : { headers: { "content-type": "application/json" }, body: JSON.stringify(body) };
  // It is done even if the user leaves the page at once.
  await answered(path, { method: "DELETE", keepalive: true, ...sent });
}

/** Downloads a file under the name that the server gives. Aborting the signal ends the writing on the server too. */
export async function download(path: string, signal?: AbortSignal): Promise<void> {
  const response = await answered(path, signal ? { signal } : {});
  const name = /filename\*=UTF-8''([^;]+)/.exec(response.headers.get("content-disposition") ?? "")?.[1] ?? "deck";
  const address = URL.createObjectURL(await response.blob());
  const link = Object.assign(document.createElement("a"), { href: address, download: decodeURIComponent(name) });
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 60000);
}
