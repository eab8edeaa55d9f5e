import { escapeXml, Failure, MOST, within } from "@unitext/core/model";
import { scanXml } from "./scan";

/** An element of a part: names carry the prefixes of the part as written. */
export interface XmlElement {
  name: string;
  /** The name without its prefix. */
  local: string;
  attributes: Record<string, string>;
  children: XmlElement[];
  text: string;
}

/** An element whose text and elements stand in the order in which they were written. */
export interface XmlNode extends XmlElement {
  children: XmlNode[];
  content: (string | XmlNode)[];
}

const DEPTH = 256;

/** Local names by the names as written: there are few, and each stands in a part again and again. */
const LOCAL = new Map<string, string>();
function localOf(name: string): string {
  const known = LOCAL.get(name);
  if (known !== undefined) return known;
  const local = name.slice(name.indexOf(":") + 1);
  if (LOCAL.size < 5000) LOCAL.set(name, local);
  return local;
}

/** Reads a part as a tree that keeps the order of text and elements. Throws as `readXml` does. */
export function readMixed(text: string, where: string): XmlNode {
  return parseXml(text, where, true) as XmlNode;
}

/** Reads a part as a tree. Throws a Failure `not-readable` for XML that is not well-formed, nests without end or brings a document type. */
export function readXml(text: string, where: string): XmlElement {
  return parseXml(text, where, false);
}

function parseXml(text: string, where: string, mixed: boolean): XmlElement {
  within("partCharacters", text.length, where);
  let nodes = 0;
  const root: XmlElement = { name: "", local: "", attributes: {}, children: [], text: "" };
  const stack = [root];
  let top = root;
  scanXml(text, where, {
    open(name, attributes) {
      const local = localOf(name);
      const element: XmlElement = mixed
        ? ({ name, local, attributes, children: [], text: "", content: [] } as XmlNode)
        : { name, local, attributes, children: [], text: "" };
      top.children.push(element);
      if (mixed && top !== root) (top as XmlNode).content.push(element as XmlNode);
      stack.push(element);
      nodes += 1;
      if (nodes > MOST.nodes) within("nodes", nodes, where);
      if (stack.length > DEPTH)
        throw new Failure("not-readable", where, `The part ${where} nests deeper than a document does.`);
      top = element;
    },
    close() {
      stack.pop();
      top = stack[stack.length - 1] as XmlElement;
    },
    text(characters) {
      top.text += characters;
      if (mixed) (top as XmlNode).content.push(characters);
    },
  });
  return root.children[0] as XmlElement;
}

/** The name without its prefix. */
export function localName(element: XmlElement): string {
  return element.local;
}

export function child(element: XmlElement | undefined, name: string): XmlElement | undefined {
  if (element !== undefined) for (const candidate of element.children) if (candidate.local === name) return candidate;
  return undefined;
}

export function childrenOf(element: XmlElement | undefined, name: string): XmlElement[] {
  return element?.children.filter(({ local }) => local === name) ?? [];
}

/** The element at the end of a path of local names. */
export function at(element: XmlElement | undefined, ...path: string[]): XmlElement | undefined {
  return path.reduce<XmlElement | undefined>((found, name) => child(found, name), element);
}

export type XmlValue = string | number | boolean | undefined;

/** An XML element as text: attributes that are undefined are left out, content is XML already. */
export function xml(
  name: string,
  attributes: Record<string, XmlValue> = {},
  ...content: (string | undefined)[]
): string {
  let open = `<${name}`;
  for (const key in attributes) {
    const value = attributes[key];
    if (value !== undefined)
      open += ` ${key}="${typeof value === "string" ? escapeXml(value) : value === true ? 1 : value === false ? 0 : value}"`;
  }
  let inside = "";
  for (const part of content) if (part !== undefined) inside += part;
  return inside ? `${open}>${inside}</${name}>` : `${open}/>`;
}

export const XML_HEAD = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';

/** An attribute by its local name, whatever its namespace. */
export function attribute(element: XmlNode | undefined, name: string): string | undefined {
  if (!element) return undefined;
  const { attributes } = element;
  for (const key in attributes)
    if (key === name || (key.endsWith(name) && key.charCodeAt(key.length - name.length - 1) === 58))
      return attributes[key];
  return undefined;
}
