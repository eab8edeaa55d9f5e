import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { expect, type Page } from "@playwright/test";

const axe = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

/** Expects that axe finds nothing on the page as it is; with `colours`, by the rules that depend on them alone. */
export async function accessible(page: Page, where: string, { colours = false } = {}): Promise<void> {
  await page.evaluate(axe);
  const found = await page.evaluate(async (onlyColours) => {
    const { axe: run } = window as unknown as {
      axe: {
        run(
          root: Document,
          options: object,
        ): Promise<{ violations: { id: string; nodes: { html: string; failureSummary: string }[] }[] }>;
      };
    };
    const { violations } = await run.run(document, {
      runOnly: onlyColours
        ? { type: "rule", values: ["color-contrast", "link-in-text-block"] }
        : ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"],
    });
    return violations.map(
      ({ id, nodes }) =>
        `${id}: ${nodes
          .slice(0, 2)
          .map(({ html, failureSummary }) => `${html.slice(0, 160)} — ${failureSummary}`)
          .join(" | ")}`,
    );
  }, colours);
  expect([where, found]).toEqual([where, []]);
}

/**
 * Returns the controls and texts that are cut off at the right edge of the window: nobody finds what is reached by
 * scrolling sideways alone. Grids of cells and lists of tools that are made to scroll are left out.
 */
export async function hiddenAtTheSide(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const scrolls = (element: Element | null): boolean => {
      for (let at = element; at && at !== document.body; at = at.parentElement) {
        if (at.matches("[data-map], [role=grid], nav, header, table, [data-scrolls], svg, .cm-editor, .sr-only"))
          return true;
      }
      return false;
    };
    const found = [
      ...document.querySelectorAll("main button, main a, main input, main select, main p, main h2, main li"),
    ]
      .filter((element) => element.checkVisibility() && !scrolls(element))
      .filter((element) => {
        const { left, right, width } = element.getBoundingClientRect();
        return width > 0 && left >= 0 && right > window.innerWidth + 1;
      })
      .map((element) => `${element.tagName}: ${(element.textContent ?? "").trim().slice(0, 60)}`);
    if (document.documentElement.scrollWidth > window.innerWidth + 1) found.push("the page itself");
    return found.slice(0, 5);
  });
}
