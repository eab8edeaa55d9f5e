import type { Page } from "@playwright/test";
import type { Row } from "../core";
import { boundDeck, largeXlsx, readBlock } from "../data";
import { ADDRESS, make, remove, store } from "./page";

/** Frames a second while the map of a deck of 1,000 slides scrolls for five seconds. */
async function scroll(page: Page, deck: string): Promise<number> {
  await page.goto(`${ADDRESS}/decks/${deck}/arrange`);
  await page.locator("[data-map] [data-slide]").first().waitFor();
  await page.waitForTimeout(3000);
  return framesOf(page, "[data-map]", 14);
}

/**
 * Frames a second while Data lists 2,000 bindings, and while the grid of their sheet of 100,000 rows scrolls, each for
 * five seconds.
 */
async function scrollData(page: Page): Promise<{ list: number; grid: number }> {
  const bytes = largeXlsx();
  await page.request.post(`${ADDRESS}/api/sources?name=large.xlsx`, {
    headers: { "content-type": "application/octet-stream" },
    data: Buffer.from(bytes),
  });
  const deck = await store(page, boundDeck(readBlock(bytes, "large.xlsx")));
  await page.goto(`${ADDRESS}/decks/${deck}/data`);
  await page.locator("[data-binding]").first().waitFor({ timeout: 120_000 });
  await page.waitForTimeout(4000);
  const list = await framesOf(page, "[data-bindings]", 14);
  await page.locator('[data-source="large.xlsx"]').getByRole("button", { name: "Put on slide" }).click();
  await page.locator('[role="grid"] [data-cell="1/1"]').waitFor({ timeout: 120_000 });
  await page.waitForTimeout(2000);
  const grid = await framesOf(page, '[role="grid"]', 26);
  await page.request.delete(`${ADDRESS}/api/decks/${deck}`);
  return { list, grid };
}

/** Frames a second while an element scrolls by some pixels a frame for five seconds: the median over each frame. */
async function framesOf(page: Page, selector: string, step: number): Promise<number> {
  return page.evaluate(
    ([selected, by]) =>
      new Promise<number>((resolve) => {
        const map = document.querySelector(selected) as HTMLElement;
        const gaps: number[] = [];
        const begin = performance.now();
        let last = begin;
        const frame = (now: number) => {
          gaps.push(now - last);
          last = now;
          map.scrollTop += by;
          if (now - begin < 5000) requestAnimationFrame(frame);
          else resolve(1000 / (gaps.slice(5).sort((a, b) => a - b)[Math.floor((gaps.length - 5) / 2)] ?? 1000));
        };
        requestAnimationFrame(frame);
      }),
    [selector, step] as const,
  );
}

export async function scrolling(page: Page): Promise<Row[]> {
  const deck = await make(page, 1000);
  const map = await scroll(page, deck);
  await remove(page, deck);
  const data = await scrollData(page);
  return [
    { name: "Arrange scrolls 1,000 slides: frames a second, median", seen: map },
    { name: "Data lists 2,000 bindings: frames a second while it scrolls, median", seen: data.list },
    { name: "the grid scrolls a sheet of 100,000 rows: frames a second, median", seen: data.grid },
  ].map(({ name, seen }) => ({ name, ratio: Math.round(seen * 10) / 10, target: 50, holds: seen >= 50, unit: "fps" }));
}
