import { escapeXml } from "@unitext/core/draw";
import { contentArea, type FontSet, layoutSlide, type Scene, type SceneBox, sizeOf, slotPlaces } from "@unitext/core/layout";
import { type Deck, type DeckHead, type Element, type ElementKind, type Footnote, footnotesOf, type Frame, hasNotes, headOf, isEmptyText, linksOf, lookOf, picturesOn, plainText, type RichText, type Slide, type SlotRole, slideTexts, slotsOf, type TableElement, type TextElement } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { strToU8 } from "fflate";
import { XML_HEAD, xml, zip } from "../archive";
import { ARRANGEMENT_ORDER, GROUP, layoutPart, masterPart, namespaces, notesMasterPart, placeholderShape, regionShapes, transform } from "./layouts";
import { EMU, emu, NS, placeholderOf, REL, TAG, TYPE } from "./names";
import { chartTable, figureWords, flattened, footnoteText, isSpecial } from "./special";
import { tableXml } from "./table";
import { paragraphsXml, type TextContext } from "./text";
import { themePart } from "./theme";

export interface PptxOptions {
  fonts: FontSet;
  /** The bytes of a picture by their SHA-256, or undefined when they are not to be had. */
  picture: (sha256: string) => Uint8Array | undefined;
  /** The moment that the file names as its making. */
  at: Date;
}

/** A part's relationships, given out as they are asked for; equal targets share one. */
class Relationships {
  private readonly rows: { type: string; target: string; external: boolean }[] = [];

  add(type: string, target: string, external = false): string {
    const known = this.rows.findIndex((row) => row.type === type && row.target === target && row.external === external);
    return `rId${known >= 0 ? known + 1 : this.rows.push({ type, target, external })}`;
  }

  part(): string {
    return XML_HEAD + xml("Relationships", { xmlns: NS.rels }, ...this.rows.map(({ type, target, external }, nth) => xml("Relationship", { Id: `rId${nth + 1}`, Type: type, Target: target, TargetMode: external ? "External" : undefined })));
  }
}

/** The package as it grows: parts with their content types. */
class Package {
  readonly parts = new Map<string, Uint8Array>();
  private readonly overrides: [string, string][] = [];
  private readonly media = new Map<string, string>();

  constructor() {
    this.parts.set("[Content_Types].xml", new Uint8Array());
  }

  add(path: string, type: string, content: string, relationships?: Relationships): void {
    this.parts.set(path, strToU8(content));
    this.overrides.push([path, type]);
    const slash = path.lastIndexOf("/");
    if (relationships) this.parts.set(`${path.slice(0, slash)}/_rels/${path.slice(slash + 1)}.rels`, strToU8(relationships.part()));
  }

  /** Adds the bytes of a picture once; returns its path. */
  picture(sha256: string, bytes: Uint8Array, extension: string): string {
    const path = this.media.get(sha256) ?? `ppt/media/image${this.media.size + 1}.${extension}`;
    this.media.set(sha256, path);
    this.parts.set(path, bytes);
    return path;
  }

  finish(): Uint8Array {
    const types = [["rels", "application/vnd.openxmlformats-package.relationships+xml"], ["xml", "application/xml"], ["png", "image/png"], ["jpeg", "image/jpeg"]].map(([Extension, ContentType]) => xml("Default", { Extension, ContentType }));
    const overrides = this.overrides.map(([path, ContentType]) => xml("Override", { PartName: `/${path}`, ContentType }));
    this.parts.set("[Content_Types].xml", strToU8(XML_HEAD + xml("Types", { xmlns: NS.types }, ...types, ...overrides)));
    return zip(this.parts);
  }
}

function tagsPart(tags: Record<string, unknown>): string {
  return XML_HEAD + xml("p:tagLst", namespaces, ...Object.entries(tags).map(([name, value]) => xml("p:tag", { name, val: JSON.stringify(value) })));
}

/** The deck's links seen from one slide's part. */
function linker(relationships: Relationships, numbers: ReadonlyMap<string, number>, folder: string): TextContext["link"] {
  return (to) => {
    if (!to.startsWith("slide:")) return { id: relationships.add(REL.link, to, true), slide: false };
    const number = numbers.get(to.slice(6));
    return number === undefined ? undefined : { id: relationships.add(REL.slide, `${folder}slide${number}.xml`), slide: true };
  };
}

