import {
  cutText,
  ArrangementName,
  type Comment,
  Comment as CommentSchema,
  type Element,
  Origin,
  RegionBox,
  RichText,
  type Slide,
  SlideProperties,
  Source,
  type Transition,
} from "@unitext/core/model";
import { child, childrenOf, localName, type XmlNode, attribute } from "../../../shared/xml";
import { mergeAppearance, parseOptional, textTag, withTaggedRuns } from "../../../shared/sourcepackage";
import { withTaggedComments } from "../../shared/comments";
import { nearTransition, withMotion } from "../../shared/motion";
import { readRegions } from "./regions";
import type { PageWork } from "./elements";
import { readText } from "./text";
import { readTiming } from "../package/timing";
import { points } from "../package/names";
import { ShapeStyles } from "./shapestyles";
import type { OdpContext, PageStyle } from "./context";

const WIPES: Record<string, Transition["kind"]> = { fade: "fade", pushWipe: "push", barWipe: "wipe" };
const [RegionBoxes, Comments] = [RegionBox.array(), CommentSchema.array()];

/** Returns the arrangement that suits the placeholders of another program's page. */
function arrangementOf(page: XmlNode): ArrangementName {
  const classes = page.children.flatMap((shape) => attribute(shape, "class") ?? []);
  const bodies = classes.filter((name) => name === "outline" || name === "text").length;
  if (!classes.includes("title")) return bodies ? "points" : "blank";
  if (classes.includes("subtitle")) return "opening";
  return bodies >= 2 ? "comparison" : bodies === 1 ? "points" : "title";
}

/** Reads the annotations of a page (OpenDocument 1.3, 14.1), with what the tags of the slide say of them. */
function commentsOf(page: XmlNode, kept: Record<string, unknown>): Comment[] {
  const read = childrenOf(page, "annotation")
    .slice(0, 2000)
    .map((note, nth): Comment => {
      const date = child(note, "date")?.text.slice(0, 40);
      const text = childrenOf(note, "p")
        .map((paragraph) => plainWords(paragraph))
        .join("\n");
      const [x, y] = [points(attribute(note, "x")), points(attribute(note, "y"))];
      const isPlaced = x !== undefined && y !== undefined && Math.max(Math.abs(x), Math.abs(y)) <= 20000;
      return {
        id: `c${nth + 1}`,
        author: cutText(child(note, "creator")?.text ?? "", 300),
        text: cutText(text, 20000),
        ...(date ? { date } : {}),
        ...(isPlaced ? { at: { x, y } } : {}),
      };
    });
  return withTaggedComments(read, parseOptional(Comments, kept.comments) ?? []);
}

const plainWords = (element: XmlNode): string =>
  element.content.map((part) => (typeof part === "string" ? part : plainWords(part))).join("");

/** Reads the pages of a presentation as slides. */
export class SlideReader {
  /** `footers` are the declared texts of footers and dates, by kind and name. */
  constructor(
    private readonly context: OdpContext,
    private readonly footers: ReadonlyMap<string, string>,
  ) {}

  slide(page: XmlNode, number: number, id: string, kept: Record<string, unknown>): Slide {
    const own = parseOptional(ArrangementName, kept.arrangement);
    const arrangement = own ?? arrangementOf(page);
    const ours = kept.id !== undefined && kept.foreign !== true;
    const { context } = this;
    const style = context.pageStyle(page);
    const work: PageWork = {
      number,
      arrangement,
      tags: (kept.elements ?? {}) as Record<string, unknown>,
      used: new Set(),
      footnotes: [],
      shapes: new ShapeStyles(context.shapeWork(context.pages, number, style.dark)),
      ours,
      elementOf: new Map(),
    };
    const elements = page.children.flatMap((shape, nth) =>
      context.pages.shapes.elements(shape, String(nth), [], undefined, work),
    );
    const properties = SlideProperties.safeParse(kept);
    const [source, origin] = [parseOptional(Source, kept.source), parseOptional(Origin, kept.origin)];
    const notes = childrenOf(child(page, "notes"), "frame").find((frame) => attribute(frame, "class") === "notes");
    const spoken = readText(child(notes, "text-box")?.children ?? [], context.pages.text);
    const moved = this.motion(page, { arrangement, elements }, work);
    const unsupported = moved.unsupported.length ? { unsupportedMotion: moved.unsupported } : {};
    const common = {
      id,
      parent: typeof kept.parent === "string" ? kept.parent : null,
      arrangement,
      elements: moved.elements,
      notes: textTag(parseOptional(RichText, kept.notes), spoken, [], true),
      hidden: style.graphic.visibility === "hidden",
      ...(source ? { source } : {}),
      ...(origin ? { origin } : {}),
      ...(typeof kept.theme === "string" ? { theme: kept.theme } : {}),
      ...(properties.success && properties.data.section ? { section: properties.data.section } : {}),
    };
    const slide = ours
      ? { ...common, ...this.ownParts(page, number, style, kept) }
      : { ...common, ...this.foreignParts(page, number, style, kept), ...unsupported };
    return withTaggedRuns(slide, kept, number, context.left);
  }

