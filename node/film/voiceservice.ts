import { Failure, plainText, wellFormed } from "@unitext/core/model";
import { estimatedWords, narrationOf } from "@unitext/core/film";
import { z } from "zod";
import { askService, type LanguageService, languageServiceFrom, serviceFailure } from "../languageservice";
import type { Speech, SpeechAsked } from "./voice";

/** Returns the voice service that the environment names; undefined without one. */
export const voiceServiceFrom = (env: NodeJS.ProcessEnv): LanguageService | undefined =>
  languageServiceFrom(env, "UNITEXT_VOICE");

/** The most that a service may answer with: about ten minutes of speech, uncompressed. */
const MOST_BYTES = 64 * 1024 * 1024;

const Answer = z.object({
  sound: z.base64(),
  seconds: z.number().positive().max(3600),
  words: z
    .array(
      z.object({
        from: z.number().int().nonnegative(),
        to: z.number().int().positive(),
        start: z.number().nonnegative(),
        end: z.number().nonnegative(),
      }),
    )
    .max(100_000)
    .optional(),
});

/**
 * Speaks a text with a service outside of this program. Words without times are estimated from the length of the sound.
 * Throws a Failure `unavailable` that says what went wrong.
 */
export async function speakByService(
  asked: SpeechAsked,
  service: LanguageService,
  signal?: AbortSignal,
): Promise<Speech> {
  const call = { name: "The voice service", service, signal, most: MOST_BYTES };
  const { text, language } = asked;
  const body = await askService({ ...asked, ...(service.model ? { model: service.model } : {}) }, call);
  let answer: z.infer<typeof Answer>;
  try {
    answer = Answer.parse(wellFormed(JSON.parse(body)));
  } catch {
    throw serviceFailure(call, "did not answer with a sound as its contract says.");
  }
  const words = answer.words?.filter(({ from, to, start, end }) => from < to && to <= text.length && start <= end);
  if (!answer.sound) throw new Failure("unavailable", "voice", "The voice service answered without a sound.");
  return {
    sound: new Uint8Array(Buffer.from(answer.sound, "base64")),
    words: words?.length
      ? words.sort((a, b) => a.from - b.from)
      : estimatedWords(narrationOf(plainText(text), language), answer.seconds, language),
  };
}
