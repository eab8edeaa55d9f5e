// Takes the pictures of the main views for docs/screenshots from a product that runs with the demo: node scripts/screenshots.mjs [address]
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { root } from "./prepare.mjs";

const address = process.argv[2] ?? "http://127.0.0.1:4280";
const deck = "/decks/tides-dunes-storms";
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-quic"] });

/** Opens a place, does what shows it best, and takes its picture. */
async function shot(name, path, act = async () => {}, scheme = "light") {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme: scheme });
  await page.goto(address + path);
  await page.waitForTimeout(1500);
  await act(page);
  await page.waitForTimeout(700);
  await page.screenshot({ path: join(root, "docs/screenshots", `${name}.png`) });
  await page.close();
}

const spine = (number) => (page) => page.getByRole("toolbar", { name: /^Spine/ }).getByRole("button", { name: new RegExp(`^${number}\\. `) }).click();
await shot("desk", "/");
await shot("write", `${deck}/write`, spine(4));
await shot("arrange", `${deck}/arrange`, (page) => page.getByRole("option").nth(3).click());
await shot("arrange-dark", `${deck}/arrange`, (page) => page.getByRole("slider").fill("2"), "dark");
await shot("refine", `${deck}/refine`, spine(13));
await shot("speak", `${deck}/speak`, spine(7));
await shot("hall", `${deck}/hall`);
await shot("deliver", `${deck}/deliver`);
await browser.close();
