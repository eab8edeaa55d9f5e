import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import pg from "pg";
import pino from "pino";
import { ImportResult, Job } from "./api";
import { HouseKey, type Letter, Throttle } from "./accounts";
import { Jobs, watchFolder } from "./jobs";
import { Announcements, type AppContext, createApp, newsFrom } from "./routes";
import { connect, type Database, ensureUser, migrated, newToken, openSession } from "./store";
import { inlineWork, ProcessPool } from "./work";

const root = join(import.meta.dirname, "..");

export interface TestServer {
  address: string;
  /** The letters that were sent. */
  letters: readonly Letter[];
  /** The address of its database. */
  url: string;
  db: Database;
  /** Returns a fetch with the session of a user. */
  as(user: string): Promise<(path: string, init?: RequestInit) => Promise<Response>>;
  /** Watches a folder for workbooks of a user. Returns a function that ends it. */
  watch(folder: string, user: string, log: (message: string) => void): () => Promise<void>;
  /** The routes that it answers, as “GET /api/decks/:deck”. */
  routes(): string[];
  close(): Promise<void>;
}

interface Layer {
  route?: { path: string; methods: Record<string, boolean> };
  handle?: { stack?: Layer[] };
}

/** Lists the routes of an app and of the routers that it uses under /api. */
function routesOf(app: ReturnType<typeof createApp>): string[] {
  // The routes on the state of the service are beside /api.
  const inside = (under: string, path: string) => (/^\/(api|health|oembed)/.test(path) ? path : under + path);
  const listed = (stack: readonly Layer[], under: string): string[] =>
    stack.flatMap(({ route, handle }) =>
      route
        ? Object.keys(route.methods).map((method) => `${method.toUpperCase()} ${inside(under, route.path)}`)
        : listed(handle?.stack ?? [], "/api"),
    );
  return [...new Set(listed((app as unknown as { router: { stack: Layer[] } }).router.stack, ""))];
}

/** A server with a database of its own inside the test run's PostgreSQL. With `processes` its work is done in worker processes, as in the product. */
export async function testServer(
  name: string,
  {
    withoutJobs = false,
    processes = false,
    client,
    ...services
  }: { withoutJobs?: boolean; processes?: boolean; client?: string } & Partial<
    Pick<AppContext, "sourceHosts" | "pointService" | "voiceService" | "demo" | "key">
  > = {},
): Promise<TestServer> {
  const url = new URL(process.env.UNITEXT_TEST_DATABASE ?? "");
  const admin = new pg.Client({ connectionString: url.href });
  await admin.connect();
  await admin.query(`drop database if exists ${name} with (force)`);
  await admin.query(`create database ${name}`);
  await admin.end();
  url.pathname = `/${name}`;
  const { db, pool, close } = connect(url.href);
  await migrated(db, join(root, "server/migrations"));
  const announcements = new Announcements(url.href, newsFrom(db));
  await announcements.start();
  const fonts = join(root, "dist/fonts");
  const work = processes ? new ProcessPool(join(root, "dist/server/worker.js"), fonts) : inlineWork;
  const jobs = new Jobs({ db, url: url.href, work, fonts, voiceService: services.voiceService });
  if (!withoutJobs) await jobs.start();
  const letters: Letter[] = [];
  const app = createApp(
    {
      db,
      work,
      jobs,
      announcements,
      fonts,
      demo: true,
      key: HouseKey.random(),
      mail: { send: (letter) => letters.push(letter) },
      throttle: new Throttle(pool),
      ...services,
    },
    { log: pino({ level: "silent" }), ...(client ? { client } : {}) },
  );
  const server: Server = createServer(app);
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return {
    address,
    letters,
    url: url.href,
    db,
    async as(user) {
      await ensureUser(db, { id: user, name: user });
      const token = newToken();
      await openSession(db, user, token);
      return (path, init = {}) =>
        fetch(`${address}${path}`, {
          ...init,
          headers: { origin: address, ...init.headers, cookie: `unitext_session=${token}` },
        });
    },
    watch: (folder, user, log) => watchFolder({ db, work, jobs }, folder, user, log),
    routes: () => routesOf(app),
    async close() {
      if (!withoutJobs) await jobs.close();
      await announcements.stop();
      await work.close();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await close();
    },
  };
}

type Client = (path: string, init?: RequestInit) => Promise<Response>;

/** Waits for a job to end and returns it. */
export async function ended(as: Client, job: string): Promise<Job> {
  for (let wait = 0; wait < 400; wait++) {
    const found = Job.parse(await (await as(`/api/jobs/${job}`)).json());
    if (found.state !== "waiting" && found.state !== "running") return found;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error("The job did not end.");
}

/** Imports a file and waits until it is read. */
export async function importFile(as: Client, name: string, body: BodyInit): Promise<ImportResult> {
  const made = ImportResult.parse(
    await (
      await as(`/api/files?name=${name}`, {
        method: "POST",
        headers: { "content-type": "application/octet-stream" },
        body,
      })
    ).json(),
  );
  if (made.job) await ended(as, made.job);
  return made;
}

/** Returns a request that sends a body as JSON. */
export const json = (body: unknown, method = "POST"): RequestInit => ({
  method,
  headers: { "content-type": "application/json" },
  body: JSON.stringify(body),
});
