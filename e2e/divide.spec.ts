import { must } from "@unitext/core/model";
import { expect, type Page, test } from "@playwright/test";
import { accessible } from "./accessible";
import { drag, kept, stored, titles } from "./acts";

interface Full {
  id: string;
  original?: { version: number };
  themes?: Record<string, unknown>;
  slides: {
    id: string;
    parent: string | null;
    theme?: string;
    origin?: { deck: string; slide: string };
    notes: unknown[];
    elements: unknown[];
  }[];
}

const deckOf = async (page: Page, id: string): Promise<Full> =>
  (await (await page.request.get(`/api/decks/${id}`)).json()).deck;
const idIn = (page: Page) => must(/\/decks\/([^/]+)/.exec(page.url())?.[1]);
const option = (page: Page, number: number) => page.getByRole("option", { name: new RegExp(`^${number}\\. `) });

/** A deck of one's own, so that tests do not meet. */
async function deck(page: Page, name: string, text: string, view = "arrange"): Promise<string> {
  const { id } = await (
    await page.request.post(`/api/files?name=${name}.md`, {
      headers: { "content-type": "application/octet-stream" },
      data: Buffer.from(text),
    })
  ).json();
  await page.goto(`/decks/${id}/${view}`);
  return id;
}

const course = (title: string, theme = "saltmarsh") =>
  `---\ntitle: ${title}\ntheme: ${theme}\n---\n\n# ${title}\n\n---\n\n# Water\n\n---\n\n## Tides\n\n- twice a day, see [dunes](#dunes)\n\n:::notes\n${"word ".repeat(120)}\n:::\n\n---\n\n## Levels\n\n- at the quay\n\n:::notes\n${"word ".repeat(120)}\n:::\n\n---\n\n# Sand\n\n---\n\n::slide{#dunes}\n\n## Dunes\n\n- they move\n\n:::notes\n${"word ".repeat(120)}\n:::\n\n---\n\n## Marram\n\n- it holds, see [the last word](#last)\n\n:::notes\n${"word ".repeat(120)}\n:::\n\n---\n\n::slide{#last}\n\n## Thanks\n`;

test("slide 3 goes before 2, by mouse, by keys and on the spine; a frame, words and marks select; each is taken back", async ({
  page,
}) => {
  await deck(page, "order", course("Order"));
  await expect(option(page, 3)).toBeVisible();
  const order = ["Order", "Water", "Tides", "Levels", "Sand", "Dunes", "Marram", "Thanks"];
  const swapped = ["Order", "Tides", "Water", "Levels", "Sand", "Dunes", "Marram", "Thanks"];
  await option(page, 3).click();
  await page.keyboard.press("Alt+ArrowUp");
  await expect.poll(() => titles(page)).toEqual(swapped);
  await page.keyboard.press("Control+z");
  await expect.poll(() => titles(page)).toEqual(order);

  const from = await option(page, 3).boundingBox();
  const to = await option(page, 2).boundingBox();
  if (!from || !to) throw new Error("not drawn");
  await page.mouse.move(from.x + 40, from.y + 40);
  await page.mouse.down();
  await page.mouse.move(to.x + 40, to.y + 30, { steps: 8 });
  await page.mouse.move(to.x + 40, to.y + 8, { steps: 4 });
  await expect(page.locator("[data-landing]")).toBeVisible();
  await expect(page.getByText("Lands before 2").first()).toBeVisible();
  await page.mouse.up();
  await expect.poll(() => titles(page)).toEqual(swapped);
  await page.keyboard.press("Control+z");
  await expect.poll(() => titles(page)).toEqual(order);

  await drag(page, page.locator("[data-spine]").nth(2), page.locator("[data-spine]").nth(1), { x: 3, y: 10 });
  await expect.poll(() => titles(page)).toEqual(swapped);
  await page.keyboard.press("Control+z");
  await expect.poll(() => titles(page)).toEqual(order);

  const map = await page.locator("[data-map]").boundingBox();
  const four = await option(page, 4).boundingBox();
  if (!map || !four) throw new Error("not drawn");
  await page.mouse.move(four.x - 8, four.y + four.height - 4);
  await page.mouse.down();
  await page.mouse.move(four.x + four.width / 2, from.y + from.height / 2, { steps: 6 });
  await expect(page.locator("[data-band]")).toBeVisible();
  await page.mouse.up();
  await expect(page.locator('[role="option"][aria-selected="true"]')).not.toHaveCount(0);

  await page.getByPlaceholder("Select by words").fill("move");
  await expect(page.getByText("1 found")).toBeVisible();
  await expect(option(page, 6)).toHaveAttribute("aria-selected", "true");
  await page.getByPlaceholder("Select by words").fill("");
  await page.getByLabel("Select the slides that are").selectOption("no notes");
  await expect(page.getByText("4 found")).toBeVisible();
  await accessible(page, "map");
});

