import type { Deck, Theme } from "@unitext/core/model";
import type { SingleChange } from "./change";

/**
 * Returns the changes that put a theme on a deck: with the picture of its logo, and with the lines at the foot and at the top
 * that a saved theme brings.
 */
export function putTheme({ assets, regions }: Pick<Deck, "assets" | "regions">, theme: Theme): SingleChange[] {
  const { logo, lines } = theme;
  const { header: _, ...others } = regions;
  return [
    ...(logo && assets[logo.source]?.sha256 !== logo.asset.sha256
      ? [{ kind: "setAsset" as const, name: logo.source, asset: logo.asset }]
      : []),
    { kind: "setTheme", theme },
    ...(lines
      ? [
          {
            kind: "setRegions" as const,
            regions: { ...others, footer: lines.footer, ...(lines.header ? { header: lines.header } : {}) },
          },
        ]
      : []),
  ];
}