  /** Returns the rest of a slide that Unitext wrote: what its tags say, where no other program changed it. */
  private ownParts(
    page: XmlNode,
    number: number,
    { graphic, hashes }: PageStyle,
    kept: Record<string, unknown>,
  ): Partial<Slide> {
    const regions = parseOptional(RegionBoxes, kept.regions);
    const comments = commentsOf(page, kept);
    return {
      ...mergeAppearance(kept, hashes, () => this.appearance(graphic, number)),
      ...(typeof kept.master === "string" ? { master: kept.master } : {}),
      ...(regions ? { regions } : {}),
      ...(comments.length ? { comments } : {}),
    };
  }

  /** Returns the rest of a slide of another program: background, transition, master, regions and comments. */
  private foreignParts(
    page: XmlNode,
    number: number,
    { graphic }: PageStyle,
    kept: Record<string, unknown>,
  ): Partial<Slide> {
    const { context } = this;
    const name = attribute(page, "master-page-name");
    const regions = readRegions(page, graphic, {
      master: context.masterPages.get(name ?? ""),
      declared: this.footers,
      onPage: { text: context.pages.text, work: context.shapeWork(context.pages, null) },
      onMaster: { text: context.masterSide.text, work: context.shapeWork(context.masterSide, null) },
      report: (what, how) => context.adapted.push({ slide: number, what, how }),
    });
    const comments = commentsOf(page, kept);
    return {
      ...this.appearance(graphic, number),
      master: context.master(name, graphic),
      ...(regions.length ? { regions } : {}),
      ...(comments.length ? { comments } : {}),
      sourcePart: {
        file: "",
        part: `content.xml#${number}`,
        hash: "",
        notesHash: "",
        backgroundHash: "",
        transitionHash: "",
        shapes: [],
      },
    };
  }

  /** Reads how the elements of a page appear. */
  private motion(
    page: XmlNode,
    slide: Pick<Slide, "arrangement" | "elements">,
    { elementOf, number, ours }: PageWork,
  ): { elements: Element[]; unsupported: string[] } {
    if (!page.children.some((part) => /^(par|seq|animations)$/.test(localName(part))))
      return { elements: slide.elements, unsupported: [] };
    const targets = new Map<string, { shape: string; point?: number }>();
    const found = new Map<string, Element[]>();
    const walk = (node: XmlNode, within: { shape: string; points: number } | undefined): Element[] => {
      const own = elementOf.get(node);
      const here = own ? { shape: own.id, points: 0 } : within;
      if (own) found.set(own.id, [own]);
      const point = here && /^(p|h)$/.test(localName(node)) ? here.points++ : undefined;
      const inside = node.children.flatMap((inner) => walk(inner, here));
      const all = own ? [own] : inside;
      const shape = here?.shape ?? all.map(({ id }) => id).join(" ");
      if (!here && all.length) found.set(shape, all);
      for (const id of [node.attributes["xml:id"], node.attributes["draw:id"], node.attributes["text:id"]])
        if (id !== undefined && shape) targets.set(id, { shape, ...(point === undefined ? {} : { point }) });
      return all;
    };
    for (const shape of page.children)
      if (!/^(par|seq|animations|notes)$/.test(localName(shape))) walk(shape, undefined);
    const { elements, unsupported } = withMotion(
      slide,
      readTiming(page, (id) => targets.get(id)),
      (shape) => found.get(shape) ?? [],
      (entry) => this.context.adapted.push({ slide: number, ...entry }),
    );
    if (!ours)
      for (const what of unsupported)
        this.context.adapted.push({
          slide: number,
          what,
          how: "not played; an .odp keeps it while the entrances of its slide stay as they are",
        });
    return { elements, unsupported };
  }

  /** Reads the background and transition of another program's page. */
  private appearance(
    graphic: Record<string, string>,
    number: number,
  ): Pick<Slide, "background" | "transition" | "delay"> {
    const background = this.context.background(graphic);
    const near = graphic.type === undefined || WIPES[graphic.type] ? undefined : nearTransition(graphic.type);
    const kind = WIPES[graphic.type ?? ""] ?? near?.kind;
    if (near) this.context.adapted.push({ slide: number, what: `the transition “${graphic.type}”`, how: near.how });
    const seconds = { slow: 1.5, medium: 1, fast: 0.5 }[graphic["transition-speed"] ?? "fast"] ?? 0.5;
    const waits = /^PT(?:(\d+)H)?(?:(\d+)M)?([\d.]+)S$/.exec(graphic.duration ?? "");
    const delay =
      graphic["transition-type"] === "automatic" && waits
        ? Number(waits[1] ?? 0) * 3600 + Number(waits[2] ?? 0) * 60 + Number(waits[3])
        : 0;
    return {
      ...(background ? { background } : {}),
      ...(kind ? { transition: { kind, seconds } } : {}),
      ...(delay >= 0.5 && delay <= 3600 ? { delay } : {}),
    };
  }
}
