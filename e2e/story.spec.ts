import { must } from "@unitext/core/model";
import { readFile } from "node:fs/promises";
import { expect, type Page, test } from "@playwright/test";
import { arrived, kept, OUTLINE, press, stored, tabTo, titles } from "./acts";

const place = (page: Page, name: string) =>
  page.getByRole("navigation", { name: "Places" }).getByRole("link", { name, exact: true });
/** The link to a deck that was brought in just now. */
const brought = (page: Page, name: string) =>
  page
    .getByRole("paragraph")
    .filter({ hasText: `${name} is now on the Desk` })
    .getByRole("link", { name: "Open it" });
const ORDER = ["Reading the shore", "The foot of the dune", "The tide line", "The slack"];

/** Everything of a slide that has to come back. */
const facts = ({ deck }: Awaited<ReturnType<typeof stored>>) => deck.slides;

test("the whole story with the keyboard alone", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Desk" })).toBeVisible();
  await press(page, page.getByRole("button", { name: "New from text" }));
  await page.keyboard.insertText(OUTLINE);
  await press(page, page.getByRole("button", { name: "Make the deck" }));

  await page.waitForURL(/\/write$/);
  await expect(page.locator("[data-level] [data-slide]").first()).toBeVisible();
  await tabTo(page, page.getByRole("textbox", { name: "Text of the deck" }));
  await page.keyboard.press("Control+End");
  await page.keyboard.type("\n## Home\n\n- before the tide");
  await expect.poll(async () => (await stored(page)).deck.slides.length).toBe(5);

  await press(page, place(page, "Arrange"));
  await tabTo(page, page.locator('[role="option"][tabindex="0"]'));
  await page.keyboard.press("Home");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Alt+ArrowUp");
  await expect.poll(() => titles(page)).toEqual([...ORDER, "Home"]);
  await expect(page.getByText("Moved slide 3")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect
    .poll(() => titles(page))
    .toEqual(["Reading the shore", "The tide line", "The foot of the dune", "The slack", "Home"]);
  await page.keyboard.press("Control+Shift+Z");
  await expect.poll(() => titles(page)).toEqual([...ORDER, "Home"]);
  await page.keyboard.press("End");
  await page.keyboard.press("Alt+ArrowRight");
  await kept(page);
  expect((await stored(page)).deck.slides[4]).toMatchObject({ parent: (await stored(page)).deck.slides[3]?.id });
  await page.keyboard.press("Home");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");

  await page.waitForURL(/\/refine\//);
  await tabTo(page, page.getByRole("textbox", { name: "Notes" }));
  await page.keyboard.type("Ask who has seen it move.");
  await page.keyboard.press("Escape");
  await press(page, page.getByRole("button", { name: "Design", exact: true }));
  const designs = page.getByRole("dialog", { name: "Design" });
  await tabTo(page, designs.getByRole("radio", { name: "Salt marsh" }));
  for (let step = 0; step < 3; step++) await page.keyboard.press("ArrowDown");
  await expect(designs.getByText("Chalk: a printed page")).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(designs).toBeHidden();
  await press(page, page.getByRole("button", { name: "Deck", exact: true }));
  await press(page, page.getByRole("button", { name: "4:3" }));
  await page.keyboard.press("Escape");
  await kept(page);
  const before = await stored(page);
  expect([before.deck.theme.name, before.deck.page.width]).toEqual(["Chalk", 720]);
  expect(before.deck.slides[1]?.notes).toHaveLength(1);

  await press(page, place(page, "Speak"));
  const opening = page.waitForEvent("popup");
  await press(page, page.getByRole("button", { name: "Open the hall's window" }));
  const hall = await opening;
  await expect(hall.locator("[data-hall] [data-slide]")).toBeVisible();
  await page.bringToFront();
  await page.locator("body").press("ArrowRight");
  await expect(hall.locator(`[data-hall="${before.deck.slides[2]?.id}"]`)).toBeVisible();
  await page.keyboard.press("Home");
  await expect(hall.locator(`[data-hall="${before.deck.slides[0]?.id}"]`)).toBeVisible();
  await hall.close();

  await press(page, place(page, "Deliver"));
  await expect(page.getByText("Everything is kept.").first()).toBeVisible();
  const files: Record<string, string> = {};
  for (const name of ["Presentation (.pptx)", "Pages (.pdf)", "Text (.md)"]) {
    const coming = page.waitForEvent("download");
    await press(page, page.getByRole("button", { name: `Download as ${name}` }));
    const download = await coming;
    files[must(download.suggestedFilename().split(".").at(-1))] = await download.path();
  }
  expect((await readFile(must(files.pdf))).subarray(0, 5).toString()).toBe("%PDF-");
  expect(await readFile(must(files.md), "utf8")).toContain("## The foot of the dune");

  await press(page, place(page, "Desk"));
  const chooser = page.waitForEvent("filechooser");
  await press(page, page.getByRole("button", { name: "Bring in files" }));
  await (await chooser).setFiles({
    name: "shore.pptx",
    mimeType: "application/octet-stream",
    buffer: await readFile(must(files.pptx)),
  });
  await page.waitForURL(/\/arrange$/);
  await arrived(page);
  expect(facts(await stored(page))).toEqual(facts(before));
});

test("the whole story with the mouse", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Desk" })).toBeVisible();
  const dropped = await page.evaluateHandle((text) => {
    const data = new DataTransfer();
    data.items.add(new File([text], "shore.md", { type: "text/markdown" }));
    return data;
  }, OUTLINE);
  await page.locator("main").dispatchEvent("drop", { dataTransfer: dropped });
  await brought(page, "shore.md").click();

  await page.waitForURL(/\/arrange$/);
  await expect
    .poll(() => titles(page))
    .toEqual(["Reading the shore", "The tide line", "The foot of the dune", "The slack"]);
  const third = await page.locator("[data-map] [role=option]").nth(2).boundingBox();
  const second = await page.locator("[data-map] [role=option]").nth(1).boundingBox();
  if (!third || !second) throw new Error("no thumbnails");
  await page.mouse.move(third.x + 40, third.y + 60);
  await page.mouse.down();
  await page.mouse.move(third.x + 44, third.y + 40, { steps: 4 });
  await page.mouse.move(second.x + 60, second.y + 12, { steps: 12 });
  await expect(page.getByText("Lands before 2").first()).toBeVisible();
  await expect(page.locator('[data-landing="before"]')).toBeVisible();
  await page.mouse.up();
  await expect.poll(() => titles(page)).toEqual(ORDER);
  await page.getByRole("button", { name: "Undo" }).last().click();
  await expect
    .poll(() => titles(page))
    .toEqual(["Reading the shore", "The tide line", "The foot of the dune", "The slack"]);
  await page.locator("[data-map] [role=option]").nth(1).click();
  await page
    .locator("[data-map] [role=option]")
    .nth(2)
    .click({ modifiers: ["Shift"] });
  await page.getByRole("button", { name: "Down", exact: true }).click();
  await expect
    .poll(() => titles(page))
    .toEqual(["Reading the shore", "The slack", "The tide line", "The foot of the dune"]);

  await page.locator("[data-map] [role=option]").nth(2).dblclick();
  await page.getByRole("button", { name: /^title/ }).dblclick();
  await expect(page.locator("[data-stage] [contenteditable=true]")).toBeFocused();
  await page.keyboard.press("Control+a");
  await page.keyboard.type("Where the sea stopped");
  await page.getByRole("textbox", { name: "Notes" }).click();
  await page.keyboard.type("Slow down here.");
  await page.getByRole("button", { name: "Two columns" }).click();
  await page.getByRole("button", { name: "Design", exact: true }).click();
  await page.getByText("Night watch", { exact: true }).click();
  await page.getByRole("button", { name: "Use this design" }).click();
  await page.getByRole("button", { name: "Deck", exact: true }).click();
  await page.getByRole("button", { name: "16:10" }).click();
  await page.getByRole("button", { name: "Done" }).click();
  await kept(page);
  const { deck } = await stored(page);
  expect(deck).toMatchObject({ theme: { name: "Night watch" }, page: { height: 600 } });
  expect(deck.slides[2]).toMatchObject({ arrangement: "comparison", notes: [{ runs: [{ text: "Slow down here." }] }] });
  expect(JSON.stringify(deck.slides[2])).toContain("Where the sea stopped");

  await place(page, "Write").click();
  await expect(page.locator(".cm-content")).toContainText("Where the sea stopped");
  await expect(page.locator(".cm-content")).toHaveAttribute("contenteditable", "true");
  await page.locator(".cm-line", { hasText: "fresh water" }).click();
  await page.keyboard.press("End");
  await page.keyboard.type(" under the sand");
  await expect.poll(async () => JSON.stringify((await stored(page)).deck)).toContain("fresh water under the sand");
  expect((await stored(page)).deck.slides.map(({ id }) => id)).toEqual(deck.slides.map(({ id }) => id));

  await place(page, "Speak").click();
  const opening = page.waitForEvent("popup");
  await page.getByRole("button", { name: "Open the hall's window" }).click();
  const hall = await opening;
  await page.getByRole("button", { name: "Next", exact: true }).click();
  await expect(hall.locator("[data-hall] [data-slide]")).toBeVisible();
  await expect(page.locator("[data-elapsed]")).not.toHaveText("0:00");
  const shown = await hall.locator("[data-hall]").getAttribute("data-hall");
  // The wheel turns no slide: a key after it leads exactly one slide back.
  await page.mouse.wheel(0, 600);
  await page.keyboard.press("ArrowLeft");
  await expect(hall.locator("[data-hall]")).not.toHaveAttribute("data-hall", shown ?? "");
  await page.keyboard.press("ArrowRight");
  await expect(hall.locator("[data-hall]")).toHaveAttribute("data-hall", shown ?? "");

  await place(page, "Deliver").click();
  const coming = page.waitForEvent("download");
  await page.getByRole("button", { name: "Download as Presentation (.pptx)" }).click();
  const before = await stored(page);
  const file = [...(await readFile(await (await coming).path()))];
  await place(page, "Desk").click();
  await expect(page.getByRole("heading", { name: "Desk" })).toBeVisible();
  const again = await page.evaluateHandle((bytes) => {
    const data = new DataTransfer();
    data.items.add(new File([new Uint8Array(bytes)], "shore.pptx"));
    return data;
  }, file);
  await page.locator("main").dispatchEvent("drop", { dataTransfer: again });
  await page.waitForURL(/\/arrange$/);
  await arrived(page);
  expect(facts(await stored(page))).toEqual(facts(before));
});

