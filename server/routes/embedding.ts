import { escapeXml, Failure } from "@unitext/core/model";
import type { Request, RequestHandler, Response } from "express";
import { Router } from "express";
import { deckOfPage, pageOf, type StoredPage } from "../store";
import { type AppContext, openRoute } from "./context";

/** The size of an embedded page in CSS pixels, unless whoever embeds it asks for less. */
const WIDTH = 960;
const HEIGHT = 600;
const PAGE = /^\/page\/([\w-]{1,64})$/;

/** Returns the address of this service as the request named it. */
const addressOf = ({ protocol, headers }: Request) => `${protocol}://${headers.host}`;

/**
 * Lets a published page be shown in frames of the sites that its owner has named, and of no others (`frame-ancestors`,
 * Content Security Policy 3, 6.4.2). All other pages of the service are shown in no frame.
 */
export function framing({ db }: AppContext): RequestHandler {
  return (request, response, next) => {
    const [, id] = PAGE.exec(request.path) ?? [];
    if (!id) return next();
    pageOf(db, id).then(
      (page) => {
        response.locals.page = page;
        if (page.origins.length) {
          const policy = String(response.getHeader("content-security-policy") ?? "");
          response.removeHeader("x-frame-options");
          response.setHeader(
            "content-security-policy",
            policy.replace("frame-ancestors 'none'", `frame-ancestors ${page.origins.join(" ")}`),
          );
        }
        next();
      },
      // A page that is not there any more says so itself.
      (error) => next(error instanceof Failure ? undefined : error),
    );
  };
}

/** Returns what other sites read of a published page before they show it: its title and picture (Open Graph), and oEmbed. */
export async function metadataOfPage({ db }: AppContext, request: Request, response: Response): Promise<string> {
  const page = response.locals.page as StoredPage | undefined;
  if (!page) return "";
  const { deck } = await deckOfPage(db, page);
  const address = `${addressOf(request)}/page/${page.id}`;
  const first = deck.slides.find(({ hidden }) => !hidden);
  const title = deck.properties.title || "Slides";
  const meta = (property: string, content: string) => `<meta property="${property}" content="${escapeXml(content)}">`;
  return [
    meta("og:type", "article"),
    meta("og:title", title),
    meta("og:url", address),
    ...(deck.properties.event ? [meta("og:description", deck.properties.event)] : []),
    ...(first ? [meta("og:image", `${addressOf(request)}/api/pages/${page.id}/drawings/${first.id}`)] : []),
    `<link rel="alternate" type="application/json+oembed" href="${escapeXml(`${addressOf(request)}/oembed?url=${encodeURIComponent(address)}`)}" title="${escapeXml(title)}">`,
  ].join("");
}

/** The route that says how a published page is embedded (oEmbed 1.0, 2.3). */
export function oembedRoutes({ db }: AppContext): Router {
  const routes = Router();
  routes.get(
    "/oembed",
    openRoute(async ({ request, response }) => {
      const { url = "", format = "json", maxwidth, maxheight } = request.query;
      if (format !== "json")
        throw new Failure("not-supported", "format", "Pages are described in JSON alone: leave the format out.");
      const asked = URL.canParse(String(url)) ? new URL(String(url)) : undefined;
      const [, id] = PAGE.exec(asked?.pathname ?? "") ?? [];
      if (!asked || !id || asked.host !== request.headers.host)
        throw new Failure("not-found", "url", "This address is none of a page that is published here.");
      const page = await pageOf(db, id);
      const { deck } = await deckOfPage(db, page);
      const most = (value: unknown, usual: number) => Math.min(usual, Number(value) > 0 ? Number(value) : usual);
      const width = most(maxwidth, WIDTH);
      const height = most(maxheight, Math.round((width * HEIGHT) / WIDTH));
      const title = deck.properties.title || "Slides";
      response.json({
        version: "1.0",
        type: "rich",
        title,
        provider_name: "Unitext",
        provider_url: addressOf(request),
        width,
        height,
        html: `<iframe src="${escapeXml(`${addressOf(request)}/page/${id}`)}" width="${width}" height="${height}" title="${escapeXml(title)}" allowfullscreen></iframe>`,
      });
    }),
  );
  return routes;
}
