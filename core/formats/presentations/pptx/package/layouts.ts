import {
  bulletAt,
  type FontSet,
  INDENT,
  type PlacedRegion,
  regionPlaces,
  type RoleProperties,
  roleProperties,
  sizeOf,
  slideTheme,
  slotPlaces,
  themeOnField,
} from "@unitext/core/layout";
import {
  regionWords,
  type ArrangementName,
  ARRANGEMENTS,
  type DeckMetadata,
  escapeXml,
  type Frame,
  languageDirection,
  type SlotRole,
  type Theme,
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

/** How the text of a level is written. Sizes and gaps are in points. */
interface LevelOptions {
  bullet?: { character: string; colour: string };
  font: string;
  /** The colour as XML. */
  colour: string;
  appearance?: Pick<RoleProperties, "strong" | "italic" | "capitals" | "spacing">;
  align?: keyof typeof SIDE;
  gap?: number;
  line?: number;
  rtl?: boolean;
}

function level(nth: number, size: number, options: LevelOptions): string {
  const { bullet, font, colour, appearance } = options;
  const step = size * INDENT;
  return xml(
    `a:lvl${nth + 1}pPr`,
    {
      marL: bullet ? emu((nth + 1) * step) : 0,
      indent: bullet ? -emu(step) : 0,
      algn: (options.rtl ? SIDE_FROM_RIGHT : SIDE)[options.align ?? "start"],
      defTabSz: 914400,
      rtl: options.rtl ? 1 : 0,
      eaLnBrk: 1,
      latinLnBrk: 0,
      hangingPunct: 1,
    },
    xml("a:lnSpc", {}, xml("a:spcPct", { val: Math.round((options.line ?? 1.05) * 100000) })),
    xml("a:spcBef", {}, xml("a:spcPts", { val: Math.round((options.gap ?? 0) * size * 100) })),
    bullet
      ? `<a:buClr>${bullet.colour}</a:buClr><a:buFont typeface="Arial"/>${xml("a:buChar", { char: bullet.character })}`
      : "<a:buNone/>",
    xml(
      "a:defRPr",
      {
        sz: Math.round(size * 100),
        b: appearance?.strong ? 1 : 0,
        i: appearance?.italic ? 1 : undefined,
        cap: appearance?.capitals ? "all" : undefined,
        spc: appearance?.spacing ? Math.round(appearance.spacing * size * 100) : undefined,
        kern: 1200,
      },
      `<a:solidFill>${colour}</a:solidFill><a:latin typeface="${escapeXml(font)}"/>${font.startsWith("+") ? `<a:ea typeface="${font.replace("lt", "ea")}"/><a:cs typeface="${font.replace("lt", "cs")}"/>` : ""}`,
    ),
  );
}

/** The theme's colours in the format: dark 1 is ink, dark 2 the muted ink. */
const SCHEME = { ink: "tx1", muted: "tx2", accent: "accent1", second: "accent2" } as const;
const srgb = (colour: string) => xml("a:srgbClr", { val: colour.slice(1).toUpperCase() });

/** What text is on: the theme of the deck, and the one that has the colours of its surface. */
interface Surroundings {
  metadata: DeckMetadata;
  theme: Theme;
  fonts: FontSet;
}

/** Returns a colour of the theme as XML: by its role on paper, as itself on a field. */
const colourXml = (role: keyof typeof SCHEME, { metadata, theme }: Surroundings): string =>
  theme === metadata.theme ? xml("a:schemeClr", { val: SCHEME[role] }) : srgb(theme.colours[role]);

function styleOf(role: SlotRole, on: Surroundings, align: keyof typeof SIDE): string {
  const { metadata, theme, fonts } = on;
  const size = sizeOf(role, theme, metadata.page);
  const { font, family, fill, colour, hasOwnFont, hasOwnColour, line, gap, ...appearance } = roleProperties(
    role,
    theme,
    fonts,
  );
  return Array.from({ length: 9 }, (_, nth) =>
    level(nth, size, {
      ...(role === "body" ? { bullet: { character: bulletAt(nth, theme), colour: colourXml("accent", on) } } : {}),
      font: hasOwnFont ? family : font === "heading" ? "+mj-lt" : "+mn-lt",
      colour: hasOwnColour ? srgb(fill) : colourXml(colour, on),
      appearance,
      align,
      gap,
      line,
      rtl: languageDirection(metadata.language) === "rtl",
    }),
  ).join("");
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

/** Returns the placeholders for footer and number; with places they say where they are and how they are set. */
export function regionShapes(
  metadata: DeckMetadata,
  firstId: number,
  shown: { footer: boolean; number: boolean },
  places?: Record<"footer" | "number", PlacedRegion>,
): string {
  const sides = languageDirection(metadata.language) === "rtl" ? SIDE_FROM_RIGHT : SIDE;
  const style = (region: "footer" | "number") => {
    const place = places?.[region];
    if (!place) return "<a:lstStyle/>";
    const look = xml(
      "a:defRPr",
      { sz: Math.round(place.size * 100), b: place.strong ? 1 : 0 },
      xml("a:solidFill", {}, srgb(place.colour)),
      xml("a:latin", { typeface: place.font === "heading" ? "+mj-lt" : "+mn-lt" }),
    );
    return xml("a:lstStyle", {}, xml("a:lvl1pPr", { algn: sides[place.align] }, look));
  };
  const body = places ? insets("middle") : "";
  const words = regionWords(metadata, "footer");
  const footer = words
    ? xml("a:p", {}, xml("a:r", {}, xml("a:rPr", { lang: metadata.language }), `<a:t>${escapeXml(words)}</a:t>`))
    : '<a:p><a:endParaRPr lang="en"/></a:p>';
  const number = `<a:p><a:fld id="${NUMBER_FIELD}" type="slidenum"><a:rPr lang="en"/><a:t>‹#›</a:t></a:fld><a:endParaRPr lang="en"/></a:p>`;
  return (
    (shown.footer
      ? placeholderShape(
          firstId,
          "Footer",
          { type: "ftr", sz: "quarter", idx: 11 },
          style("footer") + footer,
          places?.footer.frame,
          body,
        )
      : "") +
    (shown.number
      ? placeholderShape(
          firstId + 1,
          "Number",
          { type: "sldNum", sz: "quarter", idx: 12 },
          style("number") + number,
          places?.number.frame,
          body,
        )
      : "")
  );
}

/** Returns the line at the top as a text of the layout: the format has no placeholder for it on slides. */
function headerShape(metadata: DeckMetadata, { frame, align, size, font, strong, colour }: PlacedRegion): string {
  const sides = languageDirection(metadata.language) === "rtl" ? SIDE_FROM_RIGHT : SIDE;
  const look = xml(
    "a:rPr",
    { lang: metadata.language, sz: Math.round(size * 100), b: strong ? 1 : 0 },
    xml("a:solidFill", {}, srgb(colour)),
    xml("a:latin", { typeface: font === "heading" ? "+mj-lt" : "+mn-lt" }),
  );
  const words = xml("a:r", {}, look, `<a:t>${escapeXml(regionWords(metadata, "header"))}</a:t>`);
  return xml(
    "p:sp",
    {},
    `<p:nvSpPr><p:cNvPr id="${FIRST_PLACEHOLDER + 90}" name="Header"/><p:cNvSpPr txBox="1"/><p:nvPr userDrawn="1"/></p:nvSpPr>`,
    xml("p:spPr", {}, transform(frame), '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom><a:noFill/>'),
    xml("p:txBody", {}, insets("middle"), "<a:lstStyle/>", xml("a:p", {}, xml("a:pPr", { algn: sides[align] }), words)),
  );
}

/** The first id of the placeholders of a layout; the shapes of the design come before. */
const FIRST_PLACEHOLDER = 1000;

/**
 * Returns a slide layout part for an arrangement: what the design draws, as XML of background and shapes, a placeholder
 * for each slot, footer and number.
 */
export function layoutPart(
  arrangement: ArrangementName,
  metadata: DeckMetadata,
  fonts: FontSet,
  design: { background: string; shapes: string },
): string {
  const theme = slideTheme({ arrangement }, { theme: metadata.theme });
  const own = { metadata, theme, fonts };
  const onField = { metadata, theme: themeOnField(metadata.theme), fonts };
  const places = slotPlaces(arrangement, metadata);
  const shapes = [...places].map(([slot, { frame, role, anchor, align, surface }], nth) =>
    placeholderShape(
      FIRST_PLACEHOLDER + nth,
      `${slot} ${nth + 2}`,
      placeholderOf(slot, role),
      `<a:lstStyle>${styleOf(role, surface === "field" && theme === metadata.theme ? onField : own, align)}</a:lstStyle>${prompt(PROMPT[role])}`,
      frame,
      insets(anchor),
    ),
  );
  const shown = arrangement !== "opening" && arrangement !== "blank";
  const regions = regionShapes(
    metadata,
    FIRST_PLACEHOLDER + 80,
    { footer: shown, number: shown },
    regionPlaces({ ...metadata, theme }),
  );
  const header =
    shown && regionWords(metadata, "header") ? headerShape(metadata, regionPlaces({ ...metadata, theme }).header) : "";
  const background = design.background || (theme === metadata.theme ? "" : backgroundOf(srgb(theme.colours.paper)));
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
      xml(
        "p:cSld",
        { name: ARRANGEMENTS[arrangement].label },
        background,
        xml("p:spTree", {}, GROUP, design.shapes, header, ...shapes, regions),
      ),
      "<p:clrMapOvr><a:masterClrMapping/></p:clrMapOvr>",
    )
  );
}

