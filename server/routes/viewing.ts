import { checked, Id } from "@unitext/core/model";
import { Router } from "express";
import { includes } from "../access";
import type { ViewedDeck } from "../api";
import { slideToDrawOf, viewedOf } from "../store";
import { type AppContext, asker, deckRoute, numberOf } from "./context";
import { type Drawings, sendDrawing } from "./drawings";

/** Routes of the viewer's page: the slides of a deck as drawings that the server makes, so that the page stays light. */
export const viewingRoutes =
  (drawings: Drawings) =>
  (context: AppContext): Router => {
    const routes = Router();

    routes.get(
      "/decks/:deck/look",
      deckRoute(context, "look", async ({ deck, right, notes, response }) => {
        const { deck: found, version } = await drawings.deck(deck);
        response.json({ ...viewedOf(found, version), right, notes } satisfies ViewedDeck);
      }),
    );

    routes.get(
      "/decks/:deck/look/:slide",
      deckRoute(context, "look", async (call) => {
        const { deck, notes, right, request, response } = call;
        const since = numberOf(request.query.since ?? 0, "version to start from");
        const { deck: found, version } = await drawings.deck(deck, since);
        const placed = slideToDrawOf(found, version, checked(Id, request.params.slide, "The slide"));
        response.json(await drawings.view(placed, { notes, comments: includes(right, "comment") }, asker(call)));
      }),
    );

    routes.get(
      "/decks/:deck/drawings/:slide",
      deckRoute(context, "look", async (call) => {
        const { deck, request, response } = call;
        const named = request.query.version;
        const { deck: found, version } = await drawings.deck(
          deck,
          named === undefined ? 0 : numberOf(named, "version"),
        );
        const placed = slideToDrawOf(found, version, checked(Id, request.params.slide, "The slide"));
        const drawn = await drawings.draw(placed, asker(call));
        sendDrawing(response, drawn, request.query.version === String(placed.version));
      }),
    );
    return routes;
  };
