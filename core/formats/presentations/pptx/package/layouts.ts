import {
  type FontSet,
  INDENT,
  layoutSlide,
  pageScale,
  roleProperties,
  type SceneNode,
  sizeOf,
  mirroredOnPage,
  slotPlaces,
} from "@unitext/core/layout";
import {
  type ArrangementName,
  ARRANGEMENTS,
  type DeckMetadata,
  escapeXml,
  type Frame,
  newSlide,
  type SlotRole,
  languageDirection,
} from "@unitext/core/model";
import { xml, XML_HEAD } from "../../../shared/xml";
import { emu, layoutType, NS, NUMBER_FIELD, type Placeholder, placeholderOf } from "./names";

export const ARRANGEMENT_ORDER = Object.keys(ARRANGEMENTS) as ArrangementName[];
export const namespaces = { "xmlns:a": NS.a, "xmlns:r": NS.r, "xmlns:p": NS.p };
export const GROUP =
  '<p:nvGrpSpPr><p:cNvPr id="1" name=""/><p:cNvGrpSpPr/><p:nvPr/></p:nvGrpSpPr><p:grpSpPr><a:xfrm><a:off x="0" y="0"/><a:ext cx="0" cy="0"/><a:chOff x="0" y="0"/><a:chExt cx="0" cy="0"/></a:xfrm></p:grpSpPr>';

/** Returns the position and size of a shape (`a:xfrm`) in EMU. */
export function transform({ x, y, width, height }: Frame): string {
  return `<a:xfrm><a:off x="${emu(x)}" y="${emu(y)}"/><a:ext cx="${emu(width)}" cy="${emu(height)}"/></a:xfrm>`;
}

/** Returns a placeholder shape; without a frame its layout positions it. */
export function placeholderShape(
  id: number,
  name: string,
  placeholder: Placeholder,
  body: string,
  frame?: Frame,
  insets = "",
): string {
  return xml(
    "p:sp",
    {},
    xml(
      "p:nvSpPr",
      {},
      xml("p:cNvPr", { id, name }),
      '<p:cNvSpPr><a:spLocks noGrp="1"/></p:cNvSpPr>',
      xml("p:nvPr", {}, xml("p:ph", { ...placeholder })),
    ),
    xml("p:spPr", {}, frame ? transform(frame) : "", frame ? '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom>' : ""),
    xml("p:txBody", {}, insets || "<a:bodyPr/>", body),
  );
}

const ANCHOR = { top: "t", middle: "ctr", bottom: "b" } as const;
const insets = (anchor: keyof typeof ANCHOR) =>
  `<a:bodyPr vert="horz" lIns="0" tIns="0" rIns="0" bIns="0" rtlCol="0" anchor="${ANCHOR[anchor]}"><a:normAutofit/></a:bodyPr>`;

const SIDE = { start: "l", centre: "ctr", end: "r" } as const;
const SIDE_FROM_RIGHT = { start: "r", centre: "ctr", end: "l" } as const;

function level(
  nth: number,
  size: number,
  options: {
    bulleted: boolean;
    font: string;
    colour: string;
    bold?: boolean;
    align?: keyof typeof SIDE;
    gap?: number;
    line?: number;
    rtl?: boolean;
  },
): string {
  const step = size * INDENT;
  return xml(
    `a:lvl${nth + 1}pPr`,
    {
      marL: options.bulleted ? emu((nth + 1) * step) : 0,
      indent: options.bulleted ? -emu(step) : 0,
      algn: (options.rtl ? SIDE_FROM_RIGHT : SIDE)[options.align ?? "start"],
      defTabSz: 914400,
      rtl: options.rtl ? 1 : 0,
      eaLnBrk: 1,
      latinLnBrk: 0,
      hangingPunct: 1,
    },
    xml("a:lnSpc", {}, xml("a:spcPct", { val: Math.round((options.line ?? 1.05) * 100000) })),
    xml("a:spcBef", {}, xml("a:spcPts", { val: Math.round((options.gap ?? 0) * size * 100) })),
    options.bulleted
      ? `<a:buClr><a:schemeClr val="accent1"/></a:buClr><a:buFont typeface="Arial"/><a:buChar char="${nth % 2 ? "–" : "•"}"/>`
      : "<a:buNone/>",
    xml(
      "a:defRPr",
      { sz: Math.round(size * 100), b: options.bold ? 1 : 0, kern: 1200 },
      `<a:solidFill><a:schemeClr val="${options.colour}"/></a:solidFill><a:latin typeface="${options.font}"/><a:ea typeface="${options.font.replace("lt", "ea")}"/><a:cs typeface="${options.font.replace("lt", "cs")}"/>`,
    ),
  );
}

const COLOUR = { ink: "tx1", muted: "tx2", accent: "accent1" } as const;

