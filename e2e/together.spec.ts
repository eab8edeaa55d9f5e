import { type Browser, expect, type Page, test } from "@playwright/test";
import { accessible } from "./accessible";
import { newFromText, OUTLINE } from "./acts";

/** A browser of somebody else, which shares nothing with the first. */
async function somebodyElse(browser: Browser): Promise<Page> {
  return (await browser.newContext()).newPage();
}

test("three browsers: an owner shares by link, a guest comments, and a reader loses the deck when it is taken back", async ({
  page,
  browser,
}) => {
  await newFromText(page, OUTLINE);
  await page.getByRole("button", { name: "Share", exact: true }).click();
  const dialog = page.getByRole("dialog", { name: /^Share/ });
  const makeLink = async (right: string): Promise<string> => {
    await dialog.getByRole("button", { name: "New link …" }).click();
    await dialog.getByLabel("Whoever has the link").selectOption({ label: right });
    await dialog.getByRole("button", { name: "Make the link" }).click();
    const card = dialog.locator("[data-link]", { hasText: right }).first();
    return card.getByLabel("Address of the link").inputValue();
  };
  const reading = await makeLink("may view");
  const commenting = await makeLink("may comment");
  await dialog.getByRole("button", { name: "Done" }).click();

  const reader = await somebodyElse(browser);
  await reader.goto(reading);
  await expect(reader.locator("[data-viewed-slide] img")).toBeVisible();
  await expect(reader.getByRole("button", { name: "Comments" })).toHaveCount(0);
  const at = reader.getByText(/^1 of \d+$/);
  await expect(at).toBeVisible();
  await reader.keyboard.press("ArrowRight");
  await expect(reader.getByText(/^2 of \d+$/)).toBeVisible();
  await accessible(reader, "the viewer's page");

  const guest = await somebodyElse(browser);
  await guest.goto(commenting);
  await guest.getByLabel(/^Your name/).fill("Tide pool guest");
  await guest.getByRole("button", { name: "Open" }).click();
  await expect(guest.locator("[data-viewed-slide]")).toBeVisible();
  await guest.getByRole("button", { name: "Comments" }).click();
  await guest.getByRole("button", { name: "Comment", exact: true }).click();
  await guest.getByLabel("Your comment").fill("Where is this shore?");
  await guest.getByRole("button", { name: "Comment", exact: true }).click();
  await expect(guest.getByText("Where is this shore?")).toBeVisible();

  // The owner sees it arrive, and answers.
  await page.getByRole("button", { name: "Comments 1" }).click();
  const all = page.getByRole("dialog", { name: "Comments" });
  await expect(all.getByText("Tide pool guest")).toBeVisible();
  await all.getByRole("button", { name: "Reply" }).click();
  await page.keyboard.type("North of the harbour.");
  await page.keyboard.press("Control+Enter");
  await expect(guest.getByText("North of the harbour.")).toBeVisible();
  await all.getByRole("button", { name: "Done" }).last().click();

  // Taken back, the link leads nowhere, and the open page is closed at once; the other one goes on.
  await page.getByRole("button", { name: "Share", exact: true }).click();
  await dialog.locator("[data-link]", { hasText: "may view" }).getByRole("button", { name: "Take back" }).click();
  await expect(reader.getByText("This deck is not shared with you any more")).toBeVisible();
  await reader.goto(reading);
  await expect(reader.getByRole("alert")).toContainText("This link leads nowhere");
  await expect(guest.locator("[data-viewed-slide]")).toBeVisible();
});

