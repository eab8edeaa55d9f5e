import { randomBytes } from "node:crypto";
import { existsSync } from "node:fs";
import { join } from "node:path";
import { Failure } from "@unitext/core/model";
import express, { type Express } from "express";
import type { Logger } from "pino";
import { pinoHttp } from "pino-http";
import { bindingRoutes } from "./bindings";
import { changeRoutes } from "./changes";
import { collectionRoutes, handInRoutes } from "./collections";
import { securityHeaders, serveClient } from "./client";
import type { AppContext } from "./context";
import { deckRoutes } from "./decks";
import { deskRoutes } from "./desk";
import { divideRoutes } from "./divide";
import { Drawings } from "./drawings";
import { framing, metadataOfPage, oembedRoutes } from "./embedding";
import { onError } from "./errors";
import { exportRoutes } from "./exports";
import { fileRoutes } from "./files";
import { filmRoutes } from "./films";
import { followerRoutes } from "./followers";
import { healthRoutes } from "./health";
import { historyRoutes } from "./history";
import { jobRoutes } from "./jobs";
import { personLimits } from "./limits";
import { knownHost, sameOrigin } from "./origin";
import { accountRoutes, entranceRoutes } from "./accounts";
import { houseRoutes } from "./house";
import { enterDemo, session, signOut } from "./sessions";
import { linkRoutes, sharingRoutes } from "./sharing";
import { onlyLinks, phoneRoutes, remoteRoutes } from "./remotes";
import { viewingRoutes } from "./viewing";
import { sourceRoutes } from "./sources";
import { languageResourceRoutes } from "./languageresources";
import { pageRoutes, publishingRoutes } from "./pages";
import { pointRoutes } from "./points";
import { themeRoutes } from "./themes";
import { translationRoutes } from "./translations";

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
  const drawings = new Drawings(context);
  app.disable("x-powered-by");
  // A proxy on this machine says who asks, and whether over TLS.
  app.set("trust proxy", "loopback");
  app.use((_, response, next) => {
    response.locals.nonce = randomBytes(16).toString("base64");
    next();
  });
  app.use(securityHeaders());
  app.use(
    pinoHttp({
      logger: log,
      autoLogging: { ignore: (request) => !request.url?.startsWith("/api/") },
      serializers: { req: ({ method, url }) => ({ method, url }), res: ({ statusCode }) => ({ statusCode }) },
    }),
  );
  if (context.demo) app.use(onlyLinks);
  app.use(knownHost(hosts));
  app.use(healthRoutes(context));
  app.use("/api", sameOrigin, phoneRoutes(context));
  app.use("/api", session(context), ...personLimits());
  app.use("/api", entranceRoutes(context), linkRoutes(context), handInRoutes(context), pageRoutes(context, drawings));
  app.use(oembedRoutes(context));
  app.use("/api", enterDemo(context));
  app.post("/api/sign-out", signOut(context));
  app.use("/api", jobRoutes(context));
  for (const routes of [
    deckRoutes,
    deskRoutes,
    remoteRoutes,
    changeRoutes,
    fileRoutes,
    exportRoutes,
    filmRoutes,
    divideRoutes,
    followerRoutes,
    historyRoutes,
    sourceRoutes,
    translationRoutes,
    languageResourceRoutes,
    themeRoutes,
    pointRoutes,
    bindingRoutes,
    accountRoutes,
    houseRoutes,
    sharingRoutes,
    viewingRoutes(drawings),
    publishingRoutes,
    collectionRoutes,
  ])
    app.use("/api", routes(context));
  app.use("/api", (request) => {
    throw new Failure("not-found", request.path, "There is nothing at this address.");
  });
  app.use("/fonts", express.static(context.fonts, { immutable: true, maxAge: "365d" }));
  app.use(framing(context));
  if (client && existsSync(join(client, "index.html")))
    serveClient(app, client, (request, response) => metadataOfPage(context, request, response));
  app.use(onError);
  return app;
}
