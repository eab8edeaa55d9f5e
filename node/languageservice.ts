import { Failure } from "@unitext/core/model";
import { z } from "zod";

/** A service outside of this program that works on texts, as whoever runs Unitext has set it up. */
export interface LanguageService {
  url: string;
  key?: string;
  model?: string;
}

/**
 * Returns the service that the environment names with a prefix: PREFIX_URL, PREFIX_KEY and PREFIX_MODEL; undefined where no
 * address is set. Throws a Failure `not-valid` for an address that is none.
 */
export function languageServiceFrom(env: NodeJS.ProcessEnv, prefix: string): LanguageService | undefined {
  const { [`${prefix}_URL`]: url, [`${prefix}_KEY`]: key, [`${prefix}_MODEL`]: model } = env;
  if (!url) return undefined;
  if (!/^https?:\/\//.test(url) || !URL.canParse(url))
    throw new Failure("not-valid", `${prefix}_URL`, "It is an address that begins with http:// or https://.");
  return { url, ...(key ? { key } : {}), ...(model ? { model } : {}) };
}

/** How long an answer may take in milliseconds, and how many bytes it may have unless a service says more. */
const MOST = { milliseconds: 60_000, bytes: 4 * 1024 * 1024 };

const ChatAnswer = z.object({ choices: z.array(z.object({ message: z.object({ content: z.string() }) })).min(1) });

/** A request to a service. `name` is what people call it, at the beginning of a sentence. */
interface Asked {
  name: string;
  service: LanguageService;
  signal?: AbortSignal | undefined;
  /** The most bytes of its answer. */
  most?: number;
}

/** Returns the failure of a service, with its host and what went wrong. */
export const serviceFailure = ({ name, service }: Asked, why: string): Failure =>
  new Failure("unavailable", new URL(service.url).host, `${name} ${why}`);

/** Sends JSON to a service and returns the body of its answer. Throws a Failure `unavailable` that says what went wrong. */
export async function askService(body: unknown, asked: Asked): Promise<string> {
  const { service, signal } = asked;
  try {
    const limit = AbortSignal.timeout(MOST.milliseconds);
    const response = await fetch(service.url, {
      method: "POST",
      redirect: "error",
      headers: {
        "content-type": "application/json",
        ...(service.key ? { authorization: `Bearer ${service.key}` } : {}),
      },
      body: JSON.stringify(body),
      signal: signal ? AbortSignal.any([signal, limit]) : limit,
    });
    if (!response.ok) throw serviceFailure(asked, `answered with status ${response.status}.`);
    return await limited(response, asked);
  } catch (error) {
    if (error instanceof Failure) throw error;
    throw (error as Error).name === "TimeoutError"
      ? serviceFailure(asked, "did not answer within a minute.")
      : serviceFailure(asked, "could not be reached.");
  }
}

async function limited(response: Response, asked: Asked): Promise<string> {
  const most = asked.most ?? MOST.bytes;
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = response.body?.getReader();
  for (let part = await reader?.read(); part?.value; part = await reader?.read()) {
    size += part.value.length;
    if (size > most) {
      await reader?.cancel();
      throw serviceFailure(asked, `answered with more than ${most / 1024 / 1024} MB.`);
    }
    chunks.push(part.value);
  }
  return Buffer.concat(chunks).toString("utf8");
}

/** Returns the request of a chat completion: an instruction, and JSON to work on. */
export const chatRequest = (instructions: string, content: unknown, { model }: LanguageService) => ({
  ...(model ? { model } : {}),
  temperature: 0,
  messages: [
    { role: "system", content: instructions },
    { role: "user", content: JSON.stringify(content) },
  ],
});

/** Returns the JSON in the answer of a chat completion. Models often put it into a code block. Throws where it has none. */
export function chatJson(body: string): unknown {
  const content = ChatAnswer.parse(JSON.parse(body)).choices[0]?.message.content ?? "";
  return JSON.parse(content.slice(content.indexOf("{"), content.lastIndexOf("}") + 1));
}
