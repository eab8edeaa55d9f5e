import { bindingsOn, type Deck, Failure } from "@unitext/core/model";
import express, { Router } from "express";
import { BindAsked, type DeckBindings, TakeAsked, TakeOut, type WorkbooksInside } from "../api";
import { receiveWorkbook } from "../jobs";
import { bytesBefore, loadBlobs, loadDeck, sourceBytes, sourceOf, sourcesOfDeck } from "../store";
import { type AppContext, asker, body, type DeckCall, deckRoute } from "./context";
import { LIMITS } from "./uploads";

/** Compares a deck with its sources; `take` are the keys of the bindings whose new values are wanted. */
async function compare(context: AppContext, call: DeckCall, take: readonly string[]): Promise<DeckBindings> {
  const { db, work } = context;
  const { deck, version } = await loadDeck(db, call.deck);
  const compared = await work.run(
    "refresh",
    {
      deck,
      files: await sourcesOfDeck(db, call.deck, namesIn(deck)),
      take,
      takenAt: new Date().toISOString(),
      takenBy: call.user.name,
    },
    asker(call),
  );
  return { version, ...compared };
}

const namesIn = ({ slides }: Deck) => [
  ...new Set(slides.flatMap((slide) => bindingsOn(slide).map(({ binding }) => binding.source))),
];

/** Lists the workbooks inside the file of a deck. */
async function inside(context: AppContext, call: DeckCall) {
  const { deck } = await loadDeck(context.db, call.deck);
  if (!deck.slides.some(({ sourcePart }) => sourcePart)) return [];
  return context.work.run("inside", { deck, blobs: await loadBlobs(context.db, call.deck) }, asker(call));
}

/** Routes for the values that a deck takes from workbooks. */
export function bindingRoutes(context: AppContext): Router {
  const { db, work } = context;
  const routes = Router();
  const json = express.json({ limit: LIMITS.json });

  routes.get(
    "/decks/:deck/bindings",
    deckRoute(context, "see", async (call) => call.response.json(await compare(context, call, []))),
  );

  routes.get(
    "/decks/:deck/typed-numbers",
    deckRoute(context, "see", async (call) => {
      const source = await sourceOf(db, call.user.id, String(call.request.query.source ?? ""));
      const { deck } = await loadDeck(db, call.deck);
      const before = await bytesBefore(db, source);
      call.response.json(
        await work.run(
          "repeated",
          {
            deck,
            now: { bytes: await sourceBytes(db, source), name: source.name, csv: source.csv },
            before: before && { bytes: before, name: source.name, csv: source.csv },
          },
          asker(call),
        ),
      );
    }),
  );

  routes.post(
    "/decks/:deck/bindings/take",
    json,
    deckRoute(context, "change", async (call) =>
      call.response.json(await compare(context, call, body(TakeAsked, call.request).take)),
    ),
  );

  routes.post(
    "/decks/:deck/bindings",
    json,
    deckRoute(context, "change", async (call) => {
      const { source: id, ...asked } = body(BindAsked, call.request);
      const source = await sourceOf(db, call.user.id, id);
      const { deck } = await loadDeck(db, call.deck);
      const file = { bytes: await sourceBytes(db, source), name: source.name, csv: source.csv, version: source.newest };
      call.response.json(
        await work.run(
          "bind",
          {
            file,
            request: { ...asked, source: source.name },
            language: deck.language,
            takenAt: new Date().toISOString(),
            takenBy: call.user.name,
          },
          asker(call),
        ),
      );
    }),
  );

  routes.get(
    "/decks/:deck/workbooks",
    deckRoute(context, "see", async (call) => {
      const workbooks = (await inside(context, call)).map(({ bytes, ...one }) => ({
        ...one,
        size: bytes?.length ?? null,
      }));
      call.response.json({ workbooks } satisfies WorkbooksInside);
    }),
  );

  routes.post(
    "/decks/:deck/workbooks",
    json,
    deckRoute(context, "derive", async (call) => {
      const { slideId, path } = body(TakeOut, call.request);
      const found = (await inside(context, call)).find((one) => one.slideId === slideId && one.path === path);
      if (!found?.bytes) throw new Failure("not-found", path, "The file of this deck has no such workbook.");
      const { deck } = await loadDeck(db, call.deck);
      const title = deck.properties.title.replace(/[/\\:*?"<>|]/g, " ").trim() || "Deck";
      const name = `${title}, slide ${found.slide}, ${found.name}`;
      call.response
        .status(201)
        .json(await receiveWorkbook(context, { name, bytes: found.bytes, from: "file" }, asker(call)));
    }),
  );

  return routes;
}
