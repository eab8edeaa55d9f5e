import { runsFromRight } from "../../shared/chartdirection";
import { formulaMathml, palette } from "@unitext/core/figures";
import { loosePlace, sizeOf, turning } from "@unitext/core/layout";
import {
  type Element,
  type ElementKind,
  escapeXml,
  isEmptyText,
  plainText,
  roleOf,
  type ShapeElement,
  type TextElement,
  textHash,
  must,
} from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import { chartTable, flattenRuns, tagsOf } from "../../../shared/sourcepackage";
import { chartContent } from "./chart";
import { fillAttributes, geometryXml, place, shadowAttributes, transformAttributes, strokeAttributes } from "./drawing";
import { length } from "../package/names";
import { textXml } from "./text";
import {
  type Shape,
  type Work,
  contextFor,
  onPlace,
  inLevels,
  named,
  withDescription,
  levelsOf,
  styledAttributes,
  textFrame,
  linked,
  BARE,
  figureFrame,
  graphic,
  CLASS,
} from "./frame";
import { tableFrame } from "./table";

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
          textXml(
            flattenRuns(element.text, work.notes),
            contextFor(onPlace(work, shape.place), shape.size, { said: true }),
          ),
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
        { fromRight: runsFromRight(element, work.metadata.language) },
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
      : (work.places.get(element.slot) ?? loosePlace(element.slot, slide.arrangement, metadata));
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
