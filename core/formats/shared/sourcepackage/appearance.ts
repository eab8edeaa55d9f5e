import { type Slide, SlideProperties } from "@unitext/core/model";
import { z } from "zod";

/** Hashes of a slide's background and transition as a file has them. */
export const AppearanceHashes = z.object({ background: z.string(), transition: z.string() });
export type AppearanceHashes = z.infer<typeof AppearanceHashes>;

/**
 * Returns the appearance of a slide written by Unitext: that of its tags as far as the file is unchanged since; where
 * another program changed it, that of the file, read by `said`.
 */
export function mergeAppearance(
  kept: Record<string, unknown>,
  sums: AppearanceHashes,
  said: () => Pick<Slide, "background" | "transition" | "delay">,
): SlideProperties {
  const look = SlideProperties.safeParse(kept);
  if (!look.success) return {};
  const written = AppearanceHashes.safeParse(kept.wears);
  const changed = (name: keyof AppearanceHashes) => written.success && written.data[name] !== sums[name];
  if (!changed("background") && !changed("transition")) return look.data;
  const { background, transition, delay, ...rest } = look.data;
  const there = said();
  const [behind, coming] = [
    changed("background") ? there.background : background,
    changed("transition") ? there : { transition, delay },
  ];
  return {
    ...rest,
    ...(behind ? { background: behind } : {}),
    ...(coming.transition ? { transition: coming.transition } : {}),
    ...(coming.delay ? { delay: coming.delay } : {}),
  };
}
