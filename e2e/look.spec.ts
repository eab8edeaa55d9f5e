import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { expect, type Page, test } from "@playwright/test";
import { accessible, hiddenAtTheSide } from "./accessible";

const axe = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");
const deck = "/decks/tides-dunes-storms";
const SCREENS: [string, string, string][] = [
  ["Desk", "/", "tbody th a"],
  ["Write", `${deck}/write`, "[data-level] [data-slide]"],
  ["Arrange", `${deck}/arrange`, "[data-map] [data-slide]"],
  ["Notes", `${deck}/arrange/notes`, "[data-notes]"],
  ["Split", `${deck}/arrange/split`, "[data-row]"],
  ["Bring in", `${deck}/arrange/gather`, "table"],
  ["Versions", `/decks/quarterly-monitoring/arrange/versions?at=0`, "[data-comparison] [data-state]"],
  ["What the original brings", `/decks/quarterly-monitoring-board/arrange/versions`, "[data-tailor] [data-state]"],
  ["Gather", "/gather?names=TB2-*-*", "tbody tr"],
  ["Refine", `${deck}/refine`, "[data-stage] [data-slide]"],
  ["Data", "/decks/quarterly-monitoring/data", "[data-binding]"],
  ["Translate", `${deck}/translate`, "form"],
  ["Segments", `${deck}-es/translate`, "[data-segment]"],
  ["Side by side", `${deck}-es/translate/slides`, "[data-side-by-side] svg"],
  ["Speak", `${deck}/speak`, "[data-slide]"],
  ["Hall", `${deck}/hall`, "[data-hall] [data-slide]"],
  ["Deliver", `${deck}/deliver`, "table"],
  ["Film", "/decks/quay-in-autumn/deliver/film", "[data-spoken]"],
  ["Viewer", `${deck}/view`, "[data-viewed-slide] img"],
  ["Collections", "/collections", "main a"],
];

const SIZES = [
  [390, 844],
  [768, 1024],
  [2560, 1440],
] as const;

/** Waits until fonts are loaded and nothing moves. */
async function still(page: Page): Promise<void> {
  await page.evaluate(() => document.fonts.ready);
  await page.waitForFunction(() => document.getAnimations().every(({ playState }) => playState !== "running"));
}

test.use({ bypassCSP: true });
for (const scheme of ["light", "dark"] as const) {
  for (const [name, path, ready] of SCREENS) {
    test(`axe finds nothing on ${name} (${scheme})`, async ({ page }) => {
      await page.emulateMedia({ colorScheme: scheme, reducedMotion: "reduce" });
      await page.goto(path);
      await expect(page.locator(ready).first()).toBeVisible();
      await still(page);
      // What does not depend on colours is the same in the dark.
      await accessible(page, name, { colours: scheme === "dark" });
      if (scheme === "dark") return;
      // A phone, a tablet and a large screen; rules that ask for light and dark do not depend on the size.
      for (const [width, height] of SIZES) {
        await page.setViewportSize({ width, height });
        await still(page);
        await accessible(page, `${name} at ${width}`);
        expect([name, width, await hiddenAtTheSide(page)]).toEqual([name, width, []]);
      }
    });
  }
}

test("every width that the layout computes is the width that the browser draws", async ({ page }) => {
  // The reference is Chromium's own shaping of the same face; 0.5 % is what eyes and projectors never see.
  await page.goto(`${deck}/arrange`);
  await expect(page.locator("[data-map] [data-slide]").nth(6)).toBeVisible();
  await still(page);
  const rows = await page.locator("[data-map] svg text").evaluateAll((texts) =>
    texts.map((node) => ({
      words: node.textContent ?? "",
      drawn: (node as SVGTextElement).getComputedTextLength(),
      computed: Number(node.getAttribute("data-advance")),
    })),
  );
  const checked = rows.filter(({ words }) => words.trim() !== "");
  expect(checked.length).toBeGreaterThan(60);
  for (const { words, drawn, computed } of checked)
    expect(Math.abs(drawn / computed - 1), `${words}: ${drawn} drawn, ${computed} computed`).toBeLessThan(0.005);
});

test("the slide on the page has the lines of the scene, in scripts of both directions", async ({ page }) => {
  const made = await page.request.post("/api/decks", {
    data: {
      title: "",
      text: "## Lines\n\n- The height of the water at the quay gauge, in metres above chart datum, read every ten minutes through the winter\n- ارتفاع الماء عند المقياس القريب من الرصيف في الشتاء كله وفي كل عشر دقائق من النهار والليل\n- Высота воды у причала, измеренная каждые десять минут в течение всей зимы на станции\n- גובה המים ליד המזח נמדד כל עשר דקות במשך כל החורף בתחנה שעל שפת הים\n",
    },
  });
  const { id } = await made.json();
  await page.goto(`/decks/${id}/refine`);
  await expect(page.locator("[data-stage] svg text").nth(8)).toBeVisible();
  const measured = await page.locator("[data-stage] svg text").evaluateAll((texts) =>
    texts.map((node) => {
      const text = node as SVGTextElement;
      const { x, width } = text.getBBox();
      return {
        words: text.textContent ?? "",
        left: x,
        right: x + width,
        page: text.ownerSVGElement?.viewBox.baseVal.width ?? 0,
      };
    }),
  );
  for (const { words, left, right, page: width } of measured) {
    expect(left, words).toBeGreaterThan(0);
    expect(right, words).toBeLessThan(width - width * 0.065 + 0.5);
  }
});

test("axe finds nothing on what opens over the screens", async ({ page }) => {
  const clean = async (name: string) => {
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
      return violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html.slice(0, 160)}`);
    });
    expect([name, found]).toEqual([name, []]);
  };
  await page.goto("/");
  await page.getByRole("button", { name: "New from text" }).click();
  await clean("New from text");
  await page.getByRole("button", { name: "Write decks" }).click();
  await clean("Write decks");
  await page.goto(`${deck}/arrange`);
  await page.locator("[data-map] [role=option]").nth(1).click();
  await page.keyboard.press("m");
  await expect(page.getByRole("dialog")).toBeVisible();
  await clean("Move to");
  await page.keyboard.press("Escape");
  await page.keyboard.press("?");
  await expect(page.getByRole("heading", { name: "Keys" })).toBeVisible();
  await clean("Keys");
  await page.keyboard.press("Escape");
  await page.goto(`${deck}/refine`);
  await page.getByRole("button", { name: /^title/ }).dblclick();
  await expect(page.getByRole("textbox", { name: "Text of the title" })).toBeFocused();
  await clean("Editing on the slide");
  await page.goto("/decks/quay-in-autumn/refine");
  for (const [number, name] of [
    [3, /^table/],
    [3, /^chart/],
    [5, /profile of line 4/],
    [6, "shape “Book”"],
  ] as const) {
    await page
      .getByRole("toolbar", { name: /^Spine/ })
      .getByRole("button", { name: new RegExp(`^${number}\\. `) })
      .click();
    await page.locator("[data-stage]").getByRole("button", { name }).click();
    await expect(page.locator("[data-selected]")).toBeVisible();
    await clean(`What is selected: ${name}`);
    if (String(name) !== String(/^chart/)) continue;
    await page.getByText("How it is shown").click();
    await clean("How a chart is shown");
  }
});
