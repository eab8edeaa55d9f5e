import { stepTarget } from "../../shared/slides";
import {
  cutText,
  type Background,
  type Element,
  type Master,
  type Page,
  type TextStyle,
  valueHash,
} from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { linkTarget } from "@unitext/core/text";
import { child, childrenOf, type XmlNode, attribute } from "../../../shared/xml";
import type { AppearanceHashes } from "../../../shared/sourcepackage";
import { points, appearanceHashes } from "../package/names";
import { ElementReader, type PageWork } from "./elements";
import type { OdpFiles } from "./files";
import { backgroundColour, isDark } from "./background";
import { OdpStyles } from "./styles";
import { readFill } from "./fill";
import type { TextReader } from "./text";
import { ShapeStyles, type ShapeWork } from "./shapestyles";

/** Styles, texts and shapes as the parts of one side of the file see them. */
export interface Side {
  styles: OdpStyles;
  text: TextReader;
  shapes: ElementReader;
}

/**
 * The style of a page: its properties, whether it is dark behind its shapes, and the hashes of its background and
 * transition.
 */
export interface PageStyle {
  graphic: Record<string, string>;
  dark: boolean;
  hashes: AppearanceHashes;
}

/** What has been found in a presentation so far, and what reading the shapes of its pages and masters needs. */
export class OdpContext {
  readonly adapted: Report["adapted"] = [];
  readonly left: Report["left"] = [];
  /**
   * Pages and masters have automatic styles in their own parts, and a name may mean different things in each
   * (OpenDocument 1.3, part 3, 3.15.3, the number from memory).
   */
  readonly pages: Side;
  readonly masterSide: Side;
  /** The ids of the slides by the names of their pages. */
  readonly ids = new Map<string, string>();
  readonly textStyles: Record<string, TextStyle> = {};
  readonly masters: Record<string, Master> = {};
  readonly masterPages = new Map<string, XmlNode>();
  /** The fonts that the texts name. */
  readonly families = new Set<string>();
  /** The size of the pages in points, known with the metadata. */
  page: Page = { width: 0, height: 0 };
  private readonly mastersByName = new Map<string, Master>();
  private readonly pageStyles = new Map<string, PageStyle>();

  constructor(
    readonly files: OdpFiles,
    readonly newId: () => string,
  ) {
    [this.pages, this.masterSide] = [this.side(), this.side()];
  }

  /** Adds the styles of the file. */
  addStyles(styles: XmlNode | undefined, content: XmlNode): void {
    const [ofMasters, ofPages] = [child(styles, "automatic-styles"), child(content, "automatic-styles")];
    const shared = [child(styles, "font-face-decls"), child(content, "font-face-decls"), child(styles, "styles")];
    for (const holder of [...shared, ofMasters, ofPages]) this.pages.styles.add(holder);
    for (const holder of [...shared, ofPages, ofMasters]) this.masterSide.styles.add(holder);
    for (const master of childrenOf(child(styles, "master-styles"), "master-page"))
      this.masterPages.set(attribute(master, "name") ?? "", master);
  }

  private side(): Side {
    const styles = new OdpStyles();
    styles.sign = (level) => this.files.sign(attribute(level, "href"), level);
    const text: TextReader = { styles, target: (href) => this.target(href) };
    const shapes = new ElementReader({
      styles,
      text,
      files: this.files,
      adapted: this.adapted,
      families: this.families,
      newId: this.newId,
      target: (href) => this.target(href),
      actionTarget: (action, number) => this.actionTarget(action, number),
    });
    return { styles, text, shapes };
  }

  /** Reads the style of a page and its master, once for all pages with the same ones. */
  pageStyle(page: XmlNode): PageStyle {
    const [style, master] = [attribute(page, "style-name"), attribute(page, "master-page-name")];
    const key = JSON.stringify([style, master]);
    const known = this.pageStyles.get(key);
    if (known) return known;
    const { graphic } = this.pages.styles.properties("drawing-page", style);
    const own = (given: Record<string, string>) =>
      given.fill === undefined || given.fill === "none"
        ? undefined
        : readFill(given, this.pages.styles.drawn, () => undefined);
    const behind = this.masterSide.styles.properties(
      "drawing-page",
      attribute(this.masterPages.get(master ?? ""), "style-name"),
    ).graphic;
    const dark = isDark(
      backgroundColour(own(graphic) ?? (graphic["background-visible"] === "false" ? undefined : own(behind))),
    );
    const made = { graphic, dark, hashes: appearanceHashes(graphic) };
    this.pageStyles.set(key, made);
    return made;
  }

