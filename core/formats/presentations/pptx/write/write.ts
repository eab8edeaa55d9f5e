import {
  type ChartElement,
  type Deck,
  type DeckMetadata,
  type Element,
  escapeXml,
  type Footnote,
  metadataOf,
  isEmptyText,
  slidePropertiesOf,
  type Master,
  sharedItemsOf,
  type Slide,
  must,
} from "@unitext/core/model";
import { strToU8 } from "fflate";
import { child, readXml, XML_HEAD, xml } from "../../../shared/xml";
import {
  flattenRuns,
  footnoteText,
  fromPptx,
  needsExtendedRuns,
  notesHash,
  usesSourceLayout,
  type SourcePartOf,
  withStandIns,
} from "../../../shared/sourcepackage";
import { type PresentationUpdate, updatePresentation, freeMasterId } from "../patch/updatepresentation";
import { SourceParts, openSourceParts } from "../patch/sourceparts";
import {
  ARRANGEMENT_ORDER,
  GROUP,
  layoutPart,
  masterPart,
  namespaces,
  notesMasterPart,
  placeholderShape,
} from "../package/layouts";
import { EMU, emu, NS, REL, TAG, TYPE } from "../package/names";
import { transitional } from "../package/package";
import { Package, Relationships, relationshipsPath, relativeTo } from "../package/parts";
import { appProperties, coreProperties } from "./documentproperties";
import { slideShapes } from "./slideshapes";
import { appearanceHashes } from "../patch/appearance";
import { changedCharts, patchSlide } from "../patch/patchslide";
import { movedShape } from "../patch/patchshape";
import { chartWith } from "../patch/updateworkbook";
import { paragraphsXml, type PartTextContext } from "./text";
import { themePart } from "./theme";
import { timingXml, withoutText } from "./timing";
import { transitionXml } from "./transition";
import { backgroundXml, linker, type PptxOptions, type SlideWork } from "./shape";

export type { PptxOptions } from "./shape";

function tagsPart(tags: Record<string, unknown>): string {
  return (
    XML_HEAD +
    xml(
      "p:tagLst",
      namespaces,
      ...Object.entries(tags).map(([name, value]) => xml("p:tag", { name, val: JSON.stringify(value) })),
    )
  );
}

/** Writes one deck: its own slides on its own layouts, slides of source packages on theirs. */
class Writer {
  private readonly metadata: DeckMetadata;
  private readonly pack = new Package();
  private readonly files = new Map<string, SourceParts>();
  private readonly paths = new Map<string, string>();
  private readonly sources = new Map<string, { kept: SourceParts; part: string }>();
  private base: SourceParts | undefined;
  private main = "ppt/presentation.xml";
  private layouts: string[] = [];
  /** Layouts for masters that come from other formats. */
  private readonly masterLayouts = new Map<string, string>();
  private master: string | undefined;
  private notesMaster: string | undefined;
  /** The authors of comments on the deck's own slides, with how many each has. */
  private readonly authors = new Map<string, { id: number; count: number }>();
  private firstId = 2147483648;

  constructor(
    private readonly deck: Deck,
    private readonly options: PptxOptions,
  ) {
    this.metadata = metadataOf(deck);
  }

  write(): Uint8Array {
    this.plan();
    if (this.base) this.copyRoot(this.base);
    else this.ownRoot();
    if (this.deck.slides.some(({ id }) => !this.sources.has(id)) || !this.base) this.ownMaster();
    if (!this.base) this.notes();
    this.deck.slides.forEach((slide, nth) => {
      const source = this.sources.get(slide.id);
      if (source) this.keptSlide(slide, nth + 1, source.kept, source.part);
      else this.ownSlide(slide, nth + 1);
    });
    if (this.base) updatePresentation(this.continued(), this.base);
    else this.ownPresentation();
    return this.pack.finish();
  }

