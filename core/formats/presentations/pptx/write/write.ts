import {
  type ChartElement,
  type Deck,
  type DeckMetadata,
  type Element,
  metadataOf,
  isEmptyText,
  type Slide,
  must,
  languageDirection,
} from "@unitext/core/model";
import { strToU8 } from "fflate";
import { child, readXml, XML_HEAD, xml } from "../../../shared/xml";
import {
  fromPptx,
  notesHash,
  sameComments,
  usesSourceLayout,
  type SourcePartOf,
  withStandIns,
} from "../../../shared/sourcepackage";
import { type PresentationUpdate, updatePresentation, freeMasterId } from "../patch/updatepresentation";
import { SourceParts, openSourceParts } from "../patch/sourceparts";
import { ARRANGEMENT_ORDER, GROUP, namespaces } from "../package/layouts";
import { REL, TAG, TYPE } from "../package/names";
import { transitional } from "../package/package";
import { Package, Relationships, relationshipsPath, relativeTo } from "../package/parts";
import { coreProperties } from "./documentproperties";
import { slideShapes } from "./slideshapes";
import { appearanceHashes } from "../patch/appearance";
import { changedCharts, patchSlide } from "../patch/patchslide";
import { movedShape } from "../patch/patchshape";
import { chartWith } from "../patch/updateworkbook";
import { timingXml, withoutText } from "./timing";
import { transitionXml } from "./transition";
import { backgroundXml } from "./background";
import type { SlideWork, PptxOptions } from "./slidework";
import { CommentWriter } from "./comments";
import { NotesWriter } from "./notes";
import { writeMaster, type WrittenMaster } from "./masters";
import { writePresentation, writeRoot } from "./presentation";
import { deckTags, slideTag, tagsPart } from "./tags";

export type { PptxOptions } from "./slidework";

/**
 * Relationships that hold only while the slide refers to them: pictures, charts and embedded objects. One that it no
 * longer refers to is removed with its part.
 */
const NAMED_BY_ID: ReadonlySet<string> = new Set(
  ["image", "chart", "package", "oleObject", "video", "audio"].map((name) => REL.chart.replace(/chart$/, name)),
);

/** A slide takes the colour map of its master. */
const MASTER_COLOURS = "<p:clrMapOvr><a:masterClrMapping/></p:clrMapOvr>";

/** Writes one deck: its own slides on its own layouts, slides of source packages on theirs. */
class Writer {
  private readonly metadata: DeckMetadata;
  private readonly pack = new Package();
  private readonly files = new Map<string, SourceParts>();
  private readonly paths = new Map<string, string>();
  private readonly sources = new Map<string, { kept: SourceParts; part: string }>();
  private readonly comments: CommentWriter;
  private readonly notes: NotesWriter;
  /** The source package that is updated: the first one that slides are in. */
  private base: SourceParts | undefined;
  private readonly main: string;
  private master: WrittenMaster | undefined;

  constructor(
    private readonly deck: Deck,
    private readonly options: PptxOptions,
  ) {
    this.metadata = metadataOf(deck);
    this.plan();
    this.main = this.base?.related("", "document") ?? "ppt/presentation.xml";
    this.comments = new CommentWriter(this.pack, this.base, this.main);
    this.notes = new NotesWriter(this.pack, this.metadata, this.paths, this.base, this.main);
  }

