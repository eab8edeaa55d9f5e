import { emptyDeck, must, newSlide, plainText, type Slide } from "@unitext/core/model";
import type { Page } from "@playwright/test";
import type { Row } from "../core";
import { words } from "../material";
import { ADDRESS, atMost, remove, store } from "./page";

const [COLUMNS, ROWS] = [20, 15];

/** A slide of 300 text elements in a grid. */
function crowded(): Slide {
  const text = words(COLUMNS * ROWS);
  return {
    ...newSlide("crowded", "blank"),
    elements: text.map((word, nth) => ({
      kind: "text",
      slot: null,
      id: `e${nth}`,
      text: plainText(word),
      frame: { x: (nth % COLUMNS) * 48, y: Math.floor(nth / COLUMNS) * 36, width: 44, height: 32 },
      properties: { size: 9 },
    })),
  };
}

/** Begins to collect the times between frames in the page. */
const watch = (page: Page) =>
  page.evaluate(() => {
    const seen = { gaps: [] as number[], on: true };
    (window as unknown as { frames: typeof seen }).frames = seen;
    let last = performance.now();
    const frame = (now: number) => {
      seen.gaps.push(now - last);
      last = now;
      if (seen.on) requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
  });

/** Ends the collection. Returns the median and the 95th percentile in milliseconds. */
async function watched(page: Page): Promise<{ median: number; slow: number }> {
  const gaps = await page.evaluate(() => {
    const { frames } = window as unknown as { frames: { gaps: number[]; on: boolean } };
    frames.on = false;
    return frames.gaps.slice(2).sort((a, b) => a - b);
  });
  return { median: must(gaps[Math.floor(gaps.length / 2)]), slow: must(gaps[Math.floor(gaps.length * 0.95)]) };
}

/** Frames while elements are selected, dragged and written in on a slide of 300 elements. */
export async function refining(page: Page): Promise<Row[]> {
  const id = await store(page, { ...emptyDeck("bench", "Crowded"), slides: [crowded()] });
  await page.goto(`${ADDRESS}/decks/${id}/refine`);
  const frame = (nth: number) => page.locator(`[data-frame="e${nth}"]`);
  await frame(299).waitFor({ timeout: 60_000 });
  await page.waitForTimeout(3000);
  const middleOf = async (nth: number) => {
    const box = must(await frame(nth).boundingBox());
    return [box.x + box.width / 2, box.y + box.height / 2] as const;
  };
  const seen: { name: string; median: number; slow: number }[] = [];

  const places = await Promise.all(Array.from({ length: 40 }, (_, nth) => middleOf(nth * 7)));
  await watch(page);
  for (const [x, y] of places) {
    await page.mouse.click(x, y);
    await page.waitForTimeout(80);
  }
  seen.push({ name: "elements are selected", ...(await watched(page)) });

  const [x, y] = await middleOf(125);
  await page.mouse.click(x, y);
  await page.waitForTimeout(500);
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 4, y + 4);
  await page.waitForTimeout(300);
  await watch(page);
  for (let step = 0; step < 180; step++) {
    await page.mouse.move(x + 80 * Math.sin(step / 20), y + 60 * Math.sin(step / 14));
    await page.waitForTimeout(10);
  }
  seen.push({ name: "an element is dragged", ...(await watched(page)) });
  await page.mouse.up();

  await page.mouse.dblclick(...(await middleOf(47)));
  await page.locator("[data-stage] [contenteditable]").waitFor();
  await page.waitForTimeout(1000);
  await watch(page);
  for (let nth = 0; nth < 60; nth++) {
    await page.keyboard.press(must("abcdefghij"[nth % 10]));
    await page.waitForTimeout(50);
  }
  seen.push({ name: "words are typed", ...(await watched(page)) });
  await remove(page, id);
  return seen.flatMap(({ name, median, slow }) => [
    atMost(`Refine, 300 elements, while ${name}: a frame takes, median`, median, 17, "ms"),
    atMost(`Refine, 300 elements, while ${name}: a frame takes, 95th percentile`, slow, 32, "ms"),
  ]);
}
