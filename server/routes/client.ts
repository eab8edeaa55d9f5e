import { readFileSync } from "node:fs";
import { join } from "node:path";
import { Failure } from "@unitext/core/model";
import express, { type Express, type Request, type RequestHandler, type Response } from "express";
import helmet from "helmet";

/** Sets the security headers; the policy lets the page run its own code and nothing else. Needs `locals.nonce`. */
export function securityHeaders(): RequestHandler {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        styleSrc: ["'self'", (_, response) => `'nonce-${(response as Response).locals.nonce}'`],
        styleSrcAttr: ["'none'"],
        imgSrc: ["'self'", "data:", "blob:"],
        mediaSrc: ["'self'", "blob:"],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        manifestSrc: ["'self'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    strictTransportSecurity: false,
  });
}

/**
 * Serves the built client of a folder, and its page at every address that is not a file. `head` returns what an address
 * has in its head beside that.
 */
export function serveClient(
  app: Express,
  client: string,
  head: (request: Request, response: Response) => Promise<string>,
): void {
  app.use(
    express.static(client, {
      index: false,
      setHeaders: (response, path) =>
        response.setHeader(
          "cache-control",
          /\/assets\//.test(path) ? "public, max-age=31536000, immutable" : "no-cache",
        ),
    }),
  );
  app.get("/{*path}", async (request, response) => {
    if (request.path.startsWith("/assets/"))
      throw new Failure(
        "not-found",
        request.path,
        "There is no such file; the page that asks for it is of an older version. Load it again.",
      );
    const page = readFileSync(join(client, "index.html"), "utf8");
    // Editors bring inline styles; the nonce allows theirs and no others.
    response
      .set({ "content-type": "text/html; charset=utf-8", "cache-control": "no-cache" })
      .send(
        page
          .replace('name="style-nonce" content=""', `name="style-nonce" content="${response.locals.nonce}"`)
          .replace("</head>", `${await head(request, response)}</head>`),
      );
  });
}
