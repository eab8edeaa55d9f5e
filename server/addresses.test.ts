import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { SourceList } from "./api";
import { fetchWorkbook, isPrivateAddress } from "./jobs/address";
import { type TestServer, testServer } from "./testing";

const FIRST = "Station,March\nQuay,4.6\n";
let outside: Server;
let host: string;
let answer: (
  path: string,
  headers: Record<string, unknown>,
) => { status: number; headers?: Record<string, string>; body?: string };
let server: TestServer;

beforeAll(async () => {
  outside = createServer((request, response) => {
    const { status, headers = {}, body = "" } = answer(request.url ?? "", request.headers);
    response.writeHead(status, headers);
    response.end(body);
  });
  await new Promise<void>((resolve) => outside.listen(0, "127.0.0.1", resolve));
  host = `127.0.0.1:${(outside.address() as AddressInfo).port}`;
  server = await testServer("unitext_addresses", { sourceHosts: [host] });
});
afterAll(async () => {
  await server.close();
  outside.closeAllConnections();
  outside.close();
});

const at = (path: string) => `http://${host}${path}`;

describe("an address", () => {
  it("is a source with versions, and is not sent again when it has not changed", async () => {
    const ask = await server.as("hana");
    const asked: unknown[] = [];
    answer = (_, headers) => {
      asked.push(headers["if-none-match"]);
      return headers["if-none-match"] === '"1"'
        ? { status: 304 }
        : { status: 200, headers: { etag: '"1"' }, body: FIRST };
    };
    const post = (path: string, body: unknown) =>
      ask(path, { method: "POST", body: JSON.stringify(body), headers: { "content-type": "application/json" } });
    expect((await post("/api/sources/address", { address: at("/data/gauges.csv") })).status).toBe(201);
    const sources = async () => SourceList.parse(await (await ask("/api/sources")).json()).sources;
    const [source] = await sources();
    expect(source).toMatchObject({ name: "gauges.csv", address: at("/data/gauges.csv"), problem: null });
    expect(await (await post(`/api/sources/${source?.id}/fetch`, {})).json()).toEqual({ fresh: false });
    expect(asked).toEqual([undefined, '"1"']);
    answer = () => ({ status: 200, headers: { etag: '"2"' }, body: FIRST.replace("4.6", "5.0") });
    expect(await (await post(`/api/sources/${source?.id}/fetch`, {})).json()).toEqual({ fresh: true });
    expect((await sources())[0]?.versions.map(({ from }) => from)).toEqual([host, host]);
    answer = () => ({ status: 500 });
    await post(`/api/sources/${source?.id}/fetch`, {});
    expect((await sources())[0]).toMatchObject({ problem: `${host} answers with 500. The last values stay.` });
    expect((await sources())[0]?.versions).toHaveLength(2);
  });

  it.each([
    ["on another host", "http://data.example/gauges.csv", /is not allowed/],
    ["of another kind", "ftp://data.example/gauges.csv", /http/],
    ["that is none", "gauges", /no address/],
  ])("%s is refused", async (_, address, words) => {
    await expect(fetchWorkbook(address, [host])).rejects.toThrow(words);
  });

  it("that names no workbook is refused", async () => {
    await expect(fetchWorkbook(at("/page.html"), [host])).rejects.toThrow(/does not end in the name/);
  });

  it("follows redirects inside its host alone", async () => {
    answer = (path) =>
      path === "/a.csv" ? { status: 302, headers: { location: "/b.csv" } } : { status: 200, body: FIRST };
    expect((await fetchWorkbook(at("/a.csv"), [host])).bytes).toHaveLength(FIRST.length);
    answer = () => ({ status: 302, headers: { location: "http://127.0.0.1:1/b.csv" } });
    await expect(fetchWorkbook(at("/a.csv"), [host])).rejects.toThrow(
      /sends on to 127\.0\.0\.1:1, which is not followed/,
    );
    answer = () => ({ status: 302, headers: { location: "/a.csv" } });
    await expect(fetchWorkbook(at("/a.csv"), [host])).rejects.toThrow(/answers with 302/);
  });

  it("that says it is too large is refused before it is read", async () => {
    answer = () => ({ status: 200, headers: { "content-length": String(60 * 1024 * 1024) }, body: "" });
    await expect(fetchWorkbook(at("/a.csv"), [host])).rejects.toThrow(/larger than 50 MB/);
  });

  it("whose name leads into a private network is refused, also where the name is listed", async () => {
    // A name that every machine resolves to loopback, though it is not “localhost” itself.
    await expect(fetchWorkbook("http://ip6-localhost/a.csv", ["ip6-localhost"])).rejects.toThrow(
      /private network|cannot be reached/,
    );
  });
});

it.each([
  ["127.0.0.1", true],
  ["10.1.2.3", true],
  ["172.16.0.1", true],
  ["172.32.0.1", false],
  ["192.168.1.1", true],
  ["169.254.169.254", true],
  ["100.64.0.1", true],
  ["8.8.8.8", false],
  ["::1", true],
  ["fd00::1", true],
  ["fe80::1", true],
  ["::ffff:10.0.0.1", true],
  ["2001:db8::1", false],
])("the address %s is private: %s (RFC 1918, 4193, 4291, 6598)", (ip, wanted) => {
  expect(isPrivateAddress(ip)).toBe(wanted);
});
