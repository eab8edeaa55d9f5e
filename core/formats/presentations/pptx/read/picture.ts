import type { Element, Geometry, PictureElement } from "@unitext/core/model";
import { at, child, localName, type XmlElement } from "../../../shared/xml";
import { fraction } from "./colour";
import { recolouredPicture, pictureIds, relationOf, readFill, fillElement, readGeometry, readShadow } from "./drawing";
import { shapeLine } from "./line";
import type { PptxFiles } from "./files";
import type { ShapeWork, ShapeBase } from "./shapework";
import { adapted, foreign, linkOf } from "./shapetext";

/** Returns the first file of a picture that can be shown, or why none can. */
export function pictured(work: ShapeWork, blip: XmlElement | undefined): ReturnType<PptxFiles["picture"]> {
  const ids = pictureIds(blip);
  for (const id of ids.slice(0, -1)) {
    const found = work.picture(id);
    if ("source" in found) return found;
  }
  return work.picture(ids.at(-1) ?? "");
}

/** The elements that lead to a film or sound (ECMA-376-1, 20.1.3). */
const MEDIA_FILES = ["videoFile", "audioFile", "wavAudioFile", "quickTimeFile"];

/** Reads a picture, film or sound. What cannot be shown becomes a foreign element, with a report. */
export function readPicture(
  work: ShapeWork,
  shape: XmlElement,
  base: ShapeBase,
  named: Record<string, string>,
): Element {
  const blip = at(shape, "blipFill", "blip");
  const found = pictured(work, blip);
  const name = named.name ?? "";
  const film = at(shape, "nvPicPr", "nvPr")?.children.find((part) => MEDIA_FILES.includes(localName(part)));
  if (film) return readMedia(work, film, base, named, "source" in found ? found.source : undefined);
  if ("why" in found) {
    adapted(work, `the picture “${name}”`, `${found.why}; an empty frame is shown instead, and a .pptx keeps it`);
    return foreign("picture", base, named, []);
  }
  if (found.drawn) adapted(work, `the picture “${name}”`, `${found.drawn}; a .pptx keeps them`);
  const source = recolouredPicture(found.source, blip, work.drawing);
  if (child(blip, "duotone") && source === found.source)
    adapted(
      work,
      `the two colours of the picture “${name}”`,
      "not drawn; a .pptx keeps them as long as the picture is not reformatted here",
    );
  const crop = readCrop(shape);
  const properties = child(shape, "spPr");
  const geometry = readGeometry(properties, base.frame ?? { x: 0, y: 0, width: 1, height: 1 }, () => {});
  const form: Geometry | undefined =
    geometry && !("preset" in geometry && geometry.preset === "rect") ? geometry : undefined;
  const opacity = child(blip, "alphaModFix");
  const recolour = readRecolour(blip);
  const stroke = shapeLine([properties], child(shape, "style"), work.drawing);
  const fill = readFill(fillElement(properties), work.drawing);
  const shadow = readShadow(properties, work.drawing);
  const link = linkOf(work, shape);
  return {
    kind: "picture",
    ...base,
    source,
    alt: named.descr ?? "",
    ...(crop ? { crop } : {}),
    ...(form ? { shape: form } : {}),
    ...(opacity ? { opacity: Math.max(0, Math.min(1, fraction(opacity.attributes.amt))) } : {}),
    ...(recolour ? { recolour } : {}),
    ...(stroke ? { stroke } : {}),
    ...(fill ? { fill } : {}),
    ...(shadow ? { shadow } : {}),
    ...(link ? { link } : {}),
  };
}

function readMedia(
  work: ShapeWork,
  film: XmlElement,
  base: ShapeBase,
  named: Record<string, string>,
  poster: string | undefined,
): Element {
  const isVideo = localName(film) === "videoFile" || localName(film) === "quickTimeFile";
  const media = work.media(relationOf(film, "link") ?? relationOf(film, "embed") ?? "");
  if (media)
    return {
      kind: "media",
      ...base,
      source: media.source,
      type: isVideo ? media.type : "audio",
      alt: named.descr ?? "",
      ...(poster ? { poster } : {}),
    };
  const what = isVideo ? "film" : "sound";
  adapted(work, `a ${what} “${named.name ?? ""}”`, "shown by its picture; a .pptx keeps it");
  return foreign(what, base, named, [], poster);
}

/** Returns the shares of a picture that are cut off at each side; undefined when nothing is. */
function readCrop(shape: XmlElement): PictureElement["crop"] {
  const { l, t, r, b } = at(shape, "blipFill", "srcRect")?.attributes ?? {};
  const share = (value: string | undefined) => (value ? fraction(value) : 0);
  const crop = { left: share(l), top: share(t), right: share(r), bottom: share(b) };
  return crop.left || crop.top || crop.right || crop.bottom ? crop : undefined;
}

function readRecolour(blip: XmlElement | undefined): PictureElement["recolour"] {
  if (child(blip, "grayscl")) return "grey";
  if (child(blip, "biLevel")) return "mono";
  return child(blip, "lum") ? "washout" : undefined;
}
