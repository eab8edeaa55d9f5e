import { must } from "@unitext/core/model";
import { readXml, type XmlElement } from "@unitext/core/formats/shared/xml";
import { strFromU8 } from "fflate";

function walk(element: XmlElement, visit: (element: XmlElement) => void): void {
  visit(element);
  for (const inner of element.children) walk(inner, visit);
}

/** Attributes that name style families and other definitions (OpenDocument 1.3, part 3, 16 and 19). */
const NAMED: Record<string, string> = {
  "presentation:style-name": "presentation",
  "draw:text-style-name": "paragraph",
  "table:style-name": "table",
  "style:list-style-name": "text:list-style",
  "style:page-layout-name": "style:page-layout",
  "draw:master-page-name": "style:master-page",
  "draw:fill-gradient-name": "draw:gradient",
  "draw:fill-hatch-name": "draw:hatch",
  "draw:opacity-name": "draw:opacity",
  "draw:fill-image-name": "draw:fill-image",
  "draw:stroke-dash": "draw:stroke-dash",
  "draw:marker-start": "draw:marker",
  "draw:marker-end": "draw:marker",
  "style:font-name": "style:font-face",
  "presentation:use-footer-name": "presentation:footer-decl",
  "presentation:use-date-time-name": "presentation:date-time-decl",
};
const BY_ELEMENT: Record<string, Record<string, string>> = {
  "draw:style-name": { "draw:page": "drawing-page", "style:master-page": "drawing-page", "": "graphic" },
  "text:style-name": {
    "text:p": "paragraph",
    "text:h": "paragraph",
    "text:span": "text",
    "text:list": "text:list-style",
  },
  "table:style-name": {
    "table:table": "table",
    "table:table-column": "table-column",
    "table:table-row": "table-row",
    "table:table-cell": "table-cell",
  },
};

/**
 * Lists what is wrong with the parts of a presentation: undefined names of styles, fills, masters, faces and
 * declarations, duplicate ids and page names, links to pages or parts that do not exist, parts missing from the
 * manifest. Empty when all is well.
 */
export function unresolved(parts: Record<string, Uint8Array>): string[] {
  const found: string[] = [];
  const text = (path: string) => strFromU8(must(parts[path]));
  const [content, styles] = ["content.xml", "styles.xml"].map((path) => readXml(text(path), path)) as [
    XmlElement,
    XmlElement,
  ];
  const defined = (roots: readonly XmlElement[]) => {
    const known = new Set<string>();
    for (const root of roots) {
      walk(root, ({ name, attributes }) => {
        const own =
          attributes["style:name"] ??
          (name.startsWith("draw:") ? attributes["draw:name"] : attributes["presentation:name"]);
        if (own !== undefined) known.add(`${attributes["style:family"] ?? name} ${own}`);
      });
    }
    return known;
  };
  const pages: string[] = [];
  for (const part of [content, styles]) {
    const known = defined(part === content ? [content, styles] : [styles]);
    walk(part, ({ name, attributes }) => {
      if (name === "draw:page") pages.push(attributes["draw:name"] ?? "");
      for (const [attribute, value] of Object.entries(attributes)) {
        const family = BY_ELEMENT[attribute]?.[name] ?? BY_ELEMENT[attribute]?.[""] ?? NAMED[attribute];
        if (family !== undefined && value !== "" && !known.has(`${family} ${value}`))
          found.push(`${name} ${attribute}="${value}"`);
      }
    });
  }
  const ids: string[] = [];
  walk(content, ({ name, attributes }) => {
    for (const attribute of ["xml:id", "draw:id"])
      if (attributes[attribute] !== undefined && (attribute === "xml:id" || attributes["xml:id"] === undefined))
        ids.push(attributes[attribute]);
    const href = attributes["xlink:href"];
    if (href?.startsWith("#") && !pages.includes(href.slice(1))) found.push(`a link to ${href}`);
    const path = href?.replace(/^\.\//, "") ?? "";
    if (
      ["draw:object", "draw:image", "draw:plugin"].includes(name) &&
      path &&
      !/^[a-z]+:/.test(path) &&
      !parts[path] &&
      !parts[`${path}/content.xml`]
    )
      found.push(`${name} ${href}`);
    const target = attributes["smil:targetElement"];
    if (target !== undefined) ids.push(`?${target}`);
  });
  const given = ids.filter((id) => !id.startsWith("?"));
  for (const [nth, id] of given.entries()) if (given.indexOf(id) !== nth) found.push(`the id ${id} twice`);
  for (const id of ids) if (id.startsWith("?") && !given.includes(id.slice(1))) found.push(`motion of ${id.slice(1)}`);
  for (const [nth, page] of pages.entries()) if (pages.indexOf(page) !== nth) found.push(`the page ${page} twice`);
  const listed = readXml(text("META-INF/manifest.xml"), "manifest").children.map(
    ({ attributes }) => attributes["manifest:full-path"] ?? "",
  );
  for (const path of Object.keys(parts))
    if (path !== "mimetype" && !path.startsWith("META-INF/") && !listed.includes(path))
      found.push(`${path} is not in the manifest`);
  for (const path of listed)
    if (
      path !== "/" &&
      !parts[path] &&
      !Object.keys(parts).some((part) => part.startsWith(path.endsWith("/") ? path : `${path}/`))
    )
      found.push(`the manifest names ${path}`);
  return found;
}
