import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { Packer } from "docx";
import { strToU8 } from "fflate";
import { handbook, nextEdition } from "../demo/handbook/make.mjs";
import { CHAPTERS } from "../demo/handbook/text.mjs";
import { asNewDeck, dropOn, kept, stored } from "./acts";

const axe = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");
const root = join(import.meta.dirname, "..");
const slides = async (page: Page) =>
  (await stored(page)).deck.slides as unknown as {
    id: string;
    arrangement: string;
    elements: { kind: string; slot: string; text: { runs: { text: string }[] }[] }[];
    notes: { runs: { text: string }[] }[];
  }[];
const words = async (page: Page) => JSON.stringify((await stored(page)).deck);

/** Drops a document on the Desk and waits until its last slide is there. */
async function bring(page: Page, name: string, bytes: Uint8Array): Promise<void> {
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Desk" })).toBeVisible();
  await dropOn(page, "main", name, bytes);
  await asNewDeck(page);
  await page.waitForURL(/\/write$/);
  await expect(page.locator("[data-level] [data-slide]").first()).toBeVisible();
  await expect(page.locator("[data-reading]")).toHaveCount(0);
  await expect(page.locator(".cm-content")).toHaveAttribute("contenteditable", "true");
}

const SOURCES: [string, () => Uint8Array | Promise<Uint8Array>, string[]][] = [
  [
    "field-handbook.docx",
    () => readFileSync(join(root, "demo/content/field-handbook.docx")),
    ["opening", "section", "points", "table", "picture", "references"],
  ],
  ["class-list.txt", () => readFileSync(join(root, "demo/content/class-list.txt")), ["card"]],
  [
    "page.html",
    () =>
      strToU8(
        "<html lang='en'><body><h1>Shore</h1><h2>Levels</h2><table><tr><th>Gauge</th><th>m</th></tr><tr><td>North</td><td>2.4</td></tr></table><h2>Tides</h2><ul><li>twice a day</li></ul></body></html>",
      ),
    ["opening", "table", "message"],
  ],
  ["levels.csv", () => strToU8("Gauge,High,Low\nNorth,2.4,0.1\nSouth,2.1,0.3\n"), ["table"]],
  [
    "course.opml",
    () =>
      strToU8(
        '<opml version="2.0"><head><title>Course</title></head><body><outline text="Water"><outline text="Gauges"/></outline><outline text="Sand"><outline text="Dunes"/></outline></body></opml>',
      ),
    ["opening", "points"],
  ],
  [
    "outline.txt",
    () =>
      strToU8(
        "6 Water\n6.1 Gauges\nThe gauge at the quay is read every ten minutes through the whole of the winter by the keeper.\n6.2 Tides\n- twice a day\n",
      ),
    ["opening", "message"],
  ],
];

test.describe("every kind of source becomes a deck where it is dropped", () => {
  for (const [name, make, arrangements] of SOURCES) {
    test(name, async ({ page }) => {
      await bring(page, name, await make());
      const made = await slides(page);
      for (const arrangement of arrangements) expect(made.map((slide) => slide.arrangement)).toContain(arrangement);
      // Seen in Write, it needs no word on the Desk; its deck is there.
      const id = /\/decks\/([^/]+)/.exec(page.url())?.[1];
      await page.goto("/");
      await expect(page.locator(`a[href^="/decks/${id}/"]`).first()).toBeVisible();
      await expect(page.locator("[data-job='done']", { hasText: name })).toHaveCount(0);
    });
  }
});

test("a document that was left while it was read is on the Desk, with a word on it until it is seen", async ({
  page,
}) => {
  await page.request.post("/api/files?name=left.docx", {
    headers: { "content-type": "application/octet-stream" },
    data: readFileSync(join(root, "demo/content/field-handbook.docx")),
  });
  await page.goto("/");
  const line = page.locator("[data-job='done']", { hasText: "left.docx" });
  await expect(line).toBeVisible();
  await line.getByRole("link", { name: "Open it" }).click();
  await page.waitForURL(/\/arrange$/);
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Desk" })).toBeVisible();
  await expect(line).toHaveCount(0);
});