test("an invitation makes an account with a password, a second browser signs in with it, and sessions are ended", async ({
  page,
  browser,
}) => {
  await page.goto("/house");
  await page.getByRole("button", { name: "Make an invitation link" }).click();
  const link = await page.getByLabel("Link").inputValue();
  const name = `Wader ${Date.now()}`;
  const password = "sand between the toes at noon";

  const first = await somebodyElse(browser);
  await first.goto(link);
  await first.getByLabel("Name, as others will see it").fill(name);
  await first.getByLabel("Password", { exact: true }).fill("1234");
  await expect(first.getByText(/at least 12 characters/)).toBeVisible();
  await first.getByLabel("Password", { exact: true }).fill(password);
  await expect(first.getByText(/^This password is/)).toBeVisible();
  await accessible(first, "the page of an invitation");
  await first.getByRole("button", { name: "Make my account" }).click();
  await expect(first.getByRole("heading", { name: "Desk" })).toBeVisible();
  await expect(first.getByText("No decks yet.")).toBeVisible();

  const second = await somebodyElse(browser);
  await second.goto("/sign-in");
  await second.getByLabel("Name").fill(name);
  await second.getByLabel("Password", { exact: true }).fill("not the right one");
  await second.getByRole("button", { name: "Sign in" }).click();
  await expect(second.getByRole("alert")).toContainText("The name or the password is not right");
  await second.getByLabel("Password", { exact: true }).fill(password);
  await second.getByRole("button", { name: "Sign in" }).click();
  await expect(second.getByRole("heading", { name: "Desk" })).toBeVisible();

  await first.goto("/account");
  await expect(first.getByRole("heading", { name })).toBeVisible();
  await first.getByRole("button", { name: "End", exact: true }).click();
  await expect(first.getByRole("button", { name: "End", exact: true })).toHaveCount(0);
  await second.goto("/account");
  await expect(second.getByRole("heading", { name })).toHaveCount(0);

  // The owner shares a deck with the new person, who finds it on the Desk.
  await newFromText(page, OUTLINE.replace("Reading the shore", `For ${name}`));
  await page.getByRole("button", { name: "Share", exact: true }).click();
  const dialog = page.getByRole("dialog", { name: /^Share/ });
  await dialog.getByLabel("Somebody to share with").selectOption({ label: name });
  await dialog.getByRole("button", { name: "Add" }).click();
  await expect(dialog.getByLabel(`What ${name} may do`)).toHaveValue("view");
  await first.goto("/");
  await expect(first.getByText(/by Course team, you may view/)).toBeVisible();
});

test("a comment is on words, follows them when they are moved, and its proposal is taken", async ({ page }) => {
  await newFromText(page, OUTLINE);
  await page.getByRole("link", { name: "Refine" }).click();
  await page.waitForURL(/refine/);
  await expect(page.getByText(/^1 of \d+$/)).toBeVisible();
  await page.keyboard.press("PageDown");
  await expect(page.getByText(/^2 of \d+$/)).toBeVisible();
  await page.keyboard.press("c");
  const composer = page.locator("[data-composer]");
  await composer.getByRole("combobox").selectOption({ index: 1 });
  const words = composer.getByLabel(/The words of the element/);
  const said = await words.inputValue();
  const [first = ""] = said.split(/\s/);
  await words.dblclick({ position: { x: 16, y: 14 } });
  await composer.getByRole("button", { name: "Propose other words" }).click();
  await composer.getByLabel("Words in their place").fill("Something");
  await composer.getByLabel("Your comment").fill("Better so?");
  await composer.getByRole("button", { name: "Comment", exact: true }).click();
  const thread = page.locator("[data-comment]");
  await expect(thread).toContainText(`on “${first}”`);
  await expect(page.locator("[data-spine] [data-comments]")).toHaveText("1");
  await thread.getByRole("button", { name: "Take it" }).click();
  await expect(page.getByText("Took the words of Course team")).toBeVisible();
  await expect(page.locator("[data-spine] [data-comments]")).toHaveCount(0);
  await page.keyboard.press("Control+z");
  await expect(page.locator("[data-spine] [data-comments]")).toHaveText("1");
  await accessible(page, "a comment in Refine");
});

