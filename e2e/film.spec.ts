import { expect, test } from "@playwright/test";
import { accessible } from "./accessible";
import { deckOf, kept, newFromText } from "./acts";

// A microphone that gives a tone, and a person who allows it.
test.use({
  permissions: ["microphone"],
  launchOptions: {
    executablePath: "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--use-fake-device-for-media-stream", "--use-fake-ui-for-media-stream"],
  },
});

const TEXT =
  "# Reading the shore\n\n:::notes\nWe read the shore in three stops, and begin where the last tide has left its line.\n:::\n\n## The tide line\n\n- weed and shells\n- how high it came\n\n## The foot of the dune\n\n- where sand falls\n\n:::notes\nHere the sand falls when the waves have bitten into the foot of the dune in a storm.\n:::\n";

test("a person speaks one slide, has the notes of the others read, and watches the film with its captions", async ({
  page,
}) => {
  await newFromText(page, TEXT);
  await kept(page);
  const { id } = await deckOf(page);
  await page.getByRole("link", { name: "Deliver" }).click();
  await page.getByRole("link", { name: "Film …" }).click();
  await expect(page.getByText("1 slide has no notes and is shown in silence")).toBeVisible();
  await expect(page.locator('[data-spoken="silent"]')).toHaveCount(1);

  await page.getByRole("button", { name: "Record your voice for slide 2" }).click();
  const dialog = page.getByRole("dialog", { name: "Your voice for slide 2" });
  await dialog.getByRole("button", { name: "Record", exact: true }).click();
  await expect(dialog.getByText("Recording 0:02")).toBeVisible();
  await dialog.getByRole("button", { name: "Stop" }).click();
  await expect(dialog.getByLabel("The recording")).toBeVisible();
  await accessible(page, "the recorder");
  await dialog.getByRole("button", { name: "Use it", exact: true }).click();
  await expect(page.locator('[data-spoken="recorded"]')).toHaveCount(1);
  await expect(page.getByText("shown in silence")).toHaveCount(0);
  await kept(page);
  const [, second] = (await deckOf(page)).slides;
  expect(second?.voice?.seconds).toBeGreaterThan(1.5);
  await accessible(page, "the film page");

  // Taken back and done again, the recording stays.
  await page.getByRole("button", { name: "Remove the recorded voice of slide 2" }).click();
  await expect(page.locator('[data-spoken="silent"]')).toHaveCount(1);
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect(page.locator('[data-spoken="recorded"]')).toHaveCount(1);
  await kept(page);

  await page.getByRole("button", { name: "Make the film" }).click();
  const video = page.locator("[data-film] video");
  await expect(video).toBeVisible({ timeout: 90_000 });
  await expect.poll(() => video.evaluate((element: HTMLVideoElement) => element.duration)).toBeGreaterThan(8);
  // It can be sought, and its captions are read.
  const cues = await video.evaluate(async (element: HTMLVideoElement) => {
    const [track] = element.textTracks;
    if (!track) return [];
    track.mode = "showing";
    element.currentTime = 1;
    while (!track.cues?.length) await new Promise((resolve) => setTimeout(resolve, 50));
    return [...track.cues].map((cue) => (cue as VTTCue).text);
  });
  expect(cues[0]).toContain("We read the shore");
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "Film", exact: true }).click();
  expect((await download).suggestedFilename()).toBe("Reading the shore.mp4");

  // The Desk says so too, and a deck shared without its notes shows nobody its film.
  await page.goto("/");
  await expect(page.getByText("Reading the shore is a film now.")).toBeVisible();
  await page.getByRole("link", { name: "Watch it" }).click();
  await expect(page).toHaveURL(new RegExp(`/decks/${id}/deliver/film$`));
});