  /** Decides which slides are written from their source packages, and where each slide's part will be. */
  private plan(): void {
    const { deck, options, pack, paths } = this;
    const names = [...new Set(deck.slides.flatMap(({ sourcePart }) => (sourcePart ? [sourcePart.file] : [])))];
    for (const name of names) {
      const asset = deck.assets[name];
      const file = openSourceParts(name, asset && options.picture(asset.sha256), options.picture);
      if (file?.has("ppt/presentation.xml") || file?.has("_rels/.rels"))
        this.files.set(name, new SourceParts(file, pack));
    }
    for (const slide of deck.slides) {
      const kept = slide.sourcePart && this.files.get(slide.sourcePart.file);
      if (!kept || !slide.sourcePart || !usesSourceLayout(slide) || !kept.file.has(slide.sourcePart.part)) continue;
      this.base ??= kept;
      const path = pack.free(slide.sourcePart.part);
      pack.put(path, TYPE.slide, new Uint8Array());
      paths.set(slide.id, path);
      this.sources.set(slide.id, { kept, part: slide.sourcePart.part });
      if (!kept.instead.has(slide.sourcePart.part)) kept.instead.set(slide.sourcePart.part, path);
    }
    for (const kept of this.files.values()) {
      const main = kept.related("", "document") ?? "ppt/presentation.xml";
      for (const row of kept.relationships(main))
        if (transitional(row.type) === REL.slide && !kept.instead.has(row.target)) kept.dropped.add(row.target);
      if (kept !== this.base) kept.dropped.add(main);
    }
    for (const slide of deck.slides) {
      if (paths.has(slide.id)) continue;
      const path = pack.free(`ppt/slides/slide${this.base ? 1 : paths.size + 1}.xml`);
      pack.put(path, TYPE.slide, new Uint8Array());
      paths.set(slide.id, path);
    }
  }

  /** Returns the deck's slides by the parts that a source package has for them. */
  private partOf(kept: SourceParts): SourcePartOf {
    return (id) => {
      const source = this.sources.get(id);
      return source?.kept === kept && kept.instead.get(source.part) === this.paths.get(id) ? source.part : undefined;
    };
  }

  private work(slide: Slide, number: number, relationships: Relationships): SlideWork {
    const { deck, metadata, pack, options, paths } = this;
    return { deck, metadata, number, path: must(paths.get(slide.id)), paths, pack, options, relationships };
  }

  /** Writes a slide on a layout of the deck's own. */
  private ownSlide(slide: Slide, number: number): void {
    const { pack } = this;
    const relationships = new Relationships();
    const work = this.work(slide, number, relationships);
    relationships.add(
      REL.layout,
      relativeTo(
        work.path,
        (this.masterLayouts.get(slide.master ?? "") ??
          this.layouts[ARRANGEMENT_ORDER.indexOf(slide.arrangement)]) as string,
      ),
    );
    const noted = !isEmptyText(slide.notes);
    const notes = noted ? pack.free(`ppt/notesSlides/notesSlide${this.base ? 1 : number}.xml`) : undefined;
    if (notes !== undefined) {
      pack.put(notes, TYPE.notes, new Uint8Array());
      relationships.add(REL.notes, relativeTo(work.path, notes));
    }
    const tagPath = pack.free(`ppt/tags/tag${this.base ? 1 : number + 1}.xml`);
    pack.put(tagPath, TYPE.tags, new Uint8Array());
    const tags = relationships.add(REL.tags, relativeTo(work.path, tagPath));
    const source = slide.sourcePart && this.files.get(slide.sourcePart.file);
    const {
      shapes: tree,
      facts,
      shapesOf,
    } = slideShapes(work, slide, number, (element) =>
      source && slide.sourcePart ? sourceShapeXml(source, slide.sourcePart.part, element, work) : undefined,
    );
    const { comments, ...bare } = slide;
    // A package that is updated has its own authors.
    const said = this.base ? undefined : comments;
    if (said?.length) this.comments(said, number, relationships, work.path);
    const [background, transition] = [backgroundXml(slide.background, work), transitionXml(slide)];
    pack.add(
      tagPath,
      TYPE.tags,
      tagsPart({
        [TAG.slide]: {
          ...slideTag(said ? (bare as Slide) : slide),
          wears: appearanceHashes(background + transition),
        },
        [TAG.elements]: facts,
      }),
    );
    const data = xml(
      "p:cSld",
      {},
      background,
      xml("p:spTree", {}, GROUP, tree),
      xml("p:custDataLst", {}, xml("p:tags", { "r:id": tags })),
    );
    pack.add(
      work.path,
      TYPE.slide,
      XML_HEAD +
        xml(
          "p:sld",
          { ...namespaces, show: slide.hidden ? 0 : undefined },
          data,
          "<p:clrMapOvr><a:masterClrMapping/></p:clrMapOvr>",
          transition,
          timingXml(slide, shapesOf, withoutText(slide)),
        ),
      relationships,
    );
    if (notes !== undefined) this.notesPart(slide, notes);
  }