test("a course is split by hand, by dragging, by minutes and by numbers; parts share opening and thanks, and everything is accounted for", async ({
  page,
}) => {
  const id = await deck(page, "split", course("Split course"), "arrange/split");
  const before = await deckOf(page, id);
  await page.getByLabel("Opening slides").fill("1");
  await page.getByLabel("Closing slides").fill("8");
  await page.getByLabel("Slides of part 1", { exact: true }).fill("2-3");
  await expect(page.locator('[data-cell="0/2"]')).toHaveAttribute("aria-checked", "true");
  await page.locator('[data-cell="1/5"]').click();
  await page.locator('[data-cell="1/6"]').focus();
  await page.keyboard.press("Space");
  await expect(page.getByLabel("Slides of part 2", { exact: true })).toHaveValue("5-6");
  await expect(page.getByText("In no part: 4, 7.")).toBeVisible();
  const run = await page.locator('[data-cell="0/4"]').boundingBox();
  if (!run) throw new Error("not drawn");
  await page.mouse.move(run.x + 20, run.y + 20);
  await page.mouse.down();
  await page.mouse.move(run.x + 20, run.y + 110, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByLabel("Slides of part 1", { exact: true })).toHaveValue("2-5");
  await page.getByLabel("Slides of part 2", { exact: true }).fill("5-99");
  await expect(page.getByText("names slide 99, but the last is 8")).toBeVisible();

  await page.getByLabel("Minutes per part").fill("3");
  await page.getByRole("button", { name: "By minutes" }).click();
  await expect(page.getByLabel("Slides of part 1", { exact: true })).toHaveValue("2-4");
  await expect(page.getByLabel("Slides of part 2", { exact: true })).toHaveValue("5-7");
  await expect(page.getByLabel("Name of part 1", { exact: true })).toHaveValue("Water");
  await page.getByLabel("Name of part 2", { exact: true }).fill("Day two");
  await accessible(page, "split");
  await page.getByRole("button", { name: "Make 2 decks" }).click();
  const outcome = page.locator("[data-outcome]");
  await expect(outcome.getByRole("link", { name: "Split course – Water" })).toBeVisible();
  await expect(outcome).toContainText("8 slides, notes on 4 and 2 links: all are there (2 slides more than once).");
  await outcome.getByRole("link", { name: "Split course – Day two" }).click();
  await expect.poll(() => titles(page)).toEqual(["Split course", "Sand", "Dunes", "Marram", "Thanks"]);
  const after = await deckOf(page, id);
  expect(after).toEqual(before);
});

test("thirty decks are found by their names, merged into one, and none is touched", async ({ page }) => {
  await page.goto("/");
  await page.getByPlaceholder("Find by name").fill("TB2-*-*");
  await expect(page.getByRole("table")).toHaveAttribute("aria-rowcount", "31");
  await page.getByRole("link", { name: "Gather decks" }).click();
  await page.getByRole("button", { name: "Part 2" }).click();
  await page.getByRole("button", { name: "Add all 30" }).click();
  await expect(page.locator("[data-listed]")).toHaveCount(30);
  await page.locator("[data-listed]").nth(2).getByRole("button", { name: /up$/ }).click();
  await expect(page.locator("[data-listed]").nth(1)).toContainText("TB2-03-Curlew");
  const handle = (nth: number) =>
    page
      .locator("[data-listed]")
      .nth(nth)
      .getByRole("button", { name: /^Move [^ ]+$/ });
  await drag(page, handle(1), handle(0), { x: 8, y: 2 });
  await expect(page.locator("[data-listed]").nth(0)).toContainText("TB2-03-Curlew");
  await drag(page, handle(0), handle(1), { x: 8, y: 20 });
  await expect(page.locator("[data-listed]").nth(1)).toContainText("TB2-03-Curlew");
  await page.getByLabel("a section for each deck").check();
  await page.getByLabel("a contents slide with links").check();
  await page.getByText("more than once; 0 dropped").click();
  await page.getByRole("button", { name: "Drop all but the first of each" }).click();
  await page.getByLabel("each keeps its own theme").check();
  await accessible(page, "gather");
  await page.getByRole("textbox", { name: "Name" }).fill("Field week of all groups");
  const before = await deckOf(page, "tb2-03-curlew");
  await page.getByRole("button", { name: /^Merge 30 decks/ }).click();
  const outcome = page.locator("[data-outcome]");
  await expect(outcome.getByRole("link", { name: "Field week of all groups" })).toBeVisible({ timeout: 20_000 });
  await expect(outcome).toContainText("each is accounted for");
  await outcome.getByRole("link", { name: "Field week of all groups" }).click();
  await expect(option(page, 1)).toBeVisible();
  const merged = await deckOf(page, idIn(page));
  expect(merged.slides.filter(({ origin }) => origin).length).toBeGreaterThan(60);
  expect(Object.keys(merged.themes ?? {}).sort()).toEqual([
    "Chalk",
    "Contour",
    "Foreshore",
    "Log book",
    "Regatta",
    "Tide pool",
  ]);
  expect(merged.slides.some(({ theme }) => theme === "Chalk")).toBe(true);
  expect(await deckOf(page, "tb2-03-curlew")).toEqual(before);
});

