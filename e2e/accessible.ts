import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { expect, type Page } from "@playwright/test";

const axe = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

/** Expects that axe finds nothing on the page as it is. */
export async function accessible(page: Page, where: string): Promise<void> {
  await page.evaluate(axe);
  const found = await page.evaluate(async () => {
    const { axe: run } = window as unknown as {
      axe: {
        run(
          root: Document,
          options: object,
        ): Promise<{ violations: { id: string; nodes: { html: string; failureSummary: string }[] }[] }>;
      };
    };
    const { violations } = await run.run(document, {
      runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"],
    });
    return violations.map(
      ({ id, nodes }) =>
        `${id}: ${nodes
          .slice(0, 2)
          .map(({ html, failureSummary }) => `${html.slice(0, 160)} — ${failureSummary}`)
          .join(" | ")}`,
    );
  });
  expect([where, found]).toEqual([where, []]);
}
