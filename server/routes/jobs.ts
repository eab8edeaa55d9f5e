import { Failure, Id } from "@unitext/core/model";
import express, { type Request, Router } from "express";
import { permit } from "../access";
import { WriteRequest } from "../api";
import { forgetJob, jobOfOwner, listJobs, note, outputOf, rightOn, updateJob } from "../store";
import { type AppContext, body, fileOf, route } from "./context";
import { LIMITS, upload } from "./uploads";

/** Returns the job of an address. Throws a Failure `not-found` for an invalid id. */
function jobId(request: Request): string {
  const id = Id.safeParse(request.params.job);
  if (!id.success) throw new Failure("not-found", "job", "There is no such job.");
  return id.data;
}

/** Routes on the jobs of the signed-in user: progress as a stream, cancel, remove from the list. */
export function jobRoutes({ db, announcements, jobs }: AppContext): Router {
  const routes = Router();
  routes.get(
    "/jobs",
    route(async ({ user, response }) => response.json({ jobs: await listJobs(db, user.id) })),
  );
  routes.get(
    "/jobs/events",
    route(async ({ user, response }) => announcements.streamJobs(user.id, response)),
  );
  routes.get(
    "/jobs/:job",
    route(async ({ user, request, response }) => response.json(await jobOfOwner(db, user.id, jobId(request)))),
  );
  routes.post(
    "/jobs/:job/cancel",
    route(async ({ user, request, response }) => {
      const { id } = await jobOfOwner(db, user.id, jobId(request));
      await updateJob(db, id, { state: "cancelled" });
      response.json(await jobOfOwner(db, user.id, id));
    }),
  );
  routes.get(
    "/jobs/:job/file",
    route(async ({ user, request, response }) => {
      const { name, bytes } = await outputOf(db, user.id, jobId(request));
      response
        .set({
          "content-type": "application/zip",
          "content-disposition": `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
        })
        .send(Buffer.from(bytes));
    }),
  );
  routes.post(
    "/writes",
    express.json({ limit: LIMITS.json }),
    route(async ({ user, request, response }) => {
      const asked = body(WriteRequest, request);
      for (const id of asked.decks) permit(await rightOn(db, id, user.id), "export", id);
      for (const deck of new Set(asked.decks))
        await note(db, { user: user.id, act: "export", deck, detail: asked.formats.join(" ") });
      response.status(202).json({ job: await jobs.write(user.id, asked) });
    }),
  );
  routes.post(
    "/archives",
    route(async ({ user, response }) => {
      await note(db, { user: user.id, act: "export", detail: "archive of everything" });
      response.status(202).json({ job: await jobs.archive(user.id) });
    }),
  );
  routes.post(
    "/archives/contents",
    upload(LIMITS.archive),
    route(async ({ user, request, response }) => {
      const { bytes, name } = fileOf(request, "archive.zip");
      response.status(202).json({ job: await jobs.restore(user.id, name, bytes) });
    }),
  );
  routes.delete(
    "/jobs/:job",
    route(async ({ user, request, response }) => {
      await forgetJob(db, user.id, jobId(request));
      response.status(204).end();
    }),
  );
  return routes;
}
