import { createHash } from "node:crypto";
import { cutText, Failure } from "@unitext/core/model";
import express, { type Request, Router } from "express";
import { Begun, type Film, FilmRequest, type FilmTools, type Recording } from "../api";
import { fileNameOf } from "../jobs";
import { addBlobs, filmBytes, filmCaptions, filmFile, filmsOf, loadDeck, note, removeFilm, rightOn } from "../store";
import { permit } from "../access";
import { type AppContext, asker, body, bytesOf, type DeckCall, deckRoute, route } from "./context";
import { sendRange } from "./range";
import { LIMITS, upload } from "./uploads";

const MEDIA_TYPES: Record<Film["format"], string> = { mp4: "video/mp4", webm: "video/webm" };

/** How sound files of a browser's recorder and of other programs begin: an offset, and the bytes there. */
const BEGINNINGS: readonly { mediaType: Recording["mediaType"]; at: number; bytes: readonly number[] }[] = [
  { mediaType: "audio/webm", at: 0, bytes: [0x1a, 0x45, 0xdf, 0xa3] },
  { mediaType: "audio/ogg", at: 0, bytes: [...Buffer.from("OggS")] },
  { mediaType: "audio/mp4", at: 4, bytes: [...Buffer.from("ftyp")] },
  { mediaType: "audio/wav", at: 8, bytes: [...Buffer.from("WAVE")] },
  { mediaType: "audio/mpeg", at: 0, bytes: [...Buffer.from("ID3")] },
  { mediaType: "audio/mpeg", at: 0, bytes: [0xff, 0xfb] },
];

/** Sends a film, or the part of it for which a player asks: only that is read from the database. */
async function sendFilm({ db }: AppContext, { deck, request, response }: DeckCall): Promise<void> {
  const film = String(request.params.film);
  const { format, size } = await filmFile(db, deck, film);
  response.setHeader("content-type", MEDIA_TYPES[format]);
  response.setHeader("cache-control", "private, max-age=3600");
  if (request.query.download !== undefined) {
    const { properties } = (await loadDeck(db, deck)).deck;
    const name = `${fileNameOf(properties.title)}.${format}`;
    response.setHeader("content-disposition", `attachment; filename*=UTF-8''${encodeURIComponent(name)}`);
  }
  await sendRange(request, response, { size, read: (from, count) => filmBytes(db, film, from, count) });
}

/** Takes a recorded voice into a deck. */
async function receiveRecording({ db }: AppContext, { deck, request, response }: DeckCall): Promise<void> {
  const bytes = bytesOf(request);
  const kind = BEGINNINGS.find(({ at, bytes: begin }) => begin.every((byte, nth) => bytes[at + nth] === byte));
  if (!kind)
    throw new Failure(
      "not-readable",
      "recording",
      "The recording is no sound file that can be used: .webm, .ogg, .m4a, .wav and .mp3 files are.",
    );
  const sha256 = createHash("sha256").update(bytes).digest("hex");
  await addBlobs(db, deck, new Map([[sha256, bytes]]));
  const name = cutText(`voice-${sha256.slice(0, 16)}`, 200);
  response.status(201).json({ name, sha256, mediaType: kind.mediaType } satisfies Recording);
}

/** Returns the language of the captions that an address names. */
const languageOf = (request: Request) => String(request.params.language).replace(/\.vtt$/, "");

/** Routes for films of decks, their captions, and recorded voices. */
export function filmRoutes(context: AppContext): Router {
  const { db, work, jobs, voiceService } = context;
  const routes = Router();

  routes.get(
    "/film-tools",
    route(async (call) => {
      const tools = await work.run("filmTools", undefined, asker(call));
      call.response.json({
        ...tools,
        service: voiceService ? new URL(voiceService.url).host : null,
      } satisfies FilmTools);
    }),
  );

  routes.get(
    "/decks/:deck/films",
    deckRoute(context, "see", async ({ deck, response }) => response.json({ films: await filmsOf(db, deck) })),
  );

  routes.post(
    "/decks/:deck/films",
    express.json({ limit: LIMITS.json }),
    deckRoute(context, "derive", async ({ deck, user, request, response }) => {
      const asked = body(FilmRequest, request);
      for (const id of asked.captions) permit(await rightOn(db, id, user.id), "see", id);
      const { title } = (await loadDeck(db, deck)).deck.properties;
      await note(db, { user: user.id, act: "export", deck, detail: `film ${asked.format}` });
      const job = await jobs.film(user.id, deck, title || "Untitled", asked);
      response.status(202).json(Begun.parse({ job }));
    }),
  );

  routes.get(
    "/decks/:deck/films/:film/file",
    deckRoute(context, "see", (call) => sendFilm(context, call)),
  );

  routes.get(
    "/decks/:deck/films/:film/captions/:language",
    deckRoute(context, "see", async ({ deck, request, response }) => {
      const text = await filmCaptions(db, deck, String(request.params.film), languageOf(request));
      response.setHeader("content-type", "text/vtt; charset=utf-8");
      response.send(text);
    }),
  );

  routes.delete(
    "/decks/:deck/films/:film",
    deckRoute(context, "change", async ({ deck, request, response }) => {
      await removeFilm(db, deck, String(request.params.film));
      response.status(204).end();
    }),
  );

  routes.post(
    "/decks/:deck/recordings",
    upload(LIMITS.picture),
    deckRoute(context, "change", (call) => receiveRecording(context, call)),
  );

  return routes;
}
