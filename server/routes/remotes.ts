import { Failure } from "@unitext/core/model";
import express, { type NextFunction, type Request, type RequestHandler, type Response, Router } from "express";
import { Pressed, type Remote, type Talk, TalkState } from "../api";
import { announceTalk, createRemote, endRemote, loadBlob, loadDeck, newsOf, remoteOf, setTalkState } from "../store";
import { type AppContext, body, deckRoute } from "./context";
import { isLoopback } from "./origin";
import { bytesAtHand, sendRange } from "./range";

/** Paths that other computers of the network may ask for in the demo: the page for a phone, and what links lead to. */
const FOR_OTHERS =
  /^\/(?:remote\/|api\/remote\/|view\/|hand-in\/|page\/|oembed|api\/(?:links|hand-in|receipts|pages)\/|api\/entrance|api\/decks\/|assets\/|fonts\/|favicon)/;

/**
 * In the demo, whose user signs in without a password, answers other computers only on the paths for phones and for
 * links, which need a token or a session.
 */
export const onlyLinks: RequestHandler = ({ socket, path }, _, next) => {
  next(
    isLoopback(socket.remoteAddress) || FOR_OTHERS.test(path)
      ? undefined
      : new Failure(
          "not-permitted",
          "address",
          "From another computer only links and the page for a phone can be opened, because this is the demo.",
        ),
  );
};

type Handle = (request: Request, response: Response, token: string) => Promise<unknown>;
const tokenRoute =
  (handle: Handle): RequestHandler =>
  (request: Request, response: Response, next: NextFunction) => {
    handle(request, response, String(request.params.token)).catch(next);
  };

/** Routes for whoever has the link of a talk: the deck, what is shown, and what is pressed. */
export function phoneRoutes({ db, announcements }: AppContext): Router {
  const routes = Router();
  const json = express.json({ limit: "10kb" });
  routes.get(
    "/remote/:token",
    tokenRoute(async (_, response, token) => {
      const { deck, state } = await remoteOf(db, token);
      response.json({ deck: (await loadDeck(db, deck)).deck, state } satisfies Talk);
    }),
  );
  routes.get(
    "/remote/:token/pictures/:sha256",
    tokenRoute(async (request, response, token) => {
      const { deck } = await remoteOf(db, token);
      const { mediaType, bytes } = await loadBlob(db, deck, String(request.params.sha256).replaceAll("\0", ""));
      response.setHeader("content-type", mediaType);
      response.setHeader("content-security-policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox");
      response.setHeader("cache-control", "private, max-age=3600");
      await sendRange(request, response, bytesAtHand(Buffer.from(bytes)));
    }),
  );
  routes.get(
    "/remote/:token/events",
    tokenRoute(async (_, response, token) => {
      const { hash } = await remoteOf(db, token);
      announcements.streamNews(newsOf(hash), response);
    }),
  );
  routes.post(
    "/remote/:token/presses",
    json,
    tokenRoute(async (request, response, token) => {
      const { hash } = await remoteOf(db, token);
      await announceTalk(db, hash, { kind: "press", press: body(Pressed, request).press });
      response.status(204).end();
    }),
  );
  return routes;
}

/** Routes of the speaker: makes the link, says what is shown, and ends the talk. */
export function remoteRoutes(context: AppContext): Router {
  const { db } = context;
  const routes = Router();
  const json = express.json({ limit: "10kb" });
  routes.post(
    "/decks/:deck/remote",
    deckRoute(context, "see", async ({ deck, response }) => {
      const { token, expiresAt } = await createRemote(db, deck);
      response.status(201).json({
        token,
        expiresAt: expiresAt.toISOString(),
        addresses: [...(context.addresses ?? [])],
      } satisfies Remote);
    }),
  );
  routes.put(
    "/decks/:deck/remote/:token",
    json,
    deckRoute(context, "see", async ({ deck, request, response }) => {
      const found = await remoteOf(db, String(request.params.token));
      if (found.deck !== deck) throw new Failure("not-found", "link", "This link is of another deck.");
      await setTalkState(db, found.hash, body(TalkState, request));
      response.status(204).end();
    }),
  );
  routes.delete(
    "/decks/:deck/remote/:token",
    deckRoute(context, "see", async ({ deck, request, response }) => {
      const found = await remoteOf(db, String(request.params.token));
      if (found.deck !== deck) throw new Failure("not-found", "link", "This link is of another deck.");
      await endRemote(db, found.hash);
      response.status(204).end();
    }),
  );
  return routes;
}
