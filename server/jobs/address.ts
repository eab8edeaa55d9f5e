import { lookup } from "node:dns";
import { type IncomingMessage, request as httpRequest } from "node:http";
import { request as httpsRequest } from "node:https";
import { isIP, type LookupFunction } from "node:net";
import { Failure, workbookKind } from "@unitext/core/model";

/** Limits of a workbook at an address: bytes, milliseconds, redirects inside one host. */
const MOST = { bytes: 50 * 1024 * 1024, milliseconds: 20_000, redirects: 3 };

/** What is known of a workbook at an address since it was fetched last, so that it is sent again only when it changed. */
export interface Known {
  etag?: string | undefined;
  modified?: string | undefined;
}

/** A workbook that was fetched; `bytes` is undefined when it has not changed since. */
export interface Fetched extends Known {
  bytes: Uint8Array | undefined;
}

/** Whether an IP address is of this machine or a private network (RFC 1918, 4193, 4291, 6598; 127/8, 169.254/16). */
export function isPrivateAddress(ip: string): boolean {
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(ip)?.[1] ?? ip;
  if (isIP(mapped) === 4) {
    const [a = 0, b = 0] = mapped.split(".").map(Number);
    return (
      a === 0 ||
      a === 10 ||
      a === 127 ||
      (a === 169 && b === 254) ||
      (a === 172 && b >= 16 && b < 32) ||
      (a === 192 && b === 168) ||
      (a === 100 && b >= 64 && b < 128) ||
      a >= 224
    );
  }
  return /^(::1?$|f[cd]|fe[89ab]|ff|::)/i.test(mapped);
}

/** Returns the name under which a workbook at an address is a source: the last part of its path. */
export function nameAt(url: URL): string {
  let name = url.pathname.slice(url.pathname.lastIndexOf("/") + 1);
  try {
    name = decodeURIComponent(name);
  } catch {
    // A name that is not encoded well is taken as it is.
  }
  return name;
}

/**
 * Checks that an address may be fetched: http or https, on a host that the service allows (with its port, where one is
 * listed), to a workbook by its name. Throws a Failure `not-permitted` or `not-valid`.
 */
export function allowedAddress(text: string, hosts: readonly string[]): URL {
  let url: URL;
  try {
    url = new URL(text);
  } catch {
    throw new Failure(
      "not-valid",
      "address",
      "This is no address; write it whole, as in https://data.example/gauges.csv.",
    );
  }
  if (url.protocol !== "http:" && url.protocol !== "https:")
    throw new Failure("not-valid", "address", "Workbooks are read from addresses that begin with http:// or https://.");
  if (!hosts.includes(url.host) && !hosts.includes(url.hostname))
    throw new Failure(
      "not-permitted",
      "address",
      `The host ${url.host} is not allowed. Whoever runs the service lists hosts in UNITEXT_SOURCE_HOSTS.`,
    );
  if (!workbookKind(nameAt(url)))
    throw new Failure(
      "not-supported",
      "address",
      "The address does not end in the name of an .xlsx, .ods, .csv or .tsv file.",
    );
  url.username = "";
  url.password = "";
  return url;
}

/** Looks names up, and refuses those that lead into a private network: only an address itself may be listed for that. */
const publicLookup: LookupFunction = (hostname, options, done) => {
  lookup(hostname, { ...options, all: true }, (error, addresses) => {
    if (error) return done(error, "");
    if (addresses.some(({ address }) => isPrivateAddress(address)))
      return done(Object.assign(new Error("private"), { code: "EPRIVATE" }), "");
    const [first] = addresses;
    if (options.all) return done(null, addresses);
    return done(null, first?.address ?? "", first?.family);
  });
};

const refusal = (url: URL, why: string) =>
  new Failure("unavailable", url.href, `${url.host} ${why} The last values stay.`);

/** Sends one request. Resolves with the response once its head has arrived. */
function send(url: URL, known: Known, signal: AbortSignal): Promise<IncomingMessage> {
  return new Promise((resolve, reject) => {
    const direct = isIP(url.hostname.replace(/^\[|\]$/g, "")) !== 0 || url.hostname === "localhost";
    const ask = url.protocol === "https:" ? httpsRequest : httpRequest;
    const request = ask(url, {
      signal,
      headers: {
        accept: "*/*",
        "user-agent": "Unitext",
        ...(known.etag ? { "if-none-match": known.etag } : {}),
        ...(known.modified ? { "if-modified-since": known.modified } : {}),
      },
      ...(direct ? {} : { lookup: publicLookup }),
    });
    request.once("response", resolve);
    request.once("error", reject);
    request.end();
  });
}

async function bytesOf(response: IncomingMessage, url: URL): Promise<Uint8Array> {
  const tooLarge = () => new Failure("too-large", url.href, "The workbook at this address is larger than 50 MB.");
  if (Number(response.headers["content-length"] ?? 0) > MOST.bytes) {
    response.destroy();
    throw tooLarge();
  }
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of response as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size > MOST.bytes) {
      response.destroy();
      throw tooLarge();
    }
    chunks.push(chunk);
  }
  return new Uint8Array(Buffer.concat(chunks));
}

/**
 * Fetches a workbook from an allowed address; one that has not changed is not sent again. Redirects are followed inside
 * the host only. Throws a Failure with a sentence for every other answer; nothing is kept of it.
 */
export async function fetchWorkbook(address: string, hosts: readonly string[], known: Known = {}): Promise<Fetched> {
  const signal = AbortSignal.timeout(MOST.milliseconds);
  let url = allowedAddress(address, hosts);
  try {
    for (let nth = 0; ; nth++) {
      const response = await send(url, known, signal);
      const { statusCode: status = 0, headers } = response;
      const kept = { etag: headers.etag, modified: headers["last-modified"] };
      if (status === 304) {
        response.resume();
        return { ...known, bytes: undefined };
      }
      if (status >= 300 && status < 400 && headers.location && nth < MOST.redirects) {
        response.resume();
        const next = new URL(headers.location, url);
        if (next.host !== url.host || next.protocol !== url.protocol)
          throw refusal(url, `sends on to ${next.host}, which is not followed.`);
        url = next;
        continue;
      }
      if (status !== 200) {
        response.resume();
        throw refusal(url, `answers with ${status}.`);
      }
      return { ...kept, bytes: await bytesOf(response, url) };
    }
  } catch (error) {
    if (error instanceof Failure) throw error;
    if (signal.aborted) throw refusal(url, "did not answer in 20 seconds.");
    const { code } = error as NodeJS.ErrnoException;
    throw refusal(
      url,
      code === "EPRIVATE" ? "leads into a private network, which is not allowed." : "cannot be reached.",
    );
  }
}