  write(): Uint8Array {
    const { deck, pack, base } = this;
    if (base) this.copyRoot(base);
    else writeRoot(pack, deck, this.options.at);
    const own = deck.slides.filter(({ id }) => !this.sources.has(id));
    if (own.length || !base) this.master = this.ownMaster(own);
    if (!base) this.notes.master();
    deck.slides.forEach((slide, nth) => {
      const source = this.sources.get(slide.id);
      if (source) this.sourceSlide(slide, nth + 1, source.kept, source.part);
      else this.ownSlide(slide, nth + 1);
    });
    const tags = deckTags(this.metadata, own);
    if (base) updatePresentation(this.update(tags), base);
    else
      writePresentation({
        deck,
        pack,
        paths: this.paths,
        masterId: must(this.master).id,
        notesMaster: this.notes.master(),
        comments: this.comments,
        tags,
      });
    return pack.finish();
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

  private ownMaster(own: readonly Slide[]): WrittenMaster {
    const { deck, metadata, pack, options, paths, base } = this;
    const names = own.flatMap(({ master }) => (master !== undefined && metadata.masters?.[master] ? [master] : []));
    const id = base ? freeMasterId(this.files.values()) : FIRST_MASTER_ID;
    return writeMaster({ deck, metadata, pack, options, paths, isUpdate: base !== undefined, id }, [...new Set(names)]);
  }

  /** Returns the path of the deck's own layout for a slide. */
  private layoutOf({ master, arrangement }: Slide): string {
    const { layouts, drawn } = must(this.master);
    return drawn.get(master ?? "") ?? must(layouts[ARRANGEMENT_ORDER.indexOf(arrangement)]);
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
    relationships.add(REL.layout, relativeTo(work.path, this.layoutOf(slide)));
    const notes = !isEmptyText(slide.notes)
      ? pack.free(`ppt/notesSlides/notesSlide${this.base ? 1 : number}.xml`)
      : undefined;
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
    this.comments.write(slide, relationships, work.path);
    const [background, transition] = [
      backgroundXml(slide.background, work),
      transitionXml(slide, languageDirection(work.metadata.language)),
    ];
    pack.add(
      tagPath,
      TYPE.tags,
      tagsPart({
        [TAG.slide]: {
          ...slideTag(slide),
          wears: appearanceHashes(background + transition),
        },
        [TAG.elements]: facts,
      }),
    );
    const custom = xml("p:custDataLst", {}, xml("p:tags", { "r:id": tags }));
    const data = xml("p:cSld", {}, background, xml("p:spTree", {}, GROUP, tree), custom);
    const timing = timingXml(slide, shapesOf, withoutText(slide), languageDirection(work.metadata.language));
    const show = slide.hidden ? 0 : undefined;
    const part = xml("p:sld", { ...namespaces, show }, data, MASTER_COLOURS, transition, timing);
    pack.add(work.path, TYPE.slide, XML_HEAD + part, relationships);
    if (notes !== undefined) this.notes.write(slide, notes);
  }

  /** Writes a slide of a source package: its part unchanged, or updated where it changed. */
  private sourceSlide(slide: Slide, number: number, kept: SourceParts, part: string): void {
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
    if (oldNotes !== undefined && sameNotes) this.notes.keep(kept, oldNotes, part, path);
    const { rows, recharted, named } = this.sourceRelationships(slide, kept, part, { oldNotes, newNotes, sameNotes });
    const relationships = new Relationships(rows);
    if (!sameComments(slide)) this.comments.write(slide, relationships, path);
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
    if (newNotes) this.notes.write(slide, newNotes);
  }

  /**
   * Returns the relationships of a source slide's part in the new package. Charts whose data changed lead to updated
   * parts (`recharted`, by element id); `named` are the parts to write only if the slide still refers to them.
   */
  private sourceRelationships(
    slide: Slide,
    kept: SourceParts,
    part: string,
    {
      oldNotes,
      newNotes,
      sameNotes,
    }: { oldNotes: string | undefined; newNotes: string | null | undefined; sameNotes: boolean },
  ) {
    const { pack } = this;
    const path = must(this.paths.get(slide.id));
    const charts = slide.sourcePart
      ? changedCharts(slide, kept, part, this.partOf(kept))
      : new Map<string, ChartElement>();
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
      if (/\/comments$/.test(row.type) && !sameComments(slide)) return [];
      if (row.target === oldNotes && !sameNotes)
        return newNotes ? [{ ...row, target: relativeTo(path, newNotes) }] : [];
      const target = kept.take(row.target);
      return target === undefined ? [] : [{ ...row, target: relativeTo(path, target) }];
    });
    return { rows, recharted, named };
  }

  private update(tags: string): PresentationUpdate {
    const { pack, deck, main, sources, paths, master } = this;
    return {
      pack,
      deck,
      main,
      files: [...this.files.values()],
      sources,
      paths,
      notesMaster: this.notes.masterPath,
      master: master && { path: master.path, id: master.id },
      comments: this.comments,
      tags,
    };
  }

  /** Copies what a source package has beside its presentation: properties, thumbnails, data of other programs. */
  private copyRoot(kept: SourceParts): void {
    const { pack, deck } = this;
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

/** The smallest id of a master in `p:sldMasterIdLst` (ECMA-376-1, 19.7.14). */
const FIRST_MASTER_ID = 2147483648;

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
