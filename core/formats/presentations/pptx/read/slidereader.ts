import type { Report } from "@unitext/core/tally";
import type { PartContexts } from "./partcontexts";
import { type ReadContext, readBody } from "./text";
import {
  cutText,
  type ArrangementName,
  Comment,
  type Element,
  Origin,
  RegionBox,
  RichText,
  type Slide,
  Source,
  must,
} from "@unitext/core/model";
import { partText } from "../../../shared/archive";
import { at, child, type XmlElement } from "../../../shared/xml";
import { elementTags, mergeAppearance, parseOptional, textTag, withTaggedRuns } from "../../../shared/sourcepackage";
import { withMotion } from "../../shared/motion";
import type { ReadOptions } from "../../shared/reading";
import { type Inheritance, placeholderRef, shapesOf } from "./inherit";
import { TAG } from "../package/names";
import type { OpenedPackage } from "../package/package";
import { ShapeReader } from "./shape";
import { identityOf, type TaggedIdentity } from "./shapework";
import { withTaggedComments } from "../../shared/comments";
import { commentReader, type FileComment, onElements } from "./comments";
import { type OwnFile, type OwnSlide, OwnSlideReader } from "./ownslides";
import { readTiming, shapePaths } from "./timing";
import type { PptxFiles } from "./files";
import { arrangementOf, backgroundOf, regionsOf, transitionOf } from "./slide";
import { shapeHashes, appearanceHashes } from "../patch/appearance";

const [RegionBoxes, Comments] = [RegionBox.array(), Comment.array()];

/** A slide that Unitext wrote, as its part and its tags have it. */
interface TaggedSlide {
  path: string;
  number: number;
  tree: XmlElement;
  shapes: readonly XmlElement[];
  inheritance: Inheritance;
  known: OwnSlide["tags"];
  /** The tags of the slide. */
  kept: Record<string, unknown>;
  common: Omit<Slide, "elements">;
}

/** Reads the slides of a presentation, those that Unitext wrote and those of other programs. */
export class SlideReader implements OwnFile {
  readonly pack: OpenedPackage;
  readonly files: PptxFiles;
  readonly left: Report["left"];
  private readonly ours = new OwnSlideReader(this);
  private readonly comments: (path: string, number: number) => FileComment[];

  /** `codeFont` is the font by which text that Unitext wrote as code is recognised. */
  constructor(
    private readonly parts: PartContexts,
    readonly options: ReadOptions,
    readonly codeFont: string | undefined,
  ) {
    this.pack = parts.pack;
    this.files = parts.files;
    this.left = parts.left;
    this.comments = commentReader(parts.pack, parts.main, parts.left);
  }

  get language(): string {
    return this.parts.language;
  }

  linker(path: string, number: number): ReadContext["link"] {
    return this.parts.linker(path, number);
  }

  slide(path: string, number: number, tags: Map<string, unknown>): Slide {
    return withTaggedRuns(this.untied(path, number, tags), tags.get(TAG.slide), number, this.left);
  }

  /** Reads a slide without the bindings of its runs. */
  private untied(path: string, number: number, tags: Map<string, unknown>): Slide {
    const tree = this.pack.tree(path);
    const inheritance = this.parts.inheritance(path);
    const kept = (tags.get(TAG.slide) ?? {}) as Record<string, unknown>;
    const known = elementTags((tags.get(TAG.elements) ?? {}) as Record<string, unknown>);
    const shapes = shapesOf(tree).map((shape) => this.ours.alternative(shape, known));
    const arrangement = arrangementOf(kept.arrangement, inheritance, shapes);
    const [source, origin] = [parseOptional(Source, kept.source), parseOptional(Origin, kept.origin)];
    const notes = textTag(parseOptional(RichText, kept.notes), this.notes(path), [], true);
    const common = {
      id: must(this.parts.ids.get(path)),
      parent: typeof kept.parent === "string" ? kept.parent : null,
      arrangement,
      notes,
      hidden: tree.attributes.show === "0" || tree.attributes.show === "false",
      ...(source ? { source } : {}),
      ...(origin ? { origin } : {}),
      ...(typeof kept.theme === "string" ? { theme: kept.theme } : {}),
      ...(typeof kept.section === "string" && kept.section ? { section: cutText(kept.section, 300) } : {}),
    };
    if (this.ours.isOurs(tree, shapes, kept, known))
      return this.ownSlide({ path, number, tree, shapes, inheritance, known, kept, common });
    const identities = (tags.get(TAG.kept) ?? {}) as Record<string, unknown>;
    return this.foreignSlide(path, number, tree, shapes, inheritance, common, { keptShapes: identities, kept });
  }

