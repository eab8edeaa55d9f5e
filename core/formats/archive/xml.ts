import { escapeXml } from "@unitext/core/draw";
import { Failure } from "@unitext/core/model";
import { SaxesParser } from "saxes";

/** An element of a part: names carry the prefixes of the part as written. */
export interface XmlElement {
  name: string;
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

/** Reads a part as a tree that keeps the order of text and elements. Throws as `readXml` does. */
export function readMixed(text: string, where: string): XmlNode {
  return parsed(text, where, true) as XmlNode;
}

/** Reads a part as a tree. Throws a Failure `not-readable` for XML that is not well-formed, nests without end or brings a document type. */
export function readXml(text: string, where: string): XmlElement {
  return parsed(text, where, false);
}

function parsed(text: string, where: string, mixed: boolean): XmlElement {
  const made = (name: string, attributes: Record<string, string>): XmlElement => (mixed ? ({ name, attributes, children: [], text: "", content: [] } as XmlNode) : { name, attributes, children: [], text: "" });
  const root = made("", {});
  const stack: XmlElement[] = [root];
  let top = root;
  const parser = new SaxesParser({ xmlns: false, position: false });
  parser.on("error", (error) => {
    throw new Failure("not-readable", where, `The part ${where} is not well-formed XML: ${error.message.replace(/^[\d:]+ /, "")}.`);
  });
  parser.on("doctype", () => {
    throw new Failure("not-readable", where, `The part ${where} brings a document type declaration, which a document never needs, so the file was not opened.`);
  });
  parser.on("opentag", (tag) => {
    const element = made(tag.name, tag.attributes as Record<string, string>);
    top.children.push(element);
    if (mixed) (top as XmlNode).content.push(element as XmlNode);
    stack.push(element);
    if (stack.length > DEPTH) throw new Failure("not-readable", where, `The part ${where} nests deeper than a document does.`);
    top = element;
  });
  parser.on("closetag", () => {
    stack.pop();
    top = stack[stack.length - 1] as XmlElement;
  });
  const characters = (value: string) => {
    top.text += value;
    if (mixed) (top as XmlNode).content.push(value);
  };
  parser.on("text", characters);
  parser.on("cdata", characters);
  parser.write(text).close();
  return root.children[0] ?? root;
}

/** The name without its prefix. */
export function localName(element: XmlElement): string {
  const colon = element.name.indexOf(":");
  return colon < 0 ? element.name : element.name.slice(colon + 1);
}

export function child(element: XmlElement | undefined, name: string): XmlElement | undefined {
  return element?.children.find((candidate) => localName(candidate) === name);
}

export function childrenOf(element: XmlElement | undefined, name: string): XmlElement[] {
  return element?.children.filter((candidate) => localName(candidate) === name) ?? [];
}

/** The element at the end of a path of local names. */
export function at(element: XmlElement | undefined, ...path: string[]): XmlElement | undefined {
  return path.reduce<XmlElement | undefined>((found, name) => child(found, name), element);
}

export type XmlValue = string | number | boolean | undefined;

/** An XML element as text: attributes that are undefined are left out, content is XML already. */
export function xml(name: string, attributes: Record<string, XmlValue> = {}, ...content: (string | undefined)[]): string {
  let open = `<${name}`;
  for (const key in attributes) {
    const value = attributes[key];
    if (value !== undefined) open += ` ${key}="${typeof value === "string" ? escapeXml(value) : value === true ? 1 : value === false ? 0 : value}"`;
  }
  const inside = content.join("");
  return inside ? `${open}>${inside}</${name}>` : `${open}/>`;
}

export const XML_HEAD = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
