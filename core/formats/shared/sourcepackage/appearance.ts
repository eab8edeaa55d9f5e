import { type Slide, SlideProperties } from "@unitext/core/model";
import { z } from "zod";

/** Sums of what a file says of a slide's background and of how it comes in and goes. */
export const AppearanceHashes = z.object({ background: z.string(), transition: z.string() });
export type AppearanceHashes = z.infer<typeof AppearanceHashes>;

/**
 * What a slide of Unitext wears: what is kept of it, as far as the file says what it said when it was written; what another
 * program has put in its place holds. `said` reads it from the file.
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
