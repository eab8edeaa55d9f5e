import { checked, Failure } from "@unitext/core/model";
import { readTerms, writeTermsCsv, writeTermsTbx } from "@unitext/core/translate";
import express, { Router } from "express";
import {
  LanguagePair,
  type MemoryFound,
  MemorySearch,
  type Proposals,
  ProposalsAsked,
  type TermList,
  TermList as TermListSchema,
  TermsAsked,
  termOf,
  UnitCorrected,
  UnitsSent,
} from "../api";
import {
  correctUnit,
  forgetUnit,
  memoryUnits,
  recall,
  remember,
  rightOn,
  searchMemory,
  storedTerms,
  storeTerms,
} from "../store";
import { type AppContext, asker, body, fileOf, route } from "./context";
import { LIMITS, upload } from "./uploads";

/** Routes for a person's memory and terms in a pair of languages. */
export function languageResourceRoutes(context: AppContext): Router {
  const { db, work } = context;
  const routes = Router();
  const json = express.json({ limit: LIMITS.json });

  routes.post(
    "/memory",
    upload(LIMITS.file),
    route(async (call) => {
      const { request, response, user } = call;
      const pair = checked(LanguagePair, request.query, "The request");
      const file = fileOf(request, "memory.tmx");
      const units = await work.run("readMemory", { file, ...pair }, asker(call));
      response.json({ units: await remember(db, user.id, units) });
    }),
  );

  routes.post(
    "/memory/proposals",
    json,
    route(async (call) => {
      const asked = body(ProposalsAsked, call.request);
      const units = await recall(db, call.user.id, asked);
      const proposals = await work.run("rankProposals", { ...asked, units }, asker(call));
      call.response.json({ proposals } satisfies Proposals);
    }),
  );

  routes.get(
    "/memory/units",
    route(async ({ request, response, user }) => {
      const asked = checked(MemorySearch, request.query, "The request");
      const units = await searchMemory(db, user.id, asked);
      response.json({ units: units.map((unit) => ({ ...unit, at: unit.at.toISOString() })) } satisfies MemoryFound);
    }),
  );

  routes.post(
    "/memory/units",
    json,
    route(async ({ request, response, user }) => {
      const { from, to, deck = null, units } = body(UnitsSent, request);
      if (deck !== null && (await rightOn(db, deck, user.id)) === undefined)
        throw new Failure("not-found", deck, "This deck was deleted, or is not shared with you any more.");
      const pairs = units.map((unit) => ({ from, to, ...unit }));
      response.json({ units: await remember(db, user.id, pairs, deck) });
    }),
  );

  routes.put(
    "/memory/units/:unit",
    json,
    route(async ({ request, response, user }) => {
      const { target } = body(UnitCorrected, request);
      const id = String(request.params.unit);
      if (!(await correctUnit(db, user.id, id, target)))
        throw new Failure("not-found", id, "Your memory has no such text any more.");
      response.status(204).end();
    }),
  );

  routes.delete(
    "/memory/units/:unit",
    route(async ({ request, response, user }) => {
      const id = String(request.params.unit);
      if (!(await forgetUnit(db, user.id, id)))
        throw new Failure("not-found", id, "Your memory has no such text any more.");
      response.status(204).end();
    }),
  );

  routes.get(
    "/memory",
    route(async (call) => {
      const { from, to } = checked(LanguagePair, call.request.query, "The request");
      const units = await memoryUnits(db, call.user.id, from, to);
      const bytes = await work.run("writeMemory", { units, from }, asker(call));
      call.response.attachment(`memory ${from}-${to}.tmx`).type("application/xml").send(Buffer.from(bytes));
    }),
  );

  routes.post(
    "/terms",
    upload(LIMITS.json),
    route(async (call) => {
      const { request, response, user } = call;
      const pair = checked(LanguagePair, request.query, "The request");
      const { bytes, name } = fileOf(request, "terms.csv");
      const { terms, problems } = readTerms(bytes, name, pair);
      if (!terms.length)
        throw new Failure("not-valid", name, `There are no terms in it. ${problems[0] ?? "It is empty."}`);
      await storeTerms(db, user.id, { ...pair, terms });
      response.json({ terms: terms.length, remarks: problems });
    }),
  );

  routes.get(
    "/terms/list",
    route(async ({ request, response, user }) => {
      const { from, to } = checked(LanguagePair, request.query, "The request");
      response.json({ terms: await storedTerms(db, user.id, from, to) } satisfies TermList);
    }),
  );

  routes.put(
    "/terms/list",
    json,
    route(async ({ request, response, user }) => {
      const pair = checked(LanguagePair, request.query, "The request");
      const { terms } = body(TermListSchema, request);
      const seen = new Set<string>();
      for (const { source } of terms) {
        if (seen.has(source.toLowerCase()))
          throw new Failure("not-valid", source, `“${source}” is in the list twice. Keep one of them.`);
        seen.add(source.toLowerCase());
      }
      await storeTerms(db, user.id, { ...pair, terms: terms.map(termOf) });
      response.status(204).end();
    }),
  );

  routes.get(
    "/terms",
    route(async (call) => {
      const { from, to, form } = checked(TermsAsked, call.request.query, "The request");
      const terms = await storedTerms(db, call.user.id, from, to);
      call.response.attachment(`terms ${from}-${to}.${form}`);
      call.response.type(form === "tbx" ? "application/x-tbx" : "text/csv");
      call.response.send(form === "tbx" ? writeTermsTbx(terms, { from, to }) : writeTermsCsv(terms));
    }),
  );

  return routes;
}
