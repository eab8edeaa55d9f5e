import { randomBytes } from "node:crypto";
import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { Failure, type FailureCode } from "@unitext/core/model";
import { parseCookie, stringifySetCookie } from "cookie";
import express, {
  type ErrorRequestHandler,
  type Express,
  type Request,
  type RequestHandler,
  type Response,
} from "express";
import helmet from "helmet";
import type { Logger } from "pino";
import { pinoHttp } from "pino-http";
import type { ErrorBody, Me } from "../api";
import {
  DEMO_USER,
  endSession,
  ensureUser,
  isConnectionError,
  isDiskFull,
  isToken,
  newToken,
  note,
  openSession,
  renewSession,
  SESSION_LENGTH,
  sessionOf,
} from "../store";
import { type AppContext, userFrom } from "./context";
import { deckRoutes } from "./decks";
import { divideRoutes } from "./divide";
import { healthRoutes } from "./health";
import { jobRoutes } from "./jobs";
import { personLimits } from "./limits";
import { knownHost, sameOrigin } from "./origin";

const COOKIE = "unitext_session";
const STATUS: Record<FailureCode, number> = {
  "not-found": 404,
  "not-readable": 422,
  "too-large": 413,
  "not-valid": 400,
  conflict: 409,
  "not-supported": 415,
  "not-permitted": 403,
  "too-many": 429,
  unavailable: 503,
  "no-space": 507,
};
/** The seconds after which to try again while the database is unreachable. */
const RETRY_AFTER = 2;

const cookie = (value: string, seconds: number) =>
  stringifySetCookie({ name: COOKIE, value, httpOnly: true, sameSite: "strict", path: "/", maxAge: seconds });
const MONTH = SESSION_LENGTH / 1000;

/**
 * Signs the visitor in: by the session of the cookie, or in the demo as the demo user. A visitor gets a cookie at once;
 * the session is stored only when the cookie comes back, so that clients without cookies leave nothing behind.
 */
function session({ db }: AppContext): RequestHandler {
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
function signOut({ db }: AppContext): RequestHandler {
  return (request, response, next) => {
    const token = parseCookie(request.headers.cookie ?? "")[COOKIE] ?? "";
    endSession(db, token)
      .then(() => note(db, { user: userFrom(response).id, act: "sign-out" }))
      .then(() => response.append("set-cookie", cookie("", 0)).status(204).end(), next);
  };
}

const onError: ErrorRequestHandler = (error, request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const send = (status: number, code: string, where: string, message: string) =>
    response.status(status).json({ error: { code, where, message } } satisfies ErrorBody);
  if (error instanceof Failure) send(STATUS[error.code], error.code, error.where, error.message);
  else if (error?.type === "entity.too.large")
    send(
      413,
      "too-large",
      "body",
      `The file is larger than ${Math.round(error.limit / 1024 / 1024)} MB, the most that is taken at once.`,
    );
  else if (error?.status >= 400 && error.status < 500)
    send(error.status, "not-valid", "body", "The request could not be read: its body is not what its type says.");
  else if (isConnectionError(error)) {
    response.setHeader("retry-after", RETRY_AFTER);
    send(
      503,
      "unavailable",
      request.path,
      "The database cannot be reached for now. What you do is kept in your browser and saved as soon as it is back.",
    );
  } else if (isDiskFull(error))
    send(
      507,
      "no-space",
      request.path,
      "The disk of the service is full, so this could not be saved; reading goes on. What you do is kept in your browser and saved as soon as there is room.",
    );
  else {
    request.log?.error({ err: error }, "request failed");
    send(
      500,
      "failed",
      request.path,
      "Something went wrong on the server; nothing was changed. Try again, and if it stays so look at its log.",
    );
  }
};

export interface Site {
  /** The folder of the built client, if it is to be served. */
  client?: string;
  log: Logger;
  /** Host names of the service beside those of loopback. */
  hosts?: readonly string[];
}

/** The server's routes, the client and its fonts, with headers, sessions, logs and errors. */
export function createApp(context: AppContext, { client, log, hosts = [] }: Site): Express {
  const app = express();
  app.disable("x-powered-by");
  app.use((_, response, next) => {
    response.locals.nonce = randomBytes(16).toString("base64");
    next();
  });
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          styleSrc: ["'self'", (_, response) => `'nonce-${(response as Response).locals.nonce}'`],
          styleSrcAttr: ["'none'"],
          imgSrc: ["'self'", "data:", "blob:"],
          mediaSrc: ["'self'"],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          workerSrc: ["'self'"],
          manifestSrc: ["'self'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(
    pinoHttp({
      logger: log,
      autoLogging: { ignore: (request) => !request.url?.startsWith("/api/") },
      serializers: { req: ({ method, url }) => ({ method, url }), res: ({ statusCode }) => ({ statusCode }) },
    }),
  );
  app.use(knownHost(hosts));
  app.use(healthRoutes(context));
  app.use("/api", sameOrigin, session(context), ...personLimits());
  app.post("/api/sign-out", signOut(context));
  app.get("/api/me", (_, response) => {
    response.json(userFrom(response));
  });
  app.use("/api", jobRoutes(context));
  app.use("/api", deckRoutes(context));
  app.use("/api", divideRoutes(context));
  app.use("/api", (request) => {
    throw new Failure("not-found", request.path, "There is nothing at this address.");
  });
  app.use("/fonts", express.static(context.fonts, { immutable: true, maxAge: "365d" }));
  if (client && existsSync(join(client, "index.html"))) {
    app.use(
      express.static(client, {
        index: false,
        setHeaders: (response, path) =>
          response.setHeader(
            "cache-control",
            /\/assets\//.test(path) ? "public, max-age=31536000, immutable" : "no-cache",
          ),
      }),
    );
    app.get("/{*path}", (request, response) => {
      if (request.path.startsWith("/assets/"))
        throw new Failure(
          "not-found",
          request.path,
          "There is no such file; the page that asks for it is of an older version. Load it again.",
        );
      const page = readFileSync(join(client, "index.html"), "utf8");
      // Editors bring inline styles; the nonce allows theirs and no others.
      response
        .set({ "content-type": "text/html; charset=utf-8", "cache-control": "no-cache" })
        .send(page.replace('name="style-nonce" content=""', `name="style-nonce" content="${response.locals.nonce}"`));
    });
  }
  app.use(onError);
  return app;
}