test("slides are pasted between decks after both looks were seen, and slides of another deck brought in and taken back", async ({
  page,
}) => {
  const from = await deck(page, "from", course("From", "chalk"));
  await expect(option(page, 3)).toBeVisible();
  await option(page, 3).click();
  await option(page, 4).click({ modifiers: ["Shift"] });
  await page.keyboard.press("Control+c");
  await expect(page.getByText("Copied 2 slides")).toBeVisible();
  const to = await deck(page, "to", course("To"));
  await option(page, 2).click();
  await page.keyboard.press("Control+v");
  const dialog = page.getByRole("dialog", { name: "Paste 2 slides from “From”" });
  await expect(dialog).toContainText("They land after 2");
  await expect(dialog.locator("[data-slide]")).toHaveCount(2);
  await dialog.getByRole("radio", { name: "Their own theme" }).check();
  await dialog.getByRole("button", { name: "Paste" }).click();
  await kept(page);
  const pasted = await deckOf(page, to);
  expect(pasted.slides.slice(2, 4).map(({ theme, origin }) => [theme, origin?.deck])).toEqual([
    ["Chalk", from],
    ["Chalk", from],
  ]);
  await page.getByRole("button", { name: "More", exact: true }).click();
  await page.getByRole("menuitem", { name: "Paste" }).click();
  await expect(page.getByRole("dialog").getByRole("radio", { name: "Their own theme" })).toBeChecked();
  await page.getByRole("dialog").getByRole("radio", { name: "The theme of this deck" }).check();
  await page.getByRole("dialog").getByRole("button", { name: "Paste" }).click();
  await kept(page);
  expect((await deckOf(page, to)).slides).toHaveLength(12);

  await page.getByRole("navigation", { name: "Views of Arrange" }).getByRole("link", { name: "Bring in" }).click();
  await page.getByRole("searchbox", { name: "Pattern of the names" }).fill("TB2-*-*");
  await page.getByRole("button", { name: "Add TB2-03-Curlew" }).click();
  await page.getByRole("button", { name: "Add TB2-04-Dunlin" }).click();
  await expect(page.getByText("2 decks, 9 slides, in this order")).toBeVisible();
  await page.getByRole("button", { name: "Remove TB2-04-Dunlin from the list" }).click();
  await page.getByLabel("Slides of TB2-03-Curlew").fill("2-3");
  await page.getByLabel("After slide", { exact: true }).fill("12");
  await expect(page.getByText("They land after 12, at the end.")).toBeVisible();
  await accessible(page, "bring in");
  await page.getByRole("button", { name: "Bring in 2 slides" }).click();
  await expect(page.locator("[data-balance]")).toContainText("each is accounted for");
  await kept(page);
  expect((await deckOf(page, to)).slides).toHaveLength(14);
  await page.getByRole("button", { name: "Undo" }).first().click();
  await kept(page);
  expect((await deckOf(page, to)).slides).toHaveLength(12);
  // In another session it can be done again, and what was pasted before taken back.
  await page.reload();
  await page.getByRole("button", { name: "Redo" }).click();
  await expect.poll(async () => (await deckOf(page, to)).slides.length).toBe(14);
  for (let nth = 0; nth < 3; nth++) await page.getByRole("button", { name: "Undo" }).first().click();
  await expect.poll(async () => (await deckOf(page, to)).slides.length).toBe(8);
});

