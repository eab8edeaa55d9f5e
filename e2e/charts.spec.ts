import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { type ChartElement, must } from "@unitext/core/model";
import { strFromU8, unzipSync } from "fflate";
import { bring, deckOf, kept, refine, write } from "./acts";

const content = join(import.meta.dirname, "../demo/content");
const chartOn = async (page: Page, slide: number) =>
  must(
    (await deckOf(page)).slides[slide]?.elements.find((element): element is ChartElement => element.kind === "chart"),
  );

test("a chart is shown otherwise in a few fields, each act taken back by one undo", async ({ page }) => {
  test.setTimeout(60_000);
  await bring(page, "charts.pptx", readFileSync(join(content, "quay-in-autumn.pptx")));
  await refine(page, 2);
  await page.getByRole("button", { name: /^chart/ }).click();
  await page.getByText("How it is shown").click();
  const highest = page.getByRole("group", { name: "Highest" });
  await highest.getByLabel("Axis").selectOption("secondary");
  await expect(page.getByRole("group", { name: /Secondary axis/ })).toBeVisible();
  await page
    .getByRole("group", { name: /Secondary axis/ })
    .getByLabel("Title")
    .fill("highest, m");
  await page.keyboard.press("Enter");
  // The words come to the slide, at the right of the chart.
  await expect(page.locator("[data-slide] text", { hasText: "highest, m" }).first()).toBeVisible();
  await highest.getByLabel("Curved").check();
  await page.getByLabel("Legend", { exact: true }).selectOption("none");
  await kept(page);
  expect(await chartOn(page, 2)).toMatchObject({
    legend: "none",
    secondaryAxis: { title: "highest, m" },
    series: [{ name: "Mean" }, { name: "Highest", axis: "secondary", smooth: true }],
  });
  for (let nth = 0; nth < 4; nth++) await page.getByRole("button", { name: "Undo", exact: true }).first().click();
  await kept(page);
  const before = await chartOn(page, 2);
  expect(before.secondaryAxis).toBeUndefined();
  expect(before.series.every(({ axis, smooth }) => !axis && !smooth)).toBe(true);
});

test("a number that is changed in the grid changes one value of the file's chart and one cell of its workbook", async ({
  page,
}) => {
  test.setTimeout(60_000);
  const file = readFileSync(join(content, "quay-in-autumn.pptx"));
  await bring(page, "numbers.pptx", file);
  await refine(page, 2);
  await page.getByRole("button", { name: /^chart/ }).click();
  await page.getByRole("textbox", { name: "Row 2, column 2" }).fill("3.75");
  await page.keyboard.press("Enter");
  await kept(page);
  const { id } = await deckOf(page);
  await page.goto(`/decks/${id}/deliver`);
  const after = unzipSync(await write(page, "Presentation (.pptx)"));
  const before = unzipSync(file);
  const differing = Object.keys(before).filter(
    (path) =>
      /charts\/chart[^/]*\.xml$|\.xlsx$/.test(path) &&
      !Buffer.from(must(before[path])).equals(Buffer.from(after[path] ?? [])),
  );
  expect(differing.map((path) => path.replace(/\d+/, "N")).sort()).toEqual([
    "ppt/charts/chartN.xml",
    "ppt/embeddings/workbookN.xlsx",
  ]);
  const [chart = "", book = ""] = differing.sort();
  const values = (text: string) => [...text.matchAll(/<c:v>([^<]*)<\/c:v>/g)].map(([, value]) => value);
  const [was, now] = [values(strFromU8(must(before[chart]))), values(strFromU8(must(after[chart])))];
  expect(now.filter((value, nth) => value !== was[nth])).toEqual(["3.75"]);
  expect(strFromU8(must(unzipSync(after[book] as Uint8Array)["xl/worksheets/sheet1.xml"]))).toContain("<v>3.75</v>");
});
