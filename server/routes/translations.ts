import { tailorDeck } from "@unitext/core/divide";
import type { SingleChange } from "@unitext/core/edit";
import type { SegmentFile } from "@unitext/core/formats/segments";
import { checked, type Deck, Failure } from "@unitext/core/model";
import { sameLanguage } from "@unitext/core/translate";
import express, { Router } from "express";
import { nanoid } from "nanoid";
import {
  type Alignment,
  AlignmentAsked,
  type DeckLanguages,
  type EngineList,
  type SegmentList,
  type TargetsSent,
  TargetsSent as TargetsSchema,
  type TargetsTaken,
  TranslationAsked,
  SegmentFileAsked,
} from "../api";
import {
  applyChanges,
  createDeck,
  deckAt,
  followersOf,
  loadBlobs,
  loadDeck,
  recall,
  remember,
  rightOn,
  storedTargets,
  storedTerms,
  storeTargets,
} from "../store";
import { type AppContext, asker, body, type DeckCall, deckRoute, fileOf, route } from "./context";
import { LIMITS, upload } from "./uploads";

/** A translated deck with its version, its original as it follows it, and the newest version of the original. */
interface Loaded {
  own: Deck;
  version: number;
  original: Deck;
  followed: number;
  newest: number;
}

/** Loads a translated deck and its original. Throws a Failure `not-found` for a deck that is no translation. */
async function loadTranslation({ db }: AppContext, { deck: id, user }: DeckCall): Promise<Loaded> {
  const { deck: own, version } = await loadDeck(db, id);
  const { original: ties } = own;
  if (!ties?.language) throw new Failure("not-found", id, "This deck is no translation of another one.");
  if ((await rightOn(db, ties.deck, user.id)) === undefined)
    throw new Failure(
      "not-found",
      ties.deck,
      "The original of this translation was deleted, or is not shared with you any more. The translation stays as it is.",
    );
  const { version: newest } = await loadDeck(db, ties.deck);
  const followed = Math.min(ties.version, newest);
  return { own, version, original: await deckAt(db, ties.deck, followed), followed, newest };
}

/** For how many texts at most a file of exchange has proposals of the memory. */
const PROPOSED = 500;

/** The media types of files of exchange. */
const SEGMENT_TYPES: Record<SegmentFile, string> = {
  xlf: "application/xliff+xml",
  xlsx: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
  csv: "text/csv",
  docx: "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
};

/** How often storing translations is tried when somebody else changes the deck at the same time. */
const TRIES = 5;

/** Stores translations and puts their words into the deck, as one change that can be undone. */
async function takeIn(
  context: AppContext,
  call: DeckCall,
  targets: TargetsSent["targets"],
  words: string,
): Promise<TargetsTaken> {
  const { db, work } = context;
  for (let nth = 1; ; nth++) {
    const { own, version, original } = await loadTranslation(context, call);
    const stored = await storedTargets(db, own.id);
    const made = await work.run("takeTargets", { original, own, stored, targets }, asker(call));
    const changes = made.slides.map((slide): SingleChange => ({ kind: "setSlide", slide: slide.id, as: slide }));
    try {
      await storeTargets(db, own.id, call.user.id, made.stored);
      await remember(db, call.user.id, made.remembered, own.id);
      if (changes.length)
        await applyChanges(db, own.id, call.user.id, {
          base: version,
          changes: [{ id: nanoid(16), change: { kind: "batch", changes }, description: words }],
        });
      return { taken: made.stored.length, remarks: made.remarks };
    } catch (error) {
      if (!(error instanceof Failure && error.code === "conflict") || nth >= TRIES) throw error;
    }
  }
}