  /** Reads a slide that Unitext wrote: its elements by their tags, with what another program changed. */
  private ownSlide({ path, number, tree, shapes, inheritance, known, kept, common }: TaggedSlide): Slide {
    const { arrangement } = common;
    const text = partText(must(this.pack.bytes(path)));
    const own: OwnSlide = {
      path,
      number,
      arrangement,
      inheritance,
      tags: known,
      used: new Set(),
      footnotes: [],
      hashes: shapeHashes(text),
    };
    const elements = shapes.flatMap((shape) => this.ours.elements(shape, own));
    const named = new Map(elements.map((element) => [element.id, element]));
    const comments = withTaggedComments(
      onElements(this.comments(path, number), (shape) => named.get(known(shape).id ?? "")),
      parseOptional(Comments, kept.comments) ?? [],
    );
    const moved = withMotion(
      { arrangement, elements },
      readTiming(child(tree, "timing")),
      (id) => [named.get(known(id).id ?? "") ?? []].flat(),
      () => {},
    );
    const appearance = mergeAppearance(kept, appearanceHashes(text), () =>
      this.appearance(path, number, tree, inheritance, arrangement),
    );
    return {
      ...common,
      elements: moved.elements,
      ...appearance,
      ...this.shared(kept),
      ...(comments.length ? { comments } : {}),
    };
  }

  /** Returns background and transition of a slide as its part has them. */
  private appearance(
    path: string,
    number: number,
    tree: XmlElement,
    inheritance: Inheritance,
    arrangement: ArrangementName,
  ): Pick<Slide, "background" | "transition" | "delay"> {
    const map = this.parts.layoutOf(inheritance).map;
    const background = backgroundOf(
      tree,
      this.parts.shapeWork(path, number, inheritance, map, arrangement, new Map(), this.options.newId).drawing,
    );
    return {
      ...(background ? { background } : {}),
      ...transitionOf(tree, (what, how) => this.parts.adapted.push({ slide: number, what, how })),
    };
  }

  /** Returns what a slide written by Unitext inherits from its earlier source file. */
  private shared({ master, regions }: Record<string, unknown>): Pick<Slide, "master" | "regions"> {
    const boxes = parseOptional(RegionBoxes, regions);
    return {
      ...(typeof master === "string" ? { master } : {}),
      ...(boxes ? { regions: boxes } : {}),
    };
  }

