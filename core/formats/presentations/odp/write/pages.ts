import { boxesOf, type FontSet, slotPlaces } from "@unitext/core/layout";
import {
  type ArrangementName,
  ARRANGEMENTS,
  type Comment,
  cutText,
  type Deck,
  type DeckMetadata,
  deckLink,
  type Element,
  escapeXml,
  type Footnote,
  metadataOf,
  isEmptyText,
  slidePropertiesOf,
  nameOf,
  type Slide,
  slideLink,
  themeOf,
  must,
} from "@unitext/core/model";
import { strToU8 } from "fflate";
import { xml, XML_HEAD } from "../../../shared/xml";
import { flattenRuns, footnoteText, needsExtendedRuns, type AppearanceHashes } from "../../../shared/sourcepackage";
import { masterRegions, standsOnMaster } from "../../shared/regions";
import { EXTENSIONS, isLines, stillPictures } from "../../../shared/pictures";
import { CHART_TYPE, FORMULA_TYPE, TAGS, length, VERSION, appearanceHashes } from "../package/names";
import type { PageRange } from "../patch/elementranges";
import type { OdpBase } from "../patch/patchslide";
import { textXml } from "./text";
import { StyleSheet } from "./stylesheet";
import { Definitions, place } from "./drawing";
import { groupXml, shapeOf, textOfShape } from "./shape";
import { regionFrames } from "./regions";
import type { Work } from "./frame";
import {
  type StandardMaster,
  OPENING,
  ornamentsOf,
  CONTENT,
  shapes,
  pageProperties,
  pageStyle,
  masterXml,
  sourceMaster,
  LAYOUT,
  Named,
} from "./masters";

/** Returns a row of the manifest. */
export const entry = (path: string, type: string) =>
  xml("manifest:file-entry", {
    "manifest:full-path": path,
    "manifest:media-type": type,
    ...(path === "/" ? { "manifest:version": VERSION } : {}),
  });

export interface OdpOptions {
  fonts: FontSet;
  picture: (sha256: string) => Uint8Array | undefined;
  at: Date;
  /** Draws an SVG as a PNG of a width in pixels, which is written beside a drawing for programs without SVG. */
  png?: (svg: string, width: number) => Uint8Array;
}

/** Returns the name of a slide's page in the file, to which links lead and by which it is recognised. */
export function pageName(slide: Slide, number: number): string {
  return `${number} ${cutText(
    nameOf(slide)
      .replace(/[#\s]+/g, " ")
      .trim(),
    60,
  )}`.trim();
}

/** Writes a comment on a slide (OpenDocument 1.3, 14.1). */
const annotation = ({ author, text, date }: Comment): string =>
  xml(
    "office:annotation",
    { "svg:x": "0pt", "svg:y": "0pt" },
    author ? xml("dc:creator", {}, escapeXml(author)) : "",
    date && /^\d{4}-\d\d-\d\dT/.test(date) ? xml("dc:date", {}, date) : "",
    ...text.split("\n").map((line) => xml("text:p", {}, escapeXml(line))),
  );

export const HEAD = XML_HEAD.replace(' standalone="yes"', "");

/** Writes JSON as element text, in which quotes need no escaping. */
const jsonText = (value: object) =>
  JSON.stringify(value).replace(
    /[&<>\uFFFE\uFFFF]/g,
    (sign) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;" })[sign] ?? "",
  );

/** The pages of a deck being written, with what they need. */
export class Pages {
  readonly styles: StyleSheet;
  readonly masters: StyleSheet;
  readonly definitions: Definitions;
  readonly files = new Map<string, Uint8Array>();
  readonly objects = new Map<string, string>();
  readonly names: ReadonlyMap<string, string>;
  /** The names under which masters from files are written. */
  readonly ownMasters = new Map<string, string>();
  readonly kept: Record<string, object> = {};
  readonly metadata: DeckMetadata;
  /** Whether a page uses a master of the theme. */
  plain = false;
  /** What the theme draws on an arrangement, and the master that draws it. */
  private readonly drawn = new Map<ArrangementName, string>();
  private readonly ours = new Map<string, StandardMaster>();
  /** Hashes of page styles, by style name. */
  private readonly wears = new Map<string, AppearanceHashes>();

