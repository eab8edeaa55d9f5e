import type { Request, Response } from "express";

/**
 * Sends bytes, or the one range that is asked for (RFC 9110, 14), by which players seek. Several ranges are answered
 * with the whole.
 */
export function sendRange(request: Request, response: Response, bytes: Buffer): void {
  response.setHeader("accept-ranges", "bytes");
  const asked = request.range(bytes.length);
  if (asked === -1) {
    response.status(416).setHeader("content-range", `bytes */${bytes.length}`);
    response.end();
    return;
  }
  const [only, ...more] = Array.isArray(asked) && asked.type === "bytes" ? asked : [];
  if (!only || more.length) {
    response.send(bytes);
    return;
  }
  response.status(206).setHeader("content-range", `bytes ${only.start}-${only.end}/${bytes.length}`);
  response.send(bytes.subarray(only.start, only.end + 1));
}
