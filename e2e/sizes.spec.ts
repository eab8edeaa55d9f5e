import { expect, type Locator, type Page, test } from "@playwright/test";
import { must, textOf } from "@unitext/core/model";
import { PNG } from "pngjs";
import { hiddenAtTheSide } from "./accessible";
import { deckOf, kept, OUTLINE } from "./acts";

/** The windows of a phone, a tablet, a desk and a large screen. */
const WINDOWS = [
  { width: 390, height: 844 },
  { width: 768, height: 1024 },
  { width: 1280, height: 800 },
  { width: 2560, height: 1440 },
];

/** Acts by mouse, or by the keyboard on what has the focus. */
const HANDS = {
  mouse: async (target: Locator) => target.click(),
  keys: async (target: Locator) => {
    await target.focus();
    await target.press("Enter");
  },
} as const;

/** Expects that nothing on the page is cut off at the side. */
async function fits(page: Page, where: string): Promise<void> {
  expect([where, await hiddenAtTheSide(page)]).toEqual([where, []]);
}

for (const viewport of WINDOWS)
  for (const hand of Object.keys(HANDS) as (keyof typeof HANDS)[])
    test(`a text becomes slides that are written, ordered, refined, spoken and handed over at ${viewport.width} px by ${hand}`, async ({
      browser,
      baseURL,
    }) => {
      test.setTimeout(240_000);
      const context = await browser.newContext({
        viewport,
        hasTouch: viewport.width < 768,
        baseURL: must(baseURL),
        extraHTTPHeaders: { origin: must(baseURL) },
      });
      const page = await context.newPage();
      const act = HANDS[hand];
      const place = async (name: string, seen: Locator) => {
        await act(page.getByRole("navigation", { name: "Places" }).getByRole("link", { name }));
        await expect(seen.first()).toBeVisible();
        await fits(page, name);
      };
      const title = async (nth: number) => {
        const [first] = must((await deckOf(page)).slides[nth]).elements;
        return first?.kind === "text" ? textOf(first.text) : "";
      };

      await page.goto("/");
      await act(page.getByRole("button", { name: "New from text" }));
      await page.locator("#new-text").fill(OUTLINE);
      await act(page.getByRole("button", { name: "Make the deck" }));
      await page.waitForURL(/\/write$/);
      await fits(page, "Write");
      if (viewport.width < 768) {
        // One thing at a time: the text, or the slides.
        await act(page.getByRole("tab", { name: "Slides" }));
        await expect(page.locator("[data-slide] text").first()).toBeVisible();
        await act(page.getByRole("tab", { name: "Text" }));
      } else await expect(page.locator("[data-level] [data-slide]").first()).toBeVisible();
      await page.locator(".cm-content").focus();
      await page.keyboard.press("Control+End");
      await page.keyboard.type("- salt water at the spring tide");
      await expect.poll(async () => JSON.stringify((await deckOf(page)).slides.at(-1))).toContain("salt water");
      await kept(page);

      await place("Arrange", page.locator("[data-map] [role=option]"));
      const second = must((await deckOf(page)).slides[1]).id;
      const option = page.locator("[data-map] [role=option]").nth(1);
      if (hand === "mouse") {
        await option.click();
        await page.getByRole("button", { name: "Down", exact: true }).click();
      } else {
        await page.locator('[data-map] [role=option][tabindex="0"]').focus();
        await page.keyboard.press("Home");
        await page.keyboard.press("ArrowRight");
        await expect(option).toBeFocused();
        await page.keyboard.press("Alt+ArrowDown");
      }
      await expect.poll(async () => (await deckOf(page)).slides[2]?.id).toBe(second);
      await kept(page);

      await place("Refine", page.locator("[data-stage] [data-frame]"));
      const before = await title(2);
      expect(before).not.toBe("");
      const frame = page.locator("[data-frame] button").first();
      if (hand === "mouse") await frame.dblclick();
      else {
        await frame.focus();
        await page.keyboard.press("Enter");
        await page.keyboard.press("Enter");
      }
      await expect(page.locator("[data-stage] [contenteditable=true]")).toBeFocused();
      await page.keyboard.press("End");
      await page.keyboard.type(" at dusk");
      await page.keyboard.press("Escape");
      await expect.poll(() => title(2)).toBe(`${before} at dusk`);
      await expect(page.locator("[data-selected] summary", { hasText: "Heading style" })).toBeAttached();
      const styles = page.locator("summary", { hasText: "Heading style" });
      if (!(await page.getByRole("group", { name: "Heading style" }).isVisible())) await act(styles);
      await act(page.getByRole("group", { name: "Heading style" }).getByRole("button", { name: "Filled" }));
      await expect.poll(async () => (await deckOf(page)).slides[2]?.elements[0]?.fill?.kind).toBe("solid");

      // A picture lands beside the words, and is cut to a shape.
      const png = [...PNG.sync.write(new PNG({ width: 320, height: 240 }))];
      const photo = await page.evaluateHandle((bytes) => {
        const data = new DataTransfer();
        data.items.add(new File([new Uint8Array(bytes)], "dusk.png", { type: "image/png" }));
        return data;
      }, png);
      await page.locator("[data-stage]").dispatchEvent("drop", { dataTransfer: photo });
      const shape = page.getByRole("button", { name: "Oval" });
      await expect(shape).toBeVisible();
      await act(shape);
      await expect
        .poll(async () =>
          JSON.stringify((await deckOf(page)).slides[2]?.elements.find(({ kind }) => kind === "picture")),
        )
        .toContain('"preset":"ellipse"');
      // The panel asks for a description, and takes a caption.
      await expect(page.getByText("Say what it shows")).toBeVisible();
      await page.getByLabel("Description (alt text)").fill("The shore at dusk");
      await page.getByLabel("Caption", { exact: true }).fill("Looking west");
      await page.keyboard.press("Enter");
      await expect
        .poll(async () => (await deckOf(page)).slides[2]?.elements.find(({ kind }) => kind === "picture"))
        .toMatchObject({ alt: "The shore at dusk", caption: "Looking west" });
      await expect(page.getByText("Say what it shows")).toBeHidden();
      await fits(page, "Refine with a picture");
      await kept(page);

      await place("Speak", page.getByRole("button", { name: "Next", exact: true }));
      const counted = page.getByRole("status").filter({ hasText: / of \d+$/ });
      const shown = await counted.first().textContent();
      await act(page.getByRole("button", { name: "Next", exact: true }));
      await expect(counted.first()).not.toHaveText(must(shown ?? undefined));

      await place("Deliver", page.getByRole("button", { name: "Download as Pages (.pdf)" }));
      const button = page.getByRole("button", { name: "Download as Pages (.pdf)" });
      await expect(button).toBeEnabled();
      const [file] = await Promise.all([page.waitForEvent("download"), act(button)]);
      expect(file.suggestedFilename()).toMatch(/\.pdf$/);
      await context.close();
    });
