import {
  type RunProperties,
  type ParagraphProperties,
  type Bullet,
  tabParts,
  type TextStyle,
  type LevelStyle,
  must,
} from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import { emu } from "../package/names";
import { SCHEME_NAMES } from "../read/styles";
import { share, colourXml, type Embedded, blipXml } from "./drawing";

/** Returns the attributes and children of character properties, in the order of CT_TextCharacterProperties. */
export function runParts(look: RunProperties | undefined): {
  attributes: Record<string, string | number | undefined>;
  before: string;
  fonts: string;
} {
  if (!look) return { attributes: {}, before: "", fonts: "" };
  const UNDERLINE = {
    single: "sng",
    double: "dbl",
    heavy: "heavy",
    dotted: "dotted",
    dashed: "dash",
    wavy: "wavy",
  } as const;
  return {
    attributes: {
      sz: look.size === undefined ? undefined : Math.round(look.size * 100),
      u: look.underline && UNDERLINE[look.underline],
      cap: look.caps,
      spc: look.spacing === undefined ? undefined : Math.round(look.spacing * 100),
      baseline: look.rise === undefined ? undefined : share(look.rise),
    },
    before:
      (look.colour ? xml("a:solidFill", {}, colourXml(look.colour)) : "") +
      (look.highlight ? xml("a:highlight", {}, colourXml(look.highlight)) : ""),
    fonts: look.font ? xml("a:latin", { typeface: look.font }) + xml("a:cs", { typeface: look.font }) : "",
  };
}

const spacing = (name: string, value: ParagraphProperties["before"] | ParagraphProperties["line"]) =>
  !value
    ? ""
    : xml(
        name,
        {},
        "points" in value
          ? xml("a:spcPts", { val: Math.round(value.points * 100) })
          : xml("a:spcPct", { val: share(value.times) }),
      );

/**
 * Writes a bullet, in the order of CT_TextParagraphProperties; what the bullet `under` it sets and this one does not is
 * taken from the text.
 */
export function bulletXml(
  kind: "plain" | "bullet" | "number",
  bullet: Bullet | undefined,
  start: number | undefined,
  { embed, under }: { embed?: ((source: string) => Embedded | undefined) | undefined; under?: Bullet | undefined } = {},
): string {
  if (kind === "plain") return "<a:buNone/>";
  const parts =
    (bullet?.colour ? xml("a:buClr", {}, colourXml(bullet.colour)) : under?.colour ? "<a:buClrTx/>" : "") +
    (bullet?.size ? xml("a:buSzPct", { val: share(bullet.size) }) : under?.size ? "<a:buSzTx/>" : "");
  if (kind === "number")
    return `${parts}<a:buFontTx/>${xml("a:buAutoNum", { type: SCHEME_NAMES[bullet?.scheme ?? "1."], startAt: start })}`;
  const picture = bullet?.picture === undefined ? undefined : embed?.(bullet.picture);
  if (picture !== undefined) return `${parts}${xml("a:buBlip", {}, blipXml(picture))}`;
  return `${parts}${bullet?.font ? xml("a:buFont", { typeface: bullet.font }) : "<a:buFontTx/>"}${xml("a:buChar", { char: bullet?.character ?? "•" })}`;
}

/** Returns the attributes and spacing of paragraph properties. */
export function paragraphParts(look: ParagraphProperties | undefined): {
  attributes: Record<string, string | number | undefined>;
  spacing: string;
  tabs: string;
} {
  return {
    attributes: {
      marL: look?.left === undefined ? undefined : emu(look.left),
      marR: look?.right === undefined ? undefined : emu(look.right),
      indent: look?.first === undefined ? undefined : emu(look.first),
      rtl: look?.direction === undefined ? undefined : look.direction === "rtl" ? 1 : 0,
    },
    spacing: spacing("a:lnSpc", look?.line) + spacing("a:spcBef", look?.before) + spacing("a:spcAft", look?.after),
    tabs: look?.tabs?.length
      ? xml(
          "a:tabLst",
          {},
          ...look.tabs
            .map(tabParts)
            .map(({ at, align }) =>
              xml("a:tab", { pos: emu(at), algn: { start: "l", end: "r", centre: "ctr", decimal: "dec" }[align] }),
            ),
        )
      : "",
  };
}

/** Properties of a paragraph whose style sets none, because the master under it might. */
const STANDS: ParagraphProperties = {
  left: 0,
  first: 0,
  line: { times: 1 },
  before: { points: 0 },
  after: { points: 0 },
};

/** Writes a list style with each level of a text style. */
export function listStyleXml(style: TextStyle): string {
  const level = ({ run, paragraph, align, strong, emphasis }: LevelStyle, nth: number) => {
    const { attributes, before, fonts } = runParts(run);
    const own = paragraphParts({ ...STANDS, ...paragraph });
    // A master may give bullets a colour and size; where the style sets none, they follow the text.
    const bullet = paragraph?.bullet
      ? bulletXml(paragraph.bullet.scheme ? "number" : "bullet", paragraph.bullet, undefined, {
          under: { colour: "#000000", size: 1 },
        })
      : "<a:buClrTx/><a:buSzTx/>";
    return xml(
      `a:lvl${nth + 1}pPr`,
      {
        ...own.attributes,
        algn: align === "centre" ? "ctr" : (align === "end") !== (paragraph?.direction === "rtl") ? "r" : "l",
      },
      own.spacing,
      bullet,
      own.tabs,
      xml("a:defRPr", { ...attributes, b: strong ? 1 : 0, i: emphasis ? 1 : 0 }, before, fonts),
    );
  };
  const last = must(style.at(-1));
  return xml("a:lstStyle", {}, ...Array.from({ length: 9 }, (_, nth) => level(style[nth] ?? last, nth)));
}
