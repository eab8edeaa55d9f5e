import { DOCUMENTS, listExtensions } from "@unitext/core/formats/catalogue";
import { extensionOf, isPresentation, WRITABLE, WRITERS, type WritableFormat } from "@unitext/core/formats";
import { SHEETS, type Sheets } from "@unitext/core/layout";
import { cutText, Failure } from "@unitext/core/model";
import express, { Router } from "express";
import {
  ImportResult,
  type ChangeRequest,
  type DeckState,
  type DocumentText,
  type NewDeck,
  type Picture,
} from "../api";
import { fileNameOf } from "../jobs";
import {
  addBlobs,
  applyChanges,
  changesSince,
  copyDeck,
  createDeck,
  deleteDeck,
  listDecks,
  loadBlob,
  loadBlobs,
  loadDeck,
  loadFirstSlide,
  note,
} from "../store";
import { isSource } from "../work";
import { type AppContext, asker, bytesOf, deckRoute, largeBody, numberOf, route } from "./context";
import { sendRange } from "./range";

/** Upload limits in bytes. */
export const LIMITS = { file: 100 * 1024 * 1024, picture: 25 * 1024 * 1024, typed: 100 * 1024, json: 25 * 1024 * 1024 };

/** The first byte of a packed presentation, and of a flat one. */
const [ZIP, TAG] = [0x50, 0x3c];
const upload = (limit: number) => express.raw({ type: () => true, limit });

function format(value: unknown): WritableFormat {
  if (typeof value === "string" && WRITABLE.includes(value as WritableFormat)) return value as WritableFormat;
  throw new Failure("not-supported", "format", `Decks are written as ${WRITABLE.join(", ")}.`);
}

/** Returns what the pages of a PDF are to show. */
function sheetsAsked(value: unknown): Sheets {
  if (value === undefined) return "slides";
  const found = SHEETS.find((kind) => kind === value);
  if (!found) throw new Failure("not-valid", "sheets", `Pages show ${SHEETS.join(", ")}.`);
  return found;
}

/** Returns a header with a file name that every system accepts, in the form of RFC 6266. */
function disposition(title: string, extension: string): string {
  const name = `${fileNameOf(title)}.${extension}`;
  return `attachment; filename="${name.replace(/[^\x20-\x7e]/g, "_")}"; filename*=UTF-8''${encodeURIComponent(name)}`;
}

