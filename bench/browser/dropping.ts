import type { Page } from "@playwright/test";
import { WRITERS } from "@unitext/core/formats";
import { generated, mixedDeck, picture } from "../convert";
import { freshFonts, type Row } from "../core";
import { longDocument } from "../documents";
import { ADDRESS, atMost, middle } from "./page";

/**
 * Milliseconds from the drop of a file to the frame with its first slide, as the page sees it, and the longest time
 * that the page is blocked until all slides are there (Long Tasks API; 50 when there was no long task).
 */
async function drop(page: Page, name: string, file: Buffer): Promise<{ first: number; longest: number }> {
  await page.goto(ADDRESS);
  await page.getByRole("heading", { name: "Desk" }).waitFor();
  await page.waitForTimeout(2500);
  const data = await page.evaluateHandle(() => new DataTransfer());
  await page.evaluate(
    ([transfer, base64, called]) => {
      transfer.items.add(new File([Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0))], called));
    },
    [data, file.toString("base64"), name] as const,
  );
  await page.evaluate(() => {
    const seen = { tasks: [] as number[], begun: 0, first: 0 };
    (window as unknown as { seen: typeof seen }).seen = seen;
    new PerformanceObserver((list) => seen.tasks.push(...list.getEntries().map(({ duration }) => duration))).observe({
      type: "longtask",
    });
    document.addEventListener("drop", () => (seen.begun = performance.now()), { capture: true, once: true });
    const watch = new MutationObserver(() => {
      if (!document.querySelector("[data-level] [data-slide] text, [data-map] [data-slide] text")) return;
      watch.disconnect();
      requestAnimationFrame(() => (seen.first = performance.now()));
    });
    watch.observe(document.body, { childList: true, subtree: true });
  });
  await page.locator("main").first().dispatchEvent("drop", { dataTransfer: data });
  await page.waitForFunction(() => (window as unknown as { seen: { first: number } }).seen.first > 0);
  await page.locator("[data-reading]").waitFor({ state: "detached" });
  await page.waitForTimeout(3000);
  const { first, longest } = await page.evaluate(() => {
    const { tasks, begun, first } = (window as unknown as { seen: { tasks: number[]; begun: number; first: number } })
      .seen;
    return { first: first - begun, longest: Math.max(50, ...tasks) };
  });
  const id = /decks\/([^/]+)/.exec(page.url())?.[1];
  await page.request.delete(`${ADDRESS}/api/decks/${id}`);
  return { first, longest };
}

/** First slides of dropped files, and how long the page is blocked while they arrive. */
export async function dropping(page: Page): Promise<Row[]> {
  const mixed = mixedDeck();
  const context = { fonts: freshFonts(), at: new Date(0), picture: () => picture };
  const rows: Row[] = [];
  for (const [name, what, file] of [
    ["long.docx", "a dropped .docx of 160 pages", await longDocument()],
    ["own.pptx", "a dropped .pptx of 200 slides", WRITERS.pptx.write(mixed, context)],
    ["other.pptx", "a dropped .pptx of 200 slides of another program", await generated(mixed)],
    ["own.odp", "a dropped .odp of 200 slides", WRITERS.odp.write(mixed, context)],
  ] as const) {
    const bytes = Buffer.from(file as Uint8Array);
    const seen = [await drop(page, name, bytes), await drop(page, name, bytes), await drop(page, name, bytes)];
    const [first, longest] = [middle(seen.map((one) => one.first)), middle(seen.map((one) => one.longest))];
    rows.push(
      atMost(`the first slide of ${what} is seen after: median of 3`, first, 1000, "ms"),
      atMost(`the page is never blocked longer while ${what} arrives: median of 3`, longest, 50, "ms"),
    );
  }
  return rows;
}