  background(graphic: Record<string, string>): Background | undefined {
    const fill = readFill(graphic, this.pages.styles.drawn, (image) =>
      this.files.file(attribute(image, "href"), image),
    );
    if (fill?.kind === "solid" && fill.opacity === undefined) return { colour: fill.colour };
    // A picture that is not repeated has the size that it says; one larger than the page covers it.
    const covers =
      fill?.kind === "picture" &&
      fill.opacity === undefined &&
      graphic.repeat === "no-repeat" &&
      (points(graphic["fill-image-width"]) ?? 0) >= this.page.width - 1 &&
      (points(graphic["fill-image-height"]) ?? 0) >= this.page.height - 1;
    return covers ? { picture: fill.source } : fill && { fill };
  }

  shapeWork({ styles, text }: Side, number: number | null, dark = false): ShapeWork {
    return {
      number,
      dark,
      styles,
      text,
      picture: (href, holder) => this.files.file(href, holder),
      media: (href) => this.files.media(href),
      object: (href, holder) => this.files.object(href, holder),
      style: (style) => {
        const name = valueHash(style);
        if (!this.textStyles[name]) for (const { run } of style) if (run?.font) this.families.add(run.font);
        this.textStyles[name] = style;
        return name;
      },
      styled: (name) => this.textStyles[name],
      size: (source) => this.files.size(source),
      drawn: (source) => this.files.drawn(source),
      report: this,
    };
  }

  /** Returns the master that a file draws behind a page, by name. */
  master(name: string | undefined, page: Record<string, string>): string {
    const element = this.masterPages.get(name ?? "");
    let drawn = this.mastersByName.get(name ?? "");
    if (!drawn) {
      const { styles, shapes } = this.masterSide;
      const { graphic } = styles.properties("drawing-page", attribute(element, "style-name"));
      const dark = isDark(backgroundColour(readFill(graphic, styles.drawn, () => undefined)));
      const work: PageWork = {
        number: 0,
        arrangement: "blank",
        tags: {},
        used: new Set(),
        footnotes: [],
        shapes: new ShapeStyles(this.shapeWork(this.masterSide, null, dark)),
        ours: false,
        elementOf: new Map(),
      };
      const elements = (element?.children ?? [])
        .flatMap((shape, nth) =>
          attribute(shape, "class") ? [] : shapes.elements(shape, String(nth), [], undefined, work),
        )
        .map(({ sourceShape: _, ...one }, nth) => ({ ...one, id: `m${nth + 1}` }) as Element);
      const background = this.background(graphic);
      drawn = {
        name: cutText(attribute(element, "display-name") ?? name ?? "", 300),
        ...(background ? { background } : {}),
        elements,
      };
      this.mastersByName.set(name ?? "", drawn);
    }
    const { background, ...rest } = drawn;
    const shown: Master = {
      ...rest,
      ...(background && page["background-visible"] !== "false" ? { background } : {}),
      elements: page["background-objects-visible"] === "false" ? [] : drawn.elements,
    };
    const sum = valueHash(shown);
    this.masters[sum] = shown;
    return sum;
  }

  /** Returns the target of an action: a page by name, or the next, previous, first or last. */
  private actionTarget(action: XmlNode, number: number): string | undefined {
    const step = /^(next|previous|first|last)-page$/.exec(attribute(action, "action") ?? "")?.[1];
    if (!step || number < 1) return this.target(attribute(action, "href") ?? "");
    const there = stepTarget(step, number, [...new Set(this.ids.values())]);
    if (there !== undefined && (step === "next" || step === "previous"))
      this.adapted.push({
        slide: number,
        what: `a link to the ${step} slide`,
        how: `it leads to the slide that is ${step} now, wherever it goes`,
      });
    return there === undefined ? undefined : `slide:${there}`;
  }

  /** Returns the target of a link: an address, or a page of the file by name. */
  target(href: string): string | undefined {
    if (!href.startsWith("#")) return linkTarget(href);
    const page = this.ids.get(decodeURIComponent(href.slice(1)));
    return page === undefined ? undefined : `slide:${page}`;
  }
}
