import type { PagePixels } from "@unitext/core/advice";
import type { Page } from "@unitext/core/model";

/** How many pixels wide the page is on which a picture is measured. */
const WIDTH = 192;

/** Draws a picture as it covers a page, small, and returns its pixels. Throws where the picture cannot be shown. */
export async function pagePixels(address: string, page: Page): Promise<PagePixels> {
  const image = new Image();
  image.src = address;
  await image.decode();
  const [width, height] = [WIDTH, Math.round((WIDTH * page.height) / page.width)];
  const canvas = document.createElement("canvas");
  Object.assign(canvas, { width, height });
  const context = canvas.getContext("2d", { willReadFrequently: true });
  if (!context) throw new Error("The picture cannot be measured in this browser.");
  const scale = Math.max(width / image.naturalWidth, height / image.naturalHeight);
  const size = { width: image.naturalWidth * scale, height: image.naturalHeight * scale };
  context.fillStyle = "#ffffff";
  context.fillRect(0, 0, width, height);
  context.drawImage(image, (width - size.width) / 2, (height - size.height) / 2, size.width, size.height);
  return { width, height, data: context.getImageData(0, 0, width, height).data };
}
