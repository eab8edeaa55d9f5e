import { composePage } from "../patch/composepage";
import { type OdpOptions, PackageParts } from "./packageparts";
import { FooterDeclarations } from "./footers";
import { metadataFields } from "./tags";
import { boxesOf, slideTheme, slotPlaces } from "@unitext/core/layout";
import {
  regionWords,
  type ArrangementName,
  ARRANGEMENTS,
  type Comment,
  type Reply,
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
  must,
  languageDirection,
} from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import {
  boundRunsTag,
  flattenRuns,
  footnoteText,
  needsExtendedRuns,
  type AppearanceHashes,
} from "../../../shared/sourcepackage";
import { placeOfComment } from "../../shared/comments";
import { masterRegions, standsOnMaster } from "../../shared/regions";
import { length, appearanceHashes } from "../package/names";
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
  designHash,
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

/** Returns the name of a slide's page in the file, to which links lead and by which it is recognised. */
export function pageName(slide: Slide, number: number): string {
  return `${number} ${cutText(
    nameOf(slide)
      .replace(/[#\s]+/g, " ")
      .trim(),
    60,
  )}`.trim();
}

/** Writes a comment or reply as an annotation (OpenDocument 1.3, 14.1). */
const annotation = ({ author, text, date }: Reply, at: Comment["at"]): string =>
  xml(
    "office:annotation",
    { "svg:x": `${at?.x ?? 0}pt`, "svg:y": `${at?.y ?? 0}pt` },
    author ? xml("dc:creator", {}, escapeXml(author)) : "",
    date && /^\d{4}-\d\d-\d\dT/.test(date) ? xml("dc:date", {}, date) : "",
    ...text.split("\n").map((line) => xml("text:p", {}, escapeXml(line))),
  );

/** Writes the comments on a slide; the format has no replies, so they follow as comments of their own. */
const annotations = (slide: Slide): string =>
  (slide.comments ?? [])
    .flatMap((comment) => {
      const at = placeOfComment(comment, slide);
      return [comment, ...(comment.replies ?? [])].map((said) => annotation(said, at));
    })
    .join("");

/** The pages of a deck being written, with what they need. */
export class Pages {
  readonly styles: StyleSheet;
  readonly masters: StyleSheet;
  readonly definitions: Definitions;
  readonly parts: PackageParts;
  readonly footers: FooterDeclarations;
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
  private readonly appearances = new Map<string, AppearanceHashes>();

  constructor(
    readonly deck: Deck,
    private readonly options: OdpOptions,
    readonly prefix: string,
    given: (slide: Slide) => string | undefined,
    isFree: (path: string) => boolean,
  ) {
    this.metadata = metadataOf(deck);
    this.styles = new StyleSheet(prefix);
    this.masters = new StyleSheet(`${prefix}M`);
    this.definitions = new Definitions(prefix);
    this.parts = new PackageParts(deck.assets, options, isFree);
    this.footers = new FooterDeclarations(prefix, regionWords(this.metadata, "footer"));
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

  readonly link = (to: string): string | undefined => {
    const inside = slideLink(to);
    if (inside === undefined) return deckLink(to) ? undefined : to;
    const page = this.names.get(inside);
    return page === undefined ? undefined : `#${page}`;
  };
  work(slide: Slide, number: number): Work {
    const { styles, definitions, link, metadata } = this;
    const { file, shown, object } = this.parts;
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
      theme: slideTheme(slide, metadata),
      boxes,
      notes: [],
      places: slotPlaces(slide.arrangement, metadata, slide.widths),
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
                  language: metadata.language,
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
      ...boundRunsTag(slide),
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
    const drawn = this.drawn.get(arrangement) ?? designHash(arrangement, this.metadata);
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
    const named = new Named(slide, `${this.prefix}s${number}`, languageDirection(this.metadata.language));
    const onMaster = standsOnMaster(slide, this.deck);
    const { xml: drawn, kept } = shapes(work, named, onMaster, (element, name) =>
      bases.map((base) => base.foreign(slide, element, name)).find((words) => words !== undefined),
    );
    const { master, regions, comments } = slide;
    const properties = pageProperties(work, onMaster);
    const style = pageStyle(work, properties);
    const wears =
      this.appearances.get(style) ??
      appearanceHashes(
        Object.fromEntries(
          Object.entries(properties).map(([name, value]) => [name.slice(name.indexOf(":") + 1), value]),
        ),
      );
    this.appearances.set(style, wears);
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
        ...this.footers.uses(slide, onMaster),
      },
      drawn,
      annotations(slide),
      named.timing(),
      this.notes(slide, number),
    );
  }

  /** Writes a page of the source file, with unchanged pieces as they are there. */
  patched(base: OdpBase, page: PageRange, slide: Slide, number: number): string {
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
    const named = new Named(slide, `${this.prefix}s${number}`, languageDirection(this.metadata.language));
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
      ...(moved ? { "draw:master-page-name": this.behind(slide), ...this.footers.uses(slide, onMaster) } : {}),
    };
    const { xml: made, places } = composePage(base, page, slide, {
      tag,
      notes: this.notes(slide, number),
      comments: annotations(slide),
      below,
      write,
      text: (element) => textOfShape(element, work),
      named: (element, words) => named.words(element, words),
      timing: () => named.timing(),
      group: groupXml,
      object: this.parts.object,
    });
    for (const one of slide.elements) if (places.has(one.id)) kept[`#${places.get(one.id)}`] ??= binding(one);
    this.keep(slide, { foreign: true, ...(slide.comments ? { comments: slide.comments } : {}), elements: kept });
    return made;
  }

  masterPages(): string {
    const { metadata, options, masters, definitions, link, prefix } = this;
    const { file, shown, object } = this.parts;
    this.standard("points");
    const ours = [OPENING, ...this.ours.values()];
    const common = { styles: masters, definitions, file, shown, link, object, fonts: options.fonts };
    return [
      ...(this.plain || !this.ownMasters.size ? ours.map((master) => masterXml(prefix, master, metadata, common)) : []),
      ...[...this.ownMasters].map(([master, name]) =>
        sourceMaster(
          prefix,
          name,
          must(metadata.masters?.[master]),
          masterRegions(this.deck).get(master) ?? [],
          metadata,
          common,
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
          ({ fonts: { heading, body, code }, roles }) => [
            heading,
            body,
            code,
            ...Object.values(roles ?? {}).flatMap(({ font }) => font ?? []),
          ],
        ),
      ),
    ];
    return families.map((name) => ({
      name,
      xml: xml("style:font-face", { "style:name": name, "svg:font-family": `'${name}'` }),
    }));
  }

  /** Returns the user-defined metadata of the deck and its slides. */
  metadataFields(): string {
    return metadataFields(this.metadata, this.kept);
  }
}
