import { sql } from "drizzle-orm";
import { Router } from "express";
import type { AppContext } from "./context";

/** Routes for monitoring: `live` while the process runs, `ready` while it can reach its database. */
export function healthRoutes({ db }: Pick<AppContext, "db">): Router {
  const routes = Router();
  routes.get("/health/live", (_, response) => {
    response.json({ live: true });
  });
  routes.get("/health/ready", (_, response) => {
    db.execute(sql`select 1`).then(
      () => response.json({ ready: true }),
      () => response.status(503).setHeader("retry-after", "2").json({ ready: false }),
    );
  });
  return routes;
}
