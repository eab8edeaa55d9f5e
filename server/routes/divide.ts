import express, { Router } from "express";
import { permit } from "../access";
import { MergeRequest, SplitRequest } from "../api";
import { loadDeck, rightOn } from "../store";
import { type AppContext, body, deckRoute, route } from "./context";
import { LIMITS } from "./uploads";

/** Routes that split a deck into parts, and merge several into one. */
export function divideRoutes(context: AppContext): Router {
  const { db } = context;
  const routes = Router();
  const json = express.json({ limit: LIMITS.json });

  routes.post(
    "/decks/:deck/parts",
    json,
    deckRoute(context, "derive", async ({ deck, user, request, response }) => {
      const { deck: state } = await loadDeck(db, deck);
      response
        .status(202)
        .json({ job: await context.jobs.split(user.id, deck, state.properties.title, body(SplitRequest, request)) });
    }),
  );

  routes.post(
    "/merges",
    json,
    route(async ({ user, request, response }) => {
      const asked = body(MergeRequest, request);
      for (const { id } of asked.decks) permit(await rightOn(db, id, user.id), "derive", id);
      response.status(202).json({ job: await context.jobs.merge(user.id, asked) });
    }),
  );

  return routes;
}