  /** Reads a slide of another program: its elements in place, in the styles of its layout and master. */
  private foreignSlide(
    path: string,
    number: number,
    tree: XmlElement,
    shapes: readonly XmlElement[],
    inheritance: Inheritance,
    common: Omit<Slide, "elements">,
    { keptShapes, kept }: { keptShapes: Record<string, unknown>; kept: Record<string, unknown> },
  ): Slide {
    const look = this.parts.layoutOf(inheritance);
    const own = at(tree, "clrMapOvr", "overrideClrMapping")?.attributes;
    const map = own ? { ...look.map, ...own } : look.map;
    const identities = new Map(Object.entries(keptShapes).map(([shape, value]) => [shape, identityOf(value)]));
    const seen = new Set<string>();
    const work = this.parts.shapeWork(path, number, inheritance, map, common.arrangement, identities, (shape) => {
      const wanted = identities.get(shape)?.id;
      const id = wanted && !seen.has(wanted) ? wanted : this.options.newId();
      seen.add(id);
      return id;
    });
    const elements = new ShapeReader(work).read(shapes).map((element) => this.parts.noteFonts(element));
    const timing = child(tree, "timing");
    const paths = shapePaths(shapes);
    const standing = new Map(elements.map((element) => [element.sourceShape?.shape ?? "", element]));
    const moved = withMotion(
      { arrangement: common.arrangement, elements },
      readTiming(timing),
      (id) => (paths.get(id) ?? []).flatMap((shape) => standing.get(shape) ?? []),
      (entry) => this.parts.adapted.push({ slide: number, ...entry }),
    );
    for (const what of moved.unsupported)
      this.parts.adapted.push({
        slide: number,
        what,
        how: "not played; a .pptx keeps it while the entrances of its slide stay as they are",
      });
    const background = backgroundOf(tree, work.drawing);
    const master = tree.attributes.showMasterSp === "0" ? undefined : this.parts.master(inheritance, look);
    const regions = regionsOf(shapes, work);
    const comments = withTaggedComments(
      onElements(this.comments(path, number), (shape) => standing.get(paths.get(shape)?.[0] ?? "")),
      parseOptional(Comments, kept.comments) ?? [],
    );
    const transition = transitionOf(tree, (what, how) => this.parts.adapted.push({ slide: number, what, how }));
    return {
      ...common,
      elements: moved.elements,
      ...(moved.unsupported.length ? { unsupportedMotion: moved.unsupported } : {}),
      ...transition,
      ...(background ? { background } : {}),
      master: master ?? this.parts.emptyMaster(inheritance, look),
      ...(regions.length ? { regions } : {}),
      ...(comments.length ? { comments } : {}),
      sourcePart: { file: "", part: path, hash: "", notesHash: "", backgroundHash: "", transitionHash: "", shapes: [] },
    };
  }

  /** Reads a layout as a slide whose title is the layout's name, for a template without slides. */
  layoutSlide(path: string, number: number): Slide {
    const tree = this.pack.tree(path);
    const inheritance = this.parts.inheritanceOfLayout(path);
    const shapes = shapesOf(tree).filter((shape) => placeholderRef(shape) !== undefined);
    const common = {
      id: must(this.parts.ids.get(path)),
      parent: null,
      arrangement: arrangementOf(undefined, inheritance, shapes),
      notes: [],
      hidden: false,
    };
    const {
      sourcePart: _,
      elements,
      ...slide
    } = this.foreignSlide(path, number, tree, shapes, inheritance, common, { keptShapes: {}, kept: {} });
    const name = cutText(inheritance.layoutName, 300);
    return {
      ...slide,
      elements: elements.map(({ sourceShape: __, ...element }) => {
        const [line] = element.kind === "text" && element.slot === "title" && name ? element.text : [];
        return (
          line ? { ...element, text: [{ ...line, runs: [{ ...line.runs[0], text: name }] }] } : element
        ) as Element;
      }),
    };
  }

  /** Reads a shape written by Unitext as another program left it. */
  repainted(
    shape: XmlElement,
    { path, number, arrangement, inheritance }: OwnSlide,
    identity: TaggedIdentity & { id: string },
  ): Element | undefined {
    const look = this.parts.layoutOf(inheritance);
    const work = this.parts.shapeWork(
      path,
      number,
      inheritance,
      look.map,
      arrangement,
      new Map([["0", identity]]),
      () => identity.id,
    );
    const [found] = new ShapeReader(work).read([shape]);
    if (!found) return undefined;
    const { sourceShape: _, ...element } = found;
    return this.parts.noteFonts(element as Element);
  }

  private notes(path: string): RichText {
    const part = this.pack.related(path, "notes");
    if (!part || !this.pack.has(part)) return [];
    const body = shapesOf(this.pack.tree(part)).find((shape) => placeholderRef(shape)?.type === "body");
    return readBody(child(body, "txBody"), { styles: [], codeFont: this.codeFont, link: this.linker(part, 0) });
  }
}
