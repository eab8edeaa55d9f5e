import { formulaMathml, palette } from "@unitext/core/figures";
import {
  type CellAppearance,
  type FontSet,
  loosePlace,
  roleProperties,
  type SceneBox,
  sizeOf,
  type SlotPlace,
  type TableGrid,
  tableAppearance,
  turning,
} from "@unitext/core/layout";
import {
  type Cell,
  type DeckMetadata,
  type Element,
  type ElementKind,
  escapeXml,
  type Footnote,
  type Frame,
  isEmptyText,
  NUMBER_SIGN,
  plainText,
  type RichText,
  roleOf,
  type ShapeElement,
  type Slide,
  type Stroke,
  type TableElement,
  type TextElement,
  textHash,
  type TextStyle,
  type Theme,
  must,
} from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import { chartTable, figureWords, flattenRuns, footnoteText, tagsOf } from "../../../shared/sourcepackage";
import { chartContent } from "./chart";
import {
  type Attributes,
  boxAttributes,
  type Definitions,
  fillAttributes,
  geometryXml,
  place,
  shadowAttributes,
  transformAttributes,
  strokeAttributes,
} from "./drawing";
import { length } from "../package/names";
import { type StyleSheet, type PartTextContext, textXml } from "./text";

/** What writing the shapes of one page or master needs. */
export interface Work {
  metadata: DeckMetadata;
  slide: Slide;
  theme: Theme;
  boxes: ReadonlyMap<string, SceneBox>;
  styles: StyleSheet;
  definitions: Definitions;
  /** Returns the paths at which a frame shows a picture, the best first; none when its file is missing. */
  shown(source: string): string[];
  /** Returns the path of a picture's or film's file in the package; undefined when it is missing. */
  file(source: string): string | undefined;
  link(to: string): string | undefined;
  /** Adds an embedded document to the package. Returns its path. */
  object(content: string): string;
  notes: Footnote[];
  /** The places of the slots of the slide's arrangement. */
  places: ReadonlyMap<string, SlotPlace>;
  fonts: FontSet;
}

interface Shape {
  name: string;
  frame: Frame;
  size: number;
  /** The layer and class of a shape. */
  presentation?: string | undefined;
  /** Its slot's place and role, for text that looks as its role does. */
  place?: SlotPlace;
}

const CLASS: Record<string, string> = {
  title: "title",
  opening: "title",
  subtitle: "subtitle",
  body: "outline",
  picture: "graphic",
};
const BARE = {
  "draw:stroke": "none",
  "draw:fill": "none",
  "fo:padding": "0pt",
  "draw:auto-grow-height": "false",
  "draw:textarea-vertical-align": "top",
};

const inLevels = (levels: TextStyle | undefined) => (levels ? { levels } : {});
const levelsOf = ({ style }: Pick<Element, "style">, { metadata }: Work): TextStyle | undefined =>
  style === undefined ? undefined : metadata.styles?.[style];

/** What determines how a text is written beside its theme. */
interface TextOptions extends Pick<PartTextContext, "bold" | "said" | "align" | "levels"> {
  heading?: boolean;
}
function contextFor(
  { styles, theme, link, file }: Work,
  size: number,
  { heading = false, bold = false, said = false, align, levels }: TextOptions = {},
): PartTextContext {
  const make = (): PartTextContext => ({
    styles,
    size: levels?.[0]?.run?.size ?? size,
    colour: theme.colours.ink,
    font: heading ? theme.fonts.heading : theme.fonts.body,
    codeFont: theme.fonts.code,
    codeColour: theme.colours.second,
    linkColour: theme.colours.link,
    signs: theme.colours.accent,
    bold,
    said,
    link,
    picture: file,
    ...(align ? { align } : {}),
    ...(levels ? { levels } : {}),
  });
  return styles.context(`${size}/${heading}/${bold}/${said}/${align}`, theme, levels, make);
}

const named = ({ name, presentation }: Shape, style: string): Attributes => ({
  [presentation ? "presentation:style-name" : "draw:style-name"]: style,
  "draw:name": name,
  "draw:layer": "layout",
  "presentation:class": presentation,
  "presentation:user-transformed": presentation ? "true" : undefined,
});
const styledAttributes = (element: Element) =>
  Boolean(
    element.style !== undefined || element.box || element.fill || element.stroke || element.shadow || element.rotation,
  );
const withDescription = (alt: string | undefined) => (alt ? xml("svg:desc", {}, escapeXml(alt)) : "");