/** Routes for decks in another language: making them, their segments, and files of exchange. */
export function translationRoutes(context: AppContext): Router {
  const { db, work } = context;
  const routes = Router();
  const json = express.json({ limit: LIMITS.json });

  routes.post(
    "/decks/:deck/translations",
    json,
    deckRoute(context, "derive", async (call) => {
      const { language, engine, title, segmentation } = body(TranslationAsked, call.request);
      const { deck, version } = await loadDeck(db, call.deck);
      if (deck.language === language)
        throw new Failure("not-valid", "language", "The deck is in this language already. Choose another one.");
      const terms = await storedTerms(db, call.user.id, deck.language, language);
      const service = context.translationService;
      const made = await work.run(
        "newTranslation",
        { deck, language, engine, terms, service, segmentation },
        asker(call),
      );
      const own = tailorDeck({ deck: made.deck, version }, nanoid(12), title ?? made.deck.properties.title, () =>
        nanoid(10),
      );
      const translated: Deck = {
        ...own,
        original: { deck: deck.id, version, language: deck.language, ...(segmentation ? { segmentation } : {}) },
      };
      const id = await createDeck(db, call.user.id, translated, await loadBlobs(db, call.deck), null);
      await storeTargets(db, id, call.user.id, made.targets);
      call.response.status(201).json({ id, remark: made.remark });
    }),
  );

  routes.get(
    "/engines",
    route(async ({ response }) => {
      const { translationService: service } = context;
      response.json({ service: service ? { host: new URL(service.url).host } : null } satisfies EngineList);
    }),
  );

  routes.get(
    "/decks/:deck/alignment",
    deckRoute(context, "see", async (call) => {
      const { with: other } = checked(AlignmentAsked, call.request.query, "The request");
      if ((await rightOn(db, other, call.user.id)) === undefined)
        throw new Failure("not-found", other, "This deck was deleted, or is not shared with you any more.");
      const [{ deck: source }, { deck: target }] = await Promise.all([loadDeck(db, call.deck), loadDeck(db, other)]);
      if (sameLanguage(source.language, target.language))
        throw new Failure(
          "not-valid",
          other,
          `Both decks are in “${source.language}”. Set the language of one of them in Refine, or choose another deck.`,
        );
      const pairs = await work.run("alignDecks", { source, target }, asker(call));
      call.response.json({ from: source.language, to: target.language, pairs } satisfies Alignment);
    }),
  );

  routes.get(
    "/decks/:deck/segments",
    deckRoute(context, "see", async (call) => {
      const { own, original, followed, newest } = await loadTranslation(context, call);
      const stored = await storedTargets(db, own.id);
      const terms = await storedTerms(db, call.user.id, original.language, own.language);
      const segments = await work.run("pairedSegments", { original, own, stored, terms }, asker(call));
      call.response.json({
        original: { id: original.id, title: original.properties.title, version: followed, newest },
        from: original.language,
        to: own.language,
        segments,
      } satisfies SegmentList);
    }),
  );

  routes.get(
    "/decks/:deck/languages",
    deckRoute(context, "see", async ({ deck: id, user, response }) => {
      const { deck } = await loadDeck(db, id);
      const root = deck.original?.language ? deck.original.deck : id;
      const translations = (await followersOf(db, root, user.id)).filter(({ isTranslation }) => isTranslation);
      const maySee = root === id || (await rightOn(db, root, user.id)) !== undefined;
      const originals = maySee ? [(await loadDeck(db, root)).deck] : [];
      const rows = [
        ...originals.map(({ id: own, properties, language }) => ({ id: own, title: properties.title, language })),
        ...translations.map(({ id: own, title, language }) => ({ id: own, title, language })),
      ];
      response.json({ decks: rows } satisfies DeckLanguages);
    }),
  );

  routes.get(
    "/decks/:deck/segments/states",
    deckRoute(context, "see", async (call) => {
      const { own, original } = await loadTranslation(context, call);
      const stored = await storedTargets(db, own.id);
      call.response.json(await work.run("segmentStates", { original, own, stored }, asker(call)));
    }),
  );

  routes.post(
    "/decks/:deck/segments",
    json,
    deckRoute(context, "change", async (call) => {
      const { targets } = body(TargetsSchema, call.request);
      const words = targets.length === 1 ? "Translated a text" : `Translated ${targets.length} texts`;
      call.response.json(await takeIn(context, call, targets, words));
    }),
  );

  routes.get(
    "/decks/:deck/segments/file",
    deckRoute(context, "see", async (call) => {
      const { as, version } = checked(SegmentFileAsked, call.request.query, "The request");
      const { own, original } = await loadTranslation(context, call);
      const stored = await storedTargets(db, own.id);
      const state = { original, own, stored };
      const pair = { from: original.language, to: own.language };
      const open = as === "xlf" ? await work.run("openSources", state, asker(call)) : [];
      const units = [];
      for (const source of open.slice(0, PROPOSED))
        units.push(...(await recall(db, call.user.id, { ...pair, source })));
      const bytes = await work.run("segmentFile", { ...state, units, as, version }, asker(call));
      call.response.attachment(`${own.properties.title.replace(/[/\\:*?"<>|]/g, " ").trim() || "Deck"}.${as}`);
      call.response.type(SEGMENT_TYPES[as]).send(Buffer.from(bytes));
    }),
  );

  routes.post(
    "/decks/:deck/segments/file",
    upload(LIMITS.file),
    deckRoute(context, "change", async (call) => {
      const { own, original } = await loadTranslation(context, call);
      const file = fileOf(call.request, "file.xlf");
      const read = await work.run("readExchange", { original, own, file }, asker(call));
      if (!read.targets.length) {
        call.response.json({
          taken: 0,
          remarks: ["The file has no translation for this deck.", ...read.remarks],
        } satisfies TargetsTaken);
        return;
      }
      const done = await takeIn(
        context,
        call,
        read.targets,
        `Took ${read.targets.length} translations from ${file.name}`,
      );
      call.response.json({ taken: done.taken, remarks: [...read.remarks, ...done.remarks] } satisfies TargetsTaken);
    }),
  );

  return routes;
}
