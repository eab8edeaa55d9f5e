import { type ByItself, WRITABLE, type WritableFormat, WRITERS } from "@unitext/core/formats";
import { SHEETS, type Sheets } from "@unitext/core/layout";
import { type Deck, deckFor, Failure, type Kept, PRIVATE_PARTS } from "@unitext/core/model";
import { withNotesOf } from "@unitext/core/translate";
import { Router } from "express";
import { includes } from "../access";
import { fileNameOf } from "../jobs";
import { loadBlobs, loadDeck, note, rightOn } from "../store";
import { type AppContext, asker, type DeckCall, deckRoute } from "./context";

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

/** Reads the automatic turning of a web page from a query: `auto` is the seconds of a slide, `loop` starts again. */
function byItself({ auto, loop }: Record<string, unknown>): ByItself | undefined {
  if (auto === undefined) return undefined;
  const seconds = Number(auto);
  if (!(seconds >= 0.5 && seconds <= 3600))
    throw new Failure("not-valid", "auto", "A slide stays for half a second to an hour.");
  return { seconds, loop: loop === "true" };
}

/** Returns what a file keeps: what its reader may have, without what the request takes out (`without`, by commas). */
function keptAsked(value: unknown, may: Kept): Kept {
  const out = typeof value === "string" && value !== "" ? value.split(",") : [];
  const unknown = out.find((part) => !PRIVATE_PARTS.some((one) => one === part));
  if (unknown !== undefined)
    throw new Failure("not-valid", "without", `What can be taken out of a file is ${PRIVATE_PARTS.join(", ")}.`);
  return { ...may, ...Object.fromEntries(out.map((part) => [part, false])) };
}

/** Returns a header with a file name that every system accepts, in the form of RFC 6266. */
function disposition(title: string, extension: string): string {
  const name = `${fileNameOf(title)}.${extension}`;
  return `attachment; filename="${name.replace(/[^\x20-\x7e]/g, "_")}"; filename*=UTF-8''${encodeURIComponent(name)}`;
}

/** Loads the deck of a request, with the notes of another deck if the request names one. */
async function withNotesAsked({ db }: AppContext, call: DeckCall): Promise<Deck> {
  const { deck: id, user, right, notes: seesNotes, request } = call;
  const kept = keptAsked(request.query.without, { notes: seesNotes, comments: includes(right, "comment") });
  const deck = deckFor((await loadDeck(db, id)).deck, kept);
  const { notes, notesIn } = request.query;
  if (typeof notes !== "string" || notes === "" || !kept.notes) return deck;
  if ((await rightOn(db, notes, user.id)) === undefined)
    throw new Failure("not-found", notes, "The deck with the notes was deleted, or is not shared with you any more.");
  return withNotesOf(deck, (await loadDeck(db, notes)).deck, notesIn === "both" ? "both" : "other");
}

/** Routes that write a deck as a file, and say before what the file keeps. */
export function exportRoutes(context: AppContext): Router {
  const { db } = context;
  const routes = Router();

  routes.get(
    "/decks/:deck/report",
    deckRoute(context, "export", async (call) => {
      const { request, response } = call;
      const asked = { format: format(request.query.format), sheets: sheetsAsked(request.query.sheets) };
      const deck = await withNotesAsked(context, call);
      response.json(await context.work.run("report", { deck, ...asked }, asker(call)));
    }),
  );

  routes.get(
    "/decks/:deck/export",
    deckRoute(context, "export", async (call) => {
      const { deck: id, user, request, response } = call;
      const [as, sheets] = [format(request.query.format), sheetsAsked(request.query.sheets)];
      const turns = byItself(request.query);
      const deck = await withNotesAsked(context, call);
      const bytes = await context.work.run(
        "write",
        {
          fonts: context.fonts,
          deck,
          blobs: await loadBlobs(db, id),
          at: Date.now(),
          format: as,
          sheets,
          sourceNotes: request.query.sources === "true",
          ...(turns ? { byItself: turns } : {}),
        },
        asker(call),
      );
      await note(db, { user: user.id, act: "export", deck: id, detail: as });
      response.setHeader("content-type", WRITERS[as].mediaType);
      response.setHeader("content-disposition", disposition(deck.properties.title, WRITERS[as].archive ? "zip" : as));
      response.send(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
    }),
  );

  return routes;
}
