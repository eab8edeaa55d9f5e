import type { Page } from "@unitext/core/model";
import { length, points } from "./names";

/** Returns the page layouts of a part's masters; notes and handouts have layouts of their own. */
export function slideLayouts(styleText: string): Set<string> {
  return new Set(
    [...styleText.matchAll(/<style:master-page\s[^>]*?\sstyle:page-layout-name\s*=\s*["']([^"']*)/g)].map(
      ([, name = ""]) => name,
    ),
  );
}
const pageLayouts =
  /<style:page-layout\s[^>]*?style:name\s*=\s*["']([^"']*)["'][\s\S]*?<style:page-layout-properties\b[^>]*>/g;
/** Returns a part with masters whose slides have the size of the deck's pages. */
export function resized(styleText: string, page: Page): string {
  const ours = slideLayouts(styleText);
  return styleText.replace(pageLayouts, (layout, name: string) => {
    if (!ours.has(name) || !/fo:page-width/.test(layout) || samePage(layout, page)) return layout;
    return layout.replace(
      /(\sfo:page-(width|height)\s*=\s*)("[^"]*"|'[^']*')/g,
      (_, start: string, side: "width" | "height") => `${start}"${length(page[side])}"`,
    );
  });
}
/** Whether a page layout has the size of the deck's pages, to a tenth of a point. */
const samePage = (layout: string, page: Page) =>
  (["width", "height"] as const).every(
    (side) =>
      Math.abs(
        (points(new RegExp(`fo:page-${side}\\s*=\\s*["']([^"']*)`).exec(layout)?.[1]) ?? page[side]) - page[side],
      ) < 0.1,
  );
export const hasSize = (styleText: string, page: Page) => resized(styleText, page) === styleText;
