import { expect, type Page, type Route, test } from "@playwright/test";
import { readFileSync } from "node:fs";
import { deckOf, kept } from "./acts";

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

/** Makes a deck and its translation, and opens Translate. Returns the ids of both. */
async function translated(page: Page, text: string, language: string, engine: string) {
  const made = await page.request.post("/api/decks", { data: { title: "Levels", text } });
  const original = (await made.json()).id as string;
  const answer = await page.request.post(`/api/decks/${original}/translations`, { data: { language, engine } });
  const { id } = await answer.json();
  await page.goto(`/decks/${id}/translate`);
  await expect(page.locator("[data-segment]").first()).toBeVisible();
  return { original, id: id as string };
}

test("the slide follows every key before anything is stored, and a placeholder is dragged to its place", async ({
  page,
}) => {
  await translated(page, TEXT, "de", "none");
  const refuse = (route: Route) => (route.request().method() === "POST" ? route.abort() : route.continue());
  await page.route("**/segments", refuse);
  const row = page.locator("[data-segment]", { hasText: "The water rises" });
  const field = row.getByRole("textbox");
  await field.click();
  await page.keyboard.type("Das Wasser steigt heute");
  await expect(page.getByRole("img", { name: "Translation" })).toContainText("Das Wasser steigt heute");

  const box = await field.boundingBox();
  if (!box) throw new Error("no field");
  const token = await row.getByRole("button", { name: "⟨1⟩⟨/1⟩" }).boundingBox();
  if (!token) throw new Error("no placeholder");
  await page.mouse.move(token.x + 8, token.y + 8);
  await page.mouse.down();
  await page.mouse.move(token.x + 16, token.y + 8, { steps: 3 });
  await page.mouse.move(box.x + 12, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect(field).toHaveValue(/⟨1⟩⟨\/1⟩/);

  // What could not be stored stays, and is stored as soon as that works again.
  await page.getByRole("textbox", { name: /Translation of “It fell/ }).click();
  await expect(page.getByText("Not saved yet")).toBeVisible();
  await expect(field).toHaveValue(/⟨1⟩⟨\/1⟩/);
  await page.unroute("**/segments", refuse);
  await expect(page.getByText("Not saved yet")).toBeHidden();
  await page.reload();
  await expect(field).toHaveValue(/⟨1⟩⟨\/1⟩/);
});

test("what no longer fits is listed with its text, and continued on a next slide", async ({ page }) => {
  const point = "The highest water of the quarter came in the night after the storm had turned to the north";
  const text = `# Levels\n\n## Readings\n\n${Array.from({ length: 12 }, (_, nth) => `- Reading ${nth + 1}: ${point}`).join("\n")}\n`;
  await translated(page, text, "de", "pseudo");
  await page.getByRole("button", { name: "1 slide is too full" }).click();
  await expect(page.getByLabel("Show")).toHaveValue("full");
  await page.locator("[data-segment]").nth(1).getByRole("textbox").click();
  const fit = page.getByRole("region", { name: "What does not fit" });
  await expect(fit).toContainText(/shorten by about \d+ characters/);
  await fit.getByRole("button", { name: "Continue on a next slide" }).click();
  await expect(page.getByText("Continued slide 2 on a next one")).toBeVisible();
  await expect(fit).toBeHidden();
  await kept(page);
  const bodies = (await deckOf(page)).slides.map(({ elements }) =>
    elements.flatMap((element) => (element.kind === "text" && element.slot === "body" ? element.text : [])),
  );
  expect(bodies.map(({ length }) => length).reduce((sum, count) => sum + count)).toBe(12);
  expect(bodies.length).toBeGreaterThan(2);
  await page.getByRole("button", { name: "Undo", exact: true }).first().click();
  await expect(fit).toBeVisible();
});

test("the original is changed, and only what changed is translated again", async ({ page }) => {
  const { original, id } = await translated(page, TEXT, "de", "none");
  for (const [source, target] of [
    ["It fell to 4.6 m", "Es fiel auf 4,6 m"],
    ["Ask the class.", "Fragen Sie die Klasse."],
  ] as const) {
    await page.locator("[data-segment]", { hasText: source }).getByRole("textbox").fill(target);
    await page.keyboard.press("Control+Enter");
  }
  await expect(page.getByText("2 of 6 reviewed")).toBeVisible();

  await page.goto(`/decks/${original}/write`);
  await expect(page.locator(".cm-content")).toHaveAttribute("contenteditable", "true");
  await page.locator(".cm-line", { hasText: "It fell" }).click();
  await page.keyboard.press("End");
  await page.keyboard.type(" at noon");
  await expect.poll(async () => JSON.stringify(await deckOf(page))).toContain("4.6 m at noon");
  await kept(page);

  await page.goto(`/decks/${id}/translate`);
  await page.getByRole("link", { name: "See what it brings" }).click();
  await page.getByRole("button", { name: "Accept 1 slide" }).click();
  await expect.poll(async () => JSON.stringify(await deckOf(page))).toContain("at noon");
  await kept(page);
  await page.goto(`/decks/${id}/translate`);
  const changed = page.locator("[data-segment=outdated]");
  await expect(changed).toHaveCount(1);
  await expect(changed).toContainText("It fell to 4.6 m at noon");
  await expect(changed).toContainText("source changed");
  await expect(page.getByText("1 of 6 reviewed")).toBeVisible();
  await changed.getByRole("textbox").fill("Es fiel mittags auf 4,6 m");
  await page.keyboard.press("Control+Enter");
  await expect(page.getByText("2 of 6 reviewed")).toBeVisible();
  await expect.poll(async () => JSON.stringify(await deckOf(page))).toContain("Es fiel mittags auf 4,6 m");
  expect(JSON.stringify(await deckOf(page))).toContain("Fragen Sie die Klasse.");
});

test("a deck from right to left is mirrored: its drawings and the columns of its tables", async ({ page }) => {
  await page.goto("/decks/quarterly-monitoring-ar/refine");
  const { slides } = await deckOf(page);
  await page.goto(`/decks/quarterly-monitoring-ar/refine/${slides[4]?.id}`);
  const drawing = page.locator("svg.slide-drawing").first();
  await expect(drawing).toHaveAttribute("data-direction", "rtl");
  // The first column of the table is at the right.
  const places = await drawing.evaluate((svg) =>
    [...svg.querySelectorAll("text")].map((text) => [text.textContent, text.getBoundingClientRect().right] as const),
  );
  const at = (words: string) => places.find(([text]) => text?.includes(words))?.[1] ?? 0;
  expect(at("412")).toBeGreaterThan(at("405"));
});

test("words are replaced, a memory is searched and corrected, and terms are edited", async ({ page }) => {
  await translated(page, TEXT, "nl", "none");
  await page.locator("[data-segment]", { hasText: "Ask the class." }).getByRole("textbox").fill("Vraag het de klas.");
  await page.keyboard.press("Control+Enter");
  await expect(page.getByText("1 of 6 reviewed")).toBeVisible();
  await page.getByPlaceholder("Find words").fill("klas");
  await page.getByLabel("Replace with").fill("groep");
  await page.getByRole("button", { name: "Replace 1 in the translations" }).click();
  await expect.poll(async () => JSON.stringify(await deckOf(page))).toContain("Vraag het de groep.");
  await page.getByPlaceholder("Find words").fill("");

  await page.getByRole("button", { name: "Memory" }).click();
  await page.getByPlaceholder("Words in the source or the translation").fill("ask the class");
  const unit = page.getByRole("dialog").getByLabel("Translation of “Ask the class.”");
  await expect(unit).toHaveValue(/Vraag het de/);
  await page.getByRole("button", { name: "Remove “Ask the class.” from the memory" }).click();
  await expect(page.getByText("Nothing in the memory has these words.")).toBeVisible();
  await page.getByRole("dialog").getByRole("button", { name: "Undo" }).click();
  await expect(unit).toBeVisible();
  await page.getByRole("dialog").getByRole("button", { name: "Close" }).click();

  await page.getByRole("button", { name: "Terms" }).click();
  await page.getByRole("button", { name: "Add a term" }).click();
  await page.getByLabel("Term 1", { exact: true }).fill("water");
  await page.getByLabel("Translation 1", { exact: true }).fill("water");
  await page.getByRole("button", { name: "Save the terms" }).click();
  await page.locator("[data-segment]", { hasText: "The water rises" }).getByRole("textbox").click();
  await expect(page.getByRole("button", { name: "water", exact: true })).toBeVisible();
});

test("the language of a deck is set, its slides follow it, and what is no language is refused", async ({ page }) => {
  const made = await page.request.post("/api/decks", { data: { title: "Levels", text: TEXT } });
  const { id } = await made.json();
  await page.goto(`/decks/${id}/refine`);
  await page.getByRole("button", { name: "Deck", exact: true }).click();
  const field = page.getByLabel("Language", { exact: false }).last();
  await field.fill("not a language");
  await field.blur();
  await expect(page.getByText(/is no language/)).toBeVisible();
  await expect(field).toHaveValue("en");
  await field.fill("ar");
  await field.blur();
  await expect(page.locator("svg.slide-drawing").first()).toHaveAttribute("data-direction", "rtl");
  await kept(page);
  expect((await deckOf(page)).language).toBe("ar");
  await page.getByRole("button", { name: "Done" }).click();
  await page.getByRole("button", { name: "Undo", exact: true }).first().click();
  await expect(page.locator("svg.slide-drawing").first()).toHaveAttribute("data-direction", "ltr");
});

test("two languages are side by side, slide by slide, and others are chosen", async ({ page }) => {
  const { original } = await translated(page, TEXT, "de", "pseudo");
  await page.request.post(`/api/decks/${original}/translations`, { data: { language: "fr", engine: "none" } });
  await page.reload();
  await page.getByRole("link", { name: "Side by side" }).click();
  await expect(page.getByRole("img", { name: "Slide 2 in English" })).toContainText("The quay");
  await expect(page.getByRole("img", { name: "Slide 2 in German" })).not.toContainText("The quay");
  const left = page.getByLabel("Language on the left");
  await left.selectOption({ label: (await left.locator("option", { hasText: "French" }).textContent()) ?? "" });
  await expect(page.getByRole("img", { name: "Slide 2 in French" })).toContainText("The quay");
});
