import type { Asset, Page } from "@unitext/core/model";

/**
 * How far a picture that covers a page stands out on both sides, as shares of the page: its ratio stays, so on one axis it
 * is larger. Both are 0 where its file is not known or its ratio is the page's.
 */
export function coverOf(
  asset: Pick<Asset, "width" | "height"> | undefined,
  page: Page,
): { across: number; down: number } {
  if (!asset || !(asset.width > 0 && asset.height > 0)) return { across: 0, down: 0 };
  const scale = Math.max(page.width / asset.width, page.height / asset.height);
  const out = (side: number, whole: number) => Math.max(0, (side * scale) / whole - 1) / 2;
  const [across, down] = [out(asset.width, page.width), out(asset.height, page.height)];
  return { across: across < 0.002 ? 0 : across, down: down < 0.002 ? 0 : down };
}
