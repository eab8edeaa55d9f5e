import { type Slide, type RichText, plainText, NUMBER_SIGN, type Element } from "@unitext/core/model";
import { footnoteText } from "../../../shared/sourcepackage";
import { type Work, textFrame, contextFor, inLevels } from "./frame";
import { textXml } from "./text";

/** Writes the box that lists a page's footnotes. */
export function footnotesFrame(work: Work): string {
  const { metadata, theme, notes } = work;
  const size = theme.scale.footer * 1.1;
  const height = notes.length * size * 1.5;
  const { width, height: tall } = metadata.page;
  return textFrame(
    textXml(footnoteText(notes), contextFor(work, size)),
    { name: "footnotes", frame: { x: width * 0.065, y: tall * 0.92 - height, width: width * 0.87, height }, size },
    work,
  );
}

/** Writes the placeholders for footer, number and date of each page on its master (OpenDocument 1.3, 9.10). */
const FIELDS = {
  footer: { className: "footer", field: "<presentation:footer/>" },
  number: { className: "page-number", field: undefined },
  date: { className: "date-time", field: "<presentation:date-time/>" },
} as const;

/** Writes a footer, number or date where the slide's file places it, on the slide or on its master. */
export function regionFrames(work: Work, regions: Slide["regions"], onMaster = false): { name: string; xml: string }[] {
  return (regions ?? []).map(({ region, text, frame, style, box }, nth) => {
    const levels = style === undefined ? undefined : work.metadata.styles?.[style];
    const context = contextFor(work, 12, inLevels(levels));
    const words: RichText = plainText(region === "number" && !text.includes(NUMBER_SIGN) ? NUMBER_SIGN : text);
    const { className, field } = FIELDS[region];
    const written =
      onMaster && field ? textXml(plainText("\uE000"), context).replace("\uE000", field) : textXml(words, context);
    const element: Element = {
      kind: "text",
      id: "region",
      slot: null,
      frame,
      text: words,
      ...(style ? { style } : {}),
      ...(box ? { box } : {}),
    };
    const name = `${region} ${nth + 1}`;
    return {
      name,
      xml: textFrame(
        written,
        { name, frame, size: 12, ...(onMaster ? { presentation: className } : {}) },
        work,
        element,
      ),
    };
  });
}
