import { valueHash, must } from "@unitext/core/model";
import type { AppearanceHashes } from "../../../shared/sourcepackage";

/** The namespaces of OpenDocument 1.3 that a presentation uses. */
export const NS = {
  "xmlns:office": "urn:oasis:names:tc:opendocument:xmlns:office:1.0",
  "xmlns:style": "urn:oasis:names:tc:opendocument:xmlns:style:1.0",
  "xmlns:text": "urn:oasis:names:tc:opendocument:xmlns:text:1.0",
  "xmlns:table": "urn:oasis:names:tc:opendocument:xmlns:table:1.0",
  "xmlns:draw": "urn:oasis:names:tc:opendocument:xmlns:drawing:1.0",
  "xmlns:fo": "urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0",
  "xmlns:svg": "urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0",
  "xmlns:presentation": "urn:oasis:names:tc:opendocument:xmlns:presentation:1.0",
  "xmlns:smil": "urn:oasis:names:tc:opendocument:xmlns:smil-compatible:1.0",
  "xmlns:anim": "urn:oasis:names:tc:opendocument:xmlns:animation:1.0",
  "xmlns:meta": "urn:oasis:names:tc:opendocument:xmlns:meta:1.0",
  "xmlns:dc": "http://purl.org/dc/elements/1.1/",
  "xmlns:xlink": "http://www.w3.org/1999/xlink",
  "xmlns:script": "urn:oasis:names:tc:opendocument:xmlns:script:1.0",
} as const;

/** Names of namespaces in drafts of the standard: files of those years use them, with the same local names. */
export const DRAFT_NS: Partial<Record<keyof typeof NS, string>> = {
  "xmlns:fo": "http://www.w3.org/1999/XSL/Format",
  "xmlns:svg": "http://www.w3.org/2000/svg",
  "xmlns:smil": "http://www.w3.org/2001/SMIL20/",
};

export const MEDIA_TYPE = "application/vnd.oasis.opendocument.presentation";
export const CHART_TYPE = "application/vnd.oasis.opendocument.chart";
export const FORMULA_TYPE = "application/vnd.oasis.opendocument.formula";
export const VERSION = "1.3";

/** User-defined metadata (OpenDocument 1.3, 4.3.2.2) that store what the format has no place for. */
export const TAGS = { deck: "unitext:deck", slides: "unitext:slides" } as const;

/** Writes a length in points. */
export const length = (points: number): string => `${Math.round(points * 1000) / 1000}pt`;

const UNITS: Record<string, number> = { pt: 1, in: 72, cm: 72 / 2.54, mm: 72 / 25.4, pc: 12, px: 0.75 };
/** Reads a length (OpenDocument 1.3, 18.3.18) in points; undefined for anything else. */
export function points(value: string | undefined): number | undefined {
  const [, number, unit] = /^\s*(-?[\d.]+)\s*(pt|in|cm|mm|pc|px)\s*$/.exec(value ?? "") ?? [];
  const found = number === undefined ? Number.NaN : Number(number) * (UNITS[must(unit)] ?? Number.NaN);
  return Number.isFinite(found) ? found : undefined;
}

export const clamp = (value: number, low: number, high: number): number => Math.max(low, Math.min(high, value));
/** Normalises an angle in degrees to a range from 0 to below 360. */
export const turned = (degrees: number): number => ((degrees % 360) + 360) % 360;

/**
 * Returns hashes of a page's background and transition by the properties of its style; a change by another program
 * changes them.
 */
export function appearanceHashes(properties: Readonly<Record<string, unknown>>): AppearanceHashes {
  const sum = (test: RegExp) =>
    valueHash(
      Object.fromEntries(
        Object.entries(properties).flatMap(([name, value]) =>
          value !== undefined && test.test(name) ? [[name, String(value)]] : [],
        ),
      ),
    );
  return {
    background: sum(/^(?:fill|opacity|repeat|background-size)/),
    transition: sum(/^(?:transition|duration|type$|subtype$|direction$|fadeColor$)/),
  };
}
