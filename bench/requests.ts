import { must } from "@unitext/core/model";

/** The address of the service that is measured; empty without one. */
export const ADDRESS = process.env.UNITEXT_ADDRESS ?? "";

/** Returns a request that sends JSON. */
export const json = (body: unknown, method = "POST"): RequestInit => ({
  method,
  headers: { "content-type": "application/json" },
  body: JSON.stringify(body),
});

/** A browser: it keeps its cookie and says where its requests come from. */
export class Browser {
  private cookie = "";

  async ask(path: string, init: RequestInit = {}): Promise<Response> {
    const reply = await fetch(`${ADDRESS}/api${path}`, {
      ...init,
      headers: { origin: ADDRESS, ...init.headers, ...(this.cookie ? { cookie: this.cookie } : {}) },
    });
    for (const line of reply.headers.getSetCookie()) this.cookie = line.split(";")[0] ?? "";
    return reply;
  }

  /** Reads a stream of events until it is stopped. */
  async listen(path: string, stop: AbortSignal, take: (data: string) => void): Promise<void> {
    const reply = await this.ask(path, { signal: stop });
    const decoder = new TextDecoder();
    let rest = "";
    try {
      for await (const part of must(reply.body) as unknown as AsyncIterable<Uint8Array>) {
        rest += decoder.decode(part, { stream: true });
        const lines = rest.split("\n\n");
        rest = lines.pop() ?? "";
        for (const line of lines) if (line.startsWith("data: ")) take(line.slice(6));
      }
    } catch {
      // Stopped.
    }
  }
}