test("closing the tab in the middle of anything loses nothing", async ({ page, context }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "New from text" }).click();
  await page.getByLabel("Paste an outline or a text").fill(OUTLINE);
  await page.getByRole("button", { name: "Make the deck" }).click();
  await page.waitForURL(/\/write$/);
  await expect(page.locator("[data-level] [data-slide]").first()).toBeVisible();
  await expect(page.locator(".cm-content")).toHaveAttribute("contenteditable", "true");
  await page.locator(".cm-content").click();
  await page.keyboard.press("Control+End");
  await page.keyboard.type("\n## Last words\n\n- typed and gone");
  const address = page.url();
  await page.close({ runBeforeUnload: false });
  const again = await context.newPage();
  await again.goto(address);
  await expect(again.locator(".cm-content")).toContainText("typed and gone");
  await kept(again);
  await expect.poll(async () => JSON.stringify((await stored(again)).deck)).toContain("typed and gone");

  await context.setOffline(true);
  await again.keyboard.press("Control+End");
  await again.keyboard.type(" without a network");
  await expect(again.locator("[data-status='waiting']")).toBeVisible();
  await again.close();
  await context.setOffline(false);
  const third = await context.newPage();
  await third.goto(address);
  await expect(third.locator(".cm-content")).toContainText("without a network");
  await expect.poll(async () => JSON.stringify((await stored(third)).deck)).toContain("without a network");
});