/** Adds the link of a whole shape: to the web by an anchor around it, to a page by an action inside. */
function linked(link: string | undefined, work: Work): { inside: string; around: (shape: string) => string } {
  const to = link === undefined ? undefined : work.link(link);
  if (to === undefined) return { inside: "", around: (shape) => shape };
  if (!to.startsWith("#"))
    return { inside: "", around: (shape) => xml("draw:a", { "xlink:href": to, "xlink:type": "simple" }, shape) };
  return {
    inside: xml(
      "office:event-listeners",
      {},
      xml("presentation:event-listener", {
        "script:event-name": "dom:click",
        "presentation:action": "show",
        "xlink:href": to,
        "xlink:type": "simple",
      }),
    ),
    around: (shape) => shape,
  };
}

function graphic(
  element: Element,
  work: Work,
  presentation: string | undefined,
  usual: Parameters<typeof boxAttributes>[1],
): string {
  const { styles, definitions, file } = work;
  const { box } = element;
  const columns = box?.columns
    ? xml("style:columns", { "fo:column-count": box.columns, "fo:column-gap": length(box.gap ?? 0) })
    : "";
  return styles.style(
    presentation ? "presentation" : "graphic",
    {
      "graphic-properties": {
        ...strokeAttributes(element.stroke, definitions),
        ...fillAttributes(element.fill, definitions, file),
        ...shadowAttributes(element.shadow),
        ...boxAttributes(box, usual),
      },
      "paragraph-properties": box?.turn ? { "style:writing-mode": "tb-rl" } : {},
    },
    columns ? { "graphic-properties": columns } : {},
  );
}

const SIDE = { start: "start", centre: "center", end: "end" } as const;
/** Returns the style of a box whose text looks as its role does: place, text and line properties. */
function roleStyle({ presentation, size }: Shape, place: SlotPlace, { styles, theme, fonts }: Work): string {
  return styles.remember(
    `role/${presentation !== undefined}/${size}/${place.role}/${place.anchor}/${place.align}`,
    theme,
    () => {
      const { font, colour, strong, line, gap } = roleProperties(place.role, theme, fonts);
      return styles.style(presentation ? "presentation" : "graphic", {
        "graphic-properties": { ...BARE, "draw:textarea-vertical-align": place.anchor },
        "paragraph-properties": {
          "fo:text-align": SIDE[place.align],
          "fo:line-height": `${Math.round(line * 100)}%`,
          "fo:margin-top": gap ? length(gap * size) : undefined,
        },
        "text-properties": {
          "fo:font-size": length(size),
          "fo:color": theme.colours[colour],
          "style:font-name": theme.fonts[font],
          "fo:font-weight": strong ? "bold" : undefined,
        },
      });
    },
  );
}

export function textFrame(text: string, shape: Shape, work: Work, element?: Element): string {
  const style =
    element && styledAttributes(element)
      ? graphic(element, work, shape.presentation, { insets: [7.2, 3.6, 7.2, 3.6], anchor: "top", fit: "none" })
      : shape.place
        ? roleStyle(shape, shape.place, work)
        : work.styles.remember(`bare/${shape.presentation !== undefined}`, undefined, () =>
            work.styles.style(shape.presentation ? "presentation" : "graphic", { "graphic-properties": BARE }),
          );
  return xml(
    "draw:frame",
    Object.assign(named(shape, style), transformAttributes(shape.frame, element?.rotation)),
    xml("draw:text-box", {}, text || "<text:p/>"),
  );
}

function figureFrame(element: Element, shape: Shape, work: Work): string {
  const { codeColour: _, ...context } = contextFor(work, shape.size);
  return textFrame(textXml(figureWords(element, work.notes) ?? [], context), shape, work);
}

const borderOf = (stroke: Stroke | null | undefined) =>
  stroke
    ? `${length(Math.max(stroke.width, 0.05))} ${stroke.dash === "dot" ? "dotted" : stroke.dash ? "dashed" : "solid"} ${stroke.colour}`
    : "none";

type Table = Pick<TableElement, "rows" | "header" | "align" | "widths" | "heights" | "style">;