  /** Writes the comments on a slide (ECMA-376-1, 19.4). */
  private comments(
    said: NonNullable<Slide["comments"]>,
    number: number,
    relationships: Relationships,
    path: string,
  ): void {
    const part = this.pack.free(`ppt/comments/comment${number}.xml`);
    const list = said.map(({ author, text, date }) => {
      const known = this.authors.get(author) ?? { id: this.authors.size, count: 0 };
      known.count += 1;
      this.authors.set(author, known);
      return xml(
        "p:cm",
        {
          authorId: known.id,
          dt: date && /^\d{4}-\d\d-\d\dT\d\d:\d\d/.test(date) ? date : undefined,
          idx: known.count,
        },
        '<p:pos x="10" y="10"/>',
        xml("p:text", {}, escapeXml(text)),
      );
    });
    this.pack.add(part, TYPE.comments, XML_HEAD + xml("p:cmLst", namespaces, ...list));
    relationships.add(REL.comments, relativeTo(path, part));
  }

  /** Writes a slide of a source package: its part unchanged, or updated where it changed. */
  private keptSlide(slide: Slide, number: number, kept: SourceParts, part: string): void {
    const { pack } = this;
    const path = must(this.paths.get(slide.id));
    const partOf = this.partOf(kept);
    const sameNotes = slide.sourcePart !== undefined && notesHash(slide, partOf) === slide.sourcePart.notesHash;
    const oldNotes = kept.related(part, "notes");
    const newNotes = sameNotes
      ? undefined
      : isEmptyText(slide.notes)
        ? null
        : pack.free("ppt/notesSlides/notesSlide1.xml");
    if (newNotes) pack.put(newNotes, TYPE.notes, new Uint8Array());
    if (oldNotes !== undefined && sameNotes) this.keepNotes(kept, oldNotes, part, path);
    const charts = slide.sourcePart ? changedCharts(slide, kept, part, partOf) : new Map<string, ChartElement>();
    const recharted = new Set<string>();
    const named = new Map<string, string>();
    const rows = kept.relationships(part).flatMap((row) => {
      if (row.external) return [row];
      const chart = charts.get(row.target);
      const redrawn = chart && chartWith(kept, pack, row.target, chart);
      if (chart && redrawn !== undefined) {
        recharted.add(chart.id);
        return [{ ...row, target: relativeTo(path, redrawn) }];
      }
      // Parts that the slide refers to by id are written once it is known whether it still does.
      if (NAMED_BY_ID.has(transitional(row.type))) {
        named.set(row.id, row.target);
        return [row];
      }
      if (transitional(row.type) === REL.tags && kept.text(row.target)?.includes("UNITEXT_")) return [];
      if (row.target === oldNotes && !sameNotes)
        return newNotes ? [{ ...row, target: relativeTo(path, newNotes) }] : [];
      const target = kept.take(row.target);
      return target === undefined ? [] : [{ ...row, target: relativeTo(path, target) }];
    });
    const relationships = new Relationships(rows);
    if (newNotes && oldNotes === undefined) relationships.add(REL.notes, relativeTo(path, newNotes));
    const work = this.work(slide, number, relationships);
    const { text, shapes: facts } = patchSlide({
      slide,
      number,
      parts: kept,
      part,
      partOf,
      work,
      fonts: this.options.fonts,
      recharted,
    });
    const tagPath = pack.free("ppt/tags/tag1.xml");
    pack.add(tagPath, TYPE.tags, tagsPart({ [TAG.slide]: { ...slideTag(slide), foreign: true }, [TAG.kept]: facts }));
    relationships.add(REL.tags, relativeTo(path, tagPath));
    const words = text ?? kept.text(part) ?? "";
    relationships.settle(({ id, target, external }) => {
      const source = external ? undefined : named.get(id);
      if (source === undefined) return target;
      const taken = words.includes(`"${id}"`) || words.includes(`'${id}'`) ? kept.take(source) : undefined;
      return taken === undefined ? undefined : relativeTo(path, taken);
    });
    const whole = text === undefined ? kept.file.part(part) : strToU8(text);
    pack.put(path, TYPE.slide, must(whole));
    pack.parts.set(relationshipsPath(path), strToU8(relationships.part()));
    if (newNotes) this.notesPart(slide, newNotes);
  }

