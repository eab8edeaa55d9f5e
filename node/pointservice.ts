import { Failure } from "@unitext/core/model";
import { z } from "zod";
import {
  askService,
  chatJson,
  chatRequest,
  type LanguageService,
  languageServiceFrom,
  serviceFailure,
} from "./languageservice";

/** Returns the service that writes points: UNITEXT_POINTS_URL, _KEY and _MODEL; undefined where no address is set. */
export const pointServiceFrom = (env: NodeJS.ProcessEnv): LanguageService | undefined =>
  languageServiceFrom(env, "UNITEXT_POINTS");

/** How many paragraphs are sent at once. */
const MOST_PARAGRAPHS = 20;

const Answer = z.object({ points: z.array(z.array(z.string().max(2000).nullable())) });

const INSTRUCTIONS =
  'You write points for slides. You are sent JSON with the `language` (BCP 47) and `paragraphs`, each a list of sentences. Write for each sentence one point in this language: a whole clause of at most 15 words without a full stop, or null where the sentence gives no point that stands alone. Keep every number, unit, name, negation and limit (“about”, “at most”) of the sentence, and add nothing that it does not say. Answer with JSON alone: {"points": [[...], ...]}, a list for each paragraph with one point or null for each sentence, in their order.';

/**
 * Asks a service for the points of paragraphs, each given as its sentences. When the service fails, the points so far are
 * returned with a sentence about the failure; paragraphs without an answer have none.
 */
export async function pointsByService(
  paragraphs: readonly (readonly string[])[],
  language: string,
  service: LanguageService,
  signal?: AbortSignal,
): Promise<{ points: (string | null)[][]; remark: string }> {
  const points: (string | null)[][] = [];
  const call = { name: "The service that writes points", service, signal };
  for (let at = 0; at < paragraphs.length; at += MOST_PARAGRAPHS) {
    const batch = paragraphs.slice(at, at + MOST_PARAGRAPHS);
    try {
      const made = pointsIn(
        await askService(chatRequest(INSTRUCTIONS, { language, paragraphs: batch }, service), call),
      );
      const isWhole = made?.length === batch.length && made.every((list, nth) => list.length === batch[nth]?.length);
      if (!isWhole) throw serviceFailure(call, "did not answer with one point for each sentence.");
      points.push(...made);
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      return {
        points,
        remark: `${error.message}${at ? ` ${at} of ${paragraphs.length} paragraphs have points.` : ""}`,
      };
    }
  }
  return { points, remark: "" };
}

/** Returns the points in an answer; undefined if it has another form. */
function pointsIn(body: string): (string | null)[][] | undefined {
  try {
    return Answer.parse(chatJson(body)).points;
  } catch {
    return undefined;
  }
}