  constructor(
    readonly deck: Deck,
    private readonly options: OdpOptions,
    readonly prefix: string,
    given: (slide: Slide) => string | undefined,
    private readonly free: (path: string) => boolean,
  ) {
    this.metadata = metadataOf(deck);
    this.styles = new StyleSheet(prefix);
    this.masters = new StyleSheet(`${prefix}M`);
    this.definitions = new Definitions(prefix);
    const taken = new Set(deck.slides.flatMap((slide) => given(slide) ?? []));
    this.names = new Map(
      deck.slides.map((slide, nth) => {
        const own = given(slide);
        if (own !== undefined) return [slide.id, own];
        const name = pageName(slide, nth + 1);
        const unique = taken.has(name) ? `${name} (${slide.id})` : name;
        taken.add(unique);
        return [slide.id, unique];
      }),
    );
  }

  readonly file = (source: string): string | undefined => {
    const asset = this.deck.assets[source];
    const bytes = asset && this.options.picture(asset.sha256);
    if (!asset || !bytes) return undefined;
    const path = `${asset.mediaType.startsWith("image/") ? "Pictures" : "Media"}/${asset.sha256.slice(0, 32)}.${EXTENSIONS[asset.mediaType] ?? "bin"}`;
    this.files.set(path, bytes);
    return path;
  };
  /** Returns the paths of a picture in the order in which a frame offers it: a vector drawing, then its raster. */
  readonly shown = (source: string): string[] => {
    const path = this.file(source);
    const asset = this.deck.assets[source];
    if (path === undefined || !asset) return [];
    const { picture, png } = this.options;
    const dots = isLines(asset) && png ? stillPictures({ [source]: asset }, picture, png)(asset.sha256) : undefined;
    if (!dots) return [path];
    const beside = path.replace(/\.[^.]*$/, ".png");
    this.files.set(beside, dots);
    return [path, beside];
  };
  readonly link = (to: string): string | undefined => {
    const inside = slideLink(to);
    if (inside === undefined) return deckLink(to) ? undefined : to;
    const page = this.names.get(inside);
    return page === undefined ? undefined : `#${page}`;
  };
  /** Adds an embedded document with the files beside its content. Returns its path. */
  readonly object = (content: string, beside: ReadonlyMap<string, Uint8Array> = new Map()): string => {
    let nth = this.objects.size + 1;
    while (this.objects.has(`Object ${nth}`) || !this.free(`Object ${nth}/content.xml`)) nth++;
    this.objects.set(`Object ${nth}`, content);
    for (const [name, bytes] of beside) this.files.set(`Object ${nth}/${name}`, bytes);
    return `Object ${nth}`;
  };

  work(slide: Slide, number: number): Work {
    const { styles, definitions, file, shown, link, object, metadata } = this;
    const boxes = boxesOf(slide, { metadata, number, fonts: this.options.fonts });
    return {
      styles,
      definitions,
      file,
      shown,
      link,
      object,
      metadata,
      slide,
      theme: themeOf(slide, metadata),
      boxes,
      notes: [],
      places: slotPlaces(slide.arrangement, metadata.page, slide.widths),
      fonts: this.options.fonts,
    };
  }

  notes({ notes }: Slide, number: number): string {
    const { styles, metadata, link } = this;
    const said: Footnote[] = [];
    const flat = flattenRuns(notes, said);
    const spoken = said.length ? [...flat, ...footnoteText(said)] : flat;
    return xml(
      "presentation:notes",
      {},
      xml("draw:page-thumbnail", {
        "draw:layer": "layout",
        "presentation:class": "page",
        "draw:page-number": number,
        ...place({ x: 86, y: 60, width: 424, height: 238 }),
      }),
      xml(
        "draw:frame",
        { "draw:layer": "layout", "presentation:class": "notes", ...place({ x: 60, y: 330, width: 476, height: 450 }) },
        xml(
          "draw:text-box",
          {},
          isEmptyText(spoken)
            ? "<text:p/>"
            : textXml(
                spoken,
                styles.context("notes", metadata.theme, undefined, () => ({
                  styles,
                  size: 12,
                  codeFont: metadata.theme.fonts.code,
                  link,
                })),
              ),
        ),
      ),
    );
  }

  /** Stores what the format has no place for. */
  keep(slide: Slide, more: object): void {
    const { id, parent, arrangement, section, source, origin, theme, notes } = slide;
    this.kept[must(this.names.get(id))] = {
      id,
      parent,
      arrangement,
      ...(section ? { section } : {}),
      ...(source ? { source } : {}),
      ...(origin ? { origin } : {}),
      ...(theme ? { theme } : {}),
      ...(needsExtendedRuns(notes) ? { notes } : {}),
      ...more,
    };
  }

