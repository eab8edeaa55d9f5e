import { must } from "@unitext/core/model";
import type { Page } from "@playwright/test";
import type { Row } from "../core";
import { ADDRESS, atMost, make, remove } from "./page";

/** Milliseconds from a keystroke in Write to the frame in which its slide shows it: the 95th percentile of 60. */
async function type(page: Page, deck: string): Promise<number> {
  await page.goto(`${ADDRESS}/decks/${deck}/write`);
  await page.locator("[data-level] [data-slide]").first().waitFor();
  await page
    .locator(".cm-content .cm-line", { hasText: /^- \S{4}/ })
    .nth(3)
    .click();
  await page.keyboard.press("End");
  await page.waitForTimeout(1500);
  await page.evaluate(() => {
    const level = document.querySelector("[data-level]") as HTMLElement;
    const times: number[] = [];
    (window as unknown as { typed: number[] }).typed = times;
    let since: number | undefined;
    let wanted = "";
    document.querySelector(".cm-content")?.addEventListener("beforeinput", (event) => {
      since = performance.now();
      wanted += (event as InputEvent).data ?? "";
    });
    new MutationObserver(() => {
      if (since === undefined || !level.textContent?.includes(wanted)) return;
      const begun = since;
      since = undefined;
      requestAnimationFrame(() => times.push(performance.now() - begun));
    }).observe(level, { subtree: true, childList: true, characterData: true });
  });
  for (let nth = 0; nth < 60; nth++) {
    await page.keyboard.press(must("abcdefghij"[nth % 10]));
    await page.waitForTimeout(180);
  }
  const times = await page.evaluate(() => (window as unknown as { typed: number[] }).typed);
  if (times.length < 40) return Number.POSITIVE_INFINITY;
  return must(times.sort((a, b) => a - b)[Math.floor(times.length * 0.95)]);
}

export async function typing(page: Page): Promise<Row[]> {
  const deck = await make(page, 100);
  const delay = Math.round(await type(page, deck));
  await remove(page, deck);
  return [atMost("Write shows a keystroke on its slide: 95th percentile", delay, 100, "ms")];
}
