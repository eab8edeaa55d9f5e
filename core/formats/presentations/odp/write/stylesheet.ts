import { type Align, type Theme, must, type TextStyle, type Bullet } from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import { length } from "../package/names";
import type { Attributes } from "./drawing";

/** Returns attributes as a key, undefined ones left out. */
function keyOf(attributes: Attributes): string {
  let key = "";
  for (const name in attributes) if (attributes[name] !== undefined) key += `${name}\u0003${attributes[name]}\u0004`;
  return key;
}

type Remembered<V> = Map<object | undefined, Map<string, V>>;

function rememberedIn<V>(all: Remembered<V>, key: string, of: object | undefined, make: () => V): V {
  let held = all.get(of);
  if (!held) all.set(of, (held = new Map()));
  const known = held.get(key);
  if (known !== undefined) return known;
  const made = make();
  held.set(key, made);
  return made;
}

/** The automatic styles of a part: equal ones are written once. */
export class StyleSheet {
  private readonly styles = new Map<string, { name: string; xml: string }>();
  private readonly names: Remembered<string> = new Map();
  private readonly contexts = new Map<Theme, Remembered<PartTextContext>>();
  constructor(private readonly prefix: string) {}

  private named(family: string, key: string, make: (name: string) => string): string {
    const known = this.styles.get(`${family} ${key}`);
    if (known) return known.name;
    const name = `${this.prefix}${family.slice(0, 1).toUpperCase()}${this.styles.size + 1}`;
    this.styles.set(`${family} ${key}`, { name, xml: make(name) });
    return name;
  }

  /** Returns the name of a style of a family with properties by element name; `inner` is the content of these. */
  style(
    family: string,
    properties: Record<string, Attributes>,
    inner: Record<string, string> = {},
    own: Attributes = {},
  ): string {
    const parts: [string, Attributes][] = [];
    let key = keyOf(own);
    for (const element in properties) {
      const attributes = must(properties[element]);
      const said = keyOf(attributes);
      if (!said && !inner[element]) continue;
      parts.push([element, attributes]);
      key += `\u0001${element}\u0002${said}\u0002${inner[element] ?? ""}`;
    }
    return this.named(family, key, (name) =>
      xml(
        "style:style",
        { "style:name": name, "style:family": family, ...own },
        ...parts.map(([element, attributes]) => xml(`style:${element}`, attributes, inner[element])),
      ),
    );
  }

  /** Returns the name of a data style (16.29). */
  data(element: string, attributes: Attributes, content: string): string {
    return this.named("number", JSON.stringify([element, attributes, content]), (name) =>
      xml(element, { "style:name": name, ...attributes }, content),
    );
  }

  /** Writes the style of a list by its levels. */
  list(levels: readonly ListLevel[]): string {
    return this.named("list", JSON.stringify(levels), (name) =>
      xml("text:list-style", { "style:name": name }, ...levels.map((level, nth) => levelXml(level, nth + 1))),
    );
  }

  /**
   * Returns the name of a style that is needed again and again for the same key and value: levels of a text, the
   * appearance of a cell.
   */
  remember(key: string, of: object | undefined, make: () => string): string {
    return rememberedIn(this.names, key, of, make);
  }
  /** Returns what writing text needs in a theme and with levels, shared by places with the same key. */
  context(key: string, theme: Theme, levels: TextStyle | undefined, make: () => PartTextContext): PartTextContext {
    let held = this.contexts.get(theme);
    if (!held) this.contexts.set(theme, (held = new Map()));
    return rememberedIn(held, key, levels, make);
  }

  xml(): string {
    return [...this.styles.values()].map(({ xml: own }) => own).join("");
  }
}

export interface ListLevel extends Bullet {
  kind: "bullet" | "number";
  before: number;
  label: number;
  /** The path of a picture bullet, and its height in points. */
  image?: { path: string; high: number };
}

function levelXml(
  { kind, character, scheme, colour, size, font, before, label, image }: ListLevel,
  level: number,
): string {
  if (image)
    return xml(
      "text:list-level-style-image",
      {
        "text:level": level,
        "xlink:href": image.path,
        "xlink:type": "simple",
        "xlink:show": "embed",
        "xlink:actuate": "onLoad",
      },
      xml("style:list-level-properties", {
        "text:space-before": length(before),
        "text:min-label-width": length(label),
        "fo:width": length(image.high),
        "fo:height": length(image.high),
        "style:vertical-pos": "middle",
        "style:vertical-rel": "line",
      }),
    );
  const properties = xml("style:list-level-properties", {
    "text:space-before": length(before),
    "text:min-label-width": length(label),
  });
  const look = xml("style:text-properties", {
    "fo:color": colour,
    "fo:font-family": font,
    "fo:font-size": size ? `${Math.round(size * 100)}%` : undefined,
  });
  if (kind === "bullet")
    return xml(
      "text:list-level-style-bullet",
      { "text:level": level, "text:bullet-char": character ?? (level % 2 ? "•" : "–") },
      properties,
      look,
    );
  const [, open = "", number = "1", close = "."] = /^(\(?)([1aAiI])(.*)$/.exec(scheme ?? "1.") ?? [];
  return xml(
    "text:list-level-style-number",
    {
      "text:level": level,
      "style:num-format": number,
      "style:num-prefix": open || undefined,
      "style:num-suffix": close || undefined,
    },
    properties,
    look,
  );
}

/** What writing text needs of its place; similar places share one. */
export interface PartTextContext {
  styles: StyleSheet;
  language: string;
  size: number;
  colour?: string;
  font?: string;
  codeFont: string;
  /** The colours of inline code and of links, where no level sets colours. */
  codeColour?: string;
  linkColour?: string;
  bold?: boolean;
  /** The colour of bullets, where no level sets it. */
  signs?: string;
  /** The bullets of the first level and of those below it, where no level sets them. */
  bullets?: readonly [first: string, below: string];
  /** The space before numbers in em, level by level, where one needs more than usual. */
  rooms?: readonly number[];
  /** Whether the shape around it sets size, colour and font. */
  said?: boolean;
  /** The alignment of paragraphs that set none. */
  align?: Align;
  /** The style of its levels, where a file gave it; sizes then come from there. */
  levels?: TextStyle;
  /** Returns the path of a picture in the file; undefined when it is missing. */
  picture?(source: string): string | undefined;
  /** Returns the target of a link in the file; undefined where its words stay without a link. */
  link(to: string): string | undefined;
}
