// A stand-in for an outside data service: node demo/service.mjs PORT gives the readings of the station's gauges on
// loopback, as /station-gauges.xlsx and /readings.csv. POST /next changes to the next quarter, and back again.
import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { createServer } from "node:http";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const content = join(dirname(fileURLToPath(import.meta.url)), "content");
const QUARTERS = [
  { folder: content, readings: "Month,Quay,Bar\nJanuary,2.41,2.6\nFebruary,2.38,2.55\nMarch,2.36,2.57\n" },
  {
    folder: join(content, "next-quarter"),
    readings: "Month,Quay,Bar\nApril,2.33,2.51\nMay,2.29,2.48\nJune,2.31,2.5\n",
  },
];
let quarter = 0;

const files = {
  "/station-gauges.xlsx": () => readFileSync(join(QUARTERS[quarter].folder, "station-gauges.xlsx")),
  "/readings.csv": () => Buffer.from(QUARTERS[quarter].readings),
};

createServer((request, response) => {
  const { pathname } = new URL(request.url ?? "/", "http://127.0.0.1");
  if (request.method === "POST" && pathname === "/next") {
    quarter = (quarter + 1) % QUARTERS.length;
    response.writeHead(204).end();
    return;
  }
  const file = files[pathname]?.();
  if (!file) {
    response.writeHead(404).end();
    return;
  }
  const etag = `"${createHash("sha256").update(file).digest("hex").slice(0, 16)}"`;
  if (request.headers["if-none-match"] === etag) response.writeHead(304, { etag }).end();
  else response.writeHead(200, { etag, "content-type": "application/octet-stream" }).end(file);
}).listen(Number(process.argv[2] ?? 4299), "127.0.0.1");
