import { request as send } from "node:http";
import { sql } from "drizzle-orm";
import { codeAt } from "./accounts";
import { Account, AccountLink, Entrance, House, NewLink, SecondFactor, SignedIn } from "./api";
import { auditLog, schema } from "./store";
import { json, type TestServer, testServer } from "./testing";

/** A browser: it keeps the cookie that it gets. */
class Visitor {
  cookie = "";
  constructor(
    private readonly server: TestServer,
    private readonly headers: Record<string, string> = {},
  ) {}

  async ask(path: string, init: RequestInit = {}): Promise<Response> {
    const { address } = this.server;
    const response = await fetch(`${address}/api${path}`, {
      ...init,
      headers: { origin: address, ...this.headers, ...init.headers, ...(this.cookie ? { cookie: this.cookie } : {}) },
    });
    for (const line of response.headers.getSetCookie()) this.cookie = line.split(";")[0] ?? "";
    return response;
  }

  async signIn(name: string, password: string, code?: string): Promise<Response> {
    return this.ask("/sign-in", json({ name, password, ...(code ? { code } : {}) }));
  }
}

const PASSWORD = "low water is at half past six";
const OTHER = "the spit grows to the north";
let server: TestServer;
let warden: Visitor;
const visitor = (headers?: Record<string, string>) => new Visitor(server, headers);
const sentence = async (response: Response) =>
  ((await response.json()) as { error: { message: string } }).error.message;

beforeAll(async () => {
  server = await testServer("unitext_people", { demo: false });
  warden = visitor();
});
afterAll(() => server.close());

/** Makes an account by an invitation. Returns a visitor who is signed in with it. */
async function invited(name: string): Promise<Visitor> {
  const made = await warden.ask("/house/invitations", json({ role: "member", uses: 1, days: 1 }));
  const { path } = NewLink.parse(await made.json());
  const guest = visitor();
  const reply = await guest.ask(`/account-links/${path.split("/").at(-1)}/account`, json({ name, password: PASSWORD }));
  expect(reply.status).toBe(201);
  return guest;
}

describe("the first start without the demo", () => {
  it("lets nobody in, and asks for the owner's account", async () => {
    const stranger = visitor();
    expect(Entrance.parse(await (await stranger.ask("/entrance")).json())).toEqual({
      me: null,
      house: "setup",
      demo: false,
    });
    expect((await stranger.ask("/decks")).status).toBe(401);
    expect(stranger.cookie).toBe("");
  });

  it("makes the account on this computer alone, once", async () => {
    const far = visitor({ "x-forwarded-for": "192.0.2.7" });
    expect((await far.ask("/setup", json({ name: "Far", password: PASSWORD }))).status).toBe(403);
    expect((await warden.ask("/setup", json({ name: "Warden", password: "short" }))).status).toBe(400);
    const made = await warden.ask("/setup", json({ name: "Warden", password: PASSWORD }));
    expect(SignedIn.parse(await made.json()).me).toMatchObject({ name: "Warden", role: "owner", demo: false });
    expect((await warden.ask("/decks")).status).toBe(200);
    expect((await visitor().ask("/setup", json({ name: "Second", password: PASSWORD }))).status).toBe(409);
  });
});

