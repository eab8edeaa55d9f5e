import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import { type Element, must } from "@unitext/core/model";
import { strFromU8, unzipSync } from "fflate";
import { PNG } from "pngjs";
import { bring, deckOf, kept, refine, write } from "./acts";

const GAUGE =
  '<svg xmlns="http://www.w3.org/2000/svg" width="120" height="60" viewBox="0 0 120 60"><rect width="120" height="60" fill="#0f5c63"/><circle cx="60" cy="30" r="20" fill="#ffffff"/><script>document.title = "run"</script></svg>';

test("a drawing in SVG is added, stays sharp, and goes into files as it is, with its dots beside it", async ({
  page,
}) => {
  test.setTimeout(90_000);
  await bring(
    page,
    "quay-in-autumn.pptx",
    readFileSync(join(import.meta.dirname, "../demo/content/quay-in-autumn.pptx")),
  );
  await refine(page, 1);
  await page
    .locator("input[type=file]")
    .first()
    .setInputFiles({ name: "gauge.svg", mimeType: "image/svg+xml", buffer: Buffer.from(GAUGE) });
  const isPicture = (element: Element) =>
    element.kind === "picture" && /gauge/.test(element.source) && element.sourceShape === undefined;
  await expect.poll(async () => (await deckOf(page)).slides[1]?.elements.some(isPicture)).toBe(true);
  await kept(page);
  const deck = await deckOf(page);
  const picture = deck.slides[1]?.elements.find(isPicture) as Extract<Element, { kind: "picture" }>;
  expect(deck.assets[picture.source]).toMatchObject({ mediaType: "image/svg+xml", width: 120, height: 60 });
  // It lands at a fitting size and in its own shape, and its scripts do not run.
  expect((picture.frame?.width ?? 0) / (picture.frame?.height ?? 1)).toBeCloseTo(2, 1);
  const image = page.locator("[data-stage] image").first();
  await expect(image).toBeVisible();
  expect(await image.evaluate((element) => element.getAttribute("href"))).toContain(
    deck.assets[picture.source]?.sha256,
  );
  expect(await page.title()).not.toBe("run");
  // The middle of the circle is white on the screen, what lies beside it petrol.
  const box = (await image.boundingBox()) as { x: number; y: number; width: number; height: number };
  const seen = PNG.sync.read(await page.screenshot({ clip: box }));
  const at = (x: number, y: number) => [
    ...seen.data.subarray((Math.floor(seen.height * y) * seen.width + Math.floor(seen.width * x)) * 4).subarray(0, 3),
  ];
  expect([at(0.5, 0.5), at(0.2, 0.5)]).toEqual([
    [255, 255, 255],
    [0x0f, 0x5c, 0x63],
  ]);

  const parts = unzipSync(await write(page, "Presentation (.pptx)"));
  const drawings = Object.keys(parts).filter((path) => /^ppt\/media\/.*\.svg$/.test(path));
  expect(drawings.map((path) => strFromU8(must(parts[path])))).toContain(GAUGE);
  const slide = strFromU8(must(parts["ppt/slides/slide2.xml"]));
  expect(slide).toContain("svgBlip");
  await page.getByText("drawn as pixels", { exact: false }).first().waitFor({ state: "attached" });
});
