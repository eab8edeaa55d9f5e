import { type Deck, emptyDeck, newSlide } from "@unitext/core/model";
import { nanoid } from "nanoid";
import { ACTS, type Act, includes, RIGHTS, type SharedRight } from "./access";
import { Sharing } from "./api";
import { createDeck, ensureUser, schema, share } from "./store";
import { json, type TestServer, testServer } from "./testing";

/**
 * What each route asks of its visitor: “anyone”; “session” for whoever is known, guests included; “account” for people
 * of the house; “house” for its owners; else an act on a deck.
 */
type Asks = "anyone" | "session" | "account" | "house" | Act;
const ROUTES: Record<string, Asks> = {
  "GET /health/live": "anyone",
  "GET /health/ready": "anyone",
  "GET /api/entrance": "anyone",
  "POST /api/setup": "anyone",
  "POST /api/sign-in": "anyone",
  "GET /api/account-links/:token": "anyone",
  "POST /api/account-links/:token/account": "anyone",
  "PUT /api/account-links/:token/password": "anyone",
  "GET /api/links/:token": "anyone",
  "POST /api/links/:token/opening": "anyone",
  "GET /api/pages/:page/look": "anyone",
  "GET /api/pages/:page/look/:slide": "anyone",
  "GET /api/pages/:page/drawings/:slide": "anyone",
  "GET /api/pages/:page/pictures/:sha256": "anyone",
  "GET /api/pages/:page/events": "anyone",
  "GET /api/hand-in/:token": "anyone",
  "POST /api/hand-in/:token/files": "anyone",
  "POST /api/hand-in/:token/decks": "anyone",
  "GET /api/receipts/:code": "anyone",
  "GET /api/remote/:token": "anyone",
  "GET /api/remote/:token/pictures/:sha256": "anyone",
  "GET /api/remote/:token/events": "anyone",
  "POST /api/remote/:token/presses": "anyone",
  "POST /api/sign-out": "session",
  "GET /api/me": "session",
  "GET /api/people": "session",
  "GET /api/account": "session",
  "PUT /api/account/password": "account",
  "DELETE /api/account/sessions": "account",
  "DELETE /api/account/sessions/:session": "account",
  "POST /api/account/second-factor": "account",
  "PUT /api/account/second-factor": "account",
  "DELETE /api/account/second-factor": "account",
  "GET /api/house": "house",
  "POST /api/house/invitations": "house",
  "DELETE /api/house/invitations/:invitation": "house",
  "PUT /api/house/people/:person": "house",
  "POST /api/house/people/:person/reset": "house",
};
/** Routes under these are of people with an account; reading is open to guests, who have nothing there. */
const OWN_THINGS =
  /^\/api\/(jobs|collections|writes|archives|decks|search|folders|merges|files|sources|themes|film-tools|memory|terms|engines|points|languages?|tables|numbers)\b/;
const DECK_ACTS: Record<string, Act> = {
  "GET ": "see",
  "GET /first": "look",
  "GET /events": "look",
  "GET /look": "look",
  "GET /look/:slide": "look",
  "GET /drawings/:slide": "look",
  "GET /pictures/:sha256": "look",
  "GET /report": "export",
  "GET /export": "export",
  "GET /steps": "change",
  "POST /workbooks": "derive",
  "POST /changes": "comment",
  "POST /presence": "look",
  "POST /copies": "copy",
  "POST /parts": "derive",
  "POST /versions": "derive",
  "POST /films": "derive",
  "POST /followers": "derive",
  "POST /translations": "derive",
  "POST /remote": "see",
  "PUT /remote/:token": "see",
  "DELETE /remote/:token": "see",
  "DELETE ": "delete",
  "PUT /bin": "delete",
  "DELETE /bin": "delete",
  "PUT /folder": "file",
  "POST /pictures": "addPicture",
};

const PEOPLE = ["stranger", "linkVisitor", "viewer", "commenter", "editor", "owner", "houseOwner"] as const;
type PersonKind = (typeof PEOPLE)[number];
const GIVEN: Partial<Record<PersonKind, SharedRight>> = { viewer: "view", commenter: "comment", editor: "edit" };

let server: TestServer;
type Client = Awaited<ReturnType<TestServer["as"]>>;
beforeAll(async () => {
  server = await testServer("unitext_rights", { demo: false });
  for (const id of ["owner", "viewer", "commenter", "editor"]) await ensureUser(server.db, { id, name: id });
  await ensureUser(server.db, { id: "houseOwner", name: "houseOwner", role: "owner" });
  await server.db.insert(schema.users).values({ id: "guest", name: "Guest", role: "guest" });
});
afterAll(() => server.close());

const stranger: Client = (path, init = {}) =>
  fetch(`${server.address}${path}`, { ...init, headers: { origin: server.address, ...init.headers } });
const client = async (who: PersonKind): Promise<Client> =>
  who === "stranger" ? stranger : server.as(who === "linkVisitor" ? "guest" : who);

