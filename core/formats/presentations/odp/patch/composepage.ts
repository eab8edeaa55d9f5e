import { type Element, type Slide, must } from "@unitext/core/model";
import { type PageRange, rangeAt } from "./elementranges";
import { withAttribute, DRAWN } from "./patchshape";
import type { OdpBase } from "./patchslide";

/** What the writer contributes to a page of a source package. */
export interface PageParts {
  /** The attributes of the page that changed. */
  tag: Record<string, string | undefined>;
  notes: string;
  /** The comments, where they differ from those of the file. */
  comments: string;
  /** Shapes at the end: footnotes and regions. */
  below: readonly string[];
  /** Writes an element from scratch. */
  write(element: Element): string;
  /** Adds an embedded document with the files beside its content. Returns its path. */
  object(content: string, beside: ReadonlyMap<string, Uint8Array>): string;
  /** Writes the text of an element for a shape of the file. */
  text(element: Element): string | undefined;
  /** Adds the ids by which timing refers to the element's shape. */
  named(element: Element, words: string): string;
  timing(): string;
  /** Puts shapes into their groups. */
  group(shapes: { id: string; groups: readonly string[]; xml: string }[]): string;
}

/** Parts of a page that come before its shapes. */
const LEADING: ReadonlySet<string> = new Set(["forms", "layer-set", "title", "desc"]);

/** Writes a changed page: unchanged pieces with the file's XML, the others from scratch. */
class PageComposer {
  private readonly same: ReturnType<OdpBase["untouched"]>;
  private readonly shapes: readonly string[];
  private readonly pieces: string[] = [];
  /** The paths of the elements' shapes. */
  readonly places = new Map<string, string>();
  /** Whether the file's timing is kept: all shapes that it refers to are there, and the entrances are unchanged. */
  private readonly keepsTiming: boolean;

  constructor(
    private readonly base: OdpBase,
    private readonly page: PageRange,
    private readonly slide: Slide,
    private readonly own: PageParts,
  ) {
    this.same = base.untouched(slide);
    this.shapes = must(slide.sourcePart).shapes;
    const present = new Set(slide.elements.flatMap((one) => one.sourceShape?.shape ?? []));
    this.keepsTiming =
      this.same.motion &&
      this.shapes.every((shape) => present.has(shape)) &&
      slide.elements.every((one) => !one.sourceShape || this.same.element(one));
  }

  xml(): string {
    const { page, own, pieces } = this;
    const opening = this.slice({ from: page.from, to: page.open }).replace(/\/>$/, ">");
    const tag = Object.entries(own.tag).reduce(
      (words, [name, value]) => (value === undefined ? words : withAttribute(words, name, value)),
      opening,
    );
    const withElements = new Set(this.shapes.map((shape) => must(shape.split(".")[0])));
    const first = Math.min(...[...withElements].map(Number), Number.POSITIVE_INFINITY);
    const others = page.inner
      .map((slice, nth) => ({ slice, nth }))
      .filter(({ slice, nth }) => slice.name !== "notes" && !withElements.has(String(nth)))
      .filter(({ slice }) => slice.name !== "annotation" || this.same.comments);
    for (const { slice, nth } of others)
      if (LEADING.has(slice.name) || (DRAWN.has(slice.name) && nth < first)) pieces.push(this.slice(slice));
    this.elements();
    for (const { slice, nth } of others) if (nth >= first && DRAWN.has(slice.name)) pieces.push(this.slice(slice));
    pieces.push(...own.below);
    if (!this.same.comments) pieces.push(own.comments);
    if (!this.keepsTiming) pieces.push(own.timing());
    else
      for (const { slice } of others)
        if (!DRAWN.has(slice.name) && !LEADING.has(slice.name)) pieces.push(this.slice(slice));
    const notes = page.inner.find(({ name }) => name === "notes");
    pieces.push(this.same.notes ? (notes ? this.slice(notes) : "") : own.notes);
    return `${tag}${pieces.join("")}</draw:page>`;
  }

