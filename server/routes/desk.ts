import { checked, Failure, Id } from "@unitext/core/model";
import express, { Router } from "express";
import { DeckFolder, type DeckList, DeckTitle, FolderName, type Found } from "../api";
import {
  createFolder,
  deleteFolder,
  listDecks,
  listFolders,
  note,
  putInFolder,
  renameDeck,
  renameFolder,
  searchSlides,
  setBinned,
} from "../store";
import { type AppContext, body, deckRoute, route } from "./context";

/** The longest search, in characters. */
const LONGEST = 200;

/** Routes of the Desk: the list of decks, folders, names, the bin, and search by words. */
export function deskRoutes(context: AppContext): Router {
  const { db } = context;
  const routes = Router();
  const json = express.json({ limit: "20kb" });

  routes.get(
    "/decks",
    route(async ({ user, response }) => {
      const all = await listDecks(db, user.id);
      response.json({
        decks: all.filter(({ binnedAt }) => binnedAt === null),
        binned: all.filter(({ binnedAt, right }) => binnedAt !== null && right === "own"),
        folders: await listFolders(db, user.id),
      } satisfies DeckList);
    }),
  );

  routes.get(
    "/search",
    route(async ({ user, request, response }) => {
      const words = String(request.query.words ?? "").trim();
      if (words.length > LONGEST)
        throw new Failure("too-large", "words", `Search for at most ${LONGEST} characters at once.`);
      response.json({ slides: words ? await searchSlides(db, user.id, words) : [] } satisfies Found);
    }),
  );

  routes.post(
    "/folders",
    json,
    route(async ({ user, request, response }) => {
      const { name } = body(FolderName, request);
      response.status(201).json({ id: await createFolder(db, user.id, name) });
    }),
  );
  routes.put(
    "/folders/:folder",
    json,
    route(async ({ user, request, response }) => {
      await renameFolder(db, user.id, folderOf(request), body(FolderName, request).name);
      response.status(204).end();
    }),
  );
  routes.delete(
    "/folders/:folder",
    route(async ({ user, request, response }) => {
      await deleteFolder(db, user.id, folderOf(request));
      response.status(204).end();
    }),
  );

  routes.put(
    "/decks/:deck/title",
    json,
    deckRoute(context, "change", async ({ deck, user, request, response }) => {
      await renameDeck(db, deck, user.id, body(DeckTitle, request).title);
      response.status(204).end();
    }),
  );
  routes.put(
    "/decks/:deck/folder",
    json,
    deckRoute(context, "file", async ({ deck, user, request, response }) => {
      await putInFolder(db, deck, user.id, body(DeckFolder, request).folder);
      response.status(204).end();
    }),
  );
  routes.put(
    "/decks/:deck/bin",
    deckRoute(context, "delete", async ({ deck, user, response }) => {
      await setBinned(db, deck, true);
      await note(db, { user: user.id, act: "delete", deck, detail: "bin" });
      response.status(204).end();
    }),
  );
  routes.delete(
    "/decks/:deck/bin",
    deckRoute(context, "delete", async ({ deck, user, response }) => {
      await setBinned(db, deck, false);
      await note(db, { user: user.id, act: "restore", deck, detail: "bin" });
      response.status(204).end();
    }),
  );
  return routes;
}

const folderOf = (request: express.Request): string => checked(Id, request.params.folder, "The folder");
