// core/model/arrangement.ts
import { z } from "zod";
var ARRANGEMENTS = {
  opening: { label: "Opening", slots: { title: "opening", subtitle: "subtitle" } },
  section: { label: "Section opener", slots: { title: "opening", subtitle: "subtitle" } },
  points: { label: "Title and points", slots: { title: "title", body: "body" } },
  comparison: { label: "Two columns", slots: { title: "title", left: "body", right: "body" } },
  columns: { label: "Three columns", slots: { title: "title", left: "body", middle: "body", right: "body" } },
  statement: { label: "One statement", slots: { body: "statement" } },
  number: { label: "Big number", slots: { number: "number", caption: "caption" } },
  picture: { label: "Picture with caption", slots: { title: "title", picture: "picture", caption: "caption" } },
  pictures: { label: "Set of pictures", slots: { title: "title", pictures: "picture", caption: "caption" } },
  table: { label: "Table", slots: { title: "title", table: "figure", caption: "caption" } },
  chart: { label: "Chart", slots: { title: "title", chart: "figure", caption: "caption" } },
  diagram: { label: "Diagram", slots: { title: "title", diagram: "figure", caption: "caption" } },
  code: { label: "Code", slots: { title: "title", code: "figure", caption: "caption" } },
  formula: { label: "Formula", slots: { title: "title", formula: "figure", caption: "caption" } },
  quotation: { label: "Quotation", slots: { body: "statement", caption: "caption" } },
  references: { label: "References", slots: { title: "title", body: "references" } },
  card: { label: "Name in the middle", slots: { title: "name" } },
  corner: { label: "Name in the corner", slots: { title: "corner" } },
  title: { label: "Title alone", slots: { title: "title" } },
  blank: { label: "Nothing", slots: {} }
};
var ArrangementName = z.enum(Object.keys(ARRANGEMENTS));
function slotsOf(arrangement) {
  return Object.entries(ARRANGEMENTS[arrangement].slots);
}

// core/model/deck.ts
import { z as z7 } from "zod";

// core/model/look.ts
import { z as z3 } from "zod";

// core/model/units.ts
import { z as z2 } from "zod";
var Id = z2.string().regex(/^[A-Za-z0-9_-]{1,64}$/, "an id has 1 to 64 letters, digits, - or _");
var Colour = z2.string().regex(/^#[0-9a-f]{6}$/, "a colour is written as #rrggbb");
var Language = z2.string().regex(/^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/, "a language is a tag such as en or pt-BR");
var Page = z2.object({ width: z2.number().min(72).max(4032), height: z2.number().min(72).max(4032) });
var Frame = z2.object({ x: z2.number(), y: z2.number(), width: z2.number().nonnegative(), height: z2.number().nonnegative() });
var PAGES = {
  "16:9": { width: 960, height: 540 },
  "16:10": { width: 960, height: 600 },
  "4:3": { width: 720, height: 540 }
};
function pageNamed(name) {
  if (name in PAGES) return PAGES[name];
  const size = /^(\d+(?:\.\d+)?)\s*x\s*(\d+(?:\.\d+)?)$/.exec(name);
  const page = size && Page.safeParse({ width: Number(size[1]), height: Number(size[2]) });
  return page?.success ? page.data : void 0;
}

// core/model/look.ts
var share = z3.number().min(0).max(1);
var points = z3.number().min(-4032).max(4032);
var UNDERLINES = ["single", "double", "heavy", "dotted", "dashed", "wavy"];
var RunLook = z3.object({
  size: z3.number().min(1).max(4e3).optional(),
  colour: Colour.optional(),
  font: z3.string().min(1).max(200).optional(),
  underline: z3.enum(UNDERLINES).optional(),
  caps: z3.enum(["all", "small"]).optional(),
  highlight: Colour.optional(),
  spacing: z3.number().min(-100).max(400).optional(),
  rise: z3.number().min(-1).max(1).optional(),
  language: Language.optional()
});
var SCHEMES = ["1.", "1)", "(1)", "1", "a.", "a)", "(a)", "A.", "A)", "(A)", "i.", "i)", "(i)", "I.", "I)", "(I)"];
var Bullet = z3.object({ sign: z3.string().min(1).max(8).optional(), scheme: z3.enum(SCHEMES).optional(), picture: z3.string().min(1).max(1e3).optional(), colour: Colour.optional(), size: z3.number().min(0.1).max(4).optional(), font: z3.string().min(1).max(200).optional() });
var LineSpacing = z3.union([z3.object({ times: z3.number().min(0.1).max(20) }), z3.object({ points: z3.number().min(1).max(4e3) })]);
var along = z3.number().min(0).max(4032);
var TabStop = z3.union([along, z3.object({ at: along, align: z3.enum(["end", "centre", "decimal"]) })]);
var tabParts = (stop) => typeof stop === "number" ? { at: stop, align: "start" } : stop;
var ParagraphLook = z3.object({
  before: z3.union([z3.object({ points: z3.number().min(0).max(4e3) }), z3.object({ times: z3.number().min(0).max(20) })]).optional(),
  after: z3.union([z3.object({ points: z3.number().min(0).max(4e3) }), z3.object({ times: z3.number().min(0).max(20) })]).optional(),
  line: LineSpacing.optional(),
  left: points.optional(),
  right: points.optional(),
  first: points.optional(),
  tabs: z3.array(TabStop).max(32).optional(),
  direction: z3.enum(["ltr", "rtl"]).optional(),
  bullet: Bullet.optional(),
  /** How words would look that are written in a paragraph that has none; its size is that of the empty line. */
  words: RunLook.optional()
});
var LevelStyle = z3.object({ run: RunLook.optional(), paragraph: ParagraphLook.optional(), align: z3.enum(["start", "centre", "end"]).optional(), strong: z3.boolean().optional(), emphasis: z3.boolean().optional() });
var TextStyle = z3.array(LevelStyle).min(1).max(9);
var TextBox = z3.object({
  insets: z3.tuple([points, points, points, points]).optional(),
  anchor: z3.enum(["top", "middle", "bottom"]).optional(),
  columns: z3.number().int().min(2).max(16).optional(),
  gap: z3.number().min(0).max(1e3).optional(),
  /** What happens to text that is too long: it gets smaller, the box grows, or it stands out. */
  fit: z3.enum(["shrink", "grow", "none"]).optional(),
  wrap: z3.boolean().optional(),
  /** Lines that run downwards or upwards. */
  turn: z3.union([z3.literal(90), z3.literal(270)]).optional()
});
var Stop = z3.object({ at: share, colour: Colour, opacity: share.optional() });
var PATTERNS = ["dots", "horizontal", "vertical", "rising", "falling", "grid", "cross"];
var Fill = z3.discriminatedUnion("kind", [
  z3.object({ kind: z3.literal("solid"), colour: Colour, opacity: share.optional() }),
  z3.object({ kind: z3.literal("gradient"), form: z3.enum(["linear", "radial"]), angle: z3.number(), stops: z3.array(Stop).min(2).max(20) }),
  z3.object({ kind: z3.literal("pattern"), pattern: z3.enum(PATTERNS), fore: Colour, back: Colour }),
  z3.object({ kind: z3.literal("picture"), source: z3.string().min(1).max(1e3), tile: z3.boolean().optional(), opacity: share.optional() })
]);
var DASHES = ["dot", "dash", "longdash", "dashdot", "longdashdot"];
var LineEnd = z3.object({ form: z3.enum(["triangle", "open", "barbed", "oval", "diamond"]), size: z3.number().min(1).max(10) });
var Stroke = z3.object({ colour: Colour, width: z3.number().min(0).max(1600), opacity: share.optional(), dash: z3.enum(DASHES).optional(), head: LineEnd.optional(), tail: LineEnd.optional() });
var Shadow = z3.object({ colour: Colour, opacity: share, blur: z3.number().min(0).max(1e3), distance: z3.number().min(0).max(1e3), direction: z3.number() });
var PathData = z3.string().max(2e5).regex(/^[MmZzLlHhVvCcSsQqTtAa0-9eE+\-.,\s]*$/, "an outline is written in SVG path data");
var Geometry = z3.union([
  z3.object({ preset: z3.string().regex(/^[A-Za-z0-9]{1,40}$/), adjust: z3.record(z3.string().max(20), z3.number()).optional() }),
  z3.object({ width: z3.number().positive(), height: z3.number().positive(), paths: z3.array(z3.object({ d: PathData, fill: z3.boolean(), stroke: z3.boolean() })).min(1).max(500) })
]);
var TRIGGERS = ["press", "with", "after"];
var Trigger = z3.enum(TRIGGERS);
var EFFECTS = ["appear", "fade", "wipe", "slide", "grow"];
var Effect = z3.enum(EFFECTS);
var Entrance = z3.object({ order: z3.number().int().min(0).max(1e5), trigger: Trigger, effect: Effect, seconds: z3.number().min(0).max(60), delay: z3.number().min(0).max(600).optional() });
var Drawing = {
  name: z3.string().max(300).optional(),
  rotation: z3.number().min(-360).max(360).optional(),
  flip: z3.enum(["x", "y", "xy"]).optional(),
  groups: z3.array(z3.string().min(1).max(80)).max(20).optional(),
  fill: Fill.optional(),
  stroke: Stroke.optional(),
  shadow: Shadow.optional(),
  entrance: Entrance.optional()
};

// core/model/richtext.ts
import { z as z4 } from "zod";

// core/model/hash.ts
var [sumA, sumB] = [0, 0];
var begin = () => void ([sumA, sumB] = [2166136261, 2538058380]);
function add(text) {
  let [a, b] = [sumA, sumB];
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    a = Math.imul(a ^ code, 16777619);
    b = Math.imul(b ^ (code << 7 | code >> 9), 16777619);
  }
  [sumA, sumB] = [a, b];
}
var ended = () => (sumA >>> 0).toString(16).padStart(8, "0") + (sumB >>> 0).toString(16).padStart(8, "0");
function textHash(text) {
  begin();
  add(text);
  return ended();
}
var QUOTED = /* @__PURE__ */ new Map();
function quoted(key) {
  const known = QUOTED.get(key);
  if (known !== void 0) return known;
  const made = JSON.stringify(key);
  if (QUOTED.size < 1e3) QUOTED.set(key, made);
  return made;
}
function sortedKeys(held) {
  const keys = Object.keys(held);
  for (let at = 1; at < keys.length; at++) if (keys[at - 1] > keys[at]) return keys.sort();
  return keys;
}
function canonical(value) {
  if (typeof value === "number") return Number.isFinite(value) ? String(value) : "null";
  if (typeof value !== "object" || value === null) return JSON.stringify(value) ?? "";
  if (Array.isArray(value)) {
    let list = "";
    for (const item of value) list += `${list ? "," : ""}${canonical(item ?? null)}`;
    return `[${list}]`;
  }
  const held = value;
  let inside = "";
  for (const key of sortedKeys(held)) if (held[key] !== void 0) inside += `${inside ? "," : ""}${quoted(key)}:${canonical(held[key])}`;
  return `{${inside}}`;
}

// core/model/richtext.ts
var MARKS = ["strong", "emphasis", "strike", "code", "formula"];
var Mark = z4.enum(MARKS);
var LinkTarget = z4.string().max(4e3).regex(/^(?:(https?:\/\/|mailto:|slide:)\S+|deck:[\w-]+\/[\w-]+)$/i, "a link starts with https://, http://, mailto:, slide: or deck:");
var words = { text: z4.string(), marks: z4.array(Mark).optional(), link: LinkTarget.optional(), look: RunLook.optional() };
var Footnote = z4.array(z4.object(words));
var Run = z4.object({ ...words, footnote: Footnote.optional() });
var NUMBER_SIGN = "\u2039#\u203A";
var countsSlide = (text) => text.some(({ runs }) => runs.some((item) => item.text.includes(NUMBER_SIGN)));
function onSlide(text, number) {
  return countsSlide(text) ? text.map((paragraph) => ({ ...paragraph, runs: paragraph.runs.map((item) => ({ ...item, text: item.text.replaceAll(NUMBER_SIGN, String(number)) })) })) : text;
}
var MAX_LEVEL = 8;
var Paragraph = z4.object({
  kind: z4.enum(["plain", "bullet", "number"]),
  level: z4.number().int().min(0).max(MAX_LEVEL),
  align: z4.enum(["start", "centre", "end"]).optional(),
  /** The number that a numbered item begins to count from, where it is not the next. */
  start: z4.number().int().min(0).max(1e6).optional(),
  look: ParagraphLook.optional(),
  /** In a text whose paragraphs come one at a time: that it comes together with the one before it, or is there from the beginning. */
  step: z4.enum(["with", "shown"]).optional(),
  runs: z4.array(Run)
});
var RichText = z4.array(Paragraph);
function plainText(text) {
  return text === "" ? [] : text.split("\n").map((line2) => ({ kind: "plain", level: 0, runs: line2 ? [{ text: line2 }] : [] }));
}
function paragraphText({ runs }) {
  let words2 = "";
  for (const { text } of runs) words2 += text;
  return words2;
}
function textOf(text) {
  return text.map(paragraphText).join("\n");
}
function isEmptyText(text) {
  return text.every((paragraph) => paragraph.runs.every((run2) => run2.text === "" && !run2.footnote));
}
function sameStyle(a, b) {
  return a.link === b.link && !a.marks?.includes("formula") && (a.marks ?? []).join() === (b.marks ?? []).join() && (a.look === b.look || canonical(a.look) === canonical(b.look));
}
function run(text, marks = [], link, look) {
  const held = new Set(marks);
  const ordered = MARKS.filter((mark) => held.has(mark));
  return { text, ...ordered.length ? { marks: ordered } : {}, ...link ? { link } : {}, ...look && Object.keys(look).length ? { look } : {} };
}
function joinRuns(runs) {
  const joined = [];
  for (const next2 of runs) {
    if (next2.footnote) joined.push(next2);
    if (next2.text === "" || next2.footnote) continue;
    const last = joined.at(-1);
    if (last && !last.footnote && sameStyle(last, next2)) joined[joined.length - 1] = { ...last, text: last.text + next2.text };
    else joined.push(run(next2.text, next2.marks, next2.link, next2.look));
  }
  return joined;
}
function footnote(runs) {
  return { text: "", footnote: runs.map(({ text, marks, link, look }) => run(text, marks, link, look)) };
}
var WORD = /[\p{L}\p{N}]+(?:['’.,:-][\p{L}\p{N}]+)*/gu;
var UNSPACED = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}]/gu;
var FAR = /[\u0E00-\uFFFF]/;
function countWords(text) {
  const unspaced = FAR.test(text) ? text.match(UNSPACED)?.length ?? 0 : 0;
  const spaced2 = (unspaced ? text.replace(UNSPACED, " ") : text).match(WORD)?.length ?? 0;
  return spaced2 + Math.ceil(unspaced / 2);
}

// core/model/rule.ts
import { z as z5 } from "zod";
var Cut = z5.discriminatedUnion("kind", [
  /** Headings down to level `slide` begin a slide; those down to level `section` open a section. */
  z5.object({ kind: z5.literal("heading"), section: z5.number().int().min(0).max(6), slide: z5.number().int().min(1).max(6) }),
  z5.object({ kind: z5.literal("paragraph") }),
  z5.object({ kind: z5.literal("line") }),
  z5.object({ kind: z5.literal("mark") })
]);
var Body = z5.enum(["slide", "notes", "both"]);
var Rest = z5.enum(["continue", "notes", "keep"]);
var Cards = z5.enum(["middle", "corner"]);
var PointChoice = z5.object({ sentence: z5.string().max(2e4), point: z5.string().max(2e3).nullable() });
var BreakRule = z5.object({
  cuts: z5.array(Cut).min(1).max(4),
  body: Body,
  rest: Rest,
  cards: Cards,
  /** Numeric tables become charts. */
  charts: z5.boolean(),
  /** What the user decided on single points. */
  points: z5.array(PointChoice).max(2e4).optional()
});
var DEFAULT_RULE = { cuts: [{ kind: "heading", section: 1, slide: 2 }], body: "slide", rest: "keep", cards: "middle", charts: false };
var DOCUMENT_RULE = { ...DEFAULT_RULE, body: "both", rest: "continue" };

// core/model/theme.ts
import { z as z6 } from "zod";
var ThemeColours = z6.object({ paper: Colour, ink: Colour, accent: Colour, second: Colour, muted: Colour, link: Colour });
var TextScale = z6.object({
  opening: z6.number().positive(),
  title: z6.number().positive(),
  subtitle: z6.number().positive(),
  body: z6.number().positive(),
  statement: z6.number().positive(),
  number: z6.number().positive(),
  caption: z6.number().positive(),
  footer: z6.number().positive()
});
var Theme = z6.object({
  name: z6.string().min(1).max(80),
  colours: ThemeColours,
  fonts: z6.object({ heading: z6.string().min(1), body: z6.string().min(1), code: z6.string().min(1) }),
  scale: TextScale,
  /** Factors tried in turn, largest first, until a text fits its slot. */
  steps: z6.array(z6.number().positive().max(1)).min(1),
  /** The smallest readable size in points on a page 540 points high; no step goes below it. */
  minimum: z6.number().positive(),
  /** What is drawn behind the text: nothing, a rule under the title, or a coloured band on opening slides. */
  ornament: z6.enum(["none", "rule", "band"])
});
var scale = { opening: 50, title: 36, subtitle: 25, body: 28, statement: 44, number: 120, caption: 20, footer: 12 };
var steps = [1, 0.94, 0.88, 0.82, 0.76, 0.7, 0.64, 0.58];
var base = { scale, steps, minimum: 16 };
var THEMES = {
  saltmarsh: {
    ...base,
    name: "Salt marsh",
    colours: { paper: "#fbf9f4", ink: "#20302e", accent: "#0f5c63", second: "#7a2e57", muted: "#5d6a66", link: "#0f5c63" },
    fonts: { heading: "Literata", body: "Atkinson Hyperlegible Next", code: "JetBrains Mono" },
    ornament: "band"
  },
  foreshore: {
    ...base,
    name: "Foreshore",
    colours: { paper: "#ffffff", ink: "#1d2733", accent: "#9a5b13", second: "#1f5f8b", muted: "#5f6873", link: "#1f5f8b" },
    fonts: { heading: "Atkinson Hyperlegible Next", body: "Atkinson Hyperlegible Next", code: "JetBrains Mono" },
    ornament: "rule"
  },
  nightwatch: {
    ...base,
    name: "Night watch",
    colours: { paper: "#13211f", ink: "#f1ede2", accent: "#7cc6c4", second: "#e3a7c6", muted: "#a3b0ab", link: "#9fd8d6" },
    fonts: { heading: "Noto Sans", body: "Noto Sans", code: "JetBrains Mono" },
    ornament: "rule"
  },
  chalk: {
    ...base,
    name: "Chalk",
    colours: { paper: "#f4f4f0", ink: "#16181a", accent: "#16181a", second: "#b23a30", muted: "#595d60", link: "#b23a30" },
    fonts: { heading: "Literata", body: "Literata", code: "JetBrains Mono" },
    ornament: "none"
  }
};
var ThemeKey = z6.enum(Object.keys(THEMES));

// core/model/deck.ts
var Binding = z7.object({
  source: z7.string().min(1),
  range: z7.string().min(1),
  mode: z7.enum(["latest", "asked", "moment"]),
  taken: z7.string().optional()
});
var KeptShape = z7.object({ shape: z7.string().max(40), sum: z7.string().max(40), place: z7.string().max(40).optional(), text: z7.string().max(40).optional(), looks: z7.string().max(40).optional(), data: z7.boolean().optional(), more: z7.array(z7.string().max(100)).max(40).optional() });
var placed = { id: Id, slot: z7.string().max(40).nullable(), frame: Frame.optional(), binding: Binding.optional(), style: z7.string().max(40).optional(), box: TextBox.optional(), kept: KeptShape.optional(), ...Drawing };
var TextElement = z7.object({ kind: z7.literal("text"), ...placed, text: RichText, steps: z7.boolean().optional() });
var Crop = z7.object({ left: z7.number(), top: z7.number(), right: z7.number(), bottom: z7.number() });
var PictureElement = z7.object({ kind: z7.literal("picture"), ...placed, source: z7.string().min(1).max(1e3), alt: z7.string(), caption: z7.string().max(2e3).optional(), width: z7.number().min(1).max(100).optional(), crop: Crop.optional(), opacity: z7.number().min(0).max(1).optional(), recolour: z7.enum(["grey", "mono", "washout"]).optional(), shape: Geometry.optional(), link: LinkTarget.optional() });
var Cell = z7.object({ text: RichText, columns: z7.number().int().min(2).max(200).optional(), rows: z7.number().int().min(2).max(2e3).optional(), fill: Fill.optional(), anchor: z7.enum(["top", "middle", "bottom"]).optional(), insets: TextBox.shape.insets, borders: z7.object({ left: Stroke.nullable().optional(), top: Stroke.nullable().optional(), right: Stroke.nullable().optional(), bottom: Stroke.nullable().optional() }).optional() });
var Align = z7.enum(["start", "centre", "end"]);
var TableElement = z7.object({ kind: z7.literal("table"), ...placed, rows: z7.array(z7.array(Cell.nullable())).min(1), header: z7.number().int().nonnegative(), align: z7.array(Align), caption: z7.string().max(2e3).optional(), widths: z7.array(z7.number().nonnegative()).max(200).optional(), heights: z7.array(z7.number().nonnegative()).max(2e3).optional() });
var CodeElement = z7.object({ kind: z7.literal("code"), ...placed, language: z7.string().max(40), text: z7.string() });
var FormulaElement = z7.object({ kind: z7.literal("formula"), ...placed, tex: z7.string() });
var DIAGRAM_FORMS = ["steps", "cycle", "hierarchy", "pyramid", "relation"];
var DiagramForm = z7.enum(DIAGRAM_FORMS);
var DiagramElement = z7.object({ kind: z7.literal("diagram"), ...placed, form: DiagramForm, text: RichText });
var CHART_FORMS = ["column", "bar", "line", "pie", "area", "doughnut", "scatter", "combined"];
var ChartForm = z7.enum(CHART_FORMS);
var Series = z7.object({ name: z7.string(), values: z7.array(z7.number().nullable()), x: z7.array(z7.number().nullable()).optional(), form: z7.enum(["column", "line", "area"]).optional(), colour: Colour.optional(), points: z7.array(Colour.nullable()).max(2e3).optional(), joined: z7.boolean().optional(), smooth: z7.boolean().optional(), by: z7.literal("second").optional() });
var Axis = z7.object({ title: z7.string().max(500).optional(), least: z7.number().optional(), most: z7.number().optional(), reversed: z7.boolean().optional() });
var ChartLook = z7.object({ stack: z7.enum(["sum", "share"]).optional(), title: z7.string().max(1e3).optional(), legend: z7.enum(["top", "right", "bottom", "left", "none"]).optional(), labels: z7.enum(["value", "share", "category"]).optional(), format: z7.string().max(100).optional(), xAxis: Axis.optional(), yAxis: Axis.optional(), secondAxis: Axis.extend({ format: z7.string().max(100).optional() }).optional() });
var ChartElement = z7.object({ kind: z7.literal("chart"), ...placed, form: ChartForm, categories: z7.array(z7.string()), series: z7.array(Series).min(1), ...ChartLook.shape });
var ShapeElement = z7.object({ kind: z7.literal("shape"), ...placed, geometry: Geometry, text: RichText, alt: z7.string().optional(), link: LinkTarget.optional() });
var MediaElement = z7.object({ kind: z7.literal("media"), ...placed, source: z7.string().min(1).max(4e3), form: z7.enum(["video", "audio"]), poster: z7.string().min(1).max(1e3).optional(), alt: z7.string() });
var ForeignDrawing = z7.object({ width: z7.number().positive(), height: z7.number().positive(), elements: z7.array(z7.discriminatedUnion("kind", [TextElement, PictureElement, ShapeElement])).max(5e3) });
var ForeignElement = z7.object({ kind: z7.literal("foreign"), ...placed, what: z7.string().min(1).max(200), text: RichText, picture: z7.string().min(1).max(1e3).optional(), drawing: ForeignDrawing.optional(), alt: z7.string() });
var Element = z7.discriminatedUnion("kind", [TextElement, PictureElement, TableElement, CodeElement, FormulaElement, DiagramElement, ChartElement, ShapeElement, MediaElement, ForeignElement]);
var Source = z7.object({ document: z7.string(), from: z7.number().int(), to: z7.number().int(), hash: z7.string() });
var Origin = z7.object({ deck: Id, slide: Id, version: z7.number().int().nonnegative() });
var Background = z7.union([z7.object({ colour: Colour }), z7.object({ picture: z7.string().min(1).max(1e3) }), z7.object({ fill: Fill })]);
var TRANSITIONS = ["fade", "push", "wipe"];
var Transition = z7.object({ kind: z7.enum(TRANSITIONS), seconds: z7.number().min(0.1).max(10) });
var SlideLook = z7.object({ background: Background.optional(), transition: Transition.optional(), delay: z7.number().min(0.5).max(3600).optional(), widths: z7.array(z7.number().min(5).max(95)).min(2).max(3).optional(), section: z7.string().min(1).max(300).optional() });
var RegionBox = z7.object({ region: z7.enum(["footer", "number", "date"]), text: z7.string().max(500), frame: Frame, style: z7.string().max(40).optional(), box: TextBox.optional() });
var Comment = z7.object({ author: z7.string().max(300), text: z7.string().max(2e4), date: z7.string().max(40).optional() });
var KeptPart = z7.object({ file: z7.string().max(200), part: z7.string().max(500), sum: z7.string().max(40), notes: z7.string().max(40), background: z7.string().max(40), transition: z7.string().max(40), motion: z7.string().max(40).optional(), master: z7.string().max(40).optional(), shapes: z7.array(z7.string().max(40)).max(2e4) });
var Master = z7.object({ name: z7.string().max(300), background: Background.optional(), elements: z7.array(Element) });
var Slide = z7.object({
  id: Id,
  parent: Id.nullable(),
  arrangement: ArrangementName,
  elements: z7.array(Element),
  notes: RichText,
  hidden: z7.boolean(),
  source: Source.optional(),
  origin: Origin.optional(),
  /** The name of the look that it brought along from another deck; without one it has the deck's. */
  theme: z7.string().max(80).optional(),
  /** The name of what its file draws behind it. */
  master: z7.string().max(40).optional(),
  regions: z7.array(RegionBox).max(10).optional(),
  comments: z7.array(Comment).max(2e3).optional(),
  /** What moves on it in its file beside entrances, by name. */
  moves: z7.array(z7.string().max(300)).max(500).optional(),
  kept: KeptPart.optional(),
  ...SlideLook.shape
});
var MEDIA_TYPES = ["image/png", "image/jpeg", "image/gif", "image/svg+xml", "video/mp4", "video/webm", "audio/mpeg", "audio/mp4", "audio/wav", "application/zip"];
var Asset = z7.object({
  sha256: z7.string().regex(/^[0-9a-f]{64}$/),
  mediaType: z7.enum(MEDIA_TYPES),
  width: z7.number().int().positive(),
  height: z7.number().int().positive()
});
var Properties = z7.object({ title: z7.string().max(500), author: z7.string().max(500), event: z7.string().max(500), date: z7.string().max(100) });
var Regions = z7.object({ footer: z7.string().max(300), number: z7.boolean() });
var Manuscript = z7.object({ document: Id, rule: BreakRule });
var Original = z7.object({ deck: Id, version: z7.number().int().nonnegative() });
var DeckHead = z7.object({
  id: Id,
  properties: Properties,
  language: Language,
  page: Page,
  theme: Theme,
  regions: Regions,
  /** Speaking rate in words a minute. */
  rate: z7.number().min(40).max(400),
  assets: z7.record(z7.string(), Asset),
  /** The document that the slides were generated from, and the rule that cut it. */
  manuscript: Manuscript.optional(),
  /** The looks that slides brought along from other decks, by name. */
  themes: z7.record(z7.string(), Theme).optional(),
  original: Original.optional(),
  /** What files draw behind slides, and the text styles that they give, by the sum of each. */
  masters: z7.record(z7.string(), Master).optional(),
  styles: z7.record(z7.string(), TextStyle).optional()
});
var DeckShape = DeckHead.extend({ slides: z7.array(Slide) });
var Deck = DeckShape.superRefine((deck, context) => {
  for (const problem of orderProblems(deck.slides)) context.addIssue({ code: "custom", path: ["slides", problem.index], message: problem.message });
});
function orderProblems(slides) {
  const problems = [];
  const seen = /* @__PURE__ */ new Set();
  const elements = /* @__PURE__ */ new Set();
  const open = [];
  slides.forEach((slide, index) => {
    if (seen.has(slide.id)) problems.push({ index, message: `the slide id ${slide.id} is used twice` });
    seen.add(slide.id);
    while (open.length && open.at(-1) !== slide.parent) open.pop();
    if (slide.parent !== null && open.length === 0) problems.push({ index, message: `slide ${slide.id} does not follow its main slide ${slide.parent}` });
    open.push(slide.id);
    elements.clear();
    for (const { id } of slide.elements) {
      if (elements.has(id)) problems.push({ index, message: `the element id ${id} is used twice on slide ${slide.id}` });
      elements.add(id);
    }
  });
  return problems;
}

// core/model/failure.ts
var Failure = class extends Error {
  constructor(code, where, message) {
    super(message);
    this.code = code;
    this.where = where;
  }
  code;
  where;
  name = "Failure";
};

// core/model/limits.ts
var MOST = {
  /** Levels of quotations, lists and containers inside each other. */
  nesting: 50,
  /** Cells of one table, places that short rows leave empty included. */
  cells: 1e5,
  /** Columns of one table. */
  columns: 2e3,
  /** Blocks of a document: headings, paragraphs, items, tables, pictures. */
  blocks: 2e5,
  /** Slides of one file. */
  slides: 2e4,
  /** Elements on all slides of one file. */
  elements: 5e5,
  /** Elements of one part of a file in XML. */
  nodes: 2e6,
  /** Characters of one part of a file in XML. */
  partCharacters: 2e8,
  /** Pixels of one picture. */
  pixels: 64e6
};
var WORDS = {
  nesting: "levels inside each other",
  cells: "cells in one table",
  columns: "columns in one table",
  blocks: "paragraphs",
  slides: "slides",
  elements: "elements on its slides",
  nodes: "elements in one part",
  partCharacters: "characters in one part",
  pixels: "pixels in one picture"
};
function within(kind, count2, where) {
  if (count2 > MOST[kind]) throw new Failure("too-large", where, `This has more than ${MOST[kind].toLocaleString("en")} ${WORDS[kind]}, the most that is taken. Divide it, and bring in the parts.`);
}

// core/model/wellformed.ts
var graphemes = new Intl.Segmenter(void 0, { granularity: "grapheme" });
var LONGEST = 64;
function cutText(text, most) {
  if (text.length <= most) return text;
  const from = Math.max(0, most - LONGEST);
  const start = from > 0 && /[\udc00-\udfff]/.test(text[from]) ? from - 1 : from;
  const at = graphemes.segment(text.slice(start, most + LONGEST)).containing(most - start);
  const cut2 = start + (at?.index ?? most - start);
  return text.slice(0, cut2 > start ? cut2 : most).toWellFormed();
}
function withoutEnd(text, characters) {
  let end = text.length;
  while (end > 0 && characters.includes(text[end - 1])) end--;
  return text.slice(0, end);
}

// core/model/read.ts
function emptyDeck(id, title, language = "en") {
  return {
    id,
    properties: { title, author: "", event: "", date: "" },
    language,
    page: PAGES["16:9"],
    theme: THEMES.saltmarsh,
    regions: { footer: "", number: true },
    rate: 130,
    assets: {},
    slides: []
  };
}
function headOf(deck) {
  const { slides: _, ...head } = deck;
  return head;
}
function roleOf(slide, element) {
  return ARRANGEMENTS[slide.arrangement].slots[element.slot ?? ""];
}
function readingOrder(slide) {
  const slots = slotsOf(slide.arrangement).map(([slot2]) => slot2);
  const rank = (element) => element.slot !== null && slots.includes(element.slot) ? slots.indexOf(element.slot) : slots.length;
  return slide.elements.map((element, index) => ({ element, index })).sort((a, b) => rank(a.element) - rank(b.element) || a.index - b.index).map(({ element }) => element);
}
var ELEMENT_TEXTS = {
  text: ({ text }) => [text],
  picture: ({ caption }) => caption ? [plainText(caption)] : [],
  table: ({ rows, caption }) => {
    const texts = [];
    for (const row of rows) for (const cell of row) if (cell) texts.push(cell.text);
    if (caption) texts.push(plainText(caption));
    return texts;
  },
  code: () => [],
  formula: () => [],
  diagram: ({ text }) => [text],
  chart: ({ categories, series, title }) => [...title ? [plainText(title)] : [], ...categories.map(plainText), ...series.map(({ name }) => plainText(name))],
  shape: ({ text }) => [text],
  media: () => [],
  foreign: ({ text }) => [text]
};
function elementTexts(element) {
  return ELEMENT_TEXTS[element.kind](element);
}
var ELEMENT_MAPS = {
  text: (element, change) => ({ ...element, text: change(element.text) }),
  diagram: (element, change) => ({ ...element, text: change(element.text) }),
  shape: (element, change) => ({ ...element, text: change(element.text) }),
  table: (element, change) => ({ ...element, rows: element.rows.map((row) => row.map((cell) => cell && { ...cell, text: change(cell.text) })) })
};
function mapElementTexts(element, change) {
  const map = ELEMENT_MAPS[element.kind];
  return map ? map(element, change) : element;
}
function counted(slide, number) {
  if (!slide.elements.some((element) => elementTexts(element).some(countsSlide))) return slide;
  return { ...slide, elements: slide.elements.map((element) => mapElementTexts(element, (text) => onSlide(text, number))) };
}
function themeOf(slide, head) {
  return (slide.theme !== void 0 ? head.themes?.[slide.theme] : void 0) ?? head.theme;
}
function directionOf(own2, level) {
  return own2?.direction ?? (level?.direction === "rtl" ? "rtl" : void 0);
}
function wordsSize({ runs, look }, usual) {
  let most;
  for (const { text, look: own2 } of runs) if (text.trim() !== "") most = Math.max(most ?? 0, own2?.size ?? usual);
  return most ?? look?.words?.size ?? usual;
}
function isJoined({ joined }, drawn2) {
  return joined ?? drawn2 === "line";
}
var hasSecondAxis = ({ form, series }) => ["column", "line", "area", "combined"].includes(form) && series.some(({ by }) => by === "second") && series.some(({ by }) => by !== "second");

// core/model/motion.ts
var spoken = (text) => text.filter((paragraph) => !isEmptyText([paragraph]));
var mainStep = ({ level }, nth) => nth > 0 && level > 0 ? "with" : void 0;
function withSteps(text, form) {
  const said = spoken(text);
  return text.map(({ step: _, ...paragraph }, at) => {
    const step = form === "main" ? mainStep(paragraph, said.indexOf(text[at])) : void 0;
    return step ? { ...paragraph, step } : paragraph;
  });
}

// core/model/number.ts
function numberIn(text) {
  const found = /^([-+−–]?)\s*(\d[\d.,'’\u00A0\u202F ]*)\s*(?:[%‰°]|[\p{L}µ³²/]{1,6}\.?)?$/u.exec(text.trim());
  if (!found) return void 0;
  const digits = found[2].replace(/['’\u00A0\u202F ]/g, "").replace(/[.,]+$/, "");
  const last = Math.max(digits.lastIndexOf("."), digits.lastIndexOf(","));
  const mark = last >= 0 ? digits[last] : "";
  const both = digits.includes(".") && digits.includes(",");
  const many = mark !== "" && digits.split(mark).length > 2;
  const thousands = many || !both && mark === "," && /^[1-9]\d{0,2},\d{3}$/.test(digits);
  const whole = thousands || last < 0 ? digits.replace(/[.,]/g, "") : `${digits.slice(0, last).replace(/[.,]/g, "")}.${digits.slice(last + 1)}`;
  const value = Number(whole);
  return Number.isFinite(value) ? /[-−–]/.test(found[1]) ? -value : value : void 0;
}

// core/generate/draft.ts
function emptyDraft() {
  return { lines: null, mark: {}, title: null, depth: null, flow: [], slots: /* @__PURE__ */ new Map(), columns: 0, notes: [], made: [], key: "" };
}
function isEmptyDraft({ title, flow: flow2, slots }) {
  return title === null && flow2.length === 0 && slots.size === 0;
}
var strong = (text) => text.map((paragraph) => ({ ...paragraph, runs: joinRuns(paragraph.runs.map((item) => item.footnote || item.marks?.includes("formula") ? item : run(item.text, [...item.marks ?? [], "strong"], item.link))) }));
var strongOnce = /* @__PURE__ */ new WeakMap();
function subheading(text) {
  const known = strongOnce.get(text) ?? strong(text);
  strongOnce.set(text, known);
  return known;
}
function flowOfBlock(block) {
  switch (block.kind) {
    case "heading":
      return [{ kind: "text", text: subheading(block.text), lines: block.text.map(() => block.from) }];
    case "text":
      return [{ kind: "text", text: block.text, lines: block.items ?? block.text.map(() => block.from) }];
    case "quote":
      return [{ kind: "text", text: block.text, lines: block.text.map(() => block.from), quote: true }];
    case "figure":
      return [{ kind: "content", content: block.figure, line: block.from }];
    case "picture":
      return [{ kind: "content", content: block.picture, line: block.from }];
    default:
      return [];
  }
}
var COLUMN_NAMES = ["left", "middle", "right"];
function identity(block) {
  if ("text" in block) return block.text;
  if (block.kind === "figure") return block.figure;
  if (block.kind === "picture") return block.picture;
  if (block.kind === "mark") return block.mark;
  return block;
}
function addBlock(draft, block, depth) {
  draft.lines = { from: draft.lines?.from ?? block.from, to: Math.max(draft.lines?.to ?? 0, block.to) };
  if (block.kind === "slot") for (const inner of block.blocks) draft.made.push(identity(inner));
  else draft.made.push(identity(block));
  draft.key += `${block.kind}${block.kind === "heading" ? depth : ""}${block.kind === "slot" ? `${block.slot}/${block.width ?? ""}/${block.steps ?? ""}/${block.blocks.map(({ kind }) => kind).join()}` : ""};`;
  switch (block.kind) {
    case "heading":
      if (draft.title === null && draft.flow.length === 0) {
        draft.title = block.text;
        draft.depth = depth;
      } else draft.flow.push(...flowOfBlock(block));
      break;
    case "notes":
      draft.notes = [...draft.notes, ...block.text];
      break;
    case "slot": {
      const name = block.slot === "column" ? COLUMN_NAMES[Math.min(2, draft.columns++)] : block.slot;
      const held = draft.slots.get(name) ?? { flow: [], ...block.width ? { width: block.width } : {} };
      for (const inner of block.blocks) {
        if (inner.kind === "notes") draft.notes = [...draft.notes, ...inner.text];
        else held.flow.push(...flowOfBlock(inner).map((flow2) => flow2.kind === "text" && block.steps ? { ...flow2, steps: block.steps } : flow2));
      }
      draft.slots.set(name, held);
      break;
    }
    case "mark":
      draft.mark = { ...draft.mark, ...block.mark };
      break;
    default:
      draft.flow.push(...flowOfBlock(block));
  }
}
function settledColumns(draft) {
  if (draft.columns !== 2) return draft;
  const middle = draft.slots.get("middle");
  if (!middle) return draft;
  const slots = new Map([...draft.slots].map(([name, held]) => [name === "middle" ? "right" : name, held]));
  return { ...draft, slots };
}
function lookOfDraft({ mark, slots }) {
  const { background, transition, delay, section } = mark;
  const given = ["left", "middle", "right"].flatMap((name) => slots.has(name) ? [slots.get(name)?.width] : []);
  const known = given.filter((width) => width !== void 0);
  const spare = given.length - known.length ? Math.max(5, (100 - known.reduce((sum, width) => sum + width, 0)) / (given.length - known.length)) : 0;
  const widths = mark.widths ?? (known.length && given.length > 1 ? given.map((width) => width ?? spare) : void 0);
  return { ...background ? { background } : {}, ...transition ? { transition } : {}, ...delay ? { delay } : {}, ...widths ? { widths } : {}, ...section ? { section } : {} };
}

// core/generate/cut.ts
var splitOnce = /* @__PURE__ */ new WeakMap();
function kept(block, make) {
  const known = splitOnce.get(block.text);
  if (known?.[0]?.from === block.from) return known;
  const made = known ? known.map((piece) => ({ ...piece, from: piece.from + block.from - (known[0]?.from ?? 0), to: piece.to + block.from - (known[0]?.from ?? 0) })) : make();
  splitOnce.set(block.text, made);
  return made;
}
function paragraphs(block) {
  if (block.kind !== "text" || block.text.length < 2 || block.text.some(({ kind }) => kind !== "plain")) return [block];
  return kept(block, () => block.text.map((paragraph) => ({ kind: "text", text: [paragraph], from: block.from, to: block.to })));
}
function lines(block) {
  if (block.kind !== "text") return [block];
  return kept(
    block,
    () => block.text.flatMap((paragraph, nth) => {
      const from = block.items?.[nth] ?? block.from;
      const parts = [[]];
      for (const item of paragraph.runs) {
        item.text.split("\n").forEach((text, at) => {
          if (at) parts.push([]);
          if (text || item.footnote) parts.at(-1)?.push({ ...item, text });
        });
      }
      return parts.filter((runs) => runs.length).map((runs, at) => ({ kind: "text", text: [{ kind: "plain", level: 0, runs }], from: from + (block.items ? 0 : at), to: from + (block.items ? 0 : at) }));
    })
  );
}
var announces = (draft) => {
  const last = draft.flow.at(-1);
  return last?.kind === "text" && /[:：]\s*$/.test(paragraphText(last.text.at(-1) ?? { kind: "plain", level: 0, runs: [] }));
};
var isList = (block) => block.kind === "text" && block.text[0]?.kind !== "plain";
var pictured = (draft) => draft.flow.some((flow2) => flow2.kind === "content" && flow2.content.kind === "picture");
var CUTTERS = {
  heading: {
    starts: (block, draft, { section, slide }) => block.kind === "heading" && block.depth <= Math.max(section, slide) && !isEmptyDraft(draft)
  },
  paragraph: {
    pieces: paragraphs,
    starts: (block, draft) => {
      if (block.kind === "heading") return !isEmptyDraft(draft);
      if (!["text", "quote", "figure", "picture"].includes(block.kind) || draft.flow.length === 0) return false;
      if (isList(block) || block.kind === "figure") return !announces(draft);
      return block.kind !== "picture" || pictured(draft);
    }
  },
  line: {
    pieces: lines,
    starts: (block, draft) => ["heading", "text", "quote", "figure"].includes(block.kind) && !isEmptyDraft(draft)
  },
  mark: { starts: () => false }
};
var cutter = (cut2) => CUTTERS[cut2.kind];
var inheritsTitle = (rule) => rule.cuts.some(({ kind }) => kind === "paragraph") && !rule.cuts.some(({ kind }) => kind === "line");
var FEW = 9;
function* drafts(blocks, rule, problems, typed) {
  const headings = rule.cuts.find((cut2) => cut2.kind === "heading");
  const alone = !typed && rule.cuts.every(({ kind }) => kind === "heading" || kind === "mark");
  let cuts = rule.cuts;
  let waiting = alone && headings ? [] : void 0;
  let current = emptyDraft();
  let joined = false;
  let first = true;
  let heading;
  function* take(block) {
    if (block.kind === "join") {
      joined = true;
      return;
    }
    const pieces = cuts.reduce((list, cut2) => list.flatMap((piece) => cutter(cut2).pieces?.(piece) ?? [piece]), [block]);
    for (const piece of pieces) {
      const marked = piece.kind === "break" || piece.kind === "mark" && current.lines !== null;
      const cut2 = marked || !joined && cuts.some((one) => cutter(one).starts(piece, current, one));
      if (cut2) {
        if (current.lines) {
          yield settledColumns(current);
          first = false;
        }
        current = emptyDraft();
        if (piece.kind !== "break" && piece.kind !== "mark" && piece.kind !== "heading" && heading && inheritsTitle(rule)) addHeading(heading.text);
      }
      if (piece.kind === "break") {
        heading = void 0;
        continue;
      }
      if (piece.kind === "heading") heading = { text: piece.text, block: piece };
      joined = false;
      addBlock(current, piece, depthOf(piece));
    }
  }
  function addHeading(text) {
    current.title = text;
    current.depth = 2;
    current.made.push(text);
    current.key += "inherited;";
  }
  function depthOf(block) {
    if (block.kind !== "heading") return 2;
    const level = headings ? Math.max(headings.section, first ? 1 : 0) : 1;
    return block.depth <= level ? 1 : 2;
  }
  for (const block of blocks) {
    if (!waiting) {
      if (block.kind === "heading") cuts = rule.cuts;
      yield* take(block);
      continue;
    }
    waiting.push(block);
    if (block.kind === "heading" || block.kind === "break") {
      for (const held of waiting.splice(0)) yield* take(held);
      waiting = void 0;
    } else if (waiting.length === FEW) {
      problems.push({ line: waiting[0]?.from ?? 1, message: "The text does not begin with a heading that the rule could cut at; up to the first one each paragraph became a slide." });
      cuts = [...rule.cuts, { kind: "paragraph" }];
      for (const held of waiting.splice(0)) yield* take(held);
      waiting = void 0;
    }
  }
  for (const held of waiting ?? []) yield* take(held);
  if (current.lines) yield settledColumns(current);
}

// core/text/directives.ts
var ALIGN = { left: "start", right: "end", center: "centre", start: "start", end: "end", centre: "centre" };
var DIRECTIVES = {
  slide: ({ at, attributes, say }) => [{ kind: "mark", mark: slideMark(attributes, say), ...at }],
  join: ({ at }) => [{ kind: "join", ...at }],
  notes: ({ at, inner, say }) => {
    const blocks = inner();
    const text = blocks.flatMap((block) => {
      if (block.kind === "text" || block.kind === "heading" || block.kind === "quote") return block.text;
      if (block.kind === "figure" && block.figure.kind === "code") return block.figure.text.split("\n").map((line2) => ({ kind: "plain", level: 0, runs: line2 ? [run(line2, ["code"])] : [] }));
      return [];
    });
    if (blocks.some(({ kind }) => kind === "picture")) say("A picture in the notes is left out; notes hold text.");
    if (blocks.some((block) => block.kind === "figure" && block.figure.kind !== "code")) say("A table or formula in the notes is left out; notes hold text.");
    return [{ kind: "notes", text, ...at }];
  },
  slot: (place) => slot(place),
  column: (place) => slot(place, "column"),
  align: ({ at, attributes, inner, say }) => {
    const to = ALIGN[attributes.to ?? ""];
    if (!to) say("An alignment is start, centre or end, as in :::align{to=centre}.");
    const blocks = inner();
    return blocks.map((block, nth) => {
      const lines2 = { from: nth ? block.from : at.from, to: nth < blocks.length - 1 ? block.to : at.to };
      return to && (block.kind === "text" || block.kind === "quote" || block.kind === "heading") ? { ...block, ...lines2, text: block.text.map((paragraph) => ({ ...paragraph, align: to })) } : { ...block, ...lines2 };
    });
  },
  table: ({ at, attributes, inner }) => {
    const header = Number(attributes.header ?? 1);
    return inner().map((block) => {
      if (block.kind !== "figure" || block.figure.kind !== "table") return block;
      const { figure } = block;
      return { ...block, ...at, figure: { ...figure, header: Number.isInteger(header) && header >= 0 && figure.header ? Math.min(header, figure.rows.length) : figure.header, ...attributes.caption ? { caption: attributes.caption } : {} } };
    });
  },
  diagram: ({ at, attributes, inner, say }) => {
    const form = DIAGRAM_FORMS.find((name) => name === (attributes.kind ?? "steps"));
    const blocks = inner();
    const text = blocks.flatMap((block) => block.kind === "text" ? block.text : []);
    if (!form || !text.length || blocks.some(({ kind }) => kind !== "text")) {
      say(`A diagram is drawn from a list and its kind is one of ${DIAGRAM_FORMS.join(", ")}; what it holds is kept as text.`);
      return blocks;
    }
    return [{ kind: "figure", figure: { kind: "diagram", form, text }, ...at }];
  },
  chart: ({ at, attributes, inner, say }) => {
    const form = CHART_FORMS.find((name) => name === (attributes.kind ?? "column"));
    const blocks = inner();
    const table = blocks.find((block) => block.kind === "figure" && block.figure.kind === "table");
    const figure = form && table?.kind === "figure" && table.figure.kind === "table" ? chartOf(table.figure, form) : void 0;
    if (!figure) say(`A chart is drawn from a table with a row of names and columns of numbers, and its kind is one of ${CHART_FORMS.join(", ")}; what it holds is kept.`);
    return figure ? [{ kind: "figure", figure, ...at }, ...blocks.filter((block) => block !== table)] : blocks;
  }
};
function readDirective(node, place) {
  const known = Object.hasOwn(DIRECTIVES, node.name) ? DIRECTIVES[node.name] : void 0;
  if (known) return known({ ...place, attributes: node.attributes ?? {} });
  place.say(`\u201C${node.name}\u201D is not a directive of this text form. Known are ${Object.keys(DIRECTIVES).join(", ")}; what it holds is kept.`);
  return place.inner();
}
function slot({ at, attributes, inner, say }, otherwise) {
  const width = Number(attributes.width?.replace(/%$/, "") ?? Number.NaN);
  const name = attributes.name ?? otherwise;
  if (name) return [{ kind: "slot", slot: name, ..."steps" in attributes ? { steps: attributes.steps === "main" ? "main" : true } : {}, ...width >= 5 && width <= 95 ? { width } : {}, blocks: inner(), ...at }];
  say("A slot needs a name, as in :::slot{name=right}; its text is kept in the body.");
  return inner();
}
function slideMark(attributes, say) {
  const mark = {};
  let seconds = 0.5;
  let kind;
  for (const [key, value] of Object.entries(attributes)) {
    const said = value ?? "";
    const transition = TRANSITIONS.find((name) => name === said);
    const numbers = said.split(/[\s,]+/).map(Number);
    if (key === "id" && said) mark.id = said;
    else if (key === "arrangement" && said) mark.arrangement = said;
    else if (key === "hidden") mark.hidden = said !== "false";
    else if (key === "steps") mark.steps = said === "main" ? said : said !== "false";
    else if (key === "level" && /^[0-8]$/.test(said)) mark.level = Number(said);
    else if (key === "background" && /^#[0-9a-f]{6}$/i.test(said)) mark.background = { colour: said.toLowerCase() };
    else if (key === "background" && said && !said.startsWith("#")) mark.background = { picture: said };
    else if (key === "transition" && transition) kind = transition;
    else if (key === "seconds" && Number(said) >= 0.1 && Number(said) <= 10) seconds = Number(said);
    else if (key === "delay" && Number(said) >= 0.5 && Number(said) <= 3600) mark.delay = Number(said);
    else if (key === "widths" && (numbers.length === 2 || numbers.length === 3) && numbers.every((width) => width >= 5 && width <= 95)) mark.widths = numbers;
    else if (key === "section" && said.trim() && said.length <= 300) mark.section = said;
    else say(`A slide has no \u201C${key}${said ? `=${said}` : ""}\u201D. Known are #id, arrangement, hidden, level from 0 to 8, steps, steps=main, background, transition (${TRANSITIONS.join(", ")}), seconds, delay, widths and section.`);
  }
  return kind ? { ...mark, transition: { kind, seconds } } : mark;
}
function chartOf(table, form) {
  const words2 = table.rows.map((row) => row.map((cell) => cell ? textOf(cell.text).replace(/\s+/g, " ").trim() : ""));
  const [head, ...body] = table.header ? words2 : [[], ...words2];
  if (!body.length || table.header > 1) return void 0;
  const columns = Math.max(...words2.map(({ length }) => length));
  const series = Array.from({ length: columns - 1 }, (_, at) => ({ name: head?.[at + 1] ?? "", values: body.map((row) => row[at + 1] ? numberIn(row[at + 1]) ?? Number.NaN : null) }));
  const valid = series.length > 0 && series.every(({ values }) => values.every((value) => value === null || !Number.isNaN(value)) && values.some((value) => value !== null));
  const categories = body.map(([name]) => name ?? "");
  const places = form === "scatter" ? categories.map((name) => numberIn(name) ?? Number.NaN) : [];
  if (form === "scatter" && valid && !places.some(Number.isNaN)) return { kind: "chart", form, categories: [], series: series.map((one) => ({ ...one, x: places })) };
  return valid ? { kind: "chart", form, categories, series } : void 0;
}

// core/text/manuscript.ts
import { z as z8 } from "zod";
var FrontMatter = z8.object({
  title: z8.string().optional(),
  author: z8.string().optional(),
  event: z8.string().optional(),
  date: z8.string().optional(),
  language: z8.string().optional(),
  theme: z8.string().optional(),
  page: z8.string().optional(),
  footer: z8.string().optional(),
  numbers: z8.boolean().optional(),
  rate: z8.number().optional(),
  titleSlide: z8.boolean().optional()
});
function linkTarget(url) {
  const target = url.startsWith("#") && url.length > 1 ? `slide:${url.slice(1)}` : url;
  const encoded = target.replace(/\s/g, "%20");
  return LinkTarget.safeParse(encoded).success ? encoded : void 0;
}

// core/text/front.ts
import { parse, stringify } from "yaml";
var KEYS = Object.keys(FrontMatter.shape).join(", ");
function readFront(lines2) {
  const end = lines2[0]?.trimEnd() === "---" ? lines2.findIndex((line2, index) => index > 0 && line2.trimEnd() === "---") : -1;
  if (end < 0) return { front: {}, next: 0, problems: [] };
  const problems = [];
  let value;
  try {
    value = parse(lines2.slice(1, end).join("\n")) ?? {};
  } catch (error) {
    const line2 = 2 + ((error.linePos?.[0]?.line ?? 1) - 1);
    return { front: {}, next: end + 1, problems: [{ line: line2, message: "The properties at the top are not in the form \u201Ckey: value\u201D; they are passed over." }] };
  }
  if (typeof value !== "object" || value === null || Array.isArray(value)) {
    if (lines2.slice(1, end).every((line2) => line2.trim() === "")) return { front: {}, next: end + 1, problems };
    return { front: {}, next: 0, problems };
  }
  const front = {};
  for (const [key, given] of Object.entries(value)) {
    const line2 = lines2.findIndex((text) => text.startsWith(`${key}:`)) + 1;
    const schema = FrontMatter.shape[key];
    const plain3 = typeof given === "number" && key !== "rate" ? String(given) : given instanceof Date ? given.toISOString().slice(0, 10) : given;
    if (!schema) problems.push({ line: line2, message: `\u201C${key}\u201D is not a property of a deck. Known are ${KEYS}.` });
    else if (schema.safeParse(plain3).success) front[key] = plain3;
    else problems.push({ line: line2, message: `\u201C${key}\u201D cannot be ${JSON.stringify(given)}; it is passed over.` });
  }
  return { front, next: end + 1, problems };
}

// core/text/nesting.ts
var MARK = /[ \t]*(?:(>)|([-*+])(?=[ \t])|(\d{1,9})([.)])(?=[ \t]))/y;
var DEEP = new RegExp(`^(?:[ \\t]*(?:>|[-*+]|\\d{1,9}[.)])){${MOST.nesting + 1}}`);
var FENCE = /^ {0,3}(`{3,}|~{3,})/;
var CONTAINER = /^[ \t>]*(:{3,})[ \t]*(.*)$/;
var BREAK = /^[ \t]*(?:(?:-[ \t]*){3,}|(?:\*[ \t]*){3,}|(?:_[ \t]*){3,})$/;
var INDENT = MOST.nesting * 4;
var INLINE = /[*_~]+|\[/g;
var MOST_INLINE = 1e3;
var BEGINS = /^[ \t]*(?:$|>|[-*+][ \t]|\d{1,9}[.)][ \t]|#{1,6}[ \t]|\|)/;
function escaped(line2) {
  MARK.lastIndex = 0;
  let at = 0;
  for (let level = 0; level < MOST.nesting; level++) {
    if (!MARK.test(line2)) return line2;
    at = MARK.lastIndex;
  }
  const next2 = MARK.exec(line2);
  if (!next2) return line2;
  const mark = at + next2[0].length - 1;
  return `${line2.slice(0, mark)}\\${line2.slice(mark)}`;
}
function boundNesting(lines2) {
  let changed;
  const problems = [];
  const replace = (at, line2) => {
    changed ??= lines2.slice();
    changed[at] = line2;
    if (!problems.length) problems.push({ line: at + 1, message: `This stands more than ${MOST.nesting} levels deep; what is deeper is kept as text.` });
  };
  let fence;
  let containers = 0;
  for (const [at, line2] of lines2.entries()) {
    const mark = FENCE.exec(line2)?.[1];
    if (fence !== void 0) {
      if (mark && mark[0] === fence[0] && mark.length >= fence.length && line2.trim() === mark) fence = void 0;
      continue;
    }
    if (mark) {
      fence = mark;
      continue;
    }
    if (DEEP.test(line2) && !BREAK.test(line2)) replace(at, escaped(line2));
    else if (line2.length > INDENT && line2.slice(0, INDENT).trim() === "" && line2.trim() !== "") replace(at, `${" ".repeat(INDENT)}${line2.trimStart()}`);
    const container = line2.includes(":::") ? CONTAINER.exec(line2) : null;
    if (!container) continue;
    const opens = container[2] !== "";
    if (opens) containers += 1;
    if (containers > MOST.nesting) replace(at, line2.replace(":", "\\:"));
    if (!opens && containers > 0) containers -= 1;
  }
  return { lines: changed ?? lines2, problems };
}
function isCrowded(text) {
  let marks = 0;
  for (const line2 of text.split("\n")) {
    if (BEGINS.test(line2)) marks = 0;
    marks += line2.match(INLINE)?.length ?? 0;
    if (marks > MOST_INLINE) return true;
  }
  return false;
}

// core/text/html.ts
import { fromHtml } from "hast-util-from-html";

// core/text/inline.ts
var WIDTH = /^\{width=(\d{1,3})%?\}/;
var TAGS = { b: "strong", strong: "strong", i: "emphasis", em: "emphasis", cite: "emphasis", s: "strike", del: "strike", strike: "strike", code: "code", kbd: "code", tt: "code", samp: "code" };
function isFormula(value, after) {
  return value !== "" && !/^\s|\s$/.test(value) && !/^\d/.test(after);
}
var isBlank = (code) => code === 32 || code === 9;
function withoutMargins(text, between) {
  if (!text.includes("\n")) return text;
  const lines2 = text.split(/\r?\n/);
  return lines2.map((line2, nth) => {
    let [from, to] = [0, line2.length];
    if (nth > 0) while (from < to && isBlank(line2.charCodeAt(from))) from++;
    if (nth < lines2.length - 1) while (to > from && isBlank(line2.charCodeAt(to - 1))) to--;
    return line2.slice(from, to);
  }).join(between);
}
function resolved(node, into) {
  if (node.type !== "linkReference" && node.type !== "imageReference") return node;
  const defined = into.definition(node.identifier);
  if (!defined) return node;
  return node.type === "linkReference" ? { ...node, type: "link", url: defined.url } : { ...node, type: "image", ...defined };
}
function inlineRuns(nodes, into) {
  const runs = [];
  const tags = [];
  const tagged = (marks) => [...marks, ...tags.flatMap((tag) => TAGS[tag] ?? [])];
  const walk = (children, marks, link) => {
    children.forEach((given, at) => {
      const node = resolved(given, into);
      const line2 = node.position?.start.line ?? 1;
      switch (node.type) {
        case "text": {
          if (tags.includes("script") || tags.includes("style")) break;
          let { value } = node;
          const before = children[at - 1];
          const shown = before?.type === "link" && before.children.length === 1 ? before.children[0] : before;
          const width = shown?.type === "image" ? WIDTH.exec(value) : null;
          const last = into.pictures.at(-1);
          if (width && last) {
            const { link: to, ...rest } = last.picture;
            last.picture = { ...rest, width: Math.min(100, Math.max(1, Number(width[1]))), ...to ? { link: to } : {} };
            value = value.slice(width[0].length);
          }
          runs.push(run(withoutMargins(value, into.lines ? "\n" : " "), tagged(marks), link));
          break;
        }
        case "inlineMath": {
          const { value } = node;
          const next2 = children[at + 1];
          const length = (node.position?.end.offset ?? 0) - (node.position?.start.offset ?? 0);
          const dollars = Math.max(1, Math.round((length - value.length) / 2));
          if (dollars > 1 || isFormula(value, next2?.type === "text" ? next2.value : "")) runs.push(run(value.replace(/\s+/g, " ").trim(), ["formula"], link));
          else runs.push(run(`$${value}$`.replace(/\s+/g, " "), tagged(marks), link));
          break;
        }
        case "strong":
        case "emphasis":
          walk(node.children, [...marks, node.type], link);
          break;
        case "delete":
          walk(node.children, [...marks, "strike"], link);
          break;
        case "inlineCode":
          runs.push(run(node.value, [...marks, "code"], link));
          break;
        case "break":
          runs.push(run("\n", marks, link));
          break;
        case "link": {
          const { url, children: inner } = node;
          const target = linkTarget(url);
          if (!target) into.problems.push({ line: line2, message: `The link to \u201C${url}\u201D leads nowhere that a slide can open; its words are kept. Use a full address, or #ID for a slide.` });
          walk(inner, marks, target ?? link);
          break;
        }
        case "image": {
          const { url, alt, title } = node;
          if (url) into.pictures.push({ picture: { kind: "picture", source: cutText(url, 1e3), alt: alt ?? "", ...title ? { caption: cutText(title.replace(/\s+/g, " "), 2e3) } : {}, ...link ? { link } : {} }, line: line2 });
          else if (alt) runs.push(run(alt, tagged(marks), link));
          break;
        }
        case "html": {
          const tag = /^<(\/?)([a-z][a-z0-9-]*)[\s/>]/i.exec(node.value);
          const name = tag?.[2]?.toLowerCase() ?? "";
          if (name === "br") runs.push(run("\n", marks, link));
          else if (tag?.[1]) tags.splice(tags.lastIndexOf(name), tags.includes(name) ? 1 : 0);
          else if (tag && !/\/>$/.test(node.value)) tags.push(name);
          break;
        }
        case "footnoteReference": {
          const noted = into.footnote(node.identifier);
          if (noted) runs.push(footnote(noted));
          break;
        }
        default:
          if ("children" in node) walk(node.children, marks, link);
      }
    });
  };
  walk(nodes, [], void 0);
  return trimmed(joinRuns(runs));
}
function trimmed(runs) {
  const result = runs.map((item) => ({ ...item }));
  const isCode = (item) => item.marks?.includes("code") || item.footnote || item.marks?.includes("formula");
  if (!result.some((item) => isCode(item) || /\S/.test(item.text))) return [];
  result.forEach((item, index) => {
    if (isCode(item)) return;
    item.text = withoutMargins(item.text, "\n");
    if (index > 0 && result[index - 1]?.text.endsWith("\n")) item.text = item.text.replace(/^[ \t]+/, "");
  });
  while (result[0] && !isCode(result[0])) {
    result[0].text = result[0].text.replace(/^[ \t\n\r\f]+/, "");
    if (result[0].text !== "") break;
    result.shift();
  }
  while (result.length) {
    const last = result[result.length - 1];
    if (isCode(last)) break;
    last.text = withoutEnd(last.text, " 	\n\r\f");
    if (last.text !== "") break;
    result.pop();
  }
  return joinRuns(result);
}

// core/text/html.ts
var SKIPPED = /* @__PURE__ */ new Set(["script", "style", "template", "noscript", "head", "title", "meta", "link", "svg", "canvas", "iframe", "object", "audio", "video", "button", "select", "textarea", "input", "nav"]);
var BLOCKS = /* @__PURE__ */ new Set(["p", "div", "section", "article", "main", "header", "footer", "aside", "h1", "h2", "h3", "h4", "h5", "h6", "ul", "ol", "li", "dl", "dt", "dd", "table", "pre", "blockquote", "figure", "hr", "form", "fieldset", "address", "details", "summary", "body", "html", "center", "tr", "td", "th", "tbody", "thead", "tfoot", "caption"]);
var MARKS2 = { b: "strong", strong: "strong", i: "emphasis", em: "emphasis", cite: "emphasis", var: "emphasis", s: "strike", del: "strike", strike: "strike", code: "code", kbd: "code", tt: "code", samp: "code" };
var NONE = { marks: [], link: void 0, pre: false };
var isElement = (node) => node.type === "element";
var classes = (node) => Array.isArray(node.properties.className) ? node.properties.className.join(" ") : "";
var styleOf = (node) => String(node.properties.style ?? "").toLowerCase();
function textIn(node) {
  if (node.type === "text") return node.value;
  return "children" in node ? node.children.map(textIn).join("") : "";
}
function find(node, test) {
  if (isElement(node) && test(node)) return node;
  for (const child of "children" in node ? node.children : []) {
    const found = find(child, test);
    if (found) return found;
  }
  return void 0;
}
function marksOf(node, marks) {
  const style = styleOf(node);
  const own2 = new Set(marks);
  const mark = MARKS2[node.tagName];
  if (mark) own2.add(mark);
  const weight = /font-weight:\s*(\w+)/.exec(style)?.[1];
  if (weight === "bold" || Number(weight) >= 600) own2.add("strong");
  else if (weight && node.tagName !== "strong") own2.delete("strong");
  if (/font-style:\s*(italic|oblique)/.test(style)) own2.add("emphasis");
  else if (/font-style:\s*normal/.test(style)) own2.delete("emphasis");
  if (/text-decoration[^;]*line-through/.test(style)) own2.add("strike");
  return [...own2];
}
var mathElement = (node) => ({
  name: node.tagName,
  local: node.tagName.slice(node.tagName.indexOf(":") + 1),
  attributes: Object.fromEntries(Object.entries(node.properties).map(([name, value]) => [name, String(value)])),
  children: node.children.flatMap((child) => isElement(child) ? [mathElement(child)] : []),
  text: node.children.map((child) => child.type === "text" ? child.value : "").join("")
});
var HtmlReader = class _HtmlReader {
  constructor(root, math2) {
    this.root = root;
    this.math = math2;
    const look = (node) => {
      if (isElement(node)) {
        const id = String(node.properties.id ?? "");
        const type = String(node.properties.role ?? "");
        if (id && (type === "doc-endnote" || type === "doc-footnote" || /^(fn|ftn|_ftn|_edn|footnote|cite_note|user-content-fn)[-_:]?\w*/i.test(id)) && !/ref/i.test(id)) this.notes.set(id, node);
      }
      for (const child of "children" in node ? node.children : []) look(child);
    };
    look(root);
  }
  root;
  math;
  blocks = [];
  waiting = [];
  notes = /* @__PURE__ */ new Map();
  line = 1;
  read() {
    for (const node of this.root.children) this.node(node, NONE);
    this.flush();
    return this.blocks;
  }
  push(block) {
    this.blocks.push({ ...block, from: this.line, to: this.line });
  }
  /** What was gathered as loose words becomes a paragraph. */
  flush(align) {
    const runs = trimmed(joinRuns(this.waiting.filter(({ link }) => link !== "note")));
    this.waiting = [];
    if (runs.length) this.push({ kind: "text", text: [{ kind: "plain", level: 0, ...align ? { align } : {}, runs }] });
  }
  node(node, context) {
    if (node.type === "text") {
      this.waiting.push(run(context.pre ? node.value : node.value.replace(/[\s]+/g, " ").replace(/\u00a0/g, "\xA0"), context.marks, context.link));
      return;
    }
    if (!isElement(node) || SKIPPED.has(node.tagName) || "hidden" in node.properties || /display:\s*none|mso-hide:\s*all/.test(styleOf(node)) || this.isNote(node)) return;
    this.line = node.position?.start.line ?? this.line;
    const { tagName } = node;
    if (/^h[1-6]$/.test(tagName)) return this.heading(node, Number(tagName[1]));
    if (tagName === "br") {
      this.waiting.push(run("\n", context.marks, context.link));
      return;
    }
    if (tagName === "img") return this.picture(node, void 0, context.link);
    if (tagName === "hr") {
      this.flush();
      return this.push({ kind: "break" });
    }
    if (tagName === "math") return this.formula(node, context);
    if (tagName === "table") return this.table(node);
    if (tagName === "pre") return this.code(node);
    if (tagName === "blockquote") return this.quote(node);
    if (tagName === "figure") return this.figure(node);
    if (tagName === "ul" || tagName === "ol" || tagName === "dl") {
      this.flush();
      const { text, after } = this.list(node, 0, context);
      if (text.length) this.push({ kind: "text", text });
      this.blocks.push(...after);
      return;
    }
    if (tagName === "p" && /mso-list:/.test(styleOf(node))) return this.officeItem(node, context);
    const inner = this.inside(node, context);
    if (BLOCKS.has(tagName)) {
      this.flush();
      const outline = /mso-outline-level:\s*(\d)/.exec(styleOf(node))?.[1];
      const title = /\bMsoTitle\b/.test(classes(node));
      if (tagName === "p" && (outline || title)) return this.heading(node, title ? 1 : Number(outline));
      for (const child of node.children) this.node(child, inner);
      const align = /text-align:\s*(center|right)/.exec(`${styleOf(node)};text-align:${String(node.properties.align ?? (tagName === "center" ? "center" : ""))}`)?.[1];
      this.flush(align === "center" ? "centre" : align === "right" ? "end" : void 0);
      return;
    }
    for (const child of node.children) this.node(child, inner);
  }
  isNote(node) {
    const id = String(node.properties.id ?? "");
    return id !== "" && this.notes.get(id) === node || /\bfootnotes\b|\bdoc-endnotes\b/.test(`${classes(node)} ${String(node.properties.role ?? "")}`) && this.notes.size > 0;
  }
  inside(node, context) {
    if (node.tagName === "a") {
      const href = String(node.properties.href ?? "");
      const note = href.startsWith("#") ? this.notes.get(href.slice(1)) : void 0;
      if (note) {
        this.waiting.push(footnote(this.noteRuns(note)));
        return { ...context, link: "note" };
      }
      return { ...context, link: href.startsWith("#") ? context.link : linkTarget(href) ?? context.link, marks: marksOf(node, context.marks) };
    }
    return { ...context, marks: marksOf(node, context.marks) };
  }
  noteRuns(note) {
    const back = (node) => "children" in node ? { ...node, children: node.children.filter((child) => !(isElement(child) && child.tagName === "a" && /^#.*ref/i.test(String(child.properties.href ?? "")))).map((child) => back(child)) } : node;
    const reader = new _HtmlReader({ type: "root", children: back(note).children }, this.math);
    const texts = reader.read().flatMap((block) => "text" in block ? block.text : []);
    return texts.flatMap(({ runs }, at) => [...at ? [run(" ")] : [], ...runs]).map(({ text, marks, link }) => run(at0(text), marks, link));
  }
  inline(node, context = NONE) {
    const outer = this.waiting;
    this.waiting = [];
    for (const child of node.children) this.inlineNode(child, context);
    const runs = trimmed(joinRuns(this.waiting.filter(({ link }) => link !== "note")));
    this.waiting = outer;
    return runs;
  }
  inlineNode(node, context) {
    if (isElement(node) && BLOCKS.has(node.tagName) && !["table", "pre"].includes(node.tagName)) {
      if (this.waiting.some(({ text }) => text.trim() !== "") && !this.waiting.at(-1)?.text.endsWith("\n")) this.waiting.push(run("\n"));
      for (const child of node.children) this.inlineNode(child, this.inside(node, context));
      return;
    }
    if (isElement(node) && !SKIPPED.has(node.tagName) && !["img", "br", "math", "hr", "table", "pre"].includes(node.tagName)) {
      const inner = this.inside(node, context);
      for (const child of node.children) this.inlineNode(child, inner);
      return;
    }
    this.node(node, context);
  }
  heading(node, depth) {
    this.flush();
    const { line: line2 } = this;
    const runs = this.inline(node).map((item) => item.text.includes("\n") ? { ...item, text: item.text.replace(/\n/g, " ") } : item);
    if (runs.length) this.blocks.push({ kind: "heading", depth: Math.min(6, Math.max(1, depth)), text: [{ kind: "plain", level: 0, runs }], from: line2, to: line2 });
  }
  picture(node, caption, link) {
    const source = String(node.properties.src ?? "");
    const alt = String(node.properties.alt ?? "");
    if (!source) {
      if (alt) this.waiting.push(run(alt));
      return;
    }
    const width = /^(\d+)%$/.exec(String(node.properties.width ?? ""))?.[1];
    this.flush();
    this.push({ kind: "picture", picture: { kind: "picture", source, alt, ...caption ? { caption: cutText(caption, 2e3) } : {}, ...width ? { width: Math.min(100, Math.max(1, Number(width))) } : {}, ...link ? { link } : {} } });
  }
  figure(node) {
    this.flush();
    const captionNode = find(node, ({ tagName }) => tagName === "figcaption");
    const image = find(node, ({ tagName }) => tagName === "img");
    const caption = captionNode ? textIn(captionNode).replace(/\s+/g, " ").trim() : void 0;
    const table = find(node, ({ tagName }) => tagName === "table");
    if (table && !image) return this.table(table, caption);
    if (image) return this.picture(image, caption);
    for (const child of node.children) this.node(child, NONE);
    this.flush();
  }
  formula(node, context) {
    const annotation = find(node, ({ tagName, properties }) => tagName === "annotation" && /x-tex/i.test(String(properties.encoding ?? "")));
    const tex = annotation ? textIn(annotation).trim() : this.math?.(mathElement(node)).replace(/\s+/g, " ").trim() ?? "";
    if (!tex) {
      this.waiting.push(run(textIn(node).replace(/\s+/g, " ").trim(), context.marks, context.link));
      return;
    }
    if (node.properties.display === "block") {
      this.flush();
      this.push({ kind: "figure", figure: { kind: "formula", tex } });
    } else this.waiting.push(run(tex, ["formula"], context.link));
  }
  code(node) {
    this.flush();
    const language = /(?:language|lang|highlight-source)-([\w+#-]+)/.exec(`${classes(node)} ${node.children.map((child) => isElement(child) ? classes(child) : "").join(" ")}`)?.[1] ?? "";
    const text = textIn(node).replace(/^\n|\n$/g, "");
    if (text.trim()) this.push({ kind: "figure", figure: { kind: "code", language: cutText(language, 40), text } });
  }
  quote(node) {
    this.flush();
    const inner = new _HtmlReader({ type: "root", children: node.children }, this.math).read();
    const text = inner.flatMap((block) => "text" in block ? block.text : []);
    if (text.length) this.push({ kind: "quote", text });
    this.blocks.push(...inner.filter((block) => !("text" in block)));
  }
  list(node, level, context) {
    const text = [];
    const after = [];
    const at = Math.min(level, MAX_LEVEL);
    for (const child of node.children) {
      if (!isElement(child)) continue;
      const item = child;
      if (item.tagName === "ul" || item.tagName === "ol") {
        const nested2 = this.list(item, level + 1, context);
        text.push(...nested2.text);
        after.push(...nested2.after);
        continue;
      }
      const kind = node.tagName === "ol" ? "number" : "bullet";
      const own2 = item.tagName === "dd" ? Math.min(at + 1, MAX_LEVEL) : at;
      const inner = new _HtmlReader({ type: "root", children: [] }, this.math);
      inner.notes.clear();
      for (const [id, note] of this.notes) inner.notes.set(id, note);
      const nested = [];
      let begun = false;
      const take = () => {
        inner.flush();
        for (const block of inner.blocks.splice(0)) {
          if (block.kind === "text" || block.kind === "heading" || block.kind === "quote") {
            for (const paragraph of block.text) {
              const runs = item.tagName === "dt" ? paragraph.runs.map((piece) => run(piece.text, ["strong", ...piece.marks ?? []], piece.link)) : paragraph.runs;
              nested.push(begun ? { ...paragraph, kind: "plain", level: Math.min(own2 + 1, MAX_LEVEL), runs } : { kind, level: own2, runs });
              begun = true;
            }
          } else after.push(block);
        }
      };
      for (const part of item.children) {
        const list = isElement(part) && ["ul", "ol", "dl"].includes(part.tagName);
        if (!list) {
          inner.node(part, context);
          continue;
        }
        take();
        if (!begun) nested.push({ kind, level: own2, runs: [] });
        begun = true;
        const deeper = this.list(part, level + 1, context);
        nested.push(...deeper.text);
        after.push(...deeper.after);
      }
      take();
      text.push(...nested);
    }
    return { text, after };
  }
  /** A list item as word processors put it on the clipboard: a paragraph with its level in the style and its bullet as text. */
  officeItem(node, context) {
    this.flush();
    const level = Math.min(MAX_LEVEL, Number(/level(\d+)/.exec(styleOf(node))?.[1] ?? 1) - 1);
    const marker = find(node, (element) => /mso-list:\s*ignore/.test(styleOf(element)));
    const sign = marker ? textIn(marker).trim() : "";
    const runs = this.inline({ ...node, children: without(node.children, marker) }, context);
    const paragraph = { kind: /\w[.)]?$/.test(sign) && /[\dA-Za-z]/.test(sign) && sign.length > 1 ? "number" : "bullet", level, runs };
    const last = this.blocks.at(-1);
    if (last?.kind === "text" && last.text.at(-1)?.kind !== "plain") last.text.push(paragraph);
    else this.push({ kind: "text", text: [paragraph] });
  }
  table(node, caption) {
    this.flush();
    const rows = [];
    const heads = /* @__PURE__ */ new Set();
    let said = caption;
    const look = (parent, head) => {
      for (const child of parent.children) {
        if (!isElement(child)) continue;
        const element = child;
        if (element.tagName === "caption") said = textIn(element).replace(/\s+/g, " ").trim();
        else if (element.tagName === "tr") {
          rows.push(element);
          if (head) heads.add(element);
        } else if (["thead", "tbody", "tfoot"].includes(element.tagName)) look(element, element.tagName === "thead");
      }
    };
    look(node, false);
    const [only2, ...others] = rows.flatMap((row) => row.children.filter((child) => isElement(child) && ["td", "th"].includes(child.tagName)));
    if (only2 && !others.length) {
      for (const child of only2.children) this.node(child, NONE);
      this.flush();
      return;
    }
    const grid = rows.map(() => []);
    const align = [];
    let header = 0;
    let places = 0;
    rows.forEach((row, y) => {
      let x = 0;
      const cells = row.children.filter((child) => isElement(child) && ["td", "th"].includes(child.tagName));
      if (header === y && cells.length && (heads.has(row) || cells.every(({ tagName }) => tagName === "th"))) header = y + 1;
      for (const cell of cells) {
        while (grid[y]?.[x] !== void 0) x++;
        const runs = this.inline(cell);
        const columns = Math.min(200, Math.max(1, Number(cell.properties.colSpan ?? 1) || 1));
        const down = Math.min(rows.length - y, Math.max(1, Number(cell.properties.rowSpan ?? 1) || 1));
        const side = /text-align:\s*(center|right)/.exec(`${styleOf(cell)};text-align:${String(cell.properties.align ?? "")}`)?.[1];
        if (side && y >= header) align[x] = side === "center" ? "centre" : "end";
        places += columns * down;
        within("cells", places, "table");
        for (let dy = 0; dy < down; dy++) for (let dx = 0; dx < columns; dx++) grid[y + dy][x + dx] = null;
        grid[y][x] = { text: runs.length ? [{ kind: "plain", level: 0, runs }] : [], ...columns > 1 ? { columns } : {}, ...down > 1 ? { rows: down } : {} };
        x += columns;
      }
    });
    const width = Math.max(0, ...grid.map(({ length }) => length));
    if (!width) return;
    within("cells", width * grid.length, "table");
    const full = grid.map((row) => Array.from({ length: width }, (_, at) => row[at] === void 0 ? { text: [] } : row[at]));
    const figure = { kind: "table", rows: full, header: Math.min(header, full.length), align: Array.from({ length: width }, (_, at) => align[at] ?? "start"), ...said ? { caption: said } : {} };
    this.push({ kind: "figure", figure });
  }
};
var at0 = (text) => text.replace(/\n/g, " ");
function without(children, gone) {
  return children.filter((child) => child !== gone).map((child) => child.type === "element" ? { ...child, children: without(child.children, gone) } : child);
}
function htmlBlocks(html, math2) {
  return new HtmlReader(fromHtml(flattened(html), { fragment: true }), math2).read();
}
var DEPTH = 200;
var FLAT = /* @__PURE__ */ new Set(["area", "base", "br", "col", "embed", "hr", "img", "input", "link", "meta", "source", "track", "wbr", "p", "li", "option", "dt", "dd", "tr", "td", "th"]);
function flattened(html) {
  let depth = 0;
  let deepest = 0;
  const tags = /<(\/?)([a-z][a-z0-9-]*)(?:[^>"']|"[^"]*"|'[^']*')*?(\/?)>/gi;
  for (const [, close, name, empty] of html.matchAll(tags)) {
    if (empty || FLAT.has(name.toLowerCase())) continue;
    depth = Math.max(0, depth + (close ? -1 : 1));
    deepest = Math.max(deepest, depth);
  }
  if (deepest <= DEPTH) return html;
  depth = 0;
  return html.replace(tags, (tag, close, name, empty) => {
    if (empty || FLAT.has(name.toLowerCase())) return depth > DEPTH ? " " : tag;
    if (!close) depth += 1;
    const deep = depth > DEPTH;
    if (close) depth = Math.max(0, depth - 1);
    return deep ? " " : tag;
  });
}

// core/text/segments.ts
var FENCE2 = /^ {0,3}(`{3,}|~{3,})/;
var CONTAINER2 = /^ {0,3}(:{3,})(.*)$/;
var HEADING = /^#{1,6}(?:[ \t]|$)/;
var BREAK2 = /^(?:(?:-[ \t]*){3,}|(?:\*[ \t]*){3,}|(?:_[ \t]*){3,})$/;
function* segments(lines2, first = 0) {
  let start = first;
  let fence;
  let containers = 0;
  let comment = false;
  for (let at = first; at < lines2.length; at++) {
    const line2 = lines2[at];
    if (comment) {
      if (line2.includes("-->")) comment = false;
      continue;
    }
    const mark = FENCE2.exec(line2)?.[1];
    if (fence !== void 0) {
      if (mark && mark[0] === fence[0] && mark.length >= fence.length && line2.trim() === mark) fence = void 0;
      continue;
    }
    if (mark) {
      fence = mark;
      continue;
    }
    const container = CONTAINER2.exec(line2);
    if (container) {
      containers += container[2]?.trim() ? 1 : containers > 0 ? -1 : 0;
      continue;
    }
    if (/^ {0,3}<!--/.test(line2)) comment = !line2.includes("-->");
    const blankBefore = at === first || lines2[at - 1].trim() === "";
    if (containers === 0 && at > start && (HEADING.test(line2) || blankBefore && BREAK2.test(line2))) {
      yield { text: lines2.slice(start, at).join("\n"), from: start + 1 };
      start = at;
    }
  }
  if (start < lines2.length) yield { text: lines2.slice(start).join("\n"), from: start + 1 };
}
var DEFINITION = /^ {0,3}\[((?:\\.|[^\]\n\\])+)\]:[ \t]*\S/;
var LONG_DEFINITION = /^ {0,3}\[(?!\^)((?:\\.|[^[\]\\])+)\]:[ \t]*\n?[ \t]*(?:<[^<>\n]*>|[^\s<]\S*)([ \t]*\n?[ \t]+(?:"(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*'|\((?:\\.|[^()\\])*\))|[ \t]*\n[ \t]*(?:"(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*'|\((?:\\.|[^()\\])*\)))?[ \t]*(?:\n|$)/;
var LONGEST_DEFINITION = 12;
function longDefinition(lines2, at) {
  let end = at;
  while (end < lines2.length && end - at < LONGEST_DEFINITION && lines2[end].trim() !== "") end++;
  const found = end - at > 1 ? LONG_DEFINITION.exec(lines2.slice(at, end).join("\n")) : null;
  if (!found) return void 0;
  const count2 = (found[0].replace(/\n$/, "").match(/\n/g)?.length ?? 0) + 1;
  return count2 > 1 ? { label: found[1], lines: count2 } : void 0;
}
var labelOf = (label) => label.trim().replace(/\s+/g, " ").toLowerCase().toUpperCase();
var ENDS = /^ {0,3}(?:#{1,6}(?:\s|$)|(?:[-*_] *){3,}$|`{3,}|~{3,})/;
var BEGINS2 = /^ {0,3}(?:#{1,6}(?:\s|$)|(?:[-*_] *){3,}$|`{3,}|~{3,}|>|[-*+](?:\s|$)|\d{1,9}[.)](?:\s|$)|<|\$\$|:{2,}|=+\s*$|\|)/;
function definitions(lines2) {
  const found = /* @__PURE__ */ new Map();
  let label;
  let held = [];
  let fence;
  let ended2 = -2;
  const close = () => {
    if (label !== void 0 && !found.has(label)) found.set(label, held.join("\n").trimEnd());
    label = void 0;
    held = [];
  };
  for (const [at, line2] of lines2.entries()) {
    const mark = FENCE2.exec(line2)?.[1];
    if (fence) {
      if (mark && mark[0] === fence[0] && mark.length >= fence.length && line2.trim() === mark) fence = void 0;
      continue;
    }
    if (label !== void 0 && BEGINS2.test(line2)) close();
    if (mark && label === void 0) {
      fence = mark;
      continue;
    }
    const begun = DEFINITION.exec(line2)?.[1];
    const after = lines2[at - 1] ?? "";
    const fresh = after.trim() === "" || ended2 === at - 1 || ENDS.test(after);
    const long = fresh && /^ {0,3}\[/.test(line2) ? longDefinition(lines2, at) : void 0;
    if (long) {
      close();
      const key = labelOf(long.label);
      if (!found.has(key)) found.set(key, lines2.slice(at, at + long.lines).join("\n"));
      ended2 = at + long.lines - 1;
      continue;
    }
    if (begun !== void 0 && (begun.startsWith("^") || fresh)) {
      if (!begun.startsWith("^")) ended2 = at;
      close();
      held = [line2];
      label = labelOf(begun);
      if (!begun.startsWith("^")) close();
    } else if (label !== void 0 && (line2.trim() === "" ? /^( {4}|\t)/.test(lines2[at + 1] ?? "") : /^( {4}|\t)/.test(line2) || (lines2[at - 1] ?? "").trim() !== "")) held.push(line2);
    else close();
  }
  close();
  return found;
}
var LABEL = /\[((?:\\.|[^[\]\\])+)\]/g;
function definitionsFor(text, all) {
  const needed = /* @__PURE__ */ new Map();
  const waiting = [text];
  for (let next2 = waiting.pop(); next2 !== void 0; next2 = waiting.pop()) {
    for (const [, label] of next2.matchAll(LABEL)) {
      const key = labelOf(label);
      const definition = needed.has(key) ? void 0 : all.get(key);
      if (definition === void 0) continue;
      needed.set(key, definition);
      waiting.push(definition);
    }
  }
  return [...needed.values()].join("\n\n");
}

// core/text/syntax.ts
import { fromMarkdown } from "mdast-util-from-markdown";
import { directiveFromMarkdown } from "mdast-util-directive";
import { gfmFromMarkdown } from "mdast-util-gfm";
import { mathFromMarkdown } from "mdast-util-math";
import { directive } from "micromark-extension-directive";
import { gfm } from "micromark-extension-gfm";
import { math } from "micromark-extension-math";
var { flow } = directive();
var SYNTAX = { extensions: [gfm(), math(), { flow }], mdastExtensions: [gfmFromMarkdown(), mathFromMarkdown(), directiveFromMarkdown()] };
function parseMarkdown(text) {
  return fromMarkdown(text, SYNTAX);
}
var REACHES = /^[ \t>*+\-\d.)]*(?:`{3}|~{3}|:{3}|\$\$|<)/m;
var WORDS2 = /^(#{1,6} )?(?=[\p{L}“‘(])((?:[^\\*_`[\]<>&|~^$@{}=\t\0:]|:(?!\/))*)$/u;
var wordsOf = (line2) => line2.endsWith(" ") || /www\./i.test(line2) ? void 0 : WORDS2.exec(line2);
var PARAGRAPH = /^(?:[\p{L}“‘([]|[*_`]{1,2}[^\s*_`])/u;
var UNDERLINE = /^(?:=+|-+)[ \t]*$/;
function* stretches({ text, from: first }) {
  const lines2 = text.split("\n");
  const whole = REACHES.test(text);
  let from = 0;
  const between = (to) => {
    while (from < to && lines2[from]?.trim() === "") from++;
    return from < to ? [{ text: lines2.slice(from, to).join("\n"), from: first + from, plain: false }] : [];
  };
  let paragraph = false;
  for (let at = 0; !whole && at < lines2.length; at++) {
    const line2 = lines2[at];
    const begins = at === from || lines2[at - 1].trim() === "";
    const margin = PARAGRAPH.test(line2);
    if (begins && (lines2[at + 1] ?? "").trim() === "" && wordsOf(line2)) {
      yield* between(at);
      yield { text: line2, from: first + at, plain: true };
      from = at + 1;
      paragraph = false;
    } else if (begins) {
      if (margin) {
        yield* between(at);
        from = at;
      }
      paragraph = margin;
    } else if (paragraph && UNDERLINE.test(line2)) {
      yield* between(at + 1);
      from = at + 1;
      paragraph = false;
    } else paragraph &&= margin;
  }
  yield* between(lines2.length);
}
var APART = "\n\n<!-- -->\n\n";
function parseStretch({ text, plain: plain3 }, shared2 = "") {
  if (plain3) {
    const [, marks = "", words2 = ""] = WORDS2.exec(text) ?? [];
    const place = (column) => ({ line: 1, column, offset: column - 1 });
    const position = { start: place(1), end: place(text.length + 1) };
    const children = [{ type: "text", value: words2.trim(), position: { start: place(marks.length + 1), end: position.end } }];
    const own2 = [marks ? { type: "heading", depth: marks.length - 1, children, position } : { type: "paragraph", children, position }];
    return { root: { type: "root", children: own2 }, own: own2, lead: 0 };
  }
  const before = shared2 ? `${shared2}${APART}` : "";
  const lead = before.split("\n").length - 1;
  const root = parseMarkdown(before + text);
  return { root, own: root.children.filter(({ position }) => (position?.start.line ?? 1) > lead), lead };
}

// core/text/read.ts
function readText(text, { lines: hard = false } = {}) {
  const plain3 = text.replace(/^\uFEFF/, "");
  const lines2 = plain3.split(plain3.includes("\r") ? /\r\n|\r|\n/ : "\n");
  const { front, next: next2, problems } = readFront(lines2);
  const bounded = boundNesting(lines2);
  problems.push(...bounded.problems);
  let found;
  const shared2 = () => found ??= definitions(bounded.lines);
  function* blocks() {
    const used = /* @__PURE__ */ new Set();
    for (const segment of segments(bounded.lines, next2)) for (const stretch of stretches(segment)) yield* readStretch(stretch, shared2, problems, used, hard);
    yield* unused(shared2(), used, bounded.lines, problems);
  }
  return { front, blocks: { [Symbol.iterator]: blocks }, problems };
}
var CACHE_SIZE = 2e4;
var cache = /* @__PURE__ */ new Map();
function* unused(shared2, used, lines2, problems) {
  const usedLabels = new Set([...used].map((identifier) => labelOf(`^${identifier}`)));
  const left = [...shared2].filter(([label]) => label.startsWith("^") && !usedLabels.has(label));
  if (!left.length) return;
  const places = /* @__PURE__ */ new Map();
  for (const [at, line2] of lines2.entries()) {
    const label = /^\s*\[(\^[^\]]+)\]:/.exec(line2)?.[1];
    if (label !== void 0 && !places.has(labelOf(label))) places.set(labelOf(label), at + 1);
  }
  for (const [label, definition] of left) {
    const root = parseMarkdown([definition, definitionsFor(definition, shared2)].join("\n\n"));
    const node = root.children.find((child) => child.type === "footnoteDefinition");
    if (node?.type !== "footnoteDefinition") continue;
    const at = places.get(label) ?? 1;
    problems.push({ line: at, message: `Nothing refers to the footnote \u201C${node.identifier}\u201D; it is kept in the notes.` });
    const text = new BlockReader(problems, root).footnote(node.identifier);
    if (text?.length) yield { kind: "notes", text: [plain(text)], from: at, to: at };
  }
}
function readStretch(stretch, definitionsOf, problems, used, hard) {
  const shared2 = !stretch.plain && stretch.text.includes("[") ? definitionsFor(stretch.text, definitionsOf()) : "";
  const key = stretch.plain ? stretch.text : `${hard ? "lines" : ""}\0${stretch.text}\0${shared2}`;
  let read = cache.get(key);
  if (!read) {
    read = parsedStretch(stretch, shared2, hard) ?? asWords(stretch);
    if (cache.size >= CACHE_SIZE) cache.delete(cache.keys().next().value);
    cache.set(key, read);
  }
  for (const note of read.notes) used.add(note);
  const shift = stretch.from - 1 - read.lead;
  for (const problem of read.problems) problems.push({ ...problem, line: problem.line + shift });
  return shift === 0 ? read.blocks : read.blocks.map((block) => shifted(block, shift));
}
function parsedStretch(stretch, shared2, hard) {
  if (isCrowded(stretch.text)) return void 0;
  try {
    const found = [];
    const { root, own: own2, lead } = parseStretch(stretch, shared2);
    const reader = new BlockReader(found, root, hard);
    return { blocks: reader.read(own2), problems: found, lead, notes: [...reader.referred] };
  } catch (error) {
    if (error instanceof RangeError) return void 0;
    throw error;
  }
}
function asWords({ text }) {
  const lines2 = text.split("\n");
  const words2 = lines2.map((line2) => plain(line2.trim() ? [run(line2)] : []));
  return { blocks: [{ kind: "text", text: words2, from: 1, to: lines2.length }], problems: [{ line: 1, message: "This nests deeper, or has more marks, than can be read; it is kept as it was typed." }], lead: 0, notes: [] };
}
function shifted(block, by) {
  const moved2 = { ...block, from: block.from + by, to: block.to + by };
  if (moved2.kind === "text" && moved2.items) return { ...moved2, items: moved2.items.map((line2) => line2 + by) };
  return moved2.kind === "slot" ? { ...moved2, blocks: moved2.blocks.map((inner) => shifted(inner, by)) } : moved2;
}
var figureAt = /* @__PURE__ */ new WeakMap();
var COVERED = { left: "{<}", above: "{^}" };
var BlockReader = class {
  constructor(problems, root, lines2 = false) {
    this.problems = problems;
    this.root = root;
    this.lines = lines2;
  }
  problems;
  root;
  lines;
  /** The footnotes that were referred to. */
  referred = /* @__PURE__ */ new Set();
  noted = /* @__PURE__ */ new Map();
  gather() {
    return { pictures: [], problems: this.problems, lines: this.lines, footnote: (identifier) => this.footnote(identifier), definition: (identifier) => this.definition(identifier) };
  }
  read(nodes) {
    return nodes.flatMap((node) => this.block(node));
  }
  defined;
  /** The first definition of an address by its identifier. */
  definition(identifier) {
    if (!this.defined) {
      this.defined = /* @__PURE__ */ new Map();
      for (const node of this.root.children) if (node.type === "definition" && !this.defined.has(node.identifier)) this.defined.set(node.identifier, node);
    }
    return this.defined.get(identifier);
  }
  /** What a footnote says, its paragraphs joined. */
  footnote(identifier) {
    this.referred.add(identifier);
    const known = this.noted.get(identifier);
    if (known) return known;
    const found = this.root.children.find((node) => node.type === "footnoteDefinition" && node.identifier === identifier);
    if (!found) return void 0;
    this.noted.set(identifier, []);
    const gathered = this.gather();
    const paragraphs2 = found.children.flatMap((child) => this.paragraphs(child, 0, gathered));
    for (const { line: line2 } of gathered.pictures) this.problems.push({ line: line2, message: "A picture in a footnote is left out; footnotes hold text." });
    const runs = paragraphs2.filter(({ runs: own2 }) => own2.length).flatMap(({ runs: own2 }, at) => [...at ? [run(" ")] : [], ...own2.map(({ text, marks, link }) => run(text, marks, link))]);
    this.noted.set(identifier, runs);
    return runs;
  }
  block(node) {
    const at = { from: node.position?.start.line ?? 1, to: node.position?.end.line ?? 1 };
    const gathered = this.gather();
    const blocks = this.blocksOf(node, at, gathered).flatMap((block) => this.divided(block));
    for (const { picture, line: line2 } of gathered.pictures) blocks.push({ kind: "picture", picture, from: line2, to: line2 });
    return blocks;
  }
  /** A text that holds something else as the texts around it. */
  divided(block) {
    if (!("text" in block) || !block.text.some((paragraph) => figureAt.has(paragraph))) return [block];
    const parts = [];
    let from = 0;
    const items = block.kind === "text" ? block.items : void 0;
    const close = (to) => {
      const text = block.text.slice(from, to);
      const own2 = items?.slice(from, to);
      if (text.some(({ runs, kind }) => runs.length || kind !== "plain")) parts.push({ ...block, text, ...own2 ? { items: own2, from: own2[0] ?? block.from, to: own2.at(-1) ?? block.to } : {} });
      from = to + 1;
    };
    block.text.forEach((paragraph, nth) => {
      const figure = figureAt.get(paragraph);
      if (!figure) return;
      close(nth);
      parts.push(figure);
    });
    close(block.text.length);
    return parts;
  }
  blocksOf(node, at, gathered) {
    const text = (paragraphs2, items) => paragraphs2.some((paragraph) => paragraph.runs.length || figureAt.has(paragraph)) ? [{ kind: "text", text: paragraphs2, ...items ? { items } : {}, ...at }] : [];
    switch (node.type) {
      case "heading": {
        const heading = node;
        return [{ kind: "heading", depth: heading.depth, text: [plain(inlineRuns(heading.children, gathered))], ...at }];
      }
      case "thematicBreak":
        return [{ kind: "break", ...at }];
      case "leafDirective":
      case "containerDirective":
        return this.directive(node, at);
      case "definition":
      case "footnoteDefinition":
      case "yaml":
        return [];
      case "html": {
        const { value } = node;
        return htmlBlocks(value).map((block) => ({ ...block, ...at }));
      }
      case "blockquote": {
        const blocks = this.read(node.children);
        const parts = [];
        for (const block of blocks) {
          const last = parts.at(-1);
          if (block.kind !== "text" && block.kind !== "heading" && block.kind !== "quote") parts.push(block);
          else if (last?.kind === "quote") parts[parts.length - 1] = { ...last, text: [...last.text, ...block.text], to: block.to };
          else parts.push({ kind: "quote", text: block.text, from: block.from, to: block.to });
        }
        const [only2] = parts;
        return parts.length === 1 && only2?.kind === "quote" ? [{ ...only2, ...at }] : parts;
      }
      case "list": {
        const items = [];
        return text(this.list(node, 0, gathered, items), items);
      }
      case "table":
      case "code":
      case "math":
        return [{ kind: "figure", figure: this.figure(node, gathered), ...at }];
      default: {
        const paragraphs2 = this.paragraphs(node, 0, gathered);
        const [only2] = paragraphs2;
        const [single] = only2?.runs ?? [];
        const source = node.position ? (node.position.end.offset ?? 0) - (node.position.start.offset ?? 0) : 0;
        if (paragraphs2.length === 1 && only2?.runs.length === 1 && single?.marks?.join() === "formula" && source >= single.text.length + 4) return [{ kind: "figure", figure: { kind: "formula", tex: single.text }, ...at }];
        return text(paragraphs2);
      }
    }
  }
  figure(node, gathered) {
    if (node.type === "code") return { kind: "code", language: cutText(node.lang ?? "", 40), text: node.value };
    if (node.type === "table") return this.table(node, gathered) ?? this.tooWide(node, gathered);
    return { kind: "formula", tex: node.value };
  }
  /** Block content as flat paragraphs at a level. What is no text is gathered, to stand after it. */
  paragraphs(node, level, gathered) {
    const line2 = node.position?.start.line ?? 1;
    switch (node.type) {
      case "paragraph":
      case "heading":
        return keep(plain(inlineRuns(node.children, gathered), level));
      case "list":
        return this.list(node, level, gathered);
      case "blockquote":
        return node.children.flatMap((child) => this.paragraphs(child, level, gathered));
      case "table":
      case "code":
      case "math":
        return [this.holder({ kind: "figure", figure: this.figure(node, gathered), from: line2, to: node.position?.end.line ?? line2 })];
      case "html":
        return htmlBlocks(node.value).flatMap((block) => "text" in block ? block.text : []);
      case "leafDirective":
      case "containerDirective":
        return node.children.flatMap((child) => child.type === "paragraph" || child.type === "list" ? this.paragraphs(child, level, gathered) : []);
      default:
        return [];
    }
  }
  holder(block) {
    const paragraph = plain([]);
    figureAt.set(paragraph, block);
    return paragraph;
  }
  list(node, level, gathered, items) {
    if (level > MAX_LEVEL) this.problems.push({ line: node.position?.start.line ?? 1, message: `Lists nest to ${MAX_LEVEL + 1} levels; deeper items are raised to the last of them.` });
    const at = Math.min(level, MAX_LEVEL);
    let number = node.start ?? 1;
    let begun = false;
    return node.children.flatMap((item) => {
      const [first, ...rest] = item.children;
      const kind = node.ordered ? "number" : "bullet";
      const start = node.ordered && !begun && number !== 1 ? { start: number } : {};
      begun = true;
      number += 1;
      const head = first?.type === "paragraph" ? [{ kind, level: at, ...start, runs: inlineRuns(first.children, gathered) }] : [{ kind, level: at, ...start, runs: [] }];
      const below = first?.type === "paragraph" ? rest : item.children;
      const line2 = item.position?.start.line ?? 1;
      items?.push(line2);
      const under = below.flatMap((child) => {
        if (["table", "code", "math"].includes(child.type)) begun = false;
        const deeper = Math.min(at + 1, MAX_LEVEL);
        if (child.type === "list") return this.list(child, at + 1, gathered, items);
        const text = this.paragraphs(child, deeper, gathered);
        for (const _ of text) items?.push(line2);
        return text;
      });
      return [...head, ...under];
    });
  }
  /** The words of a table with more cells than are taken, a line each row. */
  tooWide(node, gathered) {
    this.problems.push({ line: node.position?.start.line ?? 1, message: `The table would have more than ${MOST.cells.toLocaleString("en")} cells; its words are kept as they were typed.` });
    const rows = node.children.map((row) => row.children.map((cell) => inlineRuns(cell.children, gathered).map(({ text }) => text).join("")).join(" | "));
    return { kind: "code", language: "", text: rows.join("\n") };
  }
  /** A table, or undefined where it would have more cells than are taken. */
  table(node, gathered) {
    const width = node.children.reduce((most, { children }) => Math.max(most, children.length), 1);
    if (width * node.children.length > MOST.cells) return void 0;
    const rows = node.children.map((row) => Array.from({ length: width }, (_, at) => {
      const runs = inlineRuns(row.children[at]?.children ?? [], gathered);
      const text = runs.length ? [plain(runs)] : [];
      const words2 = textOf(text);
      return words2 === COVERED.left ? "left" : words2 === COVERED.above ? "above" : { text };
    }));
    const bare2 = rows[0]?.every((cell) => typeof cell === "object" && cell.text.length === 0) && rows.length > 1;
    return { kind: "table", rows: spanned(bare2 ? rows.slice(1) : rows), header: bare2 ? 0 : 1, align: Array.from({ length: width }, (_, at) => ALIGN[node.align?.[at] ?? "left"]) };
  }
  directive(node, at) {
    return readDirective(node, { at, inner: () => this.read(node.children), say: (message) => this.problems.push({ line: at.from, message }) });
  }
};
function spanned(rows) {
  return rows.map(
    (row, y) => row.map((cell, x) => {
      if (typeof cell !== "object") return null;
      let columns = 1;
      while (row[x + columns] === "left") columns++;
      let down = 1;
      while (rows[y + down]?.[x] === "above") down++;
      return { ...cell, ...columns > 1 ? { columns } : {}, ...down > 1 ? { rows: down } : {} };
    })
  );
}
function plain(runs, level = 0) {
  return { kind: "plain", level, runs };
}
function keep(paragraph) {
  return paragraph.runs.length ? [paragraph] : [];
}

// core/text/write.ts
import { directiveToMarkdown } from "mdast-util-directive";
import { gfmToMarkdown } from "mdast-util-gfm";
import { mathToMarkdown } from "mdast-util-math";
import { toMarkdown } from "mdast-util-to-markdown";
var directives = { ...directiveToMarkdown({ preferUnquoted: true }), unsafe: [{ atBreak: true, character: ":", after: ":" }] };
var OPTIONS = { bullet: "-", emphasis: "*", fences: true, listItemIndent: "one", rule: "-", extensions: [gfmToMarkdown({ tablePipeAlign: false }), mathToMarkdown(), directives] };
function normalRuns(runs) {
  const held = runs.map((item) => {
    if (item.footnote) return { text: "", footnote: normalRuns(item.footnote).map(({ text, marks, link }) => run(text, marks, link)) };
    if (item.marks?.includes("formula")) return run(item.text.replace(/\$/g, "").replace(/\s+/g, " ").trim(), ["formula"], item.link);
    return item.marks?.includes("code") && item.text.includes("\n") ? { ...item, text: item.text.replace(/\n/g, " ") } : item;
  });
  return trimmed(joinRuns(held));
}
var normal = /* @__PURE__ */ new WeakMap();
function normalText(text) {
  const known = normal.get(text);
  if (known) return known;
  const result = [];
  let open = -1;
  let side;
  for (const paragraph of text) {
    const runs = normalRuns(paragraph.runs);
    if (!runs.length && paragraph.kind === "plain") continue;
    const { align, start, ...rest } = paragraph;
    const level = Math.min(paragraph.level, open + 1);
    if (level === 0) side = align;
    result.push({ ...rest, level, ...side ? { align: side } : {}, ...start !== void 0 && start !== 1 && paragraph.kind === "number" ? { start } : {}, runs });
    open = paragraph.kind === "plain" ? level - 1 : level;
  }
  normal.set(text, result);
  normal.set(result, result);
  return result;
}

// core/text/recognise.ts
var hasList = (text) => text.some((paragraph) => paragraph.kind !== "plain");
var count = ({ kinds }) => Object.values(kinds).reduce((sum, n3) => sum + n3, 0);
var isCaption = (text) => !hasList(text) && text.length <= 1 && countWords(textOf(text)) <= 30;
var only = (kind) => (parts) => parts.kinds[kind] === 1 && count(parts) === 1 && isCaption(parts.text) && parts.quote.length === 0;
var REFERENCES = /^(\d[\d.]*\s+)?(references|bibliography|sources|further reading|resources|works cited|literatur(verzeichnis)?|quellen|referencias|bibliografía|références|bibliographie|bibliografia|riferimenti|referências|bronnen|литература|βιβλιογραφία|المراجع|ביבליוגרפיה)$/i;
function namesReferences(title) {
  return title !== null && REFERENCES.test(textOf(title).trim());
}
function isBigNumber(text) {
  return text.length <= 14 && numberIn(text) !== void 0;
}
var opensWithNumber = (text) => text.length === 2 && !hasList(text) && isBigNumber(paragraphText(text[0]).trim()) && countWords(paragraphText(text[1])) <= 30;
var RECOGNISERS = [
  { arrangement: "columns", because: "it has three columns", holds: ({ slots }) => slots.includes("middle") },
  { arrangement: "comparison", because: "it has two columns", holds: ({ slots }) => slots.includes("left") || slots.includes("right") },
  { arrangement: "number", because: "a number stands with one line to explain it", holds: (parts) => parts.slots.includes("number") || opensWithNumber(parts.text) && count(parts) === 0 && parts.quote.length === 0 },
  { arrangement: "quotation", because: "it is a quotation", holds: (parts) => parts.quote.length > 0 && parts.quoteFirst && count(parts) === 0 && parts.title === null && isCaption(parts.text) },
  { arrangement: "picture", because: "it is a picture with a line of text", holds: (parts) => parts.kinds.picture === 1 && count(parts) === 1 && isCaption(parts.text) && parts.quote.length === 0 },
  { arrangement: "pictures", because: "it is a set of pictures", holds: (parts) => (parts.kinds.picture ?? 0) > 1 && (parts.kinds.picture ?? 0) <= 6 && count(parts) === parts.kinds.picture && isCaption(parts.text) && parts.quote.length === 0 },
  { arrangement: "table", because: "it is a table", holds: only("table") },
  { arrangement: "chart", because: "it is a chart", holds: only("chart") },
  { arrangement: "diagram", because: "it is a diagram", holds: only("diagram") },
  { arrangement: "code", because: "it is a piece of code", holds: only("code") },
  { arrangement: "formula", because: "it is a formula", holds: only("formula") },
  { arrangement: "references", because: "its title says that sources are listed", holds: (parts) => namesReferences(parts.title) && (parts.text.length > 0 || parts.quote.length > 0) && count(parts) === 0 },
  { arrangement: "opening", because: "it comes first with a heading of the first level", holds: (parts) => parts.first && parts.depth === 1 && !hasList(parts.text) && count(parts) === 0 && parts.quote.length === 0 },
  { arrangement: "section", because: "its heading opens a section", holds: (parts) => parts.depth === 1 && isCaption(parts.text) && count(parts) === 0 && parts.quote.length === 0 },
  { arrangement: "title", because: "it has a title alone", holds: (parts) => parts.title !== null && parts.text.length === 0 && count(parts) === 0 && parts.quote.length === 0 },
  { arrangement: "points", because: "it has a title and what belongs to it", holds: ({ title }) => title !== null },
  { arrangement: "blank", because: "it holds nothing", holds: (parts) => parts.text.length === 0 && count(parts) === 0 && parts.quote.length === 0 },
  { arrangement: "statement", because: "it is one paragraph without a title", holds: (parts) => parts.text.length + parts.quote.length === 1 && count(parts) === 0 && !hasList(parts.text) && (parts.text[0]?.level ?? 0) === 0 },
  { arrangement: "points", because: "it has several paragraphs", holds: () => true }
];
function recognised(parts) {
  return RECOGNISERS.find((recogniser) => recogniser.holds(parts)) ?? { arrangement: "points", because: "nothing else fits" };
}
var MAIN = { opening: "subtitle", section: "subtitle", picture: "caption", pictures: "caption", comparison: "left", columns: "left", number: "caption", table: "caption", chart: "caption", diagram: "caption", code: "caption", formula: "caption", quotation: "caption" };
function mainSlot(arrangement) {
  return MAIN[arrangement] ?? "body";
}
function flowSlot(arrangement, kind, nth) {
  if (kind === "quote") return arrangement === "quotation" ? "body" : mainSlot(arrangement);
  if (kind === "text") return mainSlot(arrangement);
  if (kind === "picture") return arrangement === "pictures" ? "pictures" : arrangement === "picture" && nth === 0 ? "picture" : null;
  if (arrangement === kind && nth === 0) return kind;
  const main = mainSlot(arrangement);
  return main === "body" || main === "left" ? main : null;
}

// core/generate/content.ts
function knownSlot(slide, slot2) {
  const main = mainSlot(slide.arrangement);
  if (slot2 === "title") return slot2;
  return slot2 !== null && slotsOf(slide.arrangement).some(([name]) => name === slot2) ? slot2 : main;
}
function bareContent(element) {
  const { id: _, slot: __, frame: ___, binding: ____, entrance: _____, ...content } = mapElementTexts(element, normalText);
  return content;
}
function joinedText(elements) {
  const texts = elements.flatMap((element) => element.kind === "text" ? [element.text] : []);
  return texts.length === 1 && texts[0] ? texts[0] : texts.flat();
}
var foundOnce = /* @__PURE__ */ new WeakMap();
function foundOf(slide) {
  const known = foundOnce.get(slide.elements);
  if (known?.arrangement === slide.arrangement) return known;
  const found = { arrangement: slide.arrangement, units: unitsIn(slide) };
  foundOnce.set(slide.elements, found);
  return found;
}
function unitsIn(slide) {
  const units = [];
  const last = /* @__PURE__ */ new Map();
  for (const element of slide.elements) {
    const slot2 = knownSlot(slide, element.slot);
    const before = last.get(slot2);
    if (element.kind === "text" && isEmptyText(element.text)) {
      if (before?.kind === "text") before.elements.push(element);
      continue;
    }
    if (element.kind === "text" && before?.kind === "text" && before.elements[0].steps === element.steps) before.elements.push(element);
    else {
      const unit = { slot: slot2, kind: element.kind, elements: [element], key: "" };
      units.push(unit);
      last.set(slot2, unit);
    }
  }
  for (const unit of units) {
    const [first] = unit.elements;
    unit.key = JSON.stringify(unit.kind === "text" ? [first.steps ?? false, normalText(joinedText(unit.elements))] : bareContent(first));
  }
  return units;
}
function contentKey(slide) {
  const found = foundOf(slide);
  const { background, transition, delay, widths, section, notes } = slide;
  const known = found.keyed?.slide;
  if (found.keyed && known && known.notes === notes && known.background === background && known.transition === transition && known.delay === delay && known.widths === widths && known.section === section) return found.keyed.key;
  const key = JSON.stringify([slide.arrangement, background, transition, delay, widths, found.units.map(({ slot: slot2, key: own2 }) => [slot2, own2]), normalText(notes), ...section === void 0 ? [] : [section]]);
  found.keyed = { slide, key };
  return key;
}
function contentSum(slide) {
  return textHash(contentKey(slide));
}

// core/generate/compose.ts
var flowText = (flow2, quote) => {
  const found = flow2.filter((item) => item.kind === "text" && (item.quote ?? false) === quote);
  return found.length === 1 && found[0] ? found[0].text : found.flatMap(({ text }) => text);
};
function partsOfDraft({ title, depth, flow: flow2, slots }, opens) {
  const first = flow2.find((item) => item.kind === "text");
  const kinds = {};
  for (const item of flow2) if (item.kind === "content") kinds[item.content.kind] = (kinds[item.content.kind] ?? 0) + 1;
  return { first: opens, depth, title, text: flowText(flow2, false), quote: flowText(flow2, true), quoteFirst: first?.quote === true, kinds, slots: [...slots.keys()] };
}
function arranged(draft, first, given, line2, problems) {
  if (given !== void 0) {
    const known = ArrangementName.safeParse(given);
    if (known.success) return { arrangement: known.data, because: "the text says so" };
    problems.push({ line: line2, message: `\u201C${given}\u201D is not an arrangement. Known are ${ArrangementName.options.join(", ")}.` });
  }
  const { arrangement, because } = recognised(partsOfDraft(draft, first));
  return { arrangement, because };
}
function placed2({ arrangement, title, flow: flow2, slots, steps: steps3 }) {
  const all = title && !isEmptyText(title) ? [{ slot: "title", content: { kind: "text", text: title } }] : [];
  const add2 = (slot2, content, stepped) => {
    const last = all.at(-1);
    if (content.kind === "text") {
      if (isEmptyText(content.text)) return;
      if (last && last.slot === slot2 && last.content.kind === "text" && (last.steps ?? false) === stepped && slot2 !== "title") {
        last.content = { kind: "text", text: [...last.content.text, ...content.text] };
        return;
      }
    }
    all.push({ slot: slot2, content, ...stepped ? { steps: stepped } : {} });
  };
  const counts = {};
  const numbered2 = arrangement === "number" && !slots.has("number") && isBigNumber(textOf(flowText(flow2, false).slice(0, 1)).trim());
  let opened = false;
  for (const item of flow2) {
    if (item.kind === "content") {
      const nth = counts[item.content.kind] ?? 0;
      counts[item.content.kind] = nth + 1;
      add2(flowSlot(arrangement, item.content.kind, nth), item.content, false);
    } else if (numbered2 && !opened && !item.quote) {
      opened = true;
      add2("number", { kind: "text", text: item.text.slice(0, 1) }, steps3 || (item.steps ?? false));
      if (item.text.length > 1) add2(mainSlot(arrangement), { kind: "text", text: item.text.slice(1) }, steps3 || (item.steps ?? false));
    } else add2(flowSlot(arrangement, item.quote ? "quote" : "text", 0), { kind: "text", text: item.text }, steps3 || (item.steps ?? false));
  }
  for (const [slot2, held] of slots) for (const item of held) add2(slot2, item.kind === "text" ? { kind: "text", text: item.text } : item.content, item.kind === "text" && (item.steps ?? false));
  return all;
}
var mainOnce = /* @__PURE__ */ new WeakMap();
function mainPoints(text) {
  const made = mainOnce.get(text) ?? withSteps(text, "main");
  mainOnce.set(text, made);
  return made;
}
function slideOf(composed, id, newId) {
  const elements = placed2(composed).map(({ slot: slot2, content, steps: steps3 }) => ({ ...content, ...steps3 === "main" && content.kind === "text" ? { text: mainPoints(content.text) } : {}, id: newId(), slot: slot2, ...steps3 ? { steps: true } : {} }));
  const slide = { id, parent: null, arrangement: composed.arrangement, elements, notes: composed.notes, hidden: false, ...composed.look };
  return { ...slide, elements: readingOrder(slide) };
}
function formFor(categories) {
  const times = categories.filter((name) => /^\s*(\d{4}|Q[1-4]\b|[A-Z]?\d{1,2}[./-]\d{1,2}|jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec|ene|abr|ago|dic|mär|mai|okt|dez)/i.test(name)).length;
  if (categories.length > 3 && times >= categories.length * 0.7) return "line";
  return categories.some((name) => name.length > 14) ? "bar" : "column";
}
function charted(flow2, rule) {
  if (!rule.charts) return [...flow2];
  return flow2.map((item) => {
    if (item.kind !== "content" || item.content.kind !== "table") return item;
    const trial = chartOf(item.content, "column");
    return trial && trial.categories.length > 1 ? { ...item, content: { ...trial, form: formFor(trial.categories) } } : item;
  });
}
var isLarge = (item) => item.kind === "content" && (item.content.kind === "chart" || item.content.kind === "diagram" || item.content.kind === "table" && item.content.rows.length > 4 || item.content.kind === "code" && item.content.text.split("\n").length > 6);
var CAPTION = 30;
function divided(draft, rule) {
  const { flow: flow2, depth, title } = draft;
  const crowded = flow2.some((item) => item.kind === "content") || flowText(flow2, false).length > 1 || countWords(textOf(flowText(flow2, false))) > CAPTION;
  const opener = depth === 1 && (rule.body !== "slide" || rule.rest !== "keep") && crowded && !namesReferences(title);
  const parts = [[]];
  const words2 = (list) => list.reduce((sum, item) => sum + (item.kind === "text" ? countWords(textOf(item.text)) : 0), 0);
  const figures = flow2.filter((item) => item.kind === "content").length;
  const many = figures > 1 || figures === 1 && words2(flow2) > CAPTION;
  if (many) {
    let pictures = 0;
    for (const item of flow2) {
      const last = parts.at(-1);
      if (isLarge(item)) parts.push([item], []);
      else if (item.kind === "content" && item.content.kind === "picture" && pictures++ > 0 && words2(last) > CAPTION) parts.push([item]);
      else last.push(item);
    }
  } else parts[0] = [...flow2];
  const kept3 = parts.filter((part) => part.length);
  const joined = [];
  for (const part of kept3) {
    const before = joined.at(-1);
    if (before && part.every(({ kind }) => kind === "text") && words2(part) <= CAPTION && flowText(part, false).length <= 1 && before.some(isLarge) && words2(before) === 0) before.push(...part);
    else joined.push(part);
  }
  return [...opener ? [{ flow: [], opener: true }] : [], ...(joined.length ? joined : opener ? [] : [[]]).map((part) => ({ flow: part, opener: false }))];
}
function shortTitle(title, most) {
  const words2 = textOf(title).replace(/\s+/g, " ").trim();
  const clause = /^.{12,}?[.;:!?–—](?=\s)/u.exec(words2)?.[0];
  const held = clause && countWords(clause) <= most ? clause.replace(/[.;:–—]+$/u, "").trimEnd() : `${cutText(words2.split(" ").slice(0, most).join(" "), 200).replace(/[\s.,;:–—-]+$/u, "")}\u2026`;
  return [{ kind: "plain", level: 0, runs: [run(held)] }];
}

// core/generate/textrank.ts
function textRank(weights, { damping = 0.85, threshold = 1e-4, rounds = 100 } = {}) {
  const sums = weights.map((row) => row.reduce((sum, weight) => sum + weight, 0));
  const givers = weights.map((row) => row.flatMap((weight, j) => weight && sums[j] ? [j] : []));
  const shares2 = givers.map((list, i) => list.map((j) => weights[i]?.[j] / sums[j]));
  let scores = weights.map(() => 1);
  for (let round2 = 0; round2 < rounds; round2++) {
    let moved2 = 0;
    const next2 = [];
    for (let i = 0; i < givers.length; i++) {
      const [from, part] = [givers[i], shares2[i]];
      let given = 0;
      for (let at = 0; at < from.length; at++) given += part[at] * scores[from[at]];
      next2[i] = 1 - damping + damping * given;
      moved2 = Math.max(moved2, Math.abs(next2[i] - scores[i]));
    }
    scores = next2;
    if (moved2 <= threshold) break;
  }
  return scores;
}
function similarity(shared2, lengthA, lengthB) {
  return shared2 === 0 || lengthA < 2 || lengthB < 2 ? 0 : shared2 / (Math.log(lengthA) + Math.log(lengthB));
}
var WORD2 = /[\p{L}\p{N}]+/gu;
function contentWords(sentence) {
  return (sentence.toLowerCase().match(WORD2) ?? []).filter((word) => word.length > 3 || /\p{N}|[^\p{Script=Latin}]/u.test(word));
}
function rankable(text) {
  const words2 = contentWords(text);
  return { text, words: new Set(words2), length: words2.length };
}
var TOGETHER = 600;
function rankSentences(sentences) {
  if (sentences.length <= TOGETHER) return rankTogether(sentences);
  const ranks = [];
  for (let from = 0; from < sentences.length; from += TOGETHER) ranks.push(...rankTogether(sentences.slice(from, from + TOGETHER)));
  return ranks;
}
function rankTogether(sentences) {
  if (sentences.length < 2) return sentences.map(() => 1);
  const weights = sentences.map(() => new Array(sentences.length).fill(0));
  const holders = /* @__PURE__ */ new Map();
  sentences.forEach(({ words: words2 }, i) => {
    const row = weights[i];
    for (const word of words2) {
      const before = holders.get(word);
      if (!before) holders.set(word, [i]);
      else {
        for (const j of before) row[j] = row[j] + 1;
        before.push(i);
      }
    }
    for (let j = 0; j < i; j++) if (row[j]) weights[j][i] = row[j] = similarity(row[j], sentences[j].length, sentences[i].length);
  });
  return textRank(weights);
}

// core/generate/points.ts
var BUDGET = 14;
var MOST2 = 6;
var SHORTEST = 4;
var ABBREVIATION = /(?:^|[\s(])(?:Dr|Prof|Mr|Mrs|Ms|St|No|Nr|Fig|Figs|Eq|Ch|Sec|Vol|pp?|cf|ca|approx|e\.g|i\.e|etc|vs|al|z\.\s?B|d\.\s?h|bzw|usw|Abb|Sr|Sra|p\.\s?ej|núm|env|p\.\s?ex)\.\s*$/i;
var INITIAL = /(?:^|[\s(])(?:\p{Lu}|z|d|u)\.\s*$/u;
var segmenters = /* @__PURE__ */ new Map();
function sentenceRanges(text, language) {
  let segmenter = segmenters.get(language);
  if (!segmenter) segmenters.set(language, segmenter = new Intl.Segmenter(language, { granularity: "sentence" }));
  const ranges = [];
  let open = 0;
  for (const { segment, index } of segmenter.segment(text)) {
    const to = index + segment.length;
    if (to < text.length && (ABBREVIATION.test(text.slice(open, to)) || INITIAL.test(text.slice(open, to)) || !/\p{L}|\p{N}/u.test(text.slice(open, to)))) continue;
    ranges.push({ from: open, to });
    open = to;
  }
  if (open < text.length) ranges.push({ from: open, to: text.length });
  return ranges.flatMap(({ from, to }) => {
    const held = text.slice(from, to);
    const lead = held.length - held.trimStart().length;
    return held.trim() ? [{ from: from + lead, to: from + held.trimEnd().length }] : [];
  });
}
var CONNECTIVE = {
  en: /^(?:however|moreover|furthermore|in addition|additionally|therefore|thus|hence|for example|for instance|as a result|consequently|in contrast|by contrast|on the other hand|nevertheless|nonetheless|finally|in fact|of course|in practice|in short|in other words|similarly|likewise|meanwhile|accordingly|that said|above all),\s+/i,
  de: /^(?:außerdem|zudem|ferner|dagegen|schließlich|zum beispiel|allerdings),\s+/i,
  es: /^(?:sin embargo|además|por tanto|por lo tanto|por ejemplo|en cambio|finalmente|así pues|de hecho),\s+/i,
  fr: /^(?:cependant|de plus|en outre|par exemple|par conséquent|en revanche|enfin|en effet|toutefois|ainsi),\s+/i
};
var LEADING = /^(?:when|if|as|while|because|since|although|though|after|before|once|unless|where|until|wenn|weil|obwohl|während|nachdem|cuando|si|aunque|porque|mientras|quand|lorsque|si|bien que|comme)\b[^,]*,\s+/i;
var CLAUSE = /;|\s[–—]\s|:\s|,\s(?=(?:which|who|whose|where|when|whereas|while|although|though|because|since|so|but|and|or|as|with|including|especially|particularly|welche|die|der|das|weil|aber|und|que|donde|pero|porque|y|qui|où|mais|et|car)\b)|\s(?=(?:because|although|whereas|unless|so that|weil|obwohl|porque|aunque|parce que|afin)\b)/gi;
function trimmedRanges(sentence, language) {
  const words2 = (from2, to2) => countWords(sentence.slice(from2, to2));
  let from = 0;
  let to = sentence.length;
  const lead = CONNECTIVE[language.slice(0, 2)]?.exec(sentence);
  if (lead) from = lead[0].length;
  const aside = [];
  if (words2(from, to) > BUDGET) {
    for (const found of sentence.matchAll(/\s*[([][^()[\]]*[)\]]/g)) if (found.index > from) aside.push({ from: found.index, to: found.index + found[0].length });
  }
  const left = () => words2(from, to) - aside.reduce((sum, range) => sum + (range.to <= to ? words2(range.from, range.to) : 0), 0);
  if (left() > BUDGET) {
    const ends = [...sentence.matchAll(CLAUSE)].map(({ index }) => index).filter((end) => end > from && words2(from, end) >= SHORTEST + 1 && !aside.some((range) => end > range.from && end < range.to));
    const whole = to;
    const fitting = ends.filter((end) => {
      to = end;
      return left() <= BUDGET;
    });
    to = fitting.at(-1) ?? whole;
  }
  if (left() > BUDGET) {
    const subordinate = LEADING.exec(sentence.slice(from));
    if (subordinate && words2(from + subordinate[0].length, to) >= SHORTEST) from += subordinate[0].length;
  }
  let cut2 = false;
  if (left() > BUDGET) {
    const word = /[\p{L}\p{N}]+(?:['’.,-][\p{L}\p{N}]+)*/gu;
    const ends = [];
    for (const found of sentence.matchAll(word)) if (found.index >= from && !aside.some((range) => found.index >= range.from && found.index < range.to)) ends.push(found.index + found[0].length);
    let last = Math.min(BUDGET, ends.length) - 1;
    while (last > SHORTEST && /(?:^|[^\p{L}\p{N}])[\p{L}]{1,3}$/u.test(sentence.slice(0, ends[last]))) last -= 1;
    to = ends[last] ?? to;
    cut2 = true;
  }
  const ranges = [];
  let at = from;
  for (const range of aside) {
    if (range.from >= to) break;
    if (range.from > at) ranges.push({ from: at, to: range.from });
    at = Math.max(at, range.to);
  }
  if (at < to) ranges.push({ from: at, to });
  return { ranges, cut: cut2 };
}
function slice(runs, from, to) {
  const found = [];
  let at = 0;
  for (const item of runs) {
    const end = at + item.text.length;
    if (item.footnote) {
      if (at > from && at <= to) found.push(item);
    } else if (end > from && at < to) found.push({ ...item, text: item.text.slice(Math.max(0, from - at), to - at) });
    at = end;
  }
  return found;
}
function trimToPoint(runs, language) {
  const sentence = runs.map(({ text }) => text).join("");
  const { ranges, cut: cut2 } = trimmedRanges(sentence, language);
  const kept3 = joinRuns(ranges.flatMap(({ from, to }) => slice(runs, from, to)).filter(({ footnote: footnote2 }) => !footnote2));
  const last = kept3.at(-1);
  if (last && !last.marks?.includes("formula")) kept3[kept3.length - 1] = { ...last, text: `${last.text.replace(/[\s.,;:–—-]+$/u, "")}${cut2 ? "\u2026" : ""}` };
  const first = kept3[0];
  if (first && !first.marks) kept3[0] = { ...first, text: first.text.charAt(0).toLocaleUpperCase(language) + first.text.slice(1) };
  return joinRuns([...kept3, ...runs.filter(({ footnote: footnote2 }) => footnote2)]);
}
function sentencesOf(paragraph, language) {
  const text = paragraphText(paragraph);
  const ranges = sentenceRanges(text, language);
  return ranges.map(({ from, to }, at) => ({ sentence: text.slice(from, to), runs: slice(paragraph.runs, at ? from : -1, Math.max(to, at === ranges.length - 1 ? text.length : ranges[at + 1]?.from ?? to)).map((item) => item) })).map(({ sentence, runs }) => ({ sentence, runs: trimEnds(runs) }));
}
function trimEnds(runs) {
  const kept3 = runs.slice();
  const last = kept3.findLastIndex(({ footnote: footnote2 }) => !footnote2);
  if (last >= 0) kept3[last] = { ...kept3[last], text: kept3[last].text.trimEnd() };
  return kept3.filter(({ text, footnote: footnote2 }) => text !== "" || footnote2);
}
var takenOnce = /* @__PURE__ */ new WeakMap();
function takenFrom(paragraph, language) {
  const known = takenOnce.get(paragraph);
  if (known?.language === language) return known.taken;
  const taken = sentencesOf(paragraph, language).map(({ sentence, runs }) => {
    const own2 = trimToPoint(runs, language);
    return { sentence: rankable(sentence), runs, words: countWords(sentence), bullet: { kind: "bullet", level: 0, runs: own2 }, point: own2.map(({ text }) => text).join("") };
  });
  takenOnce.set(paragraph, { language, taken });
  return taken;
}
function pointsOf(prose, language, choices) {
  const list = prose.flatMap((paragraph, at) => takenFrom(paragraph, language).map((taken) => ({ taken, paragraph: at })));
  const ranks = rankSentences(list.map(({ taken }) => taken.sentence));
  const order = list.map((_, at) => at).sort((a, b) => ranks[b] - ranks[a] || a - b);
  const wanted = Math.max(1, Math.min(MOST2, Math.round(list.length * 0.4)), Math.min(prose.length, MOST2));
  const chosen = /* @__PURE__ */ new Set();
  const wordsAt = (at) => list[at].taken.words;
  const given = /* @__PURE__ */ new Set();
  for (const at of order) {
    const { paragraph } = list[at];
    if (given.has(paragraph) || wordsAt(at) < 3) continue;
    given.add(paragraph);
    chosen.add(at);
  }
  for (const at of order) {
    if (chosen.size >= wanted) break;
    if (wordsAt(at) >= SHORTEST) chosen.add(at);
  }
  return list.map(({ taken, paragraph }, at) => {
    const { text: sentence } = taken.sentence;
    const choice = choices.get(sentence);
    if (choice?.point) return { sentence, point: choice.point, chosen: true, edited: true, paragraph, bullet: { kind: "bullet", level: 0, runs: [{ text: choice.point }, ...taken.runs.filter(({ footnote: footnote2 }) => footnote2)] } };
    return { sentence, point: taken.point, chosen: choice ? false : chosen.has(at), edited: choice !== void 0, paragraph, bullet: taken.bullet };
  });
}

// core/generate/destination.ts
var SHORT = 14;
var isProse = ({ kind, level, runs }) => kind === "plain" && level === 0 && !runs.every(({ marks }) => marks?.includes("strong"));
function without2(paragraph, shown) {
  return paragraph.runs.some(({ footnote: footnote2 }) => footnote2 && shown.has(footnote2)) ? { ...paragraph, runs: paragraph.runs.filter(({ footnote: footnote2 }) => !footnote2 || !shown.has(footnote2)) } : paragraph;
}
function hasMoreWords(text, most) {
  let words2 = 0;
  return text.some((paragraph) => (words2 += countWords(paragraphText(paragraph))) > most);
}
var toSlide = ({ flow: flow2 }) => ({ parts: [{ flow: flow2, notes: [] }], points: [] });
var toNotes = ({ flow: flow2 }) => ({
  parts: [{ flow: flow2.filter(({ kind }) => kind !== "text"), notes: flow2.flatMap((item) => item.kind === "text" ? item.text : []) }],
  points: []
});
var CROWD = 6;
var toBoth = ({ flow: flow2 }, language, choices) => {
  const prose = flow2.flatMap((item) => item.kind === "text" && !item.quote ? item.text.filter(isProse) : []);
  const short = !hasMoreWords(prose, SHORT) && !prose.some((paragraph) => paragraph.runs.some(({ text }) => choices.has(text)));
  const taken = short ? [] : pointsOf(prose, language, choices);
  const byParagraph = prose.map(() => []);
  for (const point of taken) byParagraph[point.paragraph]?.push(point);
  let nth = 0;
  const chosen = taken.filter((point) => point.chosen).length;
  const most = Math.ceil(chosen / Math.ceil(chosen / CROWD));
  const shown = /* @__PURE__ */ new Set();
  const parts = [{ flow: [], notes: [] }];
  let count2 = 0;
  for (const item of flow2) {
    let part = parts.at(-1);
    if (item.kind !== "text" || item.quote) {
      part.flow.push(item);
      continue;
    }
    let text = [];
    let lines2 = [];
    const close = () => {
      if (text.length) part.flow.push({ ...item, text, lines: lines2 });
      text = [];
      lines2 = [];
    };
    item.text.forEach((paragraph, at) => {
      const line2 = item.lines[at] ?? item.lines[0] ?? 1;
      const put = (next2) => {
        for (const { footnote: footnote2 } of next2.runs) if (footnote2) shown.add(footnote2);
        text.push(next2);
        lines2.push(line2);
      };
      if (isProse(paragraph) && !short) {
        const own2 = (byParagraph[nth++] ?? []).filter((point) => point.chosen);
        if (own2.length && count2 + own2.length > most && count2 > 0) {
          close();
          part = { flow: [], notes: [] };
          parts.push(part);
          count2 = 0;
        }
        for (const point of own2) put(point.bullet);
        count2 += own2.length;
        part.notes.push(paragraph);
      } else if (paragraph.kind !== "plain" && countWords(paragraphText(paragraph)) > SHORT * 1.5) {
        put({ ...paragraph, runs: trimToPoint(paragraph.runs, language) });
        part.notes.push({ ...paragraph, kind: "plain", level: 0 });
      } else put(paragraph);
    });
    close();
  }
  return { parts: parts.map((part) => ({ ...part, notes: part.notes.map((paragraph) => without2(paragraph, shown)) })), points: taken.map(({ bullet: _, ...point }) => point) };
};
var DESTINATIONS = { slide: toSlide, notes: toNotes, both: toBoth };
function destined(draft, rule, language, choices) {
  const { parts, points: points2 } = DESTINATIONS[rule.body](draft, language, choices);
  const [first, ...rest] = parts;
  return { parts: isEmptyText(draft.notes) ? parts : [{ ...first, notes: [...first.notes, ...draft.notes] }, ...rest], points: points2 };
}

// core/layout/fonts/catalogue.json
var catalogue_default = [
  {
    family: "Noto Sans",
    faces: [
      {
        id: "noto-sans-latin-400-normal",
        package: "noto-sans",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20-7e,a0-ff,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2212,feff,fffd"
      },
      {
        id: "noto-sans-latin-ext-400-normal",
        package: "noto-sans",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,a0,100-130,132-151,154-2ba,2bc-2c5,2c7-2cc,2ce-2d7,2dd-301,303-304,308-309,323,329,1d00-1dbf,1e00-1e9f,1ef2-1eff,2020,20a0-20ab,20ad-20c0,2113,2c60-2c7f,a720-a7ca,a7d0-a7d1,a7d3,a7d5-a7d9,a7f2-a7ff"
      },
      {
        id: "noto-sans-greek-400-normal",
        package: "noto-sans",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,a0,370-377,37a-37f,384-38a,38c,38e-3a1,3a3-3e1,3f0-3ff"
      },
      {
        id: "noto-sans-greek-ext-400-normal",
        package: "noto-sans",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,a0,1f00-1f15,1f18-1f1d,1f20-1f45,1f48-1f4d,1f50-1f57,1f59,1f5b,1f5d,1f5f-1f7d,1f80-1fb4,1fb6-1fc4,1fc6-1fd3,1fd6-1fdb,1fdd-1fef,1ff2-1ff4,1ff6-1ffe"
      },
      {
        id: "noto-sans-cyrillic-400-normal",
        package: "noto-sans",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,a0,301,400-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "noto-sans-cyrillic-ext-400-normal",
        package: "noto-sans",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,a0,460-48f,492-4af,4b2-52f,1c80-1c88,20b4,2de0-2dff,a640-a69f,fe2e-fe2f"
      },
      {
        id: "noto-sans-vietnamese-400-normal",
        package: "noto-sans",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,a0,102-103,110-111,128-129,168-169,1a0-1a1,1af-1b0,300-301,303-304,308-309,323,329,1ea0-1ef9,20ab"
      },
      {
        id: "noto-sans-latin-700-normal",
        package: "noto-sans",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20-7e,a0-ff,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2212,feff,fffd"
      },
      {
        id: "noto-sans-latin-ext-700-normal",
        package: "noto-sans",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,a0,100-130,132-151,154-2ba,2bc-2c5,2c7-2cc,2ce-2d7,2dd-301,303-304,308-309,323,329,1d00-1dbf,1e00-1e9f,1ef2-1eff,2020,20a0-20ab,20ad-20c0,2113,2c60-2c7f,a720-a7ca,a7d0-a7d1,a7d3,a7d5-a7d9,a7f2-a7ff"
      },
      {
        id: "noto-sans-greek-700-normal",
        package: "noto-sans",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,a0,370-377,37a-37f,384-38a,38c,38e-3a1,3a3-3e1,3f0-3ff"
      },
      {
        id: "noto-sans-greek-ext-700-normal",
        package: "noto-sans",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,a0,1f00-1f15,1f18-1f1d,1f20-1f45,1f48-1f4d,1f50-1f57,1f59,1f5b,1f5d,1f5f-1f7d,1f80-1fb4,1fb6-1fc4,1fc6-1fd3,1fd6-1fdb,1fdd-1fef,1ff2-1ff4,1ff6-1ffe"
      },
      {
        id: "noto-sans-cyrillic-700-normal",
        package: "noto-sans",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,a0,301,400-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "noto-sans-cyrillic-ext-700-normal",
        package: "noto-sans",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,a0,460-48f,492-4af,4b2-52f,1c80-1c88,20b4,2de0-2dff,a640-a69f,fe2e-fe2f"
      },
      {
        id: "noto-sans-vietnamese-700-normal",
        package: "noto-sans",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,a0,102-103,110-111,128-129,168-169,1a0-1a1,1af-1b0,300-301,303-304,308-309,323,329,1ea0-1ef9,20ab"
      },
      {
        id: "noto-sans-latin-400-italic",
        package: "noto-sans",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20-7e,a0-ff,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2212,feff,fffd"
      },
      {
        id: "noto-sans-latin-ext-400-italic",
        package: "noto-sans",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,a0,100-130,132-151,154-2ba,2bc-2c5,2c7-2cc,2ce-2d7,2dd-301,303-304,308-309,323,329,1d00-1dbf,1e00-1e9f,1ef2-1eff,2020,20a0-20ab,20ad-20bf,2113,2c60-2c7f,a720-a7ca,a7d0-a7d1,a7d3,a7d5-a7d9,a7f2-a7ff"
      },
      {
        id: "noto-sans-greek-400-italic",
        package: "noto-sans",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,a0,370-377,37a-37f,384-38a,38c,38e-3a1,3a3-3e1,3f0-3ff"
      },
      {
        id: "noto-sans-greek-ext-400-italic",
        package: "noto-sans",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,a0,1f00-1f15,1f18-1f1d,1f20-1f45,1f48-1f4d,1f50-1f57,1f59,1f5b,1f5d,1f5f-1f7d,1f80-1fb4,1fb6-1fc4,1fc6-1fd3,1fd6-1fdb,1fdd-1fef,1ff2-1ff4,1ff6-1ffe"
      },
      {
        id: "noto-sans-cyrillic-400-italic",
        package: "noto-sans",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,a0,301,400-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "noto-sans-cyrillic-ext-400-italic",
        package: "noto-sans",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,a0,460-48f,492-4af,4b2-52f,1c80-1c88,20b4,2de0-2dff,a640-a69f,fe2e-fe2f"
      },
      {
        id: "noto-sans-vietnamese-400-italic",
        package: "noto-sans",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,a0,102-103,110-111,128-129,168-169,1a0-1a1,1af-1b0,300-301,303-304,308-309,323,329,1ea0-1ef9,20ab"
      },
      {
        id: "noto-sans-latin-700-italic",
        package: "noto-sans",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20-7e,a0-ff,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2212,feff,fffd"
      },
      {
        id: "noto-sans-latin-ext-700-italic",
        package: "noto-sans",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,a0,100-130,132-151,154-2ba,2bc-2c5,2c7-2cc,2ce-2d7,2dd-301,303-304,308-309,323,329,1d00-1dbf,1e00-1e9f,1ef2-1eff,2020,20a0-20ab,20ad-20bf,2113,2c60-2c7f,a720-a7ca,a7d0-a7d1,a7d3,a7d5-a7d9,a7f2-a7ff"
      },
      {
        id: "noto-sans-greek-700-italic",
        package: "noto-sans",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,a0,370-377,37a-37f,384-38a,38c,38e-3a1,3a3-3e1,3f0-3ff"
      },
      {
        id: "noto-sans-greek-ext-700-italic",
        package: "noto-sans",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,a0,1f00-1f15,1f18-1f1d,1f20-1f45,1f48-1f4d,1f50-1f57,1f59,1f5b,1f5d,1f5f-1f7d,1f80-1fb4,1fb6-1fc4,1fc6-1fd3,1fd6-1fdb,1fdd-1fef,1ff2-1ff4,1ff6-1ffe"
      },
      {
        id: "noto-sans-cyrillic-700-italic",
        package: "noto-sans",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,a0,301,400-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "noto-sans-cyrillic-ext-700-italic",
        package: "noto-sans",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,a0,460-48f,492-4af,4b2-52f,1c80-1c88,20b4,2de0-2dff,a640-a69f,fe2e-fe2f"
      },
      {
        id: "noto-sans-vietnamese-700-italic",
        package: "noto-sans",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,a0,102-103,110-111,128-129,168-169,1a0-1a1,1af-1b0,300-301,303-304,308-309,323,329,1ea0-1ef9,20ab"
      }
    ]
  },
  {
    family: "Atkinson Hyperlegible Next",
    faces: [
      {
        id: "atkinson-hyperlegible-next-latin-400-normal",
        package: "atkinson-hyperlegible-next",
        weight: 400,
        slant: "normal",
        ranges: "20-7e,a0-ac,ae-b4,b6-ff,102,131,152-153,2c6,2da,2dc,300-301,303-304,308,2009,2013-2014,2018-201a,201c-201e,2022,2026,2039-203a,2044,20ac,2122,2212,2215"
      },
      {
        id: "atkinson-hyperlegible-next-latin-ext-400-normal",
        package: "atkinson-hyperlegible-next",
        weight: 400,
        slant: "normal",
        ranges: "20,41,a0,c1,100-107,10a-113,116-11b,11e-123,126-127,12a-12b,12e-130,132-133,136-137,139-13e,141-148,150-151,154-155,158-15b,15e-165,16a-16b,16e-17e,192,218-21b,237,2c7,2c9,2dd,300-301,303-304,308,1e80-1e85,1e9e,1ef2-1ef3,2020,20b9,2113"
      },
      {
        id: "atkinson-hyperlegible-next-latin-700-normal",
        package: "atkinson-hyperlegible-next",
        weight: 700,
        slant: "normal",
        ranges: "20-7e,a0-ac,ae-b4,b6-ff,102,131,152-153,2c6,2da,2dc,300-301,303-304,308,2009,2013-2014,2018-201a,201c-201e,2022,2026,2039-203a,2044,20ac,2122,2212,2215"
      },
      {
        id: "atkinson-hyperlegible-next-latin-ext-700-normal",
        package: "atkinson-hyperlegible-next",
        weight: 700,
        slant: "normal",
        ranges: "20,41,a0,c1,100-107,10a-113,116-11b,11e-123,126-127,12a-12b,12e-130,132-133,136-137,139-13e,141-148,150-151,154-155,158-15b,15e-165,16a-16b,16e-17e,192,218-21b,237,2c7,2c9,2dd,300-301,303-304,308,1e80-1e85,1e9e,1ef2-1ef3,2020,20b9,2113"
      },
      {
        id: "atkinson-hyperlegible-next-latin-400-italic",
        package: "atkinson-hyperlegible-next",
        weight: 400,
        slant: "italic",
        ranges: "20-7e,a0-ac,ae-b4,b6-ff,102,131,152-153,2c6,2da,2dc,300-301,303-304,308,2009,2013-2014,2018-201a,201c-201e,2022,2026,2039-203a,2044,20ac,2122,2212,2215"
      },
      {
        id: "atkinson-hyperlegible-next-latin-ext-400-italic",
        package: "atkinson-hyperlegible-next",
        weight: 400,
        slant: "italic",
        ranges: "20,41,a0,c1,100-107,10a-113,116-11b,11e-123,126-127,12a-12b,12e-130,132-133,136-137,139-13e,141-148,150-151,154-155,158-15b,15e-165,16a-16b,16e-17e,192,218-21b,237,2c7,2c9,2dd,300-301,303-304,308,1e80-1e85,1e9e,1ef2-1ef3,2020,20b9,2113"
      },
      {
        id: "atkinson-hyperlegible-next-latin-700-italic",
        package: "atkinson-hyperlegible-next",
        weight: 700,
        slant: "italic",
        ranges: "20-7e,a0-ac,ae-b4,b6-ff,102,131,152-153,2c6,2da,2dc,300-301,303-304,308,2009,2013-2014,2018-201a,201c-201e,2022,2026,2039-203a,2044,20ac,2122,2212,2215"
      },
      {
        id: "atkinson-hyperlegible-next-latin-ext-700-italic",
        package: "atkinson-hyperlegible-next",
        weight: 700,
        slant: "italic",
        ranges: "20,41,a0,c1,100-107,10a-113,116-11b,11e-123,126-127,12a-12b,12e-130,132-133,136-137,139-13e,141-148,150-151,154-155,158-15b,15e-165,16a-16b,16e-17e,192,218-21b,237,2c7,2c9,2dd,300-301,303-304,308,1e80-1e85,1e9e,1ef2-1ef3,2020,20b9,2113"
      }
    ]
  },
  {
    family: "Literata",
    faces: [
      {
        id: "literata-latin-400-normal",
        package: "literata",
        weight: 400,
        slant: "normal",
        ranges: "20-7e,a0-ff,102,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215"
      },
      {
        id: "literata-latin-ext-400-normal",
        package: "literata",
        weight: 400,
        slant: "normal",
        ranges: "20,41,a0,c1,100-130,132-151,154-17e,18f,192,1a0-1a1,1af-1b0,1c4-1dc,1e6-1e7,1ea-1eb,1fa-21b,22a-22d,230-233,237,251,259,261,2b9-2ba,2bc,2be-2bf,2c7-2cc,2dd,300-301,303-304,308-309,323,1e08-1e09,1e0c-1e0f,1e14-1e17,1e1c-1e1d,1e20-1e21,1e24-1e25,1e2a-1e2b,1e2e-1e2f,1e36-1e3b,1e42-1e49,1e4c-1e53,1e5a-1e69,1e6c-1e6f,1e78-1e7b,1e80-1e85,1e8e-1e8f,1e92-1e93,1e97,1e9e,1ef2-1ef9,2020,20a1,20a3-20a4,20a6-20a7,20a9,20ab,20ad-20ae,20b1-20b2,20b4-20b5,20b8-20ba,20bc-20bd,2113"
      },
      {
        id: "literata-greek-400-normal",
        package: "literata",
        weight: 400,
        slant: "normal",
        ranges: "20,41,a0,c1,102,374-375,37a,37e,384-38a,38c,38e-3a1,3a3-3ce,3d7-3e1"
      },
      {
        id: "literata-greek-ext-400-normal",
        package: "literata",
        weight: 400,
        slant: "normal",
        ranges: "20,41,a0,c1,102,1f00-1f15,1f18-1f1d,1f20-1f45,1f48-1f4d,1f50-1f57,1f59,1f5b,1f5d,1f5f-1f7d,1f80-1fb4,1fb6-1fc4,1fc6-1fd3,1fd6-1fdb,1fdd-1fef,1ff2-1ff4,1ff6-1ffe"
      },
      {
        id: "literata-cyrillic-400-normal",
        package: "literata",
        weight: 400,
        slant: "normal",
        ranges: "20,41,a0,c1,102,301,401-44f,451-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "literata-cyrillic-ext-400-normal",
        package: "literata",
        weight: 400,
        slant: "normal",
        ranges: "20,41,a0,c1,102,462-463,46a-46b,492-493,496-497,49a-49b,4a2-4a3,4ae-4af,4ba-4bb,4d8-4d9,4e8-4e9,20b4"
      },
      {
        id: "literata-vietnamese-400-normal",
        package: "literata",
        weight: 400,
        slant: "normal",
        ranges: "20,41,a0,c1,102-103,110-111,128-129,168-169,1a0-1a1,1af-1b0,300-301,303-304,308-309,323,1ea0-1ef9,20ab"
      },
      {
        id: "literata-latin-700-normal",
        package: "literata",
        weight: 700,
        slant: "normal",
        ranges: "20-7e,a0-ff,102,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215"
      },
      {
        id: "literata-latin-ext-700-normal",
        package: "literata",
        weight: 700,
        slant: "normal",
        ranges: "20,41,a0,c1,100-130,132-151,154-17e,18f,192,1a0-1a1,1af-1b0,1c4-1dc,1e6-1e7,1ea-1eb,1fa-21b,22a-22d,230-233,237,251,259,261,2b9-2ba,2bc,2be-2bf,2c7-2cc,2dd,300-301,303-304,308-309,323,1e08-1e09,1e0c-1e0f,1e14-1e17,1e1c-1e1d,1e20-1e21,1e24-1e25,1e2a-1e2b,1e2e-1e2f,1e36-1e3b,1e42-1e49,1e4c-1e53,1e5a-1e69,1e6c-1e6f,1e78-1e7b,1e80-1e85,1e8e-1e8f,1e92-1e93,1e97,1e9e,1ef2-1ef9,2020,20a1,20a3-20a4,20a6-20a7,20a9,20ab,20ad-20ae,20b1-20b2,20b4-20b5,20b8-20ba,20bc-20bd,2113"
      },
      {
        id: "literata-greek-700-normal",
        package: "literata",
        weight: 700,
        slant: "normal",
        ranges: "20,41,a0,c1,102,374-375,37a,37e,384-38a,38c,38e-3a1,3a3-3ce,3d7-3e1"
      },
      {
        id: "literata-greek-ext-700-normal",
        package: "literata",
        weight: 700,
        slant: "normal",
        ranges: "20,41,a0,c1,102,1f00-1f15,1f18-1f1d,1f20-1f45,1f48-1f4d,1f50-1f57,1f59,1f5b,1f5d,1f5f-1f7d,1f80-1fb4,1fb6-1fc4,1fc6-1fd3,1fd6-1fdb,1fdd-1fef,1ff2-1ff4,1ff6-1ffe"
      },
      {
        id: "literata-cyrillic-700-normal",
        package: "literata",
        weight: 700,
        slant: "normal",
        ranges: "20,41,a0,c1,102,301,401-44f,451-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "literata-cyrillic-ext-700-normal",
        package: "literata",
        weight: 700,
        slant: "normal",
        ranges: "20,41,a0,c1,102,462-463,46a-46b,492-493,496-497,49a-49b,4a2-4a3,4ae-4af,4ba-4bb,4d8-4d9,4e8-4e9,20b4"
      },
      {
        id: "literata-vietnamese-700-normal",
        package: "literata",
        weight: 700,
        slant: "normal",
        ranges: "20,41,a0,c1,102-103,110-111,128-129,168-169,1a0-1a1,1af-1b0,300-301,303-304,308-309,323,1ea0-1ef9,20ab"
      },
      {
        id: "literata-latin-400-italic",
        package: "literata",
        weight: 400,
        slant: "italic",
        ranges: "20-7e,a0-ff,102,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215"
      },
      {
        id: "literata-latin-ext-400-italic",
        package: "literata",
        weight: 400,
        slant: "italic",
        ranges: "20,41,a0,c1,100-130,132-151,154-17e,18f,192,1a0-1a1,1af-1b0,1c4-1dc,1e6-1e7,1ea-1eb,1fa-21b,22a-22d,230-233,237,251,259,261,2b9-2ba,2bc,2be-2bf,2c7-2cc,2dd,300-301,303-304,308-309,323,1e08-1e09,1e0c-1e0f,1e14-1e17,1e1c-1e1d,1e20-1e21,1e24-1e25,1e2a-1e2b,1e2e-1e2f,1e36-1e3b,1e42-1e49,1e4c-1e53,1e5a-1e69,1e6c-1e6f,1e78-1e7b,1e80-1e85,1e8e-1e8f,1e92-1e93,1e97,1e9e,1ef2-1ef9,2020,20a1,20a3-20a4,20a6-20a7,20a9,20ab,20ad-20ae,20b1-20b2,20b4-20b5,20b8-20ba,20bc-20bd,2113"
      },
      {
        id: "literata-greek-400-italic",
        package: "literata",
        weight: 400,
        slant: "italic",
        ranges: "20,41,a0,c1,102,374-375,37a,37e,384-38a,38c,38e-3a1,3a3-3ce,3d7-3e1"
      },
      {
        id: "literata-greek-ext-400-italic",
        package: "literata",
        weight: 400,
        slant: "italic",
        ranges: "20,41,a0,c1,102,1f00-1f15,1f18-1f1d,1f20-1f45,1f48-1f4d,1f50-1f57,1f59,1f5b,1f5d,1f5f-1f7d,1f80-1fb4,1fb6-1fc4,1fc6-1fd3,1fd6-1fdb,1fdd-1fef,1ff2-1ff4,1ff6-1ffe"
      },
      {
        id: "literata-cyrillic-400-italic",
        package: "literata",
        weight: 400,
        slant: "italic",
        ranges: "20,41,a0,c1,102,301,401-44f,451-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "literata-cyrillic-ext-400-italic",
        package: "literata",
        weight: 400,
        slant: "italic",
        ranges: "20,41,a0,c1,102,462-463,46a-46b,492-493,496-497,49a-49b,4a2-4a3,4ae-4af,4ba-4bb,4d8-4d9,4e8-4e9,20b4"
      },
      {
        id: "literata-vietnamese-400-italic",
        package: "literata",
        weight: 400,
        slant: "italic",
        ranges: "20,41,a0,c1,102-103,110-111,128-129,168-169,1a0-1a1,1af-1b0,300-301,303-304,308-309,323,1ea0-1ef9,20ab"
      },
      {
        id: "literata-latin-700-italic",
        package: "literata",
        weight: 700,
        slant: "italic",
        ranges: "20-7e,a0-ff,102,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215"
      },
      {
        id: "literata-latin-ext-700-italic",
        package: "literata",
        weight: 700,
        slant: "italic",
        ranges: "20,41,a0,c1,100-130,132-151,154-17e,18f,192,1a0-1a1,1af-1b0,1c4-1dc,1e6-1e7,1ea-1eb,1fa-21b,22a-22d,230-233,237,251,259,261,2b9-2ba,2bc,2be-2bf,2c7-2cc,2dd,300-301,303-304,308-309,323,1e08-1e09,1e0c-1e0f,1e14-1e17,1e1c-1e1d,1e20-1e21,1e24-1e25,1e2a-1e2b,1e2e-1e2f,1e36-1e3b,1e42-1e49,1e4c-1e53,1e5a-1e69,1e6c-1e6f,1e78-1e7b,1e80-1e85,1e8e-1e8f,1e92-1e93,1e97,1e9e,1ef2-1ef9,2020,20a1,20a3-20a4,20a6-20a7,20a9,20ab,20ad-20ae,20b1-20b2,20b4-20b5,20b8-20ba,20bc-20bd,2113"
      },
      {
        id: "literata-greek-700-italic",
        package: "literata",
        weight: 700,
        slant: "italic",
        ranges: "20,41,a0,c1,102,374-375,37a,37e,384-38a,38c,38e-3a1,3a3-3ce,3d7-3e1"
      },
      {
        id: "literata-greek-ext-700-italic",
        package: "literata",
        weight: 700,
        slant: "italic",
        ranges: "20,41,a0,c1,102,1f00-1f15,1f18-1f1d,1f20-1f45,1f48-1f4d,1f50-1f57,1f59,1f5b,1f5d,1f5f-1f7d,1f80-1fb4,1fb6-1fc4,1fc6-1fd3,1fd6-1fdb,1fdd-1fef,1ff2-1ff4,1ff6-1ffe"
      },
      {
        id: "literata-cyrillic-700-italic",
        package: "literata",
        weight: 700,
        slant: "italic",
        ranges: "20,41,a0,c1,102,301,401-44f,451-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "literata-cyrillic-ext-700-italic",
        package: "literata",
        weight: 700,
        slant: "italic",
        ranges: "20,41,a0,c1,102,462-463,46a-46b,492-493,496-497,49a-49b,4a2-4a3,4ae-4af,4ba-4bb,4d8-4d9,4e8-4e9,20b4"
      },
      {
        id: "literata-vietnamese-700-italic",
        package: "literata",
        weight: 700,
        slant: "italic",
        ranges: "20,41,a0,c1,102-103,110-111,128-129,168-169,1a0-1a1,1af-1b0,300-301,303-304,308-309,323,1ea0-1ef9,20ab"
      }
    ]
  },
  {
    family: "JetBrains Mono",
    faces: [
      {
        id: "jetbrains-mono-latin-400-normal",
        package: "jetbrains-mono",
        weight: 400,
        slant: "normal",
        ranges: "d,20-7e,a0-ff,102,131,152-153,2bc,2c6,2da,2dc,300-301,303-304,308-309,323,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff"
      },
      {
        id: "jetbrains-mono-latin-ext-400-normal",
        package: "jetbrains-mono",
        weight: 400,
        slant: "normal",
        ranges: "d,20,41,a0,c1,100-130,134-151,154-17f,18f,192,1a0-1a1,1af-1b0,1cd-1ce,1e6-1e7,1ea-1eb,1f4-1f5,1fc-1ff,218-21b,232-233,237,259,2b9-2ba,2bc,2c7,2c9,2dd,2f3,2f7,300-301,303-304,308-309,323,1e80-1e85,1e9e,1ef2-1ef9,2020,20ab,20ae,20bd,20bf,2113"
      },
      {
        id: "jetbrains-mono-greek-400-normal",
        package: "jetbrains-mono",
        weight: 400,
        slant: "normal",
        ranges: "d,20,41,a0,c1,102,374-375,37e,384-38a,38c,38e-3a1,3a3-3cf,3d7"
      },
      {
        id: "jetbrains-mono-cyrillic-400-normal",
        package: "jetbrains-mono",
        weight: 400,
        slant: "normal",
        ranges: "d,20,41,a0,c1,102,301,401-40c,40e-44f,451-45c,45e-45f,490-491,2116"
      },
      {
        id: "jetbrains-mono-cyrillic-ext-400-normal",
        package: "jetbrains-mono",
        weight: 400,
        slant: "normal",
        ranges: "d,20,41,a0,c1,102,4ae-4af,4e8-4e9"
      },
      {
        id: "jetbrains-mono-vietnamese-400-normal",
        package: "jetbrains-mono",
        weight: 400,
        slant: "normal",
        ranges: "d,20,41,a0,c1,102-103,110-111,128-129,168-169,1a0-1a1,1af-1b0,300-301,303-304,308-309,323,1ea0-1ef9,20ab"
      },
      {
        id: "jetbrains-mono-latin-700-normal",
        package: "jetbrains-mono",
        weight: 700,
        slant: "normal",
        ranges: "d,20-7e,a0-ff,102,131,152-153,2bc,2c6,2da,2dc,300-301,303-304,308-309,323,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff"
      },
      {
        id: "jetbrains-mono-latin-ext-700-normal",
        package: "jetbrains-mono",
        weight: 700,
        slant: "normal",
        ranges: "d,20,41,a0,c1,100-130,134-151,154-17f,18f,192,1a0-1a1,1af-1b0,1cd-1ce,1e6-1e7,1ea-1eb,1f4-1f5,1fc-1ff,218-21b,232-233,237,259,2b9-2ba,2bc,2c7,2c9,2dd,2f3,2f7,300-301,303-304,308-309,323,1e80-1e85,1e9e,1ef2-1ef9,2020,20ab,20ae,20bd,20bf,2113"
      },
      {
        id: "jetbrains-mono-greek-700-normal",
        package: "jetbrains-mono",
        weight: 700,
        slant: "normal",
        ranges: "d,20,41,a0,c1,102,374-375,37e,384-38a,38c,38e-3a1,3a3-3cf,3d7"
      },
      {
        id: "jetbrains-mono-cyrillic-700-normal",
        package: "jetbrains-mono",
        weight: 700,
        slant: "normal",
        ranges: "d,20,41,a0,c1,102,301,401-40c,40e-44f,451-45c,45e-45f,490-491,2116"
      },
      {
        id: "jetbrains-mono-cyrillic-ext-700-normal",
        package: "jetbrains-mono",
        weight: 700,
        slant: "normal",
        ranges: "d,20,41,a0,c1,102,4ae-4af,4e8-4e9"
      },
      {
        id: "jetbrains-mono-vietnamese-700-normal",
        package: "jetbrains-mono",
        weight: 700,
        slant: "normal",
        ranges: "d,20,41,a0,c1,102-103,110-111,128-129,168-169,1a0-1a1,1af-1b0,300-301,303-304,308-309,323,1ea0-1ef9,20ab"
      },
      {
        id: "jetbrains-mono-latin-400-italic",
        package: "jetbrains-mono",
        weight: 400,
        slant: "italic",
        ranges: "d,20-7e,a0-ff,102,131,152-153,2bc,2c6,2da,2dc,300-301,303-304,308-309,323,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff"
      },
      {
        id: "jetbrains-mono-latin-ext-400-italic",
        package: "jetbrains-mono",
        weight: 400,
        slant: "italic",
        ranges: "d,20,41,a0,c1,100-130,134-151,154-17f,18f,192,1a0-1a1,1af-1b0,1cd-1ce,1e6-1e7,1ea-1eb,1f4-1f5,1fc-1ff,218-21b,232-233,237,259,2b9-2ba,2bc,2c7,2c9,2dd,2f3,2f7,300-301,303-304,308-309,323,1e80-1e85,1e9e,1ef2-1ef9,2020,20ab,20ae,20bd,20bf,2113"
      },
      {
        id: "jetbrains-mono-greek-400-italic",
        package: "jetbrains-mono",
        weight: 400,
        slant: "italic",
        ranges: "d,20,41,a0,c1,102,374-375,37e,384-38a,38c,38e-3a1,3a3-3cf,3d7"
      },
      {
        id: "jetbrains-mono-cyrillic-400-italic",
        package: "jetbrains-mono",
        weight: 400,
        slant: "italic",
        ranges: "d,20,41,a0,c1,102,301,401-40c,40e-44f,451-45c,45e-45f,490-491,2116"
      },
      {
        id: "jetbrains-mono-cyrillic-ext-400-italic",
        package: "jetbrains-mono",
        weight: 400,
        slant: "italic",
        ranges: "d,20,41,a0,c1,102,4ae-4af,4e8-4e9"
      },
      {
        id: "jetbrains-mono-vietnamese-400-italic",
        package: "jetbrains-mono",
        weight: 400,
        slant: "italic",
        ranges: "d,20,41,a0,c1,102-103,110-111,128-129,168-169,1a0-1a1,1af-1b0,300-301,303-304,308-309,323,1ea0-1ef9,20ab"
      },
      {
        id: "jetbrains-mono-latin-700-italic",
        package: "jetbrains-mono",
        weight: 700,
        slant: "italic",
        ranges: "d,20-7e,a0-ff,102,131,152-153,2bc,2c6,2da,2dc,300-301,303-304,308-309,323,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff"
      },
      {
        id: "jetbrains-mono-latin-ext-700-italic",
        package: "jetbrains-mono",
        weight: 700,
        slant: "italic",
        ranges: "d,20,41,a0,c1,100-130,134-151,154-17f,18f,192,1a0-1a1,1af-1b0,1cd-1ce,1e6-1e7,1ea-1eb,1f4-1f5,1fc-1ff,218-21b,232-233,237,259,2b9-2ba,2bc,2c7,2c9,2dd,2f3,2f7,300-301,303-304,308-309,323,1e80-1e85,1e9e,1ef2-1ef9,2020,20ab,20ae,20bd,20bf,2113"
      },
      {
        id: "jetbrains-mono-greek-700-italic",
        package: "jetbrains-mono",
        weight: 700,
        slant: "italic",
        ranges: "d,20,41,a0,c1,102,374-375,37e,384-38a,38c,38e-3a1,3a3-3cf,3d7"
      },
      {
        id: "jetbrains-mono-cyrillic-700-italic",
        package: "jetbrains-mono",
        weight: 700,
        slant: "italic",
        ranges: "d,20,41,a0,c1,102,301,401-40c,40e-44f,451-45c,45e-45f,490-491,2116"
      },
      {
        id: "jetbrains-mono-cyrillic-ext-700-italic",
        package: "jetbrains-mono",
        weight: 700,
        slant: "italic",
        ranges: "d,20,41,a0,c1,102,4ae-4af,4e8-4e9"
      },
      {
        id: "jetbrains-mono-vietnamese-700-italic",
        package: "jetbrains-mono",
        weight: 700,
        slant: "italic",
        ranges: "d,20,41,a0,c1,102-103,110-111,128-129,168-169,1a0-1a1,1af-1b0,300-301,303-304,308-309,323,1ea0-1ef9,20ab"
      }
    ]
  },
  {
    family: "Noto Sans Arabic",
    faces: [
      {
        id: "noto-sans-arabic-arabic-400-normal",
        package: "noto-sans-arabic",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,a0,600-6ff,750-77f,870-88e,890-891,898-8e1,8e3-8ff,200c-200e,2010-2011,204f,2e41,fb50-fbc2,fbd3-fd8f,fd92-fdc7,fdcf,fdf0-fdff,fe70-fe74,fe76-fefc,feff,10efd-10eff"
      },
      {
        id: "noto-sans-arabic-arabic-700-normal",
        package: "noto-sans-arabic",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,a0,600-6ff,750-77f,870-88e,890-891,898-8e1,8e3-8ff,200c-200e,2010-2011,204f,2e41,fb50-fbc2,fbd3-fd8f,fd92-fdc7,fdcf,fdf0-fdff,fe70-fe74,fe76-fefc,feff,10efd-10eff"
      }
    ]
  },
  {
    family: "Noto Sans Hebrew",
    faces: [
      {
        id: "noto-sans-hebrew-hebrew-400-normal",
        package: "noto-sans-hebrew",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,2d,a0,307-308,591-5c7,5d0-5ea,5ef-5f4,200c-2010,20aa,25cc,fb1d-fb36,fb38-fb3c,fb3e,fb40-fb41,fb43-fb44,fb46-fb4f"
      },
      {
        id: "noto-sans-hebrew-hebrew-700-normal",
        package: "noto-sans-hebrew",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,2d,a0,307-308,591-5c7,5d0-5ea,5ef-5f4,200c-2010,20aa,25cc,fb1d-fb36,fb38-fb3c,fb3e,fb40-fb41,fb43-fb44,fb46-fb4f"
      }
    ]
  },
  {
    family: "Noto Sans Symbols 2",
    faces: [
      {
        id: "noto-sans-symbols-2-math-400-normal",
        package: "noto-sans-symbols-2",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20-7e,a0,a7,d7,f7,302-303,307-308,312,326-327,2212,2218-2219,2299,22c4-22c6,25af,25b3,25b7,25bd,25c1,25ca,25cc,25fb,2981,29bf,29eb"
      },
      {
        id: "noto-sans-symbols-2-symbols-400-normal",
        package: "noto-sans-symbols-2",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,23,2a,30-39,41-5a,61-7a,7f,a0,2022,20e2-20e3,21af,21e6-21f0,21f3,2218-2219,2299,22c4-22c6,2316,2318,231a-231b,2324-2328,232b,237b,237d-237f,2394,23ce-23cf,23e9-23ea,23ed-23ef,23f1-2426,2440-244a,25a0-2609,260e-2612,2614-2623,2630-2637,263c,2654-2668,267f-268f,269e-26a1,26aa-26ac,26bd-26cd,26cf-26e1,2700-2704,2706-2709,270b-271c,2722-2727,2729-274b,274d,274f-2753,2756-2775,2794,2798-27af,27b1-27be,2800-28ff,2981,29bf,29eb,2b00-2b0d,2b12-2b2f,2b4d-2b73,2b76-2b95,2b97-2bfd,2bff,4dc0-4dff,fff9-fffb,10140-1018e,10190-1019c,101a0,101d0-101fd,102e0-102fb,10e60-10e7e,1d2c0-1d2d3,1d2e0-1d2f3,1d300-1d356,1d360-1d378,1f000-1f02b,1f030-1f093,1f0a0-1f0ae,1f0b1-1f0bf,1f0c1-1f0cf,1f0d1-1f0f5,1f10d-1f10f,1f16d-1f16f,1f1ad,1f30d-1f30f,1f315,1f31c,1f321-1f32c,1f336,1f378,1f37d,1f393-1f39f,1f3a7,1f3ac-1f3ae,1f3c2,1f3c4,1f3c6,1f3ca-1f3ce,1f3d4-1f3e0,1f3ed,1f3f1-1f3f3,1f3f5-1f3f7,1f408,1f415,1f41f,1f426,1f43f,1f441-1f442,1f446-1f449,1f44c-1f44e,1f453,1f46a,1f47d,1f4a3,1f4b0,1f4b3,1f4b9,1f4bb,1f4bf,1f4c8-1f4cb,1f4da,1f4df,1f4e4-1f4e6,1f4ea-1f4ed,1f4f7,1f4f9-1f4fb,1f4fd-1f4fe,1f503,1f507-1f50a,1f50d,1f512-1f513,1f53e-1f545,1f54a,1f550-1f579,1f57b-1f594,1f597-1f5a3,1f5a5-1f5fa,1f650-1f67f,1f687,1f68d,1f691,1f694,1f698,1f6ad,1f6b2,1f6b9-1f6ba,1f6bc,1f6c6-1f6cb,1f6cd-1f6cf,1f6d3-1f6d7,1f6e0-1f6ea,1f6f0-1f6f3,1f6f7-1f6fc,1f774-1f776,1f77b-1f7d9,1f7e0-1f7eb,1f800-1f80b,1f810-1f847,1f850-1f859,1f860-1f887,1f890-1f8ad,1f8b0-1f8b1,1f900-1f90b,1f93b,1f946,1fa00-1fa53,1fa60-1fa6d,1fa70-1fa74,1fa78-1fa7a,1fa80-1fa86,1fa90-1faa8,1fab0-1fab6,1fac0-1fac2,1fad0-1fad6,1fb00-1fb92,1fb94-1fbca,1fbf0-1fbf9"
      }
    ]
  },
  {
    family: "DejaVu Sans",
    faces: [
      {
        id: "dejavu-sans-latin-400-normal",
        package: "dejavu-sans",
        weight: 400,
        slant: "normal",
        ranges: "20-7e,a0-2e9,2ec-2ee,2f3,2f7,300-34f,351-353,357-358,35a,35c-362,370-377,37a-37f,384-38a,38c,38e-3a1,3a3-525,531-556,559-55f,561-587,589-58a,5b0-5c3,5c6-5c7,5d0-5ea,5f0-5f4,606-607,609-60a,60c,615,61b,61f,621-63a,640-655,657,65a,660-670,674,679-6bf,6c6-6c8,6cb-6cc,6ce,6d0,6d5,6f0-6f9,7c0-7e7,7eb-7f5,7f8-7fa,e3f,e81-e82,e84,e87-e88,e8a,e8d,e94-e97,e99-e9f,ea1-ea3,ea5,ea7,eaa-eab,ead-eb9,ebb-ebd,ec0-ec4,ec6,ec8-ecd,ed0-ed9,edc-edd,10a0-10c5,10d0-10fc,1401-1407,1409-141b,141d-1435,1437-144a,144c-1452,1454-14bd,14c0-14ea,14ec-1507,1510-153e,1540-1550,1552-156a,1574-1585,158a-1596,15a0-15af,15de,15e1,1646-1647,166e-1676,1680-169c,1d00-1d14,1d16-1d23,1d26-1d2e,1d30-1d5b,1d5d-1d6a,1d77-1d78,1d7b,1d7d,1d85,1d9b-1dbf,1dc4-1dc9,1e00-1efb,1f00-1f15,1f18-1f1d,1f20-1f45,1f48-1f4d,1f50-1f57,1f59,1f5b,1f5d,1f5f-1f7d,1f80-1fb4,1fb6-1fc4,1fc6-1fd3,1fd6-1fdb,1fdd-1fef,1ff2-1ff4,1ff6-1ffe,2000-2064,206a-2071,2074-208e,2090-209c,20a0-20b5,20b8-20ba,20bd,20d0-20d1,20d6-20d7,20db-20dc,20e1,2100-2109,210b-2149,214b,214e,2150-2185,2189,2190-2311,2318-2319,231c-2321,2324-2328,232b-232c,2373-2375,237a,237d,2387,2394,239b-23ae,23ce-23cf,23e3,23e5,23e8,2422-2423,2460-2469,2500-269c,269e-26b8,26c0-26c3,26e2,2701-2704,2706-2709,270c-2727,2729-274b,274d,274f-2752,2756,2758-275e,2761-2794,2798-27af,27b1-27be,27c5-27c6,27e0,27e6-27eb,27f0-28ff,2906-2907,290a-290b,2940-2941,2983-2984,29ce-29d5,29eb,29fa-29fb,2a00-2a02,2a0c-2a1c,2a2f,2a6a-2a6b,2a7d-2aa0,2aae-2aba,2af9-2afa,2b00-2b1a,2b1f-2b24,2b53-2b54,2c60-2c77,2c79-2c7f,2d00-2d25,2d30-2d65,2d6f,2e18,2e1f,2e22-2e25,2e2e,4dc0-4dff,a4d0-a4ff,a644-a647,a64c-a64d,a650-a651,a654-a657,a662-a66e,a68a-a68d,a694-a695,a698-a699,a708-a716,a71b-a71f,a722-a72b,a730-a741,a746-a74b,a74e-a753,a756-a757,a764-a767,a780-a783,a789-a78e,a790-a791,a7a0-a7aa,a7f8-a7ff,ef00-ef19,f000-f003,f400-f426,f428-f441,f6c5,fb00-fb06,fb13-fb17,fb1d-fb36,fb38-fb3c,fb3e,fb40-fb41,fb43-fb44,fb46-fb4f,fb52-fba3,fbaa-fbad,fbd3-fbdc,fbde-fbdf,fbe4-fbe9,fbfc-fbff,fe00-fe0f,fe20-fe23,fe70-fe74,fe76-fefc,feff,fff9-fffd,10300-1031e,10320-10323,1d300-1d356,1d538-1d539,1d53b-1d53e,1d540-1d544,1d546,1d54a-1d550,1d552-1d56b,1d5a0-1d5d3,1d7d8-1d7eb,1ee00-1ee03,1ee05-1ee1f,1ee21-1ee22,1ee24,1ee27,1ee29-1ee32,1ee34-1ee37,1ee39,1ee3b,1ee61-1ee62,1ee64,1ee67-1ee6a,1ee6c-1ee72,1ee74-1ee77,1ee79-1ee7c,1ee7e,1f030-1f093,1f0a0-1f0ae,1f0b1-1f0be,1f0c1-1f0cf,1f0d1-1f0df,1f311-1f318,1f42d-1f42e,1f431,1f435,1f600-1f623,1f625-1f62b,1f62d-1f640,1f643"
      },
      {
        id: "dejavu-sans-latin-700-normal",
        package: "dejavu-sans",
        weight: 700,
        slant: "normal",
        ranges: "20-7e,a0-2e9,2ec-2ee,2f3,2f7,300-34f,351-353,357-358,35a,35c-362,370-377,37a-37f,384-38a,38c,38e-3a1,3a3-525,531-556,559-55f,561-587,589-58a,5b0-5c3,5c6-5c7,5d0-5ea,5f0-5f4,606-607,609-60a,60c,615,61b,61f,621-63a,640-655,657,65a,660-670,674,679-6bf,6c6-6c8,6cb-6cc,6ce,6d0,6d5,6f0-6f9,7c0-7e7,7eb-7f5,7f8-7fa,e3f,e81-e82,e84,e87-e88,e8a,e8d,e94-e97,e99-e9f,ea1-ea3,ea5,ea7,eaa-eab,ead-eb9,ebb-ebd,ec0-ec4,ec6,ec8-ecd,ed0-ed9,edc-edd,10a0-10c5,10d0-10fc,1401-1407,1409-141b,141d-1435,1437-144a,144c-1452,1454-14bd,14c0-14ea,14ec-1507,1510-153e,1540-1550,1552-156a,1574-1585,158a-1596,15a0-15af,15de,15e1,1646-1647,166e-1676,1680-169c,1d00-1d14,1d16-1d23,1d26-1d2e,1d30-1d5b,1d5d-1d6a,1d77-1d78,1d7b,1d7d,1d85,1d9b-1dbf,1dc4-1dc9,1e00-1efb,1f00-1f15,1f18-1f1d,1f20-1f45,1f48-1f4d,1f50-1f57,1f59,1f5b,1f5d,1f5f-1f7d,1f80-1fb4,1fb6-1fc4,1fc6-1fd3,1fd6-1fdb,1fdd-1fef,1ff2-1ff4,1ff6-1ffe,2000-2064,206a-2071,2074-208e,2090-209c,20a0-20b5,20b8-20ba,20bd,20d0-20d1,20d6-20d7,20db-20dc,20e1,2100-2109,210b-2149,214b,214e,2150-2185,2189,2190-2311,2318-2319,231c-2321,2324-2328,232b-232c,2373-2375,237a,237d,2387,2394,239b-23ae,23ce-23cf,23e3,23e5,23e8,2422-2423,2460-2469,2500-269c,269e-26b8,26c0-26c3,26e2,2701-2704,2706-2709,270c-2727,2729-274b,274d,274f-2752,2756,2758-275e,2761-2794,2798-27af,27b1-27be,27c5-27c6,27e0,27e6-27eb,27f0-28ff,2906-2907,290a-290b,2940-2941,2983-2984,29ce-29d5,29eb,29fa-29fb,2a00-2a02,2a0c-2a1c,2a2f,2a6a-2a6b,2a7d-2aa0,2aae-2aba,2af9-2afa,2b00-2b1a,2b1f-2b24,2b53-2b54,2c60-2c77,2c79-2c7f,2d00-2d25,2d30-2d65,2d6f,2e18,2e1f,2e22-2e25,2e2e,4dc0-4dff,a4d0-a4ff,a644-a647,a64c-a64d,a650-a651,a654-a657,a662-a66e,a68a-a68d,a694-a695,a698-a699,a708-a716,a71b-a71f,a722-a72b,a730-a741,a746-a74b,a74e-a753,a756-a757,a764-a767,a780-a783,a789-a78e,a790-a791,a7a0-a7aa,a7f8-a7ff,ef00-ef19,f400-f426,f428-f441,f6c5,fb00-fb06,fb13-fb17,fb1d-fb36,fb38-fb3c,fb3e,fb40-fb41,fb43-fb44,fb46-fb4f,fb52-fba3,fbaa-fbad,fbd3-fbdc,fbde-fbdf,fbe4-fbe9,fbfc-fbff,fe00-fe0f,fe20-fe23,fe70-fe74,fe76-fefc,feff,fff9-fffd,10300-1031e,10320-10323,1d300-1d356,1d538-1d539,1d53b-1d53e,1d540-1d544,1d546,1d54a-1d550,1d552-1d56b,1d5d4-1d607,1d756-1d78f,1d7d8-1d7e1,1d7ec-1d7f5,1f030-1f093,1f0a0-1f0ae,1f0b1-1f0be,1f0c1-1f0cf,1f0d1-1f0df,1f311-1f318,1f42d-1f42e,1f431,1f435,1f600-1f623,1f625-1f62b,1f62d-1f640,1f643"
      }
    ]
  },
  {
    family: "Carlito",
    faces: [
      {
        id: "carlito-latin-400-normal",
        package: "carlito",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20-7e,a0-ac,ae-ff,131,152-153,2bb-2bc,2c6,2da,2dc,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff"
      },
      {
        id: "carlito-latin-ext-400-normal",
        package: "carlito",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,41,a0,100-130,132-151,154-2b9,2bc-2c5,2c7-2c8,2cb-2cc,2ce-2d7,2dd-2f3,2f5,2f7-2ff,329,1d00-1d07,1d09-1d58,1d5a-1dbf,1e00-1e9b,1e9e,1ef2-1ef9,2020,20a0-20ab,20ad-20b5,20b8-20b9,2113,2c60-2c6c,2c74-2c77,a720-a721"
      },
      {
        id: "carlito-greek-400-normal",
        package: "carlito",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,41,a0,374-375,37a-37e,384-38a,38c,38e-3a1,3a3-3ce,3d0-3ff"
      },
      {
        id: "carlito-cyrillic-400-normal",
        package: "carlito",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,41,a0,400-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "carlito-latin-700-normal",
        package: "carlito",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20-7e,a0-ac,ae-ff,131,152-153,2bb-2bc,2c6,2da,2dc,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff"
      },
      {
        id: "carlito-latin-ext-700-normal",
        package: "carlito",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,41,a0,100-130,132-151,154-2b9,2bc-2c5,2c7-2c8,2cb-2cc,2ce-2d7,2dd-2f3,2f5,2f7-2ff,329,1d00-1d07,1d09-1d58,1d5a-1dbf,1e00-1e9b,1e9e,1ef2-1ef9,2020,20a0-20ab,20ad-20b5,20b8-20b9,2113,2c60-2c6c,2c74-2c77,a720-a721"
      },
      {
        id: "carlito-greek-700-normal",
        package: "carlito",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,41,a0,374-375,37a-37e,384-38a,38c,38e-3a1,3a3-3ce,3d0-3ff"
      },
      {
        id: "carlito-cyrillic-700-normal",
        package: "carlito",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,41,a0,400-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "carlito-latin-400-italic",
        package: "carlito",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20-7e,a0-ac,ae-ff,131,152-153,2bb-2bc,2c6,2da,2dc,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff"
      },
      {
        id: "carlito-latin-ext-400-italic",
        package: "carlito",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,41,a0,100-130,132-151,154-2b9,2bc-2c5,2c7-2c8,2cb-2cc,2ce-2d7,2dd-2f3,2f5,2f7-2ff,329,1d00-1d07,1d09-1d58,1d5a-1dbf,1e00-1e9b,1e9e,1ef2-1ef9,2020,20a0-20ab,20ad-20b5,20b8-20b9,2113,2c60-2c6c,2c74-2c77,a720-a721"
      },
      {
        id: "carlito-greek-400-italic",
        package: "carlito",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,41,a0,374-375,37a-37e,384-38a,38c,38e-3a1,3a3-3ce,3d0-3ff"
      },
      {
        id: "carlito-cyrillic-400-italic",
        package: "carlito",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,41,a0,400-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "carlito-latin-700-italic",
        package: "carlito",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20-7e,a0-ac,ae-ff,131,152-153,2bb-2bc,2c6,2da,2dc,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff"
      },
      {
        id: "carlito-latin-ext-700-italic",
        package: "carlito",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,41,a0,100-130,132-151,154-2b9,2bc-2c5,2c7-2c8,2cb-2cc,2ce-2d7,2dd-2f3,2f5,2f7-2ff,329,1d00-1d07,1d09-1d58,1d5a-1dbf,1e00-1e9b,1e9e,1ef2-1ef9,2020,20a0-20ab,20ad-20b5,20b8-20b9,2113,2c60-2c6c,2c74-2c77,a720-a721"
      },
      {
        id: "carlito-greek-700-italic",
        package: "carlito",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,41,a0,374-375,37a-37e,384-38a,38c,38e-3a1,3a3-3ce,3d0-3ff"
      },
      {
        id: "carlito-cyrillic-700-italic",
        package: "carlito",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,41,a0,400-45f,490-491,4b0-4b1,2116"
      }
    ]
  },
  {
    family: "Caladea",
    faces: [
      {
        id: "caladea-latin-400-normal",
        package: "caladea",
        weight: 400,
        slant: "normal",
        ranges: "d,20-7e,a0-ff,131,152-153,2c6,2da,2dc,300-301,303-304,308,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215"
      },
      {
        id: "caladea-latin-ext-400-normal",
        package: "caladea",
        weight: 400,
        slant: "normal",
        ranges: "d,20,a0,100-130,132-151,154-161,164-17f,192,1fa-1ff,218-21b,237,2c7,2c9,2dd,300-301,303-304,308,1e80-1e85,1ef2-1ef3,1ef8-1ef9,2020,20a3-20a4,20a7,2113"
      },
      {
        id: "caladea-latin-700-normal",
        package: "caladea",
        weight: 700,
        slant: "normal",
        ranges: "d,20-7e,a0-ff,131,152-153,2c6,2da,2dc,300-301,303-304,308,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215"
      },
      {
        id: "caladea-latin-ext-700-normal",
        package: "caladea",
        weight: 700,
        slant: "normal",
        ranges: "d,20,a0,100-130,132-151,154-161,164-17f,192,1fa-1ff,218-21b,237,2c7,2c9,2dd,300-301,303-304,308,1e80-1e85,1ef2-1ef3,1ef8-1ef9,2020,20a3-20a4,20a7,2113"
      },
      {
        id: "caladea-latin-400-italic",
        package: "caladea",
        weight: 400,
        slant: "italic",
        ranges: "d,20-7e,a0-ff,131,152-153,2c6,2da,2dc,300-301,303-304,308,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215"
      },
      {
        id: "caladea-latin-ext-400-italic",
        package: "caladea",
        weight: 400,
        slant: "italic",
        ranges: "d,20,a0,100-130,132-13b,13d-148,14a-151,154-161,164-17f,192,1fa-1ff,21a,237,2c7,2c9,2dd,300-301,303-304,308,1e80-1e85,1ef2-1ef3,1ef8-1ef9,2020,20a3-20a4,20a7,2113"
      },
      {
        id: "caladea-latin-700-italic",
        package: "caladea",
        weight: 700,
        slant: "italic",
        ranges: "d,20-7e,a0-ff,131,152-153,2c6,2da,2dc,300-301,303-304,308,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215"
      },
      {
        id: "caladea-latin-ext-700-italic",
        package: "caladea",
        weight: 700,
        slant: "italic",
        ranges: "d,20,a0,100-130,132-13b,13d-148,14a-151,154-161,164-17f,192,1fa-1ff,21a,237,2c7,2c9,2dd,300-301,303-304,308,1e80-1e85,1ef2-1ef3,1ef8-1ef9,2020,20a3-20a4,20a7,2113"
      }
    ]
  },
  {
    family: "Arimo",
    faces: [
      {
        id: "arimo-latin-400-normal",
        package: "arimo",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20-7e,a0-ff,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff,fffd"
      },
      {
        id: "arimo-latin-ext-400-normal",
        package: "arimo",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,a0,100-130,132-151,154-2ba,2bc-2c5,2c7-2cc,2ce-2d7,2dd-301,303-304,308-309,323,329,1d00-1dbf,1e00-1e9f,1ef2-1eff,2020,20a0-20ab,20ad-20be,2113,2c60-2c7f,a720-a7ae,a7b0-a7b7,a7f7-a7ff"
      },
      {
        id: "arimo-greek-400-normal",
        package: "arimo",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,a0,370-377,37a-37f,384-38a,38c,38e-3a1,3a3-3ff"
      },
      {
        id: "arimo-cyrillic-400-normal",
        package: "arimo",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,a0,301,400-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "arimo-latin-700-normal",
        package: "arimo",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20-7e,a0-ff,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff,fffd"
      },
      {
        id: "arimo-latin-ext-700-normal",
        package: "arimo",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,a0,100-130,132-151,154-2ba,2bc-2c5,2c7-2cc,2ce-2d7,2dd-301,303-304,308-309,323,329,1d00-1dbf,1e00-1e9f,1ef2-1eff,2020,20a0-20ab,20ad-20be,2113,2c60-2c7f,a720-a7ae,a7b0-a7b7,a7f7-a7ff"
      },
      {
        id: "arimo-greek-700-normal",
        package: "arimo",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,a0,370-377,37a-37f,384-38a,38c,38e-3a1,3a3-3ff"
      },
      {
        id: "arimo-cyrillic-700-normal",
        package: "arimo",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,a0,301,400-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "arimo-latin-400-italic",
        package: "arimo",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20-7e,a0-ff,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff,fffd"
      },
      {
        id: "arimo-latin-ext-400-italic",
        package: "arimo",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,41-42,a0,100-130,132-151,154-2ba,2bc-2c5,2c7-2cc,2ce-2d7,2dd-301,303-304,308-309,323,329,1d00-1dbf,1e00-1e9f,1ef2-1eff,2020,20a0-20ab,20ad-20be,2113,2c60-2c7f,a720-a7ae,a7b0-a7b7,a7f7-a7ff"
      },
      {
        id: "arimo-greek-400-italic",
        package: "arimo",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,41-42,a0,370-377,37a-37f,384-38a,38c,38e-3a1,3a3-3ff"
      },
      {
        id: "arimo-cyrillic-400-italic",
        package: "arimo",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,41-42,a0,301,400-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "arimo-latin-700-italic",
        package: "arimo",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20-7e,a0-ff,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff,fffd"
      },
      {
        id: "arimo-latin-ext-700-italic",
        package: "arimo",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,41-42,a0,100-130,132-151,154-2ba,2bc-2c5,2c7-2cc,2ce-2d7,2dd-301,303-304,308-309,323,329,1d00-1dbf,1e00-1e9f,1ef2-1eff,2020,20a0-20ab,20ad-20be,2113,2c60-2c7f,a720-a7ae,a7b0-a7b7,a7f7-a7ff"
      },
      {
        id: "arimo-greek-700-italic",
        package: "arimo",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,41-42,a0,370-377,37a-37f,384-38a,38c,38e-3a1,3a3-3ff"
      },
      {
        id: "arimo-cyrillic-700-italic",
        package: "arimo",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,41-42,a0,301,400-45f,490-491,4b0-4b1,2116"
      }
    ]
  },
  {
    family: "Tinos",
    faces: [
      {
        id: "tinos-latin-400-normal",
        package: "tinos",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20-7e,a0-ff,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff,fffd"
      },
      {
        id: "tinos-latin-ext-400-normal",
        package: "tinos",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,a0,100-130,132-151,154-2ba,2bc-2c5,2c7-2cc,2ce-2d7,2dd-301,303-304,308-309,323,329,1d00-1dbf,1e00-1e9f,1ef2-1eff,2020,20a0-20ab,20ad-20be,2113,2c60-2c7f,a720-a7ae,a7b0-a7b7,a7f7-a7ff"
      },
      {
        id: "tinos-greek-400-normal",
        package: "tinos",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,a0,370-377,37a-37f,384-38a,38c,38e-3a1,3a3-3ff"
      },
      {
        id: "tinos-cyrillic-400-normal",
        package: "tinos",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,a0,301,400-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "tinos-latin-700-normal",
        package: "tinos",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20-7e,a0-ff,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff,fffd"
      },
      {
        id: "tinos-latin-ext-700-normal",
        package: "tinos",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,a0,100-130,132-151,154-2ba,2bc-2c5,2c7-2cc,2ce-2d7,2dd-301,303-304,308-309,323,329,1d00-1dbf,1e00-1e9f,1ef2-1eff,2020,20a0-20ab,20ad-20be,2113,2c60-2c7f,a720-a7ae,a7b0-a7b7,a7f7-a7ff"
      },
      {
        id: "tinos-greek-700-normal",
        package: "tinos",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,a0,370-377,37a-37f,384-38a,38c,38e-3a1,3a3-3ff"
      },
      {
        id: "tinos-cyrillic-700-normal",
        package: "tinos",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,a0,301,400-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "tinos-latin-400-italic",
        package: "tinos",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20-7e,a0-ff,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff,fffd"
      },
      {
        id: "tinos-latin-ext-400-italic",
        package: "tinos",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,a0,100-130,132-151,154-2ba,2bc-2c5,2c7-2cc,2ce-2d7,2dd-301,303-304,308-309,323,329,1d00-1dbf,1e00-1e9f,1ef2-1eff,2020,20a0-20ab,20ad-20be,2113,2c60-2c7f,a720-a7ae,a7b0-a7b7,a7f7-a7ff"
      },
      {
        id: "tinos-greek-400-italic",
        package: "tinos",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,a0,370-377,37a-37f,384-38a,38c,38e-3a1,3a3-3ff"
      },
      {
        id: "tinos-cyrillic-400-italic",
        package: "tinos",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,a0,301,400-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "tinos-latin-700-italic",
        package: "tinos",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20-7e,a0-ff,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff,fffd"
      },
      {
        id: "tinos-latin-ext-700-italic",
        package: "tinos",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,a0,100-130,132-151,154-2ba,2bc-2c5,2c7-2cc,2ce-2d7,2dd-301,303-304,308-309,323,329,1d00-1dbf,1e00-1e9f,1ef2-1eff,2020,20a0-20ab,20ad-20be,2113,2c60-2c7f,a720-a7ae,a7b0-a7b7,a7f7-a7ff"
      },
      {
        id: "tinos-greek-700-italic",
        package: "tinos",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,a0,370-377,37a-37f,384-38a,38c,38e-3a1,3a3-3ff"
      },
      {
        id: "tinos-cyrillic-700-italic",
        package: "tinos",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,a0,301,400-45f,490-491,4b0-4b1,2116"
      }
    ]
  },
  {
    family: "Cousine",
    faces: [
      {
        id: "cousine-latin-400-normal",
        package: "cousine",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20-7e,a0-ff,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff"
      },
      {
        id: "cousine-latin-ext-400-normal",
        package: "cousine",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,a0,100-130,132-151,154-236,238-2ba,2bc-2c5,2c7-2cc,2ce-2d7,2dd-301,303-304,308-309,323,329,1d00-1dbf,1e00-1e9b,1e9e,1ef2-1ef9,2020,20a0-20ab,20ad-20b5,2113,2c60-2c6d,2c71-2c77,2c79,a720-a721,a788-a78c"
      },
      {
        id: "cousine-greek-400-normal",
        package: "cousine",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,a0,374-375,37a-37e,384-38a,38c,38e-3a1,3a3-3ce,3d0-3ff"
      },
      {
        id: "cousine-cyrillic-400-normal",
        package: "cousine",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,a0,301,400-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "cousine-latin-700-normal",
        package: "cousine",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20-7e,a0-ff,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff"
      },
      {
        id: "cousine-latin-ext-700-normal",
        package: "cousine",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,a0,100-130,132-151,154-236,238-2ba,2bc-2c5,2c7-2cc,2ce-2d7,2dd-301,303-304,308-309,323,329,1d00-1dbf,1e00-1e9b,1e9e,1ef2-1ef9,2020,20a0-20ab,20ad-20b5,2113,2c60-2c6d,2c71-2c77,2c79,a720-a721,a788-a78c"
      },
      {
        id: "cousine-greek-700-normal",
        package: "cousine",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,a0,374-375,37a-37e,384-38a,38c,38e-3a1,3a3-3ce,3d0-3ff"
      },
      {
        id: "cousine-cyrillic-700-normal",
        package: "cousine",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,a0,301,400-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "cousine-latin-400-italic",
        package: "cousine",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20-7e,a0-ff,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff"
      },
      {
        id: "cousine-latin-ext-400-italic",
        package: "cousine",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,a0,100-130,132-151,154-236,238-2ba,2bc-2c5,2c7-2cc,2ce-2d7,2dd-301,303-304,308-309,323,329,1d00-1dbf,1e00-1e9b,1e9e,1ef2-1ef9,2020,20a0-20ab,20ad-20b5,2113,2c60-2c6d,2c71-2c77,2c79,a720-a721,a788-a78c"
      },
      {
        id: "cousine-greek-400-italic",
        package: "cousine",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,a0,374-375,37a-37e,384-38a,38c,38e-3a1,3a3-3ce,3d0-3ff"
      },
      {
        id: "cousine-cyrillic-400-italic",
        package: "cousine",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,a0,301,400-45f,490-491,4b0-4b1,2116"
      },
      {
        id: "cousine-latin-700-italic",
        package: "cousine",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20-7e,a0-ff,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff"
      },
      {
        id: "cousine-latin-ext-700-italic",
        package: "cousine",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,a0,100-130,132-151,154-236,238-2ba,2bc-2c5,2c7-2cc,2ce-2d7,2dd-301,303-304,308-309,323,329,1d00-1dbf,1e00-1e9b,1e9e,1ef2-1ef9,2020,20a0-20ab,20ad-20b5,2113,2c60-2c6d,2c71-2c77,2c79,a720-a721,a788-a78c"
      },
      {
        id: "cousine-greek-700-italic",
        package: "cousine",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,a0,374-375,37a-37e,384-38a,38c,38e-3a1,3a3-3ce,3d0-3ff"
      },
      {
        id: "cousine-cyrillic-700-italic",
        package: "cousine",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,a0,301,400-45f,490-491,4b0-4b1,2116"
      }
    ]
  },
  {
    family: "Gelasio",
    faces: [
      {
        id: "gelasio-latin-400-normal",
        package: "gelasio",
        weight: 400,
        slant: "normal",
        ranges: "d,20-7e,a0-ac,ae-ff,102,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215"
      },
      {
        id: "gelasio-latin-ext-400-normal",
        package: "gelasio",
        weight: 400,
        slant: "normal",
        ranges: "d,20,41,a0,c1,100-130,132-148,14a-151,154-17f,181,186,189-18a,18e-190,192,197-19a,19c-19d,1a0-1a1,1a9,1af-1b1,1b3-1b4,1b7,1c4-1f5,1f8-21b,21e-21f,226-233,237,23a-23e,241-242,244-247,253-254,256-257,259,25b,265,268,26f,272,275,283,289-28a,28c,292,294-295,298,2b9-2ba,2bc-2c0,2c7-2cc,2dd,300-301,303-304,308-309,323,329,1e00-1e97,1e9e,1ef2-1ef9,2020,20a1,20a3-20a4,20a6-20a7,20a9,20ab,20ad,20b1-20b2,20b4-20b5,20b8-20ba,20bc-20bd,2113,2c65-2c66,a78b-a78c,a7ae"
      },
      {
        id: "gelasio-latin-700-normal",
        package: "gelasio",
        weight: 700,
        slant: "normal",
        ranges: "d,20-7e,a0-ac,ae-ff,102,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215"
      },
      {
        id: "gelasio-latin-ext-700-normal",
        package: "gelasio",
        weight: 700,
        slant: "normal",
        ranges: "d,20,41,a0,c1,100-130,132-148,14a-151,154-17f,181,186,189-18a,18e-190,192,197-19a,19c-19d,1a0-1a1,1a9,1af-1b1,1b3-1b4,1b7,1c4-1f5,1f8-21b,21e-21f,226-233,237,23a-23e,241-242,244-247,253-254,256-257,259,25b,265,268,26f,272,275,283,289-28a,28c,292,294-295,298,2b9-2ba,2bc-2c0,2c7-2cc,2dd,300-301,303-304,308-309,323,329,1e00-1e97,1e9e,1ef2-1ef9,2020,20a1,20a3-20a4,20a6-20a7,20a9,20ab,20ad,20b1-20b2,20b4-20b5,20b8-20ba,20bc-20bd,2113,2c65-2c66,a78b-a78c,a7ae"
      },
      {
        id: "gelasio-latin-400-italic",
        package: "gelasio",
        weight: 400,
        slant: "italic",
        ranges: "d,20-7e,a0-ac,ae-ff,102,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215"
      },
      {
        id: "gelasio-latin-ext-400-italic",
        package: "gelasio",
        weight: 400,
        slant: "italic",
        ranges: "d,20,41,a0,c1,100-130,132-148,14a-151,154-17f,181,186,189-18a,18e-190,192,197-19a,19c-19d,1a0-1a1,1a9,1af-1b1,1b3-1b4,1b7,1c4-1f5,1f8-21b,21e-21f,226-233,237,23a-23e,241-242,244-247,253-254,256-257,259,25b,265,268,26f,272,275,283,289-28a,28c,292,294-295,298,2b9-2ba,2bc-2c0,2c7-2cc,2dd,300-301,303-304,308-309,323,329,1e00-1e97,1e9e,1ef2-1ef9,2020,20a1,20a3-20a4,20a6-20a7,20a9,20ab,20ad,20b1-20b2,20b4-20b5,20b8-20ba,20bc-20bd,2113,2c65-2c66,a78b-a78c,a7ae"
      },
      {
        id: "gelasio-latin-700-italic",
        package: "gelasio",
        weight: 700,
        slant: "italic",
        ranges: "d,20-7e,a0-ac,ae-ff,102,131,152-153,2bb-2bc,2c6,2da,2dc,300-301,303-304,308-309,323,329,2002,2009,200b,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215"
      },
      {
        id: "gelasio-latin-ext-700-italic",
        package: "gelasio",
        weight: 700,
        slant: "italic",
        ranges: "d,20,41,a0,c1,100-130,132-148,14a-151,154-17f,181,186,189-18a,18e-190,192,197-19a,19c-19d,1a0-1a1,1a9,1af-1b1,1b3-1b4,1b7,1c4-1f5,1f8-21b,21e-21f,226-233,237,23a-23e,241-242,244-247,253-254,256-257,259,25b,265,268,26f,272,275,283,289-28a,28c,292,294-295,298,2b9-2ba,2bc-2c0,2c7-2cc,2dd,300-301,303-304,308-309,323,329,1e00-1e97,1e9e,1ef2-1ef9,2020,20a1,20a3-20a4,20a6-20a7,20a9,20ab,20ad,20b1-20b2,20b4-20b5,20b8-20ba,20bc-20bd,2113,2c65-2c66,a78b-a78c,a7ae"
      }
    ]
  },
  {
    family: "Archivo Narrow",
    faces: [
      {
        id: "archivo-narrow-latin-400-normal",
        package: "archivo-narrow",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20-7e,a0-ff,102,131,152-153,2bc,2c6,2da,2dc,300-301,303-304,308-309,323,2002,2009,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff"
      },
      {
        id: "archivo-narrow-latin-ext-400-normal",
        package: "archivo-narrow",
        weight: 400,
        slant: "normal",
        ranges: "0,d,20,41,a0,c1,100-130,132-151,154-17f,18f,191-192,19d,1a0-1a1,1af-1b0,1c4-1dc,1e6-1e7,1ea-1eb,1fa-21b,22a-22d,230-233,237,259,272,2b9-2ba,2bc,2c7,2c9,2dd,300-301,303-304,308-309,323,1e80-1e85,1e9e,1ef2-1ef9,2020,20a1,20a3-20a4,20a6-20a7,20a9,20ab,20ad,20b1-20b2,20b5,20b9-20ba,20bc-20bd,2113"
      },
      {
        id: "archivo-narrow-latin-700-normal",
        package: "archivo-narrow",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20-7e,a0-ff,102,131,152-153,2bc,2c6,2da,2dc,300-301,303-304,308-309,323,2002,2009,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff"
      },
      {
        id: "archivo-narrow-latin-ext-700-normal",
        package: "archivo-narrow",
        weight: 700,
        slant: "normal",
        ranges: "0,d,20,41,a0,c1,100-130,132-151,154-17f,18f,191-192,19d,1a0-1a1,1af-1b0,1c4-1dc,1e6-1e7,1ea-1eb,1fa-21b,22a-22d,230-233,237,259,272,2b9-2ba,2bc,2c7,2c9,2dd,300-301,303-304,308-309,323,1e80-1e85,1e9e,1ef2-1ef9,2020,20a1,20a3-20a4,20a6-20a7,20a9,20ab,20ad,20b1-20b2,20b5,20b9-20ba,20bc-20bd,2113"
      },
      {
        id: "archivo-narrow-latin-400-italic",
        package: "archivo-narrow",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20-7e,a0-ff,102,131,152-153,2bc,2c6,2da,2dc,300-301,303-304,308-309,323,2002,2009,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff"
      },
      {
        id: "archivo-narrow-latin-ext-400-italic",
        package: "archivo-narrow",
        weight: 400,
        slant: "italic",
        ranges: "0,d,20,41,a0,c1,100-130,132-151,154-17f,18f,191-192,19d,1a0-1a1,1af-1b0,1c4-1dc,1e6-1e7,1ea-1eb,1fa-21b,22a-22d,230-233,237,259,272,2b9-2ba,2bc,2c7,2c9,2dd,300-301,303-304,308-309,323,1e80-1e85,1e9e,1ef2-1ef9,2020,20a1,20a3-20a4,20a6-20a7,20a9,20ab,20ad,20b1-20b2,20b5,20b9-20ba,20bc-20bd,2113"
      },
      {
        id: "archivo-narrow-latin-700-italic",
        package: "archivo-narrow",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20-7e,a0-ff,102,131,152-153,2bc,2c6,2da,2dc,300-301,303-304,308-309,323,2002,2009,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2191,2193,2212,2215,feff"
      },
      {
        id: "archivo-narrow-latin-ext-700-italic",
        package: "archivo-narrow",
        weight: 700,
        slant: "italic",
        ranges: "0,d,20,41,a0,c1,100-130,132-151,154-17f,18f,191-192,19d,1a0-1a1,1af-1b0,1c4-1dc,1e6-1e7,1ea-1eb,1fa-21b,22a-22d,230-233,237,259,272,2b9-2ba,2bc,2c7,2c9,2dd,300-301,303-304,308-309,323,1e80-1e85,1e9e,1ef2-1ef9,2020,20a1,20a3-20a4,20a6-20a7,20a9,20ab,20ad,20b1-20b2,20b5,20b9-20ba,20bc-20bd,2113"
      }
    ]
  },
  {
    family: "Comic Relief",
    faces: [
      {
        id: "comic-relief-latin-400-normal",
        package: "comic-relief",
        weight: 400,
        slant: "normal",
        ranges: "20-7e,a0-ff,131,152-153,2c6,2da,2dc,300-301,303-304,308,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2212,2215"
      },
      {
        id: "comic-relief-latin-ext-400-normal",
        package: "comic-relief",
        weight: 400,
        slant: "normal",
        ranges: "20-21,a0,100-130,132-151,154-17f,192,1fa-1ff,218-21b,237,2c7,2c9,2dd,300-301,303-304,308,1e80-1e85,1e9e,1ef2-1ef3,2020,20a3-20a4,20a7,2113"
      },
      {
        id: "comic-relief-greek-400-normal",
        package: "comic-relief",
        weight: 400,
        slant: "normal",
        ranges: "20-21,a0,37e,384-38a,38c,38e-3a1,3a3-3ce"
      },
      {
        id: "comic-relief-cyrillic-400-normal",
        package: "comic-relief",
        weight: 400,
        slant: "normal",
        ranges: "20-21,a0,301,401-40c,40e-44f,451-45c,45e-45f,490-491,2116"
      },
      {
        id: "comic-relief-latin-700-normal",
        package: "comic-relief",
        weight: 700,
        slant: "normal",
        ranges: "20-7e,a0-ff,131,152-153,2c6,2da,2dc,300-301,303-304,308,2013-2014,2018-201a,201c-201e,2022,2026,2032-2033,2039-203a,2044,20ac,2122,2212,2215"
      },
      {
        id: "comic-relief-latin-ext-700-normal",
        package: "comic-relief",
        weight: 700,
        slant: "normal",
        ranges: "20-21,a0,100-130,132-151,154-17f,192,1fa-1ff,218-21b,237,2c7,2c9,2dd,300-301,303-304,308,1e80-1e85,1e9e,1ef2-1ef3,2020,20a3-20a4,20a7,2113"
      },
      {
        id: "comic-relief-greek-700-normal",
        package: "comic-relief",
        weight: 700,
        slant: "normal",
        ranges: "20-21,a0,37e,384-38a,38c,38e-3a1,3a3-3ce"
      },
      {
        id: "comic-relief-cyrillic-700-normal",
        package: "comic-relief",
        weight: 700,
        slant: "normal",
        ranges: "20-21,a0,301,401-40c,40e-44f,451-45c,45e-45f,490-491,2116"
      }
    ]
  }
];

// core/layout/fonts/families.ts
function coverage(ranges) {
  const points2 = /* @__PURE__ */ new Set();
  for (const range of ranges.split(",")) {
    const [from = "0", to = from] = range.split("-");
    for (let point = Number.parseInt(from, 16); point <= Number.parseInt(to, 16); point++) points2.add(point);
  }
  return (codePoint2) => points2.has(codePoint2);
}
var shared = /* @__PURE__ */ new Map();
var covers = (ranges) => shared.get(ranges) ?? shared.set(ranges, coverage(ranges)).get(ranges) ?? coverage(ranges);
var FAMILIES = catalogue_default.map(({ family, faces }) => ({
  family,
  faces: faces.map(({ id, weight, slant, ranges }) => ({ id, weight, slant, covers: covers(ranges) }))
}));
var FALLBACK = ["Noto Sans", "Noto Sans Hebrew", "Noto Sans Arabic", "DejaVu Sans", "Noto Sans Symbols 2"];
var FACE_IDS = FAMILIES.flatMap(({ faces }) => faces.map(({ id }) => id));
var METRIC = Object.fromEntries(
  Object.entries({
    Carlito: ["calibri"],
    Caladea: ["cambria"],
    Gelasio: ["georgia"],
    Arimo: ["arial", "arial mt", "helvetica", "helvetica neue", "liberation sans", "albany", "albany amt", "nimbus sans", "nimbus sans l", "tex gyre heros"],
    Tinos: ["times new roman", "times", "liberation serif", "thorndale", "thorndale amt", "nimbus roman", "nimbus roman no9 l", "tex gyre termes"],
    Cousine: ["courier new", "courier", "courier std", "liberation mono", "cumberland", "cumberland amt", "nimbus mono", "nimbus mono l", "nimbus mono ps", "tex gyre cursor"],
    // DejaVu was made from Vera, whose letters it has as they were.
    "DejaVu Sans": ["bitstream vera sans"]
  }).flatMap(([shown, names]) => names.map((name) => [name, shown]))
);
var NEAR = [
  // “Code” as a word of its own: a family for Unicode need not be one for code.
  [/mono|\bcode|consol|typewriter|courier|terminal/i, "Cousine"],
  [/comic|chalkboard/i, "Comic Relief"],
  [/narrow|condensed|\bcond\b|oswald/i, "Archivo Narrow"],
  [/verdana|vera sans|arial black|montserrat|poppins/i, "DejaVu Sans"],
  [/century gothic|avant ?garde|urw gothic|adventor|open sans|\binter\b|lucida(?! (?:bright|fax|calligraphy|handwriting))/i, "Noto Sans"],
  [/gill|candara|corbel|myriad|source sans|futura|tw cen|twentieth|cabin|jost/i, "Carlito"],
  [/century|schoolbook|schola\b|c059|bookman|bonum|merriweather|(?:noto|dejavu) serif/i, "Literata"],
  [/palatino|palladio|pagella|p052|antiqua|constantia|slab|(?<!sans[\s-]?)serif/i, "Gelasio"],
  [/roman|times|garamond|baskerville|didot|bodoni|minion|goudy/i, "Tinos"],
  [/cambria/i, "Caladea"],
  [/calibri/i, "Carlito"]
];
function shownFamily(name) {
  const key = name.trim().toLowerCase();
  const own2 = FAMILIES.find(({ family }) => family.toLowerCase() === key);
  if (own2) return { family: own2.family, fit: "same" };
  if (METRIC[key]) return { family: METRIC[key], fit: "metric" };
  return { family: NEAR.find(([words2]) => words2.test(key))?.[1] ?? "Arimo", fit: "near" };
}
var named = /* @__PURE__ */ new Map();
function familyNamed(name) {
  const known = named.get(name);
  if (known) return known;
  const { family: wanted } = shownFamily(name);
  const found = FAMILIES.find(({ family }) => family === wanted);
  named.set(name, found);
  return found;
}
function pick(faces, codePoint2, bold, italic) {
  let best;
  let score = -1;
  for (const face of faces) {
    if (!face.covers(codePoint2)) continue;
    const fit = (face.weight >= 600 === bold ? 2 : 0) + (face.slant === "italic" === italic ? 1 : 0);
    if (fit > score) [best, score] = [face, fit];
  }
  return best;
}
function faceFor(family, codePoint2, bold, italic) {
  const own2 = pick(family.faces, codePoint2, bold, italic);
  if (own2) return own2;
  for (const name of FALLBACK) {
    const other = pick(familyNamed(name).faces, codePoint2, bold, italic);
    if (other) return other;
  }
  return pick(family.faces, 32, bold, italic);
}

// core/layout/symbols.ts
import { codePoint } from "dingbat-to-unicode";
var SIGN_FONT = /symbol|wingding|webding|dingbat/i;
var isSignFont = (font) => font !== void 0 && SIGN_FONT.test(font);
var drawable = /* @__PURE__ */ new Map();
function isDrawn(code) {
  const known = drawable.get(code) ?? FAMILIES.some(({ faces }) => faces.some(({ covers: covers2 }) => covers2(code)));
  drawable.set(code, known);
  return known;
}
function standsFor(letter, font) {
  const code = letter.codePointAt(0);
  return codePoint(font, code >= 61440 && code <= 61695 ? code - 61440 : code)?.string ?? letter;
}
function signsAsText(text, font) {
  return isSignFont(font) ? Array.from(text, (letter) => standsFor(letter, font)).join("") : text;
}
function drawnSign(sign, font) {
  return Array.from(signsAsText(sign, font), (letter) => isDrawn(letter.codePointAt(0)) ? letter : "\u2022").join("");
}

// core/layout/slots.ts
function pageScale(page) {
  return Math.min(page.height / 540, page.width / 720);
}
var TITLE = { share: [0, 0, 1, 0.2], anchor: "bottom" };
var BODY = { share: [0, 0.25, 1, 0.75] };
var GAP = 0.04;
var FIGURE = { title: TITLE, caption: { share: [0, 0.88, 1, 0.12], anchor: "middle" } };
var FIGURE_PLACE = { share: [0, 0.25, 1, 0.61], anchor: "top" };
var RULES = {
  opening: { title: { share: [0, 0.14, 0.92, 0.42], anchor: "bottom" }, subtitle: { share: [0, 0.61, 0.92, 0.3] } },
  section: { title: { share: [0, 0.22, 0.92, 0.36], anchor: "bottom" }, subtitle: { share: [0, 0.63, 0.92, 0.28] } },
  points: { title: TITLE, body: BODY },
  comparison: { title: TITLE, left: { share: [0, 0.25, 0.5 - GAP / 2, 0.75] }, right: { share: [0.5 + GAP / 2, 0.25, 0.5 - GAP / 2, 0.75] } },
  columns: {
    title: TITLE,
    left: { share: [0, 0.25, (1 - 2 * GAP) / 3, 0.75] },
    middle: { share: [(1 + GAP) / 3, 0.25, (1 - 2 * GAP) / 3, 0.75] },
    right: { share: [(2 + 2 * GAP) / 3, 0.25, (1 - 2 * GAP) / 3, 0.75] }
  },
  statement: { body: { share: [0.06, 0.08, 0.88, 0.84], anchor: "middle", align: "centre" } },
  number: { number: { share: [0, 0.1, 1, 0.5], anchor: "bottom", align: "centre" }, caption: { share: [0.1, 0.64, 0.8, 0.3], align: "centre" } },
  picture: { title: TITLE, picture: { share: [0, 0.25, 1, 0.62] }, caption: { share: [0, 0.89, 1, 0.11], anchor: "middle", align: "centre" } },
  pictures: { title: TITLE, pictures: { share: [0, 0.25, 1, 0.64] }, caption: { share: [0, 0.9, 1, 0.1], anchor: "middle", align: "centre" } },
  table: { ...FIGURE, table: FIGURE_PLACE },
  chart: { ...FIGURE, chart: FIGURE_PLACE },
  diagram: { ...FIGURE, diagram: FIGURE_PLACE },
  code: { ...FIGURE, code: FIGURE_PLACE },
  formula: { ...FIGURE, formula: { ...FIGURE_PLACE, anchor: "middle" } },
  quotation: { body: { share: [0.08, 0.08, 0.84, 0.66], anchor: "middle" }, caption: { share: [0.08, 0.78, 0.84, 0.18], align: "end" } },
  references: { title: TITLE, body: BODY },
  card: { title: { share: [0.03, 0.1, 0.94, 0.8], anchor: "middle", align: "centre" } },
  corner: { title: { share: [0, 0.86, 0.5, 0.14], anchor: "bottom" } },
  title: { title: { share: [0, 0, 1, 0.2], anchor: "bottom" } },
  blank: {}
};
var LOOSE = { title: "title", subtitle: "subtitle", caption: "caption", number: "number" };
function contentArea(page) {
  const scale2 = pageScale(page);
  const side = page.width * 0.065;
  const top = 36 * scale2;
  return { x: side, y: top, width: page.width - 2 * side, height: page.height - top - 48 * scale2 };
}
function placed3(page, { share: [x, y, width, height], anchor = "top", align = "start" }, role) {
  const area = contentArea(page);
  const frame = { x: area.x + x * area.width, y: area.y + y * area.height, width: width * area.width, height: height * area.height };
  return { frame, role, anchor, align };
}
var COLUMNS = { comparison: ["left", "right"], columns: ["left", "middle", "right"] };
var usualOn = /* @__PURE__ */ new WeakMap();
function usualPlaces(arrangement, page) {
  const held = usualOn.get(page) ?? /* @__PURE__ */ new Map();
  usualOn.set(page, held);
  const known = held.get(arrangement);
  if (known) return known;
  const roles = new Map(slotsOf(arrangement));
  const places = new Map(Object.entries(RULES[arrangement]).map(([slot2, rule]) => [slot2, placed3(page, rule, roles.get(slot2) ?? "body")]));
  held.set(arrangement, places);
  return places;
}
function slotPlaces(arrangement, page, widths) {
  const usual = usualPlaces(arrangement, page);
  const columns = COLUMNS[arrangement];
  if (!columns || widths?.length !== columns.length) return usual;
  const places = new Map(usual);
  const area = contentArea(page);
  const total = widths.reduce((sum, width) => sum + width, 0);
  const room = area.width * (1 - GAP * (columns.length - 1));
  let x = area.x;
  columns.forEach((slot2, at) => {
    const place = places.get(slot2);
    const width = room * widths[at] / total;
    places.set(slot2, { ...place, frame: { ...place.frame, x, width } });
    x += width + area.width * GAP;
  });
  return places;
}
function loosePlace(slot2, page) {
  if (slot2 === "title") return placed3(page, TITLE, "title");
  return placed3(page, BODY, LOOSE[slot2 ?? ""] ?? "body");
}
var LINE_HEIGHT = { opening: 1.12, title: 1.14, subtitle: 1.3, body: 1.3, statement: 1.22, number: 1, caption: 1.25, picture: 1.25, figure: 1.25, references: 1.28, corner: 1.2, name: 1.15 };
var PARAGRAPH_GAP = { opening: 0, title: 0, subtitle: 0.15, body: 0.38, statement: 0.3, number: 0, caption: 0.2, picture: 0.2, figure: 0, references: 0.35, corner: 0, name: 0 };
var own = (role) => (scale2) => scale2[role];
var SIZES = {
  opening: own("opening"),
  title: own("title"),
  subtitle: own("subtitle"),
  body: own("body"),
  statement: own("statement"),
  number: own("number"),
  caption: own("caption"),
  picture: own("caption"),
  figure: ({ body }) => body * 0.8,
  references: own("caption"),
  corner: own("caption"),
  name: ({ number }) => number * 0.8
};
function sizeOf(role, theme, page) {
  return SIZES[role](theme.scale) * pageScale(page);
}

// core/layout/textstyle.ts
var NOTE_MARK = "note";
var CODE_SCALE = 0.88;
var TONE = "tone:";
var toneMark = (tone) => `${TONE}${tone}`;
var HEADING2 = /* @__PURE__ */ new Set(["opening", "title", "number", "statement", "name"]);
var BULLETS = ["\u2022", "\u2013", "\u2022", "\u2013", "\u2022", "\u2013", "\u2022", "\u2013", "\u2022"];
var INDENT2 = 1.15;
var styles = /* @__PURE__ */ new WeakMap();
function styleFor(theme, role, marks, link, look, em = 0) {
  const held = styles.get(theme) ?? styles.set(theme, /* @__PURE__ */ new Map()).get(theme) ?? /* @__PURE__ */ new Map();
  const key = `${role}/${marks.join()}/${link ?? ""}${look ? `/${em}${canonical(look)}` : ""}`;
  const known = held.get(key);
  if (known) return known;
  const code = marks.includes("code");
  const heading = HEADING2.has(role);
  const family = familyNamed(code ? theme.fonts.code : heading ? theme.fonts.heading : theme.fonts.body);
  const bold = marks.includes("strong") || role === "number" && !code;
  const noted = marks.includes(NOTE_MARK);
  const tone = marks.find((mark) => mark.startsWith(TONE))?.slice(TONE.length);
  const shown = code || marks.includes("formula");
  const style = { family: shown && !code ? familyNamed(theme.fonts.code) : family, bold, italic: marks.includes("emphasis"), strike: marks.includes("strike"), link, code: shown, scale: noted ? 0.62 : shown ? CODE_SCALE : 1, ...noted ? { rise: 0.36 } : {}, ...tone ? { tone } : {}, ...look ? looked(look, em, { code: shown }) : {} };
  held.set(key, style);
  return style;
}
function looked({ size, colour, font, underline, caps, highlight, spacing, rise }, em, { code }) {
  const scale2 = (size && em ? size / em : 1) * (rise ? 0.66 : 1);
  return {
    ...size && em ? { scale: scale2 } : rise ? { scale: scale2 * (code ? CODE_SCALE : 1) } : {},
    ...colour ? { fill: colour } : {},
    ...font ? { family: familyNamed(font) } : {},
    ...underline ? { underline } : {},
    ...caps ? { caps } : {},
    ...highlight ? { highlight } : {},
    ...spacing && em ? { spacing: spacing / (em * scale2) } : {},
    ...rise ? { rise } : {}
  };
}
var levelOf = (levels, level) => levels[Math.min(level, levels.length - 1)] ?? {};
function standing(own2, level, em, tall) {
  const look = { ...level, ...own2 };
  const gap = (value) => !value ? 0 : "points" in value ? value.points / em : value.times * 1.2 * tall / em;
  return { ...look, before: gap(look.before), after: gap(look.after), times: look.line && "times" in look.line ? look.line.times : 1, exact: look.line && "points" in look.line ? look.line.points / em : 0, first: (look.first ?? 0) / em, right: (look.right ?? 0) / em, least: 1 };
}
function signOf(bullet, number) {
  if (!bullet?.scheme) return bullet?.sign;
  const [, open = "", kind = "1", close = ""] = /^(\(?)([1aAiI])(.*)$/.exec(bullet.scheme) ?? [];
  const letters = (value) => value <= 0 ? "" : letters(Math.floor((value - 1) / 26)) + String.fromCharCode(97 + (value - 1) % 26);
  const written = kind === "1" ? String(number) : kind.toLowerCase() === "a" ? letters(number) : roman(number);
  return `${open}${kind === kind.toUpperCase() ? written.toUpperCase() : written}${close}`;
}
function roman(value) {
  const signs = [[1e3, "m"], [900, "cm"], [500, "d"], [400, "cd"], [100, "c"], [90, "xc"], [50, "l"], [40, "xl"], [10, "x"], [9, "ix"], [5, "v"], [4, "iv"], [1, "i"]];
  let left = Math.min(value, 3999);
  return signs.map(([worth, sign]) => {
    const count2 = Math.floor(left / worth);
    left -= count2 * worth;
    return sign.repeat(count2);
  }).join("");
}
var DIGIT = 0.62;
var USUAL_ROOMS = Array(MAX_LEVEL + 1).fill(INDENT2);
function numberRooms(text) {
  if (!text.some(({ kind }) => kind === "number")) return USUAL_ROOMS;
  const rooms = [...USUAL_ROOMS];
  const numbers = listNumbers(text);
  text.forEach(({ kind, level }, at) => {
    if (kind === "number") rooms[level] = Math.max(rooms[level], INDENT2 + (String(numbers[at]).length - 1) * DIGIT);
  });
  return rooms;
}
function listIndents(text) {
  const rooms = numberRooms(text);
  const open = [];
  return text.map(({ kind, level }) => {
    const hang = kind === "plain" ? 0 : kind === "number" ? rooms[level] : INDENT2;
    const left = kind === "plain" ? level ? open[level - 1] ?? level * INDENT2 : 0 : level * INDENT2 + hang;
    if (kind !== "plain") open[level] = left;
    return { left, hang };
  });
}
function listNumbers(text) {
  const counts = [];
  return text.map((paragraph) => {
    if (paragraph.kind === "plain") {
      counts.length = Math.min(counts.length, paragraph.level);
      return 0;
    }
    counts.length = paragraph.level + 1;
    const next2 = paragraph.kind === "number" ? paragraph.start ?? (counts[paragraph.level] ?? 0) + 1 : 0;
    counts[paragraph.level] = next2;
    return next2;
  });
}

// core/layout/context.ts
var lookedOnce = /* @__PURE__ */ new WeakMap();
function inItsLook(slide, context) {
  const theme = themeOf(slide, context.head);
  if (theme === context.head.theme || slide.theme === void 0) return context;
  const held = lookedOnce.get(context.head) ?? /* @__PURE__ */ new Map();
  lookedOnce.set(context.head, held);
  const head = held.get(slide.theme) ?? { ...context.head, theme };
  held.set(slide.theme, head);
  return { ...context, head };
}

// core/figures/chart.ts
import { format as numberFormat } from "d3-format";
import { scaleBand, scaleLinear, scalePoint } from "d3-scale";
import { arc, area as areaShape, curveCatmullRom, curveLinear, curveMonotoneX, line, pie } from "d3-shape";

// core/figures/categories.ts
function linesOf(text, width, { size, measure: measure2 }) {
  let lines2 = 1;
  let used = 0;
  const space = measure2(" ", size);
  for (const word of text.split(/\s+/)) {
    const wide = measure2(word, size);
    if (wide > width) return void 0;
    if (used && used + space + wide > width) {
      lines2 += 1;
      used = wide;
    } else used += (used ? space : 0) + wide;
  }
  return lines2;
}
var DIAGONAL = Math.SQRT1_2;
var [LINE, MOST3] = [1.3, 0.4];
function naming(names, room, tall, lead, style) {
  const { size, measure: measure2 } = style;
  const upright2 = names.map((name) => linesOf(name, room * 0.96, style));
  const most = tall * MOST3;
  if (upright2.every((lines2) => lines2 !== void 0 && lines2 <= 3)) return { turn: 0, every: 1, height: Math.max(1, ...upright2) * size * LINE, longest: room };
  const widest = Math.max(0, ...names.map((name) => measure2(name, size)));
  const across = size * LINE;
  if (room >= across / DIAGONAL && measure2(names[0] ?? "", size) * DIAGONAL <= lead) {
    const height = Math.min(most, (widest + across) * DIAGONAL);
    return { turn: -45, every: 1, height, longest: height / DIAGONAL - across * 0.5 };
  }
  return { turn: -90, every: Math.max(1, Math.ceil(across / room)), height: Math.min(most, widest + size * 0.2), longest: Math.min(most, widest) };
}
function shortened(name, width, { size, measure: measure2 }) {
  if (measure2(name, size) <= width) return name;
  const signs = [...name];
  while (signs.length > 1 && measure2(`${signs.join("").trimEnd()}\u2026`, size) > width) signs.pop();
  return `${signs.join("").trimEnd()}\u2026`;
}

// core/figures/figure.ts
var channels = (colour) => [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16));
function mixed(a, b, share2) {
  const [one, two] = [channels(a), channels(b)];
  return `#${one.map((value, at) => Math.round(value + (two[at] - value) * share2).toString(16).padStart(2, "0")).join("")}`;
}
function palette({ accent, second, muted, paper, ink }) {
  return [accent, second, mixed(accent, paper, 0.5), mixed(second, paper, 0.5), muted, mixed(ink, paper, 0.25)];
}
var n = (value) => String(Math.round(value * 100) / 100);
function rectangle({ x, y, width, height }, radius = 0) {
  if (!radius) return `M${n(x)} ${n(y)}h${n(width)}v${n(height)}h${n(-width)}Z`;
  const r2 = Math.min(radius, width / 2, height / 2);
  const arc2 = (dx, dy) => `a${n(r2)} ${n(r2)} 0 0 1 ${n(dx)} ${n(dy)}`;
  return `M${n(x + r2)} ${n(y)}h${n(width - 2 * r2)}${arc2(r2, r2)}v${n(height - 2 * r2)}${arc2(-r2, r2)}h${n(2 * r2 - width)}${arc2(-r2, -r2)}v${n(2 * r2 - height)}${arc2(r2, -r2)}Z`;
}
function polygon(points2, closed = true) {
  return points2.map(([x, y], at) => `${at ? "L" : "M"}${n(x)} ${n(y)}`).join("") + (closed ? "Z" : "");
}
function circle(x, y, r2) {
  return `M${n(x - r2)} ${n(y)}a${n(r2)} ${n(r2)} 0 1 1 ${n(2 * r2)} 0a${n(r2)} ${n(r2)} 0 1 1 ${n(-2 * r2)} 0Z`;
}
function arrow(from, to, head) {
  const angle = Math.atan2(to[1] - from[1], to[0] - from[0]);
  const back = (turn) => [to[0] - head * Math.cos(angle + turn), to[1] - head * Math.sin(angle + turn)];
  const neck = [to[0] - head * 0.7 * Math.cos(angle), to[1] - head * 0.7 * Math.sin(angle)];
  return { line: polygon([from, neck], false), head: polygon([to, back(0.45), back(-0.45)]) };
}
function luminance(colour) {
  const [r2 = 0, g = 0, b = 0] = channels(colour).map((value) => value / 255 <= 0.04045 ? value / 255 / 12.92 : ((value / 255 + 0.055) / 1.055) ** 2.4);
  return 0.2126 * r2 + 0.7152 * g + 0.0722 * b;
}
function legible(under, { paper, ink }) {
  const ground = luminance(under);
  const ratio = (colour) => (Math.max(ground, luminance(colour)) + 0.05) / (Math.min(ground, luminance(colour)) + 0.05);
  return ratio(paper) > ratio(ink) ? paper : ink;
}

// core/figures/chart.ts
var plain2 = (text) => [{ kind: "plain", level: 0, runs: [{ text }] }];
function stacked({ categories, series, stack }) {
  const count2 = Math.max(categories.length, ...series.map(({ values }) => values.length));
  const sums = Array.from({ length: count2 }, (_, at) => series.reduce((sum, { values }) => sum + Math.abs(values[at] ?? 0), 0));
  const tops = Array(count2).fill(0);
  const feet = Array(count2).fill(0);
  return series.map(
    ({ values }) => Array.from({ length: count2 }, (_, at) => {
      const value = values[at] ?? null;
      if (value === null) return null;
      const part = stack === "share" ? sums[at] ? value / sums[at] : 0 : value;
      const from = part >= 0 ? tops[at] : feet[at];
      if (part >= 0) tops[at] = from + part;
      else feet[at] = from + part;
      return [from, from + part];
    })
  );
}
var literal = (part) => part.replace(/\[\$([^\]-]*)[^\]]*\]/g, "$1").replace(/\[[^\]]*\]/g, "").replace(/"([^"]*)"/g, "$1").replace(/[_*]./g, "").replace(/\\/g, "");
function formatted(value, format) {
  if (!format || format === "General") return numberFormat(Math.abs(value) >= 1e3 ? ",~f" : "~r")(Number(value.toPrecision(10)));
  const sections = format.match(/(?:"[^"]*"|\\.|[^;"\\])+/g) ?? [format];
  const nth = value < 0 && sections.length > 1 ? 1 : value === 0 && sections.length > 2 ? 2 : 0;
  const section = sections[nth].replace(/\[(?!\$)[^\]]*\]/g, "");
  const found = /^((?:"[^"]*"|\[[^\]]*\]|\\.|[_*].|[^#0?"\\])*)([#0?][#0?,]*(?:\.[#0?]*)?,*(?:E[+-][0#]+)?)([\s\S]*)$/.exec(section);
  if (!found) return literal(section);
  const [, before = "", digits = "", after = ""] = found;
  const scaled = (/,+$/.exec(digits)?.[0].length ?? 0) * 3;
  const places = /\.([#0?]*)/.exec(digits)?.[1] ?? "";
  const shown = Math.abs(value) * (section.includes("%") ? 100 : 1) / 10 ** scaled;
  const power = /E([+-])(0*)/.exec(digits);
  const fixed = power ? shown.toExponential(places.length) : numberFormat(`${/[#0?],[#0?]/.test(digits) ? "," : ""}.${places.length}f`)(shown);
  const [whole = "", exponent = ""] = fixed.split("e");
  const kept3 = places.replace(/[#?]+$/, "").length;
  const [units = "", decimals = ""] = whole.split(".");
  const written = decimals.slice(0, kept3) + decimals.slice(kept3).replace(/0+$/, "");
  const number = `${/^[#,]+(?:\.|$)/.test(digits.replace(/E.*/, "")) && units === "0" && written ? "" : units}${written ? `.${written}` : ""}`;
  const raised = power ? `E${Number(exponent) < 0 ? "-" : power[1] === "+" ? "+" : ""}${String(Math.abs(Number(exponent))).padStart(power[2]?.length ?? 1, "0")}` : "";
  return `${value < 0 && nth === 0 && /[1-9]/.test(number) ? "\u2212" : ""}${literal(before)}${number}${raised}${literal(after)}`;
}
function domain(data, fromZero) {
  const { series, stack, yAxis } = data;
  const values = stack ? stacked(data).flatMap((row) => row.flatMap((span) => span ? span : [])) : series.flatMap(({ values: values2 }) => values2.filter((value) => value !== null));
  const low = yAxis?.least ?? Math.min(...values, Infinity);
  const high = yAxis?.most ?? Math.max(...values, -Infinity);
  if (yAxis?.least !== void 0 || yAxis?.most !== void 0) return [Number.isFinite(low) && low < high ? yAxis.least ?? Math.min(0, low) : high - 1, Number.isFinite(high) ? high : low + 1];
  if (!values.length) return [0, 1];
  const near = fromZero || low <= 0 || high <= 0 || low / high < 0.6;
  const range = near ? [Math.min(0, low), Math.max(0, high)] : [low, high];
  return range[0] === range[1] ? [range[0] - 1, range[1] + 1] : range;
}
function measuredBy(data, by) {
  const { yAxis, secondAxis, format, ...rest } = data;
  const axis = by === "first" ? yAxis : secondAxis;
  const shown = by === "first" ? format : secondAxis?.format;
  return { ...rest, series: data.series.filter((series) => series.by === "second" === (by === "second")), ...axis ? { yAxis: axis } : {}, ...shown ? { format: shown } : {} };
}
var shadesOf = ({ series }, style) => {
  const shades = palette(style.colours);
  return series.map(({ colour }, at) => colour ?? shades[at % shades.length]);
};
function headed(figure, title, frame, { colours, size: usual, measure: measure2 }) {
  if (!title) return frame;
  const size = usual * 1.15;
  const height = Math.min(frame.height / 3, (linesOf(title, frame.width, { size, measure: measure2 }) ?? Math.ceil(measure2(title, size) / frame.width)) * size * 1.3) + size * 0.2;
  figure.labels.push({ text: plain2(title), frame: { ...frame, height }, align: "centre", anchor: "top", fill: colours.ink, size });
  return { ...frame, y: frame.y + height + size * 0.3, height: frame.height - height - size * 0.3 };
}
function around(data, frame, style, names = data.series.map(({ name }) => name), fills = shadesOf(data, style)) {
  const { colours, size, measure: measure2 } = style;
  const figure = { paths: [], labels: [] };
  const room = headed(figure, data.title, frame, style);
  const place = data.legend ?? "top";
  const named2 = names.some((name) => name !== "");
  if (place === "none" || !named2 || data.legend === void 0 && names.length === 1 && data.title === names[0]) return { figure, room };
  const entry = (name, at, x2, y, width) => {
    figure.paths.push({ d: rectangle({ x: x2, y: y + size * 0.35, width: size * 0.8, height: size * 0.8 }), fill: fills[at % fills.length] });
    figure.labels.push({ text: plain2(name), frame: { x: x2 + size * 1.1, y, width: Math.max(1, width - size * 1.1), height: size * 1.4 }, align: "start", anchor: "middle", fill: colours.ink, size });
  };
  if (place === "left" || place === "right") {
    const width = Math.min(room.width * 0.34, Math.max(...names.map((name) => measure2(name, size))) + size * 2);
    const top2 = room.y + Math.max(0, (room.height - names.length * size * 1.5) / 2);
    const left = place === "left" ? room.x : room.x + room.width - width + size * 0.6;
    for (const [at, name] of names.entries()) entry(name, at, left, top2 + at * size * 1.5, width - size * 0.6);
    return { figure, room: { ...room, x: place === "left" ? room.x + width : room.x, width: room.width - width } };
  }
  const lines2 = [[]];
  let x = 0;
  names.forEach((name, at) => {
    const width = measure2(name, size) + size * 2.2;
    if (x > 0 && x + width > room.width) {
      lines2.push([]);
      x = 0;
    }
    lines2.at(-1)?.push({ name, at, x, width: Math.min(width, room.width - x) });
    x += width;
  });
  const height = (lines2.length - 1) * size * 1.5 + size * 2;
  const top = place === "top" ? room.y : room.y + room.height - height + size * 0.6;
  lines2.forEach((line2, row) => {
    for (const item of line2) entry(item.name, item.at, room.x + item.x, top + row * size * 1.5, item.width);
  });
  return { figure, room: { ...room, y: place === "top" ? room.y + height : room.y, height: room.height - height } };
}
var ticksOf = (scale2, room, step, format) => {
  const count2 = Math.max(2, Math.min(8, Math.floor(room / step)));
  const usual = scale2.tickFormat(count2);
  return scale2.ticks(count2).map((value) => ({ value, text: format && format !== "General" ? formatted(value, format) : usual(value) }));
};
var axisFormat = ({ stack, format }) => stack === "share" ? "0%" : format;
function upright(kind) {
  return (given, frame, style) => {
    const twice = hasSecondAxis({ form: kind, series: given.series });
    const data = twice ? given : { ...given, series: given.series.map(({ by: _, ...series }) => series) };
    const { colours, size, measure: measure2 } = style;
    const { figure, room: inside } = around(data, frame, style);
    const shades = shadesOf(data, style);
    const forms = data.series.map(({ form }) => kind === "combined" ? form ?? "column" : kind);
    const scaleFor = (by) => {
      const own2 = measuredBy(data, by);
      const scale2 = scaleLinear().domain(domain(own2, forms.some((form, nth) => form !== "line" && data.series[nth]?.by === "second" === (by === "second"))));
      if (own2.yAxis?.most === void 0) scale2.nice(6);
      return { scale: scale2, own: own2, ticks: ticksOf(scale2, inside.height, size * 2.4, axisFormat(own2)) };
    };
    const { scale: first, ticks } = scaleFor("first");
    const other = twice ? scaleFor("second") : void 0;
    const said = (text) => text ? size * 1.6 : 0;
    const left = inside.x + Math.max(...ticks.map(({ text }) => measure2(text, size))) + size * 0.6;
    const right = other ? Math.max(...other.ticks.map(({ text }) => measure2(text, size))) + size * 0.6 : 0;
    const width = Math.max(1, inside.x + inside.width - left - right);
    const count2 = Math.max(1, data.categories.length);
    const room = width / count2;
    const { turn, every, height: high, longest } = naming(data.categories, room, inside.height, left + room / 2 - inside.x, style);
    const foot = high + size * 0.5;
    const above2 = said(data.yAxis?.title || (twice ? data.secondAxis?.title : void 0));
    const area = { x: left, y: inside.y + above2, width, height: Math.max(1, inside.height - foot - above2 - said(data.xAxis?.title)) };
    const scales = data.series.map(({ by }) => by === "second" && other ? other.scale : first);
    for (const scale2 of [first, other?.scale]) scale2?.range([area.y + area.height, area.y + size * 0.4]);
    if (other && data.secondAxis?.title) figure.labels.push({ text: plain2(data.secondAxis.title), frame: { x: area.x, y: inside.y - size * 0.2, width: width + right, height: size * 1.4 }, align: "end", anchor: "top", fill: colours.muted, size: size * 0.9 });
    for (const { value, text } of other?.ticks ?? []) figure.labels.push({ text: plain2(text), frame: { x: area.x + width + size * 0.4, y: other?.scale(value) - size * 0.7, width: right + size, height: size * 1.4 }, align: "start", anchor: "middle", fill: colours.muted, size });
    if (data.yAxis?.title) figure.labels.push({ text: plain2(data.yAxis.title), frame: { x: inside.x, y: inside.y - size * 0.2, width: area.width, height: size * 1.4 }, align: "start", anchor: "top", fill: colours.muted, size: size * 0.9 });
    if (data.xAxis?.title) figure.labels.push({ text: plain2(data.xAxis.title), frame: { x: area.x, y: area.y + area.height + foot, width, height: size * 1.5 }, align: "centre", anchor: "top", fill: colours.muted, size });
    for (const { value, text } of ticks) {
      const at = first(value);
      figure.paths.push({ d: polygon([[area.x, at], [area.x + area.width, at]], false), stroke: value === 0 ? colours.muted : mixed(colours.muted, colours.paper, 0.65), width: value === 0 ? 1.2 : 0.6 });
      figure.labels.push({ text: plain2(text), frame: { x: left - size * 0.4 - measure2(text, size) - size, y: at - size * 0.7, width: measure2(text, size) + size, height: size * 1.4 }, align: "end", anchor: "middle", fill: colours.muted, size });
    }
    const along2 = data.xAxis?.reversed ? [area.x + area.width, area.x] : [area.x, area.x + area.width];
    data.categories.forEach((name, at) => {
      if (at % every) return;
      const middle = area.x + ((data.xAxis?.reversed ? count2 - at - 1 : at) + 0.5) * room;
      const top = area.y + area.height + size * 0.4;
      const words2 = { align: turn ? "end" : "centre", anchor: turn ? "middle" : "top", fill: colours.muted, size };
      if (!turn) {
        figure.labels.push({ ...words2, text: plain2(name), frame: { x: middle - room / 2, y: top, width: room, height: high } });
        return;
      }
      const said2 = shortened(name, longest, style);
      const wide = measure2(said2, size) + 1;
      figure.labels.push({ ...words2, text: plain2(said2), frame: { x: middle - wide, y: top - size * 0.65, width: wide, height: size * 1.3 }, turn: { by: turn, about: [middle, top] } });
    });
    const label = (nth, value, x2, y, where = { anchor: "bottom", fill: colours.ink }) => {
      const format = data.series[nth]?.by === "second" ? data.secondAxis?.format : data.format;
      const top = y - size * { top: -0.1, middle: 0.65, bottom: 1.4 }[where.anchor];
      if (data.labels === "value") figure.labels.push({ ...where, text: plain2(formatted(value, format)), frame: { x: x2 - room, y: top, width: room * 2, height: size * 1.3 }, align: "centre", size: size * 0.9 });
    };
    const floors = scales.map((y) => Math.max(y.domain()[0], Math.min(y.domain()[1], 0)));
    const piles = data.stack ? { first: stacked(measuredBy(data, "first")), second: stacked(measuredBy(data, "second")) } : void 0;
    const spans = data.series.map(({ by }) => piles?.[by ?? "first"].shift());
    const band = scaleBand().domain(data.categories.map((_, at) => at)).range(along2).paddingInner(0.3).paddingOuter(0.15);
    const columns = data.series.flatMap((_, nth) => forms[nth] === "column" ? [nth] : []);
    const inner = scaleBand().domain(data.stack ? [0] : columns).range([0, band.bandwidth()]).padding(!data.stack && columns.length > 1 ? 0.08 : 0);
    const x = scalePoint().domain(data.categories.map((_, at) => at)).range(along2).padding(0.5);
    const order = ["area", "column", "line"];
    const drawn2 = data.series.map((one, nth) => ({ ...one, nth })).sort((a, b) => order.indexOf(forms[a.nth]) - order.indexOf(forms[b.nth]));
    drawn2.forEach(({ values, points: own2, smooth, joined, nth }) => {
      const fill = shades[nth];
      const y = scales[nth];
      const span = (at) => spans[nth] ? spans[nth]?.[at] ?? null : values[at] === null || values[at] === void 0 ? null : [floors[nth], values[at]];
      const points2 = data.categories.map((_, at) => span(at));
      if (forms[nth] === "column") {
        points2.forEach((value, at) => {
          if (!value) return;
          const [a, b] = [y(value[0]), y(value[1])];
          const place = { x: band(at) + inner(data.stack ? 0 : nth), y: Math.min(a, b), width: inner.bandwidth(), height: Math.abs(a - b) };
          figure.paths.push({ d: rectangle(place), fill: own2?.[at] ?? fill });
          const middle = place.x + place.width / 2;
          if (data.stack) label(nth, values[at], middle, place.y + place.height / 2, { anchor: "middle", fill: legible(own2?.[at] ?? fill, colours) });
          else label(nth, values[at], middle, b, { anchor: values[at] < 0 ? "top" : "bottom", fill: colours.ink });
        });
        return;
      }
      const defined = (value) => value !== null;
      if (forms[nth] === "area") {
        const d = areaShape().defined(defined).x((_, at) => x(at)).y0((value) => y(value?.[0] ?? 0)).y1((value) => y(value?.[1] ?? 0))(points2);
        if (d) figure.paths.push({ d, fill, fillOpacity: data.stack ? 1 : 0.55 });
      }
      const path = line().curve(smooth ? curveMonotoneX : curveLinear).defined(defined).x((_, at) => x(at)).y((value) => y(value?.[1] ?? 0))(points2);
      const unjoined = forms[nth] === "line" && !isJoined({ joined }, "line");
      if (path && !unjoined) figure.paths.push({ d: path, stroke: fill, width: forms[nth] === "area" ? 1.4 : 2.4 });
      points2.forEach((value, at) => {
        if (!value) return;
        if (forms[nth] === "line" && (unjoined || data.categories.length <= 24)) figure.paths.push({ d: rectangle({ x: x(at) - 2.6, y: y(value[1]) - 2.6, width: 5.2, height: 5.2 }, 2.6), fill });
        label(nth, values[at], x(at), y(value[1]));
      });
    });
    return figure;
  };
}
var scatter = (data, frame, style) => {
  const { colours, size, measure: measure2 } = style;
  const { figure, room } = around(data, frame, style);
  const shades = shadesOf(data, style);
  const across = data.series.flatMap(({ values, x: x2 }) => values.map((_, at) => x2?.[at] ?? at + 1));
  const horizontal = domain({ categories: [], series: [{ name: "", values: across }], ...data.xAxis ? { yAxis: data.xAxis } : {} }, false);
  const y = scaleLinear().domain(domain(data, false)).nice(6);
  const ticks = ticksOf(y, room.height, size * 2.4, data.format);
  const left = room.x + Math.max(...ticks.map(({ text }) => measure2(text, size))) + size * 0.6;
  const area = { x: left, y: room.y, width: Math.max(1, room.x + room.width - left - size), height: Math.max(1, room.height - size * 1.8 - (data.xAxis?.title ? size * 1.6 : 0)) };
  const x = scaleLinear().domain(horizontal).nice(6).range([area.x, area.x + area.width]);
  y.range([area.y + area.height, area.y + size * 0.4]);
  for (const { value, text } of ticks) {
    figure.paths.push({ d: polygon([[area.x, y(value)], [area.x + area.width, y(value)]], false), stroke: mixed(colours.muted, colours.paper, 0.65), width: 0.6 });
    figure.labels.push({ text: plain2(text), frame: { x: room.x, y: y(value) - size * 0.7, width: left - room.x - size * 0.4, height: size * 1.4 }, align: "end", anchor: "middle", fill: colours.muted, size });
  }
  for (const { value, text } of ticksOf(x, area.width, size * 5)) {
    figure.paths.push({ d: polygon([[x(value), area.y], [x(value), area.y + area.height]], false), stroke: mixed(colours.muted, colours.paper, 0.65), width: 0.6 });
    figure.labels.push({ text: plain2(text), frame: { x: x(value) - size * 3, y: area.y + area.height + size * 0.3, width: size * 6, height: size * 1.4 }, align: "centre", anchor: "top", fill: colours.muted, size });
  }
  if (data.xAxis?.title) figure.labels.push({ text: plain2(data.xAxis.title), frame: { x: area.x, y: area.y + area.height + size * 1.8, width: area.width, height: size * 1.5 }, align: "centre", anchor: "top", fill: colours.muted, size });
  data.series.forEach((series, nth) => {
    const places = series.values.map((value, at) => value === null ? null : [x(series.x?.[at] ?? at + 1), y(value)]);
    const path = isJoined(series, "scatter") ? line().curve(series.smooth ? curveCatmullRom : curveLinear).defined((place) => place !== null).x((place) => place?.[0] ?? 0).y((place) => place?.[1] ?? 0)(places) : void 0;
    if (path) figure.paths.push({ d: path, stroke: shades[nth], width: 1.8 });
    series.values.forEach((value, at) => {
      if (value !== null) figure.paths.push({ d: circle(x(series.x?.[at] ?? at + 1), y(value), 3.6), fill: shades[nth] });
    });
  });
  return figure;
};
var bar = (data, frame, style) => {
  const { colours, size, measure: measure2 } = style;
  const { figure, room } = around(data, frame, style);
  const shades = shadesOf(data, style);
  const widest = Math.max(0, ...data.categories.map((name) => measure2(name, size)));
  const left = room.x + Math.min(room.width * 0.36, widest + size * 0.8);
  const area = { x: left, y: room.y, width: Math.max(1, room.x + room.width - left - size), height: Math.max(1, room.height - size * 1.8) };
  const x = scaleLinear().domain(domain(data, true)).range([area.x, area.x + area.width]);
  if (data.yAxis?.most === void 0) x.nice(6);
  const band = scaleBand().domain(data.categories.map((_, at) => at)).range(data.xAxis?.reversed ? [area.y + area.height, area.y] : [area.y, area.y + area.height]).paddingInner(0.3).paddingOuter(0.15);
  const inner = scaleBand().domain(data.stack ? [0] : data.series.map((_, at) => at)).range([0, band.bandwidth()]);
  const spans = data.stack ? stacked(data) : void 0;
  for (const { value, text } of ticksOf(x, area.width, size * 5, axisFormat(data))) {
    const at = x(value);
    figure.paths.push({ d: polygon([[at, area.y], [at, area.y + area.height]], false), stroke: mixed(colours.muted, colours.paper, 0.65), width: value === 0 ? 1.2 : 0.6 });
    figure.labels.push({ text: plain2(text), frame: { x: at - size * 3, y: area.y + area.height + size * 0.3, width: size * 6, height: size * 1.4 }, align: "centre", anchor: "top", fill: colours.muted, size });
  }
  data.categories.forEach((name, at) => {
    figure.labels.push({ text: plain2(name), frame: { x: room.x, y: band(at), width: left - room.x - size * 0.5, height: band.bandwidth() }, align: "end", anchor: "middle", fill: colours.ink, size });
    data.series.forEach(({ values, points: points2 }, nth) => {
      const value = values[at] ?? null;
      const span = spans ? spans[nth]?.[at] : value === null ? null : [0, value];
      if (!span || value === null) return;
      const [a, b] = [x(span[0]), x(span[1])];
      const top = band(at) + inner(data.stack ? 0 : nth);
      const fill = points2?.[at] ?? shades[nth];
      figure.paths.push({ d: rectangle({ x: Math.min(a, b), y: top, width: Math.abs(a - b), height: inner.bandwidth() }), fill });
      const { from, ...words2 } = data.stack ? { from: (a + b) / 2 - size * 3, align: "centre", fill: legible(fill, colours) } : { from: Math.max(a, b) + size * 0.3, align: "start", fill: colours.ink };
      if (data.labels === "value") figure.labels.push({ ...words2, text: plain2(formatted(value, data.format)), frame: { x: from, y: top, width: size * 6, height: inner.bandwidth() }, anchor: "middle", size: size * 0.9 });
    });
  });
  return figure;
};
function round(hole) {
  return (data, frame, style) => {
    const { colours, size } = style;
    const { categories, series, title } = data;
    const figure = { paths: [], labels: [] };
    const room = headed(figure, title, frame, style);
    const shades = palette(colours);
    const values = categories.map((_, at) => Math.max(0, series[0]?.values[at] ?? 0));
    const total = values.reduce((sum, value) => sum + value, 0) || 1;
    const r2 = Math.min(room.height / 2, room.width * 0.24);
    const centre = { x: room.x + r2, y: room.y + room.height / 2 };
    const slices = pie().sort(null).value((value) => value)(values);
    const draw = arc().innerRadius(r2 * hole).outerRadius(r2);
    const row = Math.min(size * 1.9, room.height / Math.max(1, categories.length));
    const top = centre.y - row * categories.length / 2;
    slices.forEach((slice2, at) => {
      const fill = series[0]?.points?.[at] ?? shades[at % shades.length];
      figure.paths.push({ d: draw(slice2) ?? "", fill, stroke: colours.paper, width: 1.5, matrix: [1, 0, 0, 1, centre.x, centre.y] });
      const left = centre.x + r2 + size * 2;
      const said = data.labels === "value" ? formatted(values[at], data.format) : `${Math.round(values[at] / total * 100)} %`;
      figure.paths.push({ d: rectangle({ x: left, y: top + at * row + (row - size * 0.8) / 2, width: size * 0.8, height: size * 0.8 }), fill });
      const label = { text: plain2(`${categories[at]} \xB7 ${said}`), frame: { x: left + size * 1.3, y: top + at * row, width: Math.max(1, room.x + room.width - left - size * 1.3), height: row }, align: "start", anchor: "middle", fill: colours.ink, size };
      figure.labels.push(label);
    });
    return figure;
  };
}
var DRAWERS = { column: upright("column"), line: upright("line"), area: upright("area"), combined: upright("combined"), bar, pie: round(0), doughnut: round(0.55), scatter };
function chart(form, data, frame, style) {
  return DRAWERS[form](data, frame, style);
}

// core/figures/code.ts
import highlighter from "highlight.js/lib/core";
import bash from "highlight.js/lib/languages/bash";
import c from "highlight.js/lib/languages/c";
import cpp from "highlight.js/lib/languages/cpp";
import css from "highlight.js/lib/languages/css";
import java from "highlight.js/lib/languages/java";
import javascript from "highlight.js/lib/languages/javascript";
import json from "highlight.js/lib/languages/json";
import matlab from "highlight.js/lib/languages/matlab";
import python from "highlight.js/lib/languages/python";
import r from "highlight.js/lib/languages/r";
import sql from "highlight.js/lib/languages/sql";
import typescript from "highlight.js/lib/languages/typescript";
import xml from "highlight.js/lib/languages/xml";
import yaml from "highlight.js/lib/languages/yaml";
var LANGUAGES = { bash, c, cpp, css, java, javascript, json, matlab, python, r, sql, typescript, xml, yaml };
for (const [name, language] of Object.entries(LANGUAGES)) highlighter.registerLanguage(name, language);
var TONES = { keyword: "keyword", built_in: "keyword", literal: "number", type: "keyword", number: "number", string: "string", regexp: "string", comment: "comment", quote: "comment", title: "name", section: "name", attr: "name", attribute: "name", property: "name", tag: "keyword", name: "keyword", "selector-tag": "keyword", meta: "comment" };
function codeLines(text, language) {
  const lines2 = [[]];
  const add2 = (value, tone) => {
    value.split("\n").forEach((part, at) => {
      if (at) lines2.push([]);
      if (part) lines2.at(-1)?.push({ text: part.replace(/\t/g, "    "), tone });
    });
  };
  const clean = withoutEnd(text.replace(/\r\n?/g, "\n"), "\n");
  if (!highlighter.getLanguage(language) || clean.length > 5e4) {
    add2(clean, "plain");
    return lines2;
  }
  const walk = (node, tone) => {
    const own2 = node.scope ? TONES[node.scope] ?? TONES[node.scope.split(".")[0]] ?? tone : tone;
    for (const child of node.children ?? []) {
      if (typeof child === "string") add2(child, own2);
      else walk(child, own2);
    }
  };
  walk(highlighter.highlight(clean, { language, ignoreIllegals: true })._emitter.rootNode, "plain");
  return lines2;
}

// core/figures/diagram.ts
var bare = (paragraph) => ({ kind: "plain", level: 0, runs: paragraph.runs });
function treeOf(text) {
  const roots = [];
  const open = [];
  for (const paragraph of text) {
    const item = { text: [bare(paragraph)], below: [] };
    while (open.length && (open.at(-1)?.level ?? 0) >= paragraph.level) open.pop();
    (open.at(-1)?.item.below ?? roots).push(item);
    open.push({ level: paragraph.level, item });
  }
  return roots;
}
function flat(item, level = 0) {
  return [...item.text.map((paragraph) => level ? { ...paragraph, kind: "bullet", level: level - 1 } : { ...paragraph, runs: item.below.length ? paragraph.runs.map((run2) => ({ ...run2, marks: ["strong"] })) : paragraph.runs }), ...item.below.flatMap((inner) => flat(inner, level + 1))];
}
function inset({ x, y, width, height }, by) {
  return { x: x + by, y: y + by, width: Math.max(1, width - 2 * by), height: Math.max(1, height - 2 * by) };
}
var steps2 = (items, frame, { colours, size }) => {
  const figure = { paths: [], labels: [] };
  const gap = size * 0.35;
  const width = (frame.width - gap * (items.length - 1)) / items.length;
  const deep = items.some(({ below }) => below.length > 0);
  const height = deep ? Math.min(frame.height * 0.36, size * 4) : Math.min(frame.height * 0.6, size * 6);
  const top = deep ? frame.y : frame.y + (frame.height - height) / 2;
  const point = Math.min(width * 0.14, size * 0.9);
  items.forEach((item, at) => {
    const x = frame.x + at * (width + gap);
    const notch = at ? point : 0;
    figure.paths.push({ d: polygon([[x, top], [x + width - point, top], [x + width, top + height / 2], [x + width - point, top + height], [x, top + height], [x + notch, top + height / 2]]), fill: mixed(colours.accent, colours.paper, 0.84), stroke: colours.accent, width: 1 });
    figure.labels.push({ text: item.text, frame: inset({ x: x + notch, y: top, width: width - point - notch, height }, size * 0.25), align: "centre", anchor: "middle", fill: colours.ink, size });
    if (item.below.length) figure.labels.push({ text: item.below.flatMap((inner) => flat(inner, 1)), frame: { x: x + size * 0.2, y: top + height + size * 0.6, width: width - size * 0.4, height: frame.height - height - size * 0.6 }, align: "start", anchor: "top", fill: colours.ink, size: size * 0.82 });
  });
  return figure;
};
var cycle = (items, frame, { colours, size }) => {
  const figure = { paths: [], labels: [] };
  const count2 = items.length;
  const width = Math.min(frame.width / 3.1, frame.width * 1.15 / Math.max(2, Math.ceil(count2 / 2)));
  const height = Math.min(frame.height / 3.6, size * 3.6);
  const radius = { x: (frame.width - width) / 2, y: (frame.height - height) / 2 };
  const centre = { x: frame.x + frame.width / 2, y: frame.y + frame.height / 2 };
  const boxes = items.map((_, at) => {
    const angle = -Math.PI / 2 + at * 2 * Math.PI / count2;
    return { x: centre.x + radius.x * Math.cos(angle) - width / 2, y: centre.y + radius.y * Math.sin(angle) - height / 2, width, height };
  });
  boxes.forEach((box, at) => {
    const item = items[at];
    const next2 = boxes[(at + 1) % count2];
    if (count2 > 1) {
      const [a, b] = [edge(box, next2, size * 0.3), edge(next2, box, size * 0.3)];
      const { line: line2, head } = arrow(a, b, size * 0.55);
      figure.paths.push({ d: line2, stroke: colours.muted, width: 1.6 }, { d: head, fill: colours.muted });
    }
    figure.paths.push({ d: rectangle(box, 4), fill: mixed(colours.accent, colours.paper, 0.84), stroke: colours.accent, width: 1 });
    figure.labels.push({ text: flat(item), frame: inset(box, size * 0.3), align: "centre", anchor: "middle", fill: colours.ink, size: size * 0.9 });
  });
  return figure;
};
function edge(box, other, outside) {
  const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
  const [dx, dy] = [other.x + other.width / 2 - cx, other.y + other.height / 2 - cy];
  const length = Math.hypot(dx, dy) || 1;
  const share2 = Math.min(box.width / 2 / Math.abs(dx || 1e-9), box.height / 2 / Math.abs(dy || 1e-9));
  return [cx + dx * share2 + dx / length * outside, cy + dy * share2 + dy / length * outside];
}
var hierarchy = (items, frame, { colours, size }) => {
  const figure = { paths: [], labels: [] };
  const leaves = (item) => item.below.length ? item.below.reduce((sum, inner) => sum + leaves(inner), 0) : 1;
  const depth = (item) => 1 + Math.max(0, ...item.below.map(depth));
  const total = items.reduce((sum, item) => sum + leaves(item), 0);
  const rows = Math.max(...items.map(depth));
  const column = frame.width / total;
  const rise = Math.min(size * 1.4, frame.height / rows * 0.3);
  const height = Math.min((frame.height - rise * (rows - 1)) / rows, size * 4);
  const width = column * 0.9;
  let leaf = 0;
  const place = (item, row) => {
    const first = leaf;
    const below = item.below.map((inner) => place(inner, row + 1));
    if (!below.length) leaf += 1;
    const span = Math.max(1, leaf - first);
    const own2 = Math.min(width * Math.min(span, 2), span * column * 0.95);
    const box = { x: frame.x + (first + span / 2) * column - own2 / 2, y: frame.y + row * (height + rise), width: own2, height };
    for (const inner of below) {
      const middle = box.y + height + rise / 2;
      figure.paths.push({ d: polygon([[box.x + own2 / 2, box.y + height], [box.x + own2 / 2, middle], [inner.x + inner.width / 2, middle], [inner.x + inner.width / 2, inner.y]], false), stroke: colours.muted, width: 1.2 });
    }
    figure.paths.push({ d: rectangle(box, 4), fill: row ? mixed(colours.accent, colours.paper, 0.88) : mixed(colours.accent, colours.paper, 0.7), stroke: colours.accent, width: 1 });
    figure.labels.push({ text: item.text, frame: inset(box, size * 0.2), align: "centre", anchor: "middle", fill: colours.ink, size: size * 0.9 });
    return box;
  };
  for (const item of items) place(item, 0);
  return figure;
};
var pyramid = (items, frame, { colours, size }) => {
  const figure = { paths: [], labels: [] };
  const base2 = Math.min(frame.width * 0.46, frame.height * 1.2);
  const height = frame.height / items.length;
  const tip = frame.x + base2 / 2;
  const gap = Math.min(3, height * 0.05);
  items.forEach((item, at) => {
    const [top, bottom] = [frame.y + at * height, frame.y + (at + 1) * height - gap];
    const half = (y2) => (y2 - frame.y) / frame.height * (base2 / 2);
    figure.paths.push({ d: polygon([[tip - half(top), top], [tip + half(top), top], [tip + half(bottom), bottom], [tip - half(bottom), bottom]]), fill: mixed(colours.accent, colours.paper, at / Math.max(1, items.length) * 0.8) });
    const y = (top + bottom) / 2;
    const left = frame.x + base2 + size * 0.8;
    figure.paths.push({ d: polygon([[tip + half(y) + size * 0.2, y], [left - size * 0.3, y]], false), stroke: colours.muted, width: 1 });
    figure.labels.push({ text: flat(item), frame: { x: left, y: top, width: frame.x + frame.width - left, height: height - gap }, align: "start", anchor: "middle", fill: colours.ink, size });
  });
  return figure;
};
var relation = (items, frame, { colours, size }) => {
  const figure = { paths: [], labels: [] };
  const share2 = 0.78;
  const r2 = Math.min(frame.height / 2, frame.width / (2 + 2 * share2 * (items.length - 1)));
  const width = 2 * r2 + 2 * r2 * share2 * (items.length - 1);
  const left = frame.x + (frame.width - width) / 2;
  const y = frame.y + frame.height / 2;
  items.forEach((item, at) => {
    const x = left + r2 + at * 2 * r2 * share2;
    figure.paths.push({ d: circle(x, y, r2), stroke: at % 2 ? colours.second : colours.accent, width: 2.5 });
    const inner = r2 * 1.05;
    figure.labels.push({ text: flat(item), frame: { x: x - inner / 2 + (items.length > 1 ? at === 0 ? -r2 * 0.12 : at === items.length - 1 ? r2 * 0.12 : 0 : 0), y: y - r2 * 0.62, width: inner, height: r2 * 1.24 }, align: "centre", anchor: "middle", fill: colours.ink, size: size * 0.9 });
  });
  return figure;
};
var DRAWERS2 = { steps: steps2, cycle, hierarchy, pyramid, relation };
function diagram(form, text, frame, style) {
  const items = treeOf(text);
  return items.length ? DRAWERS2[form](items, frame, style) : { paths: [], labels: [] };
}

// core/figures/formula.ts
var engine;
var KEPT = 2e3;
var kept2 = /* @__PURE__ */ new Map();
function formulaShape(tex, display) {
  if (!engine) return void 0;
  const key = `${display ? "d" : "i"}${tex}`;
  const known = kept2.get(key);
  if (known) return known;
  if (kept2.size >= KEPT) kept2.clear();
  const made = engine(tex, display);
  kept2.set(key, made);
  return made;
}

// core/figures/geometry.ts
import SvgPath from "svgpath";

// core/figures/preset.ts
var RECT = "M l t L r t L r b L l b Z";
var ELLIPSE = "M l vc A wd2 hd2 cd2 cd4 A wd2 hd2 3cd4 cd4 A wd2 hd2 0 cd4 A wd2 hd2 cd4 cd4 Z";

// core/figures/presetarrows.ts
var turning = (point, end, start) => `a5=pin 0 adj5 25000; maxAdj1=*/ a5 2 1; a1=pin 0 adj1 maxAdj1; enAng=pin 1 ${end} 21599999; stAng=pin 0 ${start} 21599999; th=*/ ss a1 100000; thh=*/ ss a5 100000; th2=*/ th 1 2; rw1=+- wd2 th2 thh; rh1=+- hd2 th2 thh; rw2=+- rw1 0 th; rh2=+- rh1 0 th; rw3=+- rw2 th2 0; rh3=+- rh2 th2 0; wtH=sin rw3 enAng; htH=cos rh3 enAng; dxH=cat2 rw3 htH wtH; dyH=sat2 rh3 htH wtH; xH=+- hc dxH 0; yH=+- vc dyH 0; rI=min rw2 rh2; u1=*/ dxH dxH 1; u2=*/ dyH dyH 1; u3=*/ rI rI 1; u4=+- u1 0 u3; u5=+- u2 0 u3; u6=*/ u4 u5 u1; u7=*/ u6 1 u2; u8=+- 1 0 u7; u9=sqrt u8; u10=*/ u4 1 dxH; u11=*/ u10 1 dyH; u12=+/ 1 u9 u11; u13=at2 1 u12; u14=+- u13 21600000 0; u15=?: u13 u13 u14; u16=+- u15 0 enAng; u17=+- u16 21600000 0; u18=?: u16 u16 u17; u19=+- u18 0 cd2; u20=+- u18 0 21600000; u21=?: u19 u20 u18; maxAng=abs u21; aAng=pin 0 ${point} maxAng; ptAng=+- enAng aAng 0; wtA=sin rw3 ptAng; htA=cos rh3 ptAng; dxA=cat2 rw3 htA wtA; dyA=sat2 rh3 htA wtA; xA=+- hc dxA 0; yA=+- vc dyA 0; wtE=sin rw1 stAng; htE=cos rh1 stAng; dxE=cat2 rw1 htE wtE; dyE=sat2 rh1 htE wtE; xE=+- hc dxE 0; yE=+- vc dyE 0; dxG=cos thh ptAng; dyG=sin thh ptAng; xG=+- xH dxG 0; yG=+- yH dyG 0; xB=+- xH 0 dxG; yB=+- yH 0 dyG; sx1=+- xB 0 hc; sy1=+- yB 0 vc; sx2=+- xG 0 hc; sy2=+- yG 0 vc; rO=min rw1 rh1; x1O=*/ sx1 rO rw1; y1O=*/ sy1 rO rh1; x2O=*/ sx2 rO rw1; y2O=*/ sy2 rO rh1; dxO=+- x2O 0 x1O; dyO=+- y2O 0 y1O; dO=mod dxO dyO 0; q1=*/ x1O y2O 1; q2=*/ x2O y1O 1; DO=+- q1 0 q2; q3=*/ rO rO 1; q4=*/ dO dO 1; q5=*/ q3 q4 1; q6=*/ DO DO 1; q7=+- q5 0 q6; q8=max q7 0; sdelO=sqrt q8; ndyO=*/ dyO -1 1; sdyO=?: ndyO -1 1; q9=*/ sdyO dxO 1; q10=*/ q9 sdelO 1; q11=*/ DO dyO 1; dxF1=+/ q11 q10 q4; q12=+- q11 0 q10; dxF2=*/ q12 1 q4; adyO=abs dyO; q13=*/ adyO sdelO 1; q14=*/ DO dxO -1; dyF1=+/ q14 q13 q4; q15=+- q14 0 q13; dyF2=*/ q15 1 q4; q16=+- x2O 0 dxF1; q17=+- x2O 0 dxF2; q18=+- y2O 0 dyF1; q19=+- y2O 0 dyF2; q20=mod q16 q18 0; q21=mod q17 q19 0; q22=+- q21 0 q20; dxF=?: q22 dxF1 dxF2; dyF=?: q22 dyF1 dyF2; sdxF=*/ dxF rw1 rO; sdyF=*/ dyF rh1 rO; xF=+- hc sdxF 0; yF=+- vc sdyF 0; x1I=*/ sx1 rI rw2; y1I=*/ sy1 rI rh2; x2I=*/ sx2 rI rw2; y2I=*/ sy2 rI rh2; dxI=+- x2I 0 x1I; dyI=+- y2I 0 y1I; dI=mod dxI dyI 0; v1=*/ x1I y2I 1; v2=*/ x2I y1I 1; DI=+- v1 0 v2; v3=*/ rI rI 1; v4=*/ dI dI 1; v5=*/ v3 v4 1; v6=*/ DI DI 1; v7=+- v5 0 v6; v8=max v7 0; sdelI=sqrt v8; v9=*/ sdyO dxI 1; v10=*/ v9 sdelI 1; v11=*/ DI dyI 1; dxC1=+/ v11 v10 v4; v12=+- v11 0 v10; dxC2=*/ v12 1 v4; adyI=abs dyI; v13=*/ adyI sdelI 1; v14=*/ DI dxI -1; dyC1=+/ v14 v13 v4; v15=+- v14 0 v13; dyC2=*/ v15 1 v4; v16=+- x1I 0 dxC1; v17=+- x1I 0 dxC2; v18=+- y1I 0 dyC1; v19=+- y1I 0 dyC2; v20=mod v16 v18 0; v21=mod v17 v19 0; v22=+- v21 0 v20; dxC=?: v22 dxC1 dxC2; dyC=?: v22 dyC1 dyC2; sdxC=*/ dxC rw2 rI; sdyC=*/ dyC rh2 rI; xC=+- hc sdxC 0; yC=+- vc sdyC 0; ist0=at2 sdxC sdyC; ist1=+- ist0 21600000 0; istAng=?: ist0 ist0 ist1; isw1=+- stAng 0 istAng; isw2=+- isw1 0 21600000; iswAng=?: isw1 isw2 isw1; p1=+- xF 0 xC; p2=+- yF 0 yC; p3=mod p1 p2 0; p4=*/ p3 1 2; p5=+- p4 0 thh; xGp=?: p5 xF xG; yGp=?: p5 yF yG; xBp=?: p5 xC xB; yBp=?: p5 yC yB; en0=at2 sdxF sdyF; en1=+- en0 21600000 0; en2=?: en0 en0 en1; sw0=+- en2 0 stAng; sw1=+- sw0 21600000 0; swAng=?: sw0 sw0 sw1`;
function apart(guides, mark) {
  const names = new Set(guides.split(";").map((guide) => guide.split("=")[0]?.trim() ?? ""));
  return guides.replace(/[A-Za-z]\w*/g, (name) => names.has(name) ? name + mark : name);
}
var OTHER = apart(`eE=+- 21600000 0 adj4; eS=+- 21600000 0 adj3; ${turning("adj2", "eE", "eS")}; oF=+- b 0 yF; oG=+- b 0 yGp; oA=+- b 0 yA; oB=+- b 0 yBp; oS=+- 21600000 0 en2; oI=+- 21600000 0 istAng`, "o");
var DRAWN = {
  leftRightUpArrow: { adjust: "adj1=25000 adj2=25000 adj3=25000", guides: "a2=pin 0 adj2 50000; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; q1=+- 100000 0 maxAdj1; maxAdj3=*/ q1 1 2; a3=pin 0 adj3 maxAdj3; x1=*/ ss a3 100000; dx2=*/ ss a2 100000; x2=+- hc 0 dx2; x5=+- hc dx2 0; dx3=*/ ss a1 200000; x3=+- hc 0 dx3; x4=+- hc dx3 0; x6=+- r 0 x1; dy2=*/ ss a2 50000; y2=+- b 0 dy2; y4=+- b 0 dx2; y3=+- y4 0 dx3; y5=+- y4 dx3 0; il=*/ dx3 x1 dx2; ir=+- r 0 il", path: "M l y4 L x1 y2 L x1 y3 L x3 y3 L x3 x1 L x2 x1 L hc t L x5 x1 L x4 x1 L x4 y3 L x6 y3 L x6 y2 L r y4 L x6 b L x6 y5 L x1 y5 L x1 b Z", text: "il y3 ir y5" },
  leftArrowCallout: { adjust: "adj1=25000 adj2=25000 adj3=25000 adj4=64977", guides: "maxAdj2=*/ 50000 h ss; a2=pin 0 adj2 maxAdj2; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; maxAdj3=*/ 100000 w ss; a3=pin 0 adj3 maxAdj3; q2=*/ a3 ss w; maxAdj4=+- 100000 0 q2; a4=pin 0 adj4 maxAdj4; dy1=*/ ss a2 100000; dy2=*/ ss a1 200000; y1=+- vc 0 dy1; y2=+- vc 0 dy2; y3=+- vc dy2 0; y4=+- vc dy1 0; x1=*/ ss a3 100000; dx2=*/ w a4 100000; x2=+- r 0 dx2", path: "M l vc L x1 y1 L x1 y2 L x2 y2 L x2 t L r t L r b L x2 b L x2 y3 L x1 y3 L x1 y4 Z", text: "x2 t r b" },
  upArrowCallout: { adjust: "adj1=25000 adj2=25000 adj3=25000 adj4=64977", guides: "maxAdj2=*/ 50000 w ss; a2=pin 0 adj2 maxAdj2; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; maxAdj3=*/ 100000 h ss; a3=pin 0 adj3 maxAdj3; q2=*/ a3 ss h; maxAdj4=+- 100000 0 q2; a4=pin 0 adj4 maxAdj4; dx1=*/ ss a2 100000; dx2=*/ ss a1 200000; x1=+- hc 0 dx1; x2=+- hc 0 dx2; x3=+- hc dx2 0; x4=+- hc dx1 0; y1=*/ ss a3 100000; dy2=*/ h a4 100000; y2=+- b 0 dy2", path: "M l y2 L x2 y2 L x2 y1 L x1 y1 L hc t L x4 y1 L x3 y1 L x3 y2 L r y2 L r b L l b Z", text: "l y2 r b" },
  leftRightArrowCallout: { adjust: "adj1=25000 adj2=25000 adj3=25000 adj4=48123", guides: "maxAdj2=*/ 50000 h ss; a2=pin 0 adj2 maxAdj2; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; maxAdj3=*/ 50000 w ss; a3=pin 0 adj3 maxAdj3; q2=*/ a3 ss wd2; maxAdj4=+- 100000 0 q2; a4=pin 0 adj4 maxAdj4; dy1=*/ ss a2 100000; dy2=*/ ss a1 200000; y1=+- vc 0 dy1; y2=+- vc 0 dy2; y3=+- vc dy2 0; y4=+- vc dy1 0; x1=*/ ss a3 100000; x4=+- r 0 x1; dx2=*/ w a4 200000; x2=+- hc 0 dx2; x3=+- hc dx2 0", path: "M l vc L x1 y1 L x1 y2 L x2 y2 L x2 t L x3 t L x3 y2 L x4 y2 L x4 y1 L r vc L x4 y4 L x4 y3 L x3 y3 L x3 b L x2 b L x2 y3 L x1 y3 L x1 y4 Z", text: "x2 t x3 b" },
  quadArrowCallout: { adjust: "adj1=18515 adj2=18515 adj3=18515 adj4=48123", guides: "a2=pin 0 adj2 50000; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; maxAdj3=+- 50000 0 a2; a3=pin 0 adj3 maxAdj3; q2=*/ a3 2 1; maxAdj4=+- 100000 0 q2; a4=pin a1 adj4 maxAdj4; dx2=*/ ss a2 100000; dx3=*/ ss a1 200000; ah=*/ ss a3 100000; dx1=*/ w a4 200000; dy1=*/ h a4 200000; x8=+- r 0 ah; x2=+- hc 0 dx1; x7=+- hc dx1 0; x3=+- hc 0 dx2; x6=+- hc dx2 0; x4=+- hc 0 dx3; x5=+- hc dx3 0; y8=+- b 0 ah; y2=+- vc 0 dy1; y7=+- vc dy1 0; y3=+- vc 0 dx2; y6=+- vc dx2 0; y4=+- vc 0 dx3; y5=+- vc dx3 0", path: "M l vc L ah y3 L ah y4 L x2 y4 L x2 y2 L x4 y2 L x4 ah L x3 ah L hc t L x6 ah L x5 ah L x5 y2 L x7 y2 L x7 y4 L x8 y4 L x8 y3 L r vc L x8 y6 L x8 y5 L x7 y5 L x7 y7 L x5 y7 L x5 y8 L x6 y8 L hc b L x3 y8 L x4 y8 L x4 y7 L x2 y7 L x2 y5 L ah y5 L ah y6 Z", text: "x2 y2 x7 y7" },
  bentArrow: { adjust: "adj1=25000 adj2=25000 adj3=25000 adj4=43750", guides: "a2=pin 0 adj2 50000; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; a3=pin 0 adj3 50000; th=*/ ss a1 100000; aw2=*/ ss a2 100000; th2=*/ th 1 2; dh2=+- aw2 0 th2; ah=*/ ss a3 100000; bw=+- r 0 ah; bh=+- b 0 dh2; bs=min bw bh; maxAdj4=*/ 100000 bs ss; a4=pin 0 adj4 maxAdj4; bd=*/ ss a4 100000; bd3=+- bd 0 th; bd2=max bd3 0; x3=+- th bd2 0; x4=+- r 0 ah; y3=+- dh2 th 0; y4=+- y3 dh2 0; y5=+- dh2 bd 0", path: "M l b L l y5 A bd bd cd2 cd4 L x4 dh2 L x4 t L r aw2 L x4 y4 L x4 y3 L x3 y3 A bd2 bd2 3cd4 -5400000 L th b Z" },
  uturnArrow: { adjust: "adj1=25000 adj2=25000 adj3=25000 adj4=43750 adj5=75000", guides: "a2=pin 0 adj2 25000; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; q2=*/ a1 ss h; q3=+- 100000 0 q2; maxAdj3=*/ q3 h ss; a3=pin 0 adj3 maxAdj3; q1=+- a3 a1 0; minAdj5=*/ q1 ss h; a5=pin minAdj5 adj5 100000; th=*/ ss a1 100000; aw2=*/ ss a2 100000; th2=*/ th 1 2; dh2=+- aw2 0 th2; y5=*/ h a5 100000; ah=*/ ss a3 100000; y4=+- y5 0 ah; x9=+- r 0 dh2; bw=*/ x9 1 2; bs=min bw y4; maxAdj4=*/ bs 100000 ss; a4=pin 0 adj4 maxAdj4; bd=*/ ss a4 100000; bd3=+- bd 0 th; bd2=max bd3 0; x3=+- th bd2 0; x8=+- r 0 aw2; x6=+- x8 0 aw2; x7=+- x6 dh2 0; x4=+- x9 0 bd", path: "M l b L l bd A bd bd cd2 cd4 L x4 t A bd bd 3cd4 cd4 L x9 y4 L r y4 L x8 y5 L x6 y4 L x7 y4 L x7 x3 A bd2 bd2 0 -5400000 L x3 th A bd2 bd2 3cd4 -5400000 L th b Z" },
  circularArrow: { adjust: "adj1=12500 adj2=1142319 adj3=20457681 adj4=10800000 adj5=12500", guides: `${turning("adj2", "adj3", "adj4")}`, path: "M xE yE A rw1 rh1 stAng swAng L xGp yGp L xA yA L xBp yBp L xC yC A rw2 rh2 istAng iswAng Z" },
  leftRightCircularArrow: { adjust: "adj1=12500 adj2=1142319 adj3=20457681 adj4=11942319 adj5=12500", guides: `${turning("adj2", "adj3", "adj4")}; ${OTHER}; w0=+- en2 0 oSo; w1=+- w0 21600000 0; wO=?: w0 w0 w1; i0=+- oIo 0 istAng; i1=+- i0 0 21600000; wI=?: i0 i1 i0`, path: "M xFo oFo A rw1 rh1 oSo wO L xGp yGp L xA yA L xBp yBp L xC yC A rw2 rh2 istAng wI L xBpo oBo L xAo oAo L xGpo oGo Z" },
  leftCircularArrow: { adjust: "adj1=12500 adj2=-1142319 adj3=1142319 adj4=10800000 adj5=12500", guides: `b2=*/ adj2 -1 1; b3=+- 21600000 0 adj3; b4=+- 21600000 0 adj4; ${turning("b2", "b3", "b4")}`, mirror: "y", path: "M xE yE A rw1 rh1 stAng swAng L xGp yGp L xA yA L xBp yBp L xC yC A rw2 rh2 istAng iswAng Z" },
  curvedRightArrow: { adjust: "adj1=25000 adj2=50000 adj3=25000", guides: "maxAdj2=*/ 50000 h ss; a2=pin 0 adj2 maxAdj2; a1=pin 0 adj1 a2; th=*/ ss a1 100000; aw=*/ ss a2 100000; q1=+/ th aw 4; hR=+- hd2 0 q1; q7=*/ hR 2 1; q8=*/ q7 q7 1; q9=*/ th th 1; q10=+- q8 0 q9; q11=sqrt q10; idx=*/ q11 w q7; maxAdj3=*/ 100000 idx ss; a3=pin 0 adj3 maxAdj3; ah=*/ ss a3 100000; y3=+- hR th 0; q2=*/ w w 1; q3=*/ ah ah 1; q4=+- q2 0 q3; q5=sqrt q4; dy=*/ q5 hR w; y5=+- hR dy 0; y7=+- y3 dy 0; q6=+- aw 0 th; dh=*/ q6 1 2; y4=+- y5 0 dh; y8=+- y7 dh 0; aw2=*/ aw 1 2; y6=+- b 0 aw2; x1=+- r 0 ah; swAng=at2 ah dy; stAng=+- cd2 0 swAng; mswAng=+- 0 0 swAng; q12=*/ th 1 2; dang2=at2 idx q12; swAng2=+- dang2 0 cd4; swAng3=+- cd4 dang2 0; stAng3=+- cd2 0 dang2", path: "[s0]M l hR A w hR cd2 mswAng L x1 y4 L r y6 L x1 y8 L x1 y7 A w hR stAng swAng Z|[s0 dk]M r th A w hR 3cd4 swAng2 A w hR stAng3 swAng3 Z|[f0]M l hR A w hR cd2 mswAng L x1 y4 L r y6 L x1 y8 L x1 y7 A w hR stAng swAng L l hR A w hR cd2 cd4 L r th A w hR 3cd4 swAng2" },
  swooshArrow: { adjust: "adj1=25000 adj2=16667", guides: "a1=pin 1 adj1 75000; maxAdj2=*/ 70000 w ss; a2=pin 0 adj2 maxAdj2; ad1=*/ h a1 100000; ad2=*/ ss a2 100000; xB=+- r 0 ad2; yB=+- t ssd8 0; alfa=*/ cd4 1 14; dx0=tan ssd8 alfa; xC=+- xB 0 dx0; dx1=tan ad1 alfa; yF=+- yB ad1 0; xF=+- xB dx1 0; xE=+- xF dx0 0; yE=+- yF ssd8 0; dy2=+- yE 0 t; dy22=*/ dy2 1 2; dy3=*/ h 1 20; yD=+- t dy22 dy3; yP1=+- hd6 hd6 0; xP1=val wd6; dy5=*/ hd6 1 2; yP2=+- yF dy5 0; xP2=val wd4", path: "M l b Q xP1 yP1 xB yB L xC t L r yD L xE yE L xF yF Q xP2 yP2 l b Z" }
};
var ARROWS = {
  ...DRAWN,
  upDownArrowCallout: { ...DRAWN.leftRightArrowCallout, transpose: true },
  curvedLeftArrow: { ...DRAWN.curvedRightArrow, mirror: "x" },
  curvedDownArrow: { ...DRAWN.curvedRightArrow, transpose: true },
  curvedUpArrow: { ...DRAWN.curvedRightArrow, transpose: true, mirror: "y" }
};

// core/figures/presetbanners.ts
var LEADER_1 = "y1=*/ h adj1 100000; x1=*/ w adj2 100000; y2=*/ h adj3 100000; x2=*/ w adj4 100000";
var LEADER_2 = "y1=*/ h adj1 100000; x1=*/ w adj2 100000; y2=*/ h adj3 100000; x2=*/ w adj4 100000; y3=*/ h adj5 100000; x3=*/ w adj6 100000";
var LEADER_3 = "y1=*/ h adj1 100000; x1=*/ w adj2 100000; y2=*/ h adj3 100000; x2=*/ w adj4 100000; y3=*/ h adj5 100000; x3=*/ w adj6 100000; y4=*/ h adj7 100000; x4=*/ w adj8 100000";
var CLOUD = "[w=43200 h=43200]M 3900 14370 A 6753 9190 -11429249 7426832 A 5333 7267 -8646143 5396714 A 4365 5945 -8748475 5983381 A 4857 6595 -7859164 7034504 A 5333 7273 -4722533 6541615 A 6775 9220 -2776035 7816140 A 5785 7867 37501 6842000 A 6752 9215 1347096 6910353 A 7720 10543 3974558 4542661 A 4360 5918 -16496525 8804134 A 4345 5945 -14809710 9151131 Z";
var CURVED = "M l t Q cx1 cy1 x3 y1 L x2 y3 Q hc cy3 x5 y3 L x4 y1 Q cx2 cy1 r t L x6 y2 L r rh Q cx5 cy4 x5 y5 L x5 y6 Q hc cy6 x2 y6 L x2 y5 Q cx4 cy4 l rh L wd8 y2 ";
var DRAWN2 = {
  callout1: { adjust: "adj1=18750 adj2=-8333 adj3=112500 adj4=-38333", guides: LEADER_1, path: `[s0]${RECT}|[f0]M x1 y1 L x2 y2` },
  borderCallout1: { adjust: "adj1=18750 adj2=-8333 adj3=112500 adj4=-38333", guides: LEADER_1, path: `${RECT}|[f0]M x1 y1 L x2 y2` },
  accentCallout1: { adjust: "adj1=18750 adj2=-8333 adj3=112500 adj4=-38333", guides: LEADER_1, path: `[s0]${RECT}|[f0]M x1 t L x1 b|[f0]M x1 y1 L x2 y2` },
  accentBorderCallout1: { adjust: "adj1=18750 adj2=-8333 adj3=112500 adj4=-38333", guides: LEADER_1, path: `${RECT}|[f0]M x1 t L x1 b|[f0]M x1 y1 L x2 y2` },
  callout2: { adjust: "adj1=18750 adj2=-8333 adj3=18750 adj4=-16667 adj5=112500 adj6=-46667", guides: LEADER_2, path: `[s0]${RECT}|[f0]M x1 y1 L x2 y2 L x3 y3` },
  borderCallout2: { adjust: "adj1=18750 adj2=-8333 adj3=18750 adj4=-16667 adj5=112500 adj6=-46667", guides: LEADER_2, path: `${RECT}|[f0]M x1 y1 L x2 y2 L x3 y3` },
  accentCallout2: { adjust: "adj1=18750 adj2=-8333 adj3=18750 adj4=-16667 adj5=112500 adj6=-46667", guides: LEADER_2, path: `[s0]${RECT}|[f0]M x1 t L x1 b|[f0]M x1 y1 L x2 y2 L x3 y3` },
  accentBorderCallout2: { adjust: "adj1=18750 adj2=-8333 adj3=18750 adj4=-16667 adj5=112500 adj6=-46667", guides: LEADER_2, path: `${RECT}|[f0]M x1 t L x1 b|[f0]M x1 y1 L x2 y2 L x3 y3` },
  callout3: { adjust: "adj1=18750 adj2=-8333 adj3=18750 adj4=-16667 adj5=100000 adj6=-16667 adj7=112963 adj8=-8333", guides: LEADER_3, path: `[s0]${RECT}|[f0]M x1 y1 L x2 y2 L x3 y3 L x4 y4` },
  borderCallout3: { adjust: "adj1=18750 adj2=-8333 adj3=18750 adj4=-16667 adj5=100000 adj6=-16667 adj7=112963 adj8=-8333", guides: LEADER_3, path: `${RECT}|[f0]M x1 y1 L x2 y2 L x3 y3 L x4 y4` },
  accentCallout3: { adjust: "adj1=18750 adj2=-8333 adj3=18750 adj4=-16667 adj5=100000 adj6=-16667 adj7=112963 adj8=-8333", guides: LEADER_3, path: `[s0]${RECT}|[f0]M x1 t L x1 b|[f0]M x1 y1 L x2 y2 L x3 y3 L x4 y4` },
  accentBorderCallout3: { adjust: "adj1=18750 adj2=-8333 adj3=18750 adj4=-16667 adj5=100000 adj6=-16667 adj7=112963 adj8=-8333", guides: LEADER_3, path: `${RECT}|[f0]M x1 t L x1 b|[f0]M x1 y1 L x2 y2 L x3 y3 L x4 y4` },
  cloudCallout: { adjust: "adj1=-20833 adj2=62500", guides: "dxPos=*/ w adj1 100000; dyPos=*/ h adj2 100000; xPos=+- hc dxPos 0; yPos=+- vc dyPos 0; ht=cat2 hd2 dxPos dyPos; wt=sat2 wd2 dxPos dyPos; g2=cat2 wd2 ht wt; g3=sat2 hd2 ht wt; g4=+- hc g2 0; g5=+- vc g3 0; g6=+- g4 0 xPos; g7=+- g5 0 yPos; g8=mod g6 g7 0; g9=*/ ss 6600 21600; g10=+- g8 0 g9; g11=*/ g10 1 3; g12=*/ ss 1800 21600; g13=+- g11 g12 0; g14=*/ g13 g6 g8; g15=*/ g13 g7 g8; g16=+- g14 xPos 0; g17=+- g15 yPos 0; g18=*/ ss 4800 21600; g19=*/ g11 2 1; g20=+- g18 g19 0; g21=*/ g20 g6 g8; g22=*/ g20 g7 g8; g23=+- g21 xPos 0; g24=+- g22 yPos 0; g25=*/ ss 1200 21600; g26=*/ ss 600 21600; x23=+- xPos g26 0; x24=+- g16 g25 0; x25=+- g23 g12 0; il=*/ w 2977 21600; it=*/ h 3262 21600; ir=*/ w 17087 21600; ib=*/ h 17337 21600", path: `${CLOUD}|M x23 yPos A g26 g26 0 21600000 Z|M x24 g17 A g25 g25 0 21600000 Z|M x25 g24 A g12 g12 0 21600000 Z`, text: "il it ir ib" },
  ribbon: { adjust: "adj1=16667 adj2=50000", guides: "a1=pin 0 adj1 33333; a2=pin 25000 adj2 75000; x10=+- r 0 wd8; dx2=*/ w a2 200000; x2=+- hc 0 dx2; x9=+- hc dx2 0; x3=+- x2 wd32 0; x8=+- x9 0 wd32; x5=+- x2 wd8 0; x6=+- x9 0 wd8; x4=+- x5 0 wd32; x7=+- x6 wd32 0; y1=*/ h a1 200000; y2=*/ h a1 100000; y4=+- b 0 y2; y3=*/ y4 1 2; hR=*/ h a1 400000; y5=+- b 0 hR; y6=+- y2 0 hR", path: "[s0]M l t L x4 t A wd32 hR 3cd4 cd2 L x3 y1 A wd32 hR 3cd4 -10800000 L x8 y2 A wd32 hR cd4 -10800000 L x7 y1 A wd32 hR cd4 cd2 L r t L x10 y3 L r y4 L x9 y4 L x9 y5 A wd32 hR 0 cd4 L x3 b A wd32 hR cd4 cd4 L x2 y4 L l y4 L wd8 y3 Z|[s0 dk]M x5 hR A wd32 hR 0 cd4 L x3 y1 A wd32 hR 3cd4 -10800000 L x5 y2 Z M x6 hR A wd32 hR cd2 -5400000 L x8 y1 A wd32 hR 3cd4 cd2 L x6 y2 Z|[f0]M l t L x4 t A wd32 hR 3cd4 cd2 L x3 y1 A wd32 hR 3cd4 -10800000 L x8 y2 A wd32 hR cd4 -10800000 L x7 y1 A wd32 hR cd4 cd2 L r t L x10 y3 L r y4 L x9 y4 L x9 y5 A wd32 hR 0 cd4 L x3 b A wd32 hR cd4 cd4 L x2 y4 L l y4 L wd8 y3 Z M x5 hR L x5 y2 M x6 y2 L x6 hR M x2 y4 L x2 y6 M x9 y6 L x9 y4", text: "x2 y2 x9 b" },
  ellipseRibbon: {
    adjust: "adj1=25000 adj2=50000 adj3=12500",
    guides: "a1=pin 0 adj1 100000; a2=pin 25000 adj2 75000; q10=+- 100000 0 a1; q11=*/ q10 1 2; q12=+- a1 0 q11; minAdj3=max 0 q12; a3=pin minAdj3 adj3 a1; dx2=*/ w a2 200000; x2=+- hc 0 dx2; x3=+- x2 wd8 0; x4=+- r 0 x3; x5=+- r 0 x2; x6=+- r 0 wd8; dy1=*/ h a3 100000; f1=*/ 4 dy1 w; q0=*/ x3 x3 w; q2=+- x3 0 q0; y1=*/ f1 q2 1; cx1=*/ x3 1 2; cy1=*/ f1 cx1 1; cx2=+- r 0 cx1; q1=*/ h a1 100000; dy3=+- q1 0 dy1; q3=*/ x2 x2 w; q4=+- x2 0 q3; q5=*/ f1 q4 1; y3=+- q5 dy3 0; q6=+- dy1 dy3 y3; q7=+- q6 dy1 0; cy3=+- q7 dy3 0; rh=+- b 0 q1; q8=*/ dy1 14 16; y2=+/ q8 rh 2; y5=+- q5 rh 0; y6=+- y3 rh 0; cx4=*/ x2 1 2; q9=*/ f1 cx4 1; cy4=+- q9 rh 0; cx5=+- r 0 cx4; cy6=+- cy3 rh 0; y7=+- y1 dy3 0; cy7=+- q1 q1 y7",
    path: `[s0]${CURVED}Z|[s0 dk]M x3 y7 L x3 y1 L x2 y3 Q hc cy3 x5 y3 L x4 y1 L x4 y7 Q hc cy7 x3 y7 Z|[f0]${CURVED}Z M x2 y5 L x2 y3 M x5 y3 L x5 y5 M x3 y1 L x3 y7 M x4 y7 L x4 y1`,
    text: "x2 q1 x5 y6"
  },
  leftRightRibbon: { adjust: "adj1=50000 adj2=50000 adj3=16667", guides: "a3=pin 0 adj3 33333; maxAdj1=+- 100000 0 a3; a1=pin 0 adj1 maxAdj1; w1=+- wd2 0 wd32; maxAdj2=*/ 100000 w1 ss; a2=pin 0 adj2 maxAdj2; x1=*/ ss a2 100000; x4=+- r 0 x1; dy1=*/ h a1 200000; dy2=*/ h a3 -200000; ly1=+- vc dy2 dy1; ry4=+- vc dy1 dy2; ly2=+- ly1 dy1 0; ry3=+- b 0 ly2; ly4=*/ ly2 2 1; ry1=+- b 0 ly4; ly3=+- ly4 0 ly1; ry2=+- b 0 ly3; hR=*/ a3 ss 400000; x2=+- hc 0 wd32; x3=+- hc wd32 0; y1=+- ly1 hR 0; y2=+- ry2 0 hR", path: "[s0]M l ly2 L x1 t L x1 ly1 L hc ly1 A wd32 hR 3cd4 cd2 A wd32 hR 3cd4 -10800000 L x4 ry2 L x4 ry1 L r ry3 L x4 b L x4 ry4 L hc ry4 A wd32 hR cd4 cd4 L x2 ly3 L x1 ly3 L x1 ly4 Z|[s0 dk]M x3 y1 A wd32 hR 0 cd4 A wd32 hR 3cd4 -10800000 L x3 ry2 Z|[f0]M l ly2 L x1 t L x1 ly1 L hc ly1 A wd32 hR 3cd4 cd2 A wd32 hR 3cd4 -10800000 L x4 ry2 L x4 ry1 L r ry3 L x4 b L x4 ry4 L hc ry4 A wd32 hR cd4 cd4 L x2 ly3 L x1 ly3 L x1 ly4 Z M x3 y1 L x3 ry2 M x2 y2 L x2 ly3", text: "x1 ly1 x4 ry4" },
  verticalScroll: { adjust: "adj=12500", guides: "a=pin 0 adj 25000; ch=*/ ss a 100000; ch2=*/ ch 1 2; ch4=*/ ch 1 4; x3=+- ch ch2 0; x4=+- ch ch 0; x6=+- r 0 ch; x7=+- r 0 ch2; y3=+- b 0 ch; y4=+- b 0 ch2", path: "[s0]M ch2 b A ch2 ch2 cd4 -5400000 L ch2 y4 A ch4 ch4 cd4 -10800000 L ch y3 L ch ch2 A ch2 ch2 cd2 cd4 L x7 t A ch2 ch2 3cd4 cd2 L x6 ch L x6 y4 A ch2 ch2 0 cd4 Z|[s0 dk]M x3 t A ch2 ch2 3cd4 cd2 A ch4 ch4 cd4 cd2 Z M ch y4 A ch2 ch2 0 3cd4 A ch4 ch4 3cd4 cd2 Z|[f0]M ch y3 L ch ch2 A ch2 ch2 cd2 cd4 L x7 t A ch2 ch2 3cd4 cd2 L x6 ch L x6 y4 A ch2 ch2 0 cd4 L ch2 b A ch2 ch2 cd4 cd2 Z M x3 t A ch2 ch2 3cd4 cd2 A ch4 ch4 cd4 cd2 L x4 ch2 M x6 ch L x3 ch M ch2 y3 A ch4 ch4 3cd4 cd2 L ch y4 M ch2 b A ch2 ch2 cd4 -5400000 L ch y3", text: "ch ch x6 y4" }
};
var BANNERS = {
  ...DRAWN2,
  ribbon2: { ...DRAWN2.ribbon, mirror: "y" },
  ellipseRibbon2: { ...DRAWN2.ellipseRibbon, mirror: "y" },
  horizontalScroll: { ...DRAWN2.verticalScroll, transpose: true }
};

// core/figures/presetgears.ts
var TURN = 216e5;
var tooth = (n3, angle) => [
  `aA${n3}=+- ${angle} 0 ha; aD${n3}=+- ${angle} ha 0`,
  ...["A", "D"].map((p) => `t${p}x${n3}=cos rw a${p}${n3}; t${p}y${n3}=sin rh a${p}${n3}; b${p}${n3}=at2 t${p}x${n3} t${p}y${n3}; ct${p}${n3}=cos rh b${p}${n3}; st${p}${n3}=sin rw b${p}${n3}; m${p}${n3}=mod ct${p}${n3} st${p}${n3} 0; n${p}${n3}=*/ rw rh m${p}${n3}; dx${p}${n3}=cos n${p}${n3} b${p}${n3}; dy${p}${n3}=sin n${p}${n3} b${p}${n3}; x${p}${n3}=+- hc dx${p}${n3} 0; y${p}${n3}=+- vc dy${p}${n3} 0`),
  `xAD${n3}=+- xA${n3} 0 xD${n3}; yAD${n3}=+- yA${n3} 0 yD${n3}; aAD${n3}=at2 yAD${n3} xAD${n3}; dxF${n3}=sin lFD aAD${n3}; dyF${n3}=cos lFD aAD${n3}; xF${n3}=+- xD${n3} dxF${n3} 0; yF${n3}=+- yD${n3} dyF${n3} 0; xE${n3}=+- xA${n3} 0 dxF${n3}; yE${n3}=+- yA${n3} 0 dyF${n3}; yt${n3}=sin th aAD${n3}; xt${n3}=cos th aAD${n3}; yC${n3}=+- yF${n3} yt${n3} 0; xC${n3}=+- xF${n3} 0 xt${n3}; yB${n3}=+- yE${n3} yt${n3} 0; xB${n3}=+- xE${n3} 0 xt${n3}`
].join("; ");
function gear(teeth, first, adjust, most) {
  const angle = (n3) => Math.round((first + (n3 - 1) * 360 / teeth) % 360 * TURN / 360);
  const numbers = Array.from({ length: teeth }, (_, nth) => nth + 1);
  const next2 = (n3) => n3 % teeth + 1;
  const rims = numbers.map((n3) => `r${n3}=+- bA${next2(n3)} 0 bD${n3}; s${n3}=+- r${n3} ${TURN} 0; sw${n3}=?: r${n3} r${n3} s${n3}`);
  const guides = ["a1=pin 0 adj1 20000", `a2=pin 0 adj2 ${most}`, "th=*/ ss a1 100000; lFD=*/ ss a2 100000; th2=*/ th 1 2; l2=*/ lFD 1 2; l3=+- th2 l2 0; rh=+- hd2 0 th; rw=+- wd2 0 th; dr=+- rw 0 rh; maxr=?: dr rh rw; ha=at2 maxr l3", ...numbers.map((n3) => tooth(n3, angle(n3))), ...rims, "tx=cos rw 2700000; ty=sin rh 2700000; il=+- hc 0 tx; ir=+- hc tx 0; it=+- vc 0 ty; ib=+- vc ty 0"].join("; ");
  return { adjust, guides, path: `M xA1 yA1 ${numbers.map((n3) => `L xB${n3} yB${n3} L xC${n3} yC${n3} L xD${n3} yD${n3} A rw rh bD${n3} sw${n3}`).join(" ")} Z`, text: "il it ir ib" };
}
var GEARS = {
  gear6: gear(6, 330, "adj1=15000 adj2=3526", 5358),
  gear9: gear(9, 310, "adj1=10000 adj2=1763", 2679)
};

// core/figures/presetsigns.ts
var BUTTON = "dx2=*/ ss 3 8; g9=+- vc 0 dx2; g10=+- vc dx2 0; g11=+- hc 0 dx2; g12=+- hc dx2 0; g13=*/ ss 3 4";
var SIGNS = {
  actionButtonBlank: { guides: `${BUTTON}`, path: `[s0]${RECT}|[f0]${RECT}` },
  actionButtonBackPrevious: { guides: `${BUTTON}`, path: `[s0]${RECT}|[dk]M g11 vc L g12 g9 L g12 g10 Z|[f0]${RECT}` },
  actionButtonForwardNext: { guides: `${BUTTON}`, path: `[s0]${RECT}|[dk]M g12 vc L g11 g9 L g11 g10 Z|[f0]${RECT}` },
  actionButtonBeginning: { guides: `${BUTTON}; g14=*/ g13 1 8; g15=*/ g13 1 4; g16=+- g11 g14 0; g17=+- g11 g15 0`, path: `[s0]${RECT}|[dk]M g17 vc L g12 g9 L g12 g10 Z M g16 g9 L g11 g9 L g11 g10 L g16 g10 Z|[f0]${RECT}` },
  actionButtonEnd: { guides: `${BUTTON}; g14=*/ g13 3 4; g15=*/ g13 7 8; g16=+- g11 g14 0; g17=+- g11 g15 0`, path: `[s0]${RECT}|[dk]M g16 vc L g11 g9 L g11 g10 Z M g17 g9 L g12 g9 L g12 g10 L g17 g10 Z|[f0]${RECT}` },
  actionButtonDocument: { guides: `${BUTTON}; dx1=*/ ss 9 32; g11=+- hc 0 dx1; g12=+- hc dx1 0; g16=*/ ss 3 16; g14=+- g12 0 g16; g15=+- g9 g16 0`, path: `[s0]${RECT}|[lt]M g11 g9 L g14 g9 L g12 g15 L g12 g10 L g11 g10 Z|[dk]M g14 g9 L g14 g15 L g12 g15 Z|[f0]${RECT}` },
  actionButtonReturn: { guides: `${BUTTON}; g14=*/ g13 7 8; g15=*/ g13 3 4; g16=*/ g13 5 8; g17=*/ g13 3 8; g18=*/ g13 1 4; g19=+- g9 g15 0; g20=+- g9 g16 0; g21=+- g9 g18 0; g22=+- g11 g14 0; g23=+- g11 g15 0; g24=+- g11 g16 0; g25=+- g11 g17 0; g26=+- g11 g18 0; g27=*/ g13 1 8`, path: `[s0]${RECT}|[dk]M g12 g21 L g23 g9 L hc g21 L g24 g21 L g24 g20 A g27 g27 0 cd4 L g25 g19 A g27 g27 cd4 cd4 L g26 g21 L g11 g21 L g11 g20 A g17 g17 cd2 -5400000 L hc g10 A g17 g17 cd4 -5400000 L g22 g21 Z|[f0]${RECT}` },
  actionButtonHome: { guides: `${BUTTON}; g14=*/ g13 1 16; g15=*/ g13 1 8; g16=*/ g13 3 16; g17=*/ g13 5 16; g18=*/ g13 7 16; g19=*/ g13 9 16; g20=*/ g13 11 16; g21=*/ g13 3 4; g22=*/ g13 13 16; g23=*/ g13 7 8; g24=+- g9 g14 0; g25=+- g9 g16 0; g26=+- g9 g17 0; g27=+- g9 g21 0; g28=+- g11 g15 0; g29=+- g11 g18 0; g30=+- g11 g19 0; g31=+- g11 g20 0; g32=+- g11 g22 0; g33=+- g11 g23 0`, path: `[s0]${RECT}|[dk]M g32 g26 L g32 g24 L g31 g24 L g31 g25 Z M g28 vc L g28 g10 L g33 g10 L g33 vc Z|[dk]M hc g9 L g11 vc L g12 vc Z|[lt]M g29 g27 L g30 g27 L g30 g10 L g29 g10 Z|[f0]${RECT}` },
  actionButtonInformation: { guides: `${BUTTON}; g14=*/ g13 1 32; g17=*/ g13 5 16; g18=*/ g13 3 8; g19=*/ g13 13 32; g20=*/ g13 19 32; g22=*/ g13 11 16; g23=*/ g13 13 16; g24=*/ g13 7 8; g25=+- g9 g14 0; g28=+- g9 g17 0; g29=+- g9 g18 0; g30=+- g9 g23 0; g31=+- g9 g24 0; g32=+- g11 g17 0; g34=+- g11 g19 0; g35=+- g11 g20 0; g37=+- g11 g22 0; g38=*/ g13 3 32`, path: `[s0]${RECT}|[dk]M hc g9 A dx2 dx2 3cd4 21600000 Z|[lt]M hc g25 A g38 g38 3cd4 21600000 Z M g32 g28 L g32 g29 L g34 g29 L g34 g30 L g32 g30 L g32 g31 L g37 g31 L g37 g30 L g35 g30 L g35 g28 Z|[f0]${RECT}` },
  actionButtonHelp: { guides: `${BUTTON}; g14=*/ g13 1 7; g15=*/ g13 3 14; g16=*/ g13 2 7; g19=*/ g13 3 7; g20=*/ g13 4 7; g21=*/ g13 17 28; g23=*/ g13 21 28; g24=*/ g13 11 14; g27=+- g9 g16 0; g29=+- g9 g21 0; g30=+- g9 g23 0; g31=+- g9 g24 0; g33=+- g11 g15 0; g36=+- g11 g19 0; g37=+- g11 g20 0; g41=*/ g13 1 14; g42=*/ g13 3 28`, path: `[s0]${RECT}|[dk]M g33 g27 A g16 g16 cd2 cd2 A g14 g15 0 cd4 A g41 g42 3cd4 -5400000 L g37 g30 L g36 g30 L g36 g29 A g14 g15 cd2 cd4 A g41 g42 cd4 -5400000 A g14 g14 0 -10800000 Z M hc g31 A g42 g42 3cd4 21600000 Z|[f0]${RECT}` },
  actionButtonSound: { guides: `${BUTTON}; g14=*/ g13 1 8; g15=*/ g13 5 16; g16=*/ g13 5 8; g17=*/ g13 11 16; g18=*/ g13 3 4; g19=*/ g13 7 8; g20=+- g9 g14 0; g21=+- g9 g15 0; g22=+- g9 g17 0; g23=+- g9 g19 0; g24=+- g11 g15 0; g25=+- g11 g16 0; g26=+- g11 g18 0`, path: `[s0]${RECT}|[dk]M g11 g21 L g24 g21 L g25 g9 L g25 g10 L g24 g22 L g11 g22 Z|[f0]M g26 g21 L g12 g20 M g26 vc L g12 vc M g26 g22 L g12 g23|[f0]${RECT}` },
  actionButtonMovie: { guides: `${BUTTON}; x1=*/ g13 1455 21600; g31=+- g11 x1 0; x2=*/ g13 1905 21600; g32=+- g11 x2 0; x3=*/ g13 2325 21600; g33=+- g11 x3 0; x4=*/ g13 16155 21600; g34=+- g11 x4 0; x5=*/ g13 17010 21600; g35=+- g11 x5 0; x6=*/ g13 19335 21600; g36=+- g11 x6 0; x7=*/ g13 19725 21600; g37=+- g11 x7 0; x8=*/ g13 20595 21600; g38=+- g11 x8 0; y1=*/ g13 5280 21600; g39=+- g9 y1 0; y2=*/ g13 5730 21600; g40=+- g9 y2 0; y3=*/ g13 6630 21600; g41=+- g9 y3 0; y4=*/ g13 7492 21600; g42=+- g9 y4 0; y5=*/ g13 9067 21600; g43=+- g9 y5 0; y6=*/ g13 9555 21600; g44=+- g9 y6 0; y7=*/ g13 13342 21600; g45=+- g9 y7 0; y8=*/ g13 14580 21600; g46=+- g9 y8 0; y9=*/ g13 15592 21600; g47=+- g9 y9 0`, path: `[s0]${RECT}|[dk]M g11 g39 L g11 g44 L g31 g44 L g32 g43 L g33 g43 L g33 g47 L g35 g47 L g35 g45 L g36 g45 L g38 g46 L g12 g46 L g12 g41 L g38 g41 L g37 g42 L g35 g42 L g35 g41 L g34 g40 L g32 g40 L g31 g39 Z|[f0]${RECT}` },
  lineInv: { path: "[f0]M l b L r t" },
  nonIsoscelesTrapezoid: { adjust: "adj1=25000 adj2=25000", guides: "maxAdj=*/ 50000 w ss; a1=pin 0 adj1 maxAdj; a2=pin 0 adj2 maxAdj; x2=*/ ss a1 100000; dx3=*/ ss a2 100000; x3=+- r 0 dx3; il=*/ wd3 a1 maxAdj; adjm=max a1 a2; it=*/ hd3 adjm maxAdj; irt=*/ wd3 a2 maxAdj; ir=+- r 0 irt", path: "M l b L x2 t L x3 t L r b Z", text: "il it ir b" },
  pieWedge: { guides: "g1=cos w 13500000; g2=sin h 13500000; x1=+- r g1 0; y1=+- b g2 0", path: "M l b A w h cd2 cd4 L r b Z", text: "x1 y1 r b" },
  noSmoking: { adjust: "adj=18750", guides: "a=pin 0 adj 50000; dr=*/ ss a 100000; iwd2=+- wd2 0 dr; ihd2=+- hd2 0 dr; ang=at2 w h; ct=cos ihd2 ang; st=sin iwd2 ang; m=mod ct st 0; n=*/ iwd2 ihd2 m; drd2=*/ dr 1 2; dang=at2 n drd2; 2dang=*/ dang 2 1; swAng=+- -10800000 2dang 0; stAng1=+- ang 0 dang; stAng2=+- stAng1 0 cd2; ct1=cos ihd2 stAng1; st1=sin iwd2 stAng1; m1=mod ct1 st1 0; n1=*/ iwd2 ihd2 m1; dx1=cos n1 stAng1; dy1=sin n1 stAng1; x1=+- hc dx1 0; y1=+- vc dy1 0; x2=+- hc 0 dx1; y2=+- vc 0 dy1; idx=cos wd2 2700000; idy=sin hd2 2700000; il=+- hc 0 idx; ir=+- hc idx 0; it=+- vc 0 idy; ib=+- vc idy 0", path: `${ELLIPSE} M x1 y1 A iwd2 ihd2 stAng1 swAng Z M x2 y2 A iwd2 ihd2 stAng2 swAng Z`, text: "il it ir ib" },
  sun: { adjust: "adj=25000", guides: "a=pin 12500 adj 46875; g0=+- 50000 0 a; g1=*/ g0 30274 32768; g2=*/ g0 12540 32768; g5=+- 50000 0 g1; g6=+- 50000 0 g2; g7=*/ g0 23170 32768; g8=+- 50000 g7 0; g9=+- 50000 0 g7; g10=*/ g5 3 4; g11=*/ g6 3 4; g12=+- g10 3662 0; g13=+- g11 3662 0; g14=+- g11 12500 0; g15=+- 100000 0 g10; g16=+- 100000 0 g12; g17=+- 100000 0 g13; g18=+- 100000 0 g14; ox1=*/ w 18436 21600; oy1=*/ h 3163 21600; ox2=*/ w 3163 21600; oy2=*/ h 18436 21600; x8=*/ w g8 100000; x9=*/ w g9 100000; x10=*/ w g10 100000; x12=*/ w g12 100000; x13=*/ w g13 100000; x14=*/ w g14 100000; x15=*/ w g15 100000; x16=*/ w g16 100000; x17=*/ w g17 100000; x18=*/ w g18 100000; y8=*/ h g8 100000; y9=*/ h g9 100000; y10=*/ h g10 100000; y12=*/ h g12 100000; y13=*/ h g13 100000; y14=*/ h g14 100000; y15=*/ h g15 100000; y16=*/ h g16 100000; y17=*/ h g17 100000; y18=*/ h g18 100000; x19=*/ w a 100000; wR=*/ w g0 100000; hR=*/ h g0 100000", path: "M r vc L x15 y18 L x15 y14 Z M ox1 oy1 L x16 y13 L x17 y12 Z M hc t L x18 y10 L x14 y10 Z M ox2 oy1 L x13 y12 L x12 y13 Z M l vc L x10 y14 L x10 y18 Z M ox2 oy2 L x12 y17 L x13 y16 Z M hc b L x14 y15 L x18 y15 Z M ox1 oy2 L x17 y16 L x16 y17 Z M x19 vc A wR hR cd2 21600000 Z", text: "x9 y9 x8 y8" },
  moon: { adjust: "adj=50000", guides: "a=pin 0 adj 87500; g0=*/ ss a 100000; g0w=*/ g0 w ss; g1=+- ss 0 g0; g2=*/ g0 g0 g1; g3=*/ ss ss g1; g4=*/ g3 2 1; g5=+- g4 0 g2; g6=+- g5 0 g0; g6w=*/ g6 w ss; g7=*/ g5 1 2; g8=+- g7 0 g0; dy1=*/ g8 hd2 ss; g12=*/ g0 9598 32768; g12w=*/ g12 w ss; g13=+- ss 0 g12; q1=*/ ss ss 1; q2=*/ g13 g13 1; q3=+- q1 0 q2; q4=sqrt q3; dy4=*/ q4 hd2 ss; g15h=+- vc 0 dy4; g16h=+- vc dy4 0; g17w=+- g6w 0 g0w; g18w=*/ g17w 1 2; dx2p=+- g0w g18w w; dx2=*/ dx2p -1 1; dy2=*/ hd2 -1 1; stAng1=at2 dx2 dy2; enAngp1=at2 dx2 hd2; enAng1=+- enAngp1 0 21600000; swAng1=+- enAng1 0 stAng1", path: "M r b A w hd2 cd4 cd2 A g18w dy1 stAng1 swAng1 Z", text: "g12w g15h g0w g16h" },
  irregularSeal1: { guides: "il=*/ w 4627 21600; it=*/ h 6320 21600; ir=*/ w 16702 21600; ib=*/ h 13937 21600", path: "[w=21600 h=21600]M 10800 5800 L 14522 0 L 14155 5325 L 18380 4457 L 16702 7315 L 21097 8137 L 17607 10475 L 21600 13290 L 16837 12942 L 18145 18095 L 14020 14457 L 13247 19737 L 10532 14935 L 8485 21600 L 7715 15627 L 4762 17617 L 5667 13937 L 135 14587 L 3722 11775 L 0 8615 L 4627 7617 L 370 2295 L 7312 6320 L 8352 2295 Z", text: "il it ir ib" },
  irregularSeal2: { guides: "il=*/ w 5372 21600; it=*/ h 6382 21600; ir=*/ w 14640 21600; ib=*/ h 15935 21600", path: "[w=21600 h=21600]M 11462 4342 L 14790 0 L 14525 5777 L 18007 3172 L 16380 6532 L 21600 6645 L 16985 9402 L 18270 11290 L 16380 12310 L 18877 15632 L 14640 14350 L 14942 17370 L 12180 15935 L 11612 18842 L 9872 17370 L 8700 19712 L 7527 18125 L 4917 21600 L 4805 18240 L 1285 17825 L 3330 15370 L 0 12877 L 3935 11592 L 1172 8270 L 5372 7817 L 4502 3625 L 8550 6382 L 9722 1887 Z", text: "il it ir ib" },
  curvedConnector4: { adjust: "adj1=50000 adj2=50000", guides: "x2=*/ w adj1 100000; x1=+/ l x2 2; x3=+/ r x2 2; x4=+/ x2 x3 2; x5=+/ x3 r 2; y4=*/ h adj2 100000; y1=+/ t y4 2; y2=+/ t y1 2; y3=+/ y1 y4 2; y5=+/ b y4 2", path: "[f0]M l t C x1 t x2 y2 x2 y1 C x2 y3 x4 y4 x3 y4 C x5 y4 r y5 r b" },
  curvedConnector5: { adjust: "adj1=50000 adj2=50000 adj3=50000", guides: "x3=*/ w adj1 100000; x6=*/ w adj3 100000; x1=+/ x3 x6 2; x2=+/ l x3 2; x4=+/ x3 x1 2; x5=+/ x6 x1 2; x7=+/ x6 r 2; y4=*/ h adj2 100000; y1=+/ t y4 2; y2=+/ t y1 2; y3=+/ y1 y4 2; y5=+/ b y4 2; y6=+/ y5 y4 2; y7=+/ y5 b 2", path: "[f0]M l t C x2 t x3 y2 x3 y1 C x3 y3 x4 y4 x1 y4 C x5 y4 x6 y6 x6 y5 C x6 y7 x7 b r b" },
  flowChartMagneticTape: { guides: "idx=cos wd2 2700000; idy=sin hd2 2700000; il=+- hc 0 idx; ir=+- hc idx 0; it=+- vc 0 idy; ib=+- vc idy 0; ang1=at2 w h", path: "M hc b A wd2 hd2 cd4 cd4 A wd2 hd2 cd2 cd4 A wd2 hd2 3cd4 cd4 A wd2 hd2 0 ang1 L r ib L r b Z", text: "il it ir ib" },
  funnel: { guides: "d=*/ ss 1 20; rw2=+- wd2 0 d; rh2=+- hd4 0 d; t1=cos wd2 480000; t2=sin hd4 480000; da=at2 t1 t2; 2da=*/ da 2 1; stAng1=+- cd2 0 da; swAng1=+- cd2 2da 0; swAng3=+- cd2 0 2da; rw3=*/ wd2 1 4; rh3=*/ hd4 1 4; ct1=cos hd4 stAng1; st1=sin wd2 stAng1; m1=mod ct1 st1 0; n1=*/ wd2 hd4 m1; dx1=cos n1 stAng1; dy1=sin n1 stAng1; x1=+- hc dx1 0; y1=+- hd4 dy1 0; ct3=cos rh3 da; st3=sin rw3 da; m3=mod ct3 st3 0; n3=*/ rw3 rh3 m3; dx3=cos n3 da; dy3=sin n3 da; x3=+- hc dx3 0; vc3=+- b 0 rh3; y3=+- vc3 dy3 0; x2=+- wd2 0 rw2", path: "M x1 y1 A wd2 hd4 stAng1 swAng1 L x3 y3 A rw3 rh3 da swAng3 Z M x2 hd4 A rw2 rh2 cd2 -21600000 Z" },
  mathMultiply: { adjust: "adj1=23520", guides: "a1=pin 0 adj1 51965; th=*/ ss a1 100000; a=at2 w h; sa=sin 1 a; ca=cos 1 a; ta=tan 1 a; dl=mod w h 0; rw=*/ dl 51965 100000; lM=+- dl 0 rw; xM=*/ ca lM 2; yM=*/ sa lM 2; dxAM=*/ sa th 2; dyAM=*/ ca th 2; xA=+- xM 0 dxAM; yA=+- yM dyAM 0; xB=+- xM dxAM 0; yB=+- yM 0 dyAM; xBC=+- hc 0 xB; yBC=*/ xBC ta 1; yC=+- yBC yB 0; xD=+- r 0 xB; xE=+- r 0 xA; yFE=+- vc 0 yA; xFE=*/ yFE 1 ta; xF=+- xE 0 xFE; xL=+- xA xFE 0; yG=+- b 0 yA; yH=+- b 0 yB; yI=+- b 0 yC", path: "M xA yA L xB yB L hc yC L xD yB L xE yA L xF vc L xE yG L xD yH L hc yI L xB yH L xA yG L xL vc Z", text: "xA yB xE yH" },
  mathNotEqual: { adjust: "adj1=23520 adj2=6600000 adj3=11760", guides: "a1=pin 0 adj1 50000; crAng=pin 4200000 adj2 6600000; 2a1=*/ a1 2 1; maxAdj3=+- 100000 0 2a1; a3=pin 0 adj3 maxAdj3; dy1=*/ h a1 100000; dy2=*/ h a3 200000; dx1=*/ w 73490 200000; x1=+- hc 0 dx1; x8=+- hc dx1 0; y2=+- vc 0 dy2; y3=+- vc dy2 0; y1=+- y2 0 dy1; y4=+- y3 dy1 0; cadj2=+- crAng 0 cd4; xadj2=tan hd2 cadj2; len=mod xadj2 hd2 0; bhw=*/ len dy1 hd2; bhw2=*/ bhw 1 2; x7=+- hc xadj2 bhw2; dx67=*/ xadj2 y1 hd2; x6=+- x7 0 dx67; dx57=*/ xadj2 y2 hd2; x5=+- x7 0 dx57; dx47=*/ xadj2 y3 hd2; x4=+- x7 0 dx47; dx37=*/ xadj2 y4 hd2; x3=+- x7 0 dx37; rx7=+- x7 bhw 0; rx6=+- x6 bhw 0; rx5=+- x5 bhw 0; rx4=+- x4 bhw 0; rx3=+- x3 bhw 0; dx7=*/ dy1 hd2 len; rxt=+- x7 dx7 0; lxt=+- rx7 0 dx7; rx=?: cadj2 rxt rx7; lx=?: cadj2 x7 lxt; dy3=*/ dy1 xadj2 len; dy4=+- 0 0 dy3; ry=?: cadj2 dy3 t; ly=?: cadj2 t dy4; dlx=+- w 0 rx; drx=+- w 0 lx; dly=+- h 0 ry; dry=+- h 0 ly", path: "M x1 y1 L x6 y1 L lx ly L rx ry L rx6 y1 L x8 y1 L x8 y2 L rx5 y2 L rx4 y3 L x8 y3 L x8 y4 L rx3 y4 L drx dry L dlx dly L x3 y4 L x1 y4 L x1 y3 L x4 y3 L x5 y2 L x1 y2 Z", text: "x1 y1 x8 y4" },
  cornerTabs: { guides: "md=mod w h 0; dx=*/ 1 md 20; y1=+- b 0 dx; x1=+- r 0 dx", path: "M l t L dx t L l dx Z M l y1 L dx b L l b Z M x1 t L r t L r dx Z M r y1 L r b L x1 b Z", text: "dx dx x1 y1" },
  squareTabs: { guides: "md=mod w h 0; dx=*/ 1 md 20; y1=+- b 0 dx; x1=+- r 0 dx", path: "M l t L dx t L dx dx L l dx Z M l y1 L dx y1 L dx b L l b Z M x1 t L r t L r dx L x1 dx Z M x1 y1 L r y1 L r b L x1 b Z", text: "dx dx x1 y1" },
  plaqueTabs: { guides: "md=mod w h 0; dx=*/ 1 md 20; y1=+- b 0 dx; x1=+- r 0 dx", path: "M l t L dx t A dx dx 0 cd4 Z M l y1 A dx dx 3cd4 cd4 L l b Z M r t L r dx A dx dx cd4 cd4 Z M x1 b A dx dx cd2 cd4 L r b Z", text: "dx dx x1 y1" },
  chartX: { path: "[s0 w=10 h=10]M 0 0 L 0 10 L 10 10 L 10 0 Z|[f0 w=10 h=10]M 0 0 L 10 10 M 0 10 L 10 0" },
  chartStar: { path: "[s0 w=10 h=10]M 0 0 L 0 10 L 10 10 L 10 0 Z|[f0 w=10 h=10]M 0 0 L 10 10 M 0 10 L 10 0 M 5 0 L 5 10" },
  chartPlus: { path: "[s0 w=10 h=10]M 0 0 L 0 10 L 10 10 L 10 0 Z|[f0 w=10 h=10]M 5 0 L 5 10 M 0 5 L 10 5" }
};

// core/figures/presets.ts
var ELLIPSE_TEXT = "idx=cos wd2 2700000; idy=sin hd2 2700000; il=+- hc 0 idx; ir=+- hc idx 0; it=+- vc 0 idy; ib=+- vc idy 0";
var CORNER = "a=pin 0 adj 50000; x1=*/ ss a 100000; x2=+- r 0 x1; y2=+- b 0 x1";
var ARROW = "a1=pin 0 adj1 100000; a2=pin 0 adj2 maxAdj2";
var FIVE = "swd2=*/ wd2 hf 100000; shd2=*/ hd2 vf 100000; svc=*/ vc vf 100000; dx1=cos swd2 1080000; dx2=cos swd2 18360000; dy1=sin shd2 1080000; dy2=sin shd2 18360000; x1=+- hc 0 dx1; x2=+- hc 0 dx2; x3=+- hc dx2 0; x4=+- hc dx1 0; y1=+- svc 0 dy1; y2=+- svc 0 dy2";
var SECTOR = "stAng=pin 0 adj1 21599999; enAng=pin 0 adj2 21599999; sw1=+- enAng 0 stAng; sw2=+- sw1 21600000 0; swAng=?: sw1 sw1 sw2; wt1=sin wd2 stAng; ht1=cos hd2 stAng; dx1=cat2 wd2 ht1 wt1; dy1=sat2 hd2 ht1 wt1; x1=+- hc dx1 0; y1=+- vc dy1 0";
var CALLOUT = "dxPos=*/ w adj1 100000; dyPos=*/ h adj2 100000; xPos=+- hc dxPos 0; yPos=+- vc dyPos 0; dq=*/ dxPos h w; ady=abs dyPos; adq=abs dq; dz=+- ady 0 adq; xg1=?: dxPos 7 2; xg2=?: dxPos 10 5; x1=*/ w xg1 12; x2=*/ w xg2 12; yg1=?: dyPos 7 2; yg2=?: dyPos 10 5; y1=*/ h yg1 12; y2=*/ h yg2 12; t1=?: dxPos l xPos; xl=?: dz l t1; t2=?: dyPos x1 xPos; xt=?: dz t2 x1; t3=?: dxPos xPos r; xr=?: dz r t3; t4=?: dyPos xPos x1; xb=?: dz t4 x1; t5=?: dxPos y1 yPos; yl=?: dz y1 t5; t6=?: dyPos t yPos; yt=?: dz t6 t; t7=?: dxPos yPos y1; yr=?: dz y1 t7; t8=?: dyPos yPos b; yb=?: dz t8 b";
var PLUS = "dx1=*/ w 73490 200000; dy1=*/ h 73490 200000; x1=+- hc 0 dx1; x4=+- hc dx1 0; y1=+- vc 0 dy1; y4=+- vc dy1 0";
var PRESETS = {
  ...ARROWS,
  ...BANNERS,
  ...SIGNS,
  ...GEARS,
  rect: { path: RECT },
  roundRect: { adjust: "adj=16667", guides: `${CORNER}; il=*/ x1 29289 100000; ir=+- r 0 il; ib=+- b 0 il`, path: "M l x1 A x1 x1 cd2 cd4 L x2 t A x1 x1 3cd4 cd4 L r y2 A x1 x1 0 cd4 L x1 b A x1 x1 cd4 cd4 Z", text: "il il ir ib" },
  round1Rect: { adjust: "adj=16667", guides: CORNER, path: "M l t L x2 t A x1 x1 3cd4 cd4 L r b L l b Z" },
  round2SameRect: { adjust: "adj1=16667 adj2=0", guides: "a1=pin 0 adj1 50000; a2=pin 0 adj2 50000; tx1=*/ ss a1 100000; tx2=+- r 0 tx1; bx1=*/ ss a2 100000; bx2=+- r 0 bx1; by1=+- b 0 bx1", path: "M tx1 t L tx2 t A tx1 tx1 3cd4 cd4 L r by1 A bx1 bx1 0 cd4 L bx1 b A bx1 bx1 cd4 cd4 L l tx1 A tx1 tx1 cd2 cd4 Z" },
  round2DiagRect: { adjust: "adj1=16667 adj2=0", guides: "a1=pin 0 adj1 50000; a2=pin 0 adj2 50000; x1=*/ ss a1 100000; y1=+- b 0 x1; a=*/ ss a2 100000; x2=+- r 0 a; y2=+- b 0 a; x3=+- r 0 x1", path: "M x1 t L x2 t A a a 3cd4 cd4 L r y1 A x1 x1 0 cd4 L a b A a a cd4 cd4 L l x1 A x1 x1 cd2 cd4 Z" },
  snip1Rect: { adjust: "adj=16667", guides: CORNER, path: "M l t L x2 t L r x1 L r b L l b Z" },
  snip2SameRect: { adjust: "adj1=16667 adj2=0", guides: "a1=pin 0 adj1 50000; a2=pin 0 adj2 50000; tx1=*/ ss a1 100000; tx2=+- r 0 tx1; bx1=*/ ss a2 100000; bx2=+- r 0 bx1; by1=+- b 0 bx1", path: "M tx1 t L tx2 t L r tx1 L r by1 L bx2 b L bx1 b L l by1 L l tx1 Z" },
  snip2DiagRect: { adjust: "adj1=0 adj2=16667", guides: "a1=pin 0 adj1 50000; a2=pin 0 adj2 50000; lx1=*/ ss a1 100000; lx2=+- r 0 lx1; ly1=+- b 0 lx1; rx1=*/ ss a2 100000; rx2=+- r 0 rx1; ry1=+- b 0 rx1", path: "M lx1 t L rx2 t L r rx1 L r ly1 L lx2 b L rx1 b L l ry1 L l lx1 Z" },
  snipRoundRect: { adjust: "adj1=16667 adj2=16667", guides: "a1=pin 0 adj1 50000; a2=pin 0 adj2 50000; x1=*/ ss a1 100000; dx2=*/ ss a2 100000; x2=+- r 0 dx2", path: "M x1 t L x2 t L r dx2 L r b L l b L l x1 A x1 x1 cd2 cd4 Z" },
  ellipse: { guides: ELLIPSE_TEXT, path: ELLIPSE, text: "il it ir ib" },
  triangle: { adjust: "adj=50000", guides: "a=pin 0 adj 100000; x1=*/ w a 200000; x2=*/ w a 100000; x3=+- x1 wd2 0", path: "M l b L x2 t L r b Z", text: "x1 vc x3 b" },
  rtTriangle: { guides: "it=*/ h 7 12; il=*/ w 1 12; ir=*/ w 7 12; ib=*/ h 11 12", path: "M l b L l t L r b Z", text: "il it ir ib" },
  parallelogram: { adjust: "adj=25000", guides: "maxAdj=*/ 100000 w ss; a=pin 0 adj maxAdj; x1=*/ ss a 200000; x2=*/ ss a 100000; x6=+- r 0 x1; x5=+- r 0 x2", path: "M l b L x2 t L r t L x5 b Z", text: "x1 t x6 b" },
  trapezoid: { adjust: "adj=25000", guides: "maxAdj=*/ 50000 w ss; a=pin 0 adj maxAdj; x2=*/ ss a 100000; x3=+- r 0 x2; il=*/ wd3 a maxAdj; it=*/ hd3 a maxAdj; ir=+- r 0 il", path: "M l b L x2 t L x3 t L r b Z", text: "il it ir b" },
  diamond: { guides: "ir=*/ w 3 4; ib=*/ h 3 4", path: "M l vc L hc t L r vc L hc b Z", text: "wd4 hd4 ir ib" },
  pentagon: { adjust: "hf=105146 vf=110557", guides: `${FIVE}; it=*/ y1 dx2 dx1`, path: "M x1 y1 L hc t L x4 y1 L x3 y2 L x2 y2 Z", text: "x2 it x3 y2" },
  hexagon: { adjust: "adj=25000 vf=115470", guides: "maxAdj=*/ 50000 w ss; a=pin 0 adj maxAdj; shd2=*/ hd2 vf 100000; x1=*/ ss a 100000; x2=+- r 0 x1; dy1=sin shd2 3600000; y1=+- vc 0 dy1; y2=+- vc dy1 0; il=*/ x1 1 2; ir=+- r 0 il", path: "M l vc L x1 y1 L x2 y1 L r vc L x2 y2 L x1 y2 Z", text: "il y1 ir y2" },
  octagon: { adjust: "adj=29289", guides: `${CORNER}; il=*/ x1 1 2; ir=+- r 0 il; ib=+- b 0 il`, path: "M l x1 L x1 t L x2 t L r x1 L r y2 L x2 b L x1 b L l y2 Z", text: "il il ir ib" },
  plus: { adjust: "adj=25000", guides: CORNER, path: "M l x1 L x1 x1 L x1 t L x2 t L x2 x1 L r x1 L r y2 L x2 y2 L x2 b L x1 b L x1 y2 L l y2 Z", text: "l x1 r y2" },
  homePlate: { adjust: "adj=50000", guides: "maxAdj=*/ 100000 w ss; a=pin 0 adj maxAdj; dx1=*/ ss a 100000; x1=+- r 0 dx1; ir=+/ x1 r 2", path: "M l t L x1 t L r vc L x1 b L l b Z", text: "l t ir b" },
  chevron: { adjust: "adj=50000", guides: "maxAdj=*/ 100000 w ss; a=pin 0 adj maxAdj; x1=*/ ss a 100000; x2=+- r 0 x1; dx=+- x2 0 x1; il=?: dx x1 l; ir=?: dx x2 r", path: "M l t L x2 t L r vc L x2 b L l b L x1 vc Z", text: "il t ir b" },
  rightArrow: { adjust: "adj1=50000 adj2=50000", guides: `maxAdj2=*/ 100000 w ss; ${ARROW}; dx1=*/ ss a2 100000; x1=+- r 0 dx1; dy1=*/ h a1 200000; y1=+- vc 0 dy1; y2=+- vc dy1 0; dx2=*/ y1 dx1 hd2; x2=+- x1 dx2 0`, path: "M l y1 L x1 y1 L x1 t L r vc L x1 b L x1 y2 L l y2 Z", text: "l y1 x2 y2" },
  leftArrow: { adjust: "adj1=50000 adj2=50000", guides: `maxAdj2=*/ 100000 w ss; ${ARROW}; x2=*/ ss a2 100000; dy1=*/ h a1 200000; y1=+- vc 0 dy1; y2=+- vc dy1 0; dx1=*/ y1 x2 hd2; x1=+- x2 0 dx1`, path: "M l vc L x2 t L x2 y1 L r y1 L r y2 L x2 y2 L x2 b Z", text: "x1 y1 r y2" },
  upArrow: { adjust: "adj1=50000 adj2=50000", guides: `maxAdj2=*/ 100000 h ss; ${ARROW}; y2=*/ ss a2 100000; dx1=*/ w a1 200000; x1=+- hc 0 dx1; x2=+- hc dx1 0; dy1=*/ x1 y2 wd2; y1=+- y2 0 dy1`, path: "M l y2 L hc t L r y2 L x2 y2 L x2 b L x1 b L x1 y2 Z", text: "x1 y1 x2 b" },
  downArrow: { adjust: "adj1=50000 adj2=50000", guides: `maxAdj2=*/ 100000 h ss; ${ARROW}; dy1=*/ ss a2 100000; y1=+- b 0 dy1; dx1=*/ w a1 200000; x1=+- hc 0 dx1; x2=+- hc dx1 0; dy2=*/ x1 dy1 wd2; y2=+- y1 dy2 0`, path: "M l y1 L x1 y1 L x1 t L x2 t L x2 y1 L r y1 L hc b Z", text: "x1 t x2 y2" },
  leftRightArrow: { adjust: "adj1=50000 adj2=50000", guides: `maxAdj2=*/ 50000 w ss; ${ARROW}; x2=*/ ss a2 100000; x3=+- r 0 x2; dy=*/ h a1 200000; y1=+- vc 0 dy; y2=+- vc dy 0; dx1=*/ y1 x2 hd2; x1=+- x2 0 dx1; x4=+- x3 dx1 0`, path: "M l vc L x2 t L x2 y1 L x3 y1 L x3 t L r vc L x3 b L x3 y2 L x2 y2 L x2 b Z", text: "x1 y1 x4 y2" },
  upDownArrow: { adjust: "adj1=50000 adj2=50000", guides: `maxAdj2=*/ 50000 h ss; ${ARROW}; y2=*/ ss a2 100000; y3=+- b 0 y2; dx=*/ w a1 200000; x1=+- hc 0 dx; x2=+- hc dx 0`, path: "M l y2 L hc t L r y2 L x2 y2 L x2 y3 L r y3 L hc b L l y3 L x1 y3 L x1 y2 Z", text: "x1 y2 x2 y3" },
  notchedRightArrow: { adjust: "adj1=50000 adj2=50000", guides: `maxAdj2=*/ 100000 w ss; ${ARROW}; dx2=*/ ss a2 100000; x2=+- r 0 dx2; dy1=*/ h a1 200000; y1=+- vc 0 dy1; y2=+- vc dy1 0; x1=*/ dy1 dx2 hd2; x3=+- r 0 x1`, path: "M l y1 L x2 y1 L x2 t L r vc L x2 b L x2 y2 L l y2 L x1 vc Z", text: "x1 y1 x3 y2" },
  star4: { adjust: "adj=12500", guides: "a=pin 0 adj 50000; iwd2=*/ wd2 a 50000; ihd2=*/ hd2 a 50000; sdx=cos iwd2 2700000; sdy=sin ihd2 2700000; sx1=+- hc 0 sdx; sx2=+- hc sdx 0; sy1=+- vc 0 sdy; sy2=+- vc sdy 0", path: "M l vc L sx1 sy1 L hc t L sx2 sy1 L r vc L sx2 sy2 L hc b L sx1 sy2 Z", text: "sx1 sy1 sx2 sy2" },
  star5: { adjust: "adj=19098 hf=105146 vf=110557", guides: `a=pin 0 adj 50000; ${FIVE}; iwd2=*/ swd2 a 50000; ihd2=*/ shd2 a 50000; sdx1=cos iwd2 20520000; sdx2=cos iwd2 3240000; sdy1=sin ihd2 3240000; sdy2=sin ihd2 20520000; sx1=+- hc 0 sdx1; sx2=+- hc 0 sdx2; sx3=+- hc sdx2 0; sx4=+- hc sdx1 0; sy1=+- svc 0 sdy1; sy2=+- svc 0 sdy2; sy3=+- svc ihd2 0`, path: "M x1 y1 L sx2 sy1 L hc t L sx3 sy1 L x4 y1 L sx4 sy2 L x3 y2 L hc sy3 L x2 y2 L sx1 sy2 Z", text: "sx1 sy1 sx4 sy3" },
  donut: { adjust: "adj=25000", guides: `a=pin 0 adj 50000; dr=*/ ss a 100000; iwd2=+- wd2 0 dr; ihd2=+- hd2 0 dr; ${ELLIPSE_TEXT}`, path: `${ELLIPSE} M dr vc A iwd2 ihd2 cd2 -5400000 A iwd2 ihd2 cd4 -5400000 A iwd2 ihd2 0 -5400000 A iwd2 ihd2 3cd4 -5400000 Z`, text: "il it ir ib" },
  frame: { adjust: "adj1=12500", guides: "a1=pin 0 adj1 50000; x1=*/ ss a1 100000; x4=+- r 0 x1; y4=+- b 0 x1", path: `${RECT} M x1 x1 L x1 y4 L x4 y4 L x4 x1 Z`, text: "x1 x1 x4 y4" },
  corner: { adjust: "adj1=50000 adj2=50000", guides: "maxAdj1=*/ 100000 h ss; maxAdj2=*/ 100000 w ss; a1=pin 0 adj1 maxAdj1; a2=pin 0 adj2 maxAdj2; x1=*/ ss a2 100000; dy1=*/ ss a1 100000; y1=+- b 0 dy1", path: "M l t L x1 t L x1 y1 L r y1 L r b L l b Z", text: "l y1 r b" },
  diagStripe: { adjust: "adj=50000", guides: "a=pin 0 adj 100000; x2=*/ w a 100000; y2=*/ h a 100000", path: "M l y2 L x2 t L r t L l b Z" },
  foldedCorner: { adjust: "adj=16667", guides: "a=pin 0 adj 50000; dy2=*/ ss a 100000; dy1=*/ dy2 1 5; x1=+- r 0 dy2; x2=+- x1 dy1 0; y2=+- b 0 dy2; y1=+- y2 dy1 0", path: "[s0]M l t L r t L r y2 L x1 b L l b Z|[s0 dk]M x1 b L x2 y1 L r y2 Z|[f0]M x1 b L x2 y1 L r y2 L x1 b L l b L l t L r t L r y2", text: "l t r y2" },
  plaque: { adjust: "adj=16667", guides: `${CORNER}; il=*/ x1 70711 100000; ir=+- r 0 il; ib=+- b 0 il`, path: "M l x1 A x1 x1 cd4 -5400000 L x2 t A x1 x1 cd2 -5400000 L r y2 A x1 x1 3cd4 -5400000 L x1 b A x1 x1 0 -5400000 Z", text: "il il ir ib" },
  bevel: { adjust: "adj=12500", guides: CORNER, path: "[s0]M x1 x1 L x2 x1 L x2 y2 L x1 y2 Z|[s0 lt]M l t L r t L x2 x1 L x1 x1 Z|[s0 dk]M l b L x1 y2 L x2 y2 L r b Z|[s0 lt]M l t L x1 x1 L x1 y2 L l b Z|[s0 dk]M r t L r b L x2 y2 L x2 x1 Z|[f0]M l t L r t L r b L l b Z M x1 x1 L x2 x1 L x2 y2 L x1 y2 Z M l t L x1 x1 M l b L x1 y2 M r t L x2 x1 M r b L x2 y2", text: "x1 x1 x2 y2" },
  can: { adjust: "adj=25000", guides: "maxAdj=*/ 50000 h ss; a=pin 0 adj maxAdj; y1=*/ ss a 200000; y2=+- y1 y1 0; y3=+- b 0 y1", path: "[s0]M l y1 A wd2 y1 cd2 -10800000 L r y3 A wd2 y1 0 cd2 Z|[s0 lt]M l y1 A wd2 y1 cd2 cd2 A wd2 y1 0 cd2 Z|[f0]M r y1 A wd2 y1 0 cd2 A wd2 y1 cd2 cd2 L r y3 A wd2 y1 0 cd2 L l y1", text: "l y2 r y3" },
  cube: { adjust: "adj=25000", guides: "a=pin 0 adj 100000; y1=*/ ss a 100000; y4=+- b 0 y1; x4=+- r 0 y1", path: "[s0]M l y1 L x4 y1 L x4 b L l b Z|[s0 dk]M x4 y1 L r t L r y4 L x4 b Z|[s0 lt]M l y1 L y1 t L r t L x4 y1 Z|[f0]M l y1 L y1 t L r t L r y4 L x4 b L l b Z M l y1 L x4 y1 L r t M x4 y1 L x4 b", text: "l y1 x4 b" },
  heart: { guides: "dx1=*/ w 49 48; dx2=*/ w 10 48; x1=+- hc 0 dx1; x2=+- hc 0 dx2; x3=+- hc dx2 0; x4=+- hc dx1 0; y1=+- t 0 hd3; il=*/ w 1 6; ir=*/ w 5 6; ib=*/ h 2 3", path: "M hc hd4 C x3 y1 x4 hd4 hc b C x1 hd4 x2 y1 hc hd4 Z", text: "il hd4 ir ib" },
  teardrop: { adjust: "adj=100000", guides: `a=pin 0 adj 200000; r2=sqrt 2; tw=*/ wd2 r2 1; th=*/ hd2 r2 1; sw=*/ tw a 100000; sh=*/ th a 100000; dx1=cos sw 2700000; dy1=sin sh 2700000; x1=+- hc dx1 0; y1=+- vc 0 dy1; x2=+/ hc x1 2; y2=+/ vc y1 2; ${ELLIPSE_TEXT}`, path: "M l vc A wd2 hd2 cd2 cd4 Q x2 t x1 y1 Q r y2 r vc A wd2 hd2 0 cd4 A wd2 hd2 cd4 cd4 Z", text: "il it ir ib" },
  pie: { adjust: "adj1=0 adj2=16200000", guides: `${SECTOR}; ${ELLIPSE_TEXT}`, path: "M x1 y1 A wd2 hd2 stAng swAng L hc vc Z", text: "il it ir ib" },
  chord: { adjust: "adj1=2700000 adj2=16200000", guides: `${SECTOR}; ${ELLIPSE_TEXT}`, path: "M x1 y1 A wd2 hd2 stAng swAng Z", text: "il it ir ib" },
  arc: { adjust: "adj1=16200000 adj2=0", guides: SECTOR, path: "[s0]M x1 y1 A wd2 hd2 stAng swAng L hc vc Z|[f0]M x1 y1 A wd2 hd2 stAng swAng" },
  blockArc: { adjust: "adj1=10800000 adj2=0 adj3=25000", guides: `${SECTOR}; a3=pin 0 adj3 50000; iswAng=+- 0 0 swAng; dr=*/ ss a3 100000; iwd2=+- wd2 0 dr; ihd2=+- hd2 0 dr; wt2=sin iwd2 enAng; ht2=cos ihd2 enAng; dx2=cat2 iwd2 ht2 wt2; dy2=sat2 ihd2 ht2 wt2; x2=+- hc dx2 0; y2=+- vc dy2 0`, path: "M x1 y1 A wd2 hd2 stAng swAng L x2 y2 A iwd2 ihd2 enAng iswAng Z" },
  wedgeRectCallout: { adjust: "adj1=-20833 adj2=62500", guides: CALLOUT, path: "M l t L x1 t L xt yt L x2 t L r t L r y1 L xr yr L r y2 L r b L x2 b L xb yb L x1 b L l b L l y2 L xl yl L l y1 Z" },
  wedgeRoundRectCallout: { adjust: "adj1=-20833 adj2=62500 adj3=16667", guides: `${CALLOUT}; u1=*/ ss adj3 100000; u2=+- r 0 u1; v2=+- b 0 u1; il=*/ u1 29289 100000; ir=+- r 0 il; ib=+- b 0 il`, path: "M l u1 A u1 u1 cd2 cd4 L x1 t L xt yt L x2 t L u2 t A u1 u1 3cd4 cd4 L r y1 L xr yr L r y2 L r v2 A u1 u1 0 cd4 L x2 b L xb yb L x1 b L u1 b A u1 u1 cd4 cd4 L l y2 L xl yl L l y1 Z", text: "il il ir ib" },
  wedgeEllipseCallout: { adjust: "adj1=-20833 adj2=62500", guides: `dxPos=*/ w adj1 100000; dyPos=*/ h adj2 100000; xPos=+- hc dxPos 0; yPos=+- vc dyPos 0; sdx=*/ dxPos h 1; sdy=*/ dyPos w 1; pang=at2 sdx sdy; stAng=+- pang 660000 0; enAng=+- pang 0 660000; dx1=cos wd2 stAng; dy1=sin hd2 stAng; x1=+- hc dx1 0; y1=+- vc dy1 0; dx2=cos wd2 enAng; dy2=sin hd2 enAng; stAng1=at2 dx1 dy1; enAng1=at2 dx2 dy2; swAng1=+- enAng1 0 stAng1; swAng2=+- swAng1 21600000 0; swAng=?: swAng1 swAng1 swAng2; ${ELLIPSE_TEXT}`, path: "M xPos yPos L x1 y1 A wd2 hd2 stAng1 swAng Z", text: "il it ir ib" },
  wave: { adjust: "adj1=12500 adj2=0", guides: "a1=pin 0 adj1 20000; a2=pin -10000 adj2 10000; y1=*/ h a1 100000; dy2=*/ y1 10 3; y2=+- y1 0 dy2; y3=+- y1 dy2 0; y4=+- b 0 y1; y5=+- y4 0 dy2; y6=+- y4 dy2 0; dx1=*/ w a2 100000; of2=*/ w a2 50000; x1=abs dx1; dx2=?: of2 0 of2; x2=+- l 0 dx2; dx5=?: of2 of2 0; x5=+- r 0 dx5; dx3=+/ dx2 x5 3; x3=+- x2 dx3 0; x4=+/ x3 x5 2; x6=+- l dx5 0; x10=+- r dx2 0; x7=+- x6 dx3 0; x8=+/ x7 x10 2; il=max x2 x6; ir=min x5 x10; it=*/ h a1 50000; ib=+- b 0 it", path: "M x2 y1 C x3 y2 x4 y3 x5 y1 L x10 y4 C x8 y6 x7 y5 x6 y4 Z", text: "il it ir ib" },
  doubleWave: { adjust: "adj1=6250 adj2=0", guides: "a1=pin 0 adj1 12500; a2=pin -10000 adj2 10000; y1=*/ h a1 100000; dy2=*/ y1 10 3; y2=+- y1 0 dy2; y3=+- y1 dy2 0; y4=+- b 0 y1; y5=+- y4 0 dy2; y6=+- y4 dy2 0; of2=*/ w a2 50000; dx2=?: of2 0 of2; x2=+- l 0 dx2; dx8=?: of2 of2 0; x8=+- r 0 dx8; dx3=+/ dx2 x8 6; x3=+- x2 dx3 0; dx4=+/ dx2 x8 3; x4=+- x2 dx4 0; x5=+/ x2 x8 2; x6=+- x5 dx3 0; x7=+/ x6 x8 2; x9=+- l dx8 0; x15=+- r dx2 0; x10=+- x9 dx3 0; x11=+- x9 dx4 0; x12=+/ x9 x15 2; x13=+- x12 dx3 0; x14=+/ x13 x15 2; it=*/ h a1 50000; ib=+- b 0 it", path: "M x2 y1 C x3 y2 x4 y3 x5 y1 C x6 y2 x7 y3 x8 y1 L x15 y4 C x14 y6 x13 y5 x12 y4 C x11 y6 x10 y5 x9 y4 Z", text: "l it r ib" },
  decagon: { adjust: "vf=105146", guides: "shd2=*/ hd2 vf 100000; dx1=cos wd2 2160000; dx2=cos wd2 4320000; x1=+- hc 0 dx1; x2=+- hc 0 dx2; x3=+- hc dx2 0; x4=+- hc dx1 0; dy1=sin shd2 4320000; dy2=sin shd2 2160000; y1=+- vc 0 dy1; y2=+- vc 0 dy2; y3=+- vc dy2 0; y4=+- vc dy1 0", path: "M l vc L x1 y2 L x2 y1 L x3 y1 L x4 y2 L r vc L x4 y3 L x3 y4 L x2 y4 L x1 y3 Z", text: "x1 y2 x4 y3" },
  dodecagon: { guides: "x1=*/ w 2894 21600; x2=*/ w 7906 21600; x3=*/ w 13694 21600; x4=*/ w 18706 21600; y1=*/ h 2894 21600; y2=*/ h 7906 21600; y3=*/ h 13694 21600; y4=*/ h 18706 21600", path: "M l y2 L x1 y1 L x2 t L x3 t L x4 y1 L r y2 L r y3 L x4 y4 L x3 b L x2 b L x1 y4 L l y3 Z", text: "x1 y1 x4 y4" },
  heptagon: { adjust: "hf=102572 vf=105210", guides: "swd2=*/ wd2 hf 100000; shd2=*/ hd2 vf 100000; svc=*/ vc vf 100000; dx1=*/ swd2 97493 100000; dx2=*/ swd2 78183 100000; dx3=*/ swd2 43388 100000; dy1=*/ shd2 62349 100000; dy2=*/ shd2 22252 100000; dy3=*/ shd2 90097 100000; x1=+- hc 0 dx1; x2=+- hc 0 dx2; x3=+- hc 0 dx3; x4=+- hc dx3 0; x5=+- hc dx2 0; x6=+- hc dx1 0; y1=+- svc 0 dy1; y2=+- svc dy2 0; y3=+- svc dy3 0; ib=+- b 0 y1", path: "M x1 y2 L x2 y1 L hc t L x5 y1 L x6 y2 L x4 y3 L x3 y3 Z", text: "x2 y1 x5 ib" },
  quadArrow: { adjust: "adj1=22500 adj2=22500 adj3=22500", guides: "a2=pin 0 adj2 50000; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; q1=+- 100000 0 maxAdj1; maxAdj3=*/ q1 1 2; a3=pin 0 adj3 maxAdj3; x1=*/ ss a3 100000; dx2=*/ ss a2 100000; x2=+- hc 0 dx2; x5=+- hc dx2 0; dx3=*/ ss a1 200000; x3=+- hc 0 dx3; x4=+- hc dx3 0; x6=+- r 0 x1; y2=+- vc 0 dx2; y5=+- vc dx2 0; y3=+- vc 0 dx3; y4=+- vc dx3 0; y6=+- b 0 x1", path: "M l vc L x1 y2 L x1 y3 L x3 y3 L x3 x1 L x2 x1 L hc t L x5 x1 L x4 x1 L x4 y3 L x6 y3 L x6 y2 L r vc L x6 y5 L x6 y4 L x4 y4 L x4 y6 L x5 y6 L hc b L x2 y6 L x3 y6 L x3 y4 L x1 y4 L x1 y5 Z", text: "x1 y3 x6 y4" },
  leftUpArrow: { adjust: "adj1=25000 adj2=25000 adj3=25000", guides: "a2=pin 0 adj2 50000; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; maxAdj3=+- 100000 0 maxAdj1; a3=pin 0 adj3 maxAdj3; x1=*/ ss a3 100000; dx2=*/ ss a2 50000; x2=+- r 0 dx2; y2=+- b 0 dx2; dx4=*/ ss a2 100000; x4=+- r 0 dx4; y4=+- b 0 dx4; dx3=*/ ss a1 200000; x3=+- x4 0 dx3; x5=+- x4 dx3 0; y3=+- y4 0 dx3; y5=+- y4 dx3 0", path: "M l y4 L x1 y2 L x1 y3 L x3 y3 L x3 x1 L x2 x1 L x4 t L r x1 L x5 x1 L x5 y5 L x1 y5 L x1 b Z", text: "x1 y3 x5 y5" },
  bentUpArrow: { adjust: "adj1=25000 adj2=25000 adj3=25000", guides: "a1=pin 0 adj1 50000; a2=pin 0 adj2 50000; a3=pin 0 adj3 50000; y1=*/ ss a3 100000; dx1=*/ ss a2 50000; x1=+- r 0 dx1; dx3=*/ ss a2 100000; x3=+- r 0 dx3; dx2=*/ ss a1 200000; x2=+- x3 0 dx2; x4=+- x3 dx2 0; dy2=*/ ss a1 100000; y2=+- b 0 dy2", path: "M l y2 L x2 y2 L x2 y1 L x1 y1 L x3 t L r y1 L x4 y1 L x4 b L l b Z", text: "l y2 x4 b" },
  stripedRightArrow: { adjust: "adj1=50000 adj2=50000", guides: "maxAdj2=*/ 84375 w ss; a1=pin 0 adj1 100000; a2=pin 0 adj2 maxAdj2; x4=*/ ss 5 32; dx5=*/ ss a2 100000; x5=+- r 0 dx5; dy1=*/ h a1 200000; y1=+- vc 0 dy1; y2=+- vc dy1 0", path: "M l y1 L ssd32 y1 L ssd32 y2 L l y2 Z M ssd16 y1 L ssd8 y1 L ssd8 y2 L ssd16 y2 Z M x4 y1 L x5 y1 L x5 t L r vc L x5 b L x5 y2 L x4 y2 Z", text: "x4 y1 x5 y2" },
  rightArrowCallout: { adjust: "adj1=25000 adj2=25000 adj3=25000 adj4=64977", guides: "maxAdj2=*/ 50000 h ss; a2=pin 0 adj2 maxAdj2; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; maxAdj3=*/ 100000 w ss; a3=pin 0 adj3 maxAdj3; q2=*/ a3 ss w; maxAdj4=+- 100000 0 q2; a4=pin 0 adj4 maxAdj4; dy1=*/ ss a2 100000; dy2=*/ ss a1 200000; y1=+- vc 0 dy1; y2=+- vc 0 dy2; y3=+- vc dy2 0; y4=+- vc dy1 0; dx3=*/ ss a3 100000; x3=+- r 0 dx3; x2=*/ w a4 100000", path: "M l t L x2 t L x2 y2 L x3 y2 L x3 y1 L r vc L x3 y4 L x3 y3 L x2 y3 L x2 b L l b Z", text: "l t x2 b" },
  downArrowCallout: { adjust: "adj1=25000 adj2=25000 adj3=25000 adj4=64977", guides: "maxAdj2=*/ 50000 w ss; a2=pin 0 adj2 maxAdj2; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; maxAdj3=*/ 100000 h ss; a3=pin 0 adj3 maxAdj3; q2=*/ a3 ss h; maxAdj4=+- 100000 0 q2; a4=pin 0 adj4 maxAdj4; dx1=*/ ss a2 100000; dx2=*/ ss a1 200000; x1=+- hc 0 dx1; x2=+- hc 0 dx2; x3=+- hc dx2 0; x4=+- hc dx1 0; dy3=*/ ss a3 100000; y3=+- b 0 dy3; y2=*/ h a4 100000", path: "M l t L r t L r y2 L x3 y2 L x3 y3 L x4 y3 L hc b L x1 y3 L x2 y3 L x2 y2 L l y2 Z", text: "l t r y2" },
  halfFrame: { adjust: "adj1=33333 adj2=33333", guides: "maxAdj2=*/ 100000 w ss; a2=pin 0 adj2 maxAdj2; x1=*/ ss a2 100000; g1=*/ h x1 w; g2=+- h 0 g1; maxAdj1=*/ 100000 g2 ss; a1=pin 0 adj1 maxAdj1; y1=*/ ss a1 100000; dx2=*/ y1 w h; x2=+- r 0 dx2; dy2=*/ x1 h w; y2=+- b 0 dy2", path: "M l t L r t L x2 y1 L x1 y1 L x1 y2 L l b Z", text: "l t r b" },
  mathDivide: { adjust: "adj1=23520 adj2=5880 adj3=11760", guides: "a1=pin 1000 adj1 36745; ma1=+- 0 0 a1; ma3h=+/ 73490 ma1 4; ma3w=*/ 36745 w h; maxAdj3=min ma3h ma3w; a3=pin 1000 adj3 maxAdj3; m4a3=*/ -4 a3 1; maxAdj2=+- 73490 m4a3 a1; a2=pin 0 adj2 maxAdj2; dy1=*/ h a1 200000; yg=*/ h a2 100000; rad=*/ h a3 100000; dx1=*/ w 73490 200000; y3=+- vc 0 dy1; y4=+- vc dy1 0; a=+- yg rad 0; y2=+- y3 0 a; y1=+- y2 0 rad; y5=+- b 0 y1; x1=+- hc 0 dx1; x3=+- hc dx1 0", path: "M hc y1 A rad rad 3cd4 21600000 Z M hc y5 A rad rad cd4 21600000 Z M x1 y4 L x1 y3 L x3 y3 L x3 y4 Z", text: "x1 y3 x3 y4" },
  smileyFace: { adjust: "adj=4653", guides: `a=pin -4653 adj 4653; x1=*/ w 4969 21699; x2=*/ w 6215 21600; x3=*/ w 13135 21600; x4=*/ w 16640 21600; y1=*/ h 7570 21600; y3=*/ h 16515 21600; dy2=*/ h a 100000; y2=+- y3 0 dy2; y4=+- y3 dy2 0; dy3=*/ h a 50000; y5=+- y4 dy3 0; wR=*/ w 1125 21600; hR=*/ h 1125 21600; ${ELLIPSE_TEXT}`, path: `[s0]${ELLIPSE}|[dk]M x2 y1 A wR hR cd2 21600000 Z M x3 y1 A wR hR cd2 21600000 Z|[f0]M x1 y2 Q hc y5 x4 y2|[f0]${ELLIPSE}`, text: "il it ir ib" },
  bracePair: { adjust: "adj=8333", guides: "a=pin 0 adj 25000; x1=*/ ss a 100000; x2=*/ ss a 50000; x3=+- r 0 x2; x4=+- r 0 x1; y2=+- vc 0 x1; y3=+- vc x1 0; y4=+- b 0 x1", path: "[s0]M x2 b A x1 x1 cd4 cd4 L x1 y3 A x1 x1 0 -5400000 A x1 x1 cd4 -5400000 L x1 x1 A x1 x1 cd2 cd4 L x3 t A x1 x1 3cd4 cd4 L x4 y2 A x1 x1 cd2 -5400000 A x1 x1 3cd4 -5400000 L x4 y4 A x1 x1 0 cd4 Z|[f0]M x2 b A x1 x1 cd4 cd4 L x1 y3 A x1 x1 0 -5400000 A x1 x1 cd4 -5400000 L x1 x1 A x1 x1 cd2 cd4 M x3 t A x1 x1 3cd4 cd4 L x4 y2 A x1 x1 cd2 -5400000 A x1 x1 3cd4 -5400000 L x4 y4 A x1 x1 0 cd4", text: "x1 x1 x4 y4" },
  flowChartOnlineStorage: { guides: "x2=*/ w 5 6", path: "[w=6 h=6]M 1 0 L 6 0 A 1 3 3cd4 -10800000 L 1 6 A 1 3 cd4 cd2 Z", text: "wd6 t x2 b" },
  flowChartMagneticDrum: { guides: "x2=*/ w 2 3", path: "[s0 w=6 h=6]M 1 0 L 5 0 A 1 3 3cd4 cd2 L 1 6 A 1 3 cd4 cd2 Z|[f0 w=6 h=6]M 5 6 A 1 3 cd4 cd2|[f0 w=6 h=6]M 1 0 L 5 0 A 1 3 3cd4 cd2 L 1 6 A 1 3 cd4 cd2 Z", text: "wd6 t x2 b" },
  flowChartDisplay: { guides: "x2=*/ w 5 6", path: "[w=6 h=6]M 0 3 L 1 0 L 5 0 A 1 3 3cd4 cd2 L 1 6 Z", text: "wd6 t x2 b" },
  flowChartOfflineStorage: { guides: "x4=*/ w 3 4", path: "[s0 w=2 h=2]M 0 0 L 2 0 L 1 2 Z|[f0 w=5 h=5]M 2 4 L 3 4|[f0 w=2 h=2]M 0 0 L 2 0 L 1 2 Z", text: "wd4 t x4 vc" },
  flowChartPunchedTape: { guides: "y2=*/ h 9 10; ib=*/ h 4 5", path: "[w=20 h=20]M 0 2 A 5 2 cd2 -10800000 A 5 2 cd2 cd2 L 20 18 A 5 2 0 -10800000 A 5 2 0 cd2 Z", text: "l hd5 r ib" },
  flowChartMultidocument: { guides: "y2=*/ h 3675 21600; y8=*/ h 20782 21600; x5=*/ w 18595 21600", path: "[w=21600 h=21600]M 0 20782 C 9298 23542 9298 18022 18595 18022 L 18595 3675 L 0 3675 Z M 1532 3675 L 1532 1815 L 20000 1815 L 20000 16252 C 19298 16252 18595 16352 18595 16352 L 18595 3675 Z M 2972 1815 L 2972 0 L 21600 0 L 21600 14392 C 20800 14392 20000 14467 20000 14467 L 20000 1815 Z", text: "l y2 x5 y8" },
  cloud: { guides: "il=*/ w 2977 21600; it=*/ h 3262 21600; ir=*/ w 17087 21600; ib=*/ h 17337 21600", path: CLOUD, text: "il it ir ib" },
  lightningBolt: { path: "[w=21600 h=21600]M 8472 0 L 12860 6080 L 11050 6797 L 16577 12007 L 14767 12877 L 21600 21600 L 10012 14915 L 12222 13987 L 5022 9705 L 7602 8382 L 0 3890 Z" },
  leftBracket: { adjust: "adj=8333", guides: "maxAdj=*/ 50000 h ss; a=pin 0 adj maxAdj; y1=*/ ss a 100000; y2=+- b 0 y1", path: "[s0]M r b A w y1 cd4 cd4 L l y1 A w y1 cd2 cd4 Z|[f0]M r b A w y1 cd4 cd4 L l y1 A w y1 cd2 cd4" },
  rightBracket: { adjust: "adj=8333", guides: "maxAdj=*/ 50000 h ss; a=pin 0 adj maxAdj; y1=*/ ss a 100000; y2=+- b 0 y1", path: "[s0]M l t A w y1 3cd4 cd4 L r y2 A w y1 0 cd4 Z|[f0]M l t A w y1 3cd4 cd4 L r y2 A w y1 0 cd4" },
  bracketPair: { adjust: "adj=16667", guides: CORNER, path: "[s0]M l x1 A x1 x1 cd2 cd4 L x2 t A x1 x1 3cd4 cd4 L r y2 A x1 x1 0 cd4 L x1 b A x1 x1 cd4 cd4 Z|[f0]M x1 b A x1 x1 cd4 cd4 L l x1 A x1 x1 cd2 cd4 M x2 t A x1 x1 3cd4 cd4 L r y2 A x1 x1 0 cd4" },
  leftBrace: { adjust: "adj1=8333 adj2=50000", guides: "a2=pin 0 adj2 100000; q1=+- 100000 0 a2; q2=min q1 a2; q3=*/ q2 1 2; maxAdj1=*/ q3 h ss; a1=pin 0 adj1 maxAdj1; y1=*/ ss a1 100000; y3=*/ h a2 100000; y4=+- y3 y1 0", path: "[s0]M r b A wd2 y1 cd4 cd4 L hc y4 A wd2 y1 0 -5400000 A wd2 y1 cd4 -5400000 L hc y1 A wd2 y1 cd2 cd4 Z|[f0]M r b A wd2 y1 cd4 cd4 L hc y4 A wd2 y1 0 -5400000 A wd2 y1 cd4 -5400000 L hc y1 A wd2 y1 cd2 cd4" },
  rightBrace: { adjust: "adj1=8333 adj2=50000", guides: "a2=pin 0 adj2 100000; q1=+- 100000 0 a2; q2=min q1 a2; q3=*/ q2 1 2; maxAdj1=*/ q3 h ss; a1=pin 0 adj1 maxAdj1; y1=*/ ss a1 100000; y3=*/ h a2 100000; y2=+- y3 0 y1; y4=+- b 0 y1", path: "[s0]M l t A wd2 y1 3cd4 cd4 L hc y2 A wd2 y1 cd2 -5400000 A wd2 y1 3cd4 -5400000 L hc y4 A wd2 y1 0 cd4 Z|[f0]M l t A wd2 y1 3cd4 cd4 L hc y2 A wd2 y1 cd2 -5400000 A wd2 y1 3cd4 -5400000 L hc y4 A wd2 y1 0 cd4" },
  mathPlus: { adjust: "adj1=23520", guides: `a1=pin 0 adj1 73490; ${PLUS}; dx2=*/ ss a1 200000; x2=+- hc 0 dx2; x3=+- hc dx2 0; y2=+- vc 0 dx2; y3=+- vc dx2 0`, path: "M x1 y2 L x2 y2 L x2 y1 L x3 y1 L x3 y2 L x4 y2 L x4 y3 L x3 y3 L x3 y4 L x2 y4 L x2 y3 L x1 y3 Z", text: "x1 y2 x4 y3" },
  mathMinus: { adjust: "adj1=23520", guides: "a1=pin 0 adj1 100000; dy1=*/ h a1 200000; dx1=*/ w 73490 200000; y1=+- vc 0 dy1; y2=+- vc dy1 0; x1=+- hc 0 dx1; x2=+- hc dx1 0", path: "M x1 y1 L x2 y1 L x2 y2 L x1 y2 Z", text: "x1 y1 x2 y2" },
  mathEqual: { adjust: "adj1=23520 adj2=11760", guides: "a1=pin 0 adj1 36745; 2a1=*/ a1 2 1; mAdj2=+- 100000 0 2a1; a2=pin 0 adj2 mAdj2; dy1=*/ h a1 100000; dy2=*/ h a2 200000; dx1=*/ w 73490 200000; y2=+- vc 0 dy2; y3=+- vc dy2 0; y1=+- y2 0 dy1; y4=+- y3 dy1 0; x1=+- hc 0 dx1; x2=+- hc dx1 0", path: "M x1 y1 L x2 y1 L x2 y2 L x1 y2 Z M x1 y3 L x2 y3 L x2 y4 L x1 y4 Z", text: "x1 y1 x2 y4" },
  line: { path: "[f0]M l t L r b" },
  straightConnector1: { path: "[f0]M l t L r b" },
  bentConnector2: { path: "[f0]M l t L r t L r b" },
  bentConnector3: { adjust: "adj1=50000", guides: "x1=*/ w adj1 100000", path: "[f0]M l t L x1 t L x1 b L r b" },
  bentConnector4: { adjust: "adj1=50000 adj2=50000", guides: "x1=*/ w adj1 100000; y2=*/ h adj2 100000", path: "[f0]M l t L x1 t L x1 y2 L r y2 L r b" },
  bentConnector5: { adjust: "adj1=50000 adj2=50000 adj3=50000", guides: "x1=*/ w adj1 100000; x3=*/ w adj3 100000; y2=*/ h adj2 100000", path: "[f0]M l t L x1 t L x1 y2 L x3 y2 L x3 b L r b" },
  curvedConnector2: { path: "[f0]M l t C wd2 t r hd2 r b" },
  curvedConnector3: { adjust: "adj1=50000", guides: "x2=*/ w adj1 100000; x1=+/ l x2 2; x3=+/ r x2 2; y3=*/ h 3 4", path: "[f0]M l t C x1 t x2 hd4 x2 vc C x2 y3 x3 b r b" },
  flowChartProcess: { path: RECT },
  flowChartAlternateProcess: { guides: "x1=*/ ss 1 6; x2=+- r 0 x1; y2=+- b 0 x1", path: "M l x1 A x1 x1 cd2 cd4 L x2 t A x1 x1 3cd4 cd4 L r y2 A x1 x1 0 cd4 L x1 b A x1 x1 cd4 cd4 Z" },
  flowChartDecision: { guides: "ir=*/ w 3 4; ib=*/ h 3 4", path: "M l vc L hc t L r vc L hc b Z", text: "wd4 hd4 ir ib" },
  flowChartInputOutput: { guides: "il=*/ w 1 5; ir=*/ w 4 5", path: "[w=5 h=5]M 0 5 L 1 0 L 5 0 L 4 5 Z", text: "il t ir b" },
  flowChartPredefinedProcess: { guides: "il=*/ w 1 8; ir=*/ w 7 8", path: `[s0]${RECT}|[f0]M il t L il b M ir t L ir b|[f0]${RECT}`, text: "il t ir b" },
  flowChartInternalStorage: { guides: "il=*/ w 1 8; it=*/ h 1 8", path: `[s0]${RECT}|[f0]M il t L il b M l it L r it|[f0]${RECT}`, text: "il it r b" },
  flowChartDocument: { guides: "ib=*/ h 17322 21600", path: "[w=21600 h=21600]M 0 0 L 21600 0 L 21600 17322 C 10800 17322 10800 23922 0 20172 Z", text: "l t r ib" },
  flowChartTerminator: { guides: "il=*/ w 1018 21600; ir=*/ w 20582 21600; it=*/ h 3163 21600; ib=*/ h 18437 21600", path: "[w=21600 h=21600]M 3475 0 L 18125 0 A 3475 10800 3cd4 cd2 L 3475 21600 A 3475 10800 cd4 cd2 Z", text: "il it ir ib" },
  flowChartPreparation: { guides: "il=*/ w 2 10; ir=*/ w 8 10", path: "[w=10 h=10]M 0 5 L 2 0 L 8 0 L 10 5 L 8 10 L 2 10 Z", text: "il t ir b" },
  flowChartManualInput: { guides: "it=*/ h 1 5", path: "[w=5 h=5]M 0 1 L 5 0 L 5 5 L 0 5 Z", text: "l it r b" },
  flowChartManualOperation: { guides: "il=*/ w 1 5; ir=*/ w 4 5", path: "[w=5 h=5]M 0 0 L 5 0 L 4 5 L 1 5 Z", text: "il t ir b" },
  flowChartConnector: { guides: ELLIPSE_TEXT, path: ELLIPSE, text: "il it ir ib" },
  flowChartOffpageConnector: { guides: "ib=*/ h 4 5", path: "[w=10 h=10]M 0 0 L 10 0 L 10 8 L 5 10 L 0 8 Z", text: "l t r ib" },
  flowChartExtract: { guides: "ir=*/ w 3 4", path: "[w=2 h=2]M 0 2 L 1 0 L 2 2 Z", text: "wd4 vc ir b" },
  flowChartMerge: { guides: "ir=*/ w 3 4", path: "[w=2 h=2]M 0 0 L 2 0 L 1 2 Z", text: "wd4 t ir vc" },
  flowChartPunchedCard: { guides: "it=*/ h 1 5", path: "[w=5 h=5]M 0 1 L 1 0 L 5 0 L 5 5 L 0 5 Z", text: "l it r b" },
  flowChartDelay: { guides: ELLIPSE_TEXT, path: "M l t L hc t A wd2 hd2 3cd4 cd2 L l b Z", text: "l it ir ib" },
  flowChartSummingJunction: { guides: ELLIPSE_TEXT, path: `[s0]${ELLIPSE}|[f0]M il it L ir ib M ir it L il ib|[f0]${ELLIPSE}`, text: "il it ir ib" },
  flowChartOr: { guides: ELLIPSE_TEXT, path: `[s0]${ELLIPSE}|[f0]M hc t L hc b M l vc L r vc|[f0]${ELLIPSE}`, text: "il it ir ib" },
  flowChartCollate: { path: "[w=2 h=2]M 0 0 L 2 0 L 1 1 L 2 2 L 0 2 L 1 1 Z" },
  flowChartSort: { path: "[s0 w=2 h=2]M 0 1 L 1 0 L 2 1 L 1 2 Z|[f0 w=2 h=2]M 0 1 L 2 1|[f0 w=2 h=2]M 0 1 L 1 0 L 2 1 L 1 2 Z" },
  flowChartMagneticDisk: { guides: "y1=*/ h 1 3; y3=*/ h 5 6", path: "[s0 w=6 h=6]M 0 1 A 3 1 cd2 cd2 L 6 5 A 3 1 0 cd2 Z|[f0 w=6 h=6]M 6 1 A 3 1 0 cd2|[f0 w=6 h=6]M 0 1 A 3 1 cd2 cd2 L 6 5 A 3 1 0 cd2 Z", text: "l y1 r y3" }
};
var STARS = { star6: { points: 6, adjust: 28868 }, star7: { points: 7, adjust: 34601 }, star8: { points: 8, adjust: 37500 }, star10: { points: 10, adjust: 42533 }, star12: { points: 12, adjust: 37500 }, star16: { points: 16, adjust: 37500 }, star24: { points: 24, adjust: 37500 }, star32: { points: 32, adjust: 37500 } };

// core/figures/geometry.ts
var TURN2 = 216e5;
var radians = (angle) => angle / TURN2 * 2 * Math.PI;
var OPERATIONS = {
  "*/": (x, y, z9) => z9 === 0 ? 0 : x * y / z9,
  "+-": (x, y, z9) => x + y - z9,
  "+/": (x, y, z9) => z9 === 0 ? 0 : (x + y) / z9,
  "?:": (x, y, z9) => x > 0 ? y : z9,
  abs: (x) => Math.abs(x),
  at2: (x, y) => Math.atan2(y, x) / (2 * Math.PI) * TURN2,
  cat2: (x, y, z9) => x * Math.cos(Math.atan2(z9, y)),
  cos: (x, y) => x * Math.cos(radians(y)),
  max: (x, y) => Math.max(x, y),
  min: (x, y) => Math.min(x, y),
  mod: (x, y, z9) => Math.sqrt(x * x + y * y + z9 * z9),
  pin: (x, y, z9) => Math.max(x, Math.min(z9, y)),
  sat2: (x, y, z9) => x * Math.sin(Math.atan2(z9, y)),
  sin: (x, y) => x * Math.sin(radians(y)),
  sqrt: (x) => Math.sqrt(Math.max(0, x)),
  tan: (x, y) => x * Math.tan(radians(y)),
  val: (x) => x
};
function builtIn(w, h) {
  const ss = Math.min(w, h);
  const names = /* @__PURE__ */ new Map([["l", 0], ["t", 0], ["r", w], ["b", h], ["w", w], ["h", h], ["hc", w / 2], ["vc", h / 2], ["ss", ss], ["ls", Math.max(w, h)], ["cd2", TURN2 / 2], ["cd4", TURN2 / 4], ["cd8", TURN2 / 8], ["3cd4", TURN2 * 3 / 4], ["3cd8", TURN2 * 3 / 8], ["5cd8", TURN2 * 5 / 8], ["7cd8", TURN2 * 7 / 8]]);
  for (const part of [2, 3, 4, 5, 6, 8, 10, 12, 16, 32]) {
    names.set(`wd${part}`, w / part);
    names.set(`hd${part}`, h / part);
    names.set(`ssd${part}`, ss / part);
  }
  return names;
}
function guideValues(guides, adjust, width, height) {
  const names = builtIn(width, height);
  for (const [name, value] of Object.entries(adjust)) names.set(name, value);
  const read = (word) => word === void 0 ? 0 : names.get(word) ?? (Number.isFinite(Number(word)) ? Number(word) : 0);
  for (const { name, formula } of guides) {
    const [operation = "val", x, y, z9] = formula.trim().split(/\s+/);
    const value = (OPERATIONS[operation] ?? (() => 0))(read(x), read(y), read(z9));
    names.set(name, Number.isFinite(value) ? value : 0);
  }
  return names;
}
var n2 = (value) => String(Math.round(value * 1e3) / 1e3);
var PathWriter = class {
  constructor(scaleX = 1, scaleY = 1) {
    this.scaleX = scaleX;
    this.scaleY = scaleY;
  }
  scaleX;
  scaleY;
  d = "";
  at = [0, 0];
  from = [0, 0];
  next;
  before = [0, 0];
  closed = false;
  pair(x, y) {
    return `${n2(x * this.scaleX)} ${n2(y * this.scaleY)}`;
  }
  go(x, y, near = this.at) {
    this.next ??= near === this.at ? [x, y] : near;
    this.before = near;
    this.at = [x, y];
  }
  move(x, y) {
    this.d += `M${this.pair(x, y)}`;
    this.at = [x, y];
    this.from = [x, y];
    this.next = void 0;
  }
  line(x, y) {
    this.d += `L${this.pair(x, y)}`;
    const here = this.at;
    this.go(x, y, here);
    this.next = this.next === here ? [x, y] : this.next;
  }
  cubic(x1, y1, x2, y2, x, y) {
    this.d += `C${this.pair(x1, y1)} ${this.pair(x2, y2)} ${this.pair(x, y)}`;
    this.next ??= [x1, y1];
    this.go(x, y, [x2, y2]);
  }
  quad(x1, y1, x, y) {
    this.d += `Q${this.pair(x1, y1)} ${this.pair(x, y)}`;
    this.next ??= [x1, y1];
    this.go(x, y, [x1, y1]);
  }
  /** An arc of an ellipse (ECMA-376-1, 20.1.9.4): angles are as they are seen, so on a flat ellipse they are stretched. */
  arc(wR, hR, start, sweep) {
    if (sweep === 0 || wR === 0 && hR === 0) return;
    const param = (angle) => {
      const a = radians(angle);
      const own2 = Math.atan2(wR * Math.sin(a), hR * Math.cos(a));
      return own2 + 2 * Math.PI * Math.round((a - own2) / (2 * Math.PI));
    };
    const first = param(start);
    const last = param(start + sweep);
    const [cx, cy] = [this.at[0] - wR * Math.cos(first), this.at[1] - hR * Math.sin(first)];
    const parts = Math.max(1, Math.ceil(Math.abs(last - first) / (Math.PI * 0.75)));
    for (let part = 1; part <= parts; part++) {
      const angle = first + (last - first) * part / parts;
      const [x, y] = [cx + wR * Math.cos(angle), cy + hR * Math.sin(angle)];
      this.d += `A${n2(Math.abs(wR * this.scaleX))} ${n2(Math.abs(hR * this.scaleY))} 0 0 ${last > first ? 1 : 0} ${this.pair(x, y)}`;
      const sign = last > first ? 1 : -1;
      this.next ??= [this.at[0] - wR * Math.sin(first) * sign, this.at[1] + hR * Math.cos(first) * sign];
      this.go(x, y, [x + wR * Math.sin(angle) * sign, y - hR * Math.cos(angle) * sign]);
    }
  }
  close() {
    this.d += "Z";
    this.at = this.from;
    this.closed = true;
  }
  get ends() {
    const scaled = ([x, y]) => [x * this.scaleX, y * this.scaleY];
    return this.closed || !this.next ? void 0 : { from: scaled(this.from), next: scaled(this.next), before: scaled(this.before), to: scaled(this.at) };
  }
};
var parsed = /* @__PURE__ */ new Map();
function partsOf2(name, { adjust = "", guides = "" }) {
  const known = parsed.get(name);
  if (known) return known;
  const made = {
    adjust: Object.fromEntries(adjust.split(" ").filter(Boolean).map((pair) => [pair.split("=")[0], Number(pair.split("=")[1])])),
    guides: guides.split(";").map((line2) => line2.trim()).filter(Boolean).map((line2) => ({ name: line2.slice(0, line2.indexOf("=")), formula: line2.slice(line2.indexOf("=") + 1) }))
  };
  parsed.set(name, made);
  return made;
}
var COUNTS = { M: 2, L: 2, C: 6, Q: 4, A: 4, Z: 0 };
function presetForm(name, preset, adjust, width, height) {
  const own2 = partsOf2(name, preset);
  const values = guideValues(own2.guides, { ...own2.adjust, ...adjust }, width, height);
  const read = (word) => values.get(word) ?? (Number(word) || 0);
  const outlines = preset.path.split("|").map((written) => {
    const [, flags = ""] = /^\[([^\]]*)\]/.exec(written) ?? [];
    const space = /w=(\d+) h=(\d+)/.exec(flags);
    const writer = new PathWriter(space ? width / Number(space[1]) : 1, space ? height / Number(space[2]) : 1);
    const words2 = written.replace(/^\[[^\]]*\]/, "").split(/\s+/).filter(Boolean);
    for (let at = 0; at < words2.length; ) {
      const command = words2[at];
      const [a = 0, b2 = 0, c2 = 0, d = 0, e = 0, f = 0] = words2.slice(at + 1, at + 1 + (COUNTS[command] ?? 0)).map(read);
      if (command === "M") writer.move(a, b2);
      else if (command === "L") writer.line(a, b2);
      else if (command === "C") writer.cubic(a, b2, c2, d, e, f);
      else if (command === "Q") writer.quad(a, b2, c2, d);
      else if (command === "A") writer.arc(a, b2, c2, d);
      else writer.close();
      at += 1 + (COUNTS[command] ?? 0);
    }
    return { d: writer.d, fill: !flags.includes("f0"), stroke: !flags.includes("s0"), shade: flags.includes("dk") ? -0.2 : flags.includes("lt") ? 0.2 : 0, ...writer.ends ? { ends: writer.ends } : {} };
  });
  const [l = 0, t = 0, r2 = width, b = height] = preset.text?.split(" ").map(read) ?? [];
  return turned(preset, { outlines, text: { x: l, y: t, width: Math.max(0, r2 - l), height: Math.max(0, b - t) } }, width, height);
}
function turned({ transpose = false, mirror }, { outlines, text }, width, height) {
  if (!transpose && !mirror) return { outlines, text };
  const [w, h] = transpose ? [height, width] : [width, height];
  const point = ([x, y]) => {
    const [u, v] = transpose ? [y, x] : [x, y];
    return [mirror === "x" ? w - u : u, mirror === "y" ? h - v : v];
  };
  const other = transpose !== (mirror !== void 0);
  const path = (d) => d.replace(/([MLCQAZ])([^MLCQAZ]*)/g, (_, command, list) => {
    const values = list.trim().split(/[\s,]+/).filter(Boolean).map(Number);
    if (command === "A") {
      const [rx = 0, ry = 0, angle = 0, large = 0, sweep = 0, x = 0, y = 0] = values;
      return `A${transpose ? `${n2(ry)} ${n2(rx)}` : `${n2(rx)} ${n2(ry)}`} ${angle} ${large} ${other ? 1 - sweep : sweep} ${point([x, y]).map(n2).join(" ")}`;
    }
    const pairs = values.flatMap((value, at) => at % 2 ? [] : [point([value, values[at + 1] ?? 0])]);
    return command + pairs.map((pair) => pair.map(n2).join(" ")).join(" ");
  });
  const [from, to] = [point([text.x, text.y]), point([text.x + text.width, text.y + text.height])];
  return {
    outlines: outlines.map(({ ends: _, ...outline }) => ({ ...outline, d: path(outline.d) })),
    text: { x: Math.min(from[0], to[0]), y: Math.min(from[1], to[1]), width: Math.abs(to[0] - from[0]), height: Math.abs(to[1] - from[1]) }
  };
}
function star(points2, adjust, width, height) {
  const inner = Math.max(0, Math.min(5e4, adjust)) / 5e4;
  const writer = new PathWriter();
  for (let at = 0; at < points2 * 2; at++) {
    const angle = -Math.PI / 2 + at * Math.PI / points2;
    const far = at % 2 ? inner : 1;
    const [x, y] = [width / 2 + width / 2 * far * Math.cos(angle), height / 2 + height / 2 * far * Math.sin(angle)];
    if (at) writer.line(x, y);
    else writer.move(x, y);
  }
  writer.close();
  const half = inner * Math.SQRT1_2;
  return { outlines: [{ d: writer.d, fill: true, stroke: true, shade: 0 }], text: { x: width / 2 * (1 - half), y: height / 2 * (1 - half), width: width * half, height: height * half } };
}
function scaledPath(d, sx, sy) {
  return d.replace(/([MLCQAZ])([^MLCQAZ]*)/g, (_, command, list) => {
    const values = list.trim().split(/[\s,]+/).filter(Boolean).map(Number);
    if (command === "A") return `A${values.map((value, at) => at % 7 === 0 || at % 7 === 5 ? n2(value * sx) : at % 7 === 1 || at % 7 === 6 ? n2(value * sy) : String(value)).join(" ")}`;
    return command + values.map((value, at) => n2(value * (at % 2 ? sy : sx))).join(" ");
  });
}
function formOf(geometry, width, height) {
  if ("preset" in geometry) {
    const { preset, adjust = {} } = geometry;
    const many = STARS[preset];
    if (many) return star(many.points, adjust.adj ?? many.adjust, width, height);
    const known = PRESETS[preset] ?? PRESETS.rect;
    return known.transpose ? presetForm(preset, known, adjust, height, width) : presetForm(preset, known, adjust, width, height);
  }
  const [sx, sy] = [width / geometry.width, height / geometry.height];
  return { outlines: geometry.paths.map(({ d, fill, stroke }) => ({ d: scaledPath(d, sx, sy), fill, stroke, shade: 0, ...openEnds(d, sx, sy) })), text: { x: 0, y: 0, width, height } };
}
function openEnds(d, sx, sy) {
  if (d.includes("Z")) return {};
  const points2 = [];
  new SvgPath(d).unarc().iterate(([command, ...values]) => {
    if (command === "M") points2.length = 0;
    for (let at = 0; at + 1 < values.length; at += 2) points2.push([values[at] * sx, values[at + 1] * sy]);
  });
  const [from, to] = [points2[0], points2.at(-1)];
  const apart2 = (one) => ([x, y]) => Math.hypot(x - one[0], y - one[1]) > 1e-6;
  const next2 = from && points2.find(apart2(from));
  const before = to && points2.findLast(apart2(to));
  return from && to && next2 && before ? { ends: { from, next: next2, before, to } } : {};
}

// core/layout/scene.ts
var boxAt = ({ x, y, width, height }, element, slot2, size, overflow) => ({ x, y, width, height, element, slot: slot2, size, overflow });
function signNodes(lines2, element, assets) {
  return lines2.flatMap(({ sign }) => {
    const asset = sign && assets?.[sign.source];
    return sign && asset ? [{ kind: "picture", element, alt: "", missing: false, sha256: asset.sha256, ...sign }] : [];
  });
}

// core/layout/shapes.ts
var DASH = { dot: [1, 3], dash: [4, 3], longdash: [8, 3], dashdot: [4, 3, 1, 3], longdashdot: [8, 3, 1, 3] };
function turning2({ x, y, width, height }, rotation = 0, flip) {
  if (!rotation && !flip) return void 0;
  const [cx, cy] = [x + width / 2, y + height / 2];
  const angle = rotation * Math.PI / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const [fx, fy] = [flip?.includes("x") ? -1 : 1, flip?.includes("y") ? -1 : 1];
  const [a, b, c2, d] = [cos * fx, sin * fx, -sin * fy, cos * fy];
  return [a, b, c2, d, cx - a * cx - c2 * cy, cy - b * cx - d * cy];
}
var shaded = (colour, shade) => shade === 0 ? colour : mixed(colour, shade < 0 ? "#000000" : "#ffffff", Math.abs(shade));
function pictureFill(fill, frame, clip, element, assets) {
  const asset = assets[fill.source];
  return { kind: "group", element, clip, ...fill.opacity === void 0 ? {} : { opacity: fill.opacity }, nodes: [{ kind: "picture", element, source: fill.source, alt: "", missing: !asset, ...frame, ...asset ? { sha256: asset.sha256 } : {} }] };
}
function paintOf(fill, frame, shade = 0) {
  if (fill.kind === "solid") return { fill: shaded(fill.colour, shade), ...fill.opacity === void 0 ? {} : { fillOpacity: fill.opacity } };
  if (fill.kind === "picture") return {};
  return { fill: fill.kind === "pattern" ? mixed(fill.back, fill.fore, 0.5) : fill.stops[0]?.colour ?? "#888888", paint: { fill, frame } };
}
function strokeOf({ colour, width, opacity, dash }) {
  const wide = Math.max(width, 0.25);
  return { stroke: colour, width: wide, ...opacity === void 0 ? {} : { strokeOpacity: opacity }, ...dash ? { dash: DASH[dash].map((part) => part * wide) } : {} };
}
function lineEnd(end, tip, before, { colour, width, opacity }) {
  const long = Math.max(width, 1) * end.size;
  const angle = Math.atan2(tip[1] - before[1], tip[0] - before[0]);
  const at = (along2, across) => `${(tip[0] + along2 * Math.cos(angle) - across * Math.sin(angle)).toFixed(2)} ${(tip[1] + along2 * Math.sin(angle) + across * Math.cos(angle)).toFixed(2)}`;
  const filled = { fill: colour, ...opacity === void 0 ? {} : { fillOpacity: opacity } };
  const half = long / 2;
  switch (end.form) {
    case "triangle":
      return { d: `M${at(0, 0)}L${at(-long, half)}L${at(-long, -half)}Z`, ...filled };
    case "barbed":
      return { d: `M${at(0, 0)}L${at(-long, half)}L${at(-long * 0.65, 0)}L${at(-long, -half)}Z`, ...filled };
    case "open":
      return { d: `M${at(-long, half)}L${at(0, 0)}L${at(-long, -half)}`, stroke: colour, width };
    case "diamond":
      return { d: `M${at(-half, 0)}L${at(0, half)}L${at(half, 0)}L${at(0, -half)}Z`, ...filled };
    case "oval":
      return { d: `M${at(-half, 0)}A${half} ${half} 0 1 1 ${at(half, 0)}A${half} ${half} 0 1 1 ${at(-half, 0)}Z`, ...filled };
  }
}
function moved(path, x, y) {
  return { ...path, matrix: [1, 0, 0, 1, x, y] };
}
function drawForm(geometry, frame, { id, fill, stroke, shadow, shown }, assets) {
  const level = (side) => "preset" in geometry && /^(line|straightConnector1)$/.test(geometry.preset) && side <= 0.1 ? 0 : side;
  const form = formOf(geometry, level(frame.width), level(frame.height));
  const nodes = [];
  const own2 = { x: 0, y: 0, width: frame.width, height: frame.height };
  const place = (path) => moved(path, frame.x, frame.y);
  if (shadow) {
    const angle = shadow.direction * Math.PI / 180;
    const [dx, dy] = [shadow.distance * Math.cos(angle), shadow.distance * Math.sin(angle)];
    const edge2 = shown?.edge ?? stroke?.width ?? 0;
    const whole = fill !== void 0 || shown !== void 0;
    const far = shadow.blur * 1.5 + edge2;
    const soft = shadow.blur > 0 ? { blur: { by: shadow.blur, frame: { x: -far, y: -far, width: frame.width + far * 2, height: frame.height + far * 2 } } } : {};
    const light = form.outlines.filter(({ fill: filled }) => filled || !whole).map(({ d }) => whole ? { d, ...soft, fill: shadow.colour, fillOpacity: shadow.opacity, ...edge2 ? { stroke: shadow.colour, width: edge2, strokeOpacity: shadow.opacity } : {} } : { d, ...soft, stroke: shadow.colour, width: stroke?.width ?? 1, strokeOpacity: shadow.opacity });
    nodes.push({ kind: "paths", element: id, paths: light.map((path) => moved(path, frame.x + dx, frame.y + dy)) });
  }
  for (const outline of form.outlines) {
    if (fill?.kind === "picture" && outline.fill) nodes.push({ kind: "group", element: id, matrix: [1, 0, 0, 1, frame.x, frame.y], nodes: [pictureFill(fill, own2, outline.d, id, assets)] });
    const path = { d: outline.d, ...fill && outline.fill ? paintOf(fill, own2, outline.shade) : {}, ...stroke && outline.stroke ? strokeOf(stroke) : {} };
    if (path.fill || path.stroke) nodes.push({ kind: "paths", element: id, paths: [place(path), ...stroke ? endsOf(outline, stroke).map(place) : []] });
  }
  return { nodes, text: { ...form.text, x: frame.x + form.text.x, y: frame.y + form.text.y }, form };
}
function endsOf({ ends, stroke: outlined }, stroke) {
  if (!ends || !outlined) return [];
  return [...stroke.head ? [lineEnd(stroke.head, ends.from, ends.next, stroke)] : [], ...stroke.tail ? [lineEnd(stroke.tail, ends.to, ends.before, stroke)] : []];
}
function drawFill(fill, frame, element, assets) {
  return drawForm({ preset: "rect" }, frame, { id: element, fill }, assets).nodes;
}

// core/layout/paragraph.ts
import bidiFactory from "bidi-js";
import LineBreaker from "linebreak";
var bidi = bidiFactory();
var RTL = /[\u0590-\u08FF\u200F\u202A-\u202E\u2066-\u2069\uFB1D-\uFDFF\uFE70-\uFEFF]|[\uD802-\uD803\uD83A-\uD83B]/;
var MARK2 = /\p{M}|[\u200C\u200D\uFE00-\uFE0F]/u;
var SPACE = /[ \t\n\u00A0\u2000-\u200B\u3000]/;
var OBJECT = "\uFFFC";
function capitals(text) {
  return Array.from(text, (letter) => letter.toUpperCase().length === letter.length ? letter.toUpperCase() : letter).join("");
}
var SMALL_CAPS = 0.8;
var smaller = /* @__PURE__ */ new WeakMap();
function smallCapitals(text, style) {
  const small = smaller.get(style) ?? { ...style, scale: style.scale * SMALL_CAPS };
  smaller.set(style, small);
  return (text.match(/\p{Ll}+|[^\p{Ll}]+/gu) ?? []).map((part) => ({ text: capitals(part), style: /^\p{Ll}/u.test(part) ? small : style }));
}
function spaced(word, spacing) {
  const advances = word.advances.map((advance) => advance + spacing);
  const count2 = (index) => word.clusters.reduce((sum, cluster) => sum + (cluster < index ? 1 : 0), 0);
  const upTo = word.upTo.map((value, index) => value + count2(index) * spacing);
  return { ...word, advances, upTo, width: word.width + word.glyphs.length * spacing };
}
function styled(paragraph, styleOf2) {
  let text = "";
  const spans = paragraph.runs.flatMap((run2) => {
    const shape = run2.marks?.includes("formula") ? formulaShape(run2.text, false) : void 0;
    if (shape && !("problem" in shape)) {
      text += OBJECT;
      return [{ end: text.length, style: { ...styleOf2([], run2.link), formula: shape } }];
    }
    const style = styleOf2(run2.marks ?? [], run2.link, run2.look);
    const words2 = signsAsText(run2.text, run2.look?.font);
    const parts = style.caps === "small" ? smallCapitals(words2, style) : [{ text: style.caps ? capitals(words2) : words2, style }];
    return parts.map((part) => {
      text += part.text;
      return { end: text.length, style: part.style };
    });
  });
  return { text, spans };
}
function roomWord(wide) {
  return { glyphs: new Uint16Array(), advances: new Float32Array(), offsets: null, clusters: new Uint16Array(), upTo: Float32Array.of(0, wide), width: wide };
}
function bidiLevels(text, direction) {
  if (!RTL.test(text) && direction !== "rtl") return { levels: null, base: 0 };
  const { levels, paragraphs: paragraphs2 } = bidi.getEmbeddingLevels(text, direction);
  return { levels, base: (paragraphs2[0]?.level ?? 0) % 2 };
}
var FORMULA_GAP = 0.1;
function nextStop(at, { stops, step }) {
  return stops.find((stop) => stop.at > at + 1e-3) ?? { at: (Math.floor(at / step + 1e-3) + 1) * step, align: "start" };
}
var DECIMAL = /[.,](?=\d)/;
function shapeParagraph(paragraph, fonts, language, styleOf2, tabs, direction = paragraph.look?.direction) {
  const { text, spans } = styled(paragraph, styleOf2);
  const { levels, base: base2 } = bidiLevels(text, direction);
  const pieces = [];
  const upTo = new Float32Array(text.length + 1);
  let start = 0;
  let width = 0;
  let line2 = { from: 0, at: tabs?.first ?? 0 };
  let open;
  const settle = (end) => {
    if (!open) return;
    const { piece, room, align } = open;
    open = void 0;
    const since = width - upTo[piece.end];
    const sign = align === "decimal" ? DECIMAL.exec(text.slice(piece.end, end))?.index : void 0;
    const before = align === "centre" ? since / 2 : sign === void 0 ? since : upTo[piece.end + sign] - upTo[piece.end];
    const wide = Math.max(0, room - before);
    piece.word = roomWord(wide / piece.style.scale);
    for (let index = piece.end; index <= end; index++) upTo[index] = upTo[index] + wide;
    width += wide;
  };
  for (const { end, style } of spans) {
    let at = start;
    let face = "";
    if (style.formula) {
      const word = roomWord(style.formula.width + FORMULA_GAP);
      width += word.width;
      upTo[end] = width;
      const around2 = faceFor(style.family, 32, false, false).id;
      pieces.push({ start, end, face: around2, line: fonts.face(around2).metrics.line, style, level: levels ? levels[start] : 0, space: false, word });
      at = end;
    }
    while (at < end) {
      const from = at;
      const level = levels ? levels[at] : 0;
      const code = text.codePointAt(at);
      const space = SPACE.test(text[at]);
      if (!(MARK2.test(String.fromCodePoint(code)) && face)) face = faceFor(style.family, space ? 32 : code, style.bold, style.italic).id;
      at += code > 65535 ? 2 : 1;
      if (tabs && text[from] === "	") {
        settle(from);
        const here = line2.at + width - line2.from;
        const stop = nextStop(here, tabs);
        const wide = stop.align === "start" ? stop.at - here : 0;
        width += wide;
        upTo[at] = width;
        const piece = { start: from, end: at, face, line: fonts.face(face).metrics.line, style, level, space, tab: true, word: roomWord(wide / style.scale) };
        pieces.push(piece);
        if (stop.align !== "start") open = { piece, room: stop.at - here, align: stop.align };
        continue;
      }
      at = space ? endOfSpace(text, at, end, levels, level, tabs !== void 0) : endOfWord(text, at, end, levels, level, style, face);
      const shown = space ? text.slice(from, at).replace(/[\n\t]/g, " ") : text.slice(from, at);
      const shaping = fonts.face(face);
      const plain3 = shaping.word(shown, level % 2 === 1, language);
      const word = style.spacing ? spaced(plain3, style.spacing) : plain3;
      for (let index = 1; index <= at - from; index++) upTo[from + index] = width + word.upTo[index] * style.scale;
      width += word.width * style.scale;
      pieces.push({ start: from, end: at, face, line: shaping.metrics.line, style, level, space, word });
      if (tabs && space && text.slice(from, at).includes("\n")) {
        settle(at);
        line2 = { from: width, at: tabs.rest };
      }
    }
    start = end;
  }
  settle(text.length);
  return { text, pieces, upTo, breaks: lineBreaks(text), base: base2 };
}
function endOfSpace(text, from, end, levels, level, tabbed) {
  let at = from;
  while (at < end && SPACE.test(text[at]) && !(tabbed && text[at] === "	") && (!levels || levels[at] === level)) at++;
  return at;
}
function endOfWord(text, from, end, levels, level, style, face) {
  let at = from;
  while (at < end && (!levels || levels[at] === level)) {
    const unit = text.charCodeAt(at);
    if (unit === 32 || SPACE.test(text[at])) break;
    if (unit > 127 || !ascii(style, face)) {
      const code = text.codePointAt(at);
      if (!MARK2.test(String.fromCodePoint(code)) && faceFor(style.family, code, style.bold, style.italic).id !== face) break;
      at += code > 65535 ? 2 : 1;
    } else at++;
  }
  return at;
}
var asciiFaces = /* @__PURE__ */ new WeakMap();
function ascii(style, face) {
  let own2 = asciiFaces.get(style);
  if (own2 === void 0) asciiFaces.set(style, own2 = faceFor(style.family, 97, style.bold, style.italic).id);
  return own2 === face;
}
function lineBreaks(text) {
  const breaks = [];
  if (text === "") return breaks;
  const breaker = new LineBreaker(text);
  for (let next2 = breaker.nextBreak(); next2; next2 = breaker.nextBreak()) {
    let visible = next2.position;
    while (visible > 0 && SPACE.test(text[visible - 1]) && text[visible - 1] !== "\xA0") visible--;
    breaks.push({ at: next2.position, visible, required: next2.required === true && text[next2.position - 1] === "\n" });
  }
  if (breaks.at(-1)?.at !== text.length) breaks.push({ at: text.length, visible: text.length, required: false });
  if (text.endsWith("\n")) breaks.push({ at: text.length, visible: text.length, required: false });
  return breaks;
}
function breakLines(paragraph, width, first = 0) {
  const { breaks, upTo, text } = paragraph;
  const lines2 = [];
  let start = 0;
  let last;
  const room = width + 1e-4;
  for (const next2 of breaks) {
    const fits = () => upTo[next2.visible] - upTo[start] <= (first && start === 0 ? room - first : room);
    if (!fits() && last) {
      lines2.push(last);
      start = last.end;
      last = void 0;
    }
    while (!fits()) {
      let end = start + 1;
      while (end < next2.visible && upTo[end + 1] - upTo[start] <= room) end++;
      while (end < text.length && /[\uDC00-\uDFFF]/.test(text[end])) end++;
      if (end >= next2.visible) break;
      lines2.push({ start, end, visible: end });
      start = end;
    }
    last = { start, end: next2.at, visible: Math.max(start, next2.visible) };
    if (next2.required) {
      lines2.push(last);
      start = next2.at;
      last = void 0;
    }
  }
  if (last) lines2.push(last);
  return lines2.length ? lines2 : [{ start: 0, end: 0, visible: 0 }];
}
function visualOrder(items) {
  const ordered = [...items];
  const highest = Math.max(0, ...ordered.map((item) => item.level));
  const odd = ordered.filter((item) => item.level % 2 === 1).map((item) => item.level);
  const lowest = odd.length ? Math.min(...odd) : highest + 1;
  for (let level = highest; level >= lowest; level--) {
    let at = 0;
    while (at < ordered.length) {
      if (ordered[at].level < level) {
        at++;
        continue;
      }
      let end = at;
      while (end < ordered.length && ordered[end].level >= level) end++;
      ordered.splice(at, end - at, ...ordered.slice(at, end).reverse());
      at = end;
    }
  }
  return ordered;
}

// core/layout/rolelook.ts
var COLOUR = { number: "accent", subtitle: "muted", caption: "muted" };
var roleColour = (role) => COLOUR[role] ?? "ink";

// core/layout/placelines.ts
function lineOf({ shaped, look }, { start, visible }) {
  if (!look) return { height: 0, letters: 1 };
  let [most, letters] = [0, 0];
  for (const piece of shaped.pieces) {
    if (piece.start >= visible || piece.end <= start) continue;
    const size = piece.style.scale / (piece.style.rise ? 0.66 : 1);
    if (size * piece.line > most) [most, letters] = [size * piece.line, size];
  }
  if (!most) [most, letters] = [look.blank * look.least, look.least];
  return { height: look.exact || most * look.times, letters };
}
function edgesOf({ indent, hang, marker, look }, size) {
  const em = look?.em ?? size;
  const first = (look?.first ?? 0) * em;
  const edges = { left: indent * em, right: (look?.right ?? 0) * em, first: marker ? 0 : first, sign: hang * em - Math.max(0, first) };
  return marker && look ? { ...edges, first: Math.max(0, (marker.upTo.at(-1) ?? 0) * size - edges.sign) } : edges;
}
function placeLines(blocks, broken, size, top, { frame, role }, { fonts, theme, fill, style }) {
  const family = familyNamed(HEADING2.has(role) ? theme.fonts.heading : theme.fonts.body);
  const usual = fonts.face((family.faces[0] ?? FAMILIES[0]?.faces[0])?.id).metrics;
  const lines2 = [];
  let y = top;
  let before = -1;
  for (const { block: index, range } of broken.lines) {
    const block = blocks[index];
    const { look } = block;
    const first = index !== before;
    if (first && before >= 0) y += (look ? (blocks[before].look?.after ?? 0) + look.before : PARAGRAPH_GAP[role]) * size;
    const line2 = look ? lineOf(block, range) : { height: LINE_HEIGHT[role], letters: 1 };
    const lineHeight = line2.height * size;
    const { ascent, descent } = look ? block.shaped.pieces[0] ? fonts.face(block.shaped.pieces[0].face).metrics : usual : usual;
    const letters = line2.letters * size;
    const rise = look ? Math.min(lineHeight, (lineHeight - (ascent + descent) * letters) * (look.times < 1 ? 1 : 0.5) + ascent * letters) : (lineHeight - (ascent + descent) * size) / 2 + ascent * size;
    const baseline = y + rise;
    const { runs, width } = runsOf(block.shaped, range, size, theme, role, style !== void 0, fill);
    const rtl = block.shaped.base === 1;
    const edges = edgesOf(block, size);
    const shift = first ? edges.first : 0;
    const room = frame.width - edges.left - edges.right - shift;
    const lead = block.align === "centre" ? (room - width) / 2 : block.align === "end" !== rtl ? room - width : 0;
    const left = frame.x + (rtl ? edges.right : edges.left + shift) + lead;
    for (const item of runs) item.x += left;
    if (first && block.marker) {
      const sign2 = runsOf(block.marker, { start: 0, end: block.marker.text.length, visible: block.marker.text.length }, size, theme, role, style !== void 0, look ? runs[0]?.fill ?? fill : void 0);
      const at = rtl ? frame.x + frame.width - edges.left + edges.sign - sign2.width : (block.align === "start" ? frame.x + edges.left : left - shift) - edges.sign;
      for (const item of sign2.runs) runs.unshift({ ...item, x: item.x + at, marker: true, ...look ? {} : { fill: theme.colours.accent } });
    }
    const { sign: own2 } = block;
    const gutter = edges.sign;
    const sign = own2 && first ? { source: own2.source, x: (rtl ? left + width : left - gutter) + (rtl ? Math.max(0, gutter - own2.width * size) : 0), y: baseline - own2.height * size, width: own2.width * size, height: own2.height * size } : void 0;
    const hyphen = block.shaped.text.slice(range.start, range.visible).replace(/[\n\u00AD]/g, "");
    lines2.push({ x: left, y: baseline, width, height: lineHeight, text: hyphen, paragraph: index, runs, ...sign ? { sign } : {} });
    y += lineHeight;
    before = index;
  }
  return lines2;
}
function runsOf(paragraph, range, size, theme, role, styled2, own2) {
  const { pieces, text } = paragraph;
  const inLine = [];
  let low = 0;
  let high = pieces.length;
  while (low < high) {
    const middle = low + high >> 1;
    if (pieces[middle].end <= range.start) low = middle + 1;
    else high = middle;
  }
  for (let at = low; at < pieces.length && pieces[at].start < range.visible; at++) inLine.push(pieces[at]);
  const ordered = paragraph.base === 0 && inLine.every((piece) => piece.level === 0) ? inLine : visualOrder(inLine);
  const runs = [];
  let last;
  let x = 0;
  for (const piece of ordered) {
    const from = Math.max(piece.start, range.start);
    const to = Math.min(piece.end, range.visible);
    const part = cut(piece, from - piece.start, to - piece.start);
    const em = size * piece.style.scale;
    const width = part.width * em;
    if (piece.tab) {
      x += width;
      last = void 0;
      continue;
    }
    const words2 = text.slice(from, to).replace(/[\n\t]/g, " ");
    if (last && !piece.style.formula && last.run.face === piece.face && last.style === piece.style && last.level === piece.level) {
      const placed4 = { x: last.run.width, text: words2, word: part };
      last.run.words?.push(placed4);
      last.run.text = piece.level % 2 ? words2 + last.run.text : last.run.text + words2;
      last.run.width += width;
    } else {
      const { colours } = theme;
      const { tone, formula, rise } = piece.style;
      const fill = piece.style.fill ?? own2 ?? (piece.style.link ? colours.link : tone ? toneColour(tone, colours) : styled2 ? colours.ink : piece.style.code ? colours.second : colours[roleColour(role)]);
      const next2 = {
        x,
        width,
        text: words2,
        face: piece.face,
        size: em,
        fill,
        rtl: piece.level % 2 === 1,
        ...piece.style.link ? { link: piece.style.link, underline: piece.style.underline ?? "single" } : piece.style.underline ? { underline: piece.style.underline } : {},
        ...piece.style.highlight ? { highlight: piece.style.highlight } : {},
        ...piece.style.strike ? { strike: true } : {},
        ...rise ? { rise: rise * size } : {},
        ...formula ? { formula: { paths: formula.paths, em } } : {},
        words: [{ x: 0, text: words2, word: part }]
      };
      runs.push(next2);
      last = { run: next2, style: piece.style, level: piece.level };
    }
    x += width;
  }
  return { runs, width: x };
}
function toneColour(tone, { ink, accent, second, muted }) {
  const tones = { plain: ink, keyword: accent, string: second, number: second, comment: muted, name: accent };
  return tones[tone];
}
function cut(piece, from, to) {
  const { word } = piece;
  if (from === 0 && to === piece.end - piece.start) return word;
  const keep2 = [...word.clusters.keys()].filter((at) => word.clusters[at] >= from && word.clusters[at] < to);
  const base2 = word.upTo[from];
  return {
    glyphs: Uint16Array.from(keep2, (at) => word.glyphs[at]),
    advances: Float32Array.from(keep2, (at) => word.advances[at]),
    offsets: word.offsets ? Float32Array.from(keep2.flatMap((at) => [word.offsets?.[at * 2] ?? 0, word.offsets?.[at * 2 + 1] ?? 0])) : null,
    clusters: Uint16Array.from(keep2, (at) => word.clusters[at] - from),
    upTo: word.upTo.slice(from, to + 1).map((value) => value - base2),
    width: word.upTo[to] - base2
  };
}

// core/layout/text.ts
var shapedOnce = /* @__PURE__ */ new WeakMap();
function shapedFor(paragraph, role, { fonts, theme, language }, styleOf2, styled2 = "", tabs, direction) {
  const formulas = paragraph.runs.some(({ marks }) => marks?.includes("formula"));
  const key = `${role}/${language}${styled2}`;
  const known = formulas ? void 0 : shapedOnce.get(paragraph);
  if (known && known.theme === theme && known.key === key) return known.shaped;
  const shaped = shapeParagraph(paragraph, fonts, language, styleOf2, tabs, direction);
  shapedOnce.set(paragraph, { theme, key, shaped });
  return shaped;
}
var markers = /* @__PURE__ */ new WeakMap();
function markerFor(sign, role, { fonts, theme, language }, styleOf2) {
  const held = markers.get(theme) ?? /* @__PURE__ */ new Map();
  markers.set(theme, held);
  const key = `${role}/${language}/${sign}`;
  const shaped = held.get(key) ?? shapeParagraph({ kind: "plain", level: 0, runs: [run(sign)] }, fonts, language, styleOf2);
  held.set(key, shaped);
  return shaped;
}
function shapeText(text, role, align, setting) {
  if (setting.style) return shapeStyled(text, role, setting, setting.style);
  const { theme } = setting;
  const numbers = listNumbers(text);
  const indents = listIndents(text);
  return text.map((paragraph, index) => {
    const styleOf2 = (marks, link, look) => styleFor(theme, role, marks, link, look);
    const sign = paragraph.kind === "plain" ? null : paragraph.kind === "number" ? `${numbers[index]}.` : BULLETS[paragraph.level] ?? "\u2022";
    const marker = sign === null ? null : markerFor(sign, role, setting, styleOf2);
    return {
      shaped: shapedFor(paragraph, role, setting, styleOf2),
      marker,
      indent: indents[index]?.left ?? 0,
      hang: indents[index]?.hang ?? 0,
      kind: paragraph.kind,
      align: paragraph.align ?? (marker ? "start" : align)
    };
  });
}
var SIGN = 0.8;
var TAB_STEP = 72;
function shapeStyled(text, role, setting, { levels, size: em }) {
  const { theme } = setting;
  const numbers = listNumbers(text);
  const indents = listIndents(text);
  const sum = canonical(levels);
  return text.map((paragraph, index) => {
    const level = levelOf(levels, paragraph.level);
    const look = standing(paragraph.look, level.paragraph, em, wordsSize(paragraph, level.run?.size ?? em));
    const own2 = (more) => ({ ...level.run ?? {}, ...more ?? {} });
    const marked = (marks) => [...level.strong && !marks.includes("strong") ? ["strong"] : [], ...level.emphasis && !marks.includes("emphasis") ? ["emphasis"] : [], ...marks];
    const styleOf2 = (marks, link, more) => styleFor(theme, role, marked(marks), link, own2(more), em);
    const first = paragraph.runs.find((item) => item.text.trim() !== "");
    const bullet = { ...look.bullet };
    const shown = paragraph.kind === "bullet" && bullet.picture !== void 0 ? setting.assets?.[bullet.picture] : void 0;
    const high = SIGN * (bullet.size ?? 1) * ((own2(first?.look).size ?? em) / em);
    const sign = paragraph.kind === "plain" ? null : shown ? " " : paragraph.kind === "number" ? signOf({ ...bullet, scheme: bullet.scheme ?? "1." }, numbers[index]) : drawnSign(bullet.sign ?? "\u2022", bullet.font);
    const signLook = { ...own2(first?.look), ...bullet.colour ? { colour: bullet.colour } : {}, ...bullet.font && !isSignFont(bullet.font) ? { font: bullet.font } : {} };
    if (bullet.size) signLook.size = (signLook.size ?? em) * bullet.size;
    const empty = paragraph.runs.every((item) => item.text === "");
    const marker = sign && !empty ? shapeParagraph({ kind: "plain", level: 0, runs: [run(sign)] }, setting.fonts, setting.language, () => styleFor(theme, role, paragraph.kind === "number" ? marked(first?.marks ?? []).filter((mark) => mark === "strong") : [], void 0, signLook, em)) : null;
    const indent = look.left === void 0 ? marker ? indents[index]?.left ?? 0 : 0 : look.left / em;
    const hang = !marker ? 0 : look.left === void 0 ? indents[index]?.hang ?? INDENT2 : Math.max(0, -look.first);
    const tabs = paragraph.runs.some(({ text: words2 }) => words2.includes("	")) ? { stops: (look.tabs ?? []).map(tabParts).map(({ at, align }) => ({ at: at / em, align })), step: TAB_STEP / em, first: indent + (marker ? 0 : look.first), rest: indent } : void 0;
    const without3 = own2(empty ? paragraph.look?.words : first?.look);
    const least2 = (without3.size ?? em) / em;
    const { family } = styleFor(theme, role, [], void 0, without3, em);
    return {
      shaped: shapedFor(paragraph, role, setting, styleOf2, `/${em}/${sum}`, tabs, directionOf(paragraph.look, level.paragraph)),
      marker,
      ...shown && marker ? { sign: { source: bullet.picture, width: high * shown.width / shown.height, height: high } } : {},
      indent,
      hang,
      kind: paragraph.kind,
      align: paragraph.align ?? level.align ?? "start",
      // Room between paragraphs is none above the first and below the last (common practice, no source).
      look: { em, before: index ? look.before : 0, after: index + 1 < text.length ? look.after : 0, times: look.times, exact: look.exact, first: look.left === void 0 && marker ? -hang : look.first, right: look.right, least: Number.isFinite(least2) ? least2 : 1, blank: setting.fonts.face(faceFor(family, 32, false, false).id).metrics.line }
    };
  });
}
function breakText(blocks, role, size, width) {
  const lines2 = [];
  let height = 0;
  blocks.forEach((block, index) => {
    const { left, right, first } = edgesOf(block, size);
    const ranges = breakLines(block.shaped, Math.max(1, (width - left - right) / size), first / size);
    for (const range of ranges) lines2.push({ block: index, range });
    if (block.look) for (const range of ranges) height += lineOf(block, range).height * size;
    else height += ranges.length * LINE_HEIGHT[role] * size;
    height += (block.look ? block.look.before + block.look.after : index ? PARAGRAPH_GAP[role] : 0) * size;
  });
  return { lines: lines2, height };
}
function blankBelow(blocks, size) {
  let height = 0;
  for (let at = blocks.length - 1; at > 0 && blocks[at]?.shaped.text === ""; at--) {
    const { look } = blocks[at];
    height += look ? ((look.exact || look.least * look.blank * look.times) + look.before + (blocks[at - 1]?.look?.after ?? 0)) * size : 0;
  }
  return height;
}
function setText(text, place, sizes, setting, { columns = 1, gap = 0, wrap = true } = {}) {
  const { frame, role } = place;
  const blocks = shapeText(text, role, place.align, setting);
  const measure2 = wrap ? Math.max(1, (frame.width - gap * (columns - 1)) / columns) : 1e6;
  const room = frame.height * columns;
  let size = sizes[0];
  let broken = breakText(blocks, role, size, measure2);
  for (const next2 of sizes.slice(1)) {
    if (broken.height - blankBelow(blocks, size) <= room + 0.01) break;
    size = next2;
    broken = breakText(blocks, role, size, measure2);
  }
  const overflow = Math.max(0, broken.height - blankBelow(blocks, size) - room);
  if (setting.measure) return { lines: [], size, used: broken.height, overflow: overflow < 0.01 ? 0 : overflow };
  if (columns > 1) return { lines: inColumns(blocks, broken, size, place, setting, columns, measure2, gap), size, used: Math.min(broken.height, frame.height), overflow: overflow < 0.01 ? 0 : overflow };
  if (!setting.style && (role === "title" || role === "opening" || role === "name")) broken = balanced(blocks, role, size, frame, broken);
  const spare = frame.height - broken.height;
  const top = frame.y + (spare <= 0 || place.anchor === "top" ? 0 : place.anchor === "middle" ? spare / 2 : spare);
  return { lines: placeLines(blocks, broken, size, top, place, setting), size, used: broken.height, overflow: overflow < 0.01 ? 0 : overflow };
}
function inColumns(blocks, broken, size, place, setting, columns, width, gap) {
  const { frame } = place;
  const lines2 = placeLines(blocks, broken, size, frame.y, { ...place, frame: { ...frame, width } }, setting);
  let column = 0;
  let drop = 0;
  return lines2.map((line2) => {
    const bottom = line2.y + line2.height * 0.25 - drop;
    if (bottom > frame.y + frame.height && column < columns - 1) {
      column += 1;
      drop = line2.y - line2.height * 0.8 - frame.y;
    }
    const right = column * (width + gap);
    const { sign } = line2;
    return { ...line2, ...sign ? { sign: { ...sign, x: sign.x + right, y: sign.y - drop } } : {}, x: line2.x + right, y: line2.y - drop, runs: line2.runs.map((item) => ({ ...item, x: item.x + right })) };
  });
}
function balanced(blocks, role, size, frame, broken) {
  if (broken.lines.length < 2 || broken.lines.length > 3 || blocks.length !== 1) return broken;
  let [low, high] = [frame.width / broken.lines.length, frame.width];
  let best = broken;
  for (let turn = 0; turn < 7; turn++) {
    const middle = (low + high) / 2;
    const tried = breakText(blocks, role, size, middle);
    const whole = tried.lines.every(({ range }) => blocks[0].shaped.upTo[range.visible] - blocks[0].shaped.upTo[range.start] <= middle / size + 1e-3);
    if (tried.lines.length <= broken.lines.length && whole && !splitsWord(tried, blocks[0])) [best, high] = [tried, middle];
    else low = middle;
  }
  return best;
}
function splitsWord({ lines: lines2 }, { shaped }) {
  const ends = new Set(shaped.breaks.map(({ at }) => at));
  return lines2.some(({ range }) => !ends.has(range.end));
}

// core/layout/table.ts
var PAD = { x: 0.5, y: 0.28 };
var STRONG = (text) => text.map((paragraph) => ({ ...paragraph, runs: paragraph.runs.map((run2) => ({ ...run2, marks: [.../* @__PURE__ */ new Set(["strong", ...run2.marks ?? []])] })) }));
function cellsOf({ rows, header, align }, setting) {
  return rows.flatMap(
    (row, at) => row.flatMap((cell, column) => {
      if (!cell) return [];
      const own2 = align[column] ?? "start";
      const shown = at < header ? { ...cell, text: strong2(cell.text) } : cell;
      const columns = Math.min(cell.columns ?? 1, row.length - column);
      return [{ cell: shown, row: at, column, columns, rows: Math.min(cell.rows ?? 1, rows.length - at), blocks: shapeText(shown.text, "figure", own2, setting), align: own2 }];
    })
  );
}
var strongOnce2 = /* @__PURE__ */ new WeakMap();
function strong2(text) {
  const made = strongOnce2.get(text) ?? STRONG(text);
  strongOnce2.set(text, made);
  return made;
}
function needs(cells, columns) {
  const least2 = Array(columns).fill(1);
  const most = Array(columns).fill(1);
  for (const { blocks, column, columns: over } of cells) {
    for (const { shaped, indent } of blocks) {
      const { breaks, upTo } = shaped;
      let start = 0;
      let line2 = 0;
      let [word, whole] = [0, 0];
      for (const { at, visible, required } of breaks) {
        word = Math.max(word, upTo[visible] - upTo[start]);
        whole = Math.max(whole, upTo[visible] - upTo[line2]);
        start = at;
        if (required) line2 = at;
      }
      for (let at = column; at < column + over; at++) {
        least2[at] = Math.max(least2[at], Math.min(14, word + indent) / over);
        most[at] = Math.max(most[at], (whole + indent) / over);
      }
    }
  }
  return { least: least2, most };
}
function widthsOf({ least: least2, most }, size, width) {
  const pad = 2 * PAD.x * size;
  const low = least2.map((value) => value * size + pad);
  const high = most.map((value, at) => Math.max(value * size + pad, low[at]));
  const sum = (list) => list.reduce((total, value) => total + value, 0);
  const [lowest, highest] = [sum(low), sum(high)];
  if (lowest >= width) return low.map((value) => value * width / lowest);
  if (highest <= width) {
    const free = width - highest;
    return high.map((value) => value + free * value / highest);
  }
  return low.map((value, at) => value + (width - lowest) * (high[at] - value) / (highest - lowest));
}
function heightsOf(cells, rows, widths, size) {
  const heights = Array(rows).fill(size * (1.25 + 2 * PAD.y));
  const spanning = [];
  for (const cell of cells) {
    const width = spanOf(widths, cell.column, cell.columns) - 2 * PAD.x * size;
    const height = breakText(cell.blocks, "figure", size, width).height + 2 * PAD.y * size;
    if (cell.rows > 1) spanning.push([cell, height]);
    else heights[cell.row] = Math.max(heights[cell.row], height);
  }
  for (const [{ row, rows: over }, height] of spanning) {
    const lack = height - spanOf(heights, row, over);
    if (lack > 0) heights[row + over - 1] = heights[row + over - 1] + lack;
  }
  return heights;
}
function spanOf(list, from, count2) {
  let sum = 0;
  for (let at = from; at < from + count2; at++) sum += list[at] ?? 0;
  return sum;
}
var lineUnder = (row, rows, header, { accent, muted, paper }) => row === rows - 1 || row === header - 1 ? { colour: accent, width: 1 } : { colour: mixed(muted, paper, 0.5), width: 0.5 };
var headingFill = ({ accent, paper }) => mixed(accent, paper, 0.86);
function setTable(element, frame, sizes, setting, colours, assets = {}) {
  if (element.widths) return setOwnTable(element, element.widths, frame, sizes[0], setting, assets);
  const columns = Math.max(...element.rows.map((row) => row.length));
  const cells = cellsOf(element, setting);
  const need = needs(cells, columns);
  let size = sizes[0];
  let widths = [];
  let heights = [];
  for (const next2 of sizes) {
    size = next2;
    widths = widthsOf(need, size, frame.width);
    heights = heightsOf(cells, element.rows.length, widths, size);
    const tight = need.least.reduce((sum, value) => sum + (value + 2 * PAD.x) * size, 0) > frame.width;
    if (!tight && spanOf(heights, 0, heights.length) <= frame.height + 0.01) break;
  }
  const grid = { widths, heights };
  const used = spanOf(heights, 0, heights.length);
  const overflow = Math.max(0, used - frame.height);
  const nodes = [];
  if (setting.measure) return { nodes, size, used, overflow, grid };
  const tops = heights.map((_, at) => frame.y + spanOf(heights, 0, at));
  if (element.header) nodes.push({ kind: "rect", x: frame.x, y: frame.y, width: frame.width, height: spanOf(heights, 0, element.header), fill: headingFill(colours) });
  heights.forEach((height, at) => {
    const line2 = lineUnder(at, heights.length, element.header, colours);
    nodes.push({ kind: "rect", x: frame.x, y: tops[at] + height - line2.width, width: frame.width, height: line2.width, fill: line2.colour });
  });
  for (const cell of cells) {
    const place = {
      x: frame.x + spanOf(widths, 0, cell.column) + PAD.x * size,
      y: tops[cell.row] + PAD.y * size,
      width: spanOf(widths, cell.column, cell.columns) - 2 * PAD.x * size,
      height: spanOf(heights, cell.row, cell.rows) - 2 * PAD.y * size
    };
    const { lines: lines2 } = setText(cell.cell.text, { frame: place, role: "figure", anchor: cell.rows > 1 ? "middle" : "top", align: cell.align }, [size], setting);
    nodes.push({ kind: "text", element: element.id, role: "table", lines: lines2 });
  }
  return { nodes, size, used, overflow, grid };
}
var CELL_INSETS = [7.2, 3.6, 7.2, 3.6];
function setOwnTable({ id, rows, align, widths: asked, heights = [] }, own2, frame, size, setting, assets) {
  const columns = Math.max(...rows.map((row) => row.length));
  const total = spanOf(own2, 0, own2.length) || 1;
  const widths = Array.from({ length: columns }, (_, at) => (own2[at] ?? (asked?.at(-1) || total / columns)) * frame.width / total);
  const placed4 = rows.flatMap(
    (row, y) => row.flatMap((cell, x) => {
      if (!cell) return [];
      const [left, top, right, bottom] = cell.insets ?? CELL_INSETS;
      const [over, down] = [Math.min(cell.columns ?? 1, row.length - x), Math.min(cell.rows ?? 1, rows.length - y)];
      const width = Math.max(1, spanOf(widths, x, over) - left - right);
      const blocks = shapeText(cell.text, "figure", align[x] ?? "start", setting);
      const text = cell.text.length ? breakText(blocks, "figure", size, width).height : size * 1.2;
      return [{ cell, x, y, over, down, need: text + top + bottom, insets: [left, top, right, bottom] }];
    })
  );
  const high = rows.map((_, at) => Math.max(heights[at] ?? 0, ...placed4.filter(({ y, down }) => y === at && down === 1).map(({ need }) => need), size * 0.4));
  for (const { y, down, need } of placed4) {
    const lack = need - spanOf(high, y, down);
    if (down > 1 && lack > 0) high[y + down - 1] = high[y + down - 1] + lack;
  }
  const used = spanOf(high, 0, high.length);
  const overflow = Math.max(0, used - Math.max(frame.height, spanOf(heights, 0, heights.length)));
  const nodes = [];
  const grid = { widths, heights: high };
  if (setting.measure) return { nodes, size, used, overflow: 0, grid };
  const lines2 = [];
  for (const { cell, x, y, over, down, insets } of placed4) {
    const box = { x: frame.x + spanOf(widths, 0, x), y: frame.y + spanOf(high, 0, y), width: spanOf(widths, x, over), height: spanOf(high, y, down) };
    if (cell.fill) nodes.push(...drawFill(cell.fill, box, id, assets));
    const sides = { left: [box.x, box.y, box.x, box.y + box.height], top: [box.x, box.y, box.x + box.width, box.y], right: [box.x + box.width, box.y, box.x + box.width, box.y + box.height], bottom: [box.x, box.y + box.height, box.x + box.width, box.y + box.height] };
    for (const [side, [x1, y1, x2, y2]] of Object.entries(sides)) {
      const stroke = cell.borders?.[side];
      if (stroke) lines2.push({ kind: "paths", element: id, paths: [{ d: `M${x1.toFixed(2)} ${y1.toFixed(2)}L${x2.toFixed(2)} ${y2.toFixed(2)}`, ...strokeOf(stroke) }] });
    }
    if (isEmptyText(cell.text)) continue;
    const [left, top, right, bottom] = insets;
    const inner = { x: box.x + left, y: box.y + top, width: Math.max(1, box.width - left - right), height: Math.max(1, box.height - top - bottom) };
    const set = setText(cell.text, { frame: inner, role: "figure", anchor: cell.anchor ?? "top", align: align[x] ?? "start" }, [size], setting);
    lines2.push({ kind: "text", element: id, role: "table", lines: set.lines }, ...signNodes(set.lines, id, setting.assets));
  }
  return { nodes: [...nodes, ...lines2], size, used, overflow: overflow > frame.height * 0.1 + 12 ? overflow : 0, grid };
}

// core/layout/figures.ts
function measure(text, size, { fonts, theme, language }) {
  const family = familyNamed(theme.fonts.body);
  let width = 0;
  for (const word of text.split(/( )/)) if (word) width += fonts.face(faceFor(family, word.codePointAt(0), false, false).id).word(word, false, language).width;
  return width * size;
}
function turnedAbout({ by, about: [x, y] }) {
  const [cos, sin] = [Math.cos(by * Math.PI / 180), Math.sin(by * Math.PI / 180)];
  return [cos, sin, -sin, cos, x - x * cos + y * sin, y - x * sin - y * cos];
}
function drawn({ paths, labels }, element, least2, setting) {
  let overflow = 0;
  const texts = labels.map((label) => {
    const sizes = [1, 0.92, 0.84, 0.76, 0.68, 0.6].map((step) => label.size * step).filter((size) => size > least2);
    const set = setText(label.text, { frame: label.frame, role: "figure", anchor: label.anchor, align: label.align }, [...sizes, Math.min(least2, label.size)], { ...setting, fill: label.fill });
    overflow = Math.max(overflow, set.overflow);
    const words2 = { kind: "text", element, role: "label", lines: set.lines };
    return label.turn ? { kind: "group", element, matrix: turnedAbout(label.turn), nodes: [words2] } : words2;
  });
  return { nodes: [{ kind: "paths", element, paths }, ...texts], overflow };
}
var codeTexts = /* @__PURE__ */ new WeakMap();
function codeText(element) {
  const known = codeTexts.get(element);
  if (known) return known;
  const text = codeLines(element.text, element.language).map((line2) => ({ kind: "plain", level: 0, runs: line2.map(({ text: words2, tone }) => ({ text: words2.replace(/ /g, "\xA0").replace(/\u00A0(?=\S)/g, " "), marks: ["code", toneMark(tone)] })) }));
  codeTexts.set(element, text);
  return text;
}
var layCode = (element, place, sizes, theme, setting) => {
  const size = sizes[0];
  const pad = size * 0.7;
  const { frame } = place;
  const inner = { x: frame.x + pad, y: frame.y + pad, width: frame.width - 2 * pad, height: frame.height - 2 * pad };
  const set = setText(codeText(element), { frame: inner, role: "figure", anchor: "top", align: "start" }, sizes, setting);
  const used = Math.min(frame.height, set.used + 2 * pad);
  const plate = { kind: "rect", x: frame.x, y: frame.y, width: frame.width, height: used, fill: plateColour(theme) };
  return { nodes: [plate, { kind: "text", element: element.id, role: "code", lines: set.lines }], used, size: set.size, overflow: set.overflow };
};
function plateColour({ colours }) {
  const [paper, ink] = [colours.paper, colours.ink];
  const channel = (at) => Math.round(Number.parseInt(paper.slice(at, at + 2), 16) * 0.95 + Number.parseInt(ink.slice(at, at + 2), 16) * 0.05);
  return `#${[1, 3, 5].map((at) => channel(at).toString(16).padStart(2, "0")).join("")}`;
}
var layFormula = (element, place, sizes, theme, setting) => {
  const { frame } = place;
  const shape = formulaShape(element.tex, true);
  if (!shape || "problem" in shape) {
    const text = [{ kind: "plain", level: 0, align: "centre", runs: [{ text: element.tex, marks: ["code"] }] }];
    const set = setText(text, { ...place, role: "figure" }, sizes, setting);
    return { nodes: [{ kind: "text", element: element.id, role: "formula", lines: set.lines }], used: set.used, size: set.size, overflow: set.overflow };
  }
  const tall = shape.height + shape.depth;
  const size = Math.min(sizes[0] * 1.5, frame.width / shape.width, frame.height / tall);
  const [width, height] = [shape.width * size, tall * size];
  const x = frame.x + (frame.width - width) / 2;
  const top = frame.y + (place.anchor === "top" ? 0 : (frame.height - height) / 2);
  const baseline = top + shape.height * size;
  const paths = shape.paths.map(({ d, matrix: [a, b, c2, e, f, g] }) => ({ d, fill: theme.colours.ink, matrix: [a * size, b * size, c2 * size, e * size, x + f * size, baseline + g * size] }));
  return { nodes: [{ kind: "paths", element: element.id, paths }], used: height, size, overflow: size < sizes.at(-1) * 0.75 ? 1 : 0 };
};
var padded = ({ x, y, width, height }, by) => ({ x: x + by, y: y + by * 0.6, width: Math.max(1, width - 2 * by), height: Math.max(1, height - 1.2 * by) });
var LAYERS = {
  table: (element, place, sizes, theme, setting, assets) => {
    const { frame } = place;
    const caption = element.caption ? setText([{ kind: "plain", level: 0, runs: [{ text: element.caption }] }], { frame, role: "caption", anchor: "top", align: "start" }, [sizes.at(-1)], setting) : void 0;
    const room = caption ? caption.used + 6 : 0;
    const set = setTable(element, { ...frame, height: frame.height - room }, sizes, setting, theme.colours, assets);
    const drop = set.used + 6;
    const below = caption ? [{ kind: "text", element: element.id, role: "caption", lines: caption.lines.map((line2) => ({ ...line2, y: line2.y + drop })) }] : [];
    return { ...set, nodes: [...set.nodes, ...below], used: set.used + room };
  },
  code: layCode,
  formula: layFormula,
  diagram: (element, place, sizes, theme, setting) => {
    const size = sizes[0] * 1.05;
    if (setting.places) return { nodes: [], used: place.frame.height, size, overflow: 0 };
    const figure = diagram(element.form, element.text, place.frame, { colours: theme.colours, size, measure: (text, at) => measure(text, at, setting) });
    return { ...drawn(figure, element.id, sizes.at(-1), setting), used: place.frame.height, size };
  },
  chart: (element, place, sizes, theme, setting) => {
    const free = element.frame !== void 0;
    const size = setting.style ? sizes[0] : free ? Math.max(7, Math.min(16, place.frame.height / 22)) : Math.max(sizes.at(-1) * 1.1, sizes[0] * 0.7);
    if (setting.places) return { nodes: [], used: place.frame.height, size, overflow: 0 };
    const figure = chart(element.form, element, free ? padded(place.frame, size) : place.frame, { colours: theme.colours, size, measure: (text, at) => measure(text, at, setting) });
    return { ...drawn(figure, element.id, size * 0.75, setting), used: place.frame.height, size };
  }
};
function layFigure(element, place, slot2, sizes, theme, setting, assets = {}) {
  const { nodes, used, size, overflow, grid } = LAYERS[element.kind](element, place, sizes, theme, setting, assets);
  const box = boxAt(place.frame, element.id, slot2, size, overflow < 0.01 ? 0 : overflow);
  return { nodes, used, box: grid ? { ...box, grid } : box };
}

// core/layout/elements.ts
var FIGURE_MINIMUM = 0.75;
function sizesFor(role, { head }) {
  const full = sizeOf(role, head.theme, head.page);
  const least2 = Math.min(full, head.theme.minimum * pageScale(head.page) * (role === "figure" ? FIGURE_MINIMUM : 1));
  const sizes = head.theme.steps.map((step) => full * step).filter((size) => size >= least2);
  const last = sizes.at(-1);
  if (role === "figure" && (last === void 0 || last > least2 * 1.04)) sizes.push(least2);
  return sizes.length ? sizes : [least2];
}
function layText(element, place, sizes, slot2, setting) {
  const { lines: lines2, size, used, overflow } = setText(element.text, place, sizes, setting);
  return { nodes: [{ kind: "text", element: element.id, role: place.role, lines: lines2 }], box: boxAt(place.frame, element.id, slot2, size, overflow), used };
}
var INSETS = [7.2, 3.6, 7.2, 3.6];
function layBoxed(text, id, frame, place, style, box, sizes, setting) {
  const base2 = style?.[0]?.run?.size ?? (style ? 18 : sizes[0]);
  const own2 = style ? { ...setting, style: { levels: style, size: base2 } } : setting;
  const [left, top, right, bottom] = box?.insets ?? (box || style ? INSETS : [0, 0, 0, 0]);
  const turned2 = box?.turn;
  const room = turned2 ? { ...frame, x: frame.x + (frame.width - frame.height) / 2, y: frame.y + (frame.height - frame.width) / 2, width: frame.height, height: frame.width } : frame;
  const inner = { x: room.x + left, y: room.y + top, width: Math.max(1, room.width - left - right), height: Math.max(1, room.height - top - bottom) };
  const tried = !style ? sizes : box?.fit === "shrink" ? [1, 0.94, 0.88, 0.82, 0.76, 0.7, 0.64, 0.58, 0.52, 0.46, 0.4, 0.34, 0.28].map((step) => base2 * step) : [base2];
  const set = setText(text, { frame: inner, role: place.role, anchor: box?.anchor ?? place.anchor, align: place.align }, tried, own2, { columns: box?.columns ?? 1, gap: box?.gap ?? 0, wrap: box?.wrap !== false });
  const node = { kind: "text", element: id, role: place.role, lines: set.lines };
  const signs = signNodes(set.lines, id, setting.assets);
  const matrix = turned2 && turning2(room, turned2);
  return { nodes: matrix ? [{ kind: "group", element: id, matrix, nodes: [node, ...signs] }] : [node, ...signs], size: set.size, used: set.used + top + bottom, overflow: box?.fit === "grow" ? 0 : Math.max(0, set.overflow - 1.5) };
}
function layTextBox(element, place, slot2, context, setting) {
  const style = element.style === void 0 ? void 0 : context.head.styles?.[element.style];
  const { nodes, size, used, overflow } = layBoxed(element.text, element.id, place.frame, place, style, element.box, sizesFor(place.role, context), setting);
  const frame = element.box?.fit === "grow" && used > place.frame.height ? { ...place.frame, height: used } : place.frame;
  const back = element.fill || element.stroke ? drawForm({ preset: "rect" }, frame, element, context.head.assets).nodes : [];
  return { nodes: [...back, ...nodes], box: boxAt(frame, element.id, slot2, size, overflow), used };
}
function layShape(element, place, slot2, context, setting) {
  const { frame } = place;
  const drawn2 = drawForm(element.geometry, frame, element, context.head.assets);
  const matrix = turning2(frame, 0, element.flip);
  const outline = matrix ? [{ kind: "group", element: element.id, matrix, nodes: drawn2.nodes }] : drawn2.nodes;
  if (isEmptyText(element.text)) return { nodes: outline, box: boxAt(frame, element.id, slot2, 0, 0), used: frame.height };
  const style = element.style === void 0 ? void 0 : context.head.styles?.[element.style];
  const sizes = [sizeOf("body", context.head.theme, context.head.page) * 0.7];
  const text = layBoxed(element.text, element.id, drawn2.text, { ...place, anchor: "middle", align: style ? "start" : "centre" }, style, element.box ?? (style ? void 0 : { insets: INSETS }), sizes, setting);
  const more = element.box?.fit === "grow" ? text.used - drawn2.text.height : 0;
  if (more > 0.5 && !setting.grown) return layShape(element, { ...place, frame: { ...frame, height: frame.height + more } }, slot2, context, { ...setting, grown: true });
  return { nodes: [...outline, ...text.nodes], box: boxAt(frame, element.id, slot2, text.size, text.overflow), used: frame.height };
}
function belonging(node, element) {
  if (node.kind === "rect") return node;
  return node.kind === "group" ? { ...node, element, nodes: node.nodes.map((inner) => belonging(inner, element)) } : { ...node, element };
}
function layStandIn(element, place, slot2, context, setting) {
  const { head } = context;
  const { frame } = place;
  const source = element.kind === "media" ? element.poster : element.picture;
  const asset = source === void 0 ? void 0 : head.assets[source];
  const box = boxAt(frame, element.id, slot2, 0, 0);
  if (source !== void 0 && asset) return { nodes: [{ kind: "picture", element: element.id, source, alt: element.alt, missing: false, sha256: asset.sha256, ...frame }], box, used: frame.height };
  const drawing = element.kind === "foreign" ? element.drawing : void 0;
  if (drawing) {
    const nodes = drawing.elements.flatMap((one) => one.frame ? layElement(one, { frame: one.frame, role: "body", anchor: "top", align: "start" }, null, context, setting).nodes : []);
    const matrix = [frame.width / drawing.width, 0, 0, frame.height / drawing.height, frame.x, frame.y];
    return { nodes: [{ kind: "group", element: element.id, matrix: [...matrix], nodes: nodes.map((node) => belonging(node, element.id)) }], box, used: frame.height };
  }
  const what = element.kind === "media" ? element.form === "video" ? "\u25B6 Film" : "\u25B6 Sound" : element.what;
  const size = Math.min(14, Math.max(7, frame.height * 0.3));
  const words2 = [{ kind: "plain", level: 0, align: "centre", runs: [{ text: element.alt ? `${what}: ${element.alt}` : what }] }];
  const { lines: lines2 } = setText(words2, { frame, role: "caption", anchor: "middle", align: "centre" }, [size, size * 0.75, size * 0.5], { ...setting, fill: head.theme.colours.muted });
  const outline = { kind: "paths", element: element.id, paths: [{ d: `M${frame.x} ${frame.y}h${frame.width}v${frame.height}h${-frame.width}Z`, stroke: head.theme.colours.muted, width: 0.75, dash: [4, 3] }] };
  return { nodes: [outline, { kind: "text", element: element.id, role: "stand-in", lines: lines2 }], box, used: frame.height };
}
function layFramed(element, place, slot2, { head }) {
  const { frame } = place;
  const asset = head.assets[element.source];
  const { left, top, right, bottom } = element.crop ?? { left: 0, top: 0, right: 0, bottom: 0 };
  const [shownX, shownY] = [Math.max(1e-3, 1 - left - right), Math.max(1e-3, 1 - top - bottom)];
  const whole = { width: frame.width / shownX, height: frame.height / shownY };
  const picture = { kind: "picture", element: element.id, source: element.source, alt: element.alt, missing: !asset, x: frame.x - left * whole.width, y: frame.y - top * whole.height, ...whole, ...asset ? { sha256: asset.sha256 } : {}, ...element.recolour ? { recolour: element.recolour } : {} };
  const form = element.shape ?? { preset: "rect" };
  const cut2 = element.crop || element.shape || element.opacity !== void 0;
  const under = element.fill || element.shadow ? drawForm(form, frame, { id: element.id, shown: { edge: element.stroke?.width ?? 0 }, ...element.fill ? { fill: element.fill } : {}, ...element.shadow ? { shadow: element.shadow } : {} }, head.assets).nodes : [];
  const over = element.stroke ? drawForm(form, frame, { id: element.id, stroke: element.stroke }, head.assets).nodes : [];
  const d = cut2 ? drawForm(form, frame, { id: element.id }, head.assets).form.outlines.filter(({ fill }) => fill).map((outline) => outline.d).join("") : "";
  const inside = cut2 ? { kind: "group", element: element.id, matrix: [1, 0, 0, 1, frame.x, frame.y], clip: d, ...element.opacity === void 0 ? {} : { opacity: element.opacity }, nodes: [{ ...picture, x: picture.x - frame.x, y: picture.y - frame.y }] } : picture;
  const matrix = turning2(frame, 0, element.flip);
  const nodes = [...under, matrix ? { kind: "group", element: element.id, matrix, nodes: [inside] } : inside, ...over];
  return { nodes, box: boxAt(frame, element.id, slot2, 0, 0), used: frame.height };
}
function layPicture(element, place, slot2, context, setting) {
  const { head } = context;
  const { caption } = element;
  if (element.frame && !caption && element.width === void 0) return layFramed(element, place, slot2, context);
  const nodes = [];
  let { frame } = place;
  let overflow = 0;
  if (caption) {
    const size = sizeOf("caption", head.theme, head.page) * 0.8;
    const trial = setText(plainText(caption), { frame: { ...frame, height: frame.height * 0.34 }, role: "caption", anchor: "top", align: "centre" }, [size, size * 0.9, Math.min(size * 0.9, head.theme.minimum * FIGURE_MINIMUM * pageScale(head.page))], setting);
    const height2 = Math.min(frame.height * 0.34, trial.used) + size * 0.4;
    frame = { ...frame, height: frame.height - height2 };
    overflow = trial.overflow;
    const drop = frame.height + size * 0.4;
    nodes.push({ kind: "text", element: null, role: "caption", lines: trial.lines.map((line2) => ({ ...line2, y: line2.y + drop })) });
  }
  const asset = head.assets[element.source];
  const share2 = (element.width ?? 100) / 100;
  const room = { width: frame.width * share2, height: share2 < 1 ? frame.height : frame.height };
  const scale2 = asset ? Math.min(room.width / asset.width, room.height / asset.height) : 1;
  const width = asset ? asset.width * scale2 : room.width;
  const height = asset ? asset.height * scale2 : room.height;
  const fitted2 = { x: frame.x + (frame.width - width) / 2, y: frame.y + (frame.height - height) / 2, width, height };
  return {
    nodes: [{ kind: "picture", element: element.id, source: element.source, alt: element.alt, missing: !asset, ...fitted2, ...asset ? { sha256: asset.sha256 } : {} }, ...nodes],
    box: boxAt(fitted2, element.id, slot2, 0, overflow),
    used: place.frame.height
  };
}
function shares({ place, elements }) {
  const count2 = elements.length;
  if (count2 === 1) return [place];
  const { frame } = place;
  if (place.role === "picture" && frame.width > frame.height) {
    const columns = count2 <= 3 ? count2 : Math.ceil(count2 / 2);
    const rows = Math.ceil(count2 / columns);
    const gap = frame.width * 0.02;
    const width = (frame.width - gap * (columns - 1)) / columns;
    const height2 = (frame.height - gap * (rows - 1)) / rows;
    return elements.map((_, at) => ({ ...place, frame: { x: frame.x + at % columns * (width + gap), y: frame.y + Math.floor(at / columns) * (height2 + gap), width, height: height2 } }));
  }
  const height = frame.height / count2;
  return elements.map((_, at) => ({ ...place, anchor: "top", frame: { ...frame, y: frame.y + at * height, height: height * 0.97 } }));
}
function layUpright(element, place, slot2, context, setting) {
  if (element.kind === "text") return element.style !== void 0 || element.box || element.fill || element.stroke ? layTextBox(element, place, slot2, context, setting) : layText(element, place, sizesFor(place.role, context), slot2, setting);
  if (element.kind === "picture") return layPicture(element, place, slot2, context, setting);
  if (element.kind === "shape") return layShape(element, place, slot2, context, setting);
  if (element.kind === "media" || element.kind === "foreign") return layStandIn(element, place, slot2, context, setting);
  const style = element.style === void 0 ? void 0 : context.head.styles?.[element.style];
  const size = style?.[0]?.run?.size ?? 18;
  return style ? layFigure(element, place, slot2, [size], context.head.theme, { ...setting, style: { levels: style, size } }, context.head.assets) : layFigure(element, place, slot2, sizesFor("figure", context), context.head.theme, setting, context.head.assets);
}
function layElement(element, place, slot2, context, setting) {
  const laid = layUpright(element, place, slot2, context, setting);
  const { rotation } = element;
  const matrix = rotation ? turning2(place.frame, rotation) : void 0;
  return matrix ? { ...laid, nodes: [{ kind: "group", element: element.id, matrix, nodes: laid.nodes }], box: { ...laid.box, rotation } } : laid;
}
function layGroup(group, context, setting) {
  const laid = stacked2(group, context, setting) ?? shares(group).map((place, at) => layElement(group.elements[at], place, group.slot, context, setting));
  return { nodes: laid.flatMap(({ nodes }) => nodes), boxes: laid.map(({ box }) => box), used: laid.reduce((sum, { used }) => sum + used, 0) };
}
function stacked2({ place, slot: slot2, elements }, context, setting) {
  if (elements.length < 2 || place.role === "picture" || elements.some(({ kind }) => !["text", "table", "code", "formula"].includes(kind))) return void 0;
  const gap = sizeOf("body", context.head.theme, context.head.page) * 0.5;
  const texts = sizesFor(place.role, context);
  const figures = sizesFor("figure", context);
  const steps3 = Math.max(texts.length, figures.length);
  let laid = [];
  for (let step = 0; step < steps3; step++) {
    let y = place.frame.y;
    laid = elements.map((element) => {
      const own2 = { ...place, anchor: "top", frame: { ...place.frame, y, height: Math.max(1, place.frame.y + place.frame.height - y) } };
      const at = (sizes) => [sizes[Math.min(step, sizes.length - 1)]];
      const made = element.kind === "text" ? layText(element, own2, at(texts), slot2, setting) : layFigure(element, own2, slot2, at(figures), context.head.theme, setting, context.head.assets);
      y += made.used + gap;
      return made;
    });
    if (laid.every(({ box }) => box.overflow === 0)) return laid;
  }
  return laid;
}

// core/layout/surroundings.ts
function footnotes(notes, { head }, setting) {
  if (!notes.length) return { node: [], height: 0, overflow: 0 };
  const { page, theme } = head;
  const area = contentArea(page);
  const scale2 = pageScale(page);
  const size = Math.max(theme.scale.footer, theme.minimum * FIGURE_MINIMUM) * scale2;
  const text = notes.map((runs, at) => ({ kind: "plain", level: 0, runs: [{ text: `${at + 1}\u2002`, marks: ["strong"] }, ...runs] }));
  const room = { x: area.x, y: area.y, width: area.width, height: area.height * 0.4 };
  const { lines: lines2, used, overflow } = setText(text, { frame: room, role: "references", anchor: "bottom", align: "start" }, [size, size * 0.9], { ...setting, fill: theme.colours.muted });
  const drop = area.height - room.height;
  const rule = { kind: "rect", x: area.x, y: area.y + area.height - used - 5 * scale2, width: 90 * scale2, height: 0.75 * scale2, fill: theme.colours.muted };
  return { node: [rule, { kind: "text", element: null, role: "footnotes", lines: lines2.map((line2) => ({ ...line2, y: line2.y + drop })) }], height: used + 12 * scale2, overflow };
}

// core/layout/layout.ts
function groups(slide, context) {
  const { page } = context.head;
  const places = slotPlaces(slide.arrangement, page, slide.widths);
  const found = /* @__PURE__ */ new Map();
  const side = [];
  const ordered = slide.elements.every(({ frame }) => frame) ? slide.elements : readingOrder(slide);
  for (const element of ordered) {
    if (element.kind === "text" && isEmptyText(element.text) && !element.fill && !element.stroke) continue;
    if (element.frame) {
      const role = (element.slot === null ? void 0 : roleOf(slide, element)) ?? "body";
      found.set(`frame:${element.id}`, { place: { frame: element.frame, role, anchor: "top", align: "start" }, slot: element.slot, elements: [element] });
      continue;
    }
    const own2 = element.slot === null ? void 0 : places.get(element.slot);
    if (element.kind === "picture" && own2?.role !== "picture") {
      side.push(element);
      continue;
    }
    const key = own2 ? `slot:${element.slot}` : element.slot === "title" ? "loose:title" : "loose:body";
    const group = found.get(key) ?? { place: own2 ?? loosePlace(element.slot, page), slot: own2 ? element.slot : null, elements: [] };
    group.elements.push(element);
    found.set(key, group);
  }
  const all = [...found.values()];
  return side.length ? besidePictures(all, side, slide, context) : all;
}
function besidePictures(all, pictures, slide, { head }) {
  const { frame } = slotPlaces(slide.arrangement, head.page, slide.widths).get("body") ?? loosePlace("body", head.page);
  const free = contentArea(head.page);
  const texts = all.filter(({ place, elements }) => place.role !== "title" && place.role !== "opening" && elements.every((element) => !element.frame));
  const area = slide.elements.some((element) => element.slot === "title") ? frame : free;
  if (texts.length === 0) return [...all, { place: { frame: area, role: "picture", anchor: "middle", align: "centre" }, slot: null, elements: pictures }];
  const narrow = (place) => ({ ...place, frame: { ...place.frame, x: area.x + (place.frame.x - area.x) * 0.58, width: place.frame.width * 0.56 } });
  const right = { x: area.x + area.width * 0.6, y: area.y, width: area.width * 0.4, height: area.height };
  return [...all.map((group) => texts.includes(group) ? { ...group, place: narrow(group.place) } : group), { place: { frame: right, role: "picture", anchor: "middle", align: "centre" }, slot: null, elements: pictures }];
}
function numbered(slide) {
  const notes = [];
  if (!slide.elements.some((element) => elementTexts(element).some((text) => text.some(({ runs }) => runs.some(({ footnote: footnote2 }) => footnote2))))) return { slide, notes };
  const change = (text) => text.map((paragraph) => paragraph.runs.some(({ footnote: footnote2 }) => footnote2) ? { ...paragraph, runs: paragraph.runs.map((run2) => run2.footnote ? { text: String(notes.push(run2.footnote)), marks: [NOTE_MARK] } : run2) } : paragraph);
  const order = new Map(readingOrder(slide).map((element) => [element.id, mapElementTexts(element, change)]));
  return { slide: { ...slide, elements: slide.elements.map((element) => order.get(element.id) ?? element) }, notes };
}
function above(place, bottom) {
  const { frame } = place;
  if (place.role === "title" || frame.y + frame.height <= bottom) return place;
  const height = Math.max(1, bottom - Math.min(frame.y, bottom - 1));
  return { ...place, frame: frame.y < bottom - 24 ? { ...frame, height } : { ...frame, y: Math.max(0, bottom - frame.height) } };
}
function placedParts(given, context, setting) {
  const { slide, notes } = numbered(counted(given, context.number));
  const foot = footnotes(notes, context, setting);
  const area = contentArea(context.head.page);
  const bottom = area.y + area.height - foot.height;
  const all = groups(slide, context);
  return { slide, groups: foot.height ? all.map((group) => ({ ...group, place: above(group.place, bottom) })) : all, foot };
}
function overflowOf(given, plain3) {
  const context = inItsLook(given, plain3);
  const setting = { fonts: context.fonts, theme: context.head.theme, language: context.head.language, assets: context.head.assets, measure: true };
  const { groups: all, foot } = placedParts(given, context, setting);
  return Math.max(0, foot.overflow, ...all.flatMap((group) => layGroup(group, context, setting).boxes.map((box) => box.overflow)));
}

// core/generate/fit.ts
var NUMBER_OF = { en: "of", de: "von", es: "de", fr: "sur", it: "di", pt: "de", nl: "van", da: "af", sv: "av", nb: "av", fi: "/", pl: "z", cs: "z", el: "\u03B1\u03C0\u03CC", ru: "\u0438\u0437", uk: "\u0437", tr: "/", ar: "\u0645\u0646", he: "\u05DE\u05EA\u05D5\u05DA" };
var numberFormats = /* @__PURE__ */ new Map();
function numberFormat2(language) {
  let format = numberFormats.get(language);
  if (!format) numberFormats.set(language, format = new Intl.NumberFormat(language));
  return format;
}
var numberedOnce = /* @__PURE__ */ new WeakMap();
function numberedTitle(title, nth, count2, language) {
  if (!title || count2 < 2) return title;
  const held = numberedOnce.get(title) ?? /* @__PURE__ */ new Map();
  numberedOnce.set(title, held);
  const key = `${nth}/${count2}/${language}`;
  const made = held.get(key) ?? withNumber(title, nth, count2, language);
  held.set(key, made);
  return made;
}
function withNumber(title, nth, count2, language) {
  const digits = numberFormat2(language);
  const word = NUMBER_OF[language.slice(0, 2).toLowerCase()] ?? "/";
  const text = word === "/" ? `${digits.format(nth)}/${digits.format(count2)}` : `${digits.format(nth)} ${word} ${digits.format(count2)}`;
  return title.map((paragraph, at) => at === title.length - 1 ? { ...paragraph, runs: joinRuns([...paragraph.runs, run(` (${text})`)]) } : paragraph);
}
var isHeading = ({ kind, runs }) => kind === "plain" && runs.length > 0 && runs.every(({ marks }) => marks?.includes("strong"));
function textAtoms(flow2) {
  return flow2.text.map((paragraph, at) => {
    const level = paragraph.kind === "plain" && paragraph.level > 0 ? paragraph.level + 1 : paragraph.level;
    const previous = flow2.text[at - 1];
    const parent = previous && previous.level < paragraph.level;
    return {
      flow: { ...flow2, text: [paragraph], lines: [flow2.lines[at] ?? flow2.lines[0] ?? 1] },
      before: (parent ? 60 : 0) + level * 9,
      after: isHeading(paragraph) ? 1e3 : /[:：]$/.test(paragraphText(paragraph).trim()) ? 40 : 0
    };
  });
}
function tableAtoms(table, line2) {
  const head = table.rows.slice(0, table.header);
  const atoms = [];
  let from = table.header;
  let open = from;
  for (let y = table.header; y < table.rows.length; y++) {
    for (const cell of table.rows[y] ?? []) open = Math.max(open, y + (cell?.rows ?? 1) - 1);
    if (open > y) continue;
    atoms.push({ flow: { kind: "content", content: { ...table, rows: [...head, ...table.rows.slice(from, y + 1)] }, line: line2 }, before: 0, after: 0 });
    from = y + 1;
    open = from;
  }
  return atoms;
}
var tableRow = (row) => row.map((cell) => cell ? textOf(cell.text).replace(/\s+/g, " ").trim() : "");
function tableText(table, line2) {
  const names = table.header ? tableRow(table.rows[table.header - 1] ?? []) : [];
  const rows = table.header < table.rows.length ? table.rows.slice(table.header) : table.rows;
  const text = rows.map((row) => {
    const cells = tableRow(row).flatMap((value, at) => value ? [names[at] && at ? `${names[at]}: ${value}` : value] : []);
    return { kind: "bullet", level: 0, runs: [run(cells.join("; "))] };
  });
  return { kind: "text", text: text.filter(({ runs }) => runs[0]?.text), lines: text.map(() => line2) };
}
function codeAtoms(code, line2) {
  const lines2 = code.text.split("\n");
  return lines2.map((text, at) => ({ flow: { kind: "content", content: { ...code, text }, line: line2 + at }, before: lines2[at - 1]?.trim() === "" ? 0 : /^\S/.test(text) ? 6 : 12, after: 0 }));
}
function paragraphAtoms(flow2, language) {
  const paragraph = flow2.text[0];
  const text = paragraphText(paragraph);
  let ends = sentenceRanges(text, language).map(({ to }) => to);
  if (ends.length < 2) {
    const words2 = [...text.matchAll(/\s+/g)].map(({ index }) => index);
    const middle = words2.reduce((best, at) => Math.abs(at - text.length / 2) < Math.abs(best - text.length / 2) ? at : best, words2[0] ?? Math.floor(text.length / 2));
    ends = [middle || Math.ceil(text.length / 2), text.length];
  }
  if (text.length < 2) return [];
  let from = 0;
  return ends.map((to, nth) => {
    const last = nth === ends.length - 1 ? text.length : to;
    let at = 0;
    const runs = paragraph.runs.flatMap((item) => {
      const start = at;
      at += item.text.length;
      if (item.footnote) return start > from && start <= last ? [item] : [];
      return at > from && start < last ? [{ ...item, text: item.text.slice(Math.max(0, from - start), last - start) }] : [];
    });
    from = last;
    return { flow: { ...flow2, text: [{ ...paragraph, runs, ...nth && paragraph.kind !== "plain" ? { kind: "plain", level: Math.min(8, paragraph.level + 1) } : {} }] }, before: nth ? 20 : 0, after: 0 };
  });
}
function smaller2({ flow: flow2 }, language, say) {
  if (flow2.kind === "text") return paragraphAtoms(flow2, language);
  const { content, line: line2 } = flow2;
  switch (content.kind) {
    case "table": {
      const rows = tableAtoms(content, line2);
      if (rows.length > 1) return rows;
      say("The table has more than a slide can show at a readable size; its rows became points.");
      return textAtoms(tableText(content, line2));
    }
    case "code": {
      const lines2 = codeAtoms(content, line2);
      if (lines2.length > 1) return lines2;
      return textAtoms({ kind: "text", text: [{ kind: "plain", level: 0, runs: [run(content.text, ["code"])] }], lines: [line2] });
    }
    case "diagram":
      say("The diagram has more than a slide can show at a readable size; its items became points.");
      return textAtoms({ kind: "text", text: content.text, lines: content.text.map(() => line2) });
    case "chart": {
      say("The chart has more than a slide can show at a readable size; its values became points.");
      const text = content.categories.map((name, at) => ({ kind: "bullet", level: 0, runs: [run([name, ...content.series.map(({ name: of, values }) => `${of ? `${of}: ` : ""}${values[at] ?? "\u2013"}`)].join("; "))] }));
      return textAtoms({ kind: "text", text, lines: text.map(() => line2) });
    }
    case "formula":
      say("The formula is wider than a slide at a readable size; it is shown as it was typed.");
      return textAtoms({ kind: "text", text: content.tex.split("\n").map((text) => ({ kind: "plain", level: 0, runs: [run(text, ["code"])] })), lines: [line2] });
    default:
      return [];
  }
}
function atomsOf(flow2) {
  return flow2.flatMap((item) => {
    if (item.kind === "text") return textAtoms(item);
    return [{ flow: item, before: item.content.kind === "picture" ? 8 : 0, after: 0 }];
  });
}
function flowOfAtoms(atoms) {
  const flows = [];
  for (const { flow: flow2 } of atoms) {
    const last = flows.at(-1);
    if (last?.kind === "text" && flow2.kind === "text" && last.quote === flow2.quote && last.steps === flow2.steps) flows[flows.length - 1] = { ...last, text: [...last.text, ...flow2.text], lines: [...last.lines, ...flow2.lines] };
    else if (last?.kind === "content" && flow2.kind === "content" && last.content.kind === "code" && flow2.content.kind === "code" && last.line <= flow2.line && last.content.language === flow2.content.language && flow2.line === last.line + last.content.text.split("\n").length) flows[flows.length - 1] = { ...last, content: { ...last.content, text: `${last.content.text}
${flow2.content.text}` } };
    else if (last?.kind === "content" && flow2.kind === "content" && last.content.kind === "table" && flow2.content.kind === "table" && last.line === flow2.line) flows[flows.length - 1] = { ...last, content: { ...last.content, rows: [...last.content.rows, ...flow2.content.rows.slice(flow2.content.header)] } };
    else flows.push(flow2);
  }
  return flows;
}
var noId = () => "x";
function overflowOf2(composed, { head, fonts }) {
  return overflowOf(slideOf({ ...composed, notes: [] }, "x", counter()), { head, number: 1, fonts });
}
function counter() {
  let next2 = 0;
  return () => `${noId()}${next2++}`;
}
function paged(composed, flow2, nth) {
  const depth = nth ? composed.depth === null ? null : 2 : composed.depth;
  const draft = { title: composed.title, depth, flow: flow2, slots: /* @__PURE__ */ new Map() };
  const found = recognised(partsOfDraft(draft, false));
  const keep2 = nth === 0 && composed.because === "the text says so" && composed.slots.size === 0;
  return { ...composed, ...draft, notes: nth ? [] : composed.notes, arrangement: keep2 ? composed.arrangement : found.arrangement, because: keep2 ? composed.because : nth ? "it continues the slide before" : found.because };
}
function breaksBefore(atoms, start, end) {
  if (end >= atoms.length) return [atoms.length];
  const lowest = Math.max(start + 1, start + Math.ceil((end - start) * 0.4));
  const places = [];
  for (let at = end; at >= lowest; at--) {
    const crumb = atoms.length - at === 1 && end - start > 2 ? 15 : 0;
    places.push({ at, cost: (end - at) * 5 + atoms[at].before + atoms[at - 1].after + crumb });
  }
  return places.sort((a, b) => a.cost - b.cost).map(({ at }) => at);
}
function fitted(composed, rule, context, line2, problems) {
  if (rule.rest === "keep" || overflowOf2(composed, context) === 0) return [composed];
  const say = (message) => problems.push({ line: line2, message });
  const { language } = context.head;
  let whole = composed;
  const bare2 = (title) => ({ ...whole, title, flow: [], slots: /* @__PURE__ */ new Map(), arrangement: whole.arrangement === "opening" || whole.arrangement === "section" ? whole.arrangement : "title" });
  if (whole.title && overflowOf2(bare2(whole.title), context) > 0) {
    let most = 16;
    let title = shortTitle(whole.title, most);
    while (most > 3 && overflowOf2(bare2(title), context) > 0) title = shortTitle(whole.title, most -= 3);
    say("The heading is longer than a title can be; the title has its beginning, the notes have all of it.");
    whole = { ...whole, title, notes: [...whole.title.map((paragraph) => ({ ...paragraph, runs: paragraph.runs })), ...whole.notes] };
    if (overflowOf2(whole, context) === 0) return [whole];
  }
  let flow2 = whole.flow;
  if (whole.slots.size) {
    say("The columns hold more than fits side by side; they stand one after the other.");
    flow2 = [...flow2, ...[...whole.slots.values()].flat()];
  }
  let atoms = atomsOf(flow2);
  const pages = [];
  let start = 0;
  let guess = 6;
  const page = (from, to) => paged(whole, flowOfAtoms(atoms.slice(from, to)), pages.length);
  const fits = (to) => overflowOf2(page(start, to), context) === 0;
  let rounds = 0;
  while (start < atoms.length && rounds++ < 5e3) {
    let low = start;
    let high = Math.min(atoms.length, start + guess);
    while (high < atoms.length && fits(high)) {
      low = high;
      high = Math.min(atoms.length, start + (high - start) * 2);
    }
    if (high > low && fits(high)) low = high;
    while (high - low > 1) {
      const middle = low + high >> 1;
      if (fits(middle)) low = middle;
      else high = middle;
    }
    if (low === start) {
      const parts = smaller2(atoms[start], language, say);
      if (parts.length > 1 || parts.length === 1 && parts[0]?.flow.kind !== atoms[start]?.flow.kind) {
        atoms = atoms.toSpliced(start, 1, ...parts);
        continue;
      }
      low = start + 1;
    } else if (low < atoms.length && low - start > 0) {
      const next2 = atoms[low];
      const content = next2.flow.kind === "content" ? next2.flow.content : void 0;
      if (content && (content.kind === "code" || content.kind === "table" && content.rows.length - content.header > 1) && overflowOf2(page(low, low + 1), context) > 0) {
        const parts = smaller2(next2, language, say);
        if (parts.length > 1) {
          atoms = atoms.toSpliced(low, 1, ...parts);
          continue;
        }
      }
    }
    const end = breaksBefore(atoms, start, low).find((at) => at === low || fits(at)) ?? low;
    guess = Math.max(2, end - start);
    pages.push(page(start, end));
    start = end;
  }
  if (!pages.length) return [whole];
  const [first, ...rest] = pages;
  if (rule.rest === "notes" && rest.length) {
    const left = rest.flatMap((one) => one.flow.flatMap((item) => item.kind === "text" ? item.text : item.content.kind === "table" ? tableText(item.content, line2).text : item.content.kind === "code" ? item.content.text.split("\n").map((text) => ({ kind: "plain", level: 0, runs: text ? [run(text, ["code"])] : [] })) : []));
    const drawn2 = rest.filter((one) => one.flow.some((item) => item.kind === "content" && !["table", "code"].includes(item.content.kind)));
    const shown = drawn2.map((one) => ({ ...one, flow: one.flow.filter((item) => item.kind === "content" && !["table", "code"].includes(item.content.kind)) })).map((one, at) => paged(whole, one.flow, at + 1));
    say("What does not fit on the slide is in its notes.");
    return [{ ...first, notes: [...first.notes, ...left] }, ...shown];
  }
  return pages;
}
var bareTitle = (composed) => ({ ...composed, flow: [], slots: /* @__PURE__ */ new Map() });
function titleFitted(numbered2, plain3, nth, count2, context) {
  if (!plain3.title || overflowOf2(bareTitle(numbered2), context) === 0) return numbered2;
  for (let most = 12; most > 2; most -= 2) {
    const shorter = { ...numbered2, title: numberedTitle(shortTitle(plain3.title, most), nth, count2, context.head.language) };
    if (overflowOf2(bareTitle(shorter), context) === 0) return shorter;
  }
  return numbered2;
}

// core/generate/head.ts
function themeNamed(name) {
  if (name in THEMES) return THEMES[name];
  return Object.values(THEMES).find((theme) => theme.name.toLowerCase() === name.toLowerCase());
}
function headFrom(front, head, problems) {
  const theme = front.theme === void 0 ? void 0 : themeNamed(front.theme);
  const page = front.page === void 0 ? void 0 : pageNamed(front.page);
  const language = front.language === void 0 ? void 0 : Language.safeParse(front.language).data;
  const say = (key, value, hint) => problems.push({ line: 1, message: `\u201C${key}: ${value}\u201D is passed over. ${hint}` });
  if (front.theme !== void 0 && !theme) say("theme", front.theme, `Themes are ${Object.keys(THEMES).join(", ")}.`);
  if (front.page !== void 0 && !page) say("page", front.page, "A page is 16:9, 16:10, 4:3 or its size in points such as 960x540.");
  if (front.language !== void 0 && !language) say("language", front.language, "A language is a tag such as en or pt-BR.");
  const rate = front.rate !== void 0 && front.rate >= 40 && front.rate <= 400 ? front.rate : void 0;
  if (front.rate !== void 0 && rate === void 0) say("rate", front.rate, "A speaking rate is 40 to 400 words a minute.");
  return {
    ...head,
    properties: {
      title: front.title ?? head.properties.title,
      author: front.author ?? head.properties.author,
      event: front.event ?? head.properties.event,
      date: front.date ?? head.properties.date
    },
    language: language ?? head.language,
    theme: theme ?? head.theme,
    page: page ?? head.page,
    regions: { footer: front.footer ?? head.regions.footer, number: front.numbers ?? head.regions.number },
    rate: rate ?? head.rate
  };
}

// core/generate/generate.ts
var keptDrafts = /* @__PURE__ */ new WeakMap();
function same(a, b) {
  return a.length === b.length && a.every((part, at) => part === b[at]);
}
var contextKeys = /* @__PURE__ */ new WeakMap();
function contextKey(rule, { head, fonts }) {
  const { points: points2, ...plain3 } = rule;
  const known = head && contextKeys.get(head);
  const look = known ?? (head ? textHash(JSON.stringify([head.page, head.theme, head.regions.footer !== "", head.language, head.assets])) : "");
  if (head) contextKeys.set(head, look);
  return `${JSON.stringify(plain3)}/${points2?.length ? textHash(JSON.stringify(points2)) : ""}/${look}/${fonts ? 1 : 0}`;
}
var NO_CHOICES = /* @__PURE__ */ new Map();
function compose(draft, first, rule, context, choices, problems) {
  const line2 = draft.lines?.from ?? 1;
  const language = context.head?.language ?? "en";
  const { parts: texts, points: points2 } = destined(draft, rule, language, choices);
  const slots = new Map([...draft.slots].map(([name, held]) => [name, held.flow]));
  const look = lookOfDraft(draft);
  const named2 = draft.mark.arrangement;
  const whole = { title: draft.title, depth: draft.depth, slots };
  const list = [];
  let opened = false;
  for (const [nth, text] of texts.entries()) {
    const begun = { ...whole, depth: nth ? draft.depth === null ? null : 2 : draft.depth, flow: charted(text.flow, rule) };
    const pieces = rule.rest === "keep" || named2 !== void 0 ? [{ flow: begun.flow, opener: false }] : divided(begun, rule);
    opened ||= pieces[0]?.opener ?? false;
    const texted = pieces.findIndex(({ opener, flow: flow2 }) => !opener && flow2.some(({ kind }) => kind === "text"));
    const spoken2 = texted >= 0 ? texted : pieces.findIndex(({ opener }) => !opener);
    for (const [at, { flow: flow2, opener }] of pieces.entries()) {
      const later = list.length > 0;
      const piece = { title: draft.title, depth: !later ? begun.depth : draft.depth === null ? null : 2, flow: flow2, slots: nth === texts.length - 1 && at === pieces.length - 1 ? slots : /* @__PURE__ */ new Map() };
      const { arrangement, because } = arranged(piece, first && !later, named2, line2, problems);
      const own2 = { ...piece, arrangement: opener && !first ? "section" : cardArrangement(arrangement, piece, rule), because, notes: at === Math.max(0, spoken2) ? text.notes : [], look: !later ? look : look.background ? { background: look.background } : {}, steps: draft.mark.steps ?? false };
      const ready = carded(own2, rule);
      list.push(...context.fonts && context.head ? fitted(ready, rule, { head: context.head, fonts: context.fonts }, line2, problems) : [ready]);
    }
  }
  const numbered2 = list.slice(opened ? 1 : 0);
  const pages = numbered2.map((one, at) => {
    const titled = { ...one, title: numberedTitle(one.title, at + 1, numbered2.length, language) };
    return context.fonts && context.head && numbered2.length > 1 ? titleFitted(titled, one, at + 1, numbered2.length, { head: context.head, fonts: context.fonts }) : titled;
  });
  return { composed: [...list.slice(0, opened ? 1 : 0), ...pages], points: points2 };
}
var CARD = 6;
function cardArrangement(arrangement, { title, flow: flow2 }, rule) {
  const card = rule.cuts.some(({ kind }) => kind === "line") && arrangement === "statement" && title === null && flow2.length === 1 && flow2[0]?.kind === "text" && countWords(textOf(flow2[0].text)) <= CARD;
  return card ? rule.cards === "corner" ? "corner" : "card" : arrangement;
}
function carded(composed, rule) {
  if (composed.arrangement !== "corner" && composed.arrangement !== "card" || composed.title || !rule.cuts.some(({ kind }) => kind === "line")) return composed;
  const [only2] = composed.flow;
  return only2?.kind === "text" ? { ...composed, title: only2.text, flow: [], because: "it is a name in the list" } : composed;
}
function openingDraft(front) {
  const paragraph = (text) => [{ kind: "plain", level: 0, runs: [run(text)] }];
  const below = [front.author, front.event, front.date].filter((text) => !!text).flatMap(paragraph);
  const flow2 = below.length ? [{ kind: "text", text: below, lines: below.map(() => 1) }] : [];
  return { ...emptyDraft(), lines: { from: 1, to: 1 }, mark: { arrangement: "opening" }, title: paragraph(front.title ?? ""), depth: 1, flow: flow2, made: [front], key: "front" };
}
var hashes = /* @__PURE__ */ new WeakMap();
function hashOf(composed, slide) {
  const known = hashes.get(composed) ?? contentSum(slide);
  hashes.set(composed, known);
  return known;
}
var firstLine = ({ flow: flow2 }) => {
  const lines2 = flow2.flatMap((item) => item.kind === "text" ? [...item.lines.slice(0, 1)] : [item.line]);
  return lines2.length ? Math.min(...lines2) : void 0;
};
function* generate(manuscript, rule, context) {
  const { newId, document } = context;
  const used = /* @__PURE__ */ new Set();
  const line2 = [];
  let first = true;
  let count2 = 0;
  const choices = rule.points?.length ? new Map(rule.points.map((choice) => [choice.sentence, choice])) : NO_CHOICES;
  const key = contextKey(rule, context);
  const composedOf = (draft) => {
    const from = draft.lines?.from ?? 1;
    const owner = draft.made[0];
    const own2 = `${key}/${first}/${draft.key}`;
    const known = owner ? keptDrafts.get(owner)?.find((kept4) => kept4.key === own2 && same(kept4.parts, draft.made)) : void 0;
    if (known) return { ...known, problems: known.problems.map((problem) => ({ ...problem, line: problem.line + from })) };
    const problems = [];
    const { composed, points: points2 } = compose(draft, first, rule, context, choices, problems);
    const kept3 = { key: own2, parts: draft.made, composed, points: points2, problems: problems.map((problem) => ({ ...problem, line: problem.line - from })) };
    if (owner) keptDrafts.set(owner, [...(keptDrafts.get(owner) ?? []).slice(-3), kept3]);
    return { composed, points: points2, problems };
  };
  function* make(draft) {
    const { composed, points: points2, problems } = composedOf(draft);
    manuscript.problems.push(...problems);
    const { mark } = draft;
    const lines2 = draft.lines ?? { from: 1, to: 1 };
    const starts = composed.map((one, at) => at === 0 ? lines2.from : Math.max(lines2.from, firstLine(one) ?? lines2.from));
    for (const [at, one] of composed.entries()) {
      const given = at === 0 && mark.id !== void 0 && Id.safeParse(mark.id).success && !used.has(mark.id) ? mark.id : void 0;
      if (at === 0 && mark.id !== void 0 && given === void 0) manuscript.problems.push({ line: lines2.from, message: `The id \u201C${mark.id}\u201D is used twice or is not letters, digits, - and _; the slide gets a new one.` });
      const id = given ?? newId();
      used.add(id);
      const level = Math.min(mark.level ?? 0, line2.length);
      line2.length = level;
      const parent = level === 0 ? null : line2[level - 1];
      line2.push(id);
      const slide = { ...slideOf(one, id, newId), parent, hidden: mark.hidden ?? false };
      const range = { from: starts[at], to: Math.max(starts[at], at + 1 < composed.length && starts[at + 1] > starts[at] ? starts[at + 1] - 1 : lines2.to) };
      within("slides", ++count2, "slides");
      yield {
        slide: document ? { ...slide, source: { document, ...range, hash: hashOf(one, slide) } } : slide,
        lines: range,
        named: given !== void 0,
        because: one.because,
        part: at,
        points: at === 0 ? points2 : []
      };
    }
    first = false;
  }
  const titled = manuscript.front.title && manuscript.front.titleSlide !== false;
  for (const next2 of drafts(manuscript.blocks, rule, manuscript.problems, rule.rest === "keep")) {
    if (first && titled && !(next2.depth === 1 && sameTitle(next2.title, manuscript.front.title, rule))) yield* make(openingDraft(manuscript.front));
    yield* make(next2);
  }
  if (first && titled) yield* make(openingDraft(manuscript.front));
}
function sameTitle(title, wanted, rule) {
  return rule.rest === "keep" || textOf(title ?? []).trim().toLowerCase() === wanted?.trim().toLowerCase();
}
function generateDeck(manuscript, rule, context, fallback = "Untitled", assets = {}) {
  const deck = context.head ? { ...emptyDeck(context.newId(), ""), ...context.head, id: context.newId(), slides: [] } : emptyDeck(context.newId(), manuscript.front.title ?? "");
  const head = { ...headFrom(manuscript.front, headOf(deck), manuscript.problems), assets: { ...deck.assets, ...assets } };
  const made = [...generate(manuscript, rule, { ...context, head })];
  const opening = made[0]?.slide.elements.find((element) => element.kind === "text" && element.slot === "title");
  const title = head.properties.title || (opening?.kind === "text" ? textOf(opening.text) : "") || fallback;
  return { deck: { ...head, properties: { ...head.properties, title }, slides: made.map(({ slide }) => slide) }, made };
}

// bench/growth.ts
var TARGET = 2.3;
var repeated = (piece) => (size) => {
  let text = "";
  while (text.length < size) text += piece(next++);
  return text;
};
var next = 1e6;
var TEXTS = {
  prose: repeated((nth) => `The gauge at the quay is read every ten minutes, day ${nth}. Its clock is set once a week by the keeper.

`),
  lists: repeated((nth) => `- item ${nth} of the list
`),
  "nested lists": repeated((nth) => `${"  ".repeat(nth % 20)}- item ${nth}
`),
  quotations: repeated((nth) => `> line ${nth} of what was said
`),
  "nested quotations": (size) => `${"> ".repeat(size / 2)}end`,
  directives: repeated((nth) => `:::align{to=centre}
words ${nth}
:::

`),
  tables: (size) => `| a | b |
|---|---|
${repeated((nth) => `| ${nth} | cell |
`)(size)}`,
  emphasis: repeated((nth) => `Some *words* are **strong ${nth}** here.

`),
  "emphasis in one paragraph": repeated((nth) => `*a **b${nth} `),
  spaces: (size) => `a${" ".repeat(size)}b *x*
c`,
  footnotes: repeated((nth) => `A word[^${nth}] of it.

[^${nth}]: What is said of it.

`),
  "underlined headings": repeated((nth) => `Heading ${nth}
=
`),
  brackets: (size) => "[".repeat(size)
};
var MADE = ["prose", "lists", "tables", "footnotes"];
var SIZES2 = [25e4, 5e5, 1e6];
function least(act, runs = 2) {
  let best = Number.POSITIVE_INFINITY;
  for (let run2 = 0; run2 < runs; run2++) {
    const begun = performance.now();
    act();
    best = Math.min(best, performance.now() - begun);
  }
  return best;
}
function growth(act, make) {
  const times = SIZES2.map((size) => least(() => act(make(size))));
  return Math.sqrt(Math.max(times.at(-1), 5) / Math.max(times[0], 5));
}
async function grow() {
  const rows = [];
  const add2 = (name, ratio) => rows.push({ name, ratio: Math.round(ratio * 100) / 100, target: TARGET, holds: ratio <= TARGET });
  for (const [name, make] of Object.entries(TEXTS)) {
    add2(`growth of reading, a text twice as long, up to 1 MB: ${name}`, growth((text) => {
      for (const _ of readText(text).blocks) {
      }
    }, make));
  }
  for (const name of MADE) add2(`growth of making slides, a text twice as long, up to 1 MB: ${name}`, growth((text) => void generateDeck(readText(text), { ...DOCUMENT_RULE, body: "both" }, { newId: ids() }, "Growth"), TEXTS[name]));
  return rows;
}
function ids() {
  let last = 0;
  return () => `g${last++}`;
}

// bench/zz.ts
for (const { name, ratio, holds } of await grow()) console.log(holds ? "holds" : "MISSES", ratio, name);