describe("signing in (OWASP ASVS 4.0.3, level 1)", () => {
  it("2.2.1, 2.5.2: a wrong name and a wrong password get the same answer", async () => {
    const wrong = await Promise.all([
      visitor().signIn("Warden", "not this one at all"),
      visitor().signIn("Nobody", "not this one at all"),
    ]);
    expect(wrong.map(({ status }) => status)).toEqual([403, 403]);
    const [one, two] = await Promise.all(wrong.map(sentence));
    expect(one).toBe(two);
  });

  it("takes the name in any case, and the password in its own", async () => {
    expect((await visitor().signIn("  wARDEN ", PASSWORD)).status).toBe(200);
    expect((await visitor().signIn("Warden", PASSWORD.toUpperCase())).status).toBe(403);
  });

  it("2.1.3: the whole password counts", async () => {
    expect((await visitor().signIn("Warden", `${PASSWORD} and more`)).status).toBe(403);
    expect((await visitor().signIn("Warden", PASSWORD.slice(0, -1))).status).toBe(403);
  });

  it("3.2.1: gives a new token each time, and ends the session that the browser had", async () => {
    const browser = visitor();
    await browser.signIn("Warden", PASSWORD);
    const before = browser.cookie;
    await browser.signIn("Warden", PASSWORD);
    expect(browser.cookie).not.toBe(before);
    const old = visitor();
    old.cookie = before;
    expect((await old.ask("/me")).status).toBe(401);
  });

  it("3.2.1: never takes a token that the visitor brings", async () => {
    const browser = visitor();
    browser.cookie = `unitext_session=${"a".repeat(40)}`;
    await browser.signIn("Warden", PASSWORD);
    expect(browser.cookie).not.toContain("a".repeat(40));
    expect(browser.cookie).toMatch(/^unitext_session=[\w-]{40}$/);
  });

  it("3.1.1, 3.2.2, 3.2.3: the token is in the cookie alone and has more than 64 bits", async () => {
    const browser = visitor();
    const reply = await browser.signIn("Warden", PASSWORD);
    const token = browser.cookie.split("=")[1] ?? "";
    expect(await reply.text()).not.toContain(token);
    // 40 characters of an alphabet of 64.
    expect(token.length * 6).toBeGreaterThan(64);
    expect((await visitor().ask(`/me?unitext_session=${token}`)).status).toBe(401);
  });

  it("3.4.1 to 3.4.5: over TLS the cookie is Secure, HttpOnly, SameSite, of this host and of every path", async () => {
    const reply = await visitor({ "x-forwarded-proto": "https" }).signIn("Warden", PASSWORD);
    const [cookie = ""] = reply.headers.getSetCookie();
    expect(cookie).toMatch(/^__Host-unitext_session=/);
    for (const attribute of ["Secure", "HttpOnly", "SameSite=Strict", "Path=/"]) expect(cookie).toContain(attribute);
    expect(cookie).not.toContain("Domain");
  });

  it("3.3.1: signing out ends the session, also for whoever kept the cookie", async () => {
    const browser = visitor();
    await browser.signIn("Warden", PASSWORD);
    const { cookie } = browser;
    expect((await browser.ask("/sign-out", { method: "POST" })).status).toBe(204);
    const again = visitor();
    again.cookie = cookie;
    expect((await again.ask("/me")).status).toBe(401);
  });

  it("3.3.2: a session that was not used for 30 days has ended", async () => {
    const browser = visitor();
    await browser.signIn("Warden", PASSWORD);
    await server.db.execute(
      sql`update sessions set expires_at = expires_at - interval '30 days 1 second' where created_at > now() - interval '5 seconds'`,
    );
    expect((await browser.ask("/me")).status).toBe(401);
    await warden.signIn("Warden", PASSWORD);
  });

  it("notes failed attempts without the password", async () => {
    await visitor().signIn("Warden", "a guess that is wrong");
    const [entry] = (await auditLog(server.db, 5)).filter(({ act }) => act === "sign-in-failed");
    expect(entry).toBeDefined();
    expect(JSON.stringify(entry)).not.toContain("guess");
  });
});

