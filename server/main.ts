import { join } from "node:path";
import pino from "pino";
import { loadDemo } from "../demo";
import { inlineExporter, threadExporter } from "./export";
import { inlineReader, Jobs, threadReader } from "./jobs";
import { Announcements, createApp } from "./routes";
import { connect, migrated, versionOf } from "./store";

/** Settings come from the environment that the start script gives. */
const { UNITEXT_DATABASE = "postgres://unitext@127.0.0.1:5432/unitext", UNITEXT_ROOT = process.cwd(), UNITEXT_PORT = "4280", UNITEXT_DEMO = "1", UNITEXT_WORKER, UNITEXT_READER } = process.env;

const log = pino({ level: process.env.UNITEXT_LOG ?? "info", base: null });
const { db, close } = connect(UNITEXT_DATABASE);
await migrated(db, join(UNITEXT_ROOT, "server/migrations"));
if (UNITEXT_DEMO === "1") await loadDemo(db, join(UNITEXT_ROOT, "demo"), join(UNITEXT_ROOT, "dist/fonts"));
const announcements = new Announcements(UNITEXT_DATABASE, (deck) => versionOf(db, deck));
await announcements.start();
const exporter = UNITEXT_WORKER ? threadExporter(UNITEXT_WORKER) : inlineExporter;
const fonts = join(UNITEXT_ROOT, "dist/fonts");
const jobs = new Jobs(db, UNITEXT_DATABASE, UNITEXT_READER ? threadReader(UNITEXT_READER, fonts) : inlineReader, fonts, (message, error) => log.error({ err: error }, message), exporter);
await jobs.start();
const app = createApp({ db, exporter, jobs, announcements, fonts }, { client: join(UNITEXT_ROOT, "dist/web"), log });

const server = app.listen(Number(UNITEXT_PORT), "127.0.0.1", () => {
  const address = server.address();
  log.info({ port: typeof address === "object" ? address?.port : UNITEXT_PORT }, "listening");
  process.send?.("listening");
});

let stopping = false;
/** Ends in order: no new requests, the running ones to their end, then the database. */
async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  setTimeout(() => process.exit(1), 10000).unref();
  await announcements.stop();
  server.close();
  server.closeIdleConnections();
  await jobs.close();
  await exporter.close();
  await close();
  process.exit(0);
}
process.on("SIGTERM", stop);
process.on("SIGINT", stop);
process.on("disconnect", stop);
