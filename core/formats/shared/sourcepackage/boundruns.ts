import { BoundRunTag, boundRunTags, type Slide, withBoundRuns } from "@unitext/core/model";

/** What the tags of a slide store of the cells that its runs show; nothing when no run shows any. */
export function boundRunsTag(slide: Slide): { boundRuns?: BoundRunTag[] } {
  const boundRuns = boundRunTags(slide);
  return boundRuns.length ? { boundRuns } : {};
}

/** Returns a slide with the bindings of its tags on its runs, where they still show the same text. */
export function withTaggedRuns(slide: Slide, tags: unknown): Slide {
  const stored = typeof tags === "object" && tags !== null ? (tags as { boundRuns?: unknown }).boundRuns : undefined;
  if (!Array.isArray(stored)) return slide;
  return withBoundRuns(
    slide,
    stored.flatMap((one) => BoundRunTag.safeParse(one).data ?? []),
  );
}
