import { Failure } from "@unitext/core/model";
import { type Piece, piecesOf, placeholderKinds, proposalOf, type Term, typedText } from "@unitext/core/translate";
import { z } from "zod";

/** A translation service outside of this program, as whoever runs Unitext has set it up. */
export interface TranslationService {
  url: string;
  /** `json` is the contract of docs/translation-service.md, `chat` that of chat completions. */
  protocol: "json" | "chat";
  key?: string;
  model?: string;
}

/**
 * Returns the service that the environment names: UNITEXT_TRANSLATION_URL, _PROTOCOL (json or chat), _KEY and _MODEL;
 * undefined where no address is set. Throws a Failure `not-valid` for settings that make no sense.
 */
export function translationServiceFrom(env: NodeJS.ProcessEnv): TranslationService | undefined {
  const { UNITEXT_TRANSLATION_URL: url, UNITEXT_TRANSLATION_PROTOCOL: protocol = "json" } = env;
  const { UNITEXT_TRANSLATION_KEY: key, UNITEXT_TRANSLATION_MODEL: model } = env;
  if (!url) return undefined;
  if (!/^https?:\/\//.test(url) || !URL.canParse(url))
    throw new Failure("not-valid", "UNITEXT_TRANSLATION_URL", "It is an address that begins with http:// or https://.");
  if (protocol !== "json" && protocol !== "chat")
    throw new Failure("not-valid", "UNITEXT_TRANSLATION_PROTOCOL", "It is json or chat.");
  return { url, protocol, ...(key ? { key } : {}), ...(model ? { model } : {}) };
}

/** How many texts are sent at once, how long an answer may take in milliseconds, and how many bytes it may have. */
const MOST = { texts: 40, milliseconds: 60_000, bytes: 4 * 1024 * 1024 };

const Answer = z.object({ texts: z.array(z.string().max(100_000)) });
const ChatAnswer = z.object({ choices: z.array(z.object({ message: z.object({ content: z.string() }) })).min(1) });

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
  const refuse = (why: string) => new Failure("unavailable", new URL(service.url).host, why);
  const chat = {
    ...(service.model ? { model: service.model } : {}),
    temperature: 0,
    messages: [
      { role: "system", content: INSTRUCTIONS },
      { role: "user", content: JSON.stringify(asked) },
    ],
  };
  let body: string;
  try {
    const limit = AbortSignal.timeout(MOST.milliseconds);
    const response = await fetch(service.url, {
      method: "POST",
      redirect: "error",
      headers: {
        "content-type": "application/json",
        ...(service.key ? { authorization: `Bearer ${service.key}` } : {}),
      },
      body: JSON.stringify(service.protocol === "chat" ? chat : asked),
      signal: signal ? AbortSignal.any([signal, limit]) : limit,
    });
    if (!response.ok) throw refuse(`The translation service answered with status ${response.status}.`);
    body = await limited(response, refuse);
  } catch (error) {
    if (error instanceof Failure) throw error;
    throw (error as Error).name === "TimeoutError"
      ? refuse("The translation service did not answer within a minute.")
      : refuse("The translation service could not be reached.");
  }
  const texts = textsIn(body, service.protocol);
  if (texts?.length !== asked.texts.length)
    throw refuse("The translation service did not answer with one translation for each text.");
  return texts;
}

async function limited(response: Response, refuse: (why: string) => Failure): Promise<string> {
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = response.body?.getReader();
  for (let part = await reader?.read(); part?.value; part = await reader?.read()) {
    size += part.value.length;
    if (size > MOST.bytes) {
      await reader?.cancel();
      throw refuse("The translation service answered with more than 4 MB.");
    }
    chunks.push(part.value);
  }
  return Buffer.concat(chunks).toString("utf8");
}

/** Returns the translations in an answer; undefined if it has another form. Models often put JSON into a code block. */
function textsIn(body: string, protocol: TranslationService["protocol"]): string[] | undefined {
  try {
    const answer: unknown = JSON.parse(body);
    if (protocol === "json") return Answer.parse(answer).texts;
    const content = ChatAnswer.parse(answer).choices[0]?.message.content ?? "";
    return Answer.parse(JSON.parse(content.slice(content.indexOf("{"), content.lastIndexOf("}") + 1))).texts;
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
  for (let at = 0; at < texts.length; at += MOST.texts) {
    const batch = texts.slice(at, at + MOST.texts);
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
