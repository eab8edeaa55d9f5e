import { type Stroke, must } from "@unitext/core/model";
import { type XmlElement, localName, child } from "../../../shared/xml";
import { colourIn } from "./colour";
import { type DrawingContext, fillElement, themed } from "./drawing";
import { points } from "./transform";

const ENDS: Record<string, NonNullable<Stroke["head"]>["form"]> = {
  triangle: "triangle",
  stealth: "barbed",
  arrow: "open",
  oval: "oval",
  diamond: "diamond",
};
const SIZES: Record<string, number> = { sm: 2, med: 3, lg: 5 };
const DASHES: Record<string, NonNullable<Stroke["dash"]>> = {
  dot: "dot",
  sysDot: "dot",
  dash: "dash",
  sysDash: "dash",
  lgDash: "longdash",
  dashDot: "dashdot",
  sysDashDot: "dashdot",
  lgDashDot: "longdashdot",
  lgDashDotDot: "longdashdot",
  sysDashDotDot: "longdashdot",
};

/** Reads a line (`a:ln`) over `base`; null when no line is drawn. */
export function readLine(
  line: XmlElement | undefined,
  context: DrawingContext,
  base?: Stroke,
): Stroke | null | undefined {
  if (!line) return base;
  const fill = fillElement(line);
  if (fill && localName(fill) === "noFill") return null;
  const seen =
    fill && localName(fill) === "gradFill"
      ? colourIn(child(child(fill, "gsLst"), "gs"), context.colours)
      : fill && localName(fill) === "pattFill"
        ? colourIn(child(fill, "fgClr"), context.colours)
        : fill && colourIn(fill, context.colours);
  if (!seen && !base) return undefined;
  const end = (name: string): Stroke["head"] => {
    const { type = "none", len = "med" } = child(line, name)?.attributes ?? {};
    return ENDS[type] ? { form: ENDS[type], size: SIZES[len] ?? 3 } : undefined;
  };
  const dash = DASHES[child(line, "prstDash")?.attributes.val ?? ""] ?? base?.dash;
  const [head, tail] = [end("headEnd") ?? base?.head, end("tailEnd") ?? base?.tail];
  const width = line.attributes.w === undefined ? (base?.width ?? 0.75) : points(line.attributes.w);
  const { colour, opacity } = seen ?? must(base);
  return {
    colour,
    width: Math.min(1600, Math.max(0, width)),
    ...(opacity === undefined ? {} : { opacity }),
    ...(dash ? { dash } : {}),
    ...(head ? { head } : {}),
    ...(tail ? { tail } : {}),
  };
}

/**
 * Returns the outline of a shape: its own over that of its style, else that of the placeholders that it inherits from.
 */
export function shapeLine(
  properties: readonly (XmlElement | undefined)[],
  style: XmlElement | undefined,
  context: DrawingContext,
): Stroke | undefined {
  const reference = child(style, "lnRef");
  const index = Number(reference?.attributes.idx ?? 0);
  let base: Stroke | undefined;
  if (reference && index) {
    const { element, context: own } = themed("lnStyleLst", index, reference, context);
    base = readLine(element, own) ?? undefined;
  }
  for (const own of properties) {
    const line = child(own, "ln");
    if (line) return readLine(line, context, base) ?? undefined;
  }
  return base;
}
