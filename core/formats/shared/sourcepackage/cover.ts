import type { Asset, Page } from "@unitext/core/model";

/**
 * Returns by how much a picture that covers a page extends beyond it on both sides, as shares of the page: its ratio
 * stays, so it is larger in one direction. Both are 0 where its file is missing or its ratio is the page's.
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