test("two pages on one deck: changes merge, and a conflict is told", async ({ page, browser }) => {
  const elsewhere = await browser.newContext();
  const other = await elsewhere.newPage();
  const path = "/decks/quarterly-monitoring/arrange";
  await page.goto(path);
  await other.goto(path);
  await expect(other.locator("[data-map] [role=option]").first()).toBeVisible();
  await page.locator("[data-map] [role=option]").nth(1).click();
  await page.keyboard.press("h");
  await kept(page);
  await expect(other.locator("[data-map] [role=option]").nth(1)).toHaveAccessibleName(/hidden/);
  await other.locator("[data-map] [role=option]").nth(3).click();
  await other.keyboard.press("Alt+ArrowUp");
  await expect.poll(async () => (await titles(page))[2]).toBe((await titles(other))[2]);

  await kept(other);
  await elsewhere.setOffline(true);
  await other.locator("[data-map] [role=option]").nth(4).click();
  await other.keyboard.press("h");
  await expect(other.locator("[data-status='waiting']")).toBeVisible();
  await page.locator("[data-map] [role=option]").nth(4).click();
  await page.keyboard.press("h");
  await kept(page);
  await page.keyboard.press("h");
  await kept(page);
  await elsewhere.setOffline(false);
  await expect(other.getByText("your change is now on top of theirs")).toBeVisible();
  await kept(other);
  await expect(page.locator("[data-map] [role=option]").nth(4)).toHaveAccessibleName(/hidden/);
  await elsewhere.close();
});

