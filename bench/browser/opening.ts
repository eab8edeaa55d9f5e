import { must } from "@unitext/core/model";
import type { Page } from "@playwright/test";
import type { Row } from "../core";
import { ADDRESS, atMost, middle, make, remove } from "./page";

/** The places of a deck, with what is seen in each when it is open. */
const PLACES = {
  Write: "[data-level] [data-slide] text",
  Arrange: "[data-map] [data-slide] text",
  Refine: "[data-stage] svg text",
  Data: "main [data-bindings], main h2",
  Translate: "main h2",
  Speak: "main svg text",
  Deliver: "main h2",
} as const;

/** Milliseconds from a press on a link to the frame in which what is looked for is there. */
async function openingTime(page: Page, link: string, wanted: string): Promise<number> {
  return page.evaluate(
    ([name, selector]) =>
      new Promise<number>((resolve) => {
        const from = [...document.querySelectorAll<HTMLAnchorElement>("nav a")].find((a) => a.textContent === name);
        const old = document.querySelector(selector);
        const begun = performance.now();
        const look = () => {
          const found = document.querySelector(selector);
          if (found && found !== old) requestAnimationFrame(() => resolve(performance.now() - begun));
          else requestAnimationFrame(look);
        };
        from?.click();
        look();
      }),
    [link, wanted] as const,
  );
}

/** How long the places of a deck of 500 slides take to open, and the Desk with 500 decks to its first rows. */
export async function opening(page: Page): Promise<Row[]> {
  const deck = await make(page, 500);
  await page.goto(`${ADDRESS}/decks/${deck}/deliver`);
  await page.waitForTimeout(5000);
  const times = new Map<string, number[]>();
  for (let turn = 0; turn < 3; turn++)
    for (const [place, wanted] of Object.entries(PLACES)) {
      const time = await openingTime(page, place, wanted);
      times.set(place, [...(times.get(place) ?? []), time]);
      await page.waitForTimeout(1200);
    }
  await remove(page, deck);
  const rows = [...times].map(([place, seen]) =>
    atMost(`${place} opens on a deck of 500 slides after: median of 3`, middle(seen), 300, "ms"),
  );
  const decks: string[] = [];
  for (let nth = 0; nth < 500; nth++) decks.push(await make(page, 2));
  const first: number[] = [];
  await page.addInitScript(() => {
    new MutationObserver((_, observer) => {
      if (!document.querySelector("main tbody tr a")) return;
      observer.disconnect();
      requestAnimationFrame(() => performance.mark("first rows"));
    }).observe(document, { childList: true, subtree: true });
  });
  for (let turn = 0; turn < 3; turn++) {
    await page.goto(ADDRESS);
    const mark = () => performance.getEntriesByName("first rows")[0]?.startTime;
    await page.waitForFunction(mark);
    first.push(must(await page.evaluate(mark)));
    await page.waitForTimeout(1000);
  }
  for (const id of decks) await remove(page, id);
  return [...rows, atMost("the Desk of 500 decks shows its first rows after: median of 3", middle(first), 500, "ms")];
}
