import type { PictureElement, Element } from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import { fromBase64 } from "../../../shared/archive";
import { REL } from "../package/names";
import { relativeTo } from "../package/parts";
import { blipXml, fillXml, geometryXml, shadowXml, transformXml, strokeXml } from "./drawing";
import { type ShapeWork, embedded, clickXml, standIn } from "./slidework";

/**
 * A dark picture, 16 to 9, as the poster of films and sounds without one: their element requires a picture (CT_Picture,
 * ECMA-376-1, 19.3.1.37).
 */
const DARK = fromBase64(
  "iVBORw0KGgoAAAANSUhEUgAAABAAAAAJCAMAAAAM9FwAAAAAA1BMVEUgMC6cp0AGAAAADElEQVR42mNgGKQAAACZAAF6xvHnAAAAAElFTkSuQmCC",
);

const PLAIN_RECT = '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom>';

/** Writes a dashed frame for a picture whose file is missing. */
function missingPicture(named: string, element: Extract<Element, { kind: "picture" }>, { frame }: ShapeWork): string {
  const line = '<a:ln w="9525"><a:solidFill><a:schemeClr val="tx2"/></a:solidFill><a:prstDash val="dash"/></a:ln>';
  return xml(
    "p:sp",
    {},
    xml("p:nvSpPr", {}, named, "<p:cNvSpPr/><p:nvPr/>"),
    xml("p:spPr", {}, transformXml(frame, element), `${PLAIN_RECT}<a:noFill/>${line}`),
    '<p:txBody><a:bodyPr/><a:lstStyle/><a:p><a:endParaRPr lang="en"/></a:p></p:txBody>',
  );
}

function recolourXml(recolour: PictureElement["recolour"]): string {
  switch (recolour) {
    case "grey":
      return "<a:grayscl/>";
    case "mono":
      return '<a:biLevel thresh="50000"/>';
    case "washout":
      return '<a:lum bright="70000" contrast="-70000"/>';
    default:
      return "";
  }
}

function cropXml(crop: PictureElement["crop"]): string {
  if (!crop) return "";
  const share = (value: number) => Math.round(value * 100000);
  const { left, top, right, bottom } = crop;
  return xml("a:srcRect", { l: share(left), t: share(top), r: share(right), b: share(bottom) });
}

/** Writes a picture with its caption. */
export function pictureShape(element: Extract<Element, { kind: "picture" }>, work: ShapeWork): string {
  const { id, name, frame, role, placeholder, line } = work;
  const caption = element.caption
    ? line(element.caption, { x: frame.x, y: frame.y + frame.height + 4, width: frame.width, height: 24 })
    : "";
  const base = xml("p:cNvPr", { id, name: element.name ?? name, descr: element.alt }, clickXml(element.link, work));
  const embed = embedded(work, element.source);
  if (embed === undefined) return missingPicture(base, element, work) + caption;
  const held = role === "picture" ? (placeholder() ?? "") : "";
  const effects =
    (element.fill ? fillXml(element.fill, (source) => embedded(work, source)) : "") +
    (element.stroke ? strokeXml(element.stroke) : "") +
    shadowXml(element.shadow);
  return (
    xml(
      "p:pic",
      {},
      xml("p:nvPicPr", {}, base, '<p:cNvPicPr><a:picLocks noChangeAspect="1"/></p:cNvPicPr>', xml("p:nvPr", {}, held)),
      xml(
        "p:blipFill",
        {},
        blipXml(
          embed,
          (element.opacity === undefined ? "" : xml("a:alphaModFix", { amt: Math.round(element.opacity * 100000) })) +
            recolourXml(element.recolour),
        ),
        cropXml(element.crop),
        "<a:stretch><a:fillRect/></a:stretch>",
      ),
      xml("p:spPr", {}, transformXml(frame, element), geometryXml(element.shape ?? { preset: "rect" }), effects),
    ) + caption
  );
}

/** Writes a film or sound: its source shape as it is, else a picture that plays it. */
export function mediaShape(element: Extract<Element, { kind: "media" }>, work: ShapeWork): string {
  const kept = work.sourceXml(element);
  if (kept !== undefined) return kept;
  const { id, name, frame, pack, relationships, path } = work;
  const file = embedded(work, element.source, element.type);
  if (file === undefined) return standIn(element.alt || (element.type === "video" ? "Film" : "Sound"), work);
  const poster = (element.poster === undefined ? undefined : embedded(work, element.poster)) ?? {
    id: relationships.add(REL.image, relativeTo(path, pack.picture("a film without a picture", DARK, "png"))),
  };
  const film = xml(element.type === "video" ? "a:videoFile" : "a:audioFile", { "r:link": file.id });
  return xml(
    "p:pic",
    {},
    xml(
      "p:nvPicPr",
      {},
      xml(
        "p:cNvPr",
        { id, name: element.name ?? name, descr: element.alt },
        '<a:hlinkClick r:id="" action="ppaction://media"/>',
      ),
      '<p:cNvPicPr><a:picLocks noChangeAspect="1"/></p:cNvPicPr>',
      xml("p:nvPr", {}, film),
    ),
    xml("p:blipFill", {}, blipXml(poster), "<a:stretch><a:fillRect/></a:stretch>"),
    xml("p:spPr", {}, transformXml(frame, element), '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom>'),
  );
}

/** Writes a foreign element: its source shape as it is, else its picture or its words. */
export function foreignShape(element: Extract<Element, { kind: "foreign" }>, work: ShapeWork): string {
  const kept = work.sourceXml(element);
  if (kept !== undefined) return kept;
  const picture = element.picture === undefined ? undefined : embedded(work, element.picture);
  if (picture === undefined)
    return standIn(
      [element.what, ...element.text.map(({ runs }) => runs.map(({ text }) => text).join(""))].join("\n"),
      work,
    );
  return xml(
    "p:pic",
    {},
    xml(
      "p:nvPicPr",
      {},
      xml("p:cNvPr", { id: work.id, name: element.name ?? work.name, descr: element.alt || element.what }),
      "<p:cNvPicPr/><p:nvPr/>",
    ),
    xml("p:blipFill", {}, blipXml(picture), "<a:stretch><a:fillRect/></a:stretch>"),
    xml("p:spPr", {}, transformXml(work.frame, element), '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom>'),
  );
}