function styleOf(role: SlotRole, metadata: DeckMetadata, align: keyof typeof SIDE, fonts: FontSet): string {
  const size = sizeOf(role, metadata.theme, metadata.page);
  const { font, colour, strong, line, gap } = roleProperties(role, metadata.theme, fonts);
  const options = {
    bulleted: role === "body",
    font: font === "heading" ? "+mj-lt" : "+mn-lt",
    colour: COLOUR[colour],
    bold: strong,
    align,
    gap,
    line,
    rtl: languageDirection(metadata.language) === "rtl",
  };
  return Array.from({ length: 9 }, (_, nth) => level(nth, size, options)).join("");
}

const PROMPT: Record<SlotRole, string> = {
  opening: "Title",
  title: "Title",
  subtitle: "Author, event, date",
  body: "Points",
  statement: "Statement",
  number: "Number",
  caption: "Caption",
  picture: "Picture",
  figure: "Table or figure",
  references: "References",
  corner: "Name",
  name: "Name",
};
const prompt = (text: string) => `<a:p><a:r><a:rPr lang="en"/><a:t>${text}</a:t></a:r></a:p>`;

/** Returns the placeholders for footer and number, with their frames when `framed`. */
export function regionShapes(
  metadata: DeckMetadata,
  firstId: number,
  framed: boolean,
  shown: { footer: boolean; number: boolean },
): string {
  const scale = pageScale(metadata.page);
  const side = metadata.page.width * 0.065;
  const y = metadata.page.height - 36 * scale;
  const size = Math.round(metadata.theme.scale.footer * scale * 100);
  const sides = languageDirection(metadata.language) === "rtl" ? SIDE_FROM_RIGHT : SIDE;
  const placed = (frame: Frame) =>
    languageDirection(metadata.language) === "rtl" ? mirroredOnPage(frame, metadata.page) : frame;
  const style = (algn: string) =>
    framed
      ? `<a:lstStyle><a:lvl1pPr algn="${algn}"><a:defRPr sz="${size}"><a:solidFill><a:schemeClr val="tx2"/></a:solidFill></a:defRPr></a:lvl1pPr></a:lstStyle>`
      : "<a:lstStyle/>";
  const body = framed ? insets("top") : "";
  const footer = metadata.regions.footer
    ? xml(
        "a:p",
        {},
        xml("a:r", {}, xml("a:rPr", { lang: metadata.language }), `<a:t>${escapeXml(metadata.regions.footer)}</a:t>`),
      )
    : '<a:p><a:endParaRPr lang="en"/></a:p>';
  const number = `<a:p><a:fld id="${NUMBER_FIELD}" type="slidenum"><a:rPr lang="en"/><a:t>‹#›</a:t></a:fld><a:endParaRPr lang="en"/></a:p>`;
  return (
    (shown.footer
      ? placeholderShape(
          firstId,
          "Footer",
          { type: "ftr", sz: "quarter", idx: 11 },
          style(sides.start) + footer,
          framed ? placed({ x: side, y, width: metadata.page.width * 0.7, height: 22 * scale }) : undefined,
          body,
        )
      : "") +
    (shown.number
      ? placeholderShape(
          firstId + 1,
          "Number",
          { type: "sldNum", sz: "quarter", idx: 12 },
          style(sides.end) + number,
          framed
            ? placed({ x: metadata.page.width - side - 72 * scale, y, width: 72 * scale, height: 22 * scale })
            : undefined,
          body,
        )
      : "")
  );
}

function rectangle(node: Extract<SceneNode, { kind: "rect" }>, id: number, metadata: DeckMetadata): string {
  const scheme =
    node.fill === metadata.theme.colours.accent
      ? '<a:schemeClr val="accent1"/>'
      : xml("a:srgbClr", { val: node.fill.slice(1).toUpperCase() });
  return xml(
    "p:sp",
    {},
    xml("p:nvSpPr", {}, xml("p:cNvPr", { id, name: `Ornament ${id}` }), "<p:cNvSpPr/>", '<p:nvPr userDrawn="1"/>'),
    xml(
      "p:spPr",
      {},
      transform(node),
      '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom>',
      xml("a:solidFill", {}, scheme),
      "<a:ln><a:noFill/></a:ln>",
    ),
    xml("p:txBody", {}, "<a:bodyPr/><a:lstStyle/>", '<a:p><a:endParaRPr lang="en"/></a:p>'),
  );
}