test("a version follows its original: what is new is taken slide by slide, what was changed stays, and a state is restored", async ({
  page,
}) => {
  const id = await deck(page, "report", course("Report"), "arrange/versions");
  await page.getByLabel("Name for this state").fill("As sent");
  await page.getByRole("button", { name: "Keep" }).click();
  await expect(page.getByText("This state is now called “As sent”.")).toBeVisible();
  await page.getByLabel("Name of a version for another audience").fill("Report for the board");
  await page.getByRole("button", { name: "Make", exact: true }).click();
  await expect(page.getByText("Nothing new in the original.")).toBeVisible();
  const board = idIn(page);
  const original = await deckOf(page, id);
  const version = await deckOf(page, board);
  const change = async (deckId: string, made: unknown) => {
    const { version: base } = await (await page.request.get(`/api/decks/${deckId}`)).json();
    expect(
      (
        await page.request.post(`/api/decks/${deckId}/changes`, {
          data: { base, changes: [{ id: `c${Math.random()}`.replace(".", ""), change: made }] },
        })
      ).ok(),
    ).toBe(true);
  };
  const words = (text: string) => [{ kind: "plain", level: 0, runs: [{ text }] }];
  await change(board, { kind: "setNotes", slide: version.slides[2]?.id, notes: words("for the board") });
  await change(id, { kind: "setNotes", slide: original.slides[2]?.id, notes: words("in general") });
  await change(id, { kind: "setNotes", slide: original.slides[3]?.id, notes: words("new words") });
  await change(id, { kind: "deleteSlide", slide: original.slides[6]?.id });
  await page.reload();
  await expect(page.getByText("3 slides have something new.")).toBeVisible();
  await expect(page.locator("[data-tailor] [data-state]")).toHaveCount(3);
  await page.locator('[data-state="gone"]').getByLabel("Remove").uncheck();
  await accessible(page, "versions");
  await page.getByRole("button", { name: "Accept 2 slides" }).click();
  // What is accepted is compared once more before the deck changes.
  await expect.poll(async () => (await deckOf(page, board)).slides[3]?.notes).toEqual(words("new words"));
  await kept(page);
  const taken = await deckOf(page, board);
  expect(taken.slides).toHaveLength(8);
  expect(taken.slides[2]?.notes).toEqual(words("for the board"));
  expect(taken.slides[3]?.notes).toEqual(words("new words"));

  await page.goto(`/decks/${id}/arrange/versions?view=differs`);
  await expect(page.locator("[data-differs]")).toContainText("changed here");
  await page.getByRole("button", { name: /As the deck began/ }).click();
  await expect(page.getByText("3 of 8 slides differ.")).toBeVisible();
  await page.getByRole("button", { name: "Insert this slide again" }).click();
  await expect.poll(async () => (await deckOf(page, id)).slides.length).toBe(8);
  await page.getByRole("button", { name: "Restore this state" }).click();
  await expect(page.getByText("All 8 slides are the same.")).toBeVisible();
  await kept(page);
  expect((await deckOf(page, id)).slides).toEqual(original.slides);
});

test("a link that lost its slide is mended, a menu is made with ways back, and all notes are read and moved on one page", async ({
  page,
}) => {
  const id = await deck(page, "links", course("Links"));
  await page.request.post(`/api/decks/${id}/parts`, {
    data: { plan: { parts: [{ name: "Second half", slides: "1, 6-7" }] }, date: "" },
  });
  await expect
    .poll(async () =>
      ((await (await page.request.get("/api/decks")).json()) as { decks: { title: string }[] }).decks.some(
        ({ title }) => title === "Second half",
      ),
    )
    .toBe(true);
  const part = must(
    ((await (await page.request.get("/api/decks")).json()) as { decks: { id: string; title: string }[] }).decks.find(
      ({ title }) => title === "Second half",
    )?.id,
  );
  await page.goto(`/decks/${part}/arrange`);
  await page.getByRole("button", { name: "One broken link" }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText("led to slide 8 of its origin, Thanks");
  await accessible(page, "links");
  await dialog.getByRole("button", { name: /^To slide 2, Dunes/ }).click();
  await expect(dialog).toContainText("No broken links");
  await dialog.getByRole("button", { name: "Done" }).click();
  await kept(page);

  await option(page, 2).click();
  await option(page, 3).click({ modifiers: ["Shift"] });
  await page.keyboard.press("l");
  await expect.poll(() => titles(page)).toEqual(["Links", "Topics", "Dunes", "Marram"]);
  await kept(page);
  const menu = (await stored(page)).deck.slides[1]?.id;
  expect(JSON.stringify((await deckOf(page, part)).slides.slice(2)).split(`slide:${menu}`)).toHaveLength(3);

  await page.getByRole("navigation", { name: "Views of Arrange" }).getByRole("link", { name: "Notes" }).click();
  await page.getByRole("button", { name: "Without notes" }).click();
  await expect(page.locator("[data-notes]")).toHaveCount(2);
  await page.getByRole("button", { name: "All slides" }).click();
  await page.getByRole("button", { name: "Edit the notes of slide 3" }).click();
  await page.keyboard.press("End");
  await page.keyboard.type(" and more");
  await page.getByRole("button", { name: "Done with the notes of slide 3" }).click();
  await page.getByRole("button", { name: "Text to notes, slide 4" }).click();
  await kept(page);
  const slides = (await deckOf(page, part)).slides;
  expect(JSON.stringify(slides[2]?.notes)).toContain("and more");
  expect(JSON.stringify(slides[3]?.notes)).toContain("it holds");
  await page.getByPlaceholder("Find in notes and titles").fill("it holds");
  await expect(page.locator("[data-notes]")).toHaveCount(1);
  await accessible(page, "notes");
});