describe("accounts", () => {
  it("an invitation makes as many accounts as it says, and none after", async () => {
    const made = await warden.ask("/house/invitations", json({ role: "member", uses: 2, days: 7 }));
    const token = NewLink.parse(await made.json())
      .path.split("/")
      .at(-1);
    expect(AccountLink.parse(await (await visitor().ask(`/account-links/${token}`)).json()).kind).toBe("invitation");
    const join = (name: string) => visitor().ask(`/account-links/${token}/account`, json({ name, password: PASSWORD }));
    const statuses = [];
    for (const name of ["Dune 1", "dune 1", "Dune 2", "Dune 3"]) statuses.push((await join(name)).status);
    // The second is the name of the first in another case, and costs no place.
    expect(statuses).toEqual([201, 409, 201, 404]);
  });

  it("of many who come at once by an invitation for one, one gets in", async () => {
    const made = await warden.ask("/house/invitations", json({ role: "member", uses: 1, days: 7 }));
    const token = NewLink.parse(await made.json())
      .path.split("/")
      .at(-1);
    const replies = await Promise.all(
      ["Gull a", "Gull b", "Gull c", "Gull d"].map((name) =>
        visitor().ask(`/account-links/${token}/account`, json({ name, password: PASSWORD })),
      ),
    );
    expect(replies.map(({ status }) => status).sort()).toEqual([201, 404, 404, 404]);
  });

  it("2.3.1: links are random, expire, and are stored as hashes", async () => {
    const made = await warden.ask("/house/invitations", json({ role: "member", uses: 1, days: 1 }));
    const token =
      NewLink.parse(await made.json())
        .path.split("/")
        .at(-1) ?? "";
    expect(token).toMatch(/^[\w-]{40}$/);
    const rows = await server.db.select().from(schema.accountLinks);
    expect(JSON.stringify(rows)).not.toContain(token);
    await server.db.execute(sql`update account_links set expires_at = now() - interval '1 second'`);
    const late = await visitor().ask(`/account-links/${token}/account`, json({ name: "Late", password: PASSWORD }));
    expect([late.status, await sentence(late)]).toEqual([404, expect.stringContaining("expired")]);
  });

  it("2.1.5, 2.1.6, 2.2.3: a password is changed with the current one, other sessions end, and a letter says so", async () => {
    const diver = await invited("Diver");
    const elsewhere = visitor();
    await elsewhere.signIn("Diver", PASSWORD);
    const change = (current: string, next: string) => diver.ask("/account/password", json({ current, next }, "PUT"));
    expect((await change("not my password", OTHER)).status).toBe(403);
    expect((await change(PASSWORD, "123456789012")).status).toBe(400);
    expect((await change(PASSWORD, OTHER)).status).toBe(204);
    expect((await diver.ask("/me")).status).toBe(200);
    expect((await elsewhere.ask("/me")).status).toBe(401);
    expect((await visitor().signIn("Diver", PASSWORD)).status).toBe(403);
    expect(server.letters.at(-1)).toMatchObject({ to: "Diver", subject: "Your password was changed" });
  });

  it("2.5.1, 2.5.3, 2.5.6: a reset link of an owner sets a new password once, and shows none", async () => {
    await invited("Ranger");
    const { people } = House.parse(await (await warden.ask("/house")).json());
    const ranger = people.find(({ name }) => name === "Ranger");
    expect(ranger).toMatchObject({ role: "member", decks: 0, secondFactor: false, usedAt: expect.any(String) });
    const { path } = NewLink.parse(await (await warden.ask(`/house/people/${ranger?.id}/reset`, json({}))).json());
    expect(server.letters.at(-1)?.text).toContain(path);
    const token = path.split("/").at(-1);
    const set = (password: string) => visitor().ask(`/account-links/${token}/password`, json({ password }, "PUT"));
    expect((await set("too short")).status).toBe(400);
    expect((await set(OTHER)).status).toBe(204);
    expect((await set(PASSWORD)).status).toBe(404);
    expect((await visitor().signIn("Ranger", OTHER)).status).toBe(200);
    expect(JSON.stringify(server.letters)).not.toContain(OTHER);
  });

  it("3.3.3: sessions are listed by their device, and ended one by one or all others at once", async () => {
    const browser = visitor({
      "user-agent": "Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0",
    });
    const member = await invited("Keeper");
    await browser.signIn("Keeper", PASSWORD);
    const list = async () => Account.parse(await (await member.ask("/account")).json()).sessions;
    const other = (await list()).find(({ current }) => !current);
    expect(other?.device).toBe("Firefox on Linux");
    await member.ask(`/account/sessions/${other?.id}`, { method: "DELETE" });
    expect((await browser.ask("/me")).status).toBe(401);
    await browser.signIn("Keeper", PASSWORD);
    await member.ask("/account/sessions", { method: "DELETE" });
    expect((await browser.ask("/me")).status).toBe(401);
    expect((await list()).length).toBe(1);
  });

  it("2.5.4: there is no account that everybody knows", async () => {
    const { people } = House.parse(await (await warden.ask("/house")).json());
    expect(people.some(({ id }) => id === "demo")).toBe(false);
  });

  it("an account that is closed lets nobody in, and the last owner stays one", async () => {
    const member = await invited("Leaver");
    const { people } = House.parse(await (await warden.ask("/house")).json());
    const id = (name: string) => people.find((person) => person.name === name)?.id;
    const put = (person: string | undefined, change: object) =>
      warden.ask(`/house/people/${person}`, json(change, "PUT"));
    expect((await put(id("Leaver"), { closed: true })).status).toBe(204);
    expect((await member.ask("/me")).status).toBe(401);
    expect((await visitor().signIn("Leaver", PASSWORD)).status).toBe(403);
    expect((await put(id("Leaver"), { closed: false })).status).toBe(204);
    expect((await visitor().signIn("Leaver", PASSWORD)).status).toBe(200);
    expect((await put(id("Warden"), { role: "member" })).status).toBe(409);
    expect((await put(id("Warden"), { closed: true })).status).toBe(409);
  });
});

