import {
  cutText,
  type Bullet,
  type LevelStyle,
  type ParagraphProperties,
  type RunProperties,
  type SCHEMES,
  type Shadow,
  type Stroke,
  type TabStop,
  type TextBox,
  tabStop,
} from "@unitext/core/model";
import { child, childrenOf, localName, type XmlNode } from "../../../shared/xml";
import { attribute } from "../../../shared/xml";
import { clamp, points, turned } from "../package/names";

export type Values = Record<string, string>;
/** What a style says, those that it is based on included, by the local names of its attributes. */
export interface Properties {
  graphic: Values;
  paragraph: Values;
  text: Values;
  cell: Values;
  /** The list style that stands in it, or that it names. */
  list: XmlNode | string | undefined;
  columns: Values;
  tabs: TabStop[];
}
/** Kinds of tab stops (style:type, OpenDocument 1.3, part 3, 19.517; the number from memory). */
const TAB_TYPES: Record<string, "end" | "centre" | "decimal"> = { right: "end", center: "centre", char: "decimal" };
const none = (): Properties => ({
  graphic: {},
  paragraph: {},
  text: {},
  cell: {},
  list: undefined,
  columns: {},
  tabs: [],
});
const local = (name: string) => name.slice(name.indexOf(":") + 1);
const valuesOf = (element: XmlNode | undefined): Values =>
  Object.fromEntries(Object.entries(element?.attributes ?? {}).map(([name, value]) => [local(name), value]));
const round = (value: number) => Math.round(value * 100) / 100;

/** A share that ODF writes in percent. */
export function share(value: string | undefined): number | undefined {
  const [, number] = /^\s*(-?[\d.]+)\s*%\s*$/.exec(value ?? "") ?? [];
  return number === undefined || !Number.isFinite(Number(number)) ? undefined : Number(number) / 100;
}
export function colour(value: string | undefined): string | undefined {
  return value !== undefined && /^#[0-9a-f]{6}$/i.test(value) ? value.toLowerCase() : undefined;
}
/** A size over another: percent of it, or points. */
const sizeOver = (value: string, under: string | undefined): string => {
  const part = share(value);
  const whole = points(under);
  return part === undefined || whole === undefined ? value : `${whole * part}pt`;
};

function over(base: Properties, own: Properties): Properties {
  const text = { ...base.text, ...own.text };
  if (own.text["font-size"] !== undefined) text["font-size"] = sizeOver(own.text["font-size"], base.text["font-size"]);
  if (own.text["font-name"] !== undefined && own.text["font-family"] === undefined) delete text["font-family"];
  // A colour takes the place of the automatic one (20.393), which would hide it; what says both means the automatic one.
  if (own.text.color !== undefined && own.text["use-window-font-color"] === undefined)
    delete text["use-window-font-color"];
  return {
    graphic: { ...base.graphic, ...own.graphic },
    paragraph: { ...base.paragraph, ...own.paragraph },
    text,
    cell: { ...base.cell, ...own.cell },
    list: own.list ?? base.list,
    columns: { ...base.columns, ...own.columns },
    tabs: own.tabs.length ? own.tabs : base.tabs,
  };
}

/** What a style says by itself. */
function ownProperties(element: XmlNode): Properties {
  const graphic = child(element, "graphic-properties") as XmlNode | undefined;
  const paragraph = child(element, "paragraph-properties") as XmlNode | undefined;
  const page = child(element, "drawing-page-properties") as XmlNode | undefined;
  const list =
    (child(graphic, "list-style") as XmlNode | undefined) ?? (attribute(element, "list-style-name") || undefined);
  const tabs = childrenOf(child(paragraph, "tab-stops"), "tab-stop").flatMap((tab): TabStop[] => {
    const at = points(attribute(tab as XmlNode, "position"));
    const align = TAB_TYPES[attribute(tab as XmlNode, "type") ?? ""] ?? "start";
    return at === undefined ? [] : [tabStop(round(clamp(at, 0, 4032)), align)];
  });
  return {
    graphic: { ...valuesOf(page), ...valuesOf(graphic) },
    paragraph: valuesOf(paragraph),
    text: valuesOf(child(element, "text-properties") as XmlNode | undefined),
    cell: {
      ...valuesOf(child(element, "table-cell-properties") as XmlNode | undefined),
      ...valuesOf(child(element, "table-column-properties") as XmlNode | undefined),
      ...valuesOf(child(element, "table-row-properties") as XmlNode | undefined),
    },
    list,
    columns: valuesOf(child(graphic, "columns") as XmlNode | undefined),
    tabs: tabs.slice(0, 32),
  };
}