test("two people work in one deck: each sees where the other is, and both write in the same text", async ({
  page,
  browser,
}) => {
  await newFromText(page, OUTLINE);
  await page.getByRole("button", { name: "Share", exact: true }).click();
  const dialog = page.getByRole("dialog", { name: /^Share/ });
  await dialog.getByRole("button", { name: "New link …" }).click();
  await dialog.getByLabel("Whoever has the link").selectOption({ label: "may edit" });
  await dialog.getByRole("button", { name: "Make the link" }).click();
  const link = await dialog.getByLabel("Address of the link").inputValue();
  await dialog.getByRole("button", { name: "Done" }).click();
  const other = await somebodyElse(browser);
  await other.goto(link);
  await other.getByLabel(/^Your name/).fill("Sand eel");
  await other.getByRole("button", { name: "Open" }).click();
  await other.getByRole("link", { name: "Edit" }).click();
  await other.getByRole("link", { name: "Refine" }).click();
  await page.getByRole("link", { name: "Refine" }).click();

  // Each is shown to the other.
  await expect(page.locator("[data-person]")).toHaveAttribute("title", /Sand eel is on slide 1/);
  await expect(other.locator("[data-person]")).toHaveAttribute("title", /Course team/);

  // Both write in the notes of the slide at the same time; both words are in it, in both pages and on the server.
  const notes = (who: Page) => who.getByRole("textbox", { name: /notes/i });
  await notes(page).click();
  await notes(other).click();
  await page.keyboard.type("Low water at six.");
  await expect(notes(other)).toHaveText("Low water at six.");
  await notes(other).press("Control+Home");
  await other.keyboard.type("Boots on! ", { delay: 40 });
  await notes(page).press("Control+End");
  await page.keyboard.type(" Back by nine.", { delay: 40 });
  for (const who of [page, other]) await expect(notes(who)).toHaveText("Boots on! Low water at six. Back by nine.");

  await expect(notes(other).locator("[data-caret]")).toHaveAttribute("data-caret", "Course team");

  // Undo takes back one's own words alone.
  await page.getByRole("heading", { level: 1 }).click();
  await page.keyboard.press("Control+z");
  for (const who of [page, other]) await expect(notes(who)).toContainText("Boots on!");

  // While somebody speaks, the others read, if that is wished.
  await page.getByRole("link", { name: "Speak" }).click();
  await page.getByLabel("Keep the deck as it is while I speak").check();
  await expect(other.getByText("Course team speaks from this deck")).toBeVisible();
  await page.getByRole("link", { name: "Refine" }).click();
  await expect(other.getByText("Course team speaks from this deck")).toHaveCount(0);
});

test("a collection: a stranger hands in and gets a receipt, a second and a wrong one are told, and all are gathered", async ({
  page,
  browser,
}) => {
  const title = `Shore week ${Date.now()}`;
  await page.goto("/");
  await page.getByRole("button", { name: "More for the whole Desk" }).click();
  await page.getByRole("menuitem", { name: "Collect decks from others …" }).click();
  await page.getByRole("button", { name: "New collection …" }).click();
  await page.getByLabel("Title").fill(title);
  await page.getByRole("checkbox", { name: ".md" }).check();
  await page.getByLabel(/^Who is expected/).fill("Reed\nMarsh");
  await page.getByRole("button", { name: "Begin to collect" }).click();
  await expect(page.getByRole("heading", { name: "Missing: 2" })).toBeVisible();
  await accessible(page, "a collection");
  const link = await page.getByLabel("Link to hand in").inputValue();

  const student = await somebodyElse(browser);
  await student.goto(link);
  await expect(student.getByRole("heading", { name: title })).toBeVisible();
  await accessible(student, "the page to hand in");
  const handIn = async (number: string, file: string, text: string) => {
    await student.getByLabel("Class").fill("TB2");
    await student.getByLabel("Number").fill(number);
    await student.getByLabel("Surname").fill("Reed");
    await student
      .getByLabel(/^File/)
      .setInputFiles({ name: file, mimeType: "application/octet-stream", buffer: Buffer.from(text) });
    await student.getByRole("button", { name: "Hand in", exact: true }).click();
  };
  await handIn("one", "week.md", OUTLINE);
  await expect(student.getByRole("alert")).toContainText("digits alone");
  await handIn("1", "week.exe", "MZ");
  await expect(student.getByRole("alert")).toContainText("not collected here");
  await handIn("1", "week.md", OUTLINE);
  await expect(student.getByRole("heading", { name: "Handed in" })).toBeVisible();
  await expect(student.getByText("TB2-1-Reed")).toBeVisible();
  await expect(student.getByText(/4 slides/)).toBeVisible();
  await student.getByRole("button", { name: "Hand in again" }).click();
  await handIn("1", "week.md", `${OUTLINE}\n\n## Once more\n\n- and a point\n`);
  await expect(student.getByText(/number 2 of this name/)).toBeVisible();

  await page.reload();
  await expect(page.getByRole("heading", { name: "Missing: 1" })).toBeVisible();
  await expect(page.getByText("hand-in 2")).toBeVisible();
  await page.getByRole("link", { name: "Gather one deck" }).click();
  await expect(page.getByRole("button", { name: /Merge 1 deck, 5 slides/ })).toBeVisible();
});

