import { contrast, cutText, designTheme, Theme } from "@unitext/core/model";
import { at, child, type XmlElement } from "../../../shared/xml";

const SYSTEM: Record<string, string> = { windowText: "#000000", window: "#ffffff" };

function colour(element: XmlElement | undefined): string | undefined {
  const inner = element?.children[0];
  const value = inner?.attributes.val ?? "";
  if (/^[0-9a-f]{6}$/i.test(value)) return `#${value.toLowerCase()}`;
  const last = inner?.attributes.lastClr;
  return last && /^[0-9a-f]{6}$/i.test(last) ? `#${last.toLowerCase()}` : SYSTEM[value];
}

/** Reads the theme of a presentation: its colours by role through the master's map, its fonts where they ship. */
export function readTheme(part: XmlElement, master: XmlElement | undefined): Theme {
  const scheme = at(part, "themeElements", "clrScheme");
  const map = child(master, "clrMap")?.attributes ?? {};
  const role = (name: string, fallback: string) => colour(child(scheme, map[name] ?? fallback));
  const base = designTheme("plain");
  const fonts = at(part, "themeElements", "fontScheme");
  const face = (kind: "majorFont" | "minorFont", ours: string) => {
    const wanted = at(fonts, kind, "latin")?.attributes.typeface ?? "";
    return wanted || ours;
  };
  const paper = role("bg1", "lt1") ?? base.colours.paper;
  const ink = role("tx1", "dk1") ?? base.colours.ink;
  const accent = role("accent1", "accent1") ?? base.colours.accent;
  const theme = {
    ...base,
    name: part.attributes.name || "Theme of the file",
    colours: {
      paper,
      ink,
      accent,
      field: accent,
      onField: contrast(paper, accent) > contrast(ink, accent) ? paper : ink,
      second: role("accent2", "accent2") ?? base.colours.second,
      muted: role("tx2", "dk2") ?? base.colours.muted,
      link: role("hlink", "hlink") ?? base.colours.link,
    },
    fonts: { heading: face("majorFont", "Noto Sans"), body: face("minorFont", "Noto Sans"), code: base.fonts.code },
    design: "plain" as const,
  };
  return Theme.parse({ ...theme, name: cutText(theme.name, 80) });
}