interface SlideWork {
  deck: Deck;
  head: DeckHead;
  slide: Slide;
  number: number;
  numbers: ReadonlyMap<string, number>;
  pack: Package;
  options: PptxOptions;
}

function autofit(element: TextElement, scene: Scene, full: number): string {
  const box = scene.boxes.find((candidate) => candidate.element === element.id);
  const share = box && full > 0 ? box.size / full : 1;
  return `<a:bodyPr>${share < 0.995 ? `<a:normAutofit fontScale="${Math.round(share * 100000)}"/>` : "<a:normAutofit/>"}</a:bodyPr>`;
}

/** What the tags keep of an element beside what the file itself says; all of it where the file can only show it. */
function keptOf(element: Element): object {
  if (element.kind === "text") {
    const { kind: _, text, ...facts } = element;
    return isSpecial(text) ? { ...facts, text } : facts;
  }
  if (element.kind === "picture") {
    const { kind: _, alt: __, ...facts } = element;
    return facts;
  }
  return element;
}

interface ShapeWork extends SlideWork {
  relationships: Relationships;
  scene: Scene;
  id: number;
  name: string;
  frame: Frame;
  box: SceneBox | undefined;
  role: SlotRole | undefined;
  /** Whether the placeholder of its slot is still free; it is taken by asking. */
  placeholder: () => boolean;
  notes: Footnote[];
  /** A line of text of its own, which belongs to the element: read again, it is no element. */
  line: (text: string, frame: Frame) => string;
}

function textBox({ id, name, frame }: Pick<ShapeWork, "id" | "name" | "frame">, paragraphs: string, size: number): string {
  const style = `<a:lstStyle>${Array.from({ length: 9 }, (_, nth) => `<a:lvl${nth + 1}pPr><a:defRPr sz="${Math.round(size * 100)}"/></a:lvl${nth + 1}pPr>`).join("")}</a:lstStyle>`;
  return xml("p:sp", {}, xml("p:nvSpPr", {}, xml("p:cNvPr", { id, name }), '<p:cNvSpPr txBox="1"/>', "<p:nvPr/>"), xml("p:spPr", {}, transform(frame), '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom><a:noFill/>'), xml("p:txBody", {}, '<a:bodyPr wrap="square" lIns="0" tIns="0" rIns="0" bIns="0"><a:normAutofit/></a:bodyPr>', style, paragraphs));
}

function textContext({ head, relationships, numbers }: ShapeWork, size: number, bulleted: boolean): TextContext {
  return { language: head.language, codeFont: head.theme.fonts.code, indent: size * 1.15, bulleted, link: linker(relationships, numbers, "") };
}

/** A figure as its words in a box. */
function figureText(element: Element, work: ShapeWork): string {
  const size = work.box?.size || sizeOf("figure", work.head.theme, work.head.page);
  return textBox(work, paragraphsXml(figureWords(element, work.notes) ?? [], textContext(work, size, false)), size);
}

function tableFrame(work: ShapeWork, table: Pick<TableElement, "rows" | "header" | "align">): string {
  const { id, name, frame, box, head } = work;
  const size = box?.size || sizeOf("figure", head.theme, head.page);
  const context = textContext(work, size, false);
  const sized = (text: RichText) => paragraphsXml(flattened(text, work.notes), context).replace(/<a:rPr /g, `<a:rPr sz="${Math.round(size * 100)}" `).replace(/<a:endParaRPr /g, `<a:endParaRPr sz="${Math.round(size * 100)}" `);
  return xml(
    "p:graphicFrame",
    {},
    xml("p:nvGraphicFramePr", {}, xml("p:cNvPr", { id, name }), '<p:cNvGraphicFramePr><a:graphicFrameLocks noGrp="1"/></p:cNvGraphicFramePr>', "<p:nvPr/>"),
    transform(frame).replace(/a:xfrm/g, "p:xfrm"),
    xml("a:graphic", {}, xml("a:graphicData", { uri: "http://schemas.openxmlformats.org/drawingml/2006/table" }, tableXml(table, frame.width, frame.height, sized))),
  );
}

