import { stepTarget } from "../../shared/slides";
import {
  cutText,
  type ArrangementName,
  type Background,
  type Element,
  type Master,
  type TextStyle,
  valueHash,
  must,
} from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { at, child, childrenOf, type XmlElement } from "../../../shared/xml";
import { schemeColours } from "./colour";
import { Inheritance, shapesOf } from "./inherit";
import type { OpenedPackage } from "../package/package";
import { externalLink, type ReadContext } from "./text";
import { ShapeReader } from "./shape";
import type { ShapeWork, TaggedIdentity } from "./shapework";
import type { PptxFiles } from "./files";
import { backgroundOf } from "./slide";
import { schemeFonts, styleName } from "./styles";

/** What the slides of one layout share: the parts that they inherit from, and their colour map. */
export interface LayoutContext {
  inheritance: Inheritance;
  map: Record<string, string>;
}

/** What has been found in a presentation so far, and what reading the shapes of its parts needs. */
export class PartContexts {
  readonly adapted: Report["adapted"] = [];
  readonly left: Report["left"] = [];
  readonly styles: Record<string, TextStyle> = {};
  readonly masters: Record<string, Master> = {};
  /** The fonts that the texts name. */
  readonly families = new Set<string>();
  /** The ids of the slides by path. */
  readonly ids = new Map<string, string>();
  /** The language of the deck, known with its metadata. */
  language = "en";
  private readonly layouts = new Map<string, LayoutContext>();
  /** Colours and text styles by colour map. */
  private readonly schemes = new Map<
    Record<string, string>,
    { colours: { named: Map<string, string> }; styles: Map<string, TextStyle> }
  >();
  private readonly styleNames = new WeakMap<TextStyle, string>();

  /** `main` is the path of the presentation part. */
  constructor(
    readonly pack: OpenedPackage,
    readonly files: PptxFiles,
    readonly main: string,
  ) {}

  /** Returns the layout of a part whose inheritance was read. Throws when it was not. */
  layoutOf({ layoutPath }: Inheritance): LayoutContext {
    return must(this.layouts.get(layoutPath ?? ""));
  }

  /** Returns what a slide inherits, by its path. */
  inheritance(path: string): Inheritance {
    return this.inheritanceOfLayout(this.pack.related(path, "layout"));
  }

  inheritanceOfLayout(path: string | undefined): Inheritance {
    const layout = path ?? "";
    const known = this.layouts.get(layout)?.inheritance;
    if (known) return known;
    const inheritance = Inheritance.ofLayout(this.pack, path);
    const map = {
      ...(child(inheritance.master, "clrMap")?.attributes ?? {}),
      ...(at(inheritance.layout, "clrMapOvr", "overrideClrMapping")?.attributes ?? {}),
    };
    this.layouts.set(layout, { inheritance, map });
    for (const part of [inheritance.layoutPath, inheritance.masterPath])
      if (part !== undefined) this.files.bulletsOf(part);
    return inheritance;
  }

  /** Counts the fonts of an element, so that each replaced font is reported once. */
  noteFonts(element: Element): Element {
    if (element.kind === "text" || element.kind === "shape")
      for (const { runs } of element.text)
        for (const { properties } of runs) if (properties?.font) this.families.add(properties.font);
    return element;
  }

  /** Returns the path of a part of the package that a relationship leads to; undefined when it has none. */
  private relatedPart(path: string, id: string): string | undefined {
    const target = this.pack.relationships(path).get(id);
    return target && !target.external && this.pack.has(target.target) ? target.target : undefined;
  }