/** Returns the appearance of a table: its own, or that of the theme where it has none. */
function tableTransform(
  table: Table,
  { size, frame }: Shape,
  { fonts, theme, metadata }: Work,
  laid: TableGrid | undefined,
): { widths: number[]; heights: number[]; worn(cell: Cell, row: number): CellAppearance } {
  const { widths, heights = [], rows } = table;
  if (widths) return { widths, heights, worn: (cell) => cell };
  const look = tableAppearance(table, frame.width, size, { fonts, theme, language: metadata.language }, laid);
  return { ...look, worn: (cell, row) => look.worn(row, Math.min(row + (cell.rows ?? 1), rows.length) - 1) };
}

function tableXml(table: Table, shape: Shape, work: Work, laid: TableGrid | undefined): string {
  const { rows, header, align } = table;
  const { styles } = work;
  const columns = rows[0]?.length ?? 1;
  const { widths, heights, worn } = tableTransform(table, shape, work, laid);
  const levels = table.style === undefined ? undefined : work.metadata.styles?.[table.style];
  const column = (width: number) =>
    styles.remember(`column/${width}`, undefined, () =>
      styles.style("table-column", { "table-column-properties": { "style:column-width": length(width) } }),
    );
  const high = (height: number) =>
    styles.remember(`row/${height}`, undefined, () =>
      styles.style("table-row", { "table-row-properties": { "style:row-height": length(height) } }),
    );
  const styleOf = (look: CellAppearance) => {
    const [left, top, right, bottom] = look.insets ?? [7.2, 3.6, 7.2, 3.6];
    return styles.remember("cell", look, () =>
      styles.style("table-cell", {
        "graphic-properties": {
          ...fillAttributes(look.fill, work.definitions, work.file),
          "draw:textarea-vertical-align": look.anchor ?? "top",
          "fo:padding-left": length(left),
          "fo:padding-top": length(top),
          "fo:padding-right": length(right),
          "fo:padding-bottom": length(bottom),
        },
        "paragraph-properties": Object.fromEntries(
          (["left", "right", "top", "bottom"] as const).map((side) => [
            `fo:border-${side}`,
            borderOf(look.borders?.[side]),
          ]),
        ),
      }),
    );
  };
  const sided = [false, !table.widths].map((bold) =>
    Array.from({ length: columns }, (_, x) =>
      contextFor(work, shape.size, { bold, align: align[x] ?? "start", ...inLevels(levels) }),
    ),
  );
  const cell = (one: Cell | null, x: number, y: number) => {
    if (!one) return "<table:covered-table-cell/>";
    const text = flattenRuns(one.text, work.notes);
    return xml(
      "table:table-cell",
      {
        "table:style-name": styleOf(worn(one, y)),
        "table:number-columns-spanned": one.columns,
        "table:number-rows-spanned": one.rows,
      },
      textXml(text.length ? text : plainText(" "), must(sided[y < header ? 1 : 0]?.[x])),
    );
  };
  const line = (row: (Cell | null)[], y: number) =>
    xml(
      "table:table-row",
      { "table:style-name": heights[y] ? high(heights[y]) : undefined },
      ...row.map((one, x) => cell(one, x, y)),
    );
  const lines = rows.map(line);
  const grid = Array.from({ length: columns }, (_, x) =>
    xml("table:table-column", { "table:style-name": column(widths[x] || shape.frame.width / columns) }),
  );
  return xml(
    "table:table",
    { "table:use-first-row-styles": header ? "true" : undefined },
    ...grid,
    header ? xml("table:table-header-rows", {}, ...lines.slice(0, header)) : "",
    ...lines.slice(header),
  );
}

function tableFrame(table: Table, shape: Shape, work: Work, laid?: TableGrid): string {
  return xml(
    "draw:frame",
    { "draw:name": shape.name, "draw:layer": "layout", ...place(shape.frame) },
    tableXml(table, shape, work, laid),
  );
}

/** Writes a straight line or connector between its two ends, in either direction. */
function lineXml(element: Extract<Element, { kind: "shape" }>, shape: Shape, style: string, inside: string): string {
  const { x, y, width, height } = shape.frame;
  const matrix = turning(shape.frame, element.rotation, element.flip) ?? [1, 0, 0, 1, 0, 0];
  const at = (px: number, py: number) =>
    [matrix[0] * px + matrix[2] * py + matrix[4], matrix[1] * px + matrix[3] * py + matrix[5]] as const;
  const [from, to] = [at(x, y), at(x + width, y + height)];
  return xml(
    "draw:line",
    {
      ...named(shape, style),
      "svg:x1": length(from[0]),
      "svg:y1": length(from[1]),
      "svg:x2": length(to[0]),
      "svg:y2": length(to[1]),
    },
    withDescription(element.alt),
    inside,
  );
}

