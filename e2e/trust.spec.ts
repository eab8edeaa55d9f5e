import { expect, type Page, test } from "@playwright/test";

async function newDeck(page: Page, title: string): Promise<string> {
  await page.goto("/");
  const made = await page.request.post("/api/decks", {
    data: { title, text: `# ${title}\n\n## Quay\n\n- twice a day\n` },
  });
  return (await made.json()).id;
}
const notesOf = async (page: Page, id: string) =>
  JSON.stringify(
    (await (await page.request.get(`/api/decks/${id}`)).json()).deck.slides.map(
      ({ notes }: { notes: unknown }) => notes,
    ),
  );
async function typeNotes(page: Page, text: string): Promise<void> {
  await page.getByRole("textbox", { name: "Notes" }).click();
  await page.keyboard.press("Control+End");
  await page.keyboard.type(text);
  await page.keyboard.press("Escape");
}

test("what was typed while the service has a fault is kept, also when the page is opened again, and saved afterwards", async ({
  page,
}) => {
  const id = await newDeck(page, "Kept under faults");
  await page.goto(`/decks/${id}/refine`);
  const fault = (path: string) =>
    page.route(path, (route) =>
      route.fulfill({
        status: 500,
        contentType: "application/json",
        body: JSON.stringify({ error: { code: "failed", where: "/", message: "Something went wrong." } }),
      }),
    );
  await expect(page.getByRole("textbox", { name: "Notes" })).toBeVisible();
  await fault(`**/api/decks/${id}/changes`);
  await typeNotes(page, "Slow down here.");
  await expect(page.locator('[data-status="waiting"]')).toBeVisible();
  await fault(`**/api/decks/${id}`);
  await page.reload();
  await expect(page.getByRole("heading", { name: "This deck cannot be opened" })).toBeVisible();
  await page.unrouteAll();
  await page.reload();
  await expect(page.locator('[data-status="saved"]')).toBeVisible();
  expect(await notesOf(page, id)).toContain("Slow down here.");
});

test("a change that can never be saved is set aside with its words, and what comes after it is saved", async ({
  page,
}) => {
  const id = await newDeck(page, "Set aside");
  await page.goto(`/decks/${id}/refine`);
  await page.route(`**/api/decks/${id}/changes`, async (route) => {
    if (!route.request().postData()?.includes("never")) return route.continue();
    await route.fulfill({
      status: 400,
      contentType: "application/json",
      body: JSON.stringify({ error: { code: "not-valid", where: "changes", message: "This is not taken." } }),
    });
  });
  await expect(page.getByRole("textbox", { name: "Notes" })).toBeVisible();
  await typeNotes(page, "This is never saved.");
  await page.getByRole("button", { name: "1 change could not be saved" }).click();
  const dialog = page.getByRole("dialog", { name: /could not be saved/ });
  await expect(dialog).toContainText("This is never saved.");
  await expect(dialog).toContainText("This is not taken.");
  await dialog.getByRole("button", { name: "Discard" }).click();
  await expect(page.getByRole("button", { name: /could not be saved/ })).toHaveCount(0);
  await typeNotes(page, "And this is.");
  await expect(page.locator('[data-status="saved"]')).toBeVisible();
  await expect.poll(() => notesOf(page, id)).toContain("And this is.");
});

test("writing a file is cancelled from where it was begun", async ({ page }) => {
  const id = await newDeck(page, "Cancelled");
  await page.goto(`/decks/${id}/deliver`);
  let reached = () => undefined as unknown;
  const asked = new Promise((resolve) => {
    reached = () => resolve(undefined);
  });
  await page.route("**/export?*", () => void reached());
  await page.getByRole("button", { name: "Download as Presentation (.pptx)" }).click();
  await asked;
  await page.getByRole("button", { name: "Cancel writing Presentation (.pptx)" }).click();
  await expect(page.getByText("Cancelled writing Presentation (.pptx)")).toBeVisible();
  await expect(page.getByRole("button", { name: "Download as Presentation (.pptx)" })).toBeEnabled();
});
