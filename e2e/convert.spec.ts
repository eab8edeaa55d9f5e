import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { strFromU8, unzipSync } from "fflate";
import { type Element, must } from "@unitext/core/model";
import { tally } from "@unitext/core/tally";
import { bring, deckOf, kept, refine, write } from "./acts";

const content = join(import.meta.dirname, "../demo/content");

const find = async (page: Page, nth: number, test_: (element: Element) => boolean) =>
  must((await deckOf(page)).slides[nth]?.elements.find(test_));

for (const { name, label, shown } of [
  { name: "quay-in-autumn.pptx", label: "Presentation (.pptx)", shown: "slide2.xml" },
  { name: "open-day.odp", label: "Presentation (.odp)", shown: "content.xml" },
]) {
  test(`${name}: dropped, looked at, edited, written and read again`, async ({ page }) => {
    test.setTimeout(120_000);
    const given = readFileSync(join(content, name));
    await bring(page, name, given);
    const before = await deckOf(page);
    expect(before.slides).toHaveLength(8);
    expect(tally(before)).toMatchObject({
      charts: 5,
      tables: 2,
      media: 1,
      formulas: 1,
      hidden: 1,
      notes: { slides: 8 },
    });

    // Nothing touched: every part is the one that was brought.
    const same = unzipSync(await write(page, label));
    const parts = unzipSync(given);
    expect(
      Object.keys(same).filter(
        (path) =>
          !/tags|meta|manifest|_rels|Content_Types|presentation\.xml/.test(path) &&
          !Buffer.from(must(same[path])).equals(Buffer.from(parts[path] ?? [])),
      ),
    ).toEqual([]);

    // A box is pulled to another place, and follows the keys.
    await refine(page, 5);
    const book = page.locator("[data-stage]").getByRole("button", { name: "shape “Book”" });
    const box = (await book.boundingBox()) as { x: number; y: number; width: number; height: number };
    await page.mouse.click(box.x + 20, box.y + 12);
    // The handles are there: what is pressed now is pulled.
    await expect(book).toHaveAttribute("aria-pressed", "true");
    await expect(page.locator("[data-stage] .moveable-control").first()).toBeVisible();
    await page.mouse.move(box.x + 40, box.y + 20);
    await page.mouse.down();
    await page.mouse.move(box.x + 70, box.y + 63, { steps: 6 });
    await page.mouse.up();
    const isBook = (element: Element) => element.kind === "shape" && JSON.stringify(element.text).includes("Book");
    await expect.poll(async () => (await find(page, 5, isBook)).frame?.x).toBeGreaterThan(300);
    await kept(page);
    const moved = (await find(page, 5, isBook)).frame as { x: number; y: number };
    expect(moved.x).toBeGreaterThan(300);
    expect(moved.y).toBeGreaterThan(190);
    await page.keyboard.press("Shift+ArrowRight");
    await kept(page);
    expect((await find(page, 5, isBook)).frame?.x).toBeCloseTo(moved.x + 10, 1);
    await page.getByText("Place and size").click();
    await page.getByRole("textbox", { name: /^Rotation/ }).fill("30");
    await page.keyboard.press("Enter");
    await kept(page);
    expect((await find(page, 5, isBook)).rotation).toBe(30);

    // Words are changed where they stand; their looks stay.
    await refine(page, 1);
    await page.getByRole("button", { name: /^title/ }).dblclick();
    await expect(page.getByRole("textbox", { name: "Text of the title" })).toBeFocused();
    await page.keyboard.press("Control+a");
    await page.keyboard.type("Said at once");
    await page.keyboard.press("Escape");
    await kept(page);

    // A table of five rows becomes one of six, a chart gets another value.
    await refine(page, 2);
    await page.getByRole("button", { name: /^table/ }).dblclick();
    await page.getByRole("gridcell", { name: "Row 4, column 1" }).click();
    await page.getByRole("button", { name: "Rows", exact: true }).click();
    await page.getByRole("menuitem", { name: "Row below" }).click();
    await page.getByRole("gridcell", { name: "Row 5, column 1" }).click();
    await page.keyboard.type("November");
    await page.keyboard.press("Escape");
    await page.keyboard.press("Escape");
    await kept(page);
    await page.getByRole("button", { name: /^chart/ }).click();
    await page.getByRole("textbox", { name: "Row 2, column 2" }).fill("3,5");
    await page.keyboard.press("Enter");
    await kept(page);
    const after = await deckOf(page);

    // What will be kept is told before it is written.
    await page.goto(`/decks/${after.id}/deliver`);
    const section = page.locator("section", { has: page.getByRole("heading", { name: "Pages (.pdf)" }) });
    await expect(section).toContainText("left out");
    const bytes = await write(page, label);
    if (shown === "content.xml") expect(strFromU8(must(unzipSync(bytes)["content.xml"]))).toContain("November");

    await bring(page, `again-${name}`, bytes);
    const again = await deckOf(page);
    expect(tally(again)).toEqual(tally(after));
    const words = JSON.stringify(again.slides);
    for (const said of ["Said at once", "November"]) expect(words).toContain(said);
    expect(await find(page, 5, isBook)).toMatchObject({
      rotation: 30,
      frame: must(must(after.slides[5]).elements.find(isBook)).frame,
    });
    const chart = again.slides[2]?.elements.find(({ kind }) => kind === "chart");
    expect(chart?.kind === "chart" && chart.series[0]?.values[0]).toBe(3.5);
    expect(again.slides[2]?.elements.find(({ kind }) => kind === "table")).toMatchObject({ rows: { length: 6 } });
  });
}

