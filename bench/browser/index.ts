import { chromium } from "@playwright/test";
import type { Row } from "../core";
import { dropping } from "./dropping";
import { opening } from "./opening";
import { ADDRESS } from "./page";
import { refining } from "./refining";
import { scripts } from "./scripts";
import { scrolling } from "./scrolling";
import { typing } from "./typing";

/** What users feel, in Debian's Chromium, against the running product. */
export const BROWSER = { scrolling, typing, dropping, refining, opening, scripts };

/** Runs one of them in a browser of its own. */
export async function inBrowser(name: keyof typeof BROWSER): Promise<Row[]> {
  const chrome = await chromium.launch({
    executablePath: "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-quic"],
  });
  try {
    const page = await chrome.newPage({
      viewport: { width: 1280, height: 800 },
      // Requests of the benchmark say where they come from, as those of a page do.
      extraHTTPHeaders: { origin: ADDRESS },
    });
    return await BROWSER[name](page);
  } finally {
    await chrome.close();
  }
}