const RECOLOUR = { grey: "greyscale", mono: "mono", washout: "watermark" } as const;

/** Pixels of a picture count as 96 to the inch, as is usual where a file says nothing. */
const PIXEL = 0.75;

/** Returns the paragraphs of a text or a shape. */
const wordsIn = (element: TextElement | ShapeElement, size: number, heading: boolean, work: Work) =>
  textXml(
    flattenRuns(element.text, work.notes),
    contextFor(work, size, { heading, ...inLevels(levelsOf(element, work)) }),
  );

/** Returns the text of an element for a shape of a source file; undefined when it has none. */
export function textOfShape(element: Element, work: Work): string | undefined {
  if (element.kind !== "text" && element.kind !== "shape") return undefined;
  const role = element.slot === null ? undefined : roleOf(work.slide, element);
  return wordsIn(
    element,
    work.boxes.get(element.id)?.size || sizeOf(role ?? "body", work.theme, work.metadata.page),
    role === "title",
    work,
  );
}

const SHAPES: { [K in ElementKind]: (element: Extract<Element, { kind: K }>, shape: Shape, work: Work) => string } = {
  text: (element, shape, work) =>
    styledAttributes(element) || !shape.place
      ? textFrame(wordsIn(element, shape.size, shape.presentation === "title", work), shape, work, element)
      : textFrame(
          textXml(flattenRuns(element.text, work.notes), contextFor(work, shape.size, { said: true })),
          shape,
          work,
          element,
        ),
  picture: (element, shape, work) => {
    const { source, alt, crop, opacity, recolour, flip } = element;
    const paths = work.shown(source);
    const { inside, around } = linked(element.link, work);
    if (!paths.length)
      return around(
        xml(
          "draw:frame",
          {
            ...named(
              { ...shape, presentation: "graphic" },
              work.styles.style("presentation", { "graphic-properties": BARE }),
            ),
            "presentation:placeholder": "true",
            ...transformAttributes(shape.frame, element.rotation),
          },
          "<draw:text-box/>",
          inside,
          withDescription(alt),
        ),
      );
    const asset = work.metadata.assets[source];
    const [w, h] = [(asset?.width ?? 1) * PIXEL, (asset?.height ?? 1) * PIXEL];
    const properties = {
      ...strokeAttributes(element.stroke, work.definitions),
      ...fillAttributes(element.fill, work.definitions, work.file),
      ...shadowAttributes(element.shadow),
      "fo:clip": crop
        ? `rect(${[crop.top * h, crop.right * w, crop.bottom * h, crop.left * w].map(length).join(", ")})`
        : undefined,
      "draw:image-opacity": opacity === undefined ? undefined : `${Math.round(opacity * 100)}%`,
      "draw:color-mode": recolour ? RECOLOUR[recolour] : undefined,
      "style:mirror": flip ? { x: "horizontal", y: "vertical", xy: "vertical horizontal" }[flip] : undefined,
    };
    return around(
      xml(
        "draw:frame",
        {
          ...named(shape, work.styles.style("graphic", { "graphic-properties": properties })),
          ...transformAttributes(shape.frame, element.rotation),
        },
        ...paths.map((path) =>
          xml("draw:image", {
            "xlink:href": path,
            "xlink:type": "simple",
            "xlink:show": "embed",
            "xlink:actuate": "onLoad",
          }),
        ),
        inside,
        withDescription(alt),
      ),
    );
  },
  table: (element, shape, work) => tableFrame(element, shape, work, work.boxes.get(element.id)?.grid),
  chart: (element, shape, work) => {
    if (!element.series.some(({ values }) => values.length)) return tableFrame(chartTable(element), shape, work);
    const path = work.object(
      chartContent(
        element,
        shape.frame,
        palette(work.theme.colours),
        Math.max(8, Math.min(14, shape.frame.height / 24)),
      ),
    );
    return xml(
      "draw:frame",
      { "draw:name": shape.name, "draw:layer": "layout", ...place(shape.frame) },
      xml("draw:object", {
        "xlink:href": `./${path}`,
        "xlink:type": "simple",
        "xlink:show": "embed",
        "xlink:actuate": "onLoad",
      }),
    );
  },
  code: figureFrame,
  formula: (element, shape, work) => {
    const mathml = formulaMathml(element.tex, true);
    if (mathml === undefined) return figureFrame(element, shape, work);
    // The TeX is added as an annotation, as MathML provides (MathML Core, 2.6).
    const annotated = mathml.replace(
      /^(<math[^>]*>)([\s\S]*)<\/math>$/,
      (_, open: string, inside: string) =>
        `${open}<semantics><mrow>${inside}</mrow><annotation encoding="application/x-tex">${escapeXml(element.tex)}</annotation></semantics></math>`,
    );
    return xml(
      "draw:frame",
      { "draw:name": shape.name, "draw:layer": "layout", ...transformAttributes(shape.frame, element.rotation) },
      xml("draw:object", {
        "xlink:href": `./${work.object(annotated)}`,
        "xlink:type": "simple",
        "xlink:show": "embed",
        "xlink:actuate": "onLoad",
      }),
      withDescription(element.tex),
    );
  },
  diagram: figureFrame,
  shape: (element, shape, work) => {
    const { inside, around } = linked(element.link, work);
    const style = graphic(element, work, undefined, { insets: [7.2, 3.6, 7.2, 3.6], anchor: "middle", fit: "none" });
    if (
      "preset" in element.geometry &&
      /^(line|straightConnector1)$/.test(element.geometry.preset) &&
      isEmptyText(element.text)
    )
      return around(lineXml(element, shape, style, inside));
    return around(
      xml(
        "draw:custom-shape",
        {
          ...named({ ...shape, presentation: undefined }, style),
          ...transformAttributes(shape.frame, element.rotation),
        },
        withDescription(element.alt),
        inside,
        wordsIn(element, shape.size, false, work),
        geometryXml(element.geometry, shape.frame, element.flip),
      ),
    );
  },
  media: (element, shape, work) => {
    const path = work.file(element.source);
    if (path === undefined)
      return textFrame(
        textXml(plainText(element.alt || (element.type === "video" ? "Film" : "Sound")), contextFor(work, 12)),
        shape,
        work,
      );
    const poster = element.poster === undefined ? undefined : work.file(element.poster);
    return xml(
      "draw:frame",
      { "draw:name": shape.name, "draw:layer": "layout", ...transformAttributes(shape.frame, element.rotation) },
      xml("draw:plugin", {
        "xlink:href": path,
        "xlink:type": "simple",
        "xlink:show": "embed",
        "xlink:actuate": "onLoad",
        "draw:mime-type": work.metadata.assets[element.source]?.mediaType,
      }),
      poster
        ? xml("draw:image", {
            "xlink:href": poster,
            "xlink:type": "simple",
            "xlink:show": "embed",
            "xlink:actuate": "onLoad",
          })
        : "",
      withDescription(element.alt),
    );
  },
  foreign: (element, shape, work) => {
    const picture = element.picture === undefined ? undefined : work.file(element.picture);
    if (picture === undefined)
      return textFrame(textXml([...plainText(element.what), ...element.text], contextFor(work, 12)), shape, work);
    return xml(
      "draw:frame",
      { "draw:name": shape.name, "draw:layer": "layout", ...transformAttributes(shape.frame, element.rotation) },
      xml("draw:image", {
        "xlink:href": picture,
        "xlink:type": "simple",
        "xlink:show": "embed",
        "xlink:actuate": "onLoad",
      }),
      withDescription(element.alt || element.what),
    );
  },
};

