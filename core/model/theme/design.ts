import type { ArrangementName, SlotRole } from "../arrangement";
import type { ShapeElement } from "../elements/shape";
import type { Fill } from "../look";
import type { Mood } from "./colours";
import type { FontPairingName } from "./fontpairings";
import type { TextScale, ThemeColours } from "./theme";

/** A rectangle on a page of 960 by 540 points: x, y, width, height. On other pages it is stretched. */
export type PageRectangle = readonly [x: number, y: number, width: number, height: number];

/** What text is on: the paper, or a field of colour. */
export type Surface = "paper" | "field";

/** What a design says of a slot where it differs from the arrangement. */
export interface DesignSlot {
  at?: PageRectangle;
  anchor?: "top" | "middle" | "bottom";
  align?: "start" | "centre" | "end";
  surface?: Surface;
}

/** How a design sets the text of a role, where it differs from the usual. */
export interface RoleStyle {
  font?: "heading" | "body";
  colour?: "ink" | "muted" | "accent" | "second";
  strong?: boolean;
  italic?: boolean;
  capitals?: boolean;
  /** Space after each letter, in em. */
  spacing?: number;
}

/** Where footer, header or slide number are, and how they are set. `size` is in points; the size of footers unless given. */
export interface RegionPlace {
  at: PageRectangle;
  align: "start" | "centre" | "end";
  size?: number;
  font?: "heading" | "body";
  colour?: "ink" | "muted" | "accent";
  strong?: boolean;
  surface?: Surface;
}

/** What a decoration is drawn for. Lengths are points on a page of 540 by at least 720; the page is scaled to that. */
export interface DecorationContext {
  arrangement: ArrangementName;
  /** The colours of the theme. */
  colours: ThemeColours;
  width: number;
  height: number;
  /** Returns a distance from the left as it is on this page; given as on a page of 960 by 540. */
  x: (distance: number) => number;
  /** Returns a distance from the top as it is on this page. */
  y: (distance: number) => number;
}

/** What a design draws behind the content: a fill for the page, and shapes in drawing order. */
export interface Decoration {
  fill?: Fill;
  shapes: ShapeElement[];
}

/** A design: where things are, how text looks, what is drawn behind it, and the fonts and colours that it comes with. */
export interface DesignDescriptor {
  label: string;
  /** What kind of design it is, in one line. */
  description: string;
  fonts: FontPairingName;
  colours: Record<Mood, ThemeColours>;
  /** The mood that it comes with. */
  mood: Mood;
  scale?: Partial<TextScale>;
  /** Where titles are, and the area below them that the other slots share. */
  title?: PageRectangle;
  body?: PageRectangle;
  /** The same for arrangements that need the whole width, such as tables and code. */
  wide?: { title: PageRectangle; body: PageRectangle };
  /** The area of arrangements without a title. */
  area?: PageRectangle;
  /** How titles of content slides are anchored and aligned, and what they are on. */
  titles?: Omit<DesignSlot, "at">;
  slots?: { readonly [A in ArrangementName]?: Readonly<Record<string, DesignSlot>> };
  /** The arrangements that are on a field of colour. */
  onField?: readonly ArrangementName[];
  roles?: { readonly [R in SlotRole]?: RoleStyle };
  /** The bullets of the first level and of those below it. */
  bullets?: readonly [first: string, below: string];
  /** How tables are drawn: rules between rows, bands, or a filled header. */
  table?: "rules" | "bands" | "filled";
  regions?: { footer?: RegionPlace; header?: RegionPlace; number?: RegionPlace };
  decorate?: (context: DecorationContext) => Decoration;
}
