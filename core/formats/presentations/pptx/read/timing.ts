import type { Effect, Trigger } from "@unitext/core/model";
import { child, childrenOf, localName, type XmlElement } from "../../../shared/xml";
import type { TimingEvent } from "../../shared/motion";
import { alternativeOf, SHAPE_NAMES } from "./inherit";

const TRIGGER: Record<string, Trigger> = { clickEffect: "press", withEffect: "with", afterEffect: "after" };
const OTHER: Record<string, string> = {
  exit: "the exit",
  emph: "the emphasis",
  path: "the way along a path",
  verb: "an action",
  mediacall: "the playing",
};
const seconds = (value: string | undefined) =>
  value !== undefined && /^\d+$/.test(value) ? Math.min(60, Number(value) / 1000) : 0;

const everywhere = (element: XmlElement, name: string): XmlElement[] =>
  element.children.flatMap((inner) => [...(localName(inner) === name ? [inner] : []), ...everywhere(inner, name)]);
const delayOf = (node: XmlElement) =>
  seconds(
    childrenOf(child(node, "stCondLst"), "cond")
      .map(({ attributes }) => attributes.delay)
      .find((delay) => delay !== undefined),
  );

/** Returns the nodes that are effects, from first to last. */
function effectsIn(element: XmlElement): XmlElement[] {
  return element.children.flatMap((inner) =>
    localName(inner) === "cTn" &&
    (inner.attributes.presetClass !== undefined || TRIGGER[inner.attributes.nodeType ?? ""])
      ? [inner]
      : effectsIn(inner),
  );
}

function targetOf(node: XmlElement): { shape: string; points?: readonly [number, number] } | undefined {
  const target = everywhere(node, "spTgt")[0];
  if (!target?.attributes.spid) return undefined;
  const range = everywhere(target, "pRg")[0]?.attributes;
  return {
    shape: target.attributes.spid,
    ...(range ? { points: [Number(range.st) || 0, Number(range.end) || 0] } : {}),
  };
}

/** Returns the effect that a node's behaviour amounts to; `otherwise` names an effect that is only similar. */
function effectOf(node: XmlElement): { effect: Effect; seconds: number; otherwise?: string } {
  const filters = everywhere(node, "animEffect");
  const scaled = everywhere(node, "animScale").length > 0;
  const names = everywhere(node, "anim").flatMap((part) => everywhere(part, "attrName").map(({ text }) => text.trim()));
  const moving = [
    ...filters,
    ...everywhere(node, "anim"),
    ...everywhere(node, "animScale"),
    ...everywhere(node, "animMotion"),
    ...everywhere(node, "animRot"),
    ...everywhere(node, "animClr"),
  ];
  const longest = Math.max(
    0,
    ...moving.flatMap((part) => everywhere(part, "cTn").map((time) => seconds(time.attributes.dur) + delayOf(time))),
  );
  const filter = filters[0]?.attributes.filter ?? "";
  if (!moving.length) return { effect: "appear", seconds: 0 };
  const grows = scaled || names.some((name) => /^ppt_[wh]$/.test(name));
  const slides = names.some((name) => /^ppt_[xy]$/.test(name)) || everywhere(node, "animMotion").length > 0;
  if (/^fade\b/.test(filter) && !grows && !slides) return { effect: "fade", seconds: longest };
  if (/^wipe\b/.test(filter)) return { effect: "wipe", seconds: longest };
  if (grows) return { effect: "grow", seconds: longest };
  if (slides) return { effect: "slide", seconds: longest };
  return { effect: "fade", seconds: longest, otherwise: filter.replace(/\(.*/, "") || "another effect" };
}

/** Reads the timing of a slide (`p:timing`, ECMA-376-1, 19.5), by the ids of its shapes, from first to last. */
export function readTiming(timing: XmlElement | undefined): TimingEvent[] {
  const sequences = timing ? everywhere(timing, "seq") : [];
  const main = sequences.find((sequence) => child(sequence, "cTn")?.attributes.nodeType === "mainSeq");
  const elsewhere = sequences
    .filter((sequence) => sequence !== main)
    .flatMap(effectsIn)
    .map(
      (node): TimingEvent => ({
        shape: targetOf(node)?.shape ?? "",
        motion: "what happens when something else is pressed",
      }),
    );
  const happenings = (main ? effectsIn(main) : []).map((node): TimingEvent => {
    const { presetClass = "entr", nodeType = "" } = node.attributes;
    const target = targetOf(node);
    if (!target) return { shape: "", motion: "a motion without a shape" };
    const { shape, points } = target;
    if (presetClass !== "entr") return { shape, motion: OTHER[presetClass] ?? "a motion" };
    return {
      shape,
      trigger: TRIGGER[nodeType] ?? "press",
      ...effectOf(node),
      delay: delayOf(node),
      ...(points ? { points } : {}),
    };
  });
  return [...happenings, ...elsewhere];
}

/** Returns the paths of shapes by the ids that timing refers to; a group has those of all its members. */
export function shapePaths(shapes: readonly XmlElement[], above = ""): Map<string, string[]> {
  const paths = new Map<string, string[]>();
  for (const [nth, shape] of shapes.entries()) {
    const path = `${above}${nth}`;
    const kind = localName(shape);
    const inner =
      kind === "grpSp"
        ? shape.children.filter((one) => SHAPE_NAMES.has(localName(one)))
        : kind === "AlternateContent"
          ? alternativeOf(shape)
          : [];
    const within = shapePaths(inner, `${path}.`);
    for (const [id, list] of within) paths.set(id, list);
    const all = inner.length ? [...within.values()].flat() : [path];
    const own =
      kind === "AlternateContent"
        ? everywhere(shape, "cNvPr")
        : shape.children
            .filter((part) => localName(part).startsWith("nv"))
            .flatMap((part) => childrenOf(part, "cNvPr"));
    for (const { attributes } of own)
      if (attributes.id !== undefined && !paths.has(attributes.id)) paths.set(attributes.id, [...new Set(all)]);
  }
  return paths;
}