  private slice(range: { from: number; to: number }): string {
    return this.base.slice(range, this.slide);
  }

  private elements(): void {
    const { elements } = this.slide;
    const byTop = new Map<string, string[]>();
    for (const shape of this.shapes) {
      const top = must(shape.split(".")[0]);
      byTop.set(top, [...(byTop.get(top) ?? []), shape]);
    }
    const taken = new Set<string>();
    for (let at = 0; at < elements.length; ) {
      const top = must(elements[at]).sourceShape?.shape.split(".")[0];
      const members = byTop.get(top ?? "") ?? [];
      const run = elements.slice(at, at + members.length);
      const isWhole =
        top !== undefined &&
        !taken.has(top) &&
        members.length > 0 &&
        run.length === members.length &&
        run.every((one, nth) => one.sourceShape?.shape === members[nth] && this.same.element(one));
      if (isWhole) {
        taken.add(top);
        this.unchangedShape(top, run);
        at += members.length;
      } else at = this.changedShapes(at);
    }
  }

  /** Adds a shape or group of the file of which no element changed. */
  private unchangedShape(top: string, elements: readonly Element[]): void {
    const { page, pieces, own } = this;
    for (const { id, sourceShape } of elements)
      this.places.set(id, [String(pieces.length), ...(sourceShape?.shape.split(".").slice(1) ?? [])].join("."));
    const piece = this.slice(must(page.inner[Number(top)]));
    pieces.push(
      this.keepsTiming
        ? piece
        : elements.reduce((words, one) => {
            const shape = this.slice(must(rangeAt(page, must(one.sourceShape).shape)));
            return words.replace(shape, () => own.named(one, shape));
          }, piece),
    );
  }

  /** Adds the element at an index, with the others of its group. Returns the index after them. */
  private changedShapes(at: number): number {
    const { page, slide, pieces, own } = this;
    const group = slide.elements[at]?.groups?.[0];
    let to = at + 1;
    while (group !== undefined && slide.elements[to]?.groups?.[0] === group) to++;
    const shapes = slide.elements.slice(at, to).map((one, nth) => {
      const kept = this.keptXml(one);
      const anchor = kept === undefined ? undefined : this.base.anchorOf(page, one, slide);
      const words = kept === undefined ? own.write(one) : own.named(one, kept);
      const inside = anchor === undefined ? "" : ".0";
      if (kept !== undefined && one.groups?.length === 1 && to - at > 1)
        this.places.set(one.id, `${pieces.length}.${nth}${inside}`);
      if (to - at === 1 && group === undefined) this.places.set(one.id, `${pieces.length}${inside}`);
      const xml = anchor === undefined ? words : `${anchor}${words}</draw:a>`;
      return { id: one.id, groups: one.groups ?? [], xml };
    });
    pieces.push(own.group(shapes));
    return to;
  }

  /** Returns the file's XML of an element with what changed in it; undefined when it has to be written from scratch. */
  private keptXml(element: Element): string | undefined {
    const { base, slide, own } = this;
    const slice = element.sourceShape && rangeAt(this.page, element.sourceShape.shape);
    if (!slice) return undefined;
    if (this.same.element(element)) return this.slice(slice);
    if (element.kind === "foreign") return base.moved(slice, element, slide);
    return (
      base.recharted(element, slice, slide, own.object) ?? base.partly(element, slice, slide, () => own.text(element))
    );
  }
}

/** Writes a changed page of a source package. Returns it with the paths of the elements' shapes. */
export function composePage(
  base: OdpBase,
  page: PageRange,
  slide: Slide,
  own: PageParts,
): { xml: string; places: ReadonlyMap<string, string> } {
  const composer = new PageComposer(base, page, slide, own);
  return { xml: composer.xml(), places: composer.places };
}
