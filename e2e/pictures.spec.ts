import { expect, type JSHandle, type Page, test } from "@playwright/test";
import { PNG } from "pngjs";
import { deckOf, kept, newFromText, OUTLINE, refine } from "./acts";

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

test("a picture that is dropped stands beside the text, a pasted one has a slide's room, a document is not taken", async ({
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
  await expect(page.getByText(/report\.docx: only pictures go on a slide/)).toBeVisible();
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
