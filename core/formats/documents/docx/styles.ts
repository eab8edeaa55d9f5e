import { ListCounter } from "../../shared/document/listcounter";
import { child, childrenOf, type XmlElement } from "../../shared/xml";

export const propertyValue = (element: XmlElement | undefined): string | undefined =>
  element ? Object.entries(element.attributes).find(([key]) => key === "val" || key.endsWith(":val"))?.[1] : undefined;
/** Whether a property is on: when it is there, unless its value says otherwise (ECMA-376-1, 17.17.4). */
export function isOn(element: XmlElement | undefined): boolean {
  return element !== undefined && !["0", "false", "off", "none"].includes(propertyValue(element) ?? "1");
}
export const attributeOf = (element: XmlElement | undefined, name: string): string | undefined =>
  element
    ? Object.entries(element.attributes).find(([key]) => key === name || key.endsWith(`:${name}`))?.[1]
    : undefined;

/** The properties of a paragraph style, inherited through `basedOn`. */
export interface Style {
  /** The name in lower case; built-in styles have the same name in all languages. */
  name: string;
  outline: number | undefined;
  list: { id: string; level: number } | undefined;
  properties: XmlElement | undefined;
  run: XmlElement | undefined;
  based: string | undefined;
}

/** The styles of a document by id. */
export class Styles {
  private readonly styles = new Map<string, Style>();
  readonly language: string | undefined;
  private readonly first: string | undefined;

  constructor(part: XmlElement | undefined) {
    for (const element of childrenOf(part, "style")) {
      const id = attributeOf(element, "styleId") ?? "";
      const properties = child(element, "pPr");
      const numbering = child(properties, "numPr");
      const outline = propertyValue(child(properties, "outlineLvl"));
      this.styles.set(id, {
        name: (propertyValue(child(element, "name")) ?? id).toLowerCase(),
        outline: outline === undefined ? undefined : Number(outline),
        list: numbering
          ? {
              id: propertyValue(child(numbering, "numId")) ?? "",
              level: Number(propertyValue(child(numbering, "ilvl")) ?? 0),
            }
          : undefined,
        properties,
        run: child(element, "rPr"),
        based: propertyValue(child(element, "basedOn")),
      });
      if (attributeOf(element, "default") === "1" && attributeOf(element, "type") === "paragraph") this.first = id;
    }
    this.language = attributeOf(child(child(child(child(part, "docDefaults"), "rPrDefault"), "rPr"), "lang"), "val");
  }

  /** Returns the style and those that it is based on, nearest first. */
  chain(id: string | undefined): Style[] {
    const found: Style[] = [];
    let next = id ?? this.first;
    while (next !== undefined && found.length < 20) {
      const style = this.styles.get(next);
      if (!style) break;
      found.push(style);
      next = style.based;
    }
    return found;
  }

  private readonly runs = new Map<string, { bold: boolean; italic: boolean; code: boolean }>();
  /** Returns the character properties of a style. */
  runLook(id: string | undefined): { bold: boolean; italic: boolean; code: boolean } {
    const key = id ?? "";
    const known = this.runs.get(key);
    if (known) return known;
    const chain = this.chain(id);
    const property = (name: string) =>
      chain.map(({ run }) => child(run, name)).find((element) => element !== undefined);
    const look = {
      bold: isOn(property("b")),
      italic: isOn(property("i")),
      code:
        isMonospaced(property("rFonts")) ||
        chain.some(({ name }) => /\bcode\b|html (keyboard|typewriter)|verbatim|source text/.test(name)),
    };
    this.runs.set(key, look);
    return look;
  }
}

/** Whether fonts (`w:rFonts`) name a typewriter face, by which code is recognised. */
export function isMonospaced(fonts: XmlElement | undefined): boolean {
  return /mono|courier|consolas|menlo|cousine|typewriter|source code|fira code/i.test(
    attributeOf(fonts, "ascii") ?? "",
  );
}

/**
 * The numbering part of a document (ECMA-376-1, 17.9): which levels of which lists are bulleted, and the numbers of their
 * items.
 */
export class Numbering {
  private readonly lists = new Map<string, XmlElement | undefined>();
  /** First numbers by list and level that override the definition. */
  private readonly overrides = new Map<string, Map<number, number>>();
  private readonly begun = new Set<string>();
  private readonly counter = new ListCounter();

  constructor(part: XmlElement | undefined) {
    const abstracts = new Map(
      childrenOf(part, "abstractNum").map((element) => [attributeOf(element, "abstractNumId") ?? "", element]),
    );
    for (const element of childrenOf(part, "num")) {
      const id = attributeOf(element, "numId") ?? "";
      this.lists.set(id, abstracts.get(propertyValue(child(element, "abstractNumId")) ?? ""));
      const levels = childrenOf(element, "lvlOverride").flatMap((one): [number, number][] => {
        const start = propertyValue(child(one, "startOverride"));
        return start === undefined ? [] : [[Number(attributeOf(one, "ilvl") ?? 0), Number(start)]];
      });
      this.overrides.set(id, new Map(levels));
    }
  }

  private levelOf(id: string, level: number): XmlElement | undefined {
    return childrenOf(this.lists.get(id), "lvl").find((element) => Number(attributeOf(element, "ilvl")) === level);
  }

  /**
   * Counts an item of a list and returns its number. Lists of one definition count together, except where one begins with a
   * number of its own (17.9.26, startOverride).
   */
  next(id: string, level: number): number {
    const definition = attributeOf(this.lists.get(id), "abstractNumId") ?? id;
    const override = this.overrides.get(id)?.get(level);
    const key = `${id}/${level}`;
    const restart = override !== undefined && !this.begun.has(key);
    this.begun.add(key);
    const first = Number(propertyValue(child(this.levelOf(id, level), "start")) ?? 1);
    return this.counter.next(definition, level, override ?? first, restart);
  }

  /** Returns whether items are bulleted or numbered; undefined where the list is switched off. */
  kind(id: string, level: number): "bullet" | "number" | undefined {
    if (id === "0" || id === "") return undefined;
    const format = propertyValue(child(this.levelOf(id, level), "numFmt"));
    if (format === "none") return undefined;
    return format === undefined || format === "bullet" ? "bullet" : "number";
  }
}