export interface WrittenShape {
  id: string;
  groups: readonly string[];
  xml: string;
}

/** Writes groups (`draw:g`): neighbours with a group in common. */
export function groupXml(shapes: readonly WrittenShape[], depth = 0): string {
  let out = "";
  for (let at = 0; at < shapes.length; ) {
    const first = must(shapes[at]);
    const group = first.groups[depth];
    let to = at + 1;
    if (group !== undefined) {
      while (shapes[to]?.groups[depth] === group) to++;
      out += xml("draw:g", {}, groupXml(shapes.slice(at, to), depth + 1));
    } else out += first.xml;
    at = to;
  }
  return out;
}

/** Returns the shape of an element, what is stored of it by name, and a line below that belongs to it. */
export function shapeOf(
  element: Element,
  nth: number,
  work: Work,
  taken: Set<string>,
): { shape: WrittenShape; name: string; kept: object; below: { name: string; xml: string }[] } {
  const { slide, metadata, boxes, theme } = work;
  const own = element.name && !taken.has(element.name) ? element.name : `${element.slot ?? element.kind} ${nth + 1}`;
  const name = taken.has(own) ? `${own} ${element.id}` : own;
  taken.add(name);
  const box = boxes.get(element.id);
  const frame = (styledAttributes(element) || element.kind === "shape" ? element.frame : undefined) ??
    box ??
    element.frame ?? { x: 72, y: 144, width: 400, height: 240 };
  const role = element.slot === null ? undefined : roleOf(slide, element);
  const size = box?.size || sizeOf(role ?? "body", theme, metadata.page);
  const presentation = element.kind === "text" && slide.id !== "" ? CLASS[role ?? ""] : undefined;
  const place =
    element.kind !== "text" || element.slot === null || styledAttributes(element)
      ? undefined
      : (work.places.get(element.slot) ?? loosePlace(element.slot, metadata.page));
  const drawn = (SHAPES[element.kind] as (element: Element, shape: Shape, work: Work) => string)(
    element,
    { name, frame, size, presentation, ...(place ? { place } : {}) },
    work,
  );
  const caption = (element.kind === "picture" || element.kind === "table") && element.caption;
  const below: { name: string; xml: string }[] = [];
  if (caption) {
    const small = sizeOf("caption", theme, metadata.page) * 0.8;
    const captionName = `caption of ${name}`;
    below.push({
      name: captionName,
      xml: textFrame(
        textXml(plainText(caption), contextFor(work, small)),
        {
          name: captionName,
          frame: { x: frame.x, y: frame.y + frame.height + 4, width: frame.width, height: 24 },
          size: small,
        },
        work,
      ),
    });
  }
  const kept = element.kind === "foreign" ? { id: element.id, slot: element.slot, frame } : tagsOf(element);
  return {
    shape: { id: element.id, groups: element.groups ?? [], xml: drawn },
    name,
    kept: isSummed(element) ? { ...kept, hash: textHash(bareShape(drawn)) } : kept,
    below,
  };
}