const backgroundOf = (colour: string) =>
  `<p:bg><p:bgPr><a:solidFill>${colour}</a:solidFill><a:effectLst/></p:bgPr></p:bg>`;
const BACKGROUND = backgroundOf('<a:schemeClr val="bg1"/>');
const COLOUR_MAP =
  '<p:clrMap bg1="lt1" tx1="dk1" bg2="lt2" tx2="dk2" accent1="accent1" accent2="accent2" accent3="accent3" accent4="accent4" accent5="accent5" accent6="accent6" hlink="hlink" folHlink="folHlink"/>';

/**
 * Returns the master part: title, body, footer and number, and the text styles that all layouts start from. Its `count`
 * layouts are numbered from `firstId`.
 */
export function masterPart(metadata: DeckMetadata, firstId: number, count: number, fonts: FontSet): string {
  const places = slotPlaces("points", metadata);
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
    regionShapes(metadata, 4, { footer: true, number: true }, regionPlaces(metadata)),
  );
  const other = Array.from({ length: 9 }, (_, nth) =>
    level(nth, 18, { font: "+mn-lt", colour: '<a:schemeClr val="tx1"/>' }),
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
        xml("p:titleStyle", {}, styleOf("title", { metadata, theme: metadata.theme, fonts }, "start")),
        xml("p:bodyStyle", {}, styleOf("body", { metadata, theme: metadata.theme, fonts }, "start")),
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
    level(nth, 12, { font: "+mn-lt", colour: '<a:schemeClr val="tx1"/>' }),
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
