import { bidiLevels, isSymbolFont } from "@unitext/core/layout";
import {
  cutText,
  joinRuns,
  Language,
  type Mark,
  MAX_LEVEL,
  NUMBER_SIGN,
  type Paragraph,
  type RichText,
  type Run,
  run,
} from "@unitext/core/model";
import { linkTarget } from "@unitext/core/text";
import { child, childrenOf, localName, type XmlElement } from "../../../shared/xml";
import { ommlTex } from "../../../shared/math";
import { alternativeOf } from "./inherit";
import { paragraphProperties, runProperties, type StyleContext } from "./styles";

/** Where a text takes its bullets from when its paragraphs do not set them: list styles, nearest first. */
export interface ReadContext {
  styles: readonly (XmlElement | undefined)[];
  codeFont: string | undefined;
  /** Returns the target of a link's relationship as a link of the model. */
  link(id: string, action: string): string | undefined;
  /** How properties are read; without it, a text is read for its words and marks alone. */
  looks?: StyleContext;
  /** Whether a text without words is kept for its paragraph properties. */
  blank?: boolean;
  /** Whether text of a level is bold or italic by itself, so that a run may switch it off. */
  weight?: { strong: boolean; emphasis: boolean };
}

const MONOSPACED = /mono|courier|consolas|menlo|cousine|typewriter/i;
const on = (value: string | undefined) => value === "1" || value === "true" || value === "on";

function marksOf(properties: XmlElement | undefined, context: ReadContext): Mark[] {
  const { b, i, strike } = properties?.attributes ?? {};
  const typeface = child(properties, "latin")?.attributes.typeface ?? "";
  const code = context.codeFont ? typeface === context.codeFont : MONOSPACED.test(typeface);
  const strong = b === undefined ? context.weight?.strong : on(b);
  const emphasis = i === undefined ? context.weight?.emphasis : on(i);
  return [
    ...(strong ? ["strong" as const] : []),
    ...(emphasis ? ["emphasis" as const] : []),
    ...(strike && strike !== "noStrike" ? ["strike" as const] : []),
    ...(code && typeface ? ["code" as const] : []),
  ];
}

/** Returns the formulas in a part of a paragraph (ECMA-376-1, 22.1), each as a run. */
function formulasIn(element: XmlElement): Run[] {
  if (localName(element) !== "oMath") return element.children.flatMap(formulasIn);
  const tex = ommlTex(element).replace(/\s+/g, " ").trim();
  return tex ? [run(tex, ["formula"])] : [];
}

const primary = (tag: string) => tag.split("-")[0]?.toLowerCase();

/** Returns the language of a run where it differs from the deck's; a difference in region only does not count. */
function otherLanguage(tag: string | undefined, deck: string | undefined): string | undefined {
  return tag !== undefined && deck !== undefined && primary(tag) !== primary(deck) && Language.safeParse(tag).success
    ? tag
    : undefined;
}

const SIGNS = /^[\u00a0-\u00ff\uf020-\uf0ff\s]+$/;

/**
 * Returns the symbol font of a run (`a:sym`, ECMA-376-1, 21.1.2.3.10), where its text is outside ASCII, as in such
 * fonts.
 */
function signFont(properties: XmlElement | undefined, text: string): string | undefined {
  const typeface = child(properties, "sym")?.attributes.typeface;
  return isSymbolFont(typeface) && SIGNS.test(text) && text.trim() !== "" ? cutText(typeface, 200) : undefined;
}

/**
 * Whether a link keeps the colour of its words (an extension of its maker); otherwise it has that of the theme's links
 * (common practice, no source).
 */
const ownLinkColour = (click: XmlElement | undefined): boolean =>
  childrenOf(child(click, "extLst"), "ext").some((extension) => child(extension, "hlinkClr")?.attributes.val === "tx");

function runOf(element: XmlElement, context: ReadContext): Run | Run[] | undefined {
  const kind = localName(element);
  if (kind === "m" || kind === "oMathPara" || kind === "oMath") return formulasIn(element);
  if (kind === "AlternateContent") return alternativeOf(element).flatMap((part) => runOf(part, context) ?? []);
  if (kind !== "r" && kind !== "br" && kind !== "fld") return undefined;
  const properties = child(element, "rPr");
  const click = child(properties, "hlinkClick");
  const id = click && Object.entries(click.attributes).find(([key]) => key.endsWith(":id"))?.[1];
  const link = click ? context.link(id ?? "", click.attributes.action ?? "") : undefined;
  // ECMA-376-1, 21.1.2.2.4: a slide number field contains the number that it showed last.
  const text =
    kind === "br"
      ? "\n"
      : kind === "fld" && element.attributes.type === "slidenum"
        ? NUMBER_SIGN
        : (child(element, "t")?.text ?? "").replace(/\u000b/g, "\n");
  const formatting = context.looks ? runProperties([properties], context.looks) : undefined;
  const language = formatting && otherLanguage(properties?.attributes.lang, context.looks?.language);
  const signs = formatting && signFont(properties, text);
  const led = formatting && link && !ownLinkColour(click) ? context.looks?.colours.named.get("hlink") : undefined;
  const look =
    language || signs || led
      ? {
          ...formatting,
          ...(language ? { language } : {}),
          ...(signs ? { font: signs } : {}),
          ...(led ? { colour: led } : {}),
        }
      : formatting;
  return run(text, marksOf(properties, context), link, look);
}

