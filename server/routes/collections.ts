import { createHash } from "node:crypto";
import { extensionOf } from "@unitext/core/formats";
import { checked, deckFor, Failure, Id } from "@unitext/core/model";
import express, { type Request, Router } from "express";
import { permit } from "../access";
import { CollectionAsked, CollectionChange, type CollectionList, HandInAsked } from "../api";
import {
  accessOn,
  changeCollection,
  collectionFace,
  collectionWith,
  collectionWithHandIns,
  copyDeck,
  createCollection,
  deleteCollection,
  isToken,
  listCollections,
  loadDeck,
  nameOfParts,
  noteHandIn,
  ownCollection,
  receiptOf,
  type StoredCollection,
} from "../store";
import { type AppContext, body, bytesOf, openRoute, route } from "./context";
import { bringIn } from "./files";
import { LIMITS, upload } from "./uploads";
import { visitorOf } from "./visitor";

/** How long a short text that is handed in may take to be read, in milliseconds. */
const READING = 60_000;

const sha256 = (bytes: Uint8Array | string) => createHash("sha256").update(bytes).digest("hex");

/** Routes of the person who collects: collections, what was handed in, and who is missing. */
export function collectionRoutes(context: AppContext): Router {
  const { db, key } = context;
  const routes = Router();
  const json = express.json({ limit: "200kb" });
  const token = (text: string) => key.token(text);
  const idOf = (request: Request) => checked(Id, request.params.collection, "The collection");

  routes.get(
    "/collections",
    route(async ({ user, response }) =>
      response.json({ collections: await listCollections(db, user.id) } satisfies CollectionList),
    ),
  );
  routes.post(
    "/collections",
    json,
    route(async ({ user, request, response }) => {
      const id = await createCollection(db, user.id, body(CollectionAsked, request), token);
      response.status(201).json({ id });
    }),
  );
  routes.get(
    "/collections/:collection",
    route(async ({ user, request, response }) =>
      response.json(await collectionWithHandIns(db, await ownCollection(db, user.id, idOf(request)), token)),
    ),
  );
  routes.put(
    "/collections/:collection",
    json,
    route(async ({ user, request, response }) => {
      const { id } = await ownCollection(db, user.id, idOf(request));
      await changeCollection(db, id, body(CollectionChange, request));
      response.json(await collectionWithHandIns(db, await ownCollection(db, user.id, id), token));
    }),
  );
  routes.delete(
    "/collections/:collection",
    route(async ({ user, request, response }) => {
      await deleteCollection(db, (await ownCollection(db, user.id, idOf(request))).id);
      response.status(204).end();
    }),
  );
  return routes;
}

/** Routes of whoever hands in. They need no account; the page of a collection is reached by its link. */
export function handInRoutes(context: AppContext): Router {
  const { db, throttle } = context;
  const routes = Router();

  /** Returns the collection of an address. Addresses that lead nowhere are counted. */
  const collectionAt = async (request: Request): Promise<StoredCollection> => {
    const attempt = { address: request.ip ?? "" };
    await throttle.count(attempt);
    const found = await collectionWith(db, String(request.params.token).replaceAll("\0", ""));
    await throttle.forgive(attempt);
    return found;
  };
  const openCollection = async (request: Request): Promise<StoredCollection> => {
    const found = await collectionAt(request);
    if (found.closed)
      throw new Failure("not-permitted", "collection", "This collection is closed. Ask whoever collects to open it.");
    return found;
  };

  routes.get(
    "/hand-in/:token",
    openRoute(async ({ request, response }) => response.json(await collectionFace(db, await collectionAt(request)))),
  );

  routes.post(
    "/hand-in/:token/files",
    upload(LIMITS.file),
    openRoute(async ({ request, response }) => {
      const collection = await openCollection(request);
      const given = [request.query.part ?? []].flat().map(String);
      const name = nameOfParts(collection.parts, given);
      const file = String(request.query.name ?? "")
        .toWellFormed()
        .replace(/\p{Cc}/gu, "")
        .slice(0, 300);
      const extension = extensionOf(file);
      const format = collection.formats.find((one) => one === extension);
      if (!format)
        throw new Failure(
          "not-supported",
          file || "file",
          `Files of this kind are not collected here: ${collection.formats.map((one) => `.${one}`).join(", ")} are.`,
        );
      const bytes = bytesOf(request);
      if (bytes.length === 0) throw new Failure("not-readable", file, "The file is empty.");
      // The deck has the name of the scheme, by which it is found and ordered.
      const { id: deck, job } = await bringIn(
        context,
        { name: `${name}.${format}`, bytes },
        { owner: collection.owner, signal: AbortSignal.timeout(READING) },
      );
      const size = bytes.length;
      const code = await noteHandIn(db, collection, { name, file, sha256: sha256(bytes), size, deck, job });
      response.status(202).json(await receiptOf(db, code));
    }),
  );

  routes.post(
    "/hand-in/:token/decks",
    express.json({ limit: "10kb" }),
    openRoute(async ({ request, response }) => {
      const collection = await openCollection(request);
      const { parts, deck: id } = body(HandInAsked, request);
      const user = visitorOf(response);
      const access = user && (await accessOn(db, id, user.id));
      permit(access?.right, "copy", id, access?.notes);
      const name = nameOfParts(collection.parts, parts);
      const notes = access?.notes ?? false;
      const { deck: whole } = await loadDeck(db, id);
      const given = JSON.stringify(deckFor(whole, { notes, comments: false }));
      const deck = await copyDeck(db, id, collection.owner, { notes, comments: false }, name);
      const code = await noteHandIn(db, collection, {
        name,
        file: whole.properties.title,
        sha256: sha256(given),
        size: given.length,
        deck,
        job: null,
      });
      response.status(202).json(await receiptOf(db, code));
    }),
  );

  routes.get(
    "/receipts/:code",
    openRoute(async ({ request, response }) => {
      const code = String(request.params.code);
      response.json(await receiptOf(db, isToken(code) ? code : ""));
    }),
  );
  return routes;
}