test("many files are handed over at once and read as jobs; what is refused says why", async ({ page }) => {
  test.setTimeout(90_000);
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Desk" })).toBeVisible();
  const files = [
    ["batch-one.pptx", "quay-in-autumn.pptx"],
    ["batch-two.odp", "open-day.odp"],
    ["batch-three.txt", "class-list.txt"],
  ].map(([name, from]): [string, string] => [must(name), readFileSync(join(content, must(from))).toString("base64")]);
  const list: [string, string][] = [
    ...files,
    ["batch-words.pptx", Buffer.from("hello").toString("base64")],
    ["batch-broken.odp", Buffer.from("PK\u0003\u0004 broken").toString("base64")],
  ];
  await page.evaluate((given) => {
    const data = new DataTransfer();
    for (const [name, base64] of given)
      data.items.add(new File([Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0))], name));
    document
      .querySelector("main")
      ?.dispatchEvent(new DragEvent("drop", { dataTransfer: data, bubbles: true, cancelable: true }));
  }, list);
  await expect(page.getByText(/^batch-words\.pptx: The file is not a zip archive/)).toBeVisible({ timeout: 30_000 });
  await expect
    .poll(
      async () =>
        (await (await page.request.get("/api/jobs")).json()).jobs
          .filter(
            ({ name, state }: { name: string; state: string }) =>
              name.startsWith("batch-") && /done|failed/.test(state),
          )
          .map(({ name, state }: { name: string; state: string }) => `${name} ${state}`)
          .sort(),
      { timeout: 60_000 },
    )
    .toEqual(["batch-broken.odp failed", "batch-one.pptx done", "batch-three.txt done", "batch-two.odp done"]);
  await expect(page.getByText(/^batch-broken\.odp was refused; nothing of it was imported/)).toBeVisible();
  // Nothing of what was refused is on the Desk.
  await expect(page.getByText("batch-broken", { exact: true })).toHaveCount(0);
  await expect(page.getByText("The quay in autumn").first()).toBeVisible();
});