  /** Writes the notes of a slide as they were in its file, under the notes master of the presentation. */
  private keepNotes(kept: SourceParts, notes: string, part: string, path: string): void {
    const master = kept.related(notes, "notesMaster");
    if (master !== undefined && kept !== this.base) kept.instead.set(master, this.notes());
    const first = kept.instead.get(part);
    kept.instead.set(part, path);
    kept.take(notes);
    if (first !== undefined) kept.instead.set(part, first);
  }

  private notesPart(slide: Slide, path: string): void {
    const { metadata } = this;
    const links = new Relationships();
    links.add(REL.notesMaster, relativeTo(path, this.notes()));
    links.add(REL.slide, relativeTo(path, must(this.paths.get(slide.id))));
    const context: PartTextContext = {
      language: metadata.language,
      linkColour: metadata.theme.colours.link,
      codeFont: metadata.theme.fonts.code,
      size: 12,
      em: 12,
      bulleted: false,
      link: linker(links, this.paths, path),
    };
    const said: Footnote[] = [];
    const flat = flattenRuns(slide.notes, said);
    const spoken = said.length ? [...flat, ...footnoteText(said)] : flat;
    const picture =
      '<p:sp><p:nvSpPr><p:cNvPr id="2" name="Slide"/><p:cNvSpPr><a:spLocks noGrp="1" noRot="1" noChangeAspect="1"/></p:cNvSpPr><p:nvPr><p:ph type="sldImg"/></p:nvPr></p:nvSpPr><p:spPr/></p:sp>';
    const body = placeholderShape(
      3,
      "Notes",
      { type: "body", idx: 3 },
      `<a:lstStyle/>${paragraphsXml(spoken, context)}`,
    );
    this.pack.add(
      path,
      TYPE.notes,
      XML_HEAD +
        xml(
          "p:notes",
          namespaces,
          xml("p:cSld", {}, xml("p:spTree", {}, GROUP, picture, body)),
          "<p:clrMapOvr><a:masterClrMapping/></p:clrMapOvr>",
        ),
      links,
    );
  }

  /** Returns the notes master of the presentation: that of the updated package, else one of its own. */
  private notes(): string {
    if (this.notesMaster !== undefined) return this.notesMaster;
    const given = this.base?.related(this.main, "notesMaster");
    const taken = given === undefined ? undefined : this.base?.take(given);
    if (taken !== undefined) return (this.notesMaster = taken);
    const { pack } = this;
    const path = pack.free("ppt/notesMasters/notesMaster1.xml");
    pack.put(path, TYPE.notesMaster, new Uint8Array());
    const theme = pack.free("ppt/theme/theme2.xml");
    pack.add(theme, TYPE.theme, themePart(this.metadata.theme));
    const relationships = new Relationships();
    relationships.add(REL.theme, relativeTo(path, theme));
    pack.add(path, TYPE.notesMaster, notesMasterPart(), relationships);
    return (this.notesMaster = path);
  }

  /** Writes the deck's own master with a layout for each arrangement. */
  private ownMaster(): void {
    const { pack, metadata, options } = this;
    const master = pack.free("ppt/slideMasters/slideMaster1.xml");
    pack.put(master, TYPE.master, new Uint8Array());
    const theme = pack.free("ppt/theme/theme1.xml");
    pack.add(theme, TYPE.theme, themePart(metadata.theme));
    const own = new Relationships();
    this.layouts = ARRANGEMENT_ORDER.map((arrangement, nth) => {
      const path = pack.free(`ppt/slideLayouts/slideLayout${this.base ? 1 : nth + 1}.xml`);
      const layout = new Relationships();
      layout.add(REL.master, relativeTo(path, master));
      pack.add(path, TYPE.layout, layoutPart(arrangement, metadata, options.fonts), layout);
      own.add(REL.layout, relativeTo(master, path));
      return path;
    });
    const drawn = [
      ...new Set(
        this.deck.slides.flatMap(({ id, master: name }) =>
          name !== undefined && metadata.masters?.[name] && !this.sources.has(id) ? [name] : [],
        ),
      ),
    ];
    for (const name of drawn) {
      const path = pack.free(`ppt/slideLayouts/slideLayout${this.base ? 1 : ARRANGEMENT_ORDER.length + 1}.xml`);
      pack.put(path, TYPE.layout, new Uint8Array());
      const layout = new Relationships();
      layout.add(REL.master, relativeTo(path, master));
      pack.add(path, TYPE.layout, this.drawnLayout(must(metadata.masters?.[name]), path, layout), layout);
      own.add(REL.layout, relativeTo(master, path));
      this.masterLayouts.set(name, path);
    }
    own.add(REL.theme, relativeTo(master, theme));
    this.firstId = this.base ? freeMasterId(this.files.values()) : 2147483648;
    pack.add(
      master,
      TYPE.master,
      masterPart(metadata, this.firstId + 1, ARRANGEMENT_ORDER.length + drawn.length, options.fonts),
      own,
    );
    this.master = master;
  }

