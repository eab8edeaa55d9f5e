import { batch, type SingleChange } from "@unitext/core/edit";
import { type Element, mapElementTexts, type RichText } from "@unitext/core/model";
import type { Check } from "../check";

/** More sizes set by hand than these on one slide are restless (common practice, no source). */
const MOST = 3;

function sizesIn(element: Element): number[] {
  const sizes: number[] = [];
  mapElementTexts(element, (text) => {
    for (const { runs } of text) for (const { properties } of runs) if (properties?.size) sizes.push(properties.size);
    return text;
  });
  return sizes;
}

const withoutSizes = (text: RichText): RichText =>
  text.map((paragraph) => ({
    ...paragraph,
    runs: paragraph.runs.map((run) => {
      const { size: _, ...rest } = run.properties ?? {};
      const { properties: __, ...bare } = run;
      return Object.keys(rest).length ? { ...bare, properties: rest } : bare;
    }),
  }));

export const sizes: Check = {
  label: "Many text sizes",
  find: ({ slide }) => {
    const sized = slide.elements.filter((element) => element.kind === "text" && sizesIn(element).length);
    const count = new Set(sized.flatMap(sizesIn)).size;
    if (count <= MOST) return [];
    const changes = sized.map(
      (element): SingleChange => ({
        kind: "setElement",
        slide: slide.id,
        element: mapElementTexts(element, withoutSizes),
      }),
    );
    return [
      {
        message: `${count} text sizes on one slide.`,
        remedy: { label: "Take the sizes of the design", change: batch(changes) },
      },
    ];
  },
};
