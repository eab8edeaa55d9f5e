import { type Frame, type Geometry, must } from "@unitext/core/model";
import SvgPath from "svgpath";
import { type XmlNode, attribute } from "../../../shared/xml";
import { points } from "../package/names";

/**
 * A hundredth of a millimetre in points: the unit of connector paths in files, which are in page coordinates and not in
 * their view box (common practice, no source).
 */
const HUNDREDTH = 72 / 2540;
const NEAR = 1;
const round = (value: number) => Math.round(value * 100) / 100;

/**
 * Returns the path of a connector (`draw:connector`, OpenDocument 1.3, part 3, 10.3.10) as a geometry in its bounding
 * frame, from its first end to its second; undefined for a straight one, and when no path is written.
 */
export function connectorForm(shape: XmlNode): { frame: Frame; geometry: Geometry } | undefined {
  const d = attribute(shape, "d") ?? "";
  if (attribute(shape, "type") === "line" || !d.trim() || d.length > 200_000) return undefined;
  const [x1, y1, x2, y2] = ["x1", "y1", "x2", "y2"].map((name) => points(attribute(shape, name)) ?? 0) as [
    number,
    number,
    number,
    number,
  ];
  const steps: [string, ...number[]][] = [];
  new SvgPath(d)
    .abs()
    .unshort()
    .unarc()
    .iterate(([name, ...values], _, x, y) => {
      if (name === "H") steps.push(["L", must(values[0]), y]);
      else if (name === "V") steps.push(["L", x, must(values[0])]);
      else steps.push([name, ...(values as number[])]);
    });
  const ends = steps.filter(({ length }) => length > 2);
  const [first, last] = [ends[0], ends.at(-1)];
  if (
    ends.length < 2 ||
    !first ||
    !last ||
    steps.flatMap(([, ...values]) => values).some((value) => !Number.isFinite(value))
  )
    return undefined;
  const [fromX, fromY] = [must(first[1]), must(first[2])];
  const [toX, toY] = last.slice(-2) as [number, number];
  const onPage = Math.abs(fromX * HUNDREDTH - x1) < NEAR && Math.abs(fromY * HUNDREDTH - y1) < NEAR;
  // Otherwise the path is stretched so that its ends meet those of the connector.
  const scale = (from: number, to: number, start: number, end: number) =>
    onPage || Math.abs(to - from) < 1e-6 ? HUNDREDTH : (end - start) / (to - from) || HUNDREDTH;
  const [sx, sy] = [scale(fromX, toX, x1, x2), scale(fromY, toY, y1, y2)];
  const place = (value: number, nth: number) => (nth % 2 === 0 ? x1 + (value - fromX) * sx : y1 + (value - fromY) * sy);
  const placed = steps.map(([name, ...values]) => ({ name, at: values.map(place) }));
  const all = placed.flatMap(({ at }) => at);
  const [xs, ys] = [all.filter((_, nth) => nth % 2 === 0), all.filter((_, nth) => nth % 2 === 1)];
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const [width, height] = [Math.max(0.1, Math.max(...xs) - left), Math.max(0.1, Math.max(...ys) - top)];
  if ([left, top, width, height].some((value) => Math.abs(value) > 40000)) return undefined;
  const written = placed
    .map(({ name, at }) => `${name}${at.map((value, nth) => round(value - (nth % 2 === 0 ? left : top))).join(" ")}`)
    .join("");
  return {
    frame: { x: round(left), y: round(top), width: round(width), height: round(height) },
    geometry: { width: round(width), height: round(height), paths: [{ d: written, fill: false, stroke: true }] },
  };
}
