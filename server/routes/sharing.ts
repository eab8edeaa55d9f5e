import { checked, Failure, Id } from "@unitext/core/model";
import express, { type Request, type RequestHandler, type Response, Router } from "express";
import { hashPassword, isPassword } from "../accounts";
import { LinkAsked, type LinkFace, LinkOpening, type Opened, type Scope, ShareAsked } from "../api";
import {
  accountOf,
  changeLink,
  createGuest,
  createLink,
  decksOfLink,
  folderOwner,
  linkOf,
  type LinkTerms,
  linkWith,
  noteLinkUse,
  removeLink,
  renewLink,
  share,
  type Shared,
  sharingOf,
  type StoredLink,
} from "../store";
import { type AppContext, body, type Call, deckRoute, openRoute, route } from "./context";
import { signIn } from "./sessions";
import { visitorOf } from "./visitor";

/** Pass phrases are compared without spaces around them. */
const trimmed = (phrase: string) => phrase.trim();

/** Throws a Failure where a folder is to be shared as a deck, or a deck as a folder. */
function requireScope(scope: Scope, shared: Shared): void {
  if ((scope === "folder") !== "folder" in shared)
    throw new Failure("not-valid", "scope", "Share a folder from the Desk, and a deck from its own page.");
}

/** Returns the terms of a link, with the hash of its phrase. */
async function termsOf({ scope, right, notes, expiresAt, phrase }: LinkAsked, shared: Shared): Promise<LinkTerms> {
  requireScope(scope, shared);
  const hash =
    phrase === undefined ? {} : { phrase: trimmed(phrase) === "" ? null : await hashPassword(trimmed(phrase)) };
  return {
    right,
    notes: notes || right === "edit",
    translations: scope === "translations",
    expiresAt: expiresAt === null ? null : new Date(expiresAt),
    ...hash,
  };
}

/** Routes on who sees what of a deck or a folder. */
export function sharingRoutes(context: AppContext): Router {
  const { db, key } = context;
  const routes = Router();
  const json = express.json({ limit: "20kb" });
  const token = (text: string) => key.token(text);

  /** Routes under a deck and under a folder are the same. Only the owner may ask for them. */
  type Handle = (call: Call & { shared: Shared }) => Promise<unknown>;
  const ofDeck = (handle: Handle): RequestHandler =>
    deckRoute(context, "share", async (call) => handle({ ...call, shared: { deck: call.deck } }));
  const ofFolder = (handle: Handle): RequestHandler =>
    route(async (call) => {
      const folder = checked(Id, call.request.params.folder, "The folder");
      const { owner } = await folderOwner(db, folder);
      if (owner !== call.user.id) throw new Failure("not-found", folder, "This folder is not here any more.");
      await handle({ ...call, shared: { folder } });
    });
  const answer = async ({ response, shared }: { response: Response; shared: Shared }) =>
    response.json(await sharingOf(db, shared, token));
  const linkId = (request: Request) => checked(Id, request.params.link, "The link");

  for (const [path, under] of [
    ["/decks/:deck/sharing", ofDeck],
    ["/folders/:folder/sharing", ofFolder],
  ] as const) {
    routes.get(path, under(answer));
    routes.put(
      `${path}/people`,
      json,
      under(async (call) => {
        const { user, scope, right, notes } = body(ShareAsked, call.request);
        requireScope(scope, call.shared);
        const person = await accountOf(db, user);
        if (!person || person.role === "guest" || person.closedAt !== null)
          throw new Failure("not-found", user, "There is no such person in this house.");
        if (user === call.user.id) throw new Failure("not-valid", user, "It is your own already.");
        const translations = scope === "translations";
        await share(db, { ...call.shared, user, right, notes, translations, by: call.user.id });
        await answer(call);
      }),
    );
    routes.post(
      `${path}/links`,
      json,
      under(async (call) => {
        const terms = await termsOf(body(LinkAsked, call.request), call.shared);
        await createLink(db, call.shared, terms, call.user.id, token);
        await answer(call);
      }),
    );
    routes.put(
      `${path}/links/:link`,
      json,
      under(async (call) => {
        const link = await linkOf(db, call.shared, linkId(call.request));
        await changeLink(db, link, await termsOf(body(LinkAsked, call.request), call.shared), call.user.id);
        await answer(call);
      }),
    );
    routes.post(
      `${path}/links/:link/renewals`,
      under(async (call) => {
        await renewLink(db, await linkOf(db, call.shared, linkId(call.request)), call.user.id, token);
        await answer(call);
      }),
    );
    routes.delete(
      `${path}/links/:link`,
      under(async (call) => {
        await removeLink(db, await linkOf(db, call.shared, linkId(call.request)), call.user.id);
        await answer(call);
      }),
    );
  }
  return routes;
}

/** Whether whoever opens a link has to say a name: others see it beside what is written. */
const needsName = ({ right }: StoredLink, signedIn: boolean) => !signedIn && (right === "comment" || right === "edit");

/** Routes for whoever has a link. They need no session; opening a link gives a guest's session to a stranger. */
export function linkRoutes(context: AppContext): Router {
  const { db, throttle } = context;
  const routes = Router();

  /** Returns the link of an address. Addresses that lead nowhere are counted, so that nobody finds one by trying. */
  const linkAt = async (request: Request): Promise<StoredLink> => {
    const attempt = { address: request.ip ?? "" };
    await throttle.count(attempt);
    const link = await linkWith(db, String(request.params.token).replaceAll("\0", ""));
    await throttle.forgive(attempt);
    return link;
  };

  routes.get(
    "/links/:token",
    openRoute(async ({ request, response }) => {
      const link = await linkAt(request);
      response.json({
        right: link.right,
        needsPhrase: link.phrase !== null,
        needsName: needsName(link, visitorOf(response) !== undefined),
      } satisfies LinkFace);
    }),
  );

  routes.post(
    "/links/:token/opening",
    express.json({ limit: "10kb" }),
    openRoute(async ({ request, response }) => {
      const { phrase = "", name = "" } = body(LinkOpening, request);
      const link = await linkAt(request);
      if (link.phrase !== null) {
        const attempt = { address: request.ip ?? "", link: link.id };
        await throttle.count(attempt);
        if (!(await isPassword(trimmed(phrase), link.phrase)))
          throw new Failure("not-permitted", "phrase", "This is not the pass phrase of the link. Ask whoever sent it.");
        await throttle.forgive(attempt);
      }
      const visitor = visitorOf(response);
      if (needsName(link, visitor !== undefined) && !name)
        throw new Failure("not-valid", "name", "Say your name, which others see beside what you write.");
      const user = visitor ?? (await createGuest(db, name || "A guest"));
      if (!visitor) await signIn(context, request, response, user);
      await noteLinkUse(db, link, user.id);
      const decks = await decksOfLink(db, link);
      response.json({ title: decks[0]?.title ?? "", right: link.right, decks } satisfies Opened);
    }),
  );
  return routes;
}
