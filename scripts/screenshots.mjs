// Takes the pictures of the main views for docs/screenshots from a product that runs with the demo: node scripts/screenshots.mjs [address]
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { Packer } from "docx";
import { handbook, nextEdition } from "../demo/handbook/make.mjs";
import { CHAPTERS } from "../demo/handbook/text.mjs";
import { root } from "./prepare.mjs";

const address = process.argv[2] ?? "http://127.0.0.1:4280";
const deck = "/decks/tides-dunes-storms";
const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-quic"],
});

/** Waits until every slide in view is drawn, and nothing says that it is still coming. */
const drawn = (page) =>
  page.waitForFunction(
    () =>
      !/(Opening the deck|Comparing|Taking the cells|One moment) …/.test(document.body.textContent ?? "") &&
      [...document.querySelectorAll(".bg-base-200")].every(
        (box) => box.childElementCount > 0 || box.textContent !== "" || getComputedStyle(box).aspectRatio === "auto",
      ),
    undefined,
    { timeout: 60_000 },
  );

/** Opens a place, prepares it, and takes its picture. */
async function shot(name, path, act = async () => {}, scheme = "light") {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme: scheme });
  await page.goto(address + path);
  await page.waitForTimeout(1500);
  await drawn(page);
  await act(page);
  await page.waitForTimeout(700);
  await drawn(page);
  await page.screenshot({ path: join(root, "docs/screenshots", `${name}.png`) });
  await page.close();
}

const spine = (number) => (page) =>
  page
    .getByRole("toolbar", { name: /^Spine/ })
    .getByRole("button", { name: new RegExp(`^${number}\\. `) })
    .click();
// The thumbnails of the decks are drawn one after the other.
await shot("desk", "/", (page) => page.waitForTimeout(6000));
await shot("write", `${deck}/write`, spine(4));
// The next quarter is dropped and compared with the report; nothing is taken.
const quarter = [...readFileSync(join(root, "demo/content/next-quarter/station-gauges.xlsx"))];
await shot("data", "/decks/quarterly-monitoring/data", async (page) => {
  await page.locator("[data-binding]").first().waitFor();
  const file = await page.evaluateHandle((bytes) => {
    const transfer = new DataTransfer();
    transfer.items.add(new File([new Uint8Array(bytes)], "station-gauges.xlsx"));
    return transfer;
  }, quarter);
  await page.locator("main > div").first().dispatchEvent("drop", { dataTransfer: file });
  await page.getByRole("button", { name: "Take as the newest version" }).click();
  await page.locator('[data-binding="stale"]').first().waitFor();
  await page.waitForTimeout(1500);
});
await shot("data-compare", "/decks/quarterly-monitoring/data", async (page) => {
  await page.getByRole("button", { name: /^Compare \d+ new values/ }).click();
  await page.getByRole("button", { name: "Next" }).click();
  await page.getByRole("img", { name: "With the new values" }).waitFor();
  await page.waitForTimeout(1000);
});
await shot("translate", `${deck}-es/translate`, async (page) => {
  await page.locator("[data-segment]", { hasText: "what stands between" }).getByRole("textbox").click();
  await page.waitForTimeout(800);
});
const handbookDeck = "/decks/field-handbook";
// The next edition meets notes written by hand, in a copy that is deleted afterwards.
const next = [...(await Packer.toBuffer(handbook(nextEdition(CHAPTERS))))];
await shot("newer-version", "/", async (page) => {
  const copy = await page.evaluate(async (deck) => {
    const ask = async (path, method) =>
      (
        await fetch(path, {
          method,
          ...(method === "POST" ? { headers: { "content-type": "application/json" }, body: "{}" } : {}),
        })
      ).json();
    const { id } = await ask(`/api${deck}/copies`, "POST");
    const { deck: made } = await ask(`/api/decks/${id}`, "GET");
    return { id, slide: made.slides.find(({ elements }) => JSON.stringify(elements).includes('"The balance')).id };
  }, handbookDeck);
  await page.goto(`${address}/decks/${copy.id}/refine/${copy.slide}`);
  await page.getByRole("textbox", { name: "Notes" }).click();
  await page.keyboard.press("Control+a");
  await page.keyboard.type("Draw the two profiles on the board first.");
  await page.keyboard.press("Escape");
  await page.locator('[data-status="saved"]').waitFor();
  await page.waitForTimeout(500);
  await page.goto(`${address}/decks/${copy.id}/write`);
  await page.locator("[data-level] [data-slide]").first().waitFor();
  await page.locator('.cm-content[contenteditable="true"]').waitFor();
  await page.waitForTimeout(1000);
  const file = await page.evaluateHandle((bytes) => {
    const transfer = new DataTransfer();
    transfer.items.add(new File([new Uint8Array(bytes)], "field-handbook.docx"));
    return transfer;
  }, next);
  await page.dispatchEvent(".cm-content", "drop", { dataTransfer: file });
  await page.getByRole("button", { name: /^Conflict/ }).click();
  await page.evaluate((id) => fetch(`/api/decks/${id}`, { method: "DELETE" }), copy.id);
});
const days = "/decks/coastal-field-course";
await shot("arrange", `${days}/arrange`, (page) => page.locator("[data-map] [role=option]").nth(3).click());
await shot("notes", `${days}/arrange/notes`);
await shot("split", `${days}/arrange/split`, async (page) => {
  await page.getByLabel("Opening slides").fill("1");
  await page.getByLabel("Closing slides").fill("42");
  await page.getByRole("button", { name: "By section" }).click();
  await page.locator("[data-split]").evaluate((grid) => grid.scrollTo(0, 500));
});
await shot("gather", "/gather?names=TB2-*-*", async (page) => {
  await page.getByRole("button", { name: /^Add all/ }).click();
  await page.waitForTimeout(3500);
});
await shot("compare", "/decks/quarterly-monitoring/arrange/versions?with=quarterly-monitoring-board");
await shot("design", `${deck}/refine`, async (page) => {
  await page.getByRole("button", { name: "Design", exact: true }).click();
  await page.getByText("Driftwood", { exact: true }).click();
  await page.waitForTimeout(4000);
});
await shot("refine", `${deck}/refine`, spine(13));
const house = "/decks/quay-in-autumn";
await shot("speak", `${house}/speak`, spine(5));
await shot("deliver", `${deck}/deliver`, (page) => page.waitForTimeout(5000));
// The film of the demo is made while it runs.
await shot("film", "/decks/quay-in-autumn/deliver/film", async (page) => {
  await page.locator("[data-film] video").waitFor({ timeout: 180_000 });
  await page.waitForTimeout(3000);
});
const open = (name) => (page) => page.getByRole("button", { name, exact: true }).click();
await shot("share", `${deck}/arrange`, open("Share"));
await shot("viewer", `${deck}/view#`, async (page) => {
  await page.getByRole("button", { name: "Next" }).click();
  await page.getByRole("button", { name: "Next" }).click();
  await page.getByRole("button", { name: "Notes", exact: true }).click();
  await page.waitForTimeout(3000);
});
await shot("collection", "/collections", async (page) => {
  await page.getByRole("link", { name: "Field week, class TB2" }).click();
  await page.waitForTimeout(5000);
});
await browser.close();
