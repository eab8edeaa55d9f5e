import { checked, type Deck, Failure, Id } from "@unitext/core/model";
import express, { type Request, Router } from "express";
import { LRUCache } from "lru-cache";
import { PageAsked, type PageDeck, type PublishedPages } from "../api";
import {
  changePage,
  countView,
  createPage,
  deckOfPage,
  listPages,
  loadBlob,
  pageNews,
  pageOf,
  removePage,
  slideToDrawOf,
  type StoredPage,
  versionOf,
  viewedOf,
} from "../store";
import { type AppContext, body, deckRoute, openRoute } from "./context";
import { type Drawings, sendDrawing } from "./drawings";
import { bytesAtHand, sendRange } from "./range";

/** How many decks of fixed versions are kept, since each has to be made from the log. */
const FIXED = 12;
/** How long a drawing for a page may take, in milliseconds. */
const DRAWING = 30_000;

/** Routes of the owner: the pages as which a deck is published. */
export function publishingRoutes(context: AppContext): Router {
  const { db } = context;
  const routes = Router();
  const json = express.json({ limit: "20kb" });
  const listed = async (deck: string): Promise<PublishedPages> => ({
    version: await versionOf(db, deck),
    pages: await listPages(db, deck),
  });
  const pageId = (request: Request) => checked(Id, request.params.page, "The page");

  routes.get(
    "/decks/:deck/pages",
    deckRoute(context, "share", async ({ deck, response }) => response.json(await listed(deck))),
  );
  routes.post(
    "/decks/:deck/pages",
    json,
    deckRoute(context, "share", async ({ deck, user, request, response }) => {
      await createPage(db, deck, body(PageAsked, request), user.id);
      response.status(201).json(await listed(deck));
    }),
  );
  routes.put(
    "/decks/:deck/pages/:page",
    json,
    deckRoute(context, "share", async ({ deck, request, response }) => {
      await changePage(db, deck, pageId(request), body(PageAsked, request));
      response.json(await listed(deck));
    }),
  );
  routes.delete(
    "/decks/:deck/pages/:page",
    deckRoute(context, "share", async ({ deck, user, request, response }) => {
      await removePage(db, deck, pageId(request), user.id);
      response.json(await listed(deck));
    }),
  );
  return routes;
}

/** Routes of a published page. They need no session, set no cookie, and count views without knowing whose. */
export function pageRoutes(context: AppContext, drawings: Drawings): Router {
  const { db, announcements } = context;
  const routes = Router();
  const fixed = new LRUCache<string, Deck>({ max: FIXED });

  const shownAt = async (request: Request): Promise<{ page: StoredPage; deck: Deck; version: number }> => {
    const page = await pageOf(db, String(request.params.page).replaceAll("\0", ""));
    const key = `${page.deck} ${page.version}`;
    const kept = page.version === null ? undefined : fixed.get(key);
    if (kept && page.version !== null) return { page, deck: kept, version: page.version };
    const { deck, version } = await deckOfPage(db, page);
    if (page.version !== null) fixed.set(key, deck);
    return { page, deck, version };
  };
  const asker = ({ ip = "" }: Request) => ({ owner: `visitor ${ip}`, signal: AbortSignal.timeout(DRAWING) });
  const slideId = (request: Request) => checked(Id, request.params.slide, "The slide");

  routes.get(
    "/pages/:page/look",
    openRoute(async ({ request, response }) => {
      const { page, deck, version } = await shownAt(request);
      if (request.query.view === "new") await countView(db, page.id);
      const delays = deck.slides.flatMap(({ id, delay }) => (delay === undefined ? [] : [[id, delay] as const]));
      response.json({
        deck: { ...viewedOf(deck, version), right: "view", notes: page.notes },
        turning: page.turning,
        delays: Object.fromEntries(delays),
      } satisfies PageDeck);
    }),
  );
  routes.get(
    "/pages/:page/look/:slide",
    openRoute(async ({ request, response }) => {
      const { page, deck, version } = await shownAt(request);
      const placed = slideToDrawOf(deck, version, slideId(request));
      response.json(await drawings.view(placed, { notes: page.notes, comments: false }, asker(request)));
    }),
  );
  routes.get(
    "/pages/:page/drawings/:slide",
    openRoute(async ({ request, response }) => {
      const { deck, version } = await shownAt(request);
      const drawn = await drawings.draw(slideToDrawOf(deck, version, slideId(request)), asker(request));
      sendDrawing(response, drawn, request.query.version === String(version));
    }),
  );
  routes.get(
    "/pages/:page/pictures/:sha256",
    openRoute(async ({ request, response }) => {
      const { page, deck } = await shownAt(request);
      const sum = String(request.params.sha256);
      // Films and sounds of the slides, and nothing else that belongs to the deck.
      const shown = Object.values(deck.assets).find(
        ({ sha256, mediaType }) => sha256 === sum && /^(image|audio|video)\//.test(mediaType),
      );
      if (!shown) throw new Failure("not-found", "file", "This page has no such file.");
      const { mediaType, bytes } = await loadBlob(db, page.deck, sum);
      response.setHeader("content-type", mediaType);
      response.setHeader("content-security-policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox");
      response.setHeader("cache-control", "public, max-age=86400");
      await sendRange(request, response, bytesAtHand(Buffer.from(bytes)));
    }),
  );
  routes.get(
    "/pages/:page/events",
    openRoute(async ({ request, response }) => {
      const { id } = await pageOf(db, String(request.params.page).replaceAll("\0", ""));
      announcements.streamNews(pageNews(id), response, asker(request).owner);
    }),
  );
  return routes;
}
