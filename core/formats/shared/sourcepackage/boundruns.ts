import type { Report } from "@unitext/core/tally";
import { BoundRunTag, boundRunTags, type Slide, withBoundRuns } from "@unitext/core/model";

/** What the tags of a slide store of the cells that its runs show; nothing when no run shows any. */
export function boundRunsTag(slide: Slide): { boundRuns?: BoundRunTag[] } {
  const boundRuns = boundRunTags(slide);
  return boundRuns.length ? { boundRuns } : {};
}

/**
 * Returns a slide with the bindings of its tags on its runs, where they still show the same text. A value that another
 * program changed is linked no more, which goes into the report.
 */
export function withTaggedRuns(slide: Slide, tags: unknown, number: number, left: Report["left"]): Slide {
  const stored = typeof tags === "object" && tags !== null ? (tags as { boundRuns?: unknown }).boundRuns : undefined;
  if (!Array.isArray(stored)) return slide;
  return withBoundRuns(
    slide,
    stored.flatMap((one) => BoundRunTag.safeParse(one).data ?? []),
    ({ shown, binding: { source, range } }) =>
      left.push({
        slide: number,
        what: `the link of “${shown}” to ${source}, ${range}`,
        why: "another program changed the value",
      }),
  );
}
