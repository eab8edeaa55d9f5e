import { Failure } from "@unitext/core/model";
import type { Request, RequestHandler, Response } from "express";
import { type Options, rateLimit } from "express-rate-limit";
import { visitorOf } from "./visitor";

const MINUTE = 60_000;
const MB = 1024 * 1024;

/** Limits of one user's requests; more are answered with 429. A user at work stays far below. */
export const PERSON = {
  /** Requests in a minute. */
  requests: { most: 20_000, window: MINUTE, what: "requests" },
  /** Files and pictures uploaded in ten minutes. */
  uploads: { most: 2_000, window: 10 * MINUTE, what: "uploads" },
  /** Decks written or reported on in ten minutes. */
  exports: { most: 1_000, window: 10 * MINUTE, what: "exports" },
  /** Bytes uploaded in ten minutes. */
  bytes: { most: 4096 * MB, window: 10 * MINUTE, what: "bytes" },
  /** Pages that listen for news at the same time. */
  streams: 200,
} as const;

/** Strangers are counted by their address. */
const countedAs = ({ ip = "" }: Request, response: Response) => visitorOf(response)?.id ?? `address ${ip}`;

const tooMany = (what: string, seconds: number) =>
  new Failure(
    "too-many",
    what,
    `These are more ${what} than one person may make in a short time. Nothing was lost; go on in ${seconds < 90 ? `${Math.max(1, Math.ceil(seconds))} seconds` : `${Math.ceil(seconds / 60)} minutes`}.`,
  );

/** Counts one kind of request of each user. */
function perPerson(
  { most, window, what }: { most: number; window: number; what: string },
  counted: (request: Request) => boolean,
): RequestHandler {
  const options: Partial<Options> = {
    limit: most,
    windowMs: window,
    standardHeaders: "draft-7",
    legacyHeaders: false,
    keyGenerator: countedAs,
    skip: (request) => !counted(request),
    handler: (request, _, next) => {
      const reset = (request as Request & { rateLimit?: { resetTime?: Date } }).rateLimit?.resetTime;
      next(tooMany(what, reset ? (reset.getTime() - Date.now()) / 1000 : window / 1000));
    },
  };
  return rateLimit(options);
}

/** Counts the bytes that each user uploads, by the length that the request declares. */
function bytesPerPerson(): RequestHandler {
  const { most, window, what } = PERSON.bytes;
  const sent = new Map<string, { bytes: number; until: number }>();
  return (request, response, next) => {
    const length = Number(request.headers["content-length"] ?? 0);
    if (!length) return next();
    const now = Date.now();
    const user = countedAs(request, response);
    for (const [id, { until }] of sent) if (until <= now) sent.delete(id);
    const entry = sent.get(user) ?? { bytes: 0, until: now + window };
    sent.set(user, entry);
    entry.bytes += length;
    next(entry.bytes > most ? tooMany(what, (entry.until - now) / 1000) : undefined);
  };
}

/** The limits of each user, for signed-in requests. */
export function personLimits(): RequestHandler[] {
  const uploads = /^\/(files|hand-in\/[^/]+\/files|decks\/[^/]+\/(documents|pictures))$/;
  const exports = /^\/(decks\/[^/]+\/(export|report)|writes)$/;
  return [
    perPerson(PERSON.requests, () => true),
    perPerson(PERSON.uploads, ({ method, path }) => method === "POST" && uploads.test(path)),
    perPerson(PERSON.exports, ({ path }) => exports.test(path)),
    bytesPerPerson(),
  ];
}
