import { WORKBOOKS, workbookKind, bindingsOn, checked, cutText, type Deck, Failure } from "@unitext/core/model";
import { listExtensions } from "@unitext/core/formats/catalogue";
import express, { Router } from "express";
import {
  BindAsked,
  CellsAsked,
  type DeckBindings,
  RefreshRequest,
  SourceAddress,
  type SourceList,
  TakeAsked,
} from "../api";
import { bytesBefore, deleteSource, listSources, loadDeck, sourceBytes, sourceOf, sourcesOfDeck } from "../store";
import { fetchAgain, receiveAddress, receiveWorkbook } from "../jobs";
import { type AppContext, asker, body, bytesOf, type Call, type DeckCall, deckRoute, route } from "./context";
import { LIMITS, upload } from "./uploads";

/** Returns the name of an uploaded workbook. Throws a Failure `not-supported` for other files. */
function workbookName(value: unknown): string {
  const name = cutText(
    String(value ?? "")
      .toWellFormed()
      .replace(/\p{Cc}/gu, "")
      .replace(/^.*[/\\]/, ""),
    300,
  );
  if (!workbookKind(name))
    throw new Failure(
      "not-supported",
      name || "source",
      `This is no workbook: ${listExtensions(WORKBOOKS)} files are.`,
    );
  return name;
}

/** Takes a workbook as a new source, or as the newest version of the one with its name. */
async function receiveSource(context: AppContext, call: Call): Promise<void> {
  const { request, response } = call;
  const name = workbookName(request.query.name);
  const taken = await receiveWorkbook(context, { name, bytes: bytesOf(request), from: "dropped" }, asker(call));
  response.status(taken.known ? 200 : 201).json(taken);
}

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

/** Routes for the workbooks that feed decks, and for the values that decks take from them. */
export function sourceRoutes(context: AppContext): Router {
  const { db, work, jobs } = context;
  const routes = Router();
  const json = express.json({ limit: LIMITS.json });

  routes.get(
    "/sources",
    route(async ({ user, response }) =>
      response.json({ sources: await listSources(db, user.id) } satisfies SourceList),
    ),
  );

  routes.post(
    "/sources",
    upload(LIMITS.file),
    route((call) => receiveSource(context, call)),
  );

  routes.post(
    "/sources/address",
    json,
    route(async (call) => {
      const { address } = body(SourceAddress, call.request);
      const taken = await receiveAddress(context, address, context.sourceHosts ?? [], asker(call));
      call.response.status(taken?.known ? 200 : 201).json(taken);
    }),
  );

  routes.post(
    "/sources/:source/fetch",
    json,
    route(async (call) => {
      const source = await sourceOf(db, call.user.id, String(call.request.params.source));
      const { signal = new AbortController().signal } = asker(call);
      call.response.json({ fresh: await fetchAgain(context, source, context.sourceHosts ?? [], signal) });
    }),
  );

  routes.delete(
    "/sources/:source",
    route(async ({ user, request, response }) => {
      await deleteSource(db, user.id, String(request.params.source));
      response.status(204).end();
    }),
  );

  routes.get(
    "/sources/:source/contents",
    route(async (call) => {
      const source = await sourceOf(db, call.user.id, String(call.request.params.source));
      const bytes = await sourceBytes(db, source);
      call.response.json(await work.run("workbook", { bytes, name: source.name }, asker(call)));
    }),
  );

  routes.get(
    "/sources/:source/cells",
    route(async (call) => {
      const source = await sourceOf(db, call.user.id, String(call.request.params.source));
      const asked = checked(CellsAsked, call.request.query, "The request");
      const bytes = await sourceBytes(db, source);
      call.response.json(await work.run("cells", { file: { bytes, name: source.name }, asked }, asker(call)));
    }),
  );

  routes.get(
    "/sources/:source/file",
    route(async ({ user, request, response }) => {
      const source = await sourceOf(db, user.id, String(request.params.source));
      const version = request.query.version === undefined ? undefined : String(request.query.version);
      const bytes = await sourceBytes(db, source, version);
      response.attachment(source.name);
      response.type("application/octet-stream").send(Buffer.from(bytes));
    }),
  );

  routes.post(
    "/sources/:source/refresh",
    json,
    route(async ({ user, request, response }) => {
      const source = await sourceOf(db, user.id, String(request.params.source));
      const asked = body(RefreshRequest.omit({ source: true }), request);
      response.status(202).json({ job: await jobs.refresh(user.id, source.name, { source: source.id, ...asked }) });
    }),
  );

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
            now: { bytes: await sourceBytes(db, source), name: source.name },
            before: before && { bytes: before, name: source.name },
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
      const file = { bytes: await sourceBytes(db, source), name: source.name, version: source.newest };
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

  return routes;
}
