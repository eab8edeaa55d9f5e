import {
  cutText,
  ArrangementName,
  type Background,
  type Fill,
  NUMBER_SIGN,
  type RegionBox,
  type Slide,
  type Transition,
} from "@unitext/core/model";
import { at, child, localName, type XmlElement } from "../../../shared/xml";
import { parseOptional } from "../../../shared/sourcepackage";
import { nearTransition } from "../../shared/motion";
import { type DrawingContext, fillElement, readFill, referredFill } from "./drawing";
import { type Inheritance, type PlaceholderRef, placeholderRef } from "./inherit";
import { readShapeText } from "./shapetext";
import type { ShapeWork } from "./shapework";

const WIPES: Record<string, Transition["kind"]> = { fade: "fade", push: "push", wipe: "wipe" };

/** Returns the background that a slide, layout or master sets itself. */
export function backgroundOf(tree: XmlElement | undefined, context: DrawingContext): Background | undefined {
  const own = at(tree, "cSld", "bg");
  const reference = child(own, "bgRef");
  const fill: Fill | null | undefined = reference
    ? referredFill(reference, context)
    : readFill(fillElement(child(own, "bgPr")), context);
  if (!fill) return undefined;
  if (fill.kind === "solid" && fill.opacity === undefined) return { colour: fill.colour };
  // A picture that extends beyond the page on one axis only covers it.
  const { l, t, r, b } = at(own, "bgPr", "blipFill", "stretch", "fillRect")?.attributes ?? {};
  const [across, down] = [
    [l, r],
    [t, b],
  ].map((sides) => sides.map((side) => Number(side ?? 0)));
  const covers = (one: number[] = [], other: number[] = []) =>
    (one[0] ?? 0) < 0 && one[0] === one[1] && other.every((side) => side === 0);
  return fill.kind === "picture" &&
    !fill.tile &&
    fill.opacity === undefined &&
    (covers(across, down) || covers(down, across))
    ? { picture: fill.source }
    : { fill };
}

/** Reads footer, number and date where the slide has them. */
export function regionsOf(shapes: readonly XmlElement[], work: ShapeWork): RegionBox[] {
  return shapes
    .flatMap((shape): RegionBox[] => {
      const ref = placeholderRef(shape);
      const region =
        ref && ({ ftr: "footer", sldNum: "number", dt: "date" } as Record<string, RegionBox["region"]>)[ref.type];
      const frame = ref && work.inheritance.frame(shape, ref);
      if (!ref || !region || !frame) return [];
      const { text, style, box } = readShapeText(work, shape, ref);
      const words = cutText(text.map(({ runs }) => runs.map((item) => item.text).join("")).join("\n"), 500);
      if (words === "" && region !== "number") return [];
      // A placeholder with the slide number and nothing else is one, wherever it is.
      if (words.trim() === NUMBER_SIGN) return [{ region: "number", text: NUMBER_SIGN, frame, style, box }];
      return [
        { region, text: region === "number" && !words.includes(NUMBER_SIGN) ? NUMBER_SIGN : words, frame, style, box },
      ];
    })
    .slice(0, 10);
}

/** Reads the transition and duration of a slide; a transition shown as another is reported. */
export function transitionOf(
  tree: XmlElement,
  report: (what: string, how: string) => void,
): Pick<Slide, "transition" | "delay"> {
  const found =
    child(tree, "transition") ??
    at(tree, "AlternateContent", "Choice", "transition") ??
    at(tree, "AlternateContent", "Fallback", "transition");
  if (!found) return {};
  const kind = found.children.map(localName).find((name) => name !== "sndAc" && name !== "extLst");
  const { spd, advTm } = found.attributes;
  const exact = Number(Object.entries(found.attributes).find(([key]) => key.endsWith(":dur"))?.[1]) / 1000;
  const seconds = exact > 0 ? Math.min(10, Math.max(0.1, exact)) : spd === "slow" ? 1.5 : spd === "med" ? 0.75 : 0.5;
  const delay = Number(advTm) / 1000;
  const near = kind === undefined || WIPES[kind] ? undefined : nearTransition(kind);
  const ours = kind === undefined ? undefined : (WIPES[kind] ?? near?.kind);
  if (near) report(`the transition “${kind}”`, near.how);
  return {
    ...(ours ? { transition: { kind: ours, seconds } } : {}),
    ...(delay >= 0.5 && delay <= 3600 ? { delay } : {}),
  };
}

/** Returns the arrangement that is most similar to the layout and placeholders of a slide. */
export function arrangementOf(kept: unknown, inheritance: Inheritance, shapes: readonly XmlElement[]): ArrangementName {
  const own = parseOptional(ArrangementName, kept);
  const refs = shapes.map(placeholderRef).filter((ref): ref is PlaceholderRef => ref !== undefined);
  if (own) return own;
  const types: Record<string, ArrangementName> = {
    title: "opening",
    secHead: "section",
    obj: "points",
    tx: "points",
    twoObj: "comparison",
    twoTxTwoObj: "comparison",
    titleOnly: "title",
    blank: "blank",
    picTx: "picture",
  };
  const known = types[inheritance.layoutType];
  if (known) return known;
  const titled = refs.some(({ type }) => type === "title" || type === "ctrTitle");
  const bodies = refs.filter(({ type }) => ["obj", "body", "subTitle"].includes(type)).length;
  return bodies >= 2 && titled ? "comparison" : bodies === 1 ? "points" : titled ? "title" : "blank";
}