const SHAPES: { [K in ElementKind]: (element: Extract<Element, { kind: K }>, work: ShapeWork) => string } = {
  picture: (element, { head, options, pack, relationships, id, name, frame, role, placeholder, line }) => {
    const caption = element.caption ? line(element.caption, { x: frame.x, y: frame.y + frame.height + 4, width: frame.width, height: 24 }) : "";
    const asset = head.assets[element.source];
    const bytes = asset && options.picture(asset.sha256);
    const base = xml("p:cNvPr", { id, name, descr: element.alt });
    if (!asset || !bytes) {
      return xml("p:sp", {}, xml("p:nvSpPr", {}, base, "<p:cNvSpPr/><p:nvPr/>"), xml("p:spPr", {}, transform(frame), '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom><a:noFill/><a:ln w="9525"><a:solidFill><a:schemeClr val="tx2"/></a:solidFill><a:prstDash val="dash"/></a:ln>'), '<p:txBody><a:bodyPr/><a:lstStyle/><a:p><a:endParaRPr lang="en"/></a:p></p:txBody>') + caption;
    }
    const path = pack.picture(asset.sha256, bytes, asset.mediaType === "image/png" ? "png" : "jpeg");
    const embed = relationships.add(REL.image, `../${path.slice(4)}`);
    const held = role === "picture" && placeholder() ? xml("p:ph", { ...placeholderOf(element.slot as string, role) }) : "";
    return xml("p:pic", {}, xml("p:nvPicPr", {}, base, '<p:cNvPicPr><a:picLocks noChangeAspect="1"/></p:cNvPicPr>', xml("p:nvPr", {}, held)), xml("p:blipFill", {}, xml("a:blip", { "r:embed": embed }), "<a:stretch><a:fillRect/></a:stretch>"), xml("p:spPr", {}, transform(frame), '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom>')) + caption;
  },
  text: (element, work) => {
    const { head, scene, role, box, placeholder, notes } = work;
    const full = sizeOf(role ?? "body", head.theme, head.page);
    const held = role !== undefined && placeholder();
    const paragraphs = paragraphsXml(flattened(element.text, notes), textContext(work, box?.size ?? full, held && role === "body"));
    return held ? placeholderShape(work.id, work.name, placeholderOf(element.slot as string, role), `<a:lstStyle/>${paragraphs}`, undefined, autofit(element, scene, full)) : textBox(work, paragraphs, box?.size ?? full);
  },
  table: (element, work) => tableFrame(work, element) + (element.caption ? work.line(element.caption, { ...work.frame, y: work.frame.y + work.frame.height + 4, height: 24 }) : ""),
  chart: (element, work) => tableFrame(work, chartTable(element)),
  code: figureText,
  formula: figureText,
  diagram: figureText,
};

/** The shapes of a slide in reading order, and what its tags keep of each by shape id. */
function shapes(work: SlideWork, relationships: Relationships): { shapes: string; kept: Record<number, object> } {
  const { head, slide, options, number } = work;
  const roles = new Map(slotsOf(slide.arrangement));
  const places = slotPlaces(slide.arrangement, head.page, slide.widths);
  const scene = layoutSlide(slide, { head, number, fonts: options.fonts });
  const taken = new Set<string>();
  const kept: Record<number, object> = {};
  const notes: Footnote[] = [];
  let next = 2;
  const written = slide.elements.map((element: Element) => {
    const id = next++;
    kept[id] = keptOf(element);
    const box = scene.boxes.find((candidate) => candidate.element === element.id);
    const frame = box ?? places.get(element.slot ?? "")?.frame ?? { x: 72, y: 144, width: 400, height: 240 };
    const placeholder = () => {
      const free = !taken.has(element.slot ?? "");
      taken.add(element.slot ?? "");
      return free;
    };
    const line = (text: string, at: Frame) => {
      const own = next++;
      kept[own] = { footnotes: true };
      const size = sizeOf("caption", head.theme, head.page) * 0.8;
      return textBox({ id: own, name: `caption ${own}`, frame: at }, paragraphsXml(plainText(text), textContext({ ...work, relationships } as ShapeWork, size, false)), size);
    };
    const shape: ShapeWork = { ...work, relationships, scene, line, id, name: `${element.slot ?? element.kind} ${id}`, frame, box, role: element.slot === null ? undefined : roles.get(element.slot), placeholder, notes };
    return (SHAPES[element.kind] as (element: Element, work: ShapeWork) => string)(element, shape);
  });
  if (notes.length) {
    const id = next++;
    kept[id] = { footnotes: true };
    const area = contentArea(head.page);
    const size = head.theme.scale.footer * 1.1;
    const height = notes.length * size * 1.5;
    const shape = { ...work, relationships } as ShapeWork;
    written.push(textBox({ id, name: `footnotes ${id}`, frame: { x: area.x, y: area.y + area.height - height, width: area.width, height } }, paragraphsXml(footnoteText(notes), textContext(shape, size, false)), size));
  }
  const shown = slide.arrangement !== "opening" && slide.arrangement !== "blank";
  const regions = regionShapes(head, next, false, { footer: shown && head.regions.footer !== "", number: shown && head.regions.number });
  return { shapes: written.join("") + regions, kept };
}

