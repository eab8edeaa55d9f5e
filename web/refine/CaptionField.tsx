import { keptValues, type PictureElement, type TableElement } from "@unitext/core/model";
import type { Acts } from "./selection";

/** The line below a picture or table. Linked values in it stay linked where their words stay. */
export function CaptionField({ element, acts }: { element: PictureElement | TableElement; acts: Acts }) {
  const { caption = "" } = element;
  const write = (next: string) =>
    acts.set(
      (one) => {
        if (one.kind !== "picture" && one.kind !== "table") return one;
        const { caption: before = "", captionValues, ...rest } = one;
        if (!next) return rest;
        const values = keptValues(before, captionValues, next);
        return { ...rest, caption: next, ...(values.length ? { captionValues: values } : {}) };
      },
      next ? "Changed a caption" : "Took a caption away",
    );
  return (
    <label className="mt-2 block">
      Caption
      <input
        key={caption}
        type="text"
        className="input input-sm w-full"
        defaultValue={caption}
        maxLength={2000}
        onKeyDown={({ key, currentTarget }) => key === "Enter" && currentTarget.blur()}
        onBlur={({ target }) => target.value.trim() !== caption && write(target.value.trim())}
      />
    </label>
  );
}
