import { type FontSet, boxesOf } from "@unitext/core/layout";
import {
  type ChartElement,
  type Element,
  type Footnote,
  plainText,
  type Slide,
  must,
  languageDirection,
} from "@unitext/core/model";
import {
  backgroundHash,
  changedParts,
  isAsRead,
  type SourcePartOf,
  sameMotion,
  isSlideAsRead,
  transitionHash,
} from "../../../shared/sourcepackage";
import type { SourceParts } from "./sourceparts";
import { namespaces } from "../package/layouts";
import { NS } from "../package/names";
import { type ElementRange, rangeAt, type SlideRanges } from "./elementranges";
import { paragraphsXml } from "../write/text";
import { type ShapeGroup, timingXml, withGroups, withoutText } from "../write/timing";
import { transitionXml } from "../write/transition";
import { shapeXml } from "../write/shape";
import { backgroundXml } from "../write/background";
import { textContext, textBox, type ShapeWork, type SlideWork } from "../write/slidework";
import { slicesIn, moved, movedShape, reworded } from "./patchshape";

interface SlidePatch {
  slide: Slide;
  number: number;
  parts: SourceParts;
  part: string;
  partOf: SourcePartOf;
  work: SlideWork;
  fonts: FontSet;
  /** Charts whose parts have the new data already. */
  recharted: ReadonlySet<string>;
}

/** Returns the charts of a source slide of which only the data changed, by their parts. */
export function changedCharts(
  { elements }: Slide,
  kept: SourceParts,
  part: string,
  partOf: SourcePartOf,
): Map<string, ChartElement> {
  const found = new Map<string, ChartElement>();
  for (const element of elements) {
    if (element.kind !== "chart" || !element.sourceShape?.data || !changedParts(element, partOf)?.text) continue;
    const slices = slicesIn(kept, part);
    const slice = slices && rangeAt(slices, element.sourceShape.shape)?.slice;
    const id = slice && /<(?:\w+:)?chart\b[^>]*?\s\w+:id="([^"]+)"/.exec(slices.text.slice(slice.from, slice.to))?.[1];
    const target = kept.relationships(part).find((row) => row.id === id && !row.external)?.target;
    // A part that draws two charts of the slide is not updated for one of them: that one is written from scratch.
    if (target !== undefined && slices && slices.text.split(`"${id}"`).length === 2) found.set(target, element);
  }
  return found;
}

/** The tags of a source slide's elements, by the path of their shape. */
type Facts = Record<string, object>;
const factsOf = ({ id, slot, binding }: Element): object => ({ id, slot, ...(binding ? { binding } : {}) });

/**
 * Updates the text of a slide part where the slide changed. Returns undefined when nothing changed, so that the part
 * stays as it is.
 */
export function patchSlide({ slide, number, parts, part, partOf, work, fonts, recharted }: SlidePatch): {
  text: string | undefined;
  shapes: Facts;
} {
  const same = new Map(slide.elements.map((element) => [element.id, isAsRead(element, partOf)]));
  const slices = slicesIn(parts, part);
  if (!slices) return { text: undefined, shapes: {} };
  const facts: Facts = {};
  const order = slide.elements.map((element) => element.sourceShape?.shape ?? "");
  const known =
    slide.elements.every(({ id }) => same.get(id)) &&
    slide.sourcePart !== undefined &&
    isSlideAsRead(slide) &&
    sameMotion(slide) &&
    inOrder(order) &&
    slide.elements.length === slide.elements.filter((element) => element.sourceShape).length &&
    slide.sourcePart.shapes.length === order.length;
  if (known) {
    for (const element of slide.elements) facts[(element.sourceShape as { shape: string }).shape] = factsOf(element);
    return { text: undefined, shapes: facts };
  }
  const writer = new Splicer(slide, number, slices, same, parts, part, work, partOf, fonts, recharted);
  const text = writer.text();
  return { text, shapes: writer.facts };
}

/** Whether shapes are in the order of the file. */
function inOrder(paths: readonly string[]): boolean {
  const key = (path: string) =>
    path
      .split(".")
      .map((step) => step.padStart(6, "0"))
      .join(".");
  return paths.every((path, nth) => nth === 0 || key(must(paths[nth - 1])) < key(path));
}

