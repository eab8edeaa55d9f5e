import { Language, POINT_ENGINES, POINT_FAULTS, type PointFault } from "@unitext/core/model";
import { z } from "zod";

/** The most sentences that points are asked for at once. */
const MOST = 2000;

/** Asks an engine for the points of paragraphs, each given as its sentences. */
export const PointsAsked = z.object({
  engine: z.enum(POINT_ENGINES),
  language: Language,
  paragraphs: z
    .array(z.array(z.string().max(20_000)).max(500))
    .max(MOST)
    .refine((list) => list.reduce((sum, sentences) => sum + sentences.length, 0) <= MOST, {
      message: `At most ${MOST} sentences go at once.`,
    }),
});
export type PointsAsked = z.infer<typeof PointsAsked>;

/**
 * What an engine answers: for each sentence its point with what is wrong with it, or null where it gives none. A paragraph
 * without an answer has none; `remark` says why.
 */
export const PointsProposed = z.object({
  paragraphs: z.array(
    z.array(
      z
        .object({
          point: z.string(),
          faults: z.array(z.enum(Object.keys(POINT_FAULTS) as [PointFault, ...PointFault[]])),
        })
        .nullable(),
    ),
  ),
  remark: z.string(),
});
export type PointsProposed = z.infer<typeof PointsProposed>;

/** The service that writes points, by the host to which texts are sent; null when there is none. */
export const PointService = z.object({ service: z.object({ host: z.string() }).nullable() });
export type PointService = z.infer<typeof PointService>;
