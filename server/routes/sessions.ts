import type { Request, RequestHandler, Response } from "express";
import { parseCookie, stringifySetCookie } from "cookie";
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
import { type AppContext, userFrom } from "./context";

const COOKIE = "unitext_session";

const cookie = (value: string, seconds: number) =>
  stringifySetCookie({ name: COOKIE, value, httpOnly: true, sameSite: "strict", path: "/", maxAge: seconds });
const MONTH = SESSION_LENGTH / 1000;

/**
 * Signs the visitor in: by the session of the cookie, or in the demo as the demo user. A visitor gets a cookie at once;
 * the session is stored only when the cookie comes back, so that clients without cookies leave nothing behind.
 */
export function session({ db }: AppContext): RequestHandler {
  const sign = async (request: Request, response: Response): Promise<Me> => {
    const token = parseCookie(request.headers.cookie ?? "")[COOKIE];
    const found = token && isToken(token) ? await sessionOf(db, token) : undefined;
    if (token && found?.state === "open") {
      if (found.renew) {
        await renewSession(db, token);
        response.append("set-cookie", cookie(token, MONTH));
      }
      return found.user;
    }
    await ensureUser(db, DEMO_USER);
    if (token && found?.state === "unknown") {
      if (await openSession(db, DEMO_USER.id, token)) await note(db, { user: DEMO_USER.id, act: "sign-in" });
    } else response.append("set-cookie", cookie(newToken(), MONTH));
    return DEMO_USER;
  };
  return (request, response, next) => {
    sign(request, response).then((user) => {
      response.locals.user = user;
      next();
    }, next);
  };
}

/** Ends the session of a request's cookie. */
export function signOut({ db }: AppContext): RequestHandler {
  return (request, response, next) => {
    const token = parseCookie(request.headers.cookie ?? "")[COOKIE] ?? "";
    endSession(db, token)
      .then(() => note(db, { user: userFrom(response).id, act: "sign-out" }))
      .then(() => response.append("set-cookie", cookie("", 0)).status(204).end(), next);
  };
}
