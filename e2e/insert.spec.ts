import { expect, type JSHandle, type Page, test } from "@playwright/test";
import { PNG } from "pngjs";
import { must, nameOf, textOf } from "@unitext/core/model";
import { deckOf, kept, newFromText, OUTLINE, refine, titles } from "./acts";

/** Returns a file as it is dropped or pasted. */
async function dropped(page: Page, name: string, type: string, bytes: Buffer): Promise<JSHandle<DataTransfer>> {
  return page.evaluateHandle(
    ({ name, type, bytes }) => {
      const data = new DataTransfer();
      data.items.add(new File([new Uint8Array(bytes)], name, { type }));
      return data;
    },
    { name, type, bytes: [...bytes] },
  );
}
const png = PNG.sync.write(new PNG({ width: 160, height: 120 }));

/** Pastes clipboard content where no field has the focus. */
async function paste(page: Page, content: Record<string, string>): Promise<void> {
  await page.evaluate((given) => {
    const clipboardData = new DataTransfer();
    for (const [type, value] of Object.entries(given)) clipboardData.setData(type, value);
    document.body.dispatchEvent(new ClipboardEvent("paste", { clipboardData, bubbles: true, cancelable: true }));
  }, content);
}

test("a picture that is dropped stands beside the text, a pasted one has a slide's room, a damaged document is refused", async ({
  page,
}) => {
  await newFromText(page, OUTLINE);
  await refine(page, 1);
  const before = page.url();
  const stage = page.locator("[data-stage]");
  await stage.dispatchEvent("drop", { dataTransfer: await dropped(page, "tide line.png", "image/png", png) });
  const shown = async (nth: number) => {
    const slide = (await deckOf(page)).slides[nth];
    return [slide?.arrangement, slide?.elements.map(({ kind, slot }) => `${kind} ${slot}`)];
  };
  await expect.poll(() => shown(1)).toEqual(["comparison", ["text title", "text left", "picture right"]]);
  await expect(page.getByText("Added a picture")).toBeVisible();

  const report = await dropped(page, "report.docx", "application/octet-stream", Buffer.from("words"));
  await stage.dispatchEvent("drop", { dataTransfer: report });
  await expect(page.getByRole("status").getByText(/^report\.docx: /)).toBeVisible();
  expect(page.url()).toBe(before);

  await refine(page, 2);
  const pasted = await dropped(page, "dune.png", "image/png", png);
  await page.evaluate((data) => {
    document.body.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
  }, pasted);
  await expect.poll(() => shown(2)).toEqual(["comparison", ["text title", "text left", "picture right"]]);
  await kept(page);
  await page.getByRole("button", { name: "Undo", exact: true }).first().click();
  await expect.poll(() => shown(2)).toEqual(["points", ["text title", "text body"]]);
});

test("cells, words and headed text that are pasted become a table, a text and slides", async ({ page }) => {
  await newFromText(page, OUTLINE);
  await refine(page, 1);
  await paste(page, { "text/plain": "Gauge\tMetres\nQuay\t3.4\nMole\t2.9\n" });
  await expect
    .poll(async () => (await deckOf(page)).slides[1]?.elements.map(({ kind, slot }) => `${kind} ${slot}`))
    .toEqual(["text title", "text left", "table right"]);
  await paste(page, { "text/plain": "Read at noon" });
  await expect.poll(async () => (await deckOf(page)).slides[1]?.elements.length).toBe(4);

  // Text with headings may be slides: they are shown before they land.
  await paste(page, { "text/html": "<h2>Dunes</h2><p>Sand moves.</p><h2>Slack</h2><p>Water stays.</p>" });
  const dialog = page.getByRole("dialog", { name: "Paste text" });
  await expect(dialog.getByText("It makes 2 slides, which would land after 2.")).toBeVisible();
  await dialog.getByRole("button", { name: "As 2 new slides" }).click();
  await expect
    .poll(async () => (await deckOf(page)).slides.map(nameOf))
    .toEqual(["Reading the shore", "The tide line", "Dunes", "Slack", "The foot of the dune", "The slack"]);
  await kept(page);
});

test("pasted cells that a workbook is known to have are linked to it, or pasted without a link", async ({ page }) => {
  // No other test has these numbers.
  await page.request.post("/api/sources?name=moorings.csv", {
    headers: { "content-type": "application/octet-stream" },
    data: Buffer.from("Mooring,Depth\nInner,3.17\nOuter,5.83\n"),
  });
  await newFromText(page, OUTLINE);
  await refine(page, 1);
  const cells = { "text/plain": "Mooring\tDepth\nInner\t3.17\nOuter\t5.83\n" };
  const dialog = page.getByRole("dialog", { name: "Put cells of moorings.csv on a slide" });
  const tables = async () =>
    (await deckOf(page)).slides[1]?.elements.flatMap((element) =>
      element.kind === "table" ? [element.binding?.range ?? null] : [],
    );
  await paste(page, cells);
  await dialog.getByRole("button", { name: "Put on slide 2" }).click();
  await expect.poll(tables).toEqual(["moorings!A1:B3"]);
  await paste(page, cells);
  await dialog.getByRole("button", { name: "Paste without a link" }).click();
  await expect.poll(tables).toEqual(["moorings!A1:B3", null]);
});

