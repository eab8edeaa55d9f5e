import { differsTable, tailorDeck } from "@unitext/core/divide";
import { type Deck, Failure } from "@unitext/core/model";
import express, { Router } from "express";
import { nanoid } from "nanoid";
import { type OriginalStates, TailorRequest } from "../api";
import { createDeck, deckAt, followersOf, loadBlobs, loadDeck, rightOn, storedTargets } from "../store";
import { type AppContext, asker, body, deckRoute } from "./context";
import { LIMITS } from "./uploads";

/** Routes for tailored copies of a deck: making them, comparing them, and the original that a copy follows. */
export function followerRoutes(context: AppContext): Router {
  const { db } = context;
  const routes = Router();
  const json = express.json({ limit: LIMITS.json });

  routes.post(
    "/decks/:deck/followers",
    json,
    deckRoute(context, "derive", async ({ deck: id, user, request, response }) => {
      const { title } = body(TailorRequest, request);
      const { deck, version } = await loadDeck(db, id);
      response.status(201).json({
        id: await createDeck(
          db,
          user.id,
          tailorDeck({ deck, version }, nanoid(12), title, () => nanoid(10)),
          await loadBlobs(db, id),
          null,
        ),
      });
    }),
  );

  routes.get(
    "/decks/:deck/followers",
    deckRoute(context, "see", async ({ deck, user, response }) =>
      response.json({ decks: await followersOf(db, deck, user.id) }),
    ),
  );

  routes.get(
    "/decks/:deck/differs",
    deckRoute(context, "see", async ({ deck: id, user, response }) => {
      const followers = await followersOf(db, id, user.id);
      const { deck } = await loadDeck(db, id);
      const table = differsTable(
        deck,
        await Promise.all(followers.map(async (one) => (await loadDeck(db, one.id)).deck)),
      );
      response.json({
        decks: followers,
        rows: table.rows.map(({ slide, number: nth, states }) => ({ slide: slide.id, number: nth, states })),
        own: table.own.map((list) => list.map(({ id: slide }) => slide)),
      });
    }),
  );

  routes.get(
    "/decks/:deck/original",
    deckRoute(context, "see", async (call) => {
      const { deck: id, user, response } = call;
      const { deck: own } = await loadDeck(db, id);
      const { original } = own;
      if (!original) throw new Failure("not-found", id, "This deck follows no other.");
      if ((await rightOn(db, original.deck, user.id)) === undefined)
        throw new Failure(
          "not-found",
          original.deck,
          "The deck that this one follows was deleted, or is not shared with you any more.",
        );
      const { deck: now, version } = await loadDeck(db, original.deck);
      const base = await deckAt(db, original.deck, Math.min(original.version, version));
      // A translation is compared with its original in the words of the translation.
      const stored = original.language ? await storedTargets(db, id) : [];
      const shown = (state: Deck) =>
        original.language ? context.work.run("inWordsOf", { original: state, own, stored }, asker(call)) : state;
      response.json({ base: await shown(base), now: await shown(now), version } satisfies OriginalStates);
    }),
  );

  return routes;
}
