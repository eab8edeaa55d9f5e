import { checked, Failure, Id, must } from "@unitext/core/model";
import type { NextFunction, Request, RequestHandler, Response } from "express";
import type { z } from "zod";
import type { HouseKey, Mail, Throttle } from "../accounts";
import { type Access, type Act, permit } from "../access";
import type { Me } from "../api";
import type { Jobs } from "../jobs";
import { type Asker, parseBody, type LanguageService, type TranslationService, type Work } from "../work";
import { accessOn, type Database } from "../store";
import type { Announcements } from "./events";
import { userFrom } from "./visitor";

/** What routes need. */
export interface AppContext {
  db: Database;
  work: Work;
  jobs: Jobs;
  announcements: Announcements;
  fonts: string;
  /** Whether visitors at this computer are the user of the demo, without signing in. */
  demo: boolean;
  key: HouseKey;
  mail: Mail;
  throttle: Throttle;
  /** The hosts from which workbooks may be fetched. */
  sourceHosts?: readonly string[];
  /** The translation service outside of this machine, where one is set up. */
  translationService?: TranslationService | undefined;
  /** The service that writes points, where one is set up. */
  pointService?: LanguageService | undefined;
  /** The service that speaks notes for films, where one is set up. */
  voiceService?: LanguageService | undefined;
  origin?: string;
  /** The addresses of this machine on its network, where it listens there. */
  addresses?: readonly string[];
}

/** A request of a signed-in user. */
export interface Call {
  user: Me;
  request: Request;
  response: Response;
}
export interface DeckCall extends Call, Access {
  deck: string;
}

/** Makes a route for anybody, signed in or not; faults go to the error handler. */
export function openRoute(handle: (call: Omit<Call, "user">) => Promise<unknown>): RequestHandler {
  return (request: Request, response: Response, next: NextFunction) => {
    handle({ request, response }).catch(next);
  };
}

/** Makes a route for whoever has a session, guests included. */
const sessionRoute = (handle: (call: Call) => Promise<unknown>): RequestHandler =>
  openRoute(async (call) => handle({ ...call, user: userFrom(call.response) }));

/** Acts on a deck that make something of one's own, for which guests have no Desk. */
const FOR_ACCOUNTS: ReadonlySet<Act> = new Set(["copy", "derive"]);

/** Makes a route for people with an account. Guests, who came by a link, may read what they have there: nothing. */
export function route(handle: (call: Call) => Promise<unknown>): RequestHandler {
  return sessionRoute(async (call) => {
    if (call.user.role === "guest" && call.request.method !== "GET")
      throw new Failure(
        "not-permitted",
        "account",
        "This needs an account of this house. Sign in, or ask for an invitation.",
      );
    await handle(call);
  });
}

/** Makes a route on a deck: the right to the action is checked before anything is done. */
export function deckRoute({ db }: AppContext, act: Act, handle: (call: DeckCall) => Promise<unknown>): RequestHandler {
  return sessionRoute(async (call) => {
    const deck = String(call.request.params.deck);
    const access = Id.safeParse(deck).success ? await accessOn(db, deck, call.user.id) : undefined;
    permit(access?.right, act, deck, access?.notes);
    if (call.user.role === "guest" && FOR_ACCOUNTS.has(act))
      throw new Failure(
        "not-permitted",
        "account",
        "What is made of a deck needs a Desk to stand on. Sign in to this house, or download the deck as a file.",
      );
    await handle({ ...call, deck, ...must(access) });
  });
}

/** Returns the checked body of a request. Throws a Failure that names the field. */
export function body<S extends z.ZodType>(schema: S, request: Request): z.output<S> {
  return checked(schema, request.body, "The request");
}

/** Larger bodies are parsed and checked in a worker process. */
const LARGE = 128 * 1024;

/**
 * Returns the checked body of a request that may be large, which arrives as bytes. Throws a Failure that names the
 * field.
 */
export async function largeBody<T>({ work }: AppContext, schema: "changes" | "deck", call: Call): Promise<T> {
  const bytes = bytesOf(call.request);
  return (
    bytes.length > LARGE ? await work.run("body", { bytes, schema }, asker(call)) : parseBody({ bytes, schema })
  ) as T;
}

/** Returns whose request it is, with a signal that aborts when the client is gone. */
export function asker({ user, response }: Call): Asker {
  const gone = new AbortController();
  response.once("close", () =>
    gone.abort(new Failure("unavailable", "request", "The request was ended before its answer.")),
  );
  return { owner: user.id, signal: gone.signal };
}

/** The largest integer that the database stores as a version. */
const MOST = 2 ** 31 - 1;

/** Returns an integer of an address. Throws a Failure `not-valid` that names it. */
export function numberOf(value: unknown, name: string): number {
  const found = Number(value);
  if (typeof value === "object" || !Number.isInteger(found) || found < 0 || found > MOST)
    throw new Failure("not-valid", name, `Say the ${name} as a whole number.`);
  return found;
}

/** Returns the bytes of an upload. */
export function bytesOf(request: Request): Uint8Array {
  if (!(request.body instanceof Uint8Array))
    throw new Failure(
      "not-valid",
      "body",
      "Send the file as the body of the request, with the type application/octet-stream.",
    );
  return request.body;
}

/** Returns the uploaded file of a request, named by its query. */
export const fileOf = (request: Request, otherwise: string) => ({
  bytes: bytesOf(request),
  name: String(request.query.name ?? otherwise).slice(0, 300),
});
