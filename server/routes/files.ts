import { DOCUMENTS, isDocumentName, listExtensions } from "@unitext/core/formats/catalogue";
import { extensionOf, isPresentation } from "@unitext/core/formats";
import { cutText, Failure } from "@unitext/core/model";
import { Router } from "express";
import { permit } from "../access";
import { type DocumentText, ImportResult, type Picture } from "../api";
import { addBlobs, createDeck, loadBlob } from "../store";
import { type AppContext, asker, bytesOf, type Call, type DeckCall, deckRoute, route } from "./context";
import { LIMITS, upload } from "./uploads";
import { bytesAtHand, sendRange } from "./range";

/** The first byte of a packed presentation, and of a flat one. */
const [ZIP, TAG] = [0x50, 0x3c];

/** Who brings in a file: whose deck it becomes, and the signal that ends the work. */
type Bringer = ReturnType<typeof asker>;

/**
 * Makes a deck of a file: at once for a short typed text, by a job for everything else. `name` is the file's name with
 * its ending.
 */
export async function bringIn(
  context: Pick<AppContext, "db" | "work" | "jobs">,
  { name, bytes }: { name: string; bytes: Uint8Array },
  bringer: Bringer,
): Promise<ImportResult> {
  const extension = extensionOf(name);
  if (!extension) throw new Failure("not-valid", "name", "Say the file's name with its ending, as in ?name=course.md.");
  // A typed deck is made at once, unless it is very long; documents and presentations are read by a job.
  const typed =
    /^(md|txt)$/.test(extension) &&
    bytes.length > 0 &&
    bytes.length < LIMITS.typed &&
    (await context.work.run("typed", { bytes, name }, bringer));
  // A file that is not a package is refused at once, with the reader's message.
  if ((isDocumentName(name) && !typed) || (isPresentation(name) && [ZIP, TAG].includes(bytes[0] ?? 0))) {
    if (bytes.length === 0) throw new Failure("not-readable", name, "The file is empty.");
    const { deck, job } = await context.jobs.read(bringer.owner, name, bytes);
    return { id: deck, report: null, job };
  }
  const { deck, blobs, text, report } = await context.work.run(
    extension === "pdf" ? "pages" : "file",
    { bytes, name },
    bringer,
  );
  const id = await createDeck(context.db, bringer.owner, deck, blobs, text, name.replace(/\.[^.]*$/, "") || null);
  return { id, report, job: null };
}

/** Makes a deck of an uploaded file. */
async function receiveFile(context: AppContext, call: Call): Promise<void> {
  const { request, response } = call;
  const name = String(request.query.name ?? "")
    .toWellFormed()
    .replaceAll("\u0000", "");
  const brought = await bringIn(context, { name, bytes: bytesOf(request) }, asker(call));
  response.status(brought.job ? 202 : 201).json(ImportResult.parse(brought));
}

/** Reads a document from which the slides of a deck are to be made again. */
async function receiveDocument(context: AppContext, call: DeckCall): Promise<void> {
  const { deck, request, response } = call;
  const name = String(request.query.name ?? "");
  if (!isDocumentName(name))
    throw new Failure(
      "not-supported",
      name,
      `This is no document that slides can be made from again: ${listExtensions(DOCUMENTS)} are.`,
    );
  const { document, blobs } = await context.work.run("document", { bytes: bytesOf(request), name }, asker(call));
  await addBlobs(context.db, deck, blobs);
  response.json(document satisfies DocumentText);
}

/** Adds a picture to a deck, checked and in the form in which it is stored. */
async function receivePicture(context: AppContext, call: DeckCall): Promise<void> {
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
      "The picture is no PNG, JPEG, GIF, SVG, WMF, EMF, TIFF or BMP file that can be read, it has more pixels than a slide can use, or it has no name.",
    );
  await addBlobs(context.db, deck, new Map([[asset.sha256, bytes]]));
  response.status(201).json({ name, ...asset } satisfies Picture);
}

/** Routes for files that people send: decks, documents and pictures. */
export function fileRoutes(context: AppContext): Router {
  const { db } = context;
  const routes = Router();

  routes.post(
    "/files",
    upload(LIMITS.file),
    route((call) => receiveFile(context, call)),
  );

  routes.post(
    "/decks/:deck/documents",
    upload(LIMITS.file),
    deckRoute(context, "change", (call) => receiveDocument(context, call)),
  );

  routes.post(
    "/decks/:deck/pictures",
    upload(LIMITS.picture),
    deckRoute(context, "addPicture", (call) => receivePicture(context, call)),
  );

  routes.get(
    "/decks/:deck/pictures/:sha256",
    deckRoute(context, "look", async ({ deck, right, notes, request, response }) => {
      const { mediaType, bytes } = await loadBlob(db, deck, String(request.params.sha256).replaceAll("\0", ""));
      // The file that a deck was made from contains its notes.
      if (!/^(image|audio|video)\//.test(mediaType)) permit(right, "see", deck, notes);
      response.setHeader("content-type", mediaType);
      // Content of a drawing is neither run nor fetched, wherever it is opened.
      response.setHeader("content-security-policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox");
      if (!mediaType.startsWith("image/")) response.setHeader("content-disposition", "attachment");
      response.setHeader("cache-control", "private, max-age=31536000, immutable");
      await sendRange(request, response, bytesAtHand(Buffer.from(bytes)));
    }),
  );

  return routes;
}
