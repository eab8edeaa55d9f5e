import { PathWriter } from "@unitext/core/figures";
import type { Geometry } from "@unitext/core/model";
import { type XmlNode, attribute } from "../../../shared/xml";
import { share } from "./properties";

const round = (value: number) => Math.round(value * 100) / 100;
const TURN = 60000;

/** Returns the geometry of an ellipse, or its sector, segment or arc. */
export function ellipseForm(shape: XmlNode): Geometry {
  const kind = attribute(shape, "kind") ?? "full";
  if (kind === "full") return { preset: "ellipse" };
  const [start, end] = [
    Number.parseFloat(attribute(shape, "start-angle") ?? "0") || 0,
    Number.parseFloat(attribute(shape, "end-angle") ?? "0") || 0,
  ];
  const writer = new PathWriter();
  const from = (-start * Math.PI) / 180;
  const sweep = -(((end - start) % 360) + 360) % 360 || -360;
  if (kind === "section") {
    writer.move(50, 50);
    writer.line(50 + 50 * Math.cos(from), 50 + 50 * Math.sin(from));
  } else writer.move(50 + 50 * Math.cos(from), 50 + 50 * Math.sin(from));
  writer.arc(50, 50, -start * TURN, sweep * TURN);
  if (kind !== "arc") writer.close();
  return { width: 100, height: 100, paths: [{ d: writer.d, fill: kind !== "arc", stroke: true }] };
}

/** Returns a regular polygon or a star (draw:regular-polygon). */
export function regular(shape: XmlNode): Geometry {
  const corners = Math.max(3, Math.min(100, Number(attribute(shape, "corners")) || 5));
  const inner =
    attribute(shape, "concave") === "true" ? 0.5 * (1 - (share(attribute(shape, "sharpness")) ?? 0.5)) : undefined;
  const count = inner === undefined ? corners : corners * 2;
  const pairs = Array.from({ length: count }, (_, nth) => {
    const angle = (2 * Math.PI * nth) / count - Math.PI / 2;
    const radius = inner !== undefined && nth % 2 ? inner : 0.5;
    return `${round(100 * (0.5 + radius * Math.cos(angle)))} ${round(100 * (0.5 + radius * Math.sin(angle)))}`;
  });
  return { width: 100, height: 100, paths: [{ d: `M${pairs.join("L")}Z`, fill: true, stroke: true }] };
}
