import { Failure } from "@unitext/core/model";
import { Router } from "express";
import type { ChangeRequest, DeckState } from "../api";
import { applyChanges, changesSince, loadDeck } from "../store";
import { type AppContext, deckRoute, largeBody, numberOf } from "./context";
import { LIMITS, upload } from "./uploads";

/** Routes that send changes of a deck, and tell of those that others made. */
export function changeRoutes(context: AppContext): Router {
  const { db } = context;
  const routes = Router();

  routes.get(
    "/decks/:deck/changes",
    deckRoute(context, "see", async ({ deck, request, response }) => {
      const since = numberOf(request.query.since ?? 0, "version to start from");
      const list = await changesSince(db, deck, since);
      response.json({ version: list.at(-1)?.version ?? since, changes: list });
    }),
  );

  routes.post(
    "/decks/:deck/changes",
    upload(LIMITS.json),
    deckRoute(context, "change", async (call) => {
      const { deck, user, right, response } = call;
      const asked = await largeBody<ChangeRequest>(context, "changes", call);
      try {
        response.json(await applyChanges(db, deck, user.id, asked));
      } catch (error) {
        if (!(error instanceof Failure) || error.code !== "conflict") throw error;
        const state: DeckState = { ...(await loadDeck(db, deck)), right };
        response.status(409).json({ error: { code: error.code, where: error.where, message: error.message }, state });
      }
    }),
  );

  routes.get(
    "/decks/:deck/events",
    deckRoute(context, "look", async ({ deck, user, response }) =>
      context.announcements.stream(deck, user.id, response),
    ),
  );

  return routes;
}
