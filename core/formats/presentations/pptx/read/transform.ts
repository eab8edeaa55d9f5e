import type { Frame, Element } from "@unitext/core/model";
import { type XmlElement, child } from "../../../shared/xml";
import { EMU } from "../package/names";

/** The transform of a shape: its frame, rotation and mirroring. */
export interface Transform {
  frame: Frame;
  rotation: number;
  flipX: boolean;
  flipY: boolean;
}

const on = (value: string | undefined) => value === "1" || value === "true";
export const degrees = (value: string | undefined) => Math.round(((Number(value ?? 0) || 0) / 60000) * 1000) / 1000;
export const points = (value: string | undefined) => Math.round(((Number(value) || 0) / EMU) * 1000) / 1000;

/** No page is longer (ECMA-376: 56 inches); a file with greater lengths is wrong. */
const FAR = 20000;
const near = (value: number) => Math.max(-FAR, Math.min(FAR, value));

/** Reads a transform (`a:xfrm`); undefined without position and size. */
export function transformOf(transform: XmlElement | undefined): Transform | undefined {
  const off = child(transform, "off")?.attributes;
  const ext = child(transform, "ext")?.attributes;
  if (!transform || !off || !ext || [off.x, off.y, ext.cx, ext.cy].some((value) => !Number.isFinite(Number(value))))
    return undefined;
  const { rot, flipH, flipV } = transform.attributes;
  return {
    frame: {
      x: near(points(off.x)),
      y: near(points(off.y)),
      width: near(Math.abs(points(ext.cx))),
      height: near(Math.abs(points(ext.cy))),
    },
    rotation: degrees(rot),
    flipX: on(flipH),
    flipY: on(flipV),
  };
}

/**
 * Applies the transform of a group to a member (ECMA-376-1, 20.1.7.5): its child space is stretched to its frame, then
 * mirrored and rotated about its middle.
 */
export function inGroup(transform: XmlElement | undefined, { frame, rotation, flipX, flipY }: Transform): Transform {
  const group = transformOf(transform);
  const childOff = child(transform, "chOff")?.attributes;
  const childExt = child(transform, "chExt")?.attributes;
  if (!group || !childOff || !childExt) return { frame, rotation, flipX, flipY };
  const [cw, ch] = [points(childExt.cx), points(childExt.cy)];
  const sx = cw ? group.frame.width / cw : 1;
  const sy = ch ? group.frame.height / ch : 1;
  // A member rotated by about a quarter is stretched across its own axes.
  const across = Math.abs(Math.round(rotation / 90)) % 2 === 1;
  const [width, height] = across ? [frame.width * sy, frame.height * sx] : [frame.width * sx, frame.height * sy];
  let cx = group.frame.x + (frame.x + frame.width / 2 - points(childOff.x)) * sx;
  let cy = group.frame.y + (frame.y + frame.height / 2 - points(childOff.y)) * sy;
  const [gx, gy] = [group.frame.x + group.frame.width / 2, group.frame.y + group.frame.height / 2];
  let turned = rotation;
  if (group.flipX) [cx, turned] = [2 * gx - cx, -turned];
  if (group.flipY) [cy, turned] = [2 * gy - cy, -turned];
  const angle = (group.rotation * Math.PI) / 180;
  const [dx, dy] = [cx - gx, cy - gy];
  cx = gx + dx * Math.cos(angle) - dy * Math.sin(angle);
  cy = gy + dx * Math.sin(angle) + dy * Math.cos(angle);
  const round = (value: number) => Math.round(value * 1000) / 1000;
  return {
    frame: { x: round(cx - width / 2), y: round(cy - height / 2), width: round(width), height: round(height) },
    rotation: round(turned + group.rotation),
    flipX: flipX !== group.flipX,
    flipY: flipY !== group.flipY,
  };
}

/** Returns the fields of an element for a transform. */
export function transformFields({
  frame,
  rotation,
  flipX,
  flipY,
}: Transform): Pick<Element, "frame" | "rotation" | "flip"> {
  const turned = ((rotation % 360) + 360) % 360;
  return {
    frame,
    ...(turned ? { rotation: turned } : {}),
    ...(flipX || flipY ? { flip: flipX ? (flipY ? "xy" : "x") : "y" } : {}),
  };
}
