import { createHash } from "node:crypto";
import { checkText, extensionOf, isPresentation, readDeck, type ReadResult, readSource, type SourceKind, takePictures, WRITABLE, WRITERS, type WritableFormat, writeReport } from "@unitext/core/formats";
import { generateDeck } from "@unitext/core/generate";
import { newSlide } from "@unitext/core/edit";
import { SHEETS, type Sheets } from "@unitext/core/layout";
import { DEFAULT_RULE, Failure, plainText } from "@unitext/core/model";
import { report, tally } from "@unitext/core/tally";
import { readText } from "@unitext/core/text";
import express, { Router } from "express";
import { nanoid } from "nanoid";
import { Brought, ChangeRequest, type DeckState, type DocumentText, NewDeck, type Picture } from "../api";
import { isSource } from "../jobs";
import { addBlob, addBlobs, applyChanges, changesSince, copyDeck, createDeck, deleteDeck, listDecks, loadBlob, loadBlobs, loadDeck, loadFirstSlide } from "../store";
import { type AppContext, body, bytesOf, deckRoute, route } from "./context";
import { sendRange } from "./range";

/** Upload limits in bytes. */
export const LIMITS = { file: 100 * 1024 * 1024, picture: 25 * 1024 * 1024, typed: 100 * 1024, json: "25mb" };
const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
const newId = () => nanoid(10);
/** The first byte of a packed presentation, and of a flat one. */
const [ZIP, TAG] = [0x50, 0x3c];
const upload = (limit: number) => express.raw({ type: () => true, limit });

function format(value: unknown): WritableFormat {
  if (typeof value === "string" && WRITABLE.includes(value as WritableFormat)) return value as WritableFormat;
  throw new Failure("not-supported", "format", `Decks are written as ${WRITABLE.join(", ")}.`);
}

/** What the pages of a PDF are to show. */
function sheetsAsked(value: unknown): Sheets {
  if (value === undefined) return "slides";
  const found = SHEETS.find((kind) => kind === value);
  if (!found) throw new Failure("not-valid", "sheets", `Pages show ${SHEETS.join(", ")}.`);
  return found;
}

/** A file name that every system takes, for a header in RFC 6266 form. */
function disposition(title: string, extension: string): string {
  const name = `${title.replace(/[\\/:*?"<>|\p{Cc}]/gu, " ").trim().slice(0, 120) || "deck"}.${extension}`;
  return `attachment; filename="${name.replace(/[^\x20-\x7e]/g, "_")}"; filename*=UTF-8''${encodeURIComponent(name)}`;
}