/** The background of a slide that has one of its own. */
function backgroundXml({ slide, head, pack, options }: SlideWork, relationships: Relationships): string {
  const { background } = slide;
  if (!background) return "";
  const fill = (inner: string) => `<p:bg><p:bgPr>${inner}<a:effectLst/></p:bgPr></p:bg>`;
  if ("colour" in background) return fill(xml("a:solidFill", {}, xml("a:srgbClr", { val: background.colour.slice(1).toUpperCase() })));
  const asset = head.assets[background.picture];
  const bytes = asset && options.picture(asset.sha256);
  if (!asset || !bytes) return "";
  const path = pack.picture(asset.sha256, bytes, asset.mediaType === "image/png" ? "png" : "jpeg");
  return fill(xml("a:blipFill", {}, xml("a:blip", { "r:embed": relationships.add(REL.image, `../${path.slice(4)}`) }), "<a:stretch><a:fillRect/></a:stretch>"));
}

function transitionXml({ transition, delay }: Slide): string {
  if (!transition && !delay) return "";
  const speed = !transition || transition.seconds <= 0.5 ? "fast" : transition.seconds <= 1 ? "med" : "slow";
  return xml("p:transition", { spd: speed, advTm: delay ? Math.round(delay * 1000) : undefined }, transition ? `<p:${transition.kind}/>` : "");
}

function slideParts(work: SlideWork): void {
  const { head, slide, number, pack, numbers } = work;
  const relationships = new Relationships();
  relationships.add(REL.layout, `../slideLayouts/slideLayout${ARRANGEMENT_ORDER.indexOf(slide.arrangement) + 1}.xml`);
  const noted = !isEmptyText(slide.notes);
  if (noted) relationships.add(REL.notes, `../notesSlides/notesSlide${number}.xml`);
  const tags = relationships.add(REL.tags, `../tags/tag${number + 1}.xml`);
  const { shapes: tree, kept } = shapes(work, relationships);
  const { id, parent, arrangement, source, origin } = slide;
  const notesKept = isSpecial(slide.notes) ? { notes: slide.notes } : {};
  pack.add(`ppt/tags/tag${number + 1}.xml`, TYPE.tags, tagsPart({ [TAG.slide]: { id, parent, arrangement, ...(source ? { source } : {}), ...(origin ? { origin } : {}), ...lookOf(slide), ...notesKept }, [TAG.elements]: kept }));
  const data = xml("p:cSld", {}, backgroundXml(work, relationships), xml("p:spTree", {}, GROUP, tree), xml("p:custDataLst", {}, xml("p:tags", { "r:id": tags })));
  pack.add(`ppt/slides/slide${number}.xml`, TYPE.slide, XML_HEAD + xml("p:sld", { ...namespaces, show: slide.hidden ? 0 : undefined }, data, "<p:clrMapOvr><a:masterClrMapping/></p:clrMapOvr>", transitionXml(slide)), relationships);
  if (!noted) return;
  const links = new Relationships();
  links.add(REL.notesMaster, "../notesMasters/notesMaster1.xml");
  links.add(REL.slide, `../slides/slide${number}.xml`);
  const context: TextContext = { language: head.language, codeFont: head.theme.fonts.code, indent: 14, bulleted: false, link: linker(links, numbers, "../slides/") };
  const said: Footnote[] = [];
  const flat = flattened(slide.notes, said);
  const spoken = said.length ? [...flat, ...footnoteText(said)] : flat;
  const picture = '<p:sp><p:nvSpPr><p:cNvPr id="2" name="Slide"/><p:cNvSpPr><a:spLocks noGrp="1" noRot="1" noChangeAspect="1"/></p:cNvSpPr><p:nvPr><p:ph type="sldImg"/></p:nvPr></p:nvSpPr><p:spPr/></p:sp>';
  const body = placeholderShape(3, "Notes", { type: "body", idx: 3 }, `<a:lstStyle/>${paragraphsXml(spoken, context)}`);
  pack.add(`ppt/notesSlides/notesSlide${number}.xml`, TYPE.notes, XML_HEAD + xml("p:notes", namespaces, xml("p:cSld", {}, xml("p:spTree", {}, GROUP, picture, body)), "<p:clrMapOvr><a:masterClrMapping/></p:clrMapOvr>"), links);
}

