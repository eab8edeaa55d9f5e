// Every route with every right, and requests from outside.
import { told, address, id, sql, person, json, newDeck } from "./service.mjs";

/** Who calls, from no right to every right. */
const RANK = ["stranger", "view", "comment", "edit", "owner"];

/** Every route of a deck: the least right that it asks for, its address and its request. */
const routes = (deck) => [
  ["view", `/api/decks/${deck}`, {}],
  ["view", `/api/decks/${deck}/first`, {}],
  ["view", `/api/decks/${deck}/changes?since=0`, {}],
  ["view", `/api/decks/${deck}/report?format=pdf`, {}],
  ["view", `/api/decks/${deck}/export?format=md`, {}],
  ["view", `/api/decks/${deck}/followers`, {}],
  ["view", `/api/decks/${deck}/differs`, {}],
  ["view", `/api/decks/${deck}/history`, {}],
  ["view", `/api/decks/${deck}/at/0`, {}],
  ["view", `/api/decks/${deck}/versions`, {}],
  ["view", `/api/decks/${deck}/bindings`, {}],
  ["view", `/api/decks/${deck}/look`, {}],
  ["view", `/api/decks/${deck}/films`, {}],
  ["view", `/api/decks/${deck}/copies`, json({})],
  ["view", `/api/decks/${deck}/parts`, json({ plan: { by: { count: 1 } }, date: "" })],
  ["view", `/api/decks/${deck}/followers`, json({ title: "x" })],
  [
    "view",
    "/api/merges",
    json({
      decks: [{ id: deck, version: 0 }],
      title: "x",
      appearance: "keep",
      sections: false,
      contents: false,
      openingsOnce: false,
      drop: [],
    }),
  ],
  ["view", "/api/writes", json({ decks: [deck], formats: ["md"] })],
  ["edit", `/api/decks/${deck}/steps`, {}],
  ["edit", `/api/decks/${deck}/bindings/take`, json({ take: [] })],
  [
    "edit",
    `/api/decks/${deck}/changes`,
    json({ base: 0, changes: [{ id: id(), change: { kind: "setRate", rate: 120 } }] }),
  ],
  [
    "edit",
    `/api/decks/${deck}/documents?name=a.md`,
    { method: "POST", body: "# x", headers: { "content-type": "application/octet-stream" } },
  ],
  [
    "edit",
    `/api/decks/${deck}/pictures?name=a.svg`,
    {
      method: "POST",
      body: "<svg xmlns='http://www.w3.org/2000/svg' width='1' height='1'/>",
      headers: { "content-type": "application/octet-stream" },
    },
  ],
  [
    "edit",
    `/api/decks/${deck}/recordings`,
    { method: "POST", body: "OggS", headers: { "content-type": "application/octet-stream" } },
  ],
  ["owner", `/api/decks/${deck}/sharing`, {}],
  ["owner", `/api/decks/${deck}/pages`, {}],
  ["edit", `/api/decks/${deck}/versions`, { ...json({ version: 0, name: "x" }), method: "PUT" }],
  ["edit", `/api/decks/${deck}/versions/0`, { method: "DELETE" }],
  ["owner", `/api/decks/${deck}`, { method: "DELETE" }],
];

/** Requests that come from outside or are malformed, with the status that answers them. */
const fromOutside = (deck) => [
  [
    "a change without an origin",
    { ...json({}), headers: { "content-type": "application/json", origin: "" } },
    `/api/decks/${deck}/copies`,
    403,
  ],
  [
    "a change of another site",
    { ...json({}), headers: { "content-type": "application/json", origin: "https://evil.example" } },
    `/api/decks/${deck}/copies`,
    403,
  ],
  ["a read of another site", { headers: { "sec-fetch-site": "cross-site" } }, "/api/decks", 403],
  ["NUL in an address", {}, "/api/jobs/%00", 404],
  ["NUL in another", { method: "DELETE" }, "/api/jobs/%00", 404],
  ["a stranger's job", { method: "DELETE" }, "/api/jobs/nobodys", 404],
  ["a version beyond", {}, `/api/decks/${deck}/changes?since=9999999999`, 400],
  [
    "the same id twice",
    json({ base: 0, changes: [1, 2].map((rate) => ({ id: "same", change: { kind: "setRate", rate: 100 + rate } })) }),
    `/api/decks/${deck}/changes`,
    400,
  ],
  [
    "NUL in a text",
    json({
      base: 0,
      changes: [
        {
          id: id(),
          change: { kind: "setProperties", properties: { title: "a\u0000\ud800b", author: "", event: "", date: "" } },
        },
      ],
    }),
    `/api/decks/${deck}/changes`,
    200,
  ],
  [
    "an outline that ends its attribute",
    json({
      base: 0,
      changes: [
        {
          id: id(),
          change: {
            kind: "insertElement",
            slide: "x",
            index: 0,
            element: {
              kind: "shape",
              id: "s",
              slot: null,
              geometry: { width: 1, height: 1, paths: [{ d: 'M0 0"><script>', fill: true, stroke: true }] },
              text: [],
            },
          },
        },
      ],
    }),
    `/api/decks/${deck}/changes`,
    400,
  ],
];

/** Returns the status of a request that names another host, as after a change of an address by its name server. */
const statusForHost = (host) =>
  new Promise((resolve) => {
    const text = `GET /api/decks HTTP/1.1\r\nHost: ${host}\r\nConnection: close\r\n\r\n`;
    import("node:net").then(({ connect }) => {
      const socket = connect(Number(new URL(address).port), "127.0.0.1", () => socket.write(text));
      let answer = "";
      socket.on("data", (part) => (answer += part));
      socket.on("close", () => resolve(answer.split(" ")[1]));
    });
  });

export async function rights() {
  const people = {
    owner: await person("owner"),
    stranger: await person("stranger"),
    view: await person("viewer"),
    comment: await person("commenter"),
    edit: await person("editor"),
  };
  const wrong = [];
  let calls = 0;
  for (const [nth, who] of RANK.entries()) {
    const deck = await newDeck(people.owner);
    if (nth > 0 && nth < 4)
      await sql('insert into shares (deck_id, user_id, "right") values ($1, $2, $3)', [
        deck,
        { view: "viewer", comment: "commenter", edit: "editor" }[who],
        who,
      ]);
    for (const [least, path, init] of routes(deck)) {
      calls += 1;
      const { status } = await people[who](path, init);
      const may = nth >= RANK.indexOf(least);
      if (may ? status >= 400 : status !== (nth === 0 ? 404 : 403))
        wrong.push(`${who} ${init.method ?? "GET"} ${path.replace(deck, "…")}: ${status}`);
    }
  }
  const deck = await newDeck(people.owner);
  for (const [what, init, path, expected] of fromOutside(deck)) {
    calls += 1;
    const { status } = await people.owner(path, init);
    if (status !== expected) wrong.push(`${what}: ${status}, not ${expected}`);
  }
  const rebound = await statusForHost("rebound.example");
  if (rebound !== "403") wrong.push(`another host: ${rebound}`);
  const before = (await sql("select count(*)::int as n from sessions"))[0].n;
  for (let nth = 0; nth < 20; nth++) await fetch(`${address}/api/me`);
  const after = (await sql("select count(*)::int as n from sessions"))[0].n;
  if (after !== before) wrong.push(`${after - before} sessions for requests that keep no cookie`);
  told(
    "rights and addresses",
    wrong.length === 0,
    `${calls} calls as stranger, viewer, commenter, editor and owner${wrong.length ? `: ${wrong.join("; ")}` : "; none got more or less than it may"}`,
  );
}