  /**
   * Returns the name of the theme's master for an arrangement; arrangements on which the theme draws the same share
   * one.
   */
  private standard(arrangement: ArrangementName): string {
    if (arrangement === "opening") return OPENING.name;
    if (!this.drawn.size && arrangement !== "points") this.standard("points");
    const drawn =
      this.drawn.get(arrangement) ?? JSON.stringify(ornamentsOf(arrangement, this.metadata, this.options.fonts));
    this.drawn.set(arrangement, drawn);
    const known =
      this.ours.get(drawn) ??
      (arrangement === "points" ? CONTENT : { name: arrangement, label: ARRANGEMENTS[arrangement].label, arrangement });
    this.ours.set(drawn, known);
    return known.name;
  }

  /** Returns the name of a theme's master, for a slide that uses no master of its file. */
  private behind({ master, arrangement }: Slide): string {
    if (master === undefined || !this.metadata.masters?.[master]) {
      this.plain = true;
      return this.prefix + this.standard(arrangement);
    }
    const name = this.ownMasters.get(master) ?? `${this.prefix}Master${this.ownMasters.size + 1}`;
    this.ownMasters.set(master, name);
    return name;
  }

  /** Writes a page of the deck's own; `bases` have the XML of foreign elements. */
  own(slide: Slide, number: number, bases: readonly OdpBase[] = []): string {
    const work = this.work(slide, number);
    const named = new Named(slide, `${this.prefix}s${number}`);
    const onMaster = standsOnMaster(slide, this.deck);
    const { xml: drawn, kept } = shapes(work, named, onMaster, (element, name) =>
      bases.map((base) => base.foreign(slide, element, name)).find((words) => words !== undefined),
    );
    const { master, regions, comments } = slide;
    const properties = pageProperties(work, onMaster);
    const style = pageStyle(work, properties);
    const wears =
      this.wears.get(style) ??
      appearanceHashes(
        Object.fromEntries(
          Object.entries(properties).map(([name, value]) => [name.slice(name.indexOf(":") + 1), value]),
        ),
      );
    this.wears.set(style, wears);
    this.keep(slide, {
      ...slidePropertiesOf(slide),
      wears,
      ...(master !== undefined ? { master } : {}),
      ...(regions ? { regions } : {}),
      ...(comments ? { comments } : {}),
      elements: kept,
    });
    return xml(
      "draw:page",
      {
        "draw:name": this.names.get(slide.id),
        "draw:style-name": style,
        "draw:master-page-name": this.behind(slide),
        ...this.uses(slide, onMaster),
      },
      drawn,
      (comments ?? []).map(annotation).join(""),
      named.timing(),
      this.notes(slide, number),
    );
  }

  /** Writes a page of the source file, with unchanged pieces as they are there. */
  spliced(base: OdpBase, page: PageRange, slide: Slide, number: number): string {
    const binding = (one: Element) => ({
      id: one.id,
      slot: one.slot,
      ...(one.binding ? { binding: one.binding } : {}),
    });
    const name = must(this.names.get(slide.id));
    if (base.untouched(slide).whole) {
      this.keep(slide, {
        foreign: true,
        elements: Object.fromEntries(slide.elements.map((one) => [`#${one.sourceShape?.shape}`, binding(one)])),
      });
      return base.whole(page, slide, name);
    }
    const work = this.work(slide, number);
    const taken = base.namesOn(page);
    const named = new Named(slide, `${this.prefix}s${number}`);
    const kept: Record<string, object> = {};
    const below: string[] = [];
    const write = (element: Element): string => {
      // It replaces the shape that it was.
      if (element.sourceShape && element.name) taken.delete(element.name);
      const made = shapeOf(element, slide.elements.indexOf(element), work, taken);
      kept[made.name] = made.kept;
      const words = named.words(element, made.shape.xml);
      for (const line of made.below) {
        kept[line.name] = { footnotes: true };
        below.push(named.words(element, line.xml));
      }
      return words;
    };
    const moved = slide.sourcePart?.master !== slide.master;
    const onMaster = !moved || standsOnMaster(slide, this.deck);
    for (const region of onMaster ? [] : regionFrames(work, slide.regions)) {
      kept[region.name] = { footnotes: true };
      below.push(region.xml);
    }
    const tag = {
      "draw:name": name,
      ...(base.untouched(slide).look ? {} : { "draw:style-name": pageStyle(work, pageProperties(work, onMaster)) }),
      ...(moved ? { "draw:master-page-name": this.behind(slide), ...this.uses(slide, onMaster) } : {}),
    };
    const { xml: made, places } = base.compose(page, slide, {
      tag,
      notes: this.notes(slide, number),
      below,
      write,
      text: (element) => textOfShape(element, work),
      named: (element, words) => named.words(element, words),
      timing: () => named.timing(),
      group: groupXml,
      object: this.object,
    });
    for (const one of slide.elements) if (places.has(one.id)) kept[`#${places.get(one.id)}`] ??= binding(one);
    this.keep(slide, { foreign: true, elements: kept });
    return made;
  }