function presentation(deck: Deck, head: DeckHead, pack: Package): void {
  const relationships = new Relationships();
  const master = relationships.add(REL.master, "slideMasters/slideMaster1.xml");
  const notesMaster = relationships.add(REL.notesMaster, "notesMasters/notesMaster1.xml");
  const slides = deck.slides.map((_, nth) => xml("p:sldId", { id: 256 + nth, "r:id": relationships.add(REL.slide, `slides/slide${nth + 1}.xml`) }));
  relationships.add(REL.presProps, "presProps.xml");
  relationships.add(REL.viewProps, "viewProps.xml");
  relationships.add(REL.theme, "theme/theme1.xml");
  relationships.add(REL.tableStyles, "tableStyles.xml");
  const tags = relationships.add(REL.tags, "tags/tag1.xml");
  const { id, properties, language, regions, rate, theme, assets, manuscript } = head;
  pack.add("ppt/tags/tag1.xml", TYPE.tags, tagsPart({ [TAG.deck]: { id, properties, language, regions, rate, theme, assets, ...(manuscript ? { manuscript } : {}) } }));
  const content = xml(
    "p:presentation",
    { ...namespaces, saveSubsetFonts: 1 },
    xml("p:sldMasterIdLst", {}, xml("p:sldMasterId", { id: 2147483648, "r:id": master })),
    xml("p:notesMasterIdLst", {}, xml("p:notesMasterId", { "r:id": notesMaster })),
    slides.length ? xml("p:sldIdLst", {}, ...slides) : "",
    xml("p:sldSz", { cx: emu(head.page.width), cy: emu(head.page.height) }),
    xml("p:notesSz", { cx: 540 * EMU, cy: 720 * EMU }),
    xml("p:custDataLst", {}, xml("p:tags", { "r:id": tags })),
    xml("p:defaultTextStyle", {}, xml("a:defPPr", {}, xml("a:defRPr", { lang: language }))),
  );
  pack.add("ppt/presentation.xml", TYPE.presentation, XML_HEAD + content, relationships);
}

function properties(deck: Deck, pack: Package, at: Date): void {
  const { title, author, event } = deck.properties;
  const text = (name: string, value: string) => (value ? xml(name, {}, escapeXml(value)) : "");
  const moment = `${at.toISOString().slice(0, 19)}Z`;
  const core = { "xmlns:cp": "http://schemas.openxmlformats.org/package/2006/metadata/core-properties", "xmlns:dc": "http://purl.org/dc/elements/1.1/", "xmlns:dcterms": "http://purl.org/dc/terms/", "xmlns:xsi": "http://www.w3.org/2001/XMLSchema-instance" };
  const time = (name: string) => `<${name} xsi:type="dcterms:W3CDTF">${moment}</${name}>`;
  pack.add("docProps/core.xml", TYPE.core, XML_HEAD + xml("cp:coreProperties", core, text("dc:title", title), text("dc:subject", event), text("dc:creator", author), text("dc:language", deck.language), time("dcterms:created"), time("dcterms:modified")));
  const app = { xmlns: "http://schemas.openxmlformats.org/officeDocument/2006/extended-properties" };
  pack.add("docProps/app.xml", TYPE.app, XML_HEAD + xml("Properties", app, "<Application>Unitext</Application>", `<Slides>${deck.slides.length}</Slides>`, `<Notes>${deck.slides.filter(hasNotes).length}</Notes>`, `<HiddenSlides>${deck.slides.filter(({ hidden }) => hidden).length}</HiddenSlides>`));
}

/**
 * Writes a deck as a presentation in Office Open XML (ECMA-376, transitional) with all parts that a conforming reader
 * needs. Ids, details, bindings and what else the format has no place for are kept in user-defined tags.
 */