  /** Writes a master of another format as a layout without the theme's ornaments. */
  private drawnLayout({ name, background, elements }: Master, path: string, relationships: Relationships): string {
    const { deck, metadata, pack, options, paths } = this;
    const work: SlideWork = { deck, metadata, path, paths, pack, options, relationships };
    const empty: Slide = {
      id: "layout",
      parent: null,
      arrangement: "blank",
      elements: elements,
      notes: [],
      hidden: false,
    };
    const { shapes: tree } = slideShapes(work, empty, 1, () => undefined);
    return (
      XML_HEAD +
      xml(
        "p:sldLayout",
        { ...namespaces, showMasterSp: 0, preserve: 1, userDrawn: 1 },
        xml("p:cSld", { name: name || "Drawn" }, backgroundXml(background, work), xml("p:spTree", {}, GROUP, tree)),
        "<p:clrMapOvr><a:masterClrMapping/></p:clrMapOvr>",
      )
    );
  }

  private deckTags(): string {
    const { id, properties, language, regions, rate, theme, themes, assets, manuscript, original } = this.metadata;
    const shared = sharedItemsOf(
      this.deck.slides.filter((slide) => !this.sources.has(slide.id)),
      this.metadata,
    );
    const shown = Object.fromEntries(
      Object.entries(assets).filter(([, { mediaType }]) => mediaType !== "application/zip"),
    );
    return tagsPart({
      [TAG.deck]: {
        id,
        properties,
        language,
        regions,
        rate,
        theme,
        assets: shown,
        ...(manuscript ? { manuscript } : {}),
        ...(themes ? { themes } : {}),
        ...(original ? { original } : {}),
        ...shared,
      },
    });
  }

  private ownRoot(): void {
    const root = new Relationships();
    root.add(REL.document, "ppt/presentation.xml");
    root.add(REL.core, "docProps/core.xml");
    root.add(REL.app, "docProps/app.xml");
    this.pack.parts.set("_rels/.rels", strToU8(root.part()));
    this.pack.add("docProps/core.xml", TYPE.core, coreProperties(this.deck, this.options.at));
    this.pack.add("docProps/app.xml", TYPE.app, appProperties(this.deck));
  }

  private ownPresentation(): void {
    const { deck, metadata, pack } = this;
    const relationships = new Relationships();
    const master = relationships.add(REL.master, "slideMasters/slideMaster1.xml");
    const notesMaster = relationships.add(REL.notesMaster, relativeTo("ppt/presentation.xml", this.notes()));
    const slides = deck.slides.map((slide, nth) =>
      xml("p:sldId", {
        id: 256 + nth,
        "r:id": relationships.add(REL.slide, relativeTo("ppt/presentation.xml", must(this.paths.get(slide.id)))),
      }),
    );
    relationships.add(REL.presProps, "presProps.xml");
    relationships.add(REL.viewProps, "viewProps.xml");
    relationships.add(REL.theme, "theme/theme1.xml");
    relationships.add(REL.tableStyles, "tableStyles.xml");
    if (this.authors.size) {
      const list = [...this.authors].map(([name, { id, count }]) =>
        xml("p:cmAuthor", {
          id,
          name,
          initials: name
            .split(/\s+/)
            .map((word) => word[0] ?? "")
            .join("")
            .slice(0, 3),
          lastIdx: count,
          clrIdx: id,
        }),
      );
      this.pack.add(
        "ppt/commentAuthors.xml",
        TYPE.commentAuthors,
        XML_HEAD + xml("p:cmAuthorLst", namespaces, ...list),
      );
      relationships.add(REL.commentAuthors, "commentAuthors.xml");
    }
    const tags = relationships.add(REL.tags, "tags/tag1.xml");
    pack.add("ppt/tags/tag1.xml", TYPE.tags, this.deckTags());
    const content = xml(
      "p:presentation",
      { ...namespaces, saveSubsetFonts: 1 },
      xml("p:sldMasterIdLst", {}, xml("p:sldMasterId", { id: this.firstId, "r:id": master })),
      xml("p:notesMasterIdLst", {}, xml("p:notesMasterId", { "r:id": notesMaster })),
      slides.length ? xml("p:sldIdLst", {}, ...slides) : "",
      xml("p:sldSz", { cx: emu(metadata.page.width), cy: emu(metadata.page.height) }),
      xml("p:notesSz", { cx: 540 * EMU, cy: 720 * EMU }),
      xml("p:custDataLst", {}, xml("p:tags", { "r:id": tags })),
      xml("p:defaultTextStyle", {}, xml("a:defPPr", {}, xml("a:defRPr", { lang: metadata.language }))),
    );
    pack.add("ppt/presentation.xml", TYPE.presentation, XML_HEAD + content, relationships);
    pack.add("ppt/presProps.xml", TYPE.presProps, XML_HEAD + xml("p:presentationPr", namespaces));
    pack.add("ppt/viewProps.xml", TYPE.viewProps, XML_HEAD + xml("p:viewPr", namespaces));
    pack.add(
      "ppt/tableStyles.xml",
      TYPE.tableStyles,
      XML_HEAD + xml("a:tblStyleLst", { "xmlns:a": NS.a, def: "{5C22544A-7EE6-4342-B048-85BDC9FD1C3A}" }),
    );
  }