describe("the second factor", () => {
  it("is asked for after the password, takes each code once, and goes with the password", async () => {
    const member = await invited("Pilot");
    expect((await member.ask("/account/second-factor", json({ password: "not it, not it" }))).status).toBe(403);
    const begun = await member.ask("/account/second-factor", json({ password: PASSWORD }));
    const { secret, address } = SecondFactor.parse(await begun.json());
    expect(address).toMatch(/^otpauth:\/\/totp\/Unitext:Pilot\?.*secret=/);
    expect((await member.ask("/account/second-factor", json({ code: "000000" }, "PUT"))).status).toBe(403);
    const first = codeAt(secret, Date.now() - 30_000);
    expect((await member.ask("/account/second-factor", json({ code: first }, "PUT"))).status).toBe(204);
    const rows = await server.db.select({ totp: schema.users.totp }).from(schema.users);
    expect(JSON.stringify(rows)).not.toContain(secret);
    const browser = visitor();
    expect(SignedIn.parse(await (await browser.signIn("Pilot", PASSWORD)).json())).toEqual({
      me: null,
      needsCode: true,
    });
    expect(browser.cookie).toBe("");
    expect((await browser.signIn("Pilot", PASSWORD, first)).status).toBe(403);
    const code = codeAt(secret, Date.now());
    expect((await browser.signIn("Pilot", "not it, not it", code)).status).toBe(403);
    expect((await browser.signIn("Pilot", PASSWORD, code)).status).toBe(200);
    expect((await visitor().signIn("Pilot", PASSWORD, code)).status).toBe(403);
    expect((await member.ask("/account/second-factor", json({ password: PASSWORD }, "DELETE"))).status).toBe(204);
    expect((await visitor().signIn("Pilot", PASSWORD)).status).toBe(200);
  });
});

describe("who asks from where", () => {
  it("4.2.2: a sign-in that another site's page sends is refused", async () => {
    const reply = await visitor({ origin: "https://elsewhere.example" }).signIn("Warden", PASSWORD);
    expect(reply.status).toBe(403);
  });

  it("in the demo nobody signs in at this computer, and whoever comes through a proxy is a stranger", async () => {
    const demo = await testServer("unitext_people_demo");
    const at = new URL(demo.address);
    const status = (headers: Record<string, string>) =>
      new Promise<number>((resolve, reject) => {
        send(`${demo.address}/api/decks`, { headers }, (response) => resolve(response.statusCode ?? 0))
          .on("error", reject)
          .end();
      });
    try {
      expect(await status({})).toBe(200);
      expect(await status({ host: `localhost:${at.port}` })).toBe(200);
      expect(await status({ "x-forwarded-for": "192.0.2.7" })).toBe(401);
      expect(await status({ forwarded: "for=192.0.2.7" })).toBe(401);
    } finally {
      await demo.close();
    }
  });

  it("2.2.1: 10,000 wrong passwords are answered, few of them checked, and the right one still works elsewhere", async () => {
    await invited("Target");
    const attacker = visitor({ "x-forwarded-for": "198.51.100.9" });
    const counts = new Map<number, number>();
    for (let batch = 0; batch < 100; batch++) {
      const replies = await Promise.all(
        Array.from({ length: 100 }, (_, nth) => attacker.signIn("Target", `wrong password ${batch} ${nth}`)),
      );
      for (const { status } of replies) counts.set(status, (counts.get(status) ?? 0) + 1);
    }
    expect(counts.get(403)).toBe(10);
    expect(counts.get(429)).toBe(9990);
    expect((await attacker.signIn("Target", PASSWORD)).status).toBe(429);
    expect((await visitor({ "x-forwarded-for": "203.0.113.5" }).signIn("Target", PASSWORD)).status).toBe(200);
  }, 60_000);

  it("2.2.1: one account is tried less than 100 times an hour, from however many computers", async () => {
    await invited("Spread");
    let checked = 0;
    for (let nth = 0; nth < 120; nth++) {
      const from = visitor({ "x-forwarded-for": `198.51.100.${100 + (nth % 60)}` });
      if ((await from.signIn("Spread", "always the wrong one")).status === 403) checked++;
    }
    expect(checked).toBeLessThan(100);
  }, 60_000);
});
