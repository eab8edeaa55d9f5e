import { networkInterfaces, tmpdir } from "node:os";
import { join } from "node:path";
import { HouseKey, mailFolder, Throttle } from "./accounts";
import { Jobs, pollAddresses, watchFolder } from "./jobs";
import { openLog } from "./log";
import { Announcements, createApp, newsFrom } from "./routes";
import { connect, DEMO_USER, ensureUser, firstOwner, migrated, tidy } from "./store";
import { pointServiceFrom, translationServiceFrom, voiceServiceFrom } from "@unitext/node";
import { inlineWork, ProcessPool } from "./work";

/** The settings are environment variables that the start script sets. */
const {
  UNITEXT_DATABASE = "postgres://unitext@127.0.0.1:5432/unitext",
  UNITEXT_ROOT = process.cwd(),
  UNITEXT_PORT = "4280",
  UNITEXT_WORKER,
  UNITEXT_LOG_FILE,
  UNITEXT_HOST = "",
  UNITEXT_SOURCES,
  UNITEXT_SOURCE_HOSTS = "",
  UNITEXT_LISTEN = "127.0.0.1",
  UNITEXT_DEMO,
  UNITEXT_KEY_FILE,
  UNITEXT_MAIL,
} = process.env;
const HOUR = 3600 * 1000;

/** Returns the addresses of this machine on its networks. */
const ownAddresses = (): string[] =>
  Object.values(networkInterfaces()).flatMap((list = []) =>
    list.flatMap(({ address, family, internal }) => (family === "IPv4" && !internal ? [address] : [])),
  );

const log = openLog({
  level: process.env.UNITEXT_LOG ?? "info",
  ...(UNITEXT_LOG_FILE ? { file: UNITEXT_LOG_FILE } : {}),
});
// No request ends the process; unhandled faults are logged, and the server goes on.
process.on("unhandledRejection", (error) => log.error({ err: error }, "unhandled rejection"));

const { db, pool, close } = connect(UNITEXT_DATABASE);
await migrated(db, join(UNITEXT_ROOT, "server/migrations"));
const announcements = new Announcements(UNITEXT_DATABASE, newsFrom(db));
await announcements.start();
const fonts = join(UNITEXT_ROOT, "dist/fonts");
const work = UNITEXT_WORKER ? new ProcessPool(UNITEXT_WORKER, fonts) : inlineWork;
const jobs = new Jobs({
  db,
  url: UNITEXT_DATABASE,
  work,
  fonts,
  voiceService: voiceServiceFrom(process.env),
  log: (message, error) => log.error({ err: error }, message),
});
await jobs.start();
const demo = UNITEXT_DEMO !== "0";
/** Whose sources the workbooks of a watched folder are: the user of the demo, else the first owner of the house. */
const folderOwner = async () => {
  if (!demo) return firstOwner(db);
  await ensureUser(db, DEMO_USER);
  return DEMO_USER.id;
};
let endWatching: (() => Promise<void>) | undefined;
if (UNITEXT_SOURCES) {
  const owner = await folderOwner();
  if (owner)
    endWatching = watchFolder({ db, work, jobs }, UNITEXT_SOURCES, owner, (message, error) =>
      log.warn({ err: error }, message),
    );
  else log.warn("the folder of workbooks is watched from the next start on, when this house has an owner");
}
const listed = (text: string) =>
  text
    .split(",")
    .map((host) => host.trim())
    .filter(Boolean);
// On all addresses other computers of the network reach this house; in the demo only links and the page for a phone.
const onNetwork = UNITEXT_LISTEN !== "127.0.0.1";
const own = onNetwork ? ownAddresses() : [];
const hosts = [...listed(UNITEXT_HOST), ...own];
const sourceHosts = listed(UNITEXT_SOURCE_HOSTS);
const endPolling = pollAddresses({ db, work, jobs }, sourceHosts, (message, error) =>
  log.warn({ err: error }, message),
);
const app = createApp(
  {
    db,
    work,
    jobs,
    announcements,
    fonts,
    demo,
    key: UNITEXT_KEY_FILE ? HouseKey.at(UNITEXT_KEY_FILE) : HouseKey.random(),
    mail: mailFolder(UNITEXT_MAIL ?? join(tmpdir(), "unitext-mail")),
    throttle: new Throttle(pool),
    sourceHosts,
    addresses: own.map((address) => `http://${address}:${UNITEXT_PORT}`),
    translationService: translationServiceFrom(process.env),
    pointService: pointServiceFrom(process.env),
    voiceService: voiceServiceFrom(process.env),
  },
  { client: join(UNITEXT_ROOT, "dist/web"), log, hosts },
);

const tidying = setInterval(() => {
  tidy(db).then(
    (removed) => log.info(removed, "tidied"),
    (error) => log.error({ err: error }, "tidying failed"),
  );
}, HOUR);
tidying.unref();

const server = app.listen(Number(UNITEXT_PORT), UNITEXT_LISTEN, () => {
  const address = server.address();
  log.info({ port: typeof address === "object" ? address?.port : UNITEXT_PORT }, "listening");
  process.send?.("listening");
});

// Longer than browsers and proxies keep a connection open, so that no request meets one that is being closed.
server.keepAliveTimeout = 65_000;

let stopping = false;
/** Shuts down in order: no new requests, the running ones to their end, then the database. */
async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  setTimeout(() => process.exit(1), 10000).unref();
  await announcements.stop();
  server.close();
  server.closeIdleConnections();
  endPolling();
  await endWatching?.();
  await jobs.close();
  await work.close();
  await close();
  process.exit(0);
}
process.on("SIGTERM", stop);
process.on("SIGINT", stop);
process.on("disconnect", stop);