  masterPages(): string {
    const { metadata, options, masters, definitions, file, link, object, prefix } = this;
    this.standard("points");
    const ours = [OPENING, ...this.ours.values()];
    return [
      ...(this.plain || !this.ownMasters.size
        ? ours.map((master) => masterXml(prefix, master, metadata, options.fonts, masters))
        : []),
      ...[...this.ownMasters].map(([master, name]) =>
        sourceMaster(
          prefix,
          name,
          must(metadata.masters?.[master]),
          masterRegions(this.deck).get(master) ?? [],
          metadata,
          {
            styles: masters,
            definitions,
            file,
            shown: this.shown,
            link,
            object,
            fonts: options.fonts,
          },
        ),
      ),
    ].join("");
  }

  layout(): string {
    const { page } = this.metadata;
    return xml(
      "style:page-layout",
      { "style:name": this.prefix + LAYOUT },
      xml("style:page-layout-properties", {
        "fo:margin-top": "0pt",
        "fo:margin-bottom": "0pt",
        "fo:margin-left": "0pt",
        "fo:margin-right": "0pt",
        "fo:page-width": length(page.width),
        "fo:page-height": length(page.height),
        "style:print-orientation": "landscape",
      }),
    );
  }

  faces(): { name: string; xml: string }[] {
    const families = [
      ...new Set(
        [this.metadata.theme, ...Object.values(this.metadata.themes ?? {})].flatMap(
          ({ fonts: { heading, body, code } }) => [heading, body, code],
        ),
      ),
    ];
    return families.map((name) => ({
      name,
      xml: xml("style:font-face", { "style:name": name, "svg:font-family": `'${name}'` }),
    }));
  }
  /** The names of a page's footer declarations. */
  private uses(slide: Slide, onMaster: boolean): Record<string, string | undefined> {
    return {
      "presentation:use-footer-name":
        (onMaster ? this.declared("footer", slide) : undefined) ??
        (this.metadata.regions.footer ? `${this.prefix}footer` : undefined),
      "presentation:use-date-time-name": onMaster ? this.declared("date", slide) : undefined,
    };
  }
  /** Returns the name of the declaration of a slide's footer or date. */
  private declared(region: "footer" | "date", { regions = [] }: Slide): string | undefined {
    const words = regions.find((one) => one.region === region)?.text;
    if (words === undefined) return undefined;
    const key = `${region} ${words}`;
    const name = this.declarations.get(key)?.name ?? `${this.prefix}${region}${this.declarations.size + 1}`;
    this.declarations.set(key, { region, name, words });
    return name;
  }
  private readonly declarations = new Map<string, { region: "footer" | "date"; name: string; words: string }>();
  /** Writes the footer declarations of all pages (OpenDocument 1.3, 9.11). */
  footer(): string {
    const { footer } = this.metadata.regions;
    const own = [...this.declarations.values()].map(({ region, name, words }) =>
      region === "footer"
        ? xml("presentation:footer-decl", { "presentation:name": name }, escapeXml(words))
        : xml(
            "presentation:date-time-decl",
            { "presentation:name": name, "presentation:source": "fixed" },
            escapeXml(words),
          ),
    );
    return (
      (footer
        ? xml("presentation:footer-decl", { "presentation:name": `${this.prefix}footer` }, escapeXml(footer))
        : "") + own.join("")
    );
  }
  keptFields(): string {
    const { id, properties, language, regions, rate, theme, themes, assets, manuscript, original, masters, styles } =
      this.metadata;
    const field = (name: string, value: object) =>
      xml("meta:user-defined", { "meta:name": name, "meta:value-type": "string" }, jsonText(value));
    return (
      field(TAGS.deck, {
        id,
        properties,
        language,
        regions,
        rate,
        theme,
        ...(themes ? { themes } : {}),
        assets,
        ...(manuscript ? { manuscript } : {}),
        ...(original ? { original } : {}),
        ...(masters ? { masters } : {}),
        ...(styles ? { styles } : {}),
      }) + field(TAGS.slides, this.kept)
    );
  }
  objectEntries(): string[] {
    return [...this.objects].map(([path, content]) =>
      entry(`${path}/`, content.startsWith("<math") ? FORMULA_TYPE : CHART_TYPE),
    );
  }
  /** Returns the parts of pictures, films and charts. */
  *parts(): Iterable<[string, Uint8Array]> {
    yield* this.files;
    for (const [path, content] of this.objects) yield [`${path}/content.xml`, strToU8(HEAD + content)];
  }
}