const BULLETS = ["buNone", "buAutoNum", "buChar", "buBlip"];

function kindOf(properties: XmlElement | undefined, level: number, context: ReadContext): Paragraph["kind"] {
  const sources = [properties, ...context.styles.map((style) => child(style, `lvl${level + 1}pPr`))];
  for (const source of sources) {
    const found = source?.children.find((element) => BULLETS.includes(localName(element)));
    if (found) return localName(found) === "buNone" ? "plain" : localName(found) === "buAutoNum" ? "number" : "bullet";
  }
  return "plain";
}

function paragraphOf(element: XmlElement, context: ReadContext): Paragraph {
  const properties = child(element, "pPr");
  const level = Math.min(MAX_LEVEL, Math.max(0, Math.floor(Number(properties?.attributes.lvl ?? 0)) || 0));
  const runs = joinRuns(element.children.flatMap((part) => runOf(part, context) ?? []));
  const { algn, rtl: said } = properties?.attributes ?? {};
  const styled = context.styles
    .map((style) => child(style, `lvl${level + 1}pPr`)?.attributes.rtl)
    .find((value) => value !== undefined);
  const rtl =
    said !== undefined ? on(said) : on(styled) || bidiLevels(runs.map(({ text }) => text).join("")).base === 1;
  // Start alignment is stored as well, because the paragraph's level may set another.
  const align =
    algn === "ctr" ? "centre" : algn === (rtl ? "l" : "r") ? "end" : algn && context.looks ? "start" : undefined;
  const start = Number(child(properties, "buAutoNum")?.attributes.startAt ?? 1);
  const look = context.looks && properties ? paragraphProperties([properties], context.looks) : undefined;
  // The bullet of an item is stored whole: what the paragraph leaves open comes from its level.
  if (look?.bullet && context.looks) {
    const whole = paragraphProperties(
      [properties, ...context.styles.map((style) => child(style, `lvl${level + 1}pPr`))],
      context.looks,
    ).bullet;
    if (whole) look.bullet = whole;
  }
  const words = context.looks && runs.length === 0 ? runProperties([child(element, "endParaRPr")], context.looks) : {};
  const direct = { ...look, ...(Object.keys(words).length ? { words } : {}) };
  return {
    kind: kindOf(properties, level, context),
    level,
    ...(align ? { align } : {}),
    ...(Number.isInteger(start) && start > 1 && start <= 1_000_000 ? { start } : {}),
    ...(Object.keys(direct).length ? { properties: direct } : {}),
    runs,
  };
}

/** Whether a run of a body switches bold or italic off. */
export function switchesOff(body: XmlElement | undefined, name: "b" | "i"): boolean {
  return childrenOf(body, "p").some((paragraph) =>
    paragraph.children.some((part) => {
      const value = child(part, "rPr")?.attributes[name];
      return value !== undefined && !on(value);
    }),
  );
}

/**
 * Reads the text of a body (`p:txBody`); when it is read for its words alone, without the empty paragraphs at its end.
 */
export function readBody(body: XmlElement | undefined, context: ReadContext): RichText {
  const own: ReadContext = { ...context, styles: [child(body, "lstStyle"), ...context.styles] };
  const text = childrenOf(body, "p").map((paragraph) => paragraphOf(paragraph, own));
  if (context.looks)
    return text.every(({ runs, properties }) => runs.length === 0 && !(context.blank && properties?.words)) ? [] : text;
  while (text.at(-1)?.runs.length === 0) text.pop();
  return text;
}

/** Returns an external address as a link of the model; undefined for other targets. */
export function externalLink(target: string): string | undefined {
  return linkTarget(/^[\w.+-]+@[\w-]+\.[\w.]+$/.test(target) ? `mailto:${target}` : target);
}

/** Whether a paragraph holds a displayed formula (`m:oMathPara`, ECMA-376-1, 22.1.2.78). */
export const holdsDisplay = (element: XmlElement): boolean =>
  localName(element) === "oMathPara" || element.children.some(holdsDisplay);
