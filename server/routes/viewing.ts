import { checked, Id } from "@unitext/core/model";
import { Router } from "express";
import { includes } from "../access";
import type { ViewedDeck } from "../api";
import { slideToDraw, viewedDeck } from "../store";
import { type AppContext, asker, deckRoute } from "./context";
import { type Drawings, sendDrawing } from "./drawings";

/** Routes of the viewer's page: the slides of a deck as drawings that the server makes, so that the page stays light. */
export const viewingRoutes =
  (drawings: Drawings) =>
  (context: AppContext): Router => {
    const { db } = context;
    const routes = Router();

    routes.get(
      "/decks/:deck/look",
      deckRoute(context, "look", async ({ deck, right, notes, response }) =>
        response.json({ ...(await viewedDeck(db, deck)), right, notes } satisfies ViewedDeck),
      ),
    );

    routes.get(
      "/decks/:deck/look/:slide",
      deckRoute(context, "look", async (call) => {
        const { deck, notes, right, request, response } = call;
        const placed = await slideToDraw(db, deck, checked(Id, request.params.slide, "The slide"));
        response.json(await drawings.view(placed, { notes, comments: includes(right, "comment") }, asker(call)));
      }),
    );

    routes.get(
      "/decks/:deck/drawings/:slide",
      deckRoute(context, "look", async (call) => {
        const { deck, request, response } = call;
        const placed = await slideToDraw(db, deck, checked(Id, request.params.slide, "The slide"));
        const drawn = await drawings.draw(placed, asker(call));
        sendDrawing(response, drawn, request.query.version === String(placed.version));
      }),
    );
    return routes;
  };