class Splicer {
  readonly facts: Facts = {};
  private nextId: number;
  private readonly boxes;
  constructor(
    private readonly slide: Slide,
    number: number,
    private readonly slices: SlideRanges,
    private readonly same: ReadonlyMap<string, boolean>,
    private readonly kept: SourceParts,
    private readonly part: string,
    private readonly work: SlideWork,
    private readonly partOf: SourcePartOf,
    fonts: FontSet,
    private readonly recharted: ReadonlySet<string>,
  ) {
    this.nextId = Math.max(1, ...[...slices.ids].map((id) => Number(id) || 0)) + 1;
    for (const { id, sourceShape: shape } of slide.elements) {
      const held = shape && rangeAt(slices, shape.shape)?.slice.id;
      if (held !== undefined) this.shapes.set(id, [Number(held)]);
    }
    this.boxes = boxesOf(slide, { metadata: work.metadata, number, fonts });
  }

  text(): string {
    const { slices, slide } = this;
    const { text, shapes } = slices;
    const modelled = new Set<number>();
    for (const path of slide.sourcePart?.shapes ?? []) modelled.add(Number(path.split(".")[0]));
    const members = new Map<number, Element[]>();
    for (const element of slide.elements) {
      if (!element.sourceShape) continue;
      const top = Number(element.sourceShape.shape.split(".")[0]);
      modelled.add(top);
      const held = members.get(top);
      if (held) held.push(element);
      else members.set(top, [element]);
    }
    const units: { top: number | undefined; words: string }[] = [];
    const done = new Set<number>();
    for (const element of slide.elements) {
      const top = element.sourceShape ? Number(element.sourceShape.shape.split(".")[0]) : Number.NaN;
      const slice = shapes[top];
      if (!slice) {
        units.push({ top: undefined, words: this.written(element, undefined) });
      } else if (slice.name === "grpSp") {
        if (!done.has(top)) units.push(...this.group(slice, top, members.get(top) ?? []));
      } else if (!done.has(top)) {
        // Alternate content that became several elements is one piece; of what became one, only a changed element is
        // replaced.
        const alone = members.get(top)?.length === 1;
        const whole = this.same.get(element.id) || (slice.name === "AlternateContent" && !alone);
        units.push({ top, words: whole ? text.slice(slice.from, slice.to) : this.written(element, slice) });
      }
      if (slice) done.add(top);
    }
    // What is not an element (footers, empty placeholders) stays after what it followed.
    const standing = units
      .flatMap(({ top }, nth) => (top === undefined ? [] : [{ top, nth }]))
      .sort((a, b) => a.top - b.top);
    const following = new Map<number, typeof units>();
    let [next, after] = [0, -1];
    shapes.forEach((slice, top) => {
      if (modelled.has(top)) return;
      for (; (standing[next]?.top ?? Number.POSITIVE_INFINITY) < top; next++)
        after = Math.max(after, must(standing[next]?.nth));
      const held = following.get(after) ?? [];
      held.push({ top, words: text.slice(slice.from, slice.to) });
      following.set(after, held);
    });
    const all = [...(following.get(-1) ?? []), ...units.flatMap((unit, nth) => [unit, ...(following.get(nth) ?? [])])];
    this.number(all);
    const first = shapes[0]?.from ?? slices.treeEnd;
    const last = shapes.at(-1)?.to ?? slices.treeEnd;
    const tree = all.map(({ words }) => words).join("");
    return this.framed(first, last, tree);
  }

  /** Returns the paths under which the shapes of the new part will be read, for the tags. */
  private number(units: readonly { top: number | undefined; words: string }[]): void {
    const paths = new Map<number, number>();
    units.forEach(({ top }, nth) => {
      if (top !== undefined) paths.set(top, nth);
    });
    let fresh = 0;
    const news = units.flatMap(({ top }, nth) => (top === undefined ? [nth] : []));
    for (const element of this.slide.elements) {
      const [first, ...rest] = (element.sourceShape?.shape ?? "").split(".");
      const at = element.sourceShape ? paths.get(Number(first)) : undefined;
      const path =
        at === undefined || this.loose.has(element.id) ? String(news[fresh++] ?? "") : [at, ...rest].join(".");
      this.facts[path] = factsOf(element);
    }
  }

