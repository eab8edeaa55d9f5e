import type { Request, Response } from "express";

/** Bytes to send: how many there are, and how some of them are read. */
export interface ByteSource {
  size: number;
  read: (from: number, count: number) => Uint8Array | Promise<Uint8Array>;
}

/** Returns bytes that are at hand as something to send. */
export const bytesAtHand = (bytes: Buffer): ByteSource => ({
  size: bytes.length,
  read: (from, count) => bytes.subarray(from, from + count),
});

/** The most bytes that are read at once. */
const CHUNK = 4 * 1024 * 1024;

const drained = (response: Response) =>
  new Promise<void>((resolve) => {
    response.once("drain", resolve);
    response.once("close", resolve);
  });

/**
 * Sends bytes, or the one range that is asked for (RFC 9110, 14), by which players seek. Several ranges are answered
 * with the whole.
 */
export async function sendRange(request: Request, response: Response, { size, read }: ByteSource): Promise<void> {
  response.setHeader("accept-ranges", "bytes");
  const asked = request.range(size);
  if (asked === -1) {
    response.status(416).setHeader("content-range", `bytes */${size}`);
    response.end();
    return;
  }
  const [only, ...more] = Array.isArray(asked) && asked.type === "bytes" ? asked : [];
  const { start, end } = only && !more.length ? only : { start: 0, end: size - 1 };
  if (only && !more.length) response.status(206).setHeader("content-range", `bytes ${start}-${end}/${size}`);
  response.setHeader("content-length", String(end - start + 1));
  for (let from = start; from <= end && !response.destroyed; from += CHUNK)
    if (!response.write(await read(from, Math.min(CHUNK, end + 1 - from)))) await drained(response);
  response.end();
}