test("elements are chosen together, grouped, ordered, copied and taken back by the keyboard alone", async ({
  page,
}) => {
  await bring(page, "open-day.odp", readFileSync(join(content, "open-day.odp")));
  await refine(page, 5);
  const frame = (words: string) => page.getByRole("button", { name: `shape “${words}”` });
  await frame("Staff").focus();
  await page.keyboard.press("Space");
  await frame("Report").focus();
  await page.keyboard.press("Shift+Space");
  await expect(frame("Staff")).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByRole("heading", { name: "2 elements" })).toBeVisible();
  await page.keyboard.press("g");
  await kept(page);
  const groups = async () =>
    (await deckOf(page)).slides[5]?.elements
      .filter((element) => element.kind === "shape" && /Staff|Report/.test(JSON.stringify(element.text)))
      .map(({ groups: own }) => own?.[0]) ?? [];
  const [one, other] = await groups();
  expect(one).toBeDefined();
  expect(other).toBe(one);
  // Pressing one selects both; they move together.
  await page.keyboard.press("Escape");
  await frame("Staff").focus();
  await page.keyboard.press("Space");
  await expect(page.getByRole("heading", { name: "2 elements" })).toBeVisible();
  await page.keyboard.press("ArrowDown");
  await kept(page);
  // Enter opens one of them by itself, to write in it; it moves alone until the group is pressed again.
  await page.keyboard.press("Enter");
  await expect(page.getByRole("textbox", { name: /^Text of the shape/ })).toBeFocused();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("heading", { name: "2 elements" })).toHaveCount(0);
  await page.keyboard.press("Escape");
  await frame("Staff").focus();
  await page.keyboard.press("Space");
  await page.keyboard.press("d");
  await kept(page);
  expect(
    (await deckOf(page)).slides[5]?.elements.filter(
      (element) => element.kind === "shape" && /Staff|Report/.test(JSON.stringify(element.text)),
    ),
  ).toHaveLength(4);
  await page.keyboard.press("Delete");
  await kept(page);
  expect(await groups()).toHaveLength(2);
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await kept(page);
  expect(await groups()).toEqual([undefined, undefined]);
});

test("a group has handles, moves as one, and gives one of its elements when that is pressed twice", async ({
  page,
}) => {
  await bring(page, "quay-in-autumn.pptx", readFileSync(join(content, "quay-in-autumn.pptx")));
  const { slides } = await deckOf(page);
  const nth = slides.findIndex(({ elements }) =>
    elements.some(({ groups, kind }) => groups?.length && kind === "shape"),
  );
  const inside = slides[nth]?.elements.filter(({ groups }) => groups?.length) ?? [];
  await refine(page, nth);
  const button = page.locator(`[data-frame="${inside.at(-1)?.id}"] button`);
  await button.click();
  await expect(page.getByRole("heading", { name: /^\d+ elements$/ })).toBeVisible();
  const handle = page.locator(".moveable-control.moveable-se").last();
  expect((await handle.boundingBox())?.width).toBeLessThan(20);
  const box = (await button.boundingBox()) as { x: number; y: number; width: number; height: number };
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 31, y + 23, { steps: 6 });
  await page.mouse.up();
  await kept(page);
  const moved = (await deckOf(page)).slides[nth]?.elements ?? [];
  const by = moved
    .filter(({ groups }) => groups?.length)
    .map(({ id, frame }) => [
      Math.round((frame?.x ?? 0) - (inside.find((one) => one.id === id)?.frame?.x ?? 0)),
      Math.round((frame?.y ?? 0) - (inside.find((one) => one.id === id)?.frame?.y ?? 0)),
    ]);
  expect(by[0]?.[0]).toBeGreaterThan(20);
  expect(new Set(by.map(String)).size).toBe(1);
  await page.mouse.dblclick(x + 31, y + 23);
  await expect(page.getByRole("heading", { name: /^\d+ elements$/ })).toHaveCount(0);
});