  /** The shape ids of elements in the new part. */
  private readonly shapes = new Map<string, number[]>();

  /** Elements that leave their group and are written beside it. */
  private readonly loose = new Set<string>();

  /** Returns the groups of the file that are still in the part with all their members. */
  private wholeGroups(ids: ReadonlySet<string | undefined>): ShapeGroup[] {
    return this.slices.shapes.flatMap(({ name, id }, top) => {
      const members = this.slide.elements
        .filter(
          ({ id: own, sourceShape }) =>
            sourceShape && Number(sourceShape.shape.split(".")[0]) === top && !this.loose.has(own),
        )
        .map((element) => element.id);
      return name === "grpSp" && ids.has(id) ? [{ id: Number(id), members }] : [];
    });
  }

  private group(
    slice: ElementRange,
    top: number,
    members: readonly Element[],
  ): { top: number | undefined; words: string }[] {
    const { text } = this.slices;
    const gone = (this.slide.sourcePart?.shapes ?? []).filter(
      (path) => Number(path.split(".")[0]) === top && !members.some(({ sourceShape }) => sourceShape?.shape === path),
    );
    // Text is changed inside the group; members that move or change their appearance are written beside it.
    const worded = members.filter(
      (element) => !this.same.get(element.id) && changedParts(element, this.partOf)?.place === false,
    );
    const changed = members.filter((element) => !this.same.get(element.id) && !worded.includes(element));
    if (!changed.length && !gone.length && !worded.length) return [{ top, words: text.slice(slice.from, slice.to) }];
    const at = (path: string) => {
      const found = rangeAt(this.slices, path);
      return found && found.slice !== slice ? [found.slice] : [];
    };
    const shapeOf = ({ sourceShape }: Element) => (sourceShape as { shape: string }).shape;
    const cuts = [
      ...[...gone, ...changed.map(shapeOf)].flatMap((path) => at(path).map((cut) => ({ cut, words: "" }))),
      ...worded.flatMap((element) => at(shapeOf(element)).map((cut) => ({ cut, words: this.written(element, cut) }))),
    ].sort((a, b) => b.cut.from - a.cut.from);
    let words = text.slice(slice.from, slice.to);
    for (const { cut, words: instead } of cuts)
      words = words.slice(0, cut.from - slice.from) + instead + words.slice(cut.to - slice.from);
    for (const { id } of changed) this.loose.add(id);
    const left = members.length > changed.length;
    return [
      ...(left ? [{ top, words }] : []),
      ...changed.map((element) => ({
        top: undefined,
        words: this.written(element, rangeAt(this.slices, shapeOf(element))?.slice, true),
      })),
    ];
  }

  /**
   * Writes an element with the id that it had: with the file's XML where only its place or text changed. `loose` is one
   * that leaves its group.
   */
  private written(element: Element, before: ElementRange | undefined, loose = false): string {
    const { work } = this;
    if ((element.kind === "foreign" || element.kind === "media") && before) {
      return moved(this.slices.text.slice(before.from, before.to), element.frame, element.rotation);
    }
    const plain = before && before.name !== "AlternateContent" ? changedParts(element, this.partOf) : undefined;
    const stood = plain && this.slices.text.slice(before?.from, before?.to);
    const placed =
      stood === undefined ? undefined : plain?.place || loose ? moved(stood, element.frame, element.rotation) : stood;
    if (before && placed !== undefined && (!plain?.text || this.recharted.has(element.id))) return placed;
    const words = before ? this.slices.text.slice(before.from, before.to) : "";
    const placeholder = /<((?:\w+:)?)ph\b[^>]*?(?:\/>|>[\s\S]*?<\/(?:\w+:)?ph>)/
      .exec(words)?.[0]
      .replace(/<(\/?)(?:\w+:)?ph\b/g, "<$1p:ph");
    const box = this.boxes.get(element.id);
    const id = before?.id === undefined ? this.nextId++ : Number(before.id);
    const own = [id];
    this.shapes.set(element.id, own);
    const notes: Footnote[] = [];
    const shape: ShapeWork = {
      ...work,
      id,
      name: element.name ?? `${element.kind} ${id}`,
      frame: element.frame ?? box ?? { x: 72, y: 144, width: 400, height: 240 },
      box,
      role: undefined,
      placeholder: () => placeholder,
      notes,
      line: (text, frame) => {
        const line = this.nextId++;
        own.push(line);
        return textBox(
          { id: line, name: `caption ${line}`, frame },
          paragraphsXml(plainText(text), textContext(work, 12, false)),
          12,
        );
      },
      sourceXml: (other) => movedShape(this.kept, this.part, other, work),
    };
    const made = shapeXml(element, shape);
    const again = placed === undefined ? undefined : reworded(placed, made);
    if (again !== undefined) return again;
    // The part may use other namespace prefixes, so each new shape declares its own.
    const declared = Object.entries(namespaces)
      .map(([name, uri]) => ` ${name}="${uri}"`)
      .join("");
    return made.replace(/^<p:[\w]+/, (open) => open + declared);
  }

