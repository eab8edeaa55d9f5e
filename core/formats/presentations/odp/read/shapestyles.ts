import type { Element, RichText, TextStyle } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { type XmlNode, attribute } from "../../../shared/xml";
import { backgroundColour, isDark, LIGHT } from "./background";
import type { OdpStyles } from "./styles";
import { readShadow, readStroke } from "./graphics";
import type { Properties, Values } from "./properties";
import { readFill } from "./fill";
import type { TextReader } from "./text";
import { readStyledText } from "./styledtext";

/** What reading the shapes of a page or master needs. */
export interface ShapeWork {
  /** The page's number; null for masters. */
  number: number | null;
  styles: OdpStyles;
  text: TextReader;
  /** Whether the page is dark behind its shapes. */
  dark: boolean;
  /** Imports a picture, film or sound; returns its name in the deck. */
  picture(href: string | undefined, holder: XmlNode): string | undefined;
  media(href: string | undefined): { source: string; type: "video" | "audio" } | undefined;
  /** Returns the content of an embedded document. */
  object(href: string | undefined, holder: XmlNode): XmlNode | undefined;
  style(style: TextStyle): string;
  styled(name: string): TextStyle | undefined;
  size(source: string): { width: number; height: number } | undefined;
  /** Returns what a picture that must be converted becomes. */
  drawn(source: string): string | undefined;
  report: Pick<Report, "adapted" | "left">;
}

/** The fields of an element before its kind is known. */
export type Base = Pick<Element, "id" | "slot" | "sourceShape" | "groups" | "binding" | "name"> & { link?: string };

/** Reads the styles of shapes: fill, stroke, shadow and formatted text. */
export class ShapeStyles {
  private readonly onDark: TextReader;

  constructor(readonly work: ShapeWork) {
    this.onDark = { ...work.text, automatic: LIGHT };
  }

  /** Whether text of a shape is on something dark: the shape's fill, or else the page. */
  private darkUnder(graphic: Values): boolean {
    if (graphic.fill === undefined || graphic.fill === "none") return this.work.dark;
    const ground = backgroundColour(readFill(graphic, this.work.styles.drawn, () => undefined));
    return ground === undefined ? this.work.dark : isDark(ground);
  }

  /** Returns the properties of a shape's style; `outline` is the style name before the numbers of its levels. */
  properties(shape: XmlNode): { properties: Properties; outline?: string } {
    const { styles } = this.work;
    const presentation = attribute(shape, "presentation:style-name") ?? shape.attributes["presentation:style-name"];
    const family = presentation === undefined ? "graphic" : "presentation";
    const name = presentation ?? shape.attributes["draw:style-name"] ?? attribute(shape, "style-name");
    const properties = styles.properties(family, name);
    for (
      let next: string | undefined = name, depth = 0;
      next !== undefined && depth < 20;
      next = styles.parentOf(family, next), depth++
    ) {
      const [, base] = /^(.*outline)1$/i.exec(next) ?? [];
      if (base !== undefined) return { properties, outline: base };
    }
    return { properties };
  }

  paint(graphic: Values): Pick<Element, "fill" | "stroke" | "shadow"> {
    const { styles, picture } = this.work;
    const fill = readFill(graphic, styles.drawn, (image) => picture(attribute(image, "href"), image));
    const stroke = readStroke(graphic, styles.drawn);
    const shadow = readShadow(graphic);
    return { ...(fill ? { fill } : {}), ...(stroke ? { stroke } : {}), ...(shadow ? { shadow } : {}) };
  }

  /** Reads the text of a shape, with a name for its style. */
  text(
    children: readonly XmlNode[],
    properties: Properties,
    outline?: string,
    blank = false,
  ): { text: RichText; style: string } {
    const { text, style } = readStyledText(
      children,
      this.darkUnder(properties.graphic) ? this.onDark : this.work.text,
      properties,
      outline,
      blank,
    );
    return { text, style: this.work.style(style) };
  }

  /** Returns a style without bold and italic: cells may differ in these. */
  unmarked(style: string): string {
    const levels = this.work.styled(style) ?? [];
    return this.work.style(levels.map(({ strong: _, emphasis: __, ...level }) => level));
  }
}
