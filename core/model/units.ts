import { z } from "zod";

/** Identifiers of decks, slides and elements: URL-safe, at most 64 characters. */
export const Id = z.string().regex(/^[A-Za-z0-9_-]{1,64}$/, "an id has 1 to 64 letters, digits, - or _");

/** A colour as `#rrggbb`, lower case. */
export const Colour = z.string().regex(/^#[0-9a-f]{6}$/, "a colour is written as #rrggbb");

/** A language as a BCP 47 tag, such as `en`, `es-MX`, `ar`. */
export const Language = z
  .string()
  .regex(/^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/, "a language is a tag such as en or pt-BR");

/** A page in points (1/72 inch). The lower bound is one inch, the upper the largest page of ECMA-376 (56 inches). */
export const Page = z.object({ width: z.number().min(72).max(4032), height: z.number().min(72).max(4032) });
export type Page = z.infer<typeof Page>;

/** A rectangle in points from the page's top left. */
export const Frame = z.object({
  x: z.number(),
  y: z.number(),
  width: z.number().nonnegative(),
  height: z.number().nonnegative(),
});
export type Frame = z.infer<typeof Frame>;

/** The page shapes in common use; any other size is possible. */
export const PAGES = {
  "16:9": { width: 960, height: 540 },
  "16:10": { width: 960, height: 600 },
  "4:3": { width: 720, height: 540 },
} as const satisfies Record<string, Page>;

/** Returns the name of a page shape, or `WIDTHxHEIGHT` in points. */
export function pageName(page: Page): string {
  for (const [name, size] of Object.entries(PAGES)) {
    if (size.width === page.width && size.height === page.height) return name;
  }
  return `${page.width}x${page.height}`;
}

/** Returns the page with a name; undefined when there is none. */
export function pageNamed(name: string): Page | undefined {
  if (name in PAGES) return PAGES[name as keyof typeof PAGES];
  const size = /^(\d+(?:\.\d+)?)\s*x\s*(\d+(?:\.\d+)?)$/.exec(name);
  const page = size && Page.safeParse({ width: Number(size[1]), height: Number(size[2]) });
  return page?.success ? page.data : undefined;
}