test("a text takes keys from the moment that it is opened", async ({ page }) => {
  await bring(page, "open-day.odp", readFileSync(join(content, "open-day.odp")));
  await refine(page, 1);
  const focused = await page.getByRole("button", { name: /^title/ }).evaluate(async (button) => {
    button.dispatchEvent(new MouseEvent("dblclick", { bubbles: true }));
    await Promise.resolve();
    return document.activeElement?.getAttribute("aria-label");
  });
  expect(focused).toBe("Text of the title");
});

test("a picture is moved and zoomed inside its frame", async ({ page }) => {
  await bring(page, "quay-in-autumn.pptx", readFileSync(join(content, "quay-in-autumn.pptx")));
  await refine(page, 4);
  const picture = page.getByRole("button", { name: /profile of line 4/ });
  await picture.click();
  const isProfile = (element: Element) => element.kind === "picture" && /profile/.test(element.alt);
  const frame = (await find(page, 4, isProfile)).frame;
  await page.getByRole("button", { name: "Move and zoom inside the frame" }).click();
  const pane = page.getByRole("button", { name: /^Picture in its frame/ });
  const box = (await pane.boundingBox()) as { x: number; y: number; width: number; height: number };
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - box.width * 0.2, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await kept(page);
  const pulled = await find(page, 4, isProfile);
  // A fifth of what is shown (55 % of the picture) further to the right.
  expect(pulled).toMatchObject({
    frame,
    crop: { left: expect.closeTo(0.1 + 0.55 * 0.2, 1), right: expect.closeTo(0.35 - 0.55 * 0.2, 1) },
  });
  await pane.press("Enter");
  await page.getByRole("slider", { name: /^Zoom/ }).fill("400");
  await kept(page);
  const zoomed = await find(page, 4, isProfile);
  const shown = (element: Element) =>
    element.kind === "picture" && element.crop ? 1 - element.crop.left - element.crop.right : 0;
  expect(shown(zoomed)).toBeLessThan(shown(pulled));
  expect(zoomed.frame).toEqual(frame);
});

test("what is typed in Write goes to the words of a slide from a file, and to nothing else on it", async ({ page }) => {
  await bring(page, "open-day.odp", readFileSync(join(content, "open-day.odp")));
  const before = await deckOf(page);
  await page.goto(`/decks/${before.id}/write`);
  await expect(page.locator(".cm-content")).toHaveAttribute("contenteditable", "true");
  await page.locator(".cm-line", { hasText: "highest water" }).click();
  await page.keyboard.press("End");
  await page.keyboard.type(" indeed");
  await expect.poll(async () => JSON.stringify(await deckOf(page))).toContain("indeed");
  await kept(page);
  const after = await deckOf(page);
  const bare = (element: Element) => ({ ...element, text: undefined });
  expect(after.slides.map(({ elements }) => elements.map(bare))).toEqual(
    before.slides.map(({ elements }) => elements.map(bare)),
  );
  expect(
    after.slides.filter((slide, nth) => JSON.stringify(slide) !== JSON.stringify(before.slides[nth])),
  ).toHaveLength(1);
});

test("links on a slide lead where they say, in Speak too", async ({ page }) => {
  await page.goto("/decks/quay-in-autumn/speak");
  await page
    .getByRole("toolbar", { name: /^Spine/ })
    .getByRole("button", { name: /^2\. / })
    .click();
  await expect(page.getByRole("link", { name: "the open book" })).toHaveAttribute(
    "href",
    "https://example.org/marram-bay/book",
  );
  await page.getByRole("button", { name: "the profile" }).click();
  await expect(page.getByRole("img", { name: /^Now: 5\. Pictures/ })).toBeVisible();
  // A shape leads as well.
  await page
    .getByRole("toolbar", { name: /^Spine/ })
    .getByRole("button", { name: /^6\. / })
    .click();
  await page.getByRole("button", { name: "Report", exact: true }).click();
  await expect(page.getByRole("img", { name: /^Now: 3\. / })).toBeVisible();
});