/**
 * Whether the hash of a shape must be stored: where the file does not say everything, or another program may change its
 * formatting.
 */
const isSummed = ({ kind, style, fill, stroke }: Element) =>
  (kind !== "text" && kind !== "picture") || style !== undefined || fill !== undefined || stroke !== undefined;
/** Returns a shape without the anchor around it. */
const bareShape = (drawn: string) =>
  drawn.startsWith("<draw:a ") ? drawn.slice(drawn.indexOf(">") + 1, -"</draw:a>".length) : drawn;

/** Writes the box that lists a page's footnotes. */
export function footnotesFrame(work: Work): string {
  const { metadata, theme, notes } = work;
  const size = theme.scale.footer * 1.1;
  const height = notes.length * size * 1.5;
  const { width, height: tall } = metadata.page;
  return textFrame(
    textXml(footnoteText(notes), contextFor(work, size)),
    { name: "footnotes", frame: { x: width * 0.065, y: tall * 0.92 - height, width: width * 0.87, height }, size },
    work,
  );
}

/** Writes the placeholders for footer, number and date of each page on its master (OpenDocument 1.3, 9.10). */
const FIELDS = {
  footer: { className: "footer", field: "<presentation:footer/>" },
  number: { className: "page-number", field: undefined },
  date: { className: "date-time", field: "<presentation:date-time/>" },
} as const;

/** Writes a footer, number or date where the slide's file places it, on the slide or on its master. */
export function regionFrames(work: Work, regions: Slide["regions"], onMaster = false): { name: string; xml: string }[] {
  return (regions ?? []).map(({ region, text, frame, style, box }, nth) => {
    const levels = style === undefined ? undefined : work.metadata.styles?.[style];
    const context = contextFor(work, 12, inLevels(levels));
    const words: RichText = plainText(region === "number" && !text.includes(NUMBER_SIGN) ? NUMBER_SIGN : text);
    const { className, field } = FIELDS[region];
    const written =
      onMaster && field ? textXml(plainText("\uE000"), context).replace("\uE000", field) : textXml(words, context);
    const element: Element = {
      kind: "text",
      id: "region",
      slot: null,
      frame,
      text: words,
      ...(style ? { style } : {}),
      ...(box ? { box } : {}),
    };
    const name = `${region} ${nth + 1}`;
    return {
      name,
      xml: textFrame(
        written,
        { name, frame, size: 12, ...(onMaster ? { presentation: className } : {}) },
        work,
        element,
      ),
    };
  });
}