/** Returns a slide layout part for an arrangement: ornaments, a placeholder for each slot, footer and number. */
export function layoutPart(arrangement: ArrangementName, metadata: DeckMetadata, fonts: FontSet): string {
  const places = slotPlaces(arrangement, metadata.page, languageDirection(metadata.language));
  const scene = layoutSlide(newSlide("layout", arrangement), { metadata, number: 1, fonts });
  const ornaments = scene.nodes
    .filter((node) => node.kind === "rect")
    .map((node, nth) => rectangle(node, 100 + nth, metadata));
  const shapes = [...places].map(([slot, { frame, role, anchor, align }], nth) =>
    placeholderShape(
      nth + 2,
      `${slot} ${nth + 2}`,
      placeholderOf(slot, role),
      `<a:lstStyle>${styleOf(role, metadata, align, fonts)}</a:lstStyle>${prompt(PROMPT[role])}`,
      frame,
      insets(anchor),
    ),
  );
  const shown = arrangement !== "opening" && arrangement !== "blank";
  const tree = xml(
    "p:spTree",
    {},
    GROUP,
    ...ornaments,
    ...shapes,
    regionShapes(metadata, 80, false, { footer: shown, number: shown }),
  );
  return (
    XML_HEAD +
    xml(
      "p:sldLayout",
      {
        ...namespaces,
        type: layoutType(arrangement),
        preserve: 1,
        userDrawn: 1,
      },
      xml("p:cSld", { name: ARRANGEMENTS[arrangement].label }, tree),
      "<p:clrMapOvr><a:masterClrMapping/></p:clrMapOvr>",
    )
  );
}

const BACKGROUND = '<p:bg><p:bgPr><a:solidFill><a:schemeClr val="bg1"/></a:solidFill><a:effectLst/></p:bgPr></p:bg>';
const COLOUR_MAP =
  '<p:clrMap bg1="lt1" tx1="dk1" bg2="lt2" tx2="dk2" accent1="accent1" accent2="accent2" accent3="accent3" accent4="accent4" accent5="accent5" accent6="accent6" hlink="hlink" folHlink="folHlink"/>';

/**
 * Returns the master part: title, body, footer and number, and the text styles that all layouts start from. Its `count`
 * layouts are numbered from `firstId`.
 */
export function masterPart(metadata: DeckMetadata, firstId: number, count: number, fonts: FontSet): string {
  const places = slotPlaces("points", metadata.page, languageDirection(metadata.language));
  const shape = (id: number, slot: string, placeholder: Placeholder, role: SlotRole) =>
    placeholderShape(
      id,
      `${slot} ${id}`,
      placeholder,
      `<a:lstStyle/>${prompt(PROMPT[role])}`,
      places.get(slot)?.frame,
      insets(places.get(slot)?.anchor ?? "top"),
    );
  const tree = xml(
    "p:spTree",
    {},
    GROUP,
    shape(2, "title", { type: "title" }, "title"),
    shape(3, "body", { type: "body", idx: 1 }, "body"),
    regionShapes(metadata, 4, true, { footer: true, number: true }),
  );
  const other = Array.from({ length: 9 }, (_, nth) =>
    level(nth, 18, { bulleted: false, font: "+mn-lt", colour: "tx1" }),
  ).join("");
  const layouts = Array.from({ length: count }, (_, nth) =>
    xml("p:sldLayoutId", { id: firstId + nth, "r:id": `rId${nth + 1}` }),
  );
  return (
    XML_HEAD +
    xml(
      "p:sldMaster",
      namespaces,
      xml("p:cSld", {}, BACKGROUND, tree),
      COLOUR_MAP,
      xml("p:sldLayoutIdLst", {}, ...layouts),
      xml(
        "p:txStyles",
        {},
        xml("p:titleStyle", {}, styleOf("title", metadata, "start", fonts)),
        xml("p:bodyStyle", {}, styleOf("body", metadata, "start", fonts)),
        xml("p:otherStyle", {}, other),
      ),
    )
  );
}

/** Returns the notes master part: the slide above, the notes below, on a portrait page of 540 by 720 points. */
export function notesMasterPart(): string {
  const picture = xml(
    "p:sp",
    {},
    '<p:nvSpPr><p:cNvPr id="2" name="Slide"/><p:cNvSpPr><a:spLocks noGrp="1" noRot="1" noChangeAspect="1"/></p:cNvSpPr><p:nvPr><p:ph type="sldImg" idx="2"/></p:nvPr></p:nvSpPr>',
    xml(
      "p:spPr",
      {},
      transform({ x: 54, y: 54, width: 432, height: 243 }),
      '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom>',
    ),
  );
  const body = placeholderShape(
    3,
    "Notes",
    { type: "body", sz: "quarter", idx: 3 },
    `<a:lstStyle/>${prompt("Notes")}`,
    { x: 54, y: 324, width: 432, height: 342 },
    "<a:bodyPr/>",
  );
  const styles = Array.from({ length: 9 }, (_, nth) =>
    level(nth, 12, { bulleted: false, font: "+mn-lt", colour: "tx1" }),
  ).join("");
  return (
    XML_HEAD +
    xml(
      "p:notesMaster",
      namespaces,
      xml("p:cSld", {}, BACKGROUND, xml("p:spTree", {}, GROUP, picture, body)),
      COLOUR_MAP,
      xml("p:notesStyle", {}, styles),
    )
  );
}
