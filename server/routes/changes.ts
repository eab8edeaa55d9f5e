import { isCommentChange, singles } from "@unitext/core/edit";
import { Failure } from "@unitext/core/model";
import express, { Router } from "express";
import { includes, permit } from "../access";
import { type ChangeReply, type ChangeRequest, type DeckState, Presence } from "../api";
import { announcePresence, applyChanges, changesSince, loadDeck } from "../store";
import { commentCheck } from "./comments";
import { type AppContext, body, type DeckCall, deckRoute, largeBody, numberOf } from "./context";
import { LIMITS, upload } from "./uploads";

/** Throws a Failure unless the visitor may make the changes: comments with the right to comment, all others with that to edit. */
function permitChanges({ deck, right, notes }: DeckCall, { changes }: ChangeRequest): void {
  const commentsAlone = changes.every(
    ({ change, text }) => text === undefined && singles(change).every(isCommentChange),
  );
  permit(right, commentsAlone ? "comment" : "change", deck, notes);
}

/** Returns the reply without the changes of others, which may hold notes. */
const ownPart = ({ version, changes }: ChangeReply): ChangeReply => ({
  version,
  changes: changes.map(({ version: at, id }) => ({ version: at, id })),
});

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
    deckRoute(context, "comment", async (call) => {
      const { deck, user, right, notes, response } = call;
      const asked = await largeBody<ChangeRequest>(context, "changes", call);
      permitChanges(call, asked);
      try {
        const reply = await applyChanges(db, deck, user.id, asked, { check: commentCheck(user, right) });
        response.json(notes ? reply : ownPart(reply));
      } catch (error) {
        if (!(error instanceof Failure) || error.code !== "conflict" || !notes) throw error;
        const state: DeckState = { ...(await loadDeck(db, deck)), right };
        response.status(409).json({ error: { code: error.code, where: error.where, message: error.message }, state });
      }
    }),
  );

  routes.get(
    "/decks/:deck/events",
    deckRoute(context, "look", async ({ deck, user, right, response }) =>
      // Whoever came by a link to look alone does not learn who works in the deck.
      context.announcements.stream(deck, user.id, response, user.role !== "guest" || includes(right, "comment")),
    ),
  );

  routes.post(
    "/decks/:deck/presence",
    express.json({ limit: "2kb" }),
    deckRoute(context, "look", async ({ deck, user, right, request, response }) => {
      const said = body(Presence, request);
      // Only whoever may edit the deck can ask others not to.
      const speaking = said.speaking && includes(right, "edit");
      await announcePresence(db, deck, { ...said, speaking, user: user.id, name: user.name });
      response.status(204).end();
    }),
  );

  return routes;
}
