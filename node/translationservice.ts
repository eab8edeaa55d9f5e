import { Failure } from "@unitext/core/model";
import { type Piece, piecesOf, placeholderKinds, proposalOf, type Term, typedText } from "@unitext/core/translate";
import { z } from "zod";
import {
  askService,
  chatJson,
  chatRequest,
  type LanguageService,
  languageServiceFrom,
  serviceFailure,
} from "./languageservice";

/** A translation service outside of this program. */
export interface TranslationService extends LanguageService {
  /** `json` is the contract of docs/translation-service.md, `chat` that of chat completions. */
  protocol: "json" | "chat";
}

/**
 * Returns the service that the environment names: UNITEXT_TRANSLATION_URL, _PROTOCOL (json or chat), _KEY and _MODEL;
 * undefined where no address is set. Throws a Failure `not-valid` for settings that make no sense.
 */
export function translationServiceFrom(env: NodeJS.ProcessEnv): TranslationService | undefined {
  const service = languageServiceFrom(env, "UNITEXT_TRANSLATION");
  const { UNITEXT_TRANSLATION_PROTOCOL: protocol = "json" } = env;
  if (!service) return undefined;
  if (protocol !== "json" && protocol !== "chat")
    throw new Failure("not-valid", "UNITEXT_TRANSLATION_PROTOCOL", "It is json or chat.");
  return { ...service, protocol };
}

/** How many texts are sent at once. */
const MOST_TEXTS = 40;

const Answer = z.object({ texts: z.array(z.string().max(100_000)) });

interface Asked {
  from: string;
  to: string;
  texts: string[];
  terms: { source: string; target: string }[];
}

const INSTRUCTIONS =
  'You translate the texts of slides. You are sent JSON with the languages `from` and `to` (BCP 47), `texts`, and `terms` whose translations you use. Marks such as ⟨1⟩ and ⟨/1⟩ are formatting: keep each exactly once, around the words that it belongs to. Keep numbers. Answer with JSON alone: {"texts": [...]}, one translation for each text, in their order.';

/** Sends a batch and returns the texts of the answer. Throws a Failure `unavailable` that says what went wrong. */
async function ask(asked: Asked, service: TranslationService, signal: AbortSignal | undefined): Promise<string[]> {
  const call = { name: "The translation service", service, signal };
  const body = await askService(service.protocol === "chat" ? chatRequest(INSTRUCTIONS, asked, service) : asked, call);
  const texts = textsIn(body, service.protocol);
  if (texts?.length !== asked.texts.length)
    throw serviceFailure(call, "did not answer with one translation for each text.");
  return texts;
}

/** Returns the translations in an answer; undefined if it has another form. */
function textsIn(body: string, protocol: TranslationService["protocol"]): string[] | undefined {
  try {
    return Answer.parse(protocol === "json" ? JSON.parse(body) : chatJson(body)).texts;
  } catch {
    return undefined;
  }
}

/**
 * Translates texts by a service. A text of which placeholders were lost has no proposal. When the service fails, the
 * proposals made so far are returned with a sentence about the failure.
 */
export async function translateByService(
  texts: readonly (readonly Piece[])[],
  { from, to, terms, signal }: { from: string; to: string; terms: readonly Term[]; signal?: AbortSignal },
  service: TranslationService,
): Promise<{ proposals: (Piece[] | undefined)[]; remark: string }> {
  const proposals: (Piece[] | undefined)[] = [];
  const wanted = terms.filter(({ target }) => target).map(({ source, target }) => ({ source, target }));
  for (let at = 0; at < texts.length; at += MOST_TEXTS) {
    const batch = texts.slice(at, at + MOST_TEXTS);
    const plain = batch.map(typedText);
    const used = wanted.filter(({ source }) => plain.some((text) => text.toLowerCase().includes(source.toLowerCase())));
    try {
      const made = await ask({ from, to, texts: plain, terms: used }, service, signal);
      proposals.push(
        ...batch.map((source, nth) =>
          proposalOf(source, piecesOf(made[nth] ?? "", placeholderKinds(source)), { from, to }),
        ),
      );
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      const rest = at ? ` ${at} of ${texts.length} texts have proposals.` : "";
      return { proposals, remark: `${error.message}${rest}` };
    }
  }
  return { proposals, remark: "" };
}
