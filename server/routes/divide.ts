import { differsTable, tailorDeck } from "@unitext/core/divide";
import { Failure } from "@unitext/core/model";
import express, { Router } from "express";
import { nanoid } from "nanoid";
import { permit } from "../access";
import { type DeckAt, MergeRequest, type OriginalStates, SplitRequest, TailorRequest, VersionName } from "../api";
import {
  createDeck,
  deckAt,
  followersOf,
  forgetVersionName,
  loadBlobs,
  loadDeck,
  loadHistory,
  loadSteps,
  namedVersions,
  nameVersion,
  rightOn,
} from "../store";
import { type AppContext, body, deckRoute, numberOf, route } from "./context";
import { LIMITS } from "./decks";

/** Routes on several decks, or on the history of one: split, merge, tailor, history. */
export function divideRoutes(context: AppContext): Router {
  const { db } = context;
  const routes = Router();
  const json = express.json({ limit: LIMITS.json });

  routes.post(
    "/decks/:deck/parts",
    json,
    deckRoute(context, "copy", async ({ deck, user, request, response }) => {
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
      for (const { id } of asked.decks) permit(await rightOn(db, id, user.id), "copy", id);
      response.status(202).json({ job: await context.jobs.merge(user.id, asked) });
    }),
  );

  routes.post(
    "/decks/:deck/followers",
    json,
    deckRoute(context, "copy", async ({ deck: id, user, request, response }) => {
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
    deckRoute(context, "see", async ({ deck: id, user, response }) => {
      const { original } = (await loadDeck(db, id)).deck;
      if (!original) throw new Failure("not-found", id, "This deck follows no other.");
      if ((await rightOn(db, original.deck, user.id)) === undefined)
        throw new Failure(
          "not-found",
          original.deck,
          "The deck that this one follows was deleted, or is not shared with you any more.",
        );
      const { deck: now, version } = await loadDeck(db, original.deck);
      response.json({
        base: await deckAt(db, original.deck, Math.min(original.version, version)),
        now,
        version,
      } satisfies OriginalStates);
    }),
  );

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