/** How the items of a list stand and are marked at a level. */
interface ListLevel {
  kind: "bullet" | "number" | "plain";
  properties: ParagraphProperties;
}

/** The styles and drawing definitions of a presentation (OpenDocument 1.3, part 3, 16), resolved through those that they are based on. */
export class OdpStyles {
  private readonly styles = new Map<string, XmlNode>();
  private readonly defaults = new Map<string, XmlNode>();
  private readonly lists = new Map<string, XmlNode>();
  private readonly known = new Map<string, Properties>();
  /** What styles say by themselves, what they say over properties, and levels of lists: each is made once. */
  private readonly alone = new Map<XmlNode, Properties>();
  private readonly saidOver = new WeakMap<Properties, Map<string, Properties>>();
  private readonly levels = new Map<XmlNode, (ListLevel | undefined)[]>();
  private readonly fonts = new Map<string, string>();
  /** Takes the picture in that is the sign of a level of a list. */
  sign: ((level: XmlNode) => string | undefined) | undefined;
  /** Gradients, hatches, pictures that fill, dashes and line ends by name. */
  readonly drawn = new Map<string, XmlNode>();

  add(holder: XmlNode | undefined): void {
    for (const element of holder?.children ?? []) {
      // Older programs name the templates of tables as if they were styles of text (common practice, no source).
      const name =
        attribute(element, "name") ??
        (localName(element) === "table-template" ? attribute(element, "style-name") : undefined) ??
        "";
      const kind = localName(element);
      if (kind === "style") this.styles.set(`${attribute(element, "family")} ${name}`, element);
      else if (kind === "default-style") this.defaults.set(attribute(element, "family") ?? "", element);
      else if (kind === "list-style") this.lists.set(name, element);
      else if (kind === "font-face")
        this.fonts.set(name, (attribute(element, "font-family") ?? name).replace(/^['"]|['"]$/g, ""));
      else this.drawn.set(`${kind} ${name}`, element);
    }
  }

  private own(element: XmlNode | undefined): Properties {
    if (!element) return none();
    const known = this.alone.get(element) ?? ownProperties(element);
    this.alone.set(element, known);
    return known;
  }

  /** The properties of a style; of the defaults alone where there is no style of the name. */
  properties(family: string, name: string | undefined, depth = 0): Properties {
    const key = `${family} ${name ?? ""}`;
    const known = this.known.get(key);
    if (known) return known;
    const element = name === undefined ? undefined : this.styles.get(key);
    const parent = attribute(element, "parent-style-name");
    const base =
      element && parent && depth < 20
        ? this.properties(this.styles.has(`${family} ${parent}`) ? family : "graphic", parent, depth + 1)
        : over(none(), this.own(this.defaults.get(family === "presentation" ? "graphic" : family)));
    const made = over(base, this.own(element));
    this.known.set(key, made);
    return made;
  }
  /** What a style says over given properties: its own words and those of its parents, without the defaults. */
  said(family: string, name: string | undefined, base: Properties): Properties {
    if (name === undefined) return base;
    const made = this.saidOver.get(base) ?? new Map<string, Properties>();
    this.saidOver.set(base, made);
    const key = `${family} ${name}`;
    const known = made.get(key) ?? this.overChain(family, name, base);
    made.set(key, known);
    return known;
  }
  private overChain(family: string, name: string, base: Properties): Properties {
    const chain: XmlNode[] = [];
    for (let next: string | undefined = name; next !== undefined && chain.length < 20; ) {
      const element: XmlNode | undefined = this.styles.get(`${family} ${next}`);
      if (!element) break;
      chain.unshift(element);
      next = attribute(element, "parent-style-name");
    }
    return chain.reduce((made, element) => over(made, this.own(element)), base);
  }
  parentOf(family: string, name: string | undefined): string | undefined {
    return attribute(this.styles.get(`${family} ${name ?? ""}`), "parent-style-name");
  }
  has(family: string, name: string): boolean {
    return this.styles.has(`${family} ${name}`);
  }
  list(given: XmlNode | string | undefined): XmlNode | undefined {
    return typeof given === "string" ? this.lists.get(given) : given;
  }
  family({ text }: Pick<Properties, "text">): string | undefined {
    const said =
      text["font-family"] ??
      (text["font-name"] === undefined ? undefined : (this.fonts.get(text["font-name"]) ?? text["font-name"]));
    return (
      said
        ?.split(",")[0]
        ?.trim()
        .replace(/^['"]|['"]$/g, "")
        .slice(0, 200) || undefined
    );
  }

  /** Text properties as a look; `automatic` is the colour that text without one of its own has where it is not the theme's. */
  runLook(properties: Properties, automatic?: string): RunProperties {
    const { text } = properties;
    const size = points(text["font-size"]);
    const own = (text["use-window-font-color"] === "true" ? undefined : colour(text.color)) ?? automatic;
    const font = this.family(properties);
    const line = text["text-underline-style"];
    const double = text["text-underline-type"] === "double";
    const underline: RunProperties["underline"] =
      !line || line === "none"
        ? undefined
        : double
          ? "double"
          : /bold|thick/.test(text["text-underline-width"] ?? "")
            ? "heavy"
            : line === "dotted"
              ? "dotted"
              : line === "wave"
                ? "wavy"
                : /dash/.test(line)
                  ? "dashed"
                  : "single";
    const highlight = colour(text["background-color"]);
    const spacing = points(text["letter-spacing"]);
    const [position = "", scale] = (text["text-position"] ?? "").split(/\s+/);
    const rise = position === "super" ? 0.33 : position === "sub" ? -0.33 : share(position);
    const language =
      text.language && text.language !== "none"
        ? `${text.language}${text.country && text.country !== "none" ? `-${text.country}` : ""}`
        : undefined;
    return {
      ...(size !== undefined && size >= 1 ? { size: round(clamp(size, 1, 4000)) } : {}),
      ...(own ? { colour: own } : {}),
      ...(font ? { font } : {}),
      ...(underline ? { underline } : {}),
      ...(text["text-transform"] === "uppercase"
        ? { caps: "all" as const }
        : text["font-variant"] === "small-caps"
          ? { caps: "small" as const }
          : {}),
      ...(highlight ? { highlight } : {}),
      ...(spacing ? { spacing: clamp(spacing, -100, 400) } : {}),
      ...(rise && scale !== "100%" ? { rise: clamp(rise, -1, 1) } : rise ? { rise: clamp(rise, -1, 1) } : {}),
      ...(language && /^[a-z]{2,3}(-[A-Z]{2})?$/.test(language) ? { language } : {}),
    };
  }

  /** Paragraph properties as a look, without what a list says of it. */
  paragraphLook({ paragraph, tabs }: Properties): ParagraphProperties {
    const gap = (value: string | undefined) => {
      const exact = points(value);
      return exact === undefined ? undefined : { points: clamp(exact, 0, 4000) };
    };
    const [before, after] = [
      gap(paragraph["margin-top"] ?? paragraph.margin),
      gap(paragraph["margin-bottom"] ?? paragraph.margin),
    ];
    const times = share(paragraph["line-height"]);
    const exact = points(paragraph["line-height"]);
    const right = points(paragraph["margin-right"]);
    const mode = paragraph["writing-mode"];
    return {
      ...(before ? { before } : {}),
      ...(after ? { after } : {}),
      ...(times !== undefined && times > 0
        ? { line: { times: clamp(times, 0.1, 20) } }
        : exact !== undefined && exact >= 1
          ? { line: { points: clamp(exact, 1, 4000) } }
          : {}),
      ...(right ? { right: clamp(right, -4032, 4032) } : {}),
      ...(tabs.length ? { tabs } : {}),
      ...(mode === "rl-tb" || mode === "rl" ? { direction: "rtl" as const } : {}),
    };
  }

  /** Where a paragraph outside of a list stands. */
  indents({ paragraph }: Properties): Pick<ParagraphProperties, "left" | "first"> {
    const left = points(paragraph["margin-left"] ?? paragraph.margin);
    const first = points(paragraph["text-indent"]);
    return {
      ...(left ? { left: clamp(left, -4032, 4032) } : {}),
      ...(first ? { first: clamp(first, -4032, 4032) } : {}),
    };
  }

  /** How the items of a list stand and are marked at a level, from 0; undefined where the style says nothing of it. */
  listLevel(given: XmlNode | string | undefined, level: number): ListLevel | undefined {
    const style = this.list(given);
    if (!style) return undefined;
    const known = this.levels.get(style) ?? [];
    this.levels.set(style, known);
    if (!(level in known)) known[level] = this.levelOf(style, level);
    return known[level];
  }
  private levelOf(style: XmlNode, level: number): ListLevel | undefined {
    const element = style.children.find((one) => Number(attribute(one, "level") ?? 1) === level + 1);
    if (!element) return undefined;
    const kind = localName(element);
    const properties = child(element, "list-level-properties") as XmlNode | undefined;
    const alignment = child(properties, "list-level-label-alignment") as XmlNode | undefined;
    const text = child(element, "text-properties") as XmlNode | undefined;
    const label = points(attribute(properties, "min-label-width")) ?? 0;
    const left = alignment
      ? (points(attribute(alignment, "margin-left")) ?? 0)
      : (points(attribute(properties, "space-before")) ?? 0) + label;
    const first = alignment ? (points(attribute(alignment, "text-indent")) ?? 0) : -label;
    const size = share(attribute(text, "font-size"));
    const own = attribute(text, "use-window-font-color") === "true" ? undefined : colour(attribute(text, "color"));
    const family = attribute(text, "font-family")
      ?.split(",")[0]
      ?.replace(/^['"]|['"]$/g, "");
    const rest = {
      ...(own ? { colour: own } : {}),
      ...(size && size !== 1 ? { size: clamp(size, 0.1, 4) } : {}),
      ...(family ? { font: cutText(family, 200) } : {}),
    };
    const indents = { left: round(clamp(left, -4032, 4032)), first: round(clamp(first, -4032, 4032)) };
    if (kind === "list-level-style-number") {
      const format = attribute(element, "num-format");
      if (!format) return { kind: "plain", properties: indents };
      const [prefix, suffix] = [attribute(element, "num-prefix") ?? "", attribute(element, "num-suffix") ?? ""];
      const wanted = `${prefix.trim().slice(-1) === "(" ? "(" : ""}${format}${suffix.trim().slice(0, 1)}`;
      const scheme: Bullet["scheme"] = (
        /^\(?[1aAiI][.)]?$/.test(wanted) ? wanted.replace(/^\((.)\.?$/, "$1") : "1."
      ) as (typeof SCHEMES)[number];
      return { kind: "number", properties: { ...indents, bullet: { scheme, ...rest } } };
    }
    const picture = kind === "list-level-style-image" ? this.sign?.(element) : undefined;
    if (picture !== undefined) return { kind: "bullet", properties: { ...indents, bullet: { picture } } };
    const sign = attribute(element, "bullet-char");
    return {
      kind: "bullet",
      properties: { ...indents, bullet: { ...(sign ? { character: sign.slice(0, 8) } : {}), ...rest } },
    };
  }
}

export function levelStyle(run: RunProperties, paragraph: ParagraphProperties, align: LevelStyle["align"]): LevelStyle {
  return {
    run: { size: 18, ...run },
    ...(Object.keys(paragraph).length ? { paragraph } : {}),
    ...(align ? { align } : {}),
  };
}

export const alignOf = (value: string | undefined, rtl = false): LevelStyle["align"] =>
  (({ center: "centre", end: "end", [rtl ? "left" : "right"]: "end" }) as Record<string, LevelStyle["align"]>)[
    value ?? ""
  ];

export function readStroke(graphic: Values, drawn: ReadonlyMap<string, XmlNode>): Stroke | undefined {
  const kind = graphic.stroke ?? "none";
  if (kind === "none") return undefined;
  const width = points(graphic["stroke-width"]) ?? 0;
  const opacity = share(graphic["stroke-opacity"]);
  const element = kind === "dash" ? drawn.get(`stroke-dash ${graphic["stroke-dash"]}`) : undefined;
  const long = (name: string) => {
    const value = attribute(element, name);
    return share(value) ?? (points(value) === undefined ? 1 : (points(value) as number) / Math.max(width, 0.5));
  };
  const two = element && Number(attribute(element, "dots2") ?? 0) > 0;
  const longest = element ? Math.max(long("dots1-length"), two ? long("dots2-length") : 0) : 0;
  const dash: Stroke["dash"] = !element
    ? undefined
    : two
      ? longest > 5
        ? "longdashdot"
        : "dashdot"
      : longest > 5
        ? "longdash"
        : longest > 1.5
          ? "dash"
          : "dot";
  const end = (side: "start" | "end"): Stroke["head"] => {
    const name = graphic[`marker-${side}`];
    if (!name) return undefined;
    const marker = drawn.get(`marker ${name}`);
    const label = `${name} ${attribute(marker, "display-name") ?? ""}`.toLowerCase();
    const d = attribute(marker, "d") ?? "";
    const form =
      /circle|oval|dot/.test(label) || /[ca]/i.test(d.slice(1))
        ? "oval"
        : /diamond|square/.test(label) || d === "m10 0 10 10-10 10-10-10z"
          ? "diamond"
          : /open|line/.test(label) || d === "m10 0-10 18 2 2 8-14 8 14 2-2z"
            ? "open"
            : /concave|stealth|barb/.test(label) || d === "m10 0-10 30 10-9 10 9z"
              ? "barbed"
              : "triangle";
    return {
      form,
      size: clamp(
        round((points(graphic[`marker-${side}-width`]) ?? 3 * Math.max(width, 1)) / Math.max(width, 1)),
        1,
        10,
      ),
    };
  };
  const [head, tail] = [end("start"), end("end")];
  return {
    colour: colour(graphic["stroke-color"]) ?? "#000000",
    width: round(clamp(width, 0, 1600)),
    ...(opacity !== undefined && opacity < 1 ? { opacity: clamp(opacity, 0, 1) } : {}),
    ...(dash ? { dash } : {}),
    ...(head ? { head } : {}),
    ...(tail ? { tail } : {}),
  };
}

export function readShadow(graphic: Values): Shadow | undefined {
  if (graphic.shadow !== "visible") return undefined;
  const [x, y] = [points(graphic["shadow-offset-x"]) ?? 0, points(graphic["shadow-offset-y"]) ?? 0];
  return {
    colour: colour(graphic["shadow-color"]) ?? "#808080",
    opacity: clamp(share(graphic["shadow-opacity"]) ?? 1, 0, 1),
    blur: clamp(points(graphic["shadow-blur"] ?? graphic.blur) ?? 0, 0, 1000),
    distance: clamp(round(Math.hypot(x, y)), 0, 1000),
    direction: turned(round((Math.atan2(y, x) * 180) / Math.PI)),
  };
}

/**
 * How text stands in a shape. Text of a “custom” shape breaks as its style says (fo:wrap-option); text of a box breaks at
 * its width unless the box grows with it (draw:auto-grow-width), whatever the default style of all shapes says.
 */
export function readBox({ graphic, paragraph, columns }: Properties, custom = false): TextBox {
  const inset = (side: string) =>
    round(
      clamp(
        points(graphic[`padding-${side}`] ?? graphic.padding) ?? (side === "left" || side === "right" ? 7.09 : 3.54),
        -4032,
        4032,
      ),
    );
  const anchor = ({ middle: "middle", bottom: "bottom", justify: "middle" } as Record<string, TextBox["anchor"]>)[
    graphic["textarea-vertical-align"] ?? ""
  ];
  const many = Number(columns["column-count"] ?? 1);
  const turn = paragraph["writing-mode"]?.startsWith("tb") ? (90 as const) : undefined;
  const shrinks = /shrink/.test(graphic["fit-to-size"] ?? "");
  return {
    insets: [inset("left"), inset("top"), inset("right"), inset("bottom")],
    ...(anchor ? { anchor } : {}),
    ...(many >= 2 && many <= 16
      ? { columns: Math.floor(many), gap: clamp(points(columns["column-gap"]) ?? 0, 0, 1000) }
      : {}),
    // A least height is that of a box that grows; files of some programs say no more (common practice, no source).
    fit: shrinks
      ? "shrink"
      : (graphic["auto-grow-height"] ?? ((points(graphic["min-height"]) ?? 0) > 0 && !custom ? "true" : "false")) ===
          "true"
        ? "grow"
        : "none",
    ...((custom ? graphic["wrap-option"] === "no-wrap" : graphic["auto-grow-width"] === "true") ? { wrap: false } : {}),
    ...(turn ? { turn } : {}),
  };
}
