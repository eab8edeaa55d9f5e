import { expect, test } from "@playwright/test";
import { readFileSync } from "node:fs";

const TEXT = `# Tides

## The quay

- The water rises **twice** a day
- It fell to 4.6 m

:::notes
Ask the class.
:::
`;

test("a deck is translated beside its slides, its bold words are placed, and an XLIFF goes out and comes back", async ({
  page,
}) => {
  const made = await page.request.post("/api/decks", { data: { title: "Tides", text: TEXT } });
  await page.goto(`/decks/${(await made.json()).id}/translate`);
  await page.getByLabel("Language").fill("de");
  await page.getByLabel("Start with").selectOption("none");
  await page.getByRole("button", { name: "Make the deck" }).click();
  await expect(page.getByText("0 of 6 reviewed")).toBeVisible();

  // A sentence with a bold word: the placeholder is put in with its key, and words go between its ends.
  const row = page.locator("[data-segment]", { hasText: "The water rises" });
  await row.getByRole("textbox").click();
  await page.keyboard.type("Zweimal am Tag ");
  await page.keyboard.press("Control+.");
  await page.keyboard.type("steigt");
  await page.keyboard.press("End");
  await page.keyboard.type(" das Wasser");
  await expect(row.getByRole("textbox")).toHaveValue("Zweimal am Tag ⟨1⟩steigt⟨/1⟩ das Wasser");
  await page.keyboard.press("Control+Enter");
  await expect(page.getByText("1 of 6 reviewed")).toBeVisible();
  await expect(page.getByRole("img", { name: "Translation" })).toContainText("Zweimal am Tag");

  // The next one has the focus; a wrong number is found.
  await page.keyboard.type("Es fiel auf 4,8 m");
  await page.keyboard.press("Control+Enter");
  await expect(page.getByText("The numbers differ: 4.6 in the source, 4.8 here.")).toBeVisible();

  // To a translator and back.
  await page.getByText("Files", { exact: true }).click();
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "XLIFF 2.1" }).click(),
  ]);
  const xliff = readFileSync(await file.path(), "utf8");
  expect(xliff).toContain('<target>Zweimal am Tag <pc id="1" dispStart="strong">steigt</pc> das Wasser</target>');
  const back = xliff.replace(/(<source>Ask the class\.<\/source>)/, "$1<target>Fragen Sie die Klasse.</target>");
  await page
    .getByLabel(/^What a translator sent back/)
    .setInputFiles({ name: "tides.xlf", mimeType: "application/xliff+xml", buffer: Buffer.from(back) });
  await expect(page.getByText("tides.xlf: 3 translations were taken.")).toBeVisible();
  await page.getByLabel("Show").selectOption({ label: "with findings" });
  await expect(page.locator("[data-segment]", { hasText: "It fell" })).toBeVisible();

  // The words are in the deck, and in its file.
  await page.getByRole("link", { name: "Arrange" }).click();
  await page.getByRole("link", { name: "Notes" }).click();
  await expect(page.getByText("Fragen Sie die Klasse.")).toBeVisible();
});
