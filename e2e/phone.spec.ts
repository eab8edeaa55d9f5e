import { expect, test } from "@playwright/test";
import { deckOf, newFromText, OUTLINE } from "./acts";

test("a phone shows the slide, its notes and the time, turns the slides, and is told when the talk ends", async ({
  page,
  browser,
}) => {
  await newFromText(page, OUTLINE);
  const { id, slides } = await deckOf(page);
  await page.goto(`/decks/${id}/speak`);
  await page.getByRole("button", { name: "Phone …" }).click();
  const dialog = page.getByRole("dialog", { name: "A phone in the hand" });
  await expect(dialog.getByRole("img", { name: "QR code of the link" })).toBeVisible();
  const link = (await page.locator("[data-remote-link]").textContent()) ?? "";
  await dialog.getByRole("button", { name: "Close" }).click();

  const hand = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const phone = await hand.newPage();
  await phone.goto(link);
  const shows = (nth: number) => expect(phone.locator(`[data-phone-slide="${slides[nth]?.id}"]`).first()).toBeVisible();
  await shows(0);
  await phone.getByRole("button", { name: "Next" }).tap();
  await expect(page.getByRole("status").getByText("2 of 4")).toBeVisible();
  await expect(phone.getByText("2 of 4")).toBeVisible();

  // Without a network nothing is lost: what was pressed is sent when it is back.
  await hand.setOffline(true);
  await phone.getByRole("button", { name: "Next" }).tap();
  await expect(phone.getByText(/The network is gone/)).toBeVisible();
  await hand.setOffline(false);
  await expect(page.getByRole("status").getByText("3 of 4")).toBeVisible({ timeout: 15_000 });

  await page.getByRole("link", { name: "Desk" }).click();
  await expect(phone.getByText(/This talk has ended/)).toBeVisible();
  await hand.close();
});