export function deckRoutes(context: AppContext): Router {
  const { db } = context;
  const routes = Router();

  routes.get("/decks", route(async ({ user, response }) => response.json({ decks: await listDecks(db, user.id) })));

  routes.post(
    "/decks",
    express.json({ limit: LIMITS.json }),
    route(async ({ user, request, response }) => {
      const { title, text } = body(NewDeck, request);
      checkText(text ?? "", "text");
      const { deck } = generateDeck(readText(text ?? ""), DEFAULT_RULE, { newId }, title || "Untitled");
      if (!text?.trim()) {
        deck.properties.title = title || "Untitled";
        deck.slides = [{ ...newSlide(newId(), "opening"), elements: [{ kind: "text", id: newId(), slot: "title", text: plainText(deck.properties.title) }] }];
      }
      const id = await createDeck(db, user.id, { ...deck, id: nanoid(12) }, new Map(), text?.trim() ? text : null);
      response.status(201).json({ id });
    }),
  );

  routes.post(
    "/files",
    upload(LIMITS.file),
    route(async ({ user, request, response }) => {
      const name = String(request.query.name ?? "");
      if (!extensionOf(name)) throw new Failure("not-valid", "name", "Say the file's name with its ending, as in ?name=course.md.");
      const bytes = bytesOf(request);
      // What was typed as a deck is one at once, unless it is very long; documents and presentations are read by a job.
      const typed = /\.(md|txt)$/i.test(name) && bytes.length < LIMITS.typed && readSource(bytes, name, extensionOf(name) as SourceKind).typed;
      // What is no package at all is refused at once, in the reader's own words.
      if ((isSource(name) && !typed) || (isPresentation(name) && [ZIP, TAG].includes(bytes[0] ?? 0))) {
        if (bytes.length === 0) throw new Failure("not-readable", name, "The file is empty.");
        const { deck, job } = await context.jobs.read(user.id, name, bytes);
        response.status(202).json(Brought.parse({ id: deck, report: null, job }));
        return;
      }
      const { deck, blobs, adapted, left, text }: ReadResult = extensionOf(name) === "pdf" ? await context.exporter.pages({ bytes, name }) : readDeck(bytes, name, { newId, sha256 });
      const id = await createDeck(db, user.id, deck, blobs, text ?? null, name.replace(/\.[^.]*$/, "") || null);
      const counts = tally(deck);
      response.status(201).json(Brought.parse({ id, report: report(counts, counts, { adapted, left }), job: null }));
    }),
  );

  routes.get("/decks/:deck", deckRoute(context, "see", async ({ deck: id, right, response }) => response.json({ ...(await loadDeck(db, id)), right } satisfies DeckState)));

  routes.get("/decks/:deck/first", deckRoute(context, "see", async ({ deck: id, right, response }) => response.json({ ...(await loadFirstSlide(db, id)), right } satisfies DeckState)));

  routes.delete("/decks/:deck", deckRoute(context, "delete", async ({ deck, response }) => {
    await deleteDeck(db, deck);
    response.status(204).end();
  }));

  routes.post("/decks/:deck/copies", deckRoute(context, "copy", async ({ deck, user, response }) => response.status(201).json({ id: await copyDeck(db, deck, user.id) })));

  routes.get("/decks/:deck/changes", deckRoute(context, "see", async ({ deck, request, response }) => {
    const since = Number(request.query.since ?? 0);
    if (!Number.isInteger(since) || since < 0) throw new Failure("not-valid", "since", "Say the version to start from as a whole number.");
    const list = await changesSince(db, deck, since);
    response.json({ version: list.at(-1)?.version ?? since, changes: list });
  }));

  routes.post("/decks/:deck/changes", express.json({ limit: LIMITS.json }), deckRoute(context, "change", async ({ deck, user, right, request, response }) => {
    const asked = body(ChangeRequest, request);
    try {
      response.json(await applyChanges(db, deck, user.id, asked));
    } catch (error) {
      if (!(error instanceof Failure) || error.code !== "conflict") throw error;
      const state: DeckState = { ...(await loadDeck(db, deck)), right };
      response.status(409).json({ error: { code: error.code, where: error.where, message: error.message }, state });
    }
  }));

  routes.get("/decks/:deck/events", deckRoute(context, "see", async ({ deck, response }) => context.announcements.stream(deck, response)));

  routes.get("/decks/:deck/report", deckRoute(context, "export", async ({ deck, request, response }) => response.json(writeReport((await loadDeck(db, deck)).deck, format(request.query.format), undefined, sheetsAsked(request.query.sheets)))));

  routes.get("/decks/:deck/export", deckRoute(context, "export", async ({ deck: id, request, response }) => {
    const as = format(request.query.format);
    const { deck } = await loadDeck(db, id);
    const bytes = await context.exporter.run({ fonts: context.fonts, deck, blobs: await loadBlobs(db, id), at: Date.now(), format: as, sheets: sheetsAsked(request.query.sheets) });
    response.setHeader("content-type", WRITERS[as].mediaType);
    response.setHeader("content-disposition", disposition(deck.properties.title, as));
    response.send(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
  }));

  routes.post("/decks/:deck/documents", upload(LIMITS.file), deckRoute(context, "change", async ({ deck, request, response }) => {
    const name = String(request.query.name ?? "");
    if (!isSource(name)) throw new Failure("not-supported", name, "This is no document that slides can be made from again: .docx, .odt, .md, .txt, .html, .csv and .opml are.");
    const source = readSource(bytesOf(request), name, extensionOf(name) as SourceKind);
    for (const _ of source.manuscript.blocks) {
      // Taken to the end, so that the text and the problems are whole.
    }
    const { problems } = source.manuscript;
    const taken = takePictures(source.pictures, sha256, problems);
    const drawn = await context.exporter.pictures(taken.undrawn);
    for (const { what, why } of drawn.left) problems.push({ line: 1, message: `Not shown: ${what}; ${why}.` });
    const [assets, blobs] = [{ ...taken.assets, ...drawn.assets }, new Map([...taken.blobs, ...drawn.blobs])];
    const types = new Map(Object.values(assets).map((asset) => [asset.sha256, asset.mediaType]));
    await addBlobs(db, deck, [...blobs].map(([sum, bytes]) => ({ sha256: sum, mediaType: types.get(sum) ?? "image/png", bytes })));
    response.json({ name, text: source.text(), typed: source.typed, rule: source.rule, assets, problems } satisfies DocumentText);
  }));

  routes.post("/decks/:deck/pictures", upload(LIMITS.picture), deckRoute(context, "addPicture", async ({ deck, request, response }) => {
    const name = String(request.query.name ?? "").slice(0, 200);
    const taken = takePictures(new Map([[name, bytesOf(request)]]), sha256, []);
    const { assets, blobs } = taken.undrawn.size ? await context.exporter.pictures(taken.undrawn) : taken;
    const [asset, bytes] = [assets[name], [...blobs.values()][0]];
    if (!asset || !bytes || !name) throw new Failure("not-readable", name || "picture", "The picture is no PNG, JPEG, GIF, SVG, WMF, EMF, TIFF or BMP file that can be read, it has more dots than a slide can use, or it has no name.");
    await addBlob(db, deck, asset.sha256, asset.mediaType, bytes);
    response.status(201).json({ name, ...asset } satisfies Picture);
  }));

  routes.get("/decks/:deck/pictures/:sha256", deckRoute(context, "see", async ({ deck, request, response }) => {
    const { mediaType, bytes } = await loadBlob(db, deck, String(request.params.sha256));
    response.setHeader("content-type", mediaType);
    // What stands in a drawing is neither run nor fetched, wherever it is opened.
    response.setHeader("content-security-policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox");
    if (!mediaType.startsWith("image/")) response.setHeader("content-disposition", "attachment");
    response.setHeader("cache-control", "private, max-age=31536000, immutable");
    sendRange(request, response, Buffer.from(bytes));
  }));

  return routes;
}