export function writePptx(deck: Deck, options: PptxOptions): Uint8Array {
  const head = headOf(deck);
  const pack = new Package();
  const root = new Relationships();
  root.add(REL.document, "ppt/presentation.xml");
  root.add(REL.core, "docProps/core.xml");
  root.add(REL.app, "docProps/app.xml");
  pack.parts.set("_rels/.rels", strToU8(root.part()));
  properties(deck, pack, options.at);
  presentation(deck, head, pack);
  const master = new Relationships();
  for (const [nth] of ARRANGEMENT_ORDER.entries()) master.add(REL.layout, `../slideLayouts/slideLayout${nth + 1}.xml`);
  master.add(REL.theme, "../theme/theme1.xml");
  pack.add("ppt/slideMasters/slideMaster1.xml", TYPE.master, masterPart(head), master);
  const layout = new Relationships();
  layout.add(REL.master, "../slideMasters/slideMaster1.xml");
  ARRANGEMENT_ORDER.forEach((arrangement, nth) => {
    pack.add(`ppt/slideLayouts/slideLayout${nth + 1}.xml`, TYPE.layout, layoutPart(arrangement, head, options.fonts), layout);
  });
  const notes = new Relationships();
  notes.add(REL.theme, "../theme/theme2.xml");
  pack.add("ppt/notesMasters/notesMaster1.xml", TYPE.notesMaster, notesMasterPart(), notes);
  pack.add("ppt/theme/theme1.xml", TYPE.theme, themePart(head.theme));
  pack.add("ppt/theme/theme2.xml", TYPE.theme, themePart(head.theme));
  pack.add("ppt/presProps.xml", TYPE.presProps, XML_HEAD + xml("p:presentationPr", namespaces));
  pack.add("ppt/viewProps.xml", TYPE.viewProps, XML_HEAD + xml("p:viewPr", namespaces));
  pack.add("ppt/tableStyles.xml", TYPE.tableStyles, XML_HEAD + xml("a:tblStyleLst", { "xmlns:a": NS.a, def: "{5C22544A-7EE6-4342-B048-85BDC9FD1C3A}" }));
  const numbers = new Map(deck.slides.map((slide, nth) => [slide.id, nth + 1]));
  deck.slides.forEach((slide, nth) => {
    slideParts({ deck, head, slide, number: nth + 1, numbers, pack, options });
  });
  return pack.finish();
}

/** How a kind of element is shown where the format, as it is written, has no such thing. */
const SHOWN_AS: Partial<Record<ElementKind, string>> = {
  chart: "shown as a table of its values; Unitext draws the chart again",
  diagram: "shown as its list; Unitext draws the diagram again",
  formula: "shown as its TeX; Unitext sets the formula again",
};

/** What a presentation file cannot hold as it is. */
export function pptxEntries(deck: Deck): Pick<Report, "adapted" | "left"> {
  const adapted: Report["adapted"] = [];
  const left: Report["left"] = [];
  const ids = new Set(deck.slides.map((slide) => slide.id));
  deck.slides.forEach((slide, nth) => {
    const texts = slideTexts(slide);
    for (const { text, to } of texts.flatMap(linksOf)) {
      if (to.startsWith("slide:") && !ids.has(to.slice(6))) left.push({ slide: nth + 1, what: `the link “${text}”`, why: "the slide that it leads to is not in this deck; its words stay" });
    }
    for (const name of picturesOn(slide)) {
      if (!deck.assets[name]) left.push({ slide: nth + 1, what: `the picture ${name}`, why: "its file is not in the deck; an empty frame with its description stands in its place" });
    }
    for (const element of slide.elements) {
      const how = SHOWN_AS[element.kind];
      if (how) adapted.push({ slide: nth + 1, what: `a ${element.kind}`, how });
      if (element.kind === "text" && element.steps) adapted.push({ slide: nth + 1, what: "points that appear one at a time", how: "other programs show them at once; Unitext keeps the steps" });
    }
    if (texts.some((text) => footnotesOf(text).length)) adapted.push({ slide: nth + 1, what: "footnotes", how: "shown as raised numbers with a text at the foot; Unitext makes footnotes of them again" });
    if (slide.parent !== null) adapted.push({ slide: nth + 1, what: "a detail slide", how: "other programs show it after its main slide; Unitext nests it again" });
  });
  return { adapted, left };
}
