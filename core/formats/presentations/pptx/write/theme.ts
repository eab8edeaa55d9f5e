import type { Theme } from "@unitext/core/model";
import { xml, XML_HEAD } from "../../../shared/xml";
import { NS } from "../package/names";

const srgb = (colour: string) => xml("a:srgbClr", { val: colour.slice(1).toUpperCase() });

/** Mixes two colours; a share of 0 gives the first. */
function mix(a: string, b: string, share: number): string {
  const part = (at: number) =>
    Math.round(
      Number.parseInt(a.slice(at, at + 2), 16) * (1 - share) + Number.parseInt(b.slice(at, at + 2), 16) * share,
    );
  return `#${[1, 3, 5].map((at) => part(at).toString(16).padStart(2, "0")).join("")}`;
}

/** Writes the colour scheme by the format's roles: dark 1 and light 1 are ink and paper, dark 2 is the muted ink. */
function colourScheme({ name, colours: { paper, ink, accent, second, muted, link } }: Theme): string {
  const colours: [string, string][] = [
    ["dk1", ink],
    ["lt1", paper],
    ["dk2", muted],
    ["lt2", mix(paper, ink, 0.08)],
    ["accent1", accent],
    ["accent2", second],
    ["accent3", mix(accent, paper, 0.35)],
    ["accent4", mix(second, paper, 0.35)],
    ["accent5", mix(accent, ink, 0.4)],
    ["accent6", mix(second, ink, 0.4)],
    ["hlink", link],
    ["folHlink", mix(link, muted, 0.5)],
  ];
  return xml("a:clrScheme", { name }, ...colours.map(([role, colour]) => xml(`a:${role}`, {}, srgb(colour))));
}

function fontScheme({ name, fonts }: Theme): string {
  const font = (element: string, typeface: string) =>
    xml(element, {}, xml("a:latin", { typeface }), '<a:ea typeface=""/><a:cs typeface=""/>');
  return xml("a:fontScheme", { name }, font("a:majorFont", fonts.heading), font("a:minorFont", fonts.body));
}

const solid = '<a:solidFill><a:schemeClr val="phClr"/></a:solidFill>';
const line = (width: number) =>
  `<a:ln w="${width}" cap="flat" cmpd="sng" algn="ctr">${solid}<a:prstDash val="solid"/></a:ln>`;
const FORMATS = `<a:fillStyleLst>${solid.repeat(3)}</a:fillStyleLst><a:lnStyleLst>${line(6350)}${line(12700)}${line(19050)}</a:lnStyleLst><a:effectStyleLst>${"<a:effectStyle><a:effectLst/></a:effectStyle>".repeat(3)}</a:effectStyleLst><a:bgFillStyleLst>${solid.repeat(3)}</a:bgFillStyleLst>`;

/** Writes a theme part (ECMA-376-1, 14.2.7): colours, fonts and plain formats. */
export function themePart(theme: Theme): string {
  return (
    XML_HEAD +
    xml(
      "a:theme",
      { "xmlns:a": NS.a, name: theme.name },
      xml(
        "a:themeElements",
        {},
        colourScheme(theme),
        fontScheme(theme),
        xml("a:fmtScheme", { name: theme.name }, FORMATS),
      ),
      "<a:objectDefaults/>",
      "<a:extraClrSchemeLst/>",
    )
  );
}
