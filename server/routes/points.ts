import express, { Router } from "express";
import { type PointService, PointsAsked } from "../api";
import { asker, type AppContext, body, route } from "./context";
import { LIMITS } from "./uploads";

/** Routes for the engines that make points from paragraphs. */
export function pointRoutes({ work, pointService: service }: AppContext): Router {
  const routes = Router();

  routes.get(
    "/points/service",
    route(async ({ response }) => {
      response.json({ service: service ? { host: new URL(service.url).host } : null } satisfies PointService);
    }),
  );

  routes.post(
    "/points",
    express.json({ limit: LIMITS.json }),
    route(async (call) => {
      const asked = body(PointsAsked, call.request);
      call.response.json(await work.run("proposePoints", { ...asked, service }, asker(call)));
    }),
  );

  return routes;
}
