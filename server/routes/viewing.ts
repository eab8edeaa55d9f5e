import { checked, elementWords, Id } from "@unitext/core/model";
import { Router } from "express";
import { LRUCache } from "lru-cache";
import { includes } from "../access";
import type { ViewedDeck, ViewedSlide } from "../api";
import { picturesOfSlide, slideToDraw, viewedDeck } from "../store";
import { type AppContext, asker, deckRoute } from "./context";

/** How many characters of drawings are kept, so that many viewers of a slide cost one drawing. */
const KEPT = 64 * 1024 * 1024;

/** Routes of the viewer's page: the slides of a deck as drawings that the server makes, so that the page stays light. */
export function viewingRoutes(context: AppContext): Router {
  const { db, work, fonts } = context;
  const routes = Router();
  const drawings = new LRUCache<string, string>({ maxSize: KEPT, sizeCalculation: (svg) => svg.length || 1 });

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
      const { version: _, ...placed } = await slideToDraw(db, deck, checked(Id, request.params.slide, "The slide"));
      const viewed = await work.run("viewSlide", { fonts, ...placed }, asker(call));
      const { comments = [], elements } = placed.slide;
      response.json({
        ...viewed,
        notes: notes ? viewed.notes : null,
        comments: includes(right, "comment") ? comments : null,
        texts: elements.flatMap((element) => {
          const text = elementWords(element);
          return text.trim() ? [{ id: element.id, text }] : [];
        }),
      } satisfies ViewedSlide);
    }),
  );

  routes.get(
    "/decks/:deck/drawings/:slide",
    deckRoute(context, "look", async (call) => {
      const { deck, request, response } = call;
      const id = checked(Id, request.params.slide, "The slide");
      const { shown: _, version, ...placed } = await slideToDraw(db, deck, id);
      const key = `${deck} ${version} ${id}`;
      const drawn =
        drawings.get(key) ??
        (await work.run("drawSlide", { fonts, ...placed, pictures: await picturesOfSlide(db, placed) }, asker(call)));
      drawings.set(key, drawn);
      response.set({
        "content-type": "image/svg+xml; charset=utf-8",
        "content-security-policy": "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox",
        // The address names the version; a drawing that is newer than it is asked for again.
        "cache-control":
          request.query.version === String(version) ? "private, max-age=86400, immutable" : "private, no-store",
      });
      response.send(drawn);
    }),
  );
  return routes;
}
