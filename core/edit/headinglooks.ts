import {
  canonical,
  type ElementOverride,
  type Frame,
  mixed,
  readableOn,
  type RunProperties,
  type TextBox,
  type TextElement,
  type Theme,
} from "@unitext/core/model";

/** What a heading look sets on the text's box and on its words. */
interface Parts {
  box?: ElementOverride;
  words?: Pick<RunProperties, "colour" | "highlight" | "caps" | "spacing" | "underline">;
}

/** A decorative look of a heading, in the colours of the deck's theme. Text contrasts with what is behind it (4.5:1). */
export interface HeadingLook {
  label: string;
  parts: (colours: Theme["colours"]) => Parts;
}

export const HEADING_LOOKS = {
  plain: { label: "Plain", parts: () => ({}) },
  filled: {
    label: "Filled",
    parts: ({ accent, paper }) => ({
      box: { fill: { kind: "solid", colour: accent } },
      words: { colour: readableOn(paper, accent) },
    }),
  },
  framed: {
    label: "Framed",
    parts: ({ accent }) => ({ box: { stroke: { colour: accent, width: 2.5 } } }),
  },
  tinted: {
    label: "Tinted",
    parts: ({ accent, paper, ink }) => {
      const tint = mixed(paper, accent, 0.16);
      return { box: { fill: { kind: "solid", colour: tint } }, words: { colour: readableOn(ink, tint) } };
    },
  },
  blended: {
    label: "Colour to colour",
    parts: ({ field, accent, onField }) => ({
      box: {
        fill: {
          kind: "gradient",
          form: "linear",
          angle: 0,
          stops: [
            { at: 0, colour: field },
            { at: 1, colour: mixed(field, accent, 0.4) },
          ],
        },
      },
      words: { colour: readableOn(readableOn(onField, field), mixed(field, accent, 0.4)) },
    }),
  },
  card: {
    label: "Card",
    parts: ({ paper, ink }) => ({
      box: {
        fill: { kind: "solid", colour: paper },
        shadow: { colour: ink, opacity: 0.3, blur: 10, distance: 3, direction: 90 },
      },
      words: { colour: readableOn(ink, paper) },
    }),
  },
  marker: {
    label: "Marker",
    parts: ({ second, paper, ink }) => {
      const highlight = mixed(paper, second, 0.35);
      return { words: { highlight, colour: readableOn(ink, highlight) } };
    },
  },
  capitals: {
    label: "Spaced capitals",
    parts: ({ accent, paper }) => ({ words: { caps: "all", spacing: 3, colour: readableOn(accent, paper) } }),
  },
  underlined: {
    label: "Underlined",
    parts: ({ accent, paper }) => ({ words: { underline: "heavy", colour: readableOn(accent, paper) } }),
  },
} as const satisfies Record<string, HeadingLook>;

export type HeadingLookName = keyof typeof HEADING_LOOKS;

/** How words are in a box of a heading look: in its middle, away from its edges by so many points. */
const BOX: TextBox = { anchor: "middle", insets: [16, 8, 16, 8] };

/** Everything that a heading look can set, and so what the next one takes away. */
const WORDS = ["colour", "highlight", "caps", "spacing", "underline"] as const;

/**
 * Returns a text with a heading look instead of the one that it has; its words, links and other properties stay. A box
 * that is filled or outlined has a frame of its own: `frame`, where the text has none.
 */
export function withHeadingLook(
  element: TextElement,
  name: HeadingLookName,
  { colours }: Theme,
  frame: Frame,
): TextElement {
  const { box, words = {} }: Parts = HEADING_LOOKS[name].parts(colours);
  const { fill: _, stroke: __, shadow: ___, box: own, ...bare } = element;
  const placed = box ? (own ?? BOX) : canonical(own) === canonical(BOX) ? undefined : own;
  const text = element.text.map((paragraph) => ({
    ...paragraph,
    runs: paragraph.runs.map(({ properties, ...run }) => {
      const kept = Object.fromEntries(
        Object.entries(properties ?? {}).filter(([key]) => !(WORDS as readonly string[]).includes(key)),
      );
      const next = { ...kept, ...words };
      return Object.keys(next).length ? { ...run, properties: next } : run;
    }),
  }));
  const { x, y, width, height } = element.frame ?? frame;
  return {
    ...bare,
    ...box,
    ...(box ? { frame: { x, y, width, height } } : {}),
    ...(placed ? { box: placed } : {}),
    text,
  };
}