  private continued(): PresentationUpdate {
    const { pack, deck, main, sources, paths, notesMaster } = this;
    return {
      pack,
      deck,
      main,
      files: [...this.files.values()],
      sources,
      paths,
      notesMaster,
      master: this.master === undefined ? undefined : { path: this.master, id: this.firstId },
      tags: this.deckTags(),
    };
  }

  /** Copies what a source package has beside its presentation: properties, thumbnails, data of other programs. */
  private copyRoot(kept: SourceParts): void {
    const { pack, deck } = this;
    this.main = kept.related("", "document") ?? "ppt/presentation.xml";
    // Templates, shows and files with macros become a plain presentation.
    pack.put(this.main, TYPE.presentation, new Uint8Array());
    kept.instead.set(this.main, this.main);
    const core = kept.related("", "core");
    const said = core === undefined ? undefined : kept.text(core);
    const tree = said === undefined ? undefined : readXml(said, must(core));
    const word = (name: string) => child(tree, name)?.text.trim() ?? "";
    const { title, author, event } = deck.properties;
    const same =
      tree !== undefined &&
      (word("title") === title || word("title") === "") &&
      word("creator") === author &&
      word("subject") === event;
    if (core !== undefined && !same) {
      kept.instead.set(core, core);
      pack.add(core, TYPE.core, coreProperties(deck, this.options.at));
    }
    kept.writeRelationships("", "", kept.carried("", ""));
  }
}

/**
 * Relationships that hold only while the slide refers to them: pictures, charts and embedded objects. One that it no
 * longer refers to is removed with its part.
 */
const NAMED_BY_ID: ReadonlySet<string> = new Set(
  ["image", "chart", "package", "oleObject", "video", "audio"].map((name) => REL.chart.replace(/chart$/, name)),
);

/** Returns what the tags of a slide store. */
function slideTag(slide: Slide): object {
  const { id, parent, arrangement, section, source, origin, theme, notes, master, regions, comments } = slide;
  const foreign = usesSourceLayout(slide);
  const shared = foreign
    ? {}
    : {
        ...(master === undefined ? {} : { master }),
        ...(regions ? { regions } : {}),
        ...(comments ? { comments } : {}),
      };
  return {
    ...shared,
    id,
    parent,
    arrangement,
    ...(source ? { source } : {}),
    ...(origin ? { origin } : {}),
    ...(theme ? { theme } : {}),
    ...(foreign ? (section ? { section } : {}) : slidePropertiesOf(slide)),
    ...(needsExtendedRuns(notes) ? { notes } : {}),
  };
}

/**
 * Returns the file's own XML of a shape at the element's present place, with relationships of the part that it moves
 * to.
 */
function sourceShapeXml(kept: SourceParts, part: string, element: Element, work: SlideWork): string | undefined {
  return element.sourceShape ? movedShape(kept, part, element, work) : undefined;
}

/**
 * Writes a deck as a presentation in Office Open XML (ECMA-376, transitional) with all parts that a conforming reader
 * needs. Ids, details, bindings and everything else that the format has no place for are stored in user-defined tags.
 * Slides that were read from a file are written from it: what was not touched stays byte for byte.
 */
export function writePptx(deck: Deck, options: PptxOptions): Uint8Array {
  return new Writer(withStandIns(deck, fromPptx), options).write();
}