test("on the map, text, pictures and documents become slides after the selected one", async ({ page }) => {
  await newFromText(page, OUTLINE);
  const { id } = await deckOf(page);
  await page.goto(`/decks/${id}/arrange`);
  await page.locator("[data-map] [role=option]").nth(1).click();
  const map = page.locator("[data-map]");
  await map.dispatchEvent("drop", { dataTransfer: await dropped(page, "dune.png", "image/png", png) });
  await expect.poll(async () => (await deckOf(page)).slides[2]?.elements[0]?.kind).toBe("picture");
  const notes = Buffer.from("# Storms\n\n## Wind\n\n- blows\n\n## Rain\n\n- falls\n");
  await map.dispatchEvent("drop", { dataTransfer: await dropped(page, "storms.md", "text/markdown", notes) });
  await page.getByRole("dialog", { name: "storms.md" }).getByRole("button", { name: "As 3 new slides" }).click();
  await expect.poll(async () => (await titles(page)).slice(3, 6)).toEqual(["Storms", "Wind", "Rain"]);
  await kept(page);
});

test("a table is made, written in, sized and merged on the slide, by mouse and by keys", async ({ page }) => {
  await newFromText(page, OUTLINE);
  await refine(page, 1);
  await page.getByRole("button", { name: "Table …" }).click();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Enter");
  const table = async () => {
    const found = (await deckOf(page)).slides[1]?.elements.find(({ kind }) => kind === "table");
    return found?.kind === "table" ? found : undefined;
  };
  await expect.poll(async () => (await table())?.rows.map((row) => row.length)).toEqual([4, 4, 4]);
  await page.getByRole("button", { name: "Change the cells" }).click();
  const grid = page.getByRole("grid", { name: /^Cells of the table/ });
  await page.keyboard.type("Gauge");
  await page.keyboard.press("Tab");
  await page.keyboard.type("Metres");
  await page.keyboard.press("Escape");
  const words = async () => (await table())?.rows.map((row) => row.map((cell) => textOf(cell?.text ?? [])));
  await expect.poll(async () => (await words())?.[0]).toEqual(["Gauge", "Metres", "", ""]);

  // Two cells are merged, a row is moved, and a column made wider by its edge.
  await grid.getByRole("gridcell", { name: "Row 1, column 3" }).click();
  await grid.getByRole("gridcell", { name: "Row 1, column 4" }).click({ modifiers: ["Shift"] });
  await page.getByRole("button", { name: "Merge the selected cells" }).click();
  await expect.poll(async () => (await table())?.rows[0]?.[2]?.columns).toBe(2);
  await grid.getByRole("gridcell", { name: "Row 2, column 1" }).click();
  await page.keyboard.press("Alt+ArrowDown");
  const edge = must((await page.locator('[data-edge="column/0"]').boundingBox()) ?? undefined);
  await page.mouse.move(edge.x + edge.width / 2, edge.y + 20);
  await page.mouse.down();
  await page.mouse.move(edge.x + 40, edge.y + 20, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await table())?.shares?.length).toBe(4);
  await page.keyboard.press("Escape");
  await kept(page);
});

test("points become a diagram whose kind changes with its words kept", async ({ page }) => {
  await newFromText(page, OUTLINE);
  await refine(page, 1);
  await page
    .locator("[data-stage]")
    .getByRole("button", { name: /^text “/ })
    .click();
  await page.getByRole("button", { name: "Draw as a diagram" }).click();
  const element = async () => (await deckOf(page)).slides[1]?.elements.at(-1);
  await expect.poll(async () => (await element())?.kind).toBe("diagram");
  await page.getByRole("radio", { name: "Cycle" }).check({ force: true });
  await expect.poll(async () => JSON.stringify(await element())).toContain('"type":"cycle"');
  await page.getByRole("textbox", { name: "Words of the diagram" }).click();
  await page.keyboard.press("Control+End");
  await page.keyboard.press("Enter");
  await page.keyboard.type("and again");
  await expect.poll(async () => JSON.stringify(await element())).toContain("and again");
  await page.getByRole("button", { name: "As points again" }).click();
  await expect.poll(async () => (await element())?.kind).toBe("text");
  await kept(page);
});

test("a file that is dropped where no place takes it leaves the page as it is", async ({ page }) => {
  await newFromText(page, OUTLINE);
  const id = (await deckOf(page)).id;
  await page.goto(`/decks/${id}/speak`);
  const file = await dropped(page, "dune.png", "image/png", png);
  const isPrevented = await page.evaluate((dataTransfer) => {
    const event = new DragEvent("drop", { dataTransfer, bubbles: true, cancelable: true });
    document.body.dispatchEvent(event);
    return event.defaultPrevented;
  }, file);
  expect(isPrevented).toBe(true);
});
