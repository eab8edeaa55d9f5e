import { emptyDeck, newSlide } from "@unitext/core/model";
import { nanoid } from "nanoid";
import { Remote, Talk, type TalkState } from "./api";
import { createDeck } from "./store";
import { json, type TestServer, testServer } from "./testing";

let server: TestServer;
beforeAll(async () => {
  server = await testServer("remotes");
});
afterAll(() => server.close());

const state: TalkState = { slide: "a", next: "b", step: 0, dark: false, elapsed: 3, planned: 60, running: true };

it("a phone follows a talk by its link alone, presses reach the speaker, and the link ends with the talk", async () => {
  const speaker = await server.as("speaker");
  const slides = [newSlide("a", "points"), newSlide("b", "points")];
  const deck = await createDeck(server.db, "speaker", { ...emptyDeck(nanoid(12), "Talk"), slides }, new Map(), null);
  const { token } = Remote.parse(await (await speaker(`/api/decks/${deck}/remote`, json({}))).json());

  // No session is needed: whoever has the link has the talk, and nobody else.
  const phone = (path: string, init: RequestInit = {}) =>
    fetch(`${server.address}/api/remote/${path}`, {
      ...init,
      headers: { "content-type": "application/json", "sec-fetch-site": "same-origin" },
    });
  expect((await phone("wrong")).status).toBe(404);
  expect(Talk.parse(await (await phone(token)).json())).toMatchObject({ deck: { id: deck }, state: null });

  const events = await phone(`${token}/events`);
  const reader = (events.body as ReadableStream<Uint8Array>).getReader();
  const news = async () => {
    let text = "";
    while (!/data: \S+\n/.test(text)) text += new TextDecoder().decode((await reader.read()).value);
    return JSON.parse(Buffer.from(/data: (\S+)\n/.exec(text)?.[1] ?? "", "base64url").toString()) as unknown;
  };
  await speaker(`/api/decks/${deck}/remote/${token}`, json(state, "PUT"));
  expect(await news()).toEqual({ kind: "state", state });
  expect((await phone(`${token}/presses`, { method: "POST", body: JSON.stringify({ press: "forward" }) })).status).toBe(
    204,
  );
  expect(await news()).toEqual({ kind: "press", press: "forward" });
  expect(
    (await phone(`${token}/presses`, { method: "POST", body: JSON.stringify({ press: "everything" }) })).status,
  ).toBe(400);
  // One that joins later sees at once what is shown.
  expect(Talk.parse(await (await phone(token)).json()).state).toEqual(state);

  const stranger = await server.as("stranger");
  expect((await stranger(`/api/decks/${deck}/remote`, json({}))).status).toBe(404);
  expect((await stranger(`/api/decks/${deck}/remote/${token}`, { method: "DELETE" })).status).toBe(404);
  expect((await speaker(`/api/decks/${deck}/remote/${token}`, { method: "DELETE" })).status).toBe(204);
  expect(await news()).toEqual({ kind: "ended" });
  expect((await phone(token)).status).toBe(404);
  await reader.cancel();
});