  shapeWork(
    path: string,
    number: number | null,
    inheritance: Inheritance,
    map: Record<string, string>,
    arrangement: ArrangementName,
    kept: ReadonlyMap<string, TaggedIdentity>,
    newId: (shape: string) => string,
  ): ShapeWork {
    const scheme = this.schemes.get(map) ?? {
      colours: { named: schemeColours(inheritance.theme, map) },
      styles: new Map<string, TextStyle>(),
    };
    this.schemes.set(map, scheme);
    const { colours } = scheme;
    const picture = (id: string) => this.files.picture(path, id);
    return {
      number,
      inheritance,
      colours,
      styles: {
        colours,
        fonts: schemeFonts(inheritance.theme),
        sign: (id, mark) => this.files.sign(path, id, mark),
        language: this.language,
      },
      arrangement,
      tags: kept,
      link: this.linker(path, number ?? 0),
      newId,
      picture,
      drawing: this.files.drawing(path, colours, inheritance),
      media: (id) => this.files.media(path, id),
      legacy: (shape) => this.files.legacy(path, shape),
      part: (id) => {
        const target = this.relatedPart(path, id);
        return target === undefined ? undefined : this.pack.tree(target);
      },
      within: (id, own) => {
        const target = this.relatedPart(path, id);
        return target === undefined
          ? undefined
          : this.shapeWork(target, null, inheritance, map, "blank", new Map(), own);
      },
      styleOf: (key, make) => {
        const known = scheme.styles.get(key) ?? make();
        scheme.styles.set(key, known);
        return known;
      },
      style: (style) => {
        const name = this.styleNames.get(style) ?? styleName(style);
        this.styleNames.set(style, name);
        if (!this.styles[name]) for (const { run } of style) if (run?.font) this.families.add(run.font);
        this.styles[name] = style;
        return name;
      },
      defaults: child(this.pack.tree(this.main), "defaultTextStyle"),
      tableStyle: (id) => this.tableStyle(id),
      report: this,
    };
  }

  tableStyle(id: string): XmlElement | undefined {
    const path = this.pack.related(this.main, "tableStyles");
    return path && this.pack.has(path)
      ? childrenOf(this.pack.tree(path), "tblStyle").find(({ attributes }) => attributes.styleId === id)
      : undefined;
  }

  /** Returns the master that a layout and its master draw behind a slide, by name. */
  master(inheritance: Inheritance, layout: LayoutContext): string {
    const drawn: Element[] = [];
    let background: Background | undefined;
    const part = (path: string | undefined, tree: XmlElement | undefined, which: string) => {
      if (!path || !tree) return;
      const work = this.shapeWork(
        path,
        null,
        inheritance,
        layout.map,
        "blank",
        new Map(),
        (shape) => `${which}${shape.replace(/\./g, "-")}`,
      );
      background = backgroundOf(tree, work.drawing) ?? background;
      drawn.push(
        ...new ShapeReader(work)
          .read(shapesOf(tree))
          .map(({ sourceShape: _, ...element }) => this.noteFonts(element as Element)),
      );
    };
    const hides = inheritance.layout?.attributes.showMasterSp === "0";
    part(inheritance.masterPath, inheritance.master, "m");
    if (hides) drawn.length = 0;
    part(inheritance.layoutPath, inheritance.layout, "l");
    return this.named({
      name: cutText(inheritance.layoutName, 300),
      ...(background ? { background } : {}),
      elements: drawn,
    });
  }

  emptyMaster(inheritance: Inheritance, layout: LayoutContext): string {
    const { background } = must(this.masters[this.master(inheritance, layout)]);
    return this.named({
      name: cutText(inheritance.layoutName, 300),
      ...(background ? { background } : {}),
      elements: [],
    });
  }

  named(master: Master): string {
    const name = valueHash(master);
    this.masters[name] = master;
    return name;
  }

  linker(path: string, number: number): ReadContext["link"] {
    return (id, action) => {
      const relationship = this.pack.relationships(path).get(id);
      if (relationship && !relationship.external && this.ids.has(relationship.target))
        return `slide:${this.ids.get(relationship.target)}`;
      const step = /hlinkshowjump\?jump=(next|previous|first|last)slide/.exec(action)?.[1];
      const there = step && number > 0 ? stepTarget(step, number, [...this.ids.values()]) : undefined;
      if (there !== undefined) {
        if (step === "next" || step === "previous")
          this.adapted.push({
            slide: number,
            what: `a link to the ${step} slide`,
            how: `it leads to the slide that is ${step} now, wherever it goes`,
          });
        return `slide:${there}`;
      }
      const link = relationship?.external ? externalLink(relationship.target) : undefined;
      if (!link)
        this.left.push({
          slide: number,
          what: "a link",
          why: /hlinkfile|hlinkpres|program|macro|ole/.test(action)
            ? "it opens a file, a program or a macro of the computer on which it was made; its words stay, and a .pptx keeps it as long as they stay as they are"
            : "it leads nowhere that a slide can open; its words stay",
        });
      return link;
    };
  }
}