test("acts by name: a place said in words, keys of one's own, a search on the Desk, a copy, a deletion taken back", async ({
  page,
}) => {
  await page.goto("/");
  await page.getByRole("searchbox").fill("Tides, dunes and storms");
  await page.getByRole("button", { name: "Copy Tides, dunes and storms", exact: true }).click();
  await expect(page.getByRole("link", { name: "Tides, dunes and storms 2" })).toHaveCount(1);
  await page.getByRole("searchbox").fill("*storms 2");
  await expect(page.getByRole("row")).toHaveCount(2);
  await page.getByRole("button", { name: "Put Tides, dunes and storms 2 into the bin" }).click();
  await expect(page.getByText("No deck has a name like")).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await page.getByRole("link", { name: "Tides, dunes and storms 2" }).click();

  await page.waitForURL(/\/write$/);
  await place(page, "Arrange").click();
  await expect(page.locator("[data-map] [role=option]").first()).toBeVisible();
  const order = async () => (await stored(page)).deck.slides.map(({ id }) => id);
  await page.locator("[data-map] [role=option]").nth(1).click();
  const before = await order();
  await page.keyboard.press("m");
  await page.keyboard.type("12");
  await expect(page.getByText("Lands after 12.")).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByText("Moved slide 2 after 12")).toBeVisible();
  await kept(page);
  expect((await order()).indexOf(must(before[1]))).toBe(11);

  await page.getByRole("button", { name: "Keys", exact: true }).click();
  await page.getByRole("button", { name: /^Hide or show the selected slides: H/ }).click();
  await page.keyboard.press("x");
  await page.getByRole("button", { name: "Close" }).click();
  await page.locator('[role="option"][aria-selected="true"]').focus();
  await page.keyboard.press("x");
  await expect(page.locator('[role="option"][aria-selected="true"]')).toHaveAccessibleName(/hidden/);
  await page.keyboard.press("h");
  await expect(page.locator('[role="option"][aria-selected="true"]')).toHaveAccessibleName(/hidden/);
  await page.keyboard.press("d");
  await kept(page);
  expect((await order()).length).toBe(before.length + 1);
  await page.keyboard.press("Delete");
  await page.keyboard.press("Control+z");
  await kept(page);
  expect((await order()).length).toBe(before.length + 1);
});

test("errors in the text are shown at their line, and the rest is taken", async ({ page }) => {
  const made = await page.request.post("/api/decks", {
    data: {
      title: "",
      text: "## One\n\n::slide{wide=1}\n\n## Two\n\n[there](nowhere at all)\n\n[here](folder/file)\n",
    },
  });
  await page.goto(`/decks/${(await made.json()).id}/write`);
  const notes = page.getByRole("region", { name: "Notes on the text" });
  await expect(notes.getByRole("button", { name: "Line 3" })).toBeVisible();
  await expect(notes.getByRole("button", { name: "Line 9" })).toBeVisible();
  await expect(page.locator(".cm-noted")).toHaveCount(2);
  await notes.getByRole("button", { name: "Line 9" }).click();
  await expect(page.getByRole("textbox", { name: "Text of the deck" })).toBeFocused();
  await page.keyboard.press("Control+End");
  await page.keyboard.type(
    `\n## Three\n\n${"- a line that is one of far too many for a slide that people read from the back of the hall\n".repeat(3)}`,
  );
  for (let nth = 0; nth < 3; nth++)
    await page.keyboard.insertText(
      "- and more lines that will never fit on the slide, however small the letters may become on it\n".repeat(6),
    );
  // Who types a deck divides its slides: overflow is marked, in the text and on the slide.
  await expect(page.getByText(/pt too much/)).toBeVisible();
  await expect(page.locator(".cm-over")).toHaveCount(1);
  await expect(page.getByText("1 too full")).toBeVisible();
});