test("the rule is changed and the effect is seen at once; undo brings slides and rule back", async ({ page }) => {
  await bring(
    page,
    "report.txt",
    strToU8(
      "Gauges\n\nThe gauge at the quay is read every ten minutes by the keeper of the station, and its clock is set once a week.\n\nThe gauge at the bar was never read in winter, because nobody could reach it without a boat.\n\nDunes\n\nThe foredune moved twelve metres inland in one winter, and it has not come back since then.\n",
    ),
  );
  const count = async () => (await slides(page)).length;
  const before = await count();
  await page.getByLabel("Slide breaks").selectOption("paragraph");
  await expect
    .poll(async () => (await stored(page)).deck)
    .toMatchObject({ manuscript: { rule: { cuts: [{ kind: "paragraph" }] } } });
  await kept(page);
  expect(await count()).toBe(3);
  await page.getByRole("combobox", { name: /^Text/ }).selectOption("notes");
  await expect
    .poll(async () => (await slides(page)).every(({ elements }) => elements.every(({ slot }) => slot === "title")))
    .toBe(true);
  expect((await slides(page)).every(({ notes }) => notes.length === 1)).toBe(true);
  await page.getByRole("button", { name: "Undo" }).first().click();
  await page.getByRole("button", { name: "Undo" }).first().click();
  await kept(page);
  expect(await count()).toBe(before);
  await expect(page.getByLabel("Slide breaks")).toHaveValue("heading");
});

test("points are chosen and written before they are taken, and stay through typing", async ({ page }) => {
  await bring(page, "field-handbook.docx", readFileSync(join(root, "demo/content/field-handbook.docx")));
  await page.getByRole("button", { name: "Points" }).click();
  const dialog = page.getByRole("dialog", { name: "Points from the text" });
  await expect(dialog).toBeVisible();
  const sentence = "Read the chapter on safety before your first day out.";
  await dialog.getByLabel(`A point from: ${sentence}`).check();
  await dialog.getByLabel(`The point from: ${sentence}`).fill("Safety first: read that chapter");
  await dialog.getByRole("button", { name: "Accept the points" }).click();
  await expect.poll(() => words(page)).toContain("Safety first: read that chapter");
  expect(await words(page)).toContain("Read the chapter on safety before your first day out.");
  await page.locator(".cm-line", { hasText: "Changes are entered at once" }).click();
  await page.keyboard.press("End");
  await page.keyboard.type(" Nobody forgets it.");
  await expect.poll(() => words(page)).toContain("Nobody forgets it.");
  await kept(page);
  expect(await words(page)).toContain("Safety first: read that chapter");
});

test("a newer version of the document is compared, a conflict settled, and what was done by hand kept", async ({
  page,
}) => {
  await bring(page, "field-handbook.docx", readFileSync(join(root, "demo/content/field-handbook.docx")));
  const before = await slides(page);
  const titled = (list: Awaited<ReturnType<typeof slides>>, title: string) =>
    list.find(({ elements }) =>
      elements.some(
        ({ slot, text }) =>
          slot === "title" &&
          text
            .map(({ runs }) => runs.map((run) => run.text).join(""))
            .join("")
            .startsWith(title),
      ),
    );
  const [balance, storms] = [titled(before, "The balance"), titled(before, "Storms")];
  const id = /\/decks\/([^/]+)/.exec(page.url())?.[1];
  for (const [slide, note] of [
    [balance, "Draw the two profiles first."],
    [storms, "Show the refuge on the map."],
  ] as const) {
    await page.goto(`/decks/${id}/refine/${slide?.id}`);
    await page.getByRole("textbox", { name: "Notes" }).click();
    await page.keyboard.press("Control+a");
    await page.keyboard.type(note);
    await page.keyboard.press("Escape");
    await kept(page);
  }
  await page.goto(`/decks/${id}/write`);
  await expect(page.locator(".cm-content")).toHaveAttribute("contenteditable", "true");
  await dropOn(page, ".cm-content", "field-handbook.docx", await Packer.toBuffer(handbook(nextEdition(CHAPTERS))));
  const review = page.locator("[data-review]");
  await expect(review).toBeVisible();
  await expect(review.getByRole("button", { name: "New 1" })).toBeVisible();
  await review.getByRole("button", { name: "Conflict 1" }).click();
  await expect(review.getByText("Draw the two profiles first.")).toBeVisible();
  expect(await words(page)).not.toContain("eighteen");
  await page.evaluate(axe);
  const found = await page.evaluate(async () => {
    const { axe: run } = window as unknown as {
      axe: {
        run(root: Document, options: object): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }>;
      };
    };
    const { violations } = await run.run(document, {
      runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"],
    });
    return violations.map(({ id: rule, nodes }) => `${rule}: ${nodes[0]?.html.slice(0, 160)}`);
  });
  expect(found).toEqual([]);
  await review.getByRole("radio", { name: /As the text has it now/ }).check();
  await review.getByRole("button", { name: /^Accept \d/ }).click();
  await expect.poll(() => words(page)).toContain("eighteen");
  await kept(page);
  const after = await slides(page);
  expect(JSON.stringify(titled(after, "Fog"))).toContain("compass");
  expect(titled(after, "Storms")?.id).toBe(storms?.id);
  expect(JSON.stringify(titled(after, "Storms")?.notes)).toContain("Show the refuge on the map.");
  await expect(page.locator("[data-level]").getByText("changed by hand")).toHaveCount(0);
  await page
    .getByRole("toolbar", { name: /^Spine/ })
    .getByRole("button", { name: /Storms/ })
    .click();
  await page.locator("[data-level]").getByRole("button", { name: "changed by hand" }).click();
  const hand = page.getByRole("dialog", { name: /was edited by hand/ });
  await hand.getByRole("button", { name: "Use what the text says" }).click();
  await expect
    .poll(async () => JSON.stringify(titled(await slides(page), "Storms")?.notes))
    .not.toContain("refuge on the map");
});

