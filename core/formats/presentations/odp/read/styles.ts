import {
  cutText,
  type Bullet,
  type LevelStyle,
  type ParagraphProperties,
  type RunProperties,
  type SCHEMES,
} from "@unitext/core/model";
import { child, localName, type XmlNode, attribute } from "../../../shared/xml";
import { clamp, points } from "../package/names";
import { type Properties, none, ownProperties, over, colour, share, round } from "./properties";

/** The indents and markers of a list's items at a level. */
interface ListLevel {
  kind: "bullet" | "number" | "plain";
  properties: ParagraphProperties;
}

/** The styles and drawing definitions of a presentation (OpenDocument 1.3, part 3, 16), with inheritance resolved. */
export class OdpStyles {
  private readonly styles = new Map<string, XmlNode>();
  private readonly defaults = new Map<string, XmlNode>();
  private readonly lists = new Map<string, XmlNode>();
  private readonly known = new Map<string, Properties>();
  /** Cached: what styles set themselves, what they set over given properties, and levels of lists. */
  private readonly alone = new Map<XmlNode, Properties>();
  private readonly saidOver = new WeakMap<Properties, Map<string, Properties>>();
  private readonly levels = new Map<XmlNode, (ListLevel | undefined)[]>();
  private readonly fonts = new Map<string, string>();
  /** Imports the picture bullet of a list level. */
  sign: ((level: XmlNode) => string | undefined) | undefined;
  /** Gradients, hatches, fill pictures, dashes and line ends by name. */
  readonly drawn = new Map<string, XmlNode>();

  add(holder: XmlNode | undefined): void {
    for (const element of holder?.children ?? []) {
      // Older programs refer to table templates as if they were text styles (common practice, no source).
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

  /** Returns the properties of a style; those of the defaults alone when there is none of this name. */
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
  /** Returns what a style and its parents set over given properties, without the defaults. */
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

  /** Returns text properties as run properties; `automatic` is the default text colour where it is not the theme's. */
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

  /** Returns paragraph properties without those of a list. */
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

  /** Returns the indents of a paragraph outside lists. */
  indents({ paragraph }: Properties): Pick<ParagraphProperties, "left" | "first"> {
    const left = points(paragraph["margin-left"] ?? paragraph.margin);
    const first = points(paragraph["text-indent"]);
    return {
      ...(left ? { left: clamp(left, -4032, 4032) } : {}),
      ...(first ? { first: clamp(first, -4032, 4032) } : {}),
    };
  }

  /**
   * Returns the indents and markers of a list's items at a level, counted from 0; undefined when the style sets none.
   */
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
    const properties = child(element, "list-level-properties");
    const alignment = child(properties, "list-level-label-alignment");
    const text = child(element, "text-properties");
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

/** Returns the style of a text level without empty parts. */
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
