import { Router } from "express";
import { forgetJob, jobOfOwner, listJobs, updateJob } from "../store";
import { type AppContext, route } from "./context";

/** The jobs of the signed-in user: how far they are, streamed; cancelled, and taken off the list. */
export function jobRoutes({ db, announcements }: AppContext): Router {
  const routes = Router();
  routes.get("/jobs", route(async ({ user, response }) => response.json({ jobs: await listJobs(db, user.id) })));
  routes.get("/jobs/events", route(async ({ user, response }) => announcements.streamJobs(user.id, response)));
  routes.get("/jobs/:job", route(async ({ user, request, response }) => response.json(await jobOfOwner(db, user.id, String(request.params.job)))));
  routes.post("/jobs/:job/cancel", route(async ({ user, request, response }) => {
    const { id } = await jobOfOwner(db, user.id, String(request.params.job));
    await updateJob(db, id, { state: "cancelled" });
    response.json(await jobOfOwner(db, user.id, id));
  }));
  routes.delete("/jobs/:job", route(async ({ user, request, response }) => {
    await forgetJob(db, user.id, String(request.params.job));
    response.status(204).end();
  }));
  return routes;
}