test("the beginning of a slide is dragged in the margin, and set and taken away by keys", async ({ page }) => {
  const made = await page.request.post("/api/decks", {
    data: { title: "", text: "## One\n\n- a\n\n- b\n\n- c\n\n## Two\n\n- d\n" },
  });
  await page.goto(`/decks/${(await made.json()).id}/write`);
  await expect(page.locator(".cm-break-mark")).toHaveCount(2);
  await expect(page.locator(".cm-content")).toHaveAttribute("contenteditable", "true");
  const mark = await page.locator(".cm-break-mark").nth(1).boundingBox();
  const line = await page.locator(".cm-line", { hasText: "- c" }).boundingBox();
  if (!mark || !line) throw new Error("nothing to drag");
  await page.mouse.move(mark.x + 20, mark.y + 8);
  await page.mouse.down();
  await page.mouse.move(mark.x + 20, mark.y - 30, { steps: 5 });
  await page.mouse.move(mark.x + 20, line.y + 6, { steps: 8 });
  await expect(page.getByText(/The slide starts at line 7/)).toBeVisible();
  await page.mouse.up();
  await expect
    .poll(async () =>
      (await slides(page)).map(({ elements }) => elements.flatMap(({ text }) => text.map(({ runs }) => runs[0]?.text))),
    )
    .toEqual([
      ["One", "a", "b"],
      ["c", "Two", "d"],
    ]);
  await page.locator(".cm-line", { hasText: "- b" }).click();
  await page.keyboard.press("Control+Enter");
  await expect.poll(async () => (await slides(page)).length).toBe(3);
  await page.keyboard.press("Control+Shift+Enter");
  await expect.poll(async () => (await slides(page)).length).toBe(2);
});

test("a document can be changed only once all its slides are on the page, not when its job has ended", async ({
  page,
}) => {
  // What the server has since then is told late, as on a slow line.
  let told = () => {};
  const late = new Promise<void>((resolve) => {
    told = resolve;
  });
  await page.route(/\/changes\?since=/, async (route) => {
    await late;
    await route.continue();
  });
  // The page opens the deck as it was when its job had only begun, however fast the job is.
  let early: string | undefined;
  await page.route(/\/api\/files\?/, async (route) => {
    const response = await route.fetch();
    early = await (await page.request.get(`/api/decks/${(await response.json()).id}`)).text();
    await route.fulfill({ response });
  });
  await page.route(/\/api\/decks\/[^/?]+$/, async (route) => {
    const body = early;
    early = undefined;
    await (body ? route.fulfill({ contentType: "application/json", body }) : route.continue());
  });
  const long = Array.from({ length: 8 }, () => CHAPTERS).flat();
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Desk" })).toBeVisible();
  await dropOn(page, "main", "long-handbook.docx", await Packer.toBuffer(handbook(long)));
  await page.waitForURL(/\/write$/);
  await expect
    .poll(
      async () =>
        ((await (await page.request.get("/api/jobs")).json()) as { jobs: { name: string; state: string }[] }).jobs.find(
          ({ name }) => name === "long-handbook.docx",
        )?.state,
      { timeout: 30_000 },
    )
    .toBe("done");
  expect(early).toBeUndefined();
  const all = (await slides(page)).length;
  const counted = async () => Number(await page.locator("strong").first().textContent());
  expect(await counted()).toBeLessThan(all);
  await expect(page.locator("[data-reading]")).toBeVisible();
  await expect(page.locator("[data-reading]").getByRole("button", { name: "Cancel" })).toHaveCount(0);
  told();
  await expect(page.locator("[data-reading]")).toHaveCount(0);
  expect(await counted()).toBe(all);
  await expect(page.locator(".cm-content")).toHaveAttribute("contenteditable", "true");
});

