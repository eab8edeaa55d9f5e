import { Failure } from "@unitext/core/model";
import type { Request, RequestHandler } from "express";

/** Names by which a machine reaches itself. */
const LOOPBACK = ["localhost", "127.0.0.1", "[::1]"];

/** Returns the name in a Host header, without its port. */
function nameOf(host: string | undefined): string {
  return (host ?? "").toLowerCase().replace(/:\d+$/, "");
}

/** Whether an address of a connection is this machine. */
export const isLoopback = (address = ""): boolean => address === "::1" || /^(?:::ffff:)?127\./.test(address);

/** Whether a request comes from a browser on this machine, and not through a proxy that runs on it. */
export function isAtThisComputer({ socket, headers }: Request): boolean {
  const forwarded = headers.forwarded !== undefined || headers["x-forwarded-for"] !== undefined;
  return isLoopback(socket.remoteAddress) && !forwarded && LOOPBACK.includes(nameOf(headers.host));
}

/**
 * Answers only requests that name this service: a page of another name that was made to resolve to this address (DNS
 * rebinding) names another. `hosts` are allowed beside the names of loopback.
 */
export function knownHost(hosts: readonly string[]): RequestHandler {
  const known = new Set([...LOOPBACK, ...hosts.map((host) => host.toLowerCase())]);
  return ({ headers }, _, next) => {
    next(
      known.has(nameOf(headers.host))
        ? undefined
        : new Failure(
            "not-permitted",
            "host",
            "This service is not at the address that was asked for. If it should be, name the address in UNITEXT_HOST and start it again.",
          ),
    );
  };
}

const changes = ({ method }: Request) => method !== "GET" && method !== "HEAD" && method !== "OPTIONS";

/**
 * Refuses requests of other sites' pages. A browser says where a request comes from, by Sec-Fetch-Site or, for changes,
 * by Origin; changes that have neither are refused too, and so are reads by other sites.
 */
export const sameOrigin: RequestHandler = (request, _, next) => {
  const { origin, host } = request.headers;
  const site = request.headers["sec-fetch-site"];
  const ownOrigin = origin !== undefined && URL.canParse(origin) && new URL(origin).host === host;
  const foreign =
    (origin !== undefined && !ownOrigin) || (site !== undefined && site !== "same-origin" && site !== "none");
  const fromHere = changes(request) ? !foreign && (ownOrigin || site === "same-origin") : !foreign;
  next(
    fromHere
      ? undefined
      : new Failure(
          "not-permitted",
          "origin",
          foreign
            ? "This request came from another site, so nothing was done."
            : "This request does not say which page it comes from, so nothing was done. Send an Origin header with the address of this service.",
        ),
  );
};
