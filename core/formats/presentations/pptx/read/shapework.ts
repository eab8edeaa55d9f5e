import { type ArrangementName, Binding, type Element, Id, type TextStyle } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import type { XmlElement } from "../../../shared/xml";
import type { ColourContext } from "./colour";
import type { DrawingContext } from "./drawing";
import { parseOptional } from "../../../shared/sourcepackage";
import type { Inheritance } from "./inherit";
import type { PptxFiles } from "./files";
import type { ReadContext } from "./text";
import type { StyleContext } from "./styles";

/** What a file stores of an element that Unitext wrote. */
export type TaggedIdentity = Partial<Pick<Element, "id" | "slot" | "binding">>;

/** Reads what a file stores of an element that Unitext wrote, as far as it is valid. */
export function identityOf(value: unknown): TaggedIdentity {
  const { id, slot, binding } = (typeof value === "object" && value !== null ? value : {}) as Record<string, unknown>;
  const [own, bound] = [parseOptional(Id, id), parseOptional(Binding, binding)];
  return {
    ...(own === undefined ? {} : { id: own }),
    ...(slot === null || typeof slot === "string" ? { slot } : {}),
    ...(bound ? { binding: bound } : {}),
  };
}

/** What reading the shapes of a part needs. */
export interface ShapeWork {
  /** The slide's number; null for masters. */
  number: number | null;
  inheritance: Inheritance;
  colours: ColourContext;
  styles: StyleContext;
  arrangement: ArrangementName;
  tags: ReadonlyMap<string, TaggedIdentity>;
  link: ReadContext["link"];
  newId(path: string): string;
  /** Imports a picture by its relationship; returns why when it cannot be shown. */
  picture(id: string): ReturnType<PptxFiles["picture"]>;
  /** What reading fills and lines needs. */
  drawing: DrawingContext;
  /** Returns the picture by which an older drawing shows an embedded object. */
  legacy(shape: string): ReturnType<PptxFiles["picture"]> | undefined;
  media(id: string): { source: string; type: "video" | "audio" } | undefined;
  part(id: string): XmlElement | undefined;
  /** Returns the context for the shapes of a part that this one refers to. */
  within(id: string, newId: (path: string) => string): ShapeWork | undefined;
  style(style: TextStyle): string;
  /** Returns the style of a text, made once for the same list styles. */
  styleOf(key: string, make: () => TextStyle): TextStyle;
  /** The default list style of the file. */
  defaults: XmlElement | undefined;
  tableStyle(id: string): XmlElement | undefined;
  report: Pick<Report, "adapted" | "left">;
}

/** What every element that is read from a shape has. */
export type ShapeBase = Pick<
  Element,
  "id" | "slot" | "name" | "frame" | "rotation" | "flip" | "groups" | "binding" | "sourceShape"
>;
