import { escapeXml, Failure, MOST, within, must } from "@unitext/core/model";
import { scanXml } from "./scan";

/** An element of a part; names have the prefixes of the part as written. */
export interface XmlElement {
  name: string;
  /** The name without its prefix. */
  local: string;
  attributes: Record<string, string>;
  children: XmlElement[];
  text: string;
}

/** An element whose text and child elements are in document order. */
export interface XmlNode extends XmlElement {
  children: XmlNode[];
  content: (string | XmlNode)[];
}

const DEPTH = 256;

/** Local names by qualified names. Cached: a part has few, each again and again. */
const LOCAL = new Map<string, string>();
function localOf(name: string): string {
  const known = LOCAL.get(name);
  if (known !== undefined) return known;
  const local = name.slice(name.indexOf(":") + 1);
  if (LOCAL.size < 5000) LOCAL.set(name, local);
  return local;
}

/** Parses a part into a tree that keeps the order of text and elements. Throws as `readXml` does. */
export function readMixed(text: string, where: string): XmlNode {
  return parseXml(text, where, true) as XmlNode;
}

/**
 * Parses a part into a tree. Throws a Failure `not-readable` for XML that is not well-formed, nests endlessly or has a
 * document type.
 */
export function readXml(text: string, where: string): XmlElement {
  return parseXml(text, where, false);
}

function parseXml(text: string, where: string, mixed: boolean): XmlElement {
  within("partCharacters", text.length, where);
  const tree = new XmlTree(where, mixed);
  scanXml(text, where, {
    open: (name, attributes) => tree.open(name, attributes),
    close: () => tree.close(),
    text: (characters) => tree.text(characters),
  });
  return must(tree.root);
}

/** Builds a tree from the events of a part. */
export class XmlTree {
  private nodes = 0;
  private readonly document: XmlElement = { name: "", local: "", attributes: {}, children: [], text: "" };
  private readonly stack = [this.document];
  private top = this.document;

  /** With `mixed` the order of text and elements is kept, and the elements are XmlNodes. */
  constructor(
    private readonly where: string,
    private readonly mixed: boolean,
  ) {}

  /** The element at the root, as far as it has been read. */
  get root(): XmlElement | undefined {
    return this.document.children[0];
  }

  open(name: string, attributes: Record<string, string>): void {
    const { mixed, top, document, stack, where } = this;
    const local = localOf(name);
    const element: XmlElement = mixed
      ? ({ name, local, attributes, children: [], text: "", content: [] } as XmlNode)
      : { name, local, attributes, children: [], text: "" };
    top.children.push(element);
    if (mixed && top !== document) (top as XmlNode).content.push(element as XmlNode);
    stack.push(element);
    this.nodes += 1;
    if (this.nodes > MOST.nodes) within("nodes", this.nodes, where);
    if (stack.length > DEPTH)
      throw new Failure("not-readable", where, `The part ${where} nests deeper than a document does.`);
    this.top = element;
  }

  close(): void {
    this.stack.pop();
    this.top = must(this.stack[this.stack.length - 1]);
  }

  text(characters: string): void {
    this.top.text += characters;
    if (this.mixed) (this.top as XmlNode).content.push(characters);
  }
}

/** An element whose children are of its own kind. */
type Nested<E> = { local: string; children: E[] };

/** The name without its prefix. */
export function localName(element: XmlElement): string {
  return element.local;
}

/** Returns the first child of a local name; undefined when there is none. */
export function child<E extends Nested<E>>(element: E | undefined, name: string): E | undefined {
  if (element !== undefined) for (const candidate of element.children) if (candidate.local === name) return candidate;
  return undefined;
}

/** Returns the children of an element with a local name; none when the element is missing. */
export function childrenOf<E extends Nested<E>>(element: E | undefined, name: string): E[] {
  return element?.children.filter(({ local }) => local === name) ?? [];
}

/** Returns the element at the end of a path of local names; undefined when one is missing. */
export function at<E extends Nested<E>>(element: E | undefined, ...path: string[]): E | undefined {
  return path.reduce<E | undefined>((found, name) => child(found, name), element);
}

export type XmlValue = string | number | boolean | undefined;

/** Writes an XML element. Undefined attributes are left out; content is XML already. */
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

/** Returns an attribute by its local name, whatever its namespace. */
export function attribute(element: XmlNode | undefined, name: string): string | undefined {
  if (!element) return undefined;
  const { attributes } = element;
  for (const key in attributes)
    if (key === name || (key.endsWith(name) && key.charCodeAt(key.length - name.length - 1) === 58))
      return attributes[key];
  return undefined;
}