test("words are found and replaced over text, slides and notes", async ({ page }) => {
  await bring(page, "field-handbook.docx", readFileSync(join(root, "demo/content/field-handbook.docx")));
  await page.getByRole("button", { name: "Find" }).click();
  await page.getByRole("textbox", { name: "Find", exact: true }).fill("keeper");
  await expect(page.getByText(/in the text, \d+ on \d+ slides/)).toBeVisible();
  await page.getByRole("textbox", { name: "Replace with" }).fill("warden");
  await page.getByRole("button", { name: "Replace all" }).click();
  await expect.poll(() => words(page)).not.toMatch(/\bkeeper\b/);
  await expect(page.locator(".cm-content")).not.toContainText("keeper");
  expect(await words(page)).toContain("warden");
});

test("a skeleton is put on many slides at once and taken off where nothing was filled in", async ({ page }) => {
  const made = await page.request.post("/api/decks", {
    data: { title: "", text: "## Surge\n\n---\n\n## Set-up\n\n---\n\n## Run-up\n" },
  });
  await page.goto(`/decks/${(await made.json()).id}/arrange`);
  await page.locator("[data-map] [role=option]").first().click();
  await page
    .locator("[data-map] [role=option]")
    .nth(2)
    .click({ modifiers: ["Shift"] });
  await page.keyboard.press("s");
  const dialog = page.getByRole("dialog", { name: /Skeleton/ });
  await dialog.getByRole("button", { name: "Add", exact: true }).click();
  await kept(page);
  for (const slide of await slides(page)) expect(JSON.stringify(slide)).toContain("In our data");
  await page.keyboard.press("s");
  await page
    .getByRole("dialog", { name: /Skeleton/ })
    .getByRole("button", { name: "Remove empty parts" })
    .click();
  await kept(page);
  for (const slide of await slides(page)) expect(JSON.stringify(slide)).not.toContain("In our data");
});

test("what a page puts on the clipboard comes along as headings, lists and tables", async ({ page }) => {
  const made = await page.request.post("/api/decks", { data: { title: "", text: "## First\n\n- a\n" } });
  await page.goto(`/decks/${(await made.json()).id}/write`);
  await expect(page.locator(".cm-content")).toHaveAttribute("contenteditable", "true");
  await page.locator(".cm-content").click();
  await page.keyboard.press("Control+End");
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData(
      "text/html",
      "<h2>From the web</h2><ul><li>one<ul><li>two</li></ul></li></ul><table><tr><th>a</th></tr><tr><td>1</td></tr></table>",
    );
    data.setData("text/plain", "From the web");
    document
      .querySelector(".cm-content")
      ?.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await expect
    .poll(async () => (await slides(page)).map(({ elements }) => elements.map(({ kind }) => kind)))
    .toEqual([
      ["text", "text"],
      ["text", "text", "table"],
    ]);
});

test("a long document is cancelled half way and keeps what is there", async ({ page }) => {
  const section = Array.from(
    { length: 6 },
    (_, nth) =>
      `The gauge at post ${nth} was read every ten minutes through the whole of the winter, and the mean of all its readings was entered in the book by the keeper of the station.`,
  ).join("\n\n");
  const long = Array.from(
    { length: 1500 },
    (_, nth) => `## Section ${nth}\n\n${section.replace(/post/g, `post ${nth}`)}`,
  ).join("\n\n");
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Desk" })).toBeVisible();
  await dropOn(page, "main", "long.md", strToU8(long));
  await page.waitForURL(/\/write$/);
  await expect(page.locator("[data-reading]")).toBeVisible();
  await expect(page.locator("[data-level] [data-slide]").first()).toBeVisible();
  await page.locator("[data-reading]").getByRole("button", { name: "Cancel" }).click();
  await expect(page.locator("[data-reading]")).toHaveCount(0);
  const count = (await slides(page)).length;
  expect(count).toBeGreaterThan(0);
  expect(count).toBeLessThan(3000);
  const jobs = async () =>
    (await (await page.request.get("/api/jobs")).json()).jobs as { name: string; state: string }[];
  await expect.poll(async () => (await jobs()).find(({ name }) => name === "long.md")?.state).toBe("cancelled");
  expect((await slides(page)).length).toBe(count);
  await page.goto("/");
  await expect(page.locator("[data-job='cancelled']").first()).toContainText("what was made is kept");
});
