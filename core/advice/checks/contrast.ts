import { batch, type SingleChange } from "@unitext/core/edit";
import { leavesOf, type Scene, type SceneRun } from "@unitext/core/layout";
import {
  contrast,
  type Element,
  mapElementTexts,
  readableOn,
  type RunProperties,
  TEXT_CONTRAST,
} from "@unitext/core/model";
import type { Check } from "../check";

/** The least contrast of large text, and from which size in points text is large (WCAG 2.2, 1.4.3). */
const LARGE = { contrast: 3, size: 18 };

/** Returns the colour behind an element where it is known: its own fill, else the background of the slide. */
function behind(element: Element, scene: Scene): string | undefined {
  if (element.fill?.kind === "solid" && (element.fill.opacity ?? 1) > 0.9) return element.fill.colour;
  if (element.fill) return undefined;
  const hasPicture = scene.nodes.some(
    (node) => node.kind === "picture" && node.width >= scene.page.width * 0.9 && node.height >= scene.page.height * 0.9,
  );
  return hasPicture ? undefined : scene.background;
}

const isFaint = ({ fill, size }: SceneRun, under: string): boolean =>
  contrast(fill, under) < (size >= LARGE.size ? LARGE.contrast : TEXT_CONTRAST);

/** Returns an element whose own text colours can be read on a background. */
function readable(element: Element, under: string): Element {
  const own = (properties: RunProperties): RunProperties =>
    properties.colour ? { ...properties, colour: readableOn(properties.colour, under) } : properties;
  return mapElementTexts(element, (text) =>
    text.map((paragraph) => ({
      ...paragraph,
      runs: paragraph.runs.map((run) => (run.properties ? { ...run, properties: own(run.properties) } : run)),
    })),
  );
}

export const contrastCheck: Check = {
  label: "Faint text",
  find: ({ slide, scene }) => {
    // What a file draws behind its slides is not known by its colour.
    if (slide.master !== undefined) return [];
    return slide.elements.flatMap((element) => {
      const under = element.kind === "text" || element.kind === "shape" ? behind(element, scene) : undefined;
      if (under === undefined) return [];
      const runs = leavesOf(scene.nodes).flatMap((node) =>
        node.kind === "text" && node.element === element.id ? node.lines.flatMap((line) => line.runs) : [],
      );
      const hasOwnColour = JSON.stringify(element).includes('"colour"');
      const faint = hasOwnColour ? runs.find((run) => run.text.trim() && isFaint(run, under)) : undefined;
      if (!faint) return [];
      const change: SingleChange = { kind: "setElement", slide: slide.id, element: readable(element, under) };
      const ratio = Math.round(contrast(faint.fill, under) * 10) / 10;
      return [
        {
          message: `“${faint.text.trim().slice(0, 40)}” has a contrast of ${ratio} : 1 with what is behind it.`,
          element: element.id,
          remedy: { label: "Make its colour readable", change: batch([change]) },
        },
      ];
    });
  },
};
