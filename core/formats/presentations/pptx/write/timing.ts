import { type Direction, type Effect, type Reveal, revealsOf, type Slide, must } from "@unitext/core/model";
import { xml } from "../../../shared/xml";

/** Returns the shapes of an element in the file: the first is its own, others (captions) appear with it. */
export type ShapesOf = (element: string) => readonly number[] | undefined;

/** A wipe starts at the side where lines start. */
const WIPE_FROM: Record<Direction, { subtype: number; filter: string }> = {
  ltr: { subtype: 8, filter: "wipe(left)" },
  rtl: { subtype: 2, filter: "wipe(right)" },
};

/**
 * The numbers by which programs identify effects (`presetID` and `presetSubtype` of `p:cTn`, ECMA-376-1, 19.5.33, which
 * leaves their values to the application; from memory, common practice).
 */
const PRESETS: Record<Effect, { id: number; subtype: number }> = {
  appear: { id: 1, subtype: 0 },
  fade: { id: 10, subtype: 0 },
  wipe: { id: 22, subtype: WIPE_FROM.ltr.subtype },
  slide: { id: 2, subtype: 4 },
  grow: { id: 23, subtype: 16 },
};

/** Returns the elements that are not shapes with text in the file. */
export const withoutText = ({ elements }: Pick<Slide, "elements">): ReadonlySet<string> =>
  new Set(
    elements.flatMap(({ id, kind }) => (["picture", "table", "chart", "media", "foreign"].includes(kind) ? [id] : [])),
  );

/** A group of shapes: its own id, and its elements. */
export interface ShapeGroup {
  id: number;
  members: readonly string[];
}

/** Whether all members of a group appear together and in the same way. */
function comesAsOne(reveals: readonly Reveal[], { members }: ShapeGroup): boolean {
  const held = new Set(members);
  const from = reveals.findIndex(({ element }) => held.has(element));
  const run = reveals.slice(from, from + held.size);
  const [first, ...others] = run;
  if (!first || run.length < held.size || reveals.filter(({ element }) => held.has(element)).length !== held.size)
    return false;
  return (
    run.every(
      ({ element, paragraph, effect, seconds, delay }) =>
        held.has(element) &&
        paragraph === undefined &&
        effect === first.effect &&
        seconds === first.seconds &&
        delay === first.delay,
    ) && others.every(({ trigger }) => trigger === "with")
  );
}

/**
 * Returns the shapes of elements; a group that appears as one is itself the target, because programs move groups as a
 * whole.
 */
export function withGroups(
  slide: Pick<Slide, "arrangement" | "elements">,
  shapesOf: ShapesOf,
  groups: readonly ShapeGroup[],
): ShapesOf {
  const reveals = revealsOf(slide);
  const whole = groups.filter((group) => group.members.length > 1 && comesAsOne(reveals, group));
  return (element) => {
    const group = whole.find(({ members }) => members.includes(element));
    if (!group) return shapesOf(element);
    return reveals.find((reveal) => group.members.includes(reveal.element))?.element === element ? [group.id] : [];
  };
}

const ms = (seconds: number) => Math.round(seconds * 1000);
const begins = (delay: number | string) => xml("p:stCondLst", {}, xml("p:cond", { delay }));

/** Counts the time nodes of a slide from outside in, as they are read. */
class Ids {
  private last = 2;
  next = () => ++this.last;
}

function behaviours(effect: Effect, seconds: number, target: string, direction: Direction, ids: Ids): string {
  const common = (name: string | undefined, attributes: Record<string, string | number>, start?: string) =>
    xml(
      "p:cBhvr",
      name === "ppt_x" || name === "ppt_y" ? { additive: "base" } : {},
      xml("p:cTn", { id: ids.next(), ...attributes }, start ?? ""),
      target,
      name === undefined ? "" : xml("p:attrNameLst", {}, xml("p:attrName", {}, name)),
    );
  const shown = xml(
    "p:set",
    {},
    common("style.visibility", { dur: 1, fill: "hold" }, begins(0)),
    '<p:to><p:strVal val="visible"/></p:to>',
  );
  const filter = (name: string) =>
    xml("p:animEffect", { transition: "in", filter: name }, common(undefined, { dur: ms(seconds) }));
  const runs = (name: string, from: string) =>
    xml(
      "p:anim",
      { calcmode: "lin", valueType: "num" },
      common(name, { dur: ms(seconds), fill: "hold" }),
      xml(
        "p:tavLst",
        {},
        xml("p:tav", { tm: 0 }, xml("p:val", {}, xml("p:strVal", { val: from }))),
        xml("p:tav", { tm: 100000 }, xml("p:val", {}, xml("p:strVal", { val: `#${name}` }))),
      ),
    );
  const moving: Record<Effect, () => string> = {
    appear: () => "",
    fade: () => filter("fade"),
    wipe: () => filter(WIPE_FROM[direction].filter),
    slide: () => runs("ppt_x", "#ppt_x") + runs("ppt_y", "1+#ppt_h/2"),
    grow: () => runs("ppt_w", "0") + runs("ppt_h", "0"),
  };
  return shown + moving[effect]();
}