  /**
   * Writes the part around its new shapes: hidden or not, background, transition, and motion as far as its shapes are
   * there.
   */
  private framed(first: number, last: number, tree: string): string {
    const { slices, slide, work } = this;
    const { text, root, background, transition, timing } = slices;
    const edits: [number, number, string][] = [[first, last, tree]];
    const open = text.slice(...root);
    const shown = open.replace(/\sshow="[^"]*"/, "");
    if (slide.hidden !== /\sshow="(?:0|false)"/.test(open))
      edits.push([root[0], root[1], slide.hidden ? shown.replace(/(\/?>)$/, ' show="0"$1') : shown]);
    if (!isSlideAsRead(slide)) {
      const ground = declaredBackground(backgroundXml(slide.background, work));
      if (background && this.changedBackground) edits.push([background[0], background[1], ground]);
      else if (!background && ground && this.changedBackground) edits.push([slices.data, slices.data, ground]);
      if (this.changedTransition) {
        for (const [from, to] of transition) edits.push([from, to, ""]);
        const made = transitionXml(slide, languageDirection(work.metadata.language));
        if (made)
          edits.push([
            slices.afterMap,
            slices.afterMap,
            made.replace(/^<p:transition/, `<p:transition xmlns:p="${NS.p}"`),
          ]);
      }
    }
    const ids = new Set([...tree.matchAll(/<(?:\w+:)?cNvPr\b[^>]*?\sid="(\d+)"/g)].map(([, id]) => id));
    const asked = timing ? [...text.slice(...timing).matchAll(/\sspid="(\d+)"/g)].map(([, id]) => id) : [];
    if (!sameMotion(slide) || asked.some((id) => !ids.has(id))) {
      const made = timingXml(
        slide,
        withGroups(slide, (element) => this.shapes.get(element), this.wholeGroups(ids)),
        withoutText(slide),
        languageDirection(work.metadata.language),
      ).replace(/^<p:timing/, `<p:timing xmlns:p="${NS.p}"`);
      const after = Math.max(slices.afterMap, ...transition.map(([, to]) => to));
      // Of two insertions at one place the one inserted first comes last: a transition precedes the timing.
      if (timing) edits.unshift([timing[0], timing[1], made]);
      else if (made) edits.unshift([after, after, made]);
    }
    let out = text;
    for (const [from, to, words] of edits.sort((a, b) => b[0] - a[0] || b[1] - a[1]))
      out = out.slice(0, from) + words + out.slice(to);
    return out;
  }

  private get changedBackground(): boolean {
    return this.slide.sourcePart?.backgroundHash !== backgroundHash(this.slide);
  }
  private get changedTransition(): boolean {
    return this.slide.sourcePart?.transitionHash !== transitionHash(this.slide);
  }
}

const declaredBackground = (words: string) =>
  words.replace(/^<p:bg>/, `<p:bg xmlns:p="${NS.p}" xmlns:a="${NS.a}" xmlns:r="${NS.r}">`);
