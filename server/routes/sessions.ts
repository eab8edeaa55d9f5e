import { parseCookie, stringifySetCookie } from "cookie";
import Bowser from "bowser";
import type { Request, RequestHandler, Response } from "express";
import type { Me } from "../api";
import {
  DEMO_USER,
  endSession,
  ensureUser,
  isToken,
  newToken,
  note,
  openSession,
  renewSession,
  SESSION_LENGTH,
  sessionOf,
} from "../store";
import type { AppContext } from "./context";
import { isAtThisComputer } from "./origin";
import { userFrom, visitorOf } from "./visitor";

const COOKIE = "unitext_session";
/** Over TLS the cookie is bound to this very host (RFC 6265bis, 4.1.3.2); browsers refuse the prefix without TLS. */
const SECURE_COOKIE = `__Host-${COOKIE}`;
const MONTH = SESSION_LENGTH / 1000;

/** Sets the session's cookie; an empty value with 0 seconds removes it. */
function setCookie(request: Request, response: Response, value: string, seconds: number): void {
  const { secure } = request;
  const name = secure ? SECURE_COOKIE : COOKIE;
  response.append(
    "set-cookie",
    stringifySetCookie({ name, value, httpOnly: true, sameSite: "strict", path: "/", maxAge: seconds, secure }),
  );
}

/** Returns the token of a request's cookie; undefined where there is none. */
export function tokenOf(request: Request): string | undefined {
  const token = parseCookie(request.headers.cookie ?? "")[request.secure ? SECURE_COOKIE : COOKIE];
  return token && isToken(token) ? token : undefined;
}

/** Returns the browser and system of a request as people call them: “Firefox on Linux”. */
function deviceOf(request: Request): string {
  const agent = request.headers["user-agent"];
  if (!agent) return "";
  const { browser, os } = Bowser.parse(agent);
  return [browser.name, os.name].filter(Boolean).join(" on ").slice(0, 100);
}

/** Opens a session with a new token for a person, and ends the one that the browser had. */
export async function signIn({ db }: AppContext, request: Request, response: Response, user: Me): Promise<void> {
  const before = tokenOf(request);
  if (before) await endSession(db, before);
  const token = newToken();
  await openSession(db, user.id, token, deviceOf(request));
  setCookie(request, response, token, MONTH);
  response.locals.user = user;
}

/** Runs a step of a request that may fail, then goes on. */
const step =
  (run: (request: Request, response: Response) => Promise<void>): RequestHandler =>
  (request, response, next) => {
    run(request, response).then(() => next(), next);
  };

/** Finds the person of a request by the session of its cookie. Whoever is unknown stays a stranger. */
export function session({ db, demo }: AppContext): RequestHandler {
  return step(async (request, response) => {
    const token = tokenOf(request);
    const found = token ? await sessionOf(db, token) : undefined;
    if (!token || found?.state !== "open") return;
    // The user of the demo has no password, so nobody else's computer is this user.
    if (found.user.demo && !(demo && isAtThisComputer(request))) return;
    if (found.renew) {
      await renewSession(db, token);
      setCookie(request, response, token, MONTH);
    }
    response.locals.user = found.user;
  });
}

/**
 * Makes a stranger at this computer the user of the demo. The cookie is sent at once; the session is stored only when
 * the cookie comes back, so that clients without cookies leave nothing behind.
 */
export function enterDemo({ db, demo }: AppContext): RequestHandler {
  return step(async (request, response) => {
    if (visitorOf(response) || !demo || !isAtThisComputer(request)) return;
    await ensureUser(db, DEMO_USER);
    const token = tokenOf(request);
    const isNew = token && (await sessionOf(db, token)).state === "unknown";
    if (isNew) {
      if (await openSession(db, DEMO_USER.id, token, deviceOf(request)))
        await note(db, { user: DEMO_USER.id, act: "sign-in" });
    } else setCookie(request, response, newToken(), MONTH);
    response.locals.user = DEMO_USER;
  });
}

/** Ends the session of a request's cookie. */
export function signOut({ db }: AppContext): RequestHandler {
  return (request, response, next) => {
    const user = userFrom(response);
    endSession(db, tokenOf(request) ?? "")
      .then(() => note(db, { user: user.id, act: "sign-out" }))
      .then(() => {
        setCookie(request, response, "", 0);
        response.status(204).end();
      }, next);
  };
}