const NODES = { press: "clickEffect", with: "withEffect", after: "afterEffect" } as const;

function effectXml(
  { effect, seconds, trigger, delay = 0, paragraph }: Reveal,
  shape: number,
  nodeType: string,
  direction: Direction,
  ids: Ids,
): string {
  const text = paragraph === undefined ? "" : xml("p:txEl", {}, xml("p:pRg", { st: paragraph, end: paragraph }));
  const target = xml("p:tgtEl", {}, xml("p:spTgt", { spid: shape }, text));
  const { id, subtype } = { ...PRESETS[effect], ...(effect === "wipe" ? WIPE_FROM[direction] : {}) };
  const own = ids.next();
  return xml(
    "p:par",
    {},
    xml(
      "p:cTn",
      {
        id: own,
        presetID: id,
        presetClass: "entr",
        presetSubtype: subtype,
        fill: "hold",
        grpId: 0,
        nodeType: nodeType || NODES[trigger],
      },
      begins(ms(delay)),
      xml("p:childTnLst", {}, behaviours(effect, seconds, target, direction, ids)),
    ),
  );
}

/** Returns entrances by press, and within a press by what runs together. */
function pressed(reveals: readonly Reveal[]): { press: number; rows: { at: number; reveals: Reveal[] }[] }[] {
  const presses: ReturnType<typeof pressed> = [];
  for (const reveal of reveals) {
    const last = presses.at(-1);
    const row = { at: reveal.start - (reveal.delay ?? 0), reveals: [reveal] };
    if (last?.press !== reveal.press) presses.push({ press: reveal.press, rows: [row] });
    else if (reveal.trigger === "after") last.rows.push(row);
    else last.rows.at(-1)?.reveals.push(reveal);
  }
  return presses;
}

/**
 * Writes the entrances of a slide (`p:timing`, ECMA-376-1, 19.5): a main sequence with a part for each press, in it the
 * entrances that run together. Empty when nothing appears later. `direction` is that of the deck.
 */
export function timingXml(
  slide: Pick<Slide, "arrangement" | "elements">,
  shapesOf: ShapesOf,
  wordless: ReadonlySet<string>,
  direction: Direction,
): string {
  const reveals = revealsOf(slide).filter(({ element }) => shapesOf(element)?.length);
  if (!reveals.length) return "";
  const ids = new Ids();
  const parts = pressed(reveals).map(({ press, rows }) => {
    const outer = ids.next();
    const inner = rows.map(({ at, reveals: batch }) => {
      const middle = ids.next();
      const effects = batch.flatMap((reveal) =>
        (shapesOf(reveal.element) ?? []).map((shape, nth) =>
          effectXml(reveal, shape, nth ? "withEffect" : "", direction, ids),
        ),
      );
      return xml(
        "p:par",
        {},
        xml("p:cTn", { id: middle, fill: "hold" }, begins(ms(at)), xml("p:childTnLst", {}, ...effects)),
      );
    });
    // What needs no press starts with the main sequence itself.
    const conditions = xml(
      "p:stCondLst",
      {},
      xml("p:cond", { delay: "indefinite" }),
      press === 0 ? xml("p:cond", { evt: "onBegin", delay: 0 }, '<p:tn val="2"/>') : "",
    );
    return xml("p:par", {}, xml("p:cTn", { id: outer, fill: "hold" }, conditions, xml("p:childTnLst", {}, ...inner)));
  });
  const onSlide = (evt: string) => xml("p:cond", { evt, delay: 0 }, "<p:tgtEl><p:sldTgt/></p:tgtEl>");
  const sequence = xml(
    "p:seq",
    { concurrent: 1, nextAc: "seek" },
    xml("p:cTn", { id: 2, dur: "indefinite", nodeType: "mainSeq" }, xml("p:childTnLst", {}, ...parts)),
    xml("p:prevCondLst", {}, onSlide("onPrev")),
    xml("p:nextCondLst", {}, onSlide("onNext")),
  );
  const root = xml(
    "p:par",
    {},
    xml("p:cTn", { id: 1, dur: "indefinite", restart: "never", nodeType: "tmRoot" }, xml("p:childTnLst", {}, sequence)),
  );
  // Only shapes with text are built (`p:bldP`).
  const builds = [...new Map(reveals.map((reveal) => [reveal.element, reveal]))].flatMap(([element, { paragraph }]) =>
    wordless.has(element)
      ? []
      : [
          xml("p:bldP", {
            spid: must(shapesOf(element)?.[0]),
            grpId: 0,
            build: paragraph === undefined ? undefined : "p",
          }),
        ],
  );
  return xml("p:timing", {}, xml("p:tnLst", {}, root), builds.length ? xml("p:bldLst", {}, ...builds) : "");
}