export function deckRoutes(context: AppContext): Router {
  const { db } = context;
  const routes = Router();

  routes.get(
    "/decks",
    route(async ({ user, response }) => response.json({ decks: await listDecks(db, user.id) })),
  );

  routes.post(
    "/decks",
    upload(LIMITS.json),
    route(async (call) => {
      const asked = await largeBody<NewDeck>(context, "deck", call);
      const { deck, blobs, text } = await context.work.run("text", asked, asker(call));
      call.response.status(201).json({ id: await createDeck(db, call.user.id, deck, blobs, text) });
    }),
  );

  routes.post(
    "/files",
    upload(LIMITS.file),
    route(async (call) => {
      const { user, request, response } = call;
      const name = String(request.query.name ?? "")
        .toWellFormed()
        .replaceAll("\u0000", "");
      const extension = extensionOf(name);
      if (!extension)
        throw new Failure("not-valid", "name", "Say the file's name with its ending, as in ?name=course.md.");
      const bytes = bytesOf(request);
      // A typed deck is made at once, unless it is very long; documents and presentations are read by a job.
      const typed =
        /^(md|txt)$/.test(extension) &&
        bytes.length > 0 &&
        bytes.length < LIMITS.typed &&
        (await context.work.run("typed", { bytes, name }, asker(call)));
      // A file that is not a package is refused at once, with the reader's message.
      if ((isSource(name) && !typed) || (isPresentation(name) && [ZIP, TAG].includes(bytes[0] ?? 0))) {
        if (bytes.length === 0) throw new Failure("not-readable", name, "The file is empty.");
        const { deck, job } = await context.jobs.read(user.id, name, bytes);
        response.status(202).json(ImportResult.parse({ id: deck, report: null, job }));
        return;
      }
      const { deck, blobs, text, report } = await context.work.run(
        extension === "pdf" ? "pages" : "file",
        { bytes, name },
        asker(call),
      );
      const id = await createDeck(db, user.id, deck, blobs, text, name.replace(/\.[^.]*$/, "") || null);
      response.status(201).json(ImportResult.parse({ id, report, job: null }));
    }),
  );

  routes.get(
    "/decks/:deck",
    deckRoute(context, "see", async ({ deck: id, right, response }) =>
      response.json({ ...(await loadDeck(db, id)), right } satisfies DeckState),
    ),
  );

  routes.get(
    "/decks/:deck/first",
    deckRoute(context, "see", async ({ deck: id, right, response }) =>
      response.json({ ...(await loadFirstSlide(db, id)), right } satisfies DeckState),
    ),
  );

  routes.delete(
    "/decks/:deck",
    deckRoute(context, "delete", async ({ deck, user, response }) => {
      await deleteDeck(db, deck);
      await note(db, { user: user.id, act: "delete", deck });
      response.status(204).end();
    }),
  );

  routes.post(
    "/decks/:deck/copies",
    deckRoute(context, "copy", async ({ deck, user, response }) =>
      response.status(201).json({ id: await copyDeck(db, deck, user.id) }),
    ),
  );

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
    deckRoute(context, "change", async (call) => {
      const { deck, user, right, response } = call;
      const asked = await largeBody<ChangeRequest>(context, "changes", call);
      try {
        response.json(await applyChanges(db, deck, user.id, asked));
      } catch (error) {
        if (!(error instanceof Failure) || error.code !== "conflict") throw error;
        const state: DeckState = { ...(await loadDeck(db, deck)), right };
        response.status(409).json({ error: { code: error.code, where: error.where, message: error.message }, state });
      }
    }),
  );

  routes.get(
    "/decks/:deck/events",
    deckRoute(context, "see", async ({ deck, user, response }) =>
      context.announcements.stream(deck, user.id, response),
    ),
  );

  routes.get(
    "/decks/:deck/report",
    deckRoute(context, "export", async (call) => {
      const { deck, request, response } = call;
      const asked = { format: format(request.query.format), sheets: sheetsAsked(request.query.sheets) };
      response.json(await context.work.run("report", { deck: (await loadDeck(db, deck)).deck, ...asked }, asker(call)));
    }),
  );

  routes.get(
    "/decks/:deck/export",
    deckRoute(context, "export", async (call) => {
      const { deck: id, user, request, response } = call;
      const [as, sheets] = [format(request.query.format), sheetsAsked(request.query.sheets)];
      const { deck } = await loadDeck(db, id);
      const bytes = await context.work.run(
        "write",
        { fonts: context.fonts, deck, blobs: await loadBlobs(db, id), at: Date.now(), format: as, sheets },
        asker(call),
      );
      await note(db, { user: user.id, act: "export", deck: id, detail: as });
      response.setHeader("content-type", WRITERS[as].mediaType);
      response.setHeader("content-disposition", disposition(deck.properties.title, WRITERS[as].archive ? "zip" : as));
      response.send(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
    }),
  );

  routes.post(
    "/decks/:deck/documents",
    upload(LIMITS.file),
    deckRoute(context, "change", async (call) => {
      const { deck, request, response } = call;
      const name = String(request.query.name ?? "");
      if (!isSource(name))
        throw new Failure(
          "not-supported",
          name,
          `This is no document that slides can be made from again: ${listExtensions(DOCUMENTS)} are.`,
        );
      const { document, blobs } = await context.work.run("document", { bytes: bytesOf(request), name }, asker(call));
      await addBlobs(db, deck, blobs);
      response.json(document satisfies DocumentText);
    }),
  );

  routes.post(
    "/decks/:deck/pictures",
    upload(LIMITS.picture),
    deckRoute(context, "addPicture", async (call) => {
      const { deck, request, response } = call;
      const name = cutText(
        String(request.query.name ?? "")
          .toWellFormed()
          .replace(/\p{Cc}/gu, ""),
        200,
      );
      const { assets, blobs } = await context.work.run("picture", { bytes: bytesOf(request), name }, asker(call));
      const [asset, bytes] = [assets[name], [...blobs.values()][0]];
      if (!asset || !bytes || !name)
        throw new Failure(
          "not-readable",
          name || "picture",
          "The picture is no PNG, JPEG, GIF, SVG, WMF, EMF, TIFF or BMP file that can be read, it has more dots than a slide can use, or it has no name.",
        );
      await addBlobs(db, deck, new Map([[asset.sha256, bytes]]));
      response.status(201).json({ name, ...asset } satisfies Picture);
    }),
  );

  routes.get(
    "/decks/:deck/pictures/:sha256",
    deckRoute(context, "see", async ({ deck, request, response }) => {
      const { mediaType, bytes } = await loadBlob(db, deck, String(request.params.sha256).replaceAll("\0", ""));
      response.setHeader("content-type", mediaType);
      // Content of a drawing is neither run nor fetched, wherever it is opened.
      response.setHeader("content-security-policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox");
      if (!mediaType.startsWith("image/")) response.setHeader("content-disposition", "attachment");
      response.setHeader("cache-control", "private, max-age=31536000, immutable");
      sendRange(request, response, Buffer.from(bytes));
    }),
  );

  return routes;
}
