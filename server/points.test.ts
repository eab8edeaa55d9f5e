import { type ChildProcess, fork } from "node:child_process";
import { once } from "node:events";
import { PointService, PointsProposed } from "./api";
import { json, type TestServer, testServer } from "./testing";

let writer: ChildProcess;
let server: TestServer;
let person: Awaited<ReturnType<TestServer["as"]>>;
beforeAll(async () => {
  writer = fork("demo/pointwriter.mjs", ["0"], { env: { ...process.env, FAULT: "number" }, execArgv: [] });
  const [port] = await once(writer, "message");
  server = await testServer("unitext_points", {
    pointService: { url: `http://127.0.0.1:${port}/v1/chat/completions` },
  });
  person = await server.as("olive");
});
afterAll(async () => {
  writer.kill();
  await server.close();
});

const paragraphs = [["The gate of the quay closes at 22:00.", "Sand moves along the shore."]];
const ask = async (engine: string) =>
  PointsProposed.parse(await (await person("/api/points", json({ engine, language: "en", paragraphs }))).json());

describe("points from paragraphs", () => {
  it("are taken out of their sentences without anything from outside", async () => {
    const { paragraphs: made } = await ask("extract");
    expect(made).toEqual([
      [
        { point: "The gate of the quay closes at 22:00", faults: [] },
        { point: "Sand moves along the shore", faults: [] },
      ],
    ]);
  });

  it("come from the service with what is wrong with them", async () => {
    const { paragraphs: made } = await ask("service");
    expect(made[0]?.map((one) => one?.faults)).toEqual([["number", "lost-number"], []]);
    const { service } = PointService.parse(await (await person("/api/points/service")).json());
    expect(service?.host).toMatch(/^127\.0\.0\.1:/);
  });

  it("are refused for too many sentences, with a reason", async () => {
    const many = [Array.from({ length: 400 }, () => "Sand moves.")];
    const response = await person(
      "/api/points",
      json({ engine: "extract", language: "en", paragraphs: Array.from({ length: 6 }, () => many[0]) }),
    );
    expect(response.status).toBe(400);
    expect(await response.text()).toContain("At most 2000 sentences");
  });
});
