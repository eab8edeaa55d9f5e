import express, { Router } from "express";
import { type DeckAt, VersionName } from "../api";
import { deckAt, forgetVersionName, loadHistory, loadSteps, namedVersions, nameVersion } from "../store";
import { type AppContext, body, deckRoute, numberOf } from "./context";
import { LIMITS } from "./uploads";

/** Routes on the history of a deck: its changes, its earlier states, and the names of its versions. */
export function historyRoutes(context: AppContext): Router {
  const { db } = context;
  const routes = Router();
  const json = express.json({ limit: LIMITS.json });

  routes.get(
    "/decks/:deck/history",
    deckRoute(context, "see", async ({ deck, request, response }) =>
      response.json(
        await loadHistory(
          db,
          deck,
          request.query.before === undefined ? undefined : numberOf(request.query.before, "version"),
        ),
      ),
    ),
  );

  routes.get(
    "/decks/:deck/steps",
    deckRoute(context, "change", async ({ deck, user, request, response }) =>
      response.json(
        await loadSteps(
          db,
          deck,
          user.id,
          request.query.skip === undefined ? 0 : numberOf(request.query.skip, "number of steps"),
        ),
      ),
    ),
  );

  routes.get(
    "/decks/:deck/at/:version",
    deckRoute(context, "see", async ({ deck, request, response }) => {
      const version = numberOf(request.params.version, "version");
      response.json({ version, deck: await deckAt(db, deck, version) } satisfies DeckAt);
    }),
  );

  routes.get(
    "/decks/:deck/versions",
    deckRoute(context, "see", async ({ deck, response }) => response.json({ versions: await namedVersions(db, deck) })),
  );

  routes.put(
    "/decks/:deck/versions",
    json,
    deckRoute(context, "change", async ({ deck, user, request, response }) => {
      const { version, name } = body(VersionName, request);
      await nameVersion(db, deck, user.id, version, name);
      response.status(204).end();
    }),
  );

  routes.delete(
    "/decks/:deck/versions/:version",
    deckRoute(context, "change", async ({ deck, request, response }) => {
      await forgetVersionName(db, deck, numberOf(request.params.version, "version"));
      response.status(204).end();
    }),
  );

  return routes;
}
