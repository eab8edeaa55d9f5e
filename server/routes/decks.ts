import { checked, deckFor, Id } from "@unitext/core/model";
import { Router } from "express";
import { includes } from "../access";
import type { DeckState, NewDeck } from "../api";
import { copyDeck, createDeck, deleteDeck, loadDeck, loadFirstSlide, note } from "../store";
import { type AppContext, asker, deckRoute, largeBody, route } from "./context";
import { LIMITS, upload } from "./uploads";

/** Routes that list, make, open, copy and delete decks. */
export function deckRoutes(context: AppContext): Router {
  const { db } = context;
  const routes = Router();

  routes.post(
    "/decks",
    upload(LIMITS.json),
    route(async (call) => {
      const asked = await largeBody<NewDeck>(context, "deck", call);
      const { deck, blobs, text } = await context.work.run("text", asked, asker(call));
      call.response.status(201).json({ id: await createDeck(db, call.user.id, deck, blobs, text) });
    }),
  );

  routes.get(
    "/decks/:deck",
    deckRoute(context, "see", async ({ deck: id, user, right, response }) =>
      response.json({ ...(await loadDeck(db, id)), right, user: user.id } satisfies DeckState),
    ),
  );

  routes.get(
    "/decks/:deck/first",
    deckRoute(context, "look", async ({ deck: id, right, notes, request, response }) => {
      const slide = request.query.slide === undefined ? undefined : checked(Id, request.query.slide, "The slide");
      const found = await loadFirstSlide(db, id, slide);
      const deck = deckFor(found.deck, { notes, comments: includes(right, "comment") });
      response.json({ ...found, deck, right } satisfies DeckState);
    }),
  );

  routes.delete(
    "/decks/:deck",
    deckRoute(context, "delete", async ({ deck, user, response }) => {
      await deleteDeck(db, deck);
      await note(db, { user: user.id, act: "delete", deck });
      response.status(204).end();
    }),
  );

  routes.post(
    "/decks/:deck/copies",
    deckRoute(context, "copy", async ({ deck, user, right, notes, response }) => {
      const kept = { notes, comments: includes(right, "comment") };
      response.status(201).json({ id: await copyDeck(db, deck, user.id, kept) });
    }),
  );

  return routes;
}
