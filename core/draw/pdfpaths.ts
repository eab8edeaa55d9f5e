import { must } from "@unitext/core/model";
import type { FigurePath } from "@unitext/core/figures";
import svgpath from "svgpath";
import type { Document } from "./pdfdocument";
import { gradientLine, PATTERN_MARKS } from "./svg";

/** The number of layers that make a soft edge. */
const LAYERS = 20;

/** A clipping path that covers everything outside a drawing. */
const EVERYWHERE = "M-20000 -20000H20000V20000H-20000Z";

/**
 * Draws a path with a soft edge, for which PDF has no filter: outside, strokes of decreasing width, each adding its
 * share of the opacity; inside, all of it.
 */
function drawSoft(
  doc: Document,
  { d, fill, stroke, width = 1, fillOpacity, strokeOpacity }: FigurePath,
  by: number,
): void {
  const opacity = (fill ? fillOpacity : strokeOpacity) ?? 1;
  // This many layers together are as opaque as the edge itself.
  const share = 1 - (1 - opacity * (fill ? 0.7 : 1)) ** (1 / LAYERS);
  doc.save();
  if (fill) doc.path(`${d}${EVERYWHERE}`).clip("even-odd");
  doc.lineJoin("round").strokeOpacity(share);
  for (let nth = 0; nth < LAYERS; nth++) {
    // Distributed like a normal distribution (by its logistic approximation), with half the distance as its deviation.
    const left = (nth + 0.5) / LAYERS / 2;
    const reach = (by / 2) * (Math.log((1 - left) / left) / 1.702);
    doc
      .path(d)
      .lineWidth((fill ? 0 : width) + 2 * reach)
      .stroke(fill ?? stroke);
  }
  doc.restore();
  if (fill)
    doc
      .path(d)
      .fillOpacity(opacity * 0.85)
      .fill(fill);
}

/** Returns the marks of a pattern as page operators (ISO 32000-1, 8.5.2), in a square of 8 points. */
export function marksOf(pattern: keyof typeof PATTERN_MARKS): string {
  let text = "";
  svgpath(PATTERN_MARKS[pattern])
    .abs()
    .iterate(([kind, ...at], _, x, y) => {
      const to = kind === "H" ? [at[0], y] : kind === "V" ? [x, at[0]] : at;
      text += kind === "Z" ? "h\n" : `${to.join(" ")} ${kind === "M" ? "m" : "l"}\n`;
    });
  return `${text}f`;
}

/** Returns the colour or gradient of a path for pdfkit. */
function fillOf(doc: Document, { fill, paint }: FigurePath): string | PDFKit.Mixins.ColorValue | undefined {
  if (!paint) return fill;
  if (paint.fill.kind === "pattern")
    return [
      (doc as unknown as { pattern(...given: unknown[]): unknown }).pattern(
        [0, 0, 8, 8],
        8,
        8,
        marksOf(paint.fill.pattern),
      ),
      paint.fill.fore,
    ] as unknown as PDFKit.Mixins.ColorValue;
  const { frame } = paint;
  const { stops, form, angle } = paint.fill;
  const [cx, cy] = [frame.x + frame.width / 2, frame.y + frame.height / 2];
  const gradient =
    form === "radial"
      ? doc.radialGradient(cx, cy, 0, cx, cy, Math.max(frame.width, frame.height) / 2)
      : doc.linearGradient(...gradientLine(angle, frame));
  for (const { at, colour, opacity } of stops) gradient.stop(at, colour, opacity ?? 1);
  return gradient as unknown as PDFKit.Mixins.ColorValue;
}

/** Draws the outlines of a figure with their fills and strokes. */
export function drawPaths(doc: Document, paths: readonly FigurePath[]): void {
  for (const path of paths) {
    const { d, stroke, width, matrix, dash, fillOpacity, strokeOpacity } = path;
    doc.save();
    if (matrix) doc.transform(...matrix);
    if (path.blur) {
      drawSoft(doc, path, path.blur.by);
      doc.restore();
      continue;
    }
    const fill = fillOf(doc, path);
    if (path.paint?.fill.kind === "pattern") doc.path(d).fill(path.paint.fill.back);
    doc.path(d);
    if (stroke) doc.lineWidth(width ?? 1).lineJoin("round");
    if (stroke && dash) doc.dash(must(dash[0]), { space: (dash[1] ?? dash[0]) as number });
    if (fillOpacity !== undefined) doc.fillOpacity(fillOpacity);
    if (strokeOpacity !== undefined) doc.strokeOpacity(strokeOpacity);
    if (fill && stroke) doc.fillAndStroke(fill, stroke);
    else if (fill) doc.fill(fill);
    else if (stroke) doc.stroke(stroke);
    doc.restore();
  }
}
