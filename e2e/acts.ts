import { readFileSync } from "node:fs";
import { expect, type Locator, type Page } from "@playwright/test";
import type { Deck } from "@unitext/core/model";

export const OUTLINE =
  "# Reading the shore\n\nA walk in three stops\n\n## The tide line\n\n- weed and shells\n- how high it came\n\n## The foot of the dune\n\n- where sand falls\n- where waves bite\n\n## The slack\n\n- fresh water\n";

interface State {
  version: number;
  deck: {
    id: string;
    slides: { id: string; notes: unknown[]; hidden: boolean }[];
    page: { width: number };
    theme: { name: string };
  };
}

/** The deck as the server has it. */
export async function stored(page: Page): Promise<State> {
  const id = /\/decks\/([^/]+)/.exec(page.url())?.[1];
  return (await page.request.get(`/api/decks/${id}`)).json();
}

/** The same, as the model has it. */
export const deckOf = async (page: Page): Promise<Deck> => (await stored(page)).deck as unknown as Deck;

/** Makes a deck of a text, as a person does, and opens it in Write. */
export async function newFromText(page: Page, text: string): Promise<void> {
  await page.goto("/");
  await page.getByRole("button", { name: "New from text" }).click();
  await page.locator("#new-text").fill(text);
  await page.getByRole("button", { name: "Make the deck" }).click();
  await page.waitForURL(/\/write$/);
  await expect(page.locator("[data-level] [data-slide]").first()).toBeVisible();
}

/** Opens a slide in Refine, by its number. */
export async function refine(page: Page, nth: number): Promise<void> {
  const { id, slides } = await deckOf(page);
  await page.goto(`/decks/${id}/refine/${slides[nth]?.id}`);
  await expect(page.locator("[data-frame]").first()).toBeVisible();
}

/** Waits until everything done on the page is committed. */
export async function kept(page: Page): Promise<void> {
  await expect(page.locator("[data-status]")).toHaveAttribute("data-status", "saved");
}

/** Moves the focus with Tab alone until it is on the element. */
export async function tabTo(page: Page, target: Locator): Promise<void> {
  for (let step = 0; step < 120; step++) {
    if (
      await target
        .evaluate((element) => element === document.activeElement || element.contains(document.activeElement))
        .catch(() => false)
    )
      return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`Tab does not reach ${target}`);
}

export async function press(page: Page, target: Locator): Promise<void> {
  await tabTo(page, target);
  await page.keyboard.press("Enter");
}

/** The titles of the deck's slides, in the order in which the map shows them. */
export async function titles(page: Page): Promise<string[]> {
  const labels = await page
    .locator("[data-map] [role=option]")
    .evaluateAll((options) => options.map((option) => option.getAttribute("aria-label") ?? ""));
  return labels
    .map((label) => /^(\d+)\. ([^,]*)/.exec(label))
    .sort((a, b) => Number(a?.[1]) - Number(b?.[1]))
    .map((found) => found?.[2] ?? "");
}

/** Drops a file on an element, as from a folder. */
export async function dropOn(page: Page, selector: string, name: string, bytes: Uint8Array): Promise<void> {
  const data = await page.evaluateHandle(() => new DataTransfer());
  await page.evaluate(
    ([transfer, base64, file]) => {
      const binary = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
      transfer.items.add(new File([binary], file));
    },
    [data, Buffer.from(bytes).toString("base64"), name] as const,
  );
  await page.locator(selector).first().dispatchEvent("drop", { dataTransfer: data });
}

/** Where the Desk asks whether a document is a newer version of a deck's, makes a new deck of it. */
export async function asNewDeck(page: Page): Promise<void> {
  const make = page.getByRole("button", { name: "Make a new deck" });
  await expect.poll(async () => (await make.count()) > 0 || page.url().includes("/decks/")).toBe(true);
  if (await make.count()) await make.click();
}

/** Waits until the file of the open deck has been read completely. */
export async function arrived(page: Page): Promise<void> {
  const id = /\/decks\/([^/]+)/.exec(page.url())?.[1];
  await expect
    .poll(
      async () =>
        (await (await page.request.get("/api/jobs")).json()).jobs.filter(
          (job: { deck: string; state: string }) => job.deck === id && /waiting|running/.test(job.state),
        ).length,
      { timeout: 60_000 },
    )
    .toBe(0);
}

/** Drops a presentation on the Desk, which opens it. */
export async function bring(page: Page, name: string, bytes: Uint8Array): Promise<void> {
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Desk" })).toBeVisible();
  await dropOn(page, "main", name, bytes);
  await page.waitForURL(/\/arrange$/);
  await arrived(page);
}

/** Downloads the open deck in Deliver in a format, by its label. */
export async function write(page: Page, label: string): Promise<Uint8Array> {
  const { id } = await deckOf(page);
  await page.goto(`/decks/${id}/deliver`);
  const button = page.getByRole("button", { name: `Download as ${label}` });
  await expect(button).toBeEnabled();
  const [file] = await Promise.all([page.waitForEvent("download"), button.click()]);
  return readFileSync(await file.path());
}

/** Opens Speak, and the hall's window, which shows a slide. */
export async function speak(page: Page, slide: string): Promise<Page> {
  await page.getByRole("link", { name: "Speak" }).click();
  const opening = page.context().waitForEvent("page");
  await page.getByRole("button", { name: "Open the hall's window" }).click();
  const hall = await opening;
  await expect(hall.locator(`[data-hall="${slide}"]`)).toBeVisible();
  return hall;
}

/** Drags one thing onto another with the mouse, to a position inside it. */
export async function drag(page: Page, from: Locator, to: Locator, at: { x: number; y: number }): Promise<void> {
  const [start, end] = [await from.boundingBox(), await to.boundingBox()];
  if (!start || !end) throw new Error("What is dragged, or where to, is not on the page.");
  await page.mouse.move(start.x + start.width / 2, start.y + start.height / 2);
  await page.mouse.down();
  await page.mouse.move(end.x + at.x, end.y + at.y, { steps: 10 });
  await page.mouse.move(end.x + at.x, end.y + at.y, { steps: 2 });
  await page.mouse.up();
}