test("a deck is published as a page that turns by itself, and is taken back while somebody looks", async ({
  page,
  browser,
}) => {
  await newFromText(page, OUTLINE);
  await page.getByRole("button", { name: "Share", exact: true }).click();
  const dialog = page.getByRole("dialog", { name: /^Share/ });
  await dialog.getByRole("button", { name: "Publish as a page …" }).click();
  await dialog.getByLabel("Play by itself").check();
  await dialog.getByLabel("Seconds a slide").fill("1");
  await dialog.getByLabel(/^Sites that may show it/).fill("no site");
  await expect(dialog.getByRole("alert")).toContainText("no address of a site");
  await dialog.getByLabel(/^Sites that may show it/).fill("https://course.example");
  await dialog.getByRole("button", { name: "Publish", exact: true }).click();
  const address = await dialog.getByLabel("Address of the page").inputValue();
  await expect(dialog.getByLabel("Code to embed the page")).toHaveValue(/^<iframe src=/);
  await accessible(page, "who sees what");

  const visitor = await somebodyElse(browser);
  await visitor.goto(address);
  await expect(visitor.locator("[data-viewed-slide] img")).toBeVisible();
  await expect(visitor.getByText(/^2 of \d+$/)).toBeVisible();
  await visitor.getByRole("button", { name: "Pause", exact: true }).click();
  await accessible(visitor, "a published page");
  expect(await visitor.context().cookies()).toEqual([]);
  await dialog.locator("[data-page]").getByRole("button", { name: "Take back" }).click();
  await expect(visitor.getByText("This page was taken back")).toBeVisible();
});

test("before a deck is handed over it is looked through, and a file is without what was taken out", async ({
  page,
}) => {
  await newFromText(page, `${OUTLINE}\n:::notes\nAsk who has been there.\n:::\n`);
  await page.getByRole("link", { name: "Deliver" }).click();
  const section = page.getByRole("region", { name: "Before you hand it over" });
  await expect(section.getByText(/slides? (has|have) no notes/)).toBeVisible();
  await expect(section.getByText("No comment is open")).toBeVisible();
  await accessible(page, "what to look at before handing over");
  await section.getByRole("button", { name: "Notes", exact: true }).click();
  await page.waitForURL(/arrange\/notes/);
  await page.getByRole("link", { name: "Deliver" }).click();
  await section.getByLabel(/^the notes/).check();
  const presentation = page.getByRole("region", { name: "Presentation (.pptx)" });
  await expect(presentation.getByRole("row", { name: "slides with notes" })).toHaveCount(0);
  await section.getByRole("button", { name: "Write all formats in one archive" }).click();
  await page.getByRole("link", { name: "Desk" }).click();
  await expect(page.getByText(/^1 deck as \d+ formats/).first()).toBeVisible();
});
