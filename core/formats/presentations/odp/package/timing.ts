import { type Effect, type Reveal, revealsOf, type Slide, type Trigger, type Direction } from "@unitext/core/model";
import { localName, xml, type XmlNode, attribute } from "../../../shared/xml";
import type { TimingEvent } from "../../shared/motion";

/** The ids by which timing refers to an element: its shapes (a caption appears with its picture) and its paragraphs. */
export interface Targets {
  shapes: string[];
  points: string[];
}

const idIn = (tag: string) => /\sxml:id="([^"]*)"/.exec(tag)?.[1] ?? /\sdraw:id="([^"]*)"/.exec(tag)?.[1];

/**
 * Returns the XML of a shape with an id, and with ids of its paragraphs where they appear one at a time; existing ids
 * stay.
 */
export function identified(words: string, id: string, points: boolean): { words: string; targets: Targets } {
  const targets: Targets = { shapes: [], points: [] };
  const named = words.replace(
    /^((?:<draw:a\b[^>]*>\s*)*)(<[\w:-]+)([^>]*>)/,
    (_, anchor: string, open: string, rest: string) => {
      const known = idIn(rest);
      targets.shapes.push(known ?? id);
      return known === undefined ? `${anchor}${open} xml:id="${id}" draw:id="${id}"${rest}` : `${anchor}${open}${rest}`;
    },
  );
  if (!points) return { words: named, targets };
  const pointed = named.replace(/<text:[ph](?=[\s/>])[^>]*>/g, (tag) => {
    const known = idIn(tag);
    const own = known ?? `${id}p${targets.points.length + 1}`;
    targets.points.push(own);
    return known === undefined ? tag.replace(/^<text:[ph]/, (open) => `${open} xml:id="${own}"`) : tag;
  });
  return { words: pointed, targets };
}

const clock = (seconds: number) => `${Math.round(seconds * 1000) / 1000}s`;
const NODES = { press: "on-click", with: "with-previous", after: "after-previous" } as const;

function behaviours({ effect, seconds }: Reveal, target: string, whole: boolean, direction: Direction): string {
  const to = { "smil:targetElement": target, ...(whole ? {} : { "anim:sub-item": "text" }) };
  const shown = xml("anim:set", {
    "smil:begin": "0s",
    "smil:dur": "0.001s",
    "smil:fill": "hold",
    ...to,
    "smil:attributeName": "visibility",
    "smil:to": "visible",
  });
  const filter = (type: string, subtype: string, reversed = false) =>
    xml("anim:transitionFilter", {
      "smil:dur": clock(seconds),
      ...to,
      "smil:type": type,
      "smil:subtype": subtype,
      "smil:direction": reversed ? "reverse" : undefined,
      "smil:mode": "in",
    });
  const runs = (name: string, from: string) =>
    xml("anim:animate", {
      "smil:dur": clock(seconds),
      "smil:fill": "hold",
      ...to,
      "smil:attributeName": name,
      "smil:values": `${from};${name}`,
      "smil:keyTimes": "0;1",
      "smil:calcMode": "linear",
    });
  const moving: Record<Effect, () => string> = {
    appear: () => "",
    fade: () => filter("fade", "crossfade"),
    wipe: () => filter("barWipe", "leftToRight", direction === "rtl"),
    slide: () => runs("x", "x") + runs("y", "1+height/2"),
    grow: () => runs("width", "0") + runs("height", "0"),
  };
  return shown + moving[effect]();
}

/**
 * Writes the entrances of a slide as animations of its page (OpenDocument 1.3, 15): a main sequence with a part for
 * each press, in it the entrances that run together. Empty when nothing appears later. `direction` is that of the deck.
 */
export function timingXml(
  slide: Pick<Slide, "arrangement" | "elements">,
  targetsOf: (element: string) => Targets | undefined,
  direction: Direction,
): string {
  const presses: { press: number; rows: { at: number; effects: string[] }[] }[] = [];
  for (const reveal of revealsOf(slide)) {
    const targets = targetsOf(reveal.element);
    const point = reveal.paragraph === undefined ? undefined : targets?.points[reveal.paragraph];
    const shapes = reveal.paragraph === undefined ? (targets?.shapes ?? []) : point === undefined ? [] : [point];
    const effects = shapes.map((shape, nth) =>
      xml(
        "anim:par",
        {
          "smil:begin": clock(reveal.delay ?? 0),
          "smil:fill": "hold",
          "presentation:node-type": nth ? "with-previous" : NODES[reveal.trigger],
          "presentation:preset-class": "entrance",
        },
        behaviours(reveal, shape, reveal.paragraph === undefined, direction),
      ),
    );
    if (!effects.length) continue;
    const last = presses.at(-1);
    const row = { at: reveal.start - (reveal.delay ?? 0), effects };
    if (last?.press !== reveal.press) presses.push({ press: reveal.press, rows: [row] });
    else if (reveal.trigger === "after") last.rows.push(row);
    else last.rows.at(-1)?.effects.push(...effects);
  }
  if (!presses.length) return "";
  const parts = presses.map(({ press, rows }) =>
    xml(
      "anim:par",
      { "smil:begin": press ? "next" : "0s", "smil:fill": "hold" },
      ...rows.map(({ at, effects }) => xml("anim:par", { "smil:begin": clock(at), "smil:fill": "hold" }, ...effects)),
    ),
  );
  return xml(
    "anim:par",
    { "presentation:node-type": "timing-root" },
    xml("anim:seq", { "presentation:node-type": "main-sequence" }, ...parts),
  );
}

const TRIGGER: Record<string, Trigger> = { "on-click": "press", "with-previous": "with", "after-previous": "after" };
const OTHER: Record<string, string> = {
  exit: "the exit",
  emphasis: "the emphasis",
  "motion-path": "the way along a path",
  "ole-action": "an action",
  "media-call": "the playing",
};

/** Reads a SMIL clock value (“500ms”, “0.5s”, “1”) in seconds; 0 for events to wait for. */
function secondsOf(value: string | undefined): number {
  const [, number, unit] = /^\s*([\d.]+)\s*(ms|s|min|h)?\s*$/.exec(value ?? "") ?? [];
  const seconds = Number(number) * ({ ms: 0.001, s: 1, min: 60, h: 3600 }[unit ?? "s"] ?? 1);
  return Number.isFinite(seconds) ? Math.min(60, seconds) : 0;
}

const everywhere = (node: XmlNode): XmlNode[] => node.children.flatMap((inner) => [inner, ...everywhere(inner)]);
const effectsIn = (node: XmlNode): XmlNode[] =>
  node.children.flatMap((inner) =>
    attribute(inner, "preset-class") !== undefined || TRIGGER[attribute(inner, "node-type") ?? ""]
      ? [inner]
      : effectsIn(inner),
  );

function effectOf(node: XmlNode): { effect: Effect; seconds: number; otherwise?: string } {
  const parts = everywhere(node).filter((part) =>
    /^(animate\w*|transitionFilter|audio|command)$/.test(localName(part)),
  );
  const moving = parts.filter((part) => /^(animate|transitionFilter)/.test(localName(part)));
  const seconds = Math.max(
    0,
    ...moving.map((part) => secondsOf(attribute(part, "dur")) + secondsOf(attribute(part, "begin"))),
  );
  if (!moving.length) return { effect: "appear", seconds: 0 };
  const names = new Set(
    moving.map((part) =>
      localName(part) === "animateTransform"
        ? `transform ${attribute(part, "type") ?? ""}`
        : localName(part) === "animateMotion"
          ? "x"
          : (attribute(part, "attributeName") ?? ""),
    ),
  );
  const filter = moving
    .map((part) => (localName(part) === "transitionFilter" ? (attribute(part, "type") ?? "") : ""))
    .find(Boolean);
  const grows = names.has("width") || names.has("height") || names.has("transform scale");
  const slides = names.has("x") || names.has("y");
  if (filter === "barWipe") return { effect: "wipe", seconds };
  if ((filter === "fade" || names.has("opacity")) && !grows && !slides) return { effect: "fade", seconds };
  if (grows) return { effect: "grow", seconds };
  if (slides) return { effect: "slide", seconds };
  return { effect: "fade", seconds, otherwise: filter ?? "another effect" };
}

/** Effects of the older form of the standard (OpenDocument 1.3, 9.7, `presentation:animations`). */
const OLDER: Record<string, Effect> = {
  none: "appear",
  fade: "fade",
  dissolve: "fade",
  move: "slide",
  "move-short": "slide",
  stretch: "grow",
};
const SPEED: Record<string, number> = { slow: 1.5, medium: 1, fast: 0.5 };

/**
 * Reads the timing of a page, from first to last; `shapeOf` resolves an id to a shape and, if it is one, a paragraph.
 */
export function readTiming(
  page: XmlNode,
  shapeOf: (id: string) => { shape: string; point?: number } | undefined,
): TimingEvent[] {
  const named = (id: string | undefined) => (id === undefined ? undefined : shapeOf(id));
  const older = page.children
    .filter((part) => localName(part) === "animations")
    .flatMap((list) => list.children)
    .map((one): TimingEvent => {
      const shape = named(attribute(one, "shape-id"))?.shape ?? "";
      if (!/^show-(shape|text)$/.test(localName(one)))
        return { shape, motion: localName(one).startsWith("hide") ? "the exit" : "a motion" };
      const effect = attribute(one, "effect") ?? "none";
      return {
        shape,
        trigger: "press",
        effect: OLDER[effect] ?? "wipe",
        seconds: effect === "none" ? 0 : (SPEED[attribute(one, "speed") ?? ""] ?? 1),
        delay: secondsOf(attribute(one, "delay")),
      };
    });
  const roots = page.children.filter((part) => /^(par|seq)$/.test(localName(part)));
  const sequences = roots
    .flatMap((root) => [root, ...everywhere(root)])
    .filter((part) => localName(part) === "seq" || attribute(part, "node-type") === "main-sequence");
  const main = sequences.find((sequence) => attribute(sequence, "node-type") === "main-sequence");
  const target = (node: XmlNode) =>
    [node, ...everywhere(node)].map((part) => attribute(part, "targetElement")).find((id) => id !== undefined);
  const elsewhere = sequences
    .filter((sequence) => sequence !== main)
    .flatMap(effectsIn)
    .map(
      (node): TimingEvent => ({
        shape: named(target(node))?.shape ?? "",
        motion: "what happens when something else is pressed",
      }),
    );
  const happenings = (main ? effectsIn(main) : []).map((node): TimingEvent => {
    const presetClass = attribute(node, "preset-class") ?? "entrance";
    const found = named(target(node));
    if (presetClass !== "entrance") return { shape: found?.shape ?? "", motion: OTHER[presetClass] ?? "a motion" };
    if (!found) return { shape: "", motion: "a motion without a shape" };
    const { shape, point } = found;
    return {
      shape,
      trigger: TRIGGER[attribute(node, "node-type") ?? ""] ?? "press",
      ...effectOf(node),
      delay: secondsOf(attribute(node, "begin")),
      ...(point === undefined ? {} : { points: [point, point] as const }),
    };
  });
  return [...older, ...happenings, ...elsewhere];
}
