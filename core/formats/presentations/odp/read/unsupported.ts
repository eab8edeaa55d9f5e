import { child, type XmlNode, attribute } from "../../../shared/xml";

const walkable = (element: XmlNode): XmlNode[] => element.children.flatMap((inner) => [inner, ...walkable(inner)]);
const set = (value: string | undefined) =>
  value !== undefined && !/^(?:none|false|0(?:\.0+)?(?:pt|cm|mm|in|px)?)$/.test(value);

/**
 * Names the features of a shape and its style that Unitext neither draws nor models (OpenDocument 1.3, part 3, 19 and
 * 20, and extensions in use), for the report. `text` returns the properties of a text style.
 */
export function unsupportedFeatures(
  shape: XmlNode,
  graphic: Record<string, string>,
  text: (style: string) => Record<string, string>,
): string[] {
  const found = new Set<string>();
  if (set(graphic["glow-radius"])) found.add("the glow");
  if (set(graphic["softedge-radius"])) found.add("the soft edge");
  if (set(graphic["shadow-blur"])) found.add("the softness of the shadow");
  const geometry = child(shape, "enhanced-geometry");
  if (geometry && attribute(geometry, "extrusion") === "true") found.add("the depth");
  if (geometry && attribute(geometry, "text-path") === "true") found.add("the bent letters");
  for (const part of walkable(shape)) {
    const style = /^(?:span|p|h)$/.test(part.name.slice(part.name.indexOf(":") + 1))
      ? attribute(part, "style-name")
      : undefined;
    if (style === undefined) continue;
    const letters = text(style);
    if (letters["text-line-through-type"] === "double") found.add("the second line through letters");
    if (set(letters["text-outline"])) found.add("the outline of letters");
    if (set(letters["text-shadow"])) found.add("the shadow of letters");
    if (set(letters["font-relief"])) found.add("the relief of letters");
  }
  return [...found];
}
