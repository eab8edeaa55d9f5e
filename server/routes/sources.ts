import { WORKBOOKS, workbookKind, checked, cutText, Failure } from "@unitext/core/model";
import { listExtensions } from "@unitext/core/formats/catalogue";
import express, { Router } from "express";
import {
  CellsAsked,
  type CellsFound,
  CellsSought,
  ReadingAsked,
  RefreshRequest,
  SourceAddress,
  type SourceList,
  TypedSheet,
} from "../api";
import { deleteSource, listSources, sourceBytes, sourceOf } from "../store";
import { fetchAgain, previewWorkbook, receiveAddress, receiveTyped, receiveWorkbook, rereadSource } from "../jobs";
import { type AppContext, asker, body, bytesOf, type Call, route } from "./context";
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

/** The largest workbook that is searched for pasted cells, in bytes, and how many are. */
const [MOST_SEARCHED, MOST_SOURCES] = [5 * 1024 * 1024, 12];

/** Routes for the workbooks that feed decks. */
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
    "/sources/preview",
    upload(LIMITS.file),
    route(async (call) => {
      const { request, response } = call;
      const name = workbookName(request.query.name);
      const language = String(request.query.language ?? "en").slice(0, 40);
      response.json(await previewWorkbook(context, { name, bytes: bytesOf(request), language }, asker(call)));
    }),
  );

  routes.post(
    "/sources/typed",
    json,
    route(async (call) => {
      const taken = await receiveTyped(context, body(TypedSheet, call.request), asker(call));
      call.response.status(taken.known ? 200 : 201).json(taken);
    }),
  );

  routes.put(
    "/sources/:source/reading",
    json,
    route(async (call) => {
      const source = await sourceOf(db, call.user.id, String(call.request.params.source));
      const { csv } = body(ReadingAsked, call.request);
      call.response.json(await rereadSource(context, source, csv, asker(call)));
    }),
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
      call.response.json(await work.run("workbook", { bytes, name: source.name, csv: source.csv }, asker(call)));
    }),
  );

  routes.get(
    "/sources/:source/cells",
    route(async (call) => {
      const source = await sourceOf(db, call.user.id, String(call.request.params.source));
      const asked = checked(CellsAsked, call.request.query, "The request");
      const bytes = await sourceBytes(db, source);
      call.response.json(
        await work.run("cells", { file: { bytes, name: source.name, csv: source.csv }, asked }, asker(call)),
      );
    }),
  );

  routes.post(
    "/sources/cells",
    json,
    route(async (call) => {
      const sought = body(CellsSought, call.request);
      const places: { source: string; range: string }[] = [];
      // Only the workbooks that changed last are searched.
      const newest = (await listSources(db, call.user.id))
        .filter(({ versions }) => (versions[0]?.size ?? 0) < MOST_SEARCHED)
        .sort((one, other) => ((one.versions[0]?.at ?? "") < (other.versions[0]?.at ?? "") ? 1 : -1))
        .slice(0, MOST_SOURCES);
      for (const { id } of newest) {
        const source = await sourceOf(db, call.user.id, id);
        const file = { bytes: await sourceBytes(db, source), name: source.name, csv: source.csv };
        const range = await work.run("cellsLike", { file, ...sought }, asker(call));
        if (range !== null) places.push({ source: id, range });
      }
      const [found, other] = places;
      call.response.json({ found: found && !other ? found : null } satisfies CellsFound);
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

  return routes;
}