/** Stores a deck of the owner that everybody has a right on who is to have one. */
async function sharedDeck(): Promise<Deck> {
  const deck = { ...emptyDeck(nanoid(12), "Levels"), slides: [newSlide("a", "points")] };
  await createDeck(server.db, "owner", deck, new Map(), null);
  for (const [user, right] of Object.entries(GIVEN))
    await share(server.db, { deck: deck.id, user, right, by: "owner" });
  const owner = await server.as("owner");
  const asked = { scope: "deck", right: "view", notes: false, expiresAt: null };
  const { links } = Sharing.parse(await (await owner(`/api/decks/${deck.id}/sharing/links`, json(asked))).json());
  const opened = await (await server.as("guest"))(`/api/links/${links[0]?.path?.split("/").at(-1)}/opening`, json({}));
  expect(opened.status).toBe(200);
  return deck;
}

/** What a route asks. Throws for a route that is in no list: whoever adds one has to say who may use it. */
function asksOf(route: string): Asks {
  const [method = "", path = ""] = route.split(" ");
  if (ROUTES[route]) return ROUTES[route];
  const ofDeck = /^\/api\/decks\/:deck(.*)$/.exec(path)?.[1];
  if (ofDeck?.startsWith("/sharing") || ofDeck?.startsWith("/pages")) return "share";
  if (ofDeck !== undefined) return DECK_ACTS[`${method} ${ofDeck}`] ?? (method === "GET" ? "see" : "change");
  if (OWN_THINGS.test(path)) return method === "GET" ? "session" : "account";
  throw new Error(`Nobody has said who may use ${route}.`);
}

function mayUse(who: PersonKind, asks: Asks): boolean {
  if (asks === "anyone") return true;
  if (who === "stranger") return false;
  if (asks === "session") return true;
  if (asks === "account") return who !== "linkVisitor";
  if (asks === "house") return who === "houseOwner";
  if (who === "owner") return true;
  if (who === "houseOwner") return false;
  // The link gives the right to look without notes, and a guest has no Desk for a copy.
  if (who === "linkVisitor") return asks === "look" || asks === "export";
  return includes(GIVEN[who] ?? "copy", ACTS[asks]);
}

/** Whether a reply refuses the visitor, and not what was asked. */
async function refused(response: Response, deck: string): Promise<boolean> {
  if (response.status === 401 || response.status === 403) return true;
  if (response.status !== 404) return false;
  const { error } = (await response.json()) as { error: { where: string; message: string } };
  return error.where === deck && error.message.startsWith("There is no deck");
}

describe.each(PEOPLE)("as a %s", (who) => {
  it("every route does what its visitor may do, and nothing else (OWASP ASVS 4.0.3, 4.1.1, 4.1.3, 4.2.1)", async () => {
    const wrong: string[] = [];
    let deck = await sharedDeck();
    for (const route of server.routes()) {
      const [method = "", path = ""] = route.split(" ");
      if (!path.startsWith("/api/") || path.includes("*")) continue;
      const asks = asksOf(route);
      const address = path
        .replace(":deck", deck.id)
        .replace(":slide", "a")
        .replace(":version", "0")
        .replace(/:\w+/g, "none");
      const stop = new AbortController();
      const init = method === "GET" ? {} : json({}, method);
      const response = await (await client(who))(`${address}?format=md&name=a.md&since=0`, {
        ...init,
        signal: stop.signal,
      });
      const streams = response.headers.get("content-type") === "text/event-stream";
      const isRefused = !streams && (await refused(response, deck.id));
      if (isRefused === mayUse(who, asks)) wrong.push(`${route} (${asks}): ${response.status}`);
      if (response.status >= 500) wrong.push(`${route}: ${response.status}`);
      stop.abort();
      if (method === "DELETE" && path === "/api/decks/:deck" && who === "owner") deck = await sharedDeck();
    }
    expect(wrong).toEqual([]);
  });
});

it("a guest whose link shows the notes too makes nothing of a deck that would need a Desk", async () => {
  const deck = await sharedDeck();
  const owner = await server.as("owner");
  const asked = { scope: "deck", right: "view", notes: true, expiresAt: null };
  const { links } = Sharing.parse(await (await owner(`/api/decks/${deck.id}/sharing/links`, json(asked))).json());
  const token = links
    .find(({ notes }) => notes)
    ?.path?.split("/")
    .at(-1);
  const guest = await server.as("guest");
  expect((await guest(`/api/links/${token}/opening`, json({}))).status).toBe(200);
  expect((await guest(`/api/decks/${deck.id}`)).status).toBe(200);
  for (const made of ["films", "parts", "followers", "translations", "copies"])
    expect([made, (await guest(`/api/decks/${deck.id}/${made}`, json({}))).status]).toEqual([made, 403]);
});

it("rights are in order, and a right to copy alone is the least", () => {
  expect(RIGHTS.map((right) => RIGHTS.filter((other) => includes(right, other)).length)).toEqual([1, 2, 3, 4, 5]);
});
