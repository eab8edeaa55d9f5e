import { EXTENSIONS } from "../../../shared/pictures";

import { type Deck, escapeXml, type Slide, must } from "@unitext/core/model";
import { strFromU8, strToU8 } from "fflate";
import { type PackedPart, zip } from "../../../shared/archive";
import { xml } from "../../../shared/xml";
import { fromOdp, isMacro, withStandIns } from "../../../shared/sourcepackage";
import { StyleImporter, type ImportedList } from "../patch/importstyles";
import { MEDIA_TYPE, NS, VERSION } from "../package/names";
import { entry, HEAD, type OdpOptions, Pages } from "./pages";
import { hasSize, resized, slideLayouts } from "../package/pagelayouts";
import { appendTo, OdpBase, withNamespaces } from "../patch/patchslide";

const part = (root: string, ...content: string[]) =>
  strToU8(`${HEAD}${xml(root, { ...NS, "office:version": VERSION }, ...content)}`);

const MEDIA_OF = new Map(Object.entries(EXTENSIONS).map(([type, extension]) => [extension, type]));
const mediaOf = (path: string) =>
  path.endsWith(".xml") ? "text/xml" : (MEDIA_OF.get(path.slice(path.lastIndexOf(".") + 1)) ?? "");

/** Returns a prefix that is in none of the texts. */
function freePrefix(texts: readonly string[], start: string): string {
  let prefix = start;
  for (let nth = 1; texts.some((text) => text.includes(`="${prefix}`)); nth++) prefix = `${start}${nth}_`;
  return prefix;
}

/**
 * Returns distinct names for pages to which several files may have given the same; those of the updated file are kept.
 */
function pageNames(deck: Deck, bases: readonly OdpBase[]): (slide: Slide) => string | undefined {
  const names = new Map<string, string>();
  const taken = new Set<string>();
  for (const base of bases) {
    for (const slide of deck.slides) {
      const page = base.page(slide);
      const name = page && !base.isCopy(slide) ? base.name(page) : undefined;
      if (name === undefined || taken.has(name)) continue;
      taken.add(name);
      names.set(slide.id, name);
    }
  }
  return ({ id }) => names.get(id);
}

/**
 * Writes the deck into the presentation that most of it came from: unchanged pages and parts are those of the file;
 * pages of other presentations are imported with everything that they refer to.
 */
function writeInto(bases: readonly [OdpBase, ...OdpBase[]], deck: Deck, options: OdpOptions): Uint8Array {
  const [base, ...others] = bases;
  const { file, content } = base;
  const parts = new Map<string, Uint8Array | PackedPart>();
  const copy = (path: string) => {
    const part = file.part(path);
    if (part !== undefined) parts.set(path, part);
  };
  // A template becomes a presentation.
  parts.set("mimetype", strToU8(MEDIA_TYPE));
  const [ownStyles, metaText] = [base.text("styles.xml"), base.text("meta.xml")];
  const texts = bases.flatMap((one) => [one.content.text, one.text("styles.xml")]);
  const folderFree = (folder: string) => !file.has(`${folder}/content.xml`) && !parts.has(`${folder}/content.xml`);
  const pages = new Pages(
    deck,
    options,
    freePrefix(texts, "U"),
    pageNames(deck, bases),
    (path) => !file.has(path) && !parts.has(path),
  );
  const brought = others.map((other, nth) => {
    const prefix = freePrefix(texts, `B${nth + 1}`);
    const names = other.slidesByName;
    const room = {
      at: (path: string) => parts.get(path) ?? file.part(path),
      put: (path: string, one: Uint8Array | PackedPart) => void parts.set(path, one),
      free: (folder: string) => folderFree(folder) && !pages.objects.has(folder),
      pageLayout: hasSize(other.text("styles.xml"), deck.page) ? undefined : [...slideLayouts(ownStyles)][0],
    };
    const made = new StyleImporter(
      other.file,
      other.content.text,
      other.text("styles.xml"),
      other.text("META-INF/manifest.xml"),
      prefix,
      room,
      (name) => pages.names.get(names.get(name) ?? ""),
    );
    other.words = made.words;
    return made;
  });
  const written = deck.slides.map((slide, nth) => {
    for (const one of bases) {
      const page = one.page(slide);
      if (page) return pages.spliced(one, page, slide, nth + 1);
    }
    return pages.own(slide, nth + 1, bases);
  });
  const said = (name: string) => /[^>]*/.exec(metaText.split(`<${name}>`)[1] ?? "")?.[0].replace(/<\/.*/, "") ?? "";
  const { title, author, event } = deck.properties;
  const named = (
    [
      ["dc:title", title],
      ["dc:subject", event],
    ] as const
  ).filter(([name, value]) => value !== "" && said(name) !== "" && said(name) !== escapeXml(value));
  const styleText = resized(ownStyles, deck.page);
  const listed = base.text("META-INF/manifest.xml");
  const plain =
    base.text("mimetype").trim() === MEDIA_TYPE &&
    !content.text.includes("<office:script ") &&
    ![...listed.matchAll(/full-path="([^"]*)"/g)].some(([, path = ""]) => isMacro(path));
  if (
    base.inOrder(deck) &&
    deck.slides.every((slide) => base.untouched(slide).whole) &&
    !named.length &&
    styleText === ownStyles &&
    plain
  ) {
    for (const path of file.paths) copy(path);
    return zip(parts);
  }
  const [first, last] = [must(content.pages[0]), must(content.pages.at(-1))];
  const needsMasters = pages.plain || pages.ownMasters.size > 0;
  const masterPages = needsMasters ? pages.masterPages() : "";
  const list = (name: ImportedList) => brought.flatMap(({ lists }) => lists[name]).join("");
  const faces = (text: string, ours: boolean) => {
    const there = (face: string) => text.includes(/style:name="[^"]*"/.exec(face)?.[0] ?? face);
    const wanted = [
      ...(ours ? pages.faces().map((face) => face.xml) : []),
      ...brought.flatMap(({ lists }) => lists.faces),
    ];
    return [
      ...new Map(
        wanted.filter((face) => !there(face)).map((face) => [/style:name="[^"]*"/.exec(face)?.[0], face]),
      ).values(),
    ].join("");
  };
  const declared = (needsMasters ? pages.footer() : "") + list("declared");
  const body =
    content.text.slice(0, first.from).replace(/<office:scripts>[\s\S]*?<\/office:scripts>/, "") +
    declared +
    written.join("") +
    content.text.slice(last.to);
  const styled = appendTo(body, "office:automatic-styles", pages.styles.xml() + list("content"), ["office:body"]);
  const foreign = others.map((one) => one.content.namespaces);
  parts.set(
    "content.xml",
    strToU8(
      withNamespaces(
        appendTo(styled, "office:font-face-decls", faces(content.text, pages.styles.xml() !== ""), [
          "office:automatic-styles",
          "office:body",
        ]),
        foreign,
      ),
    ),
  );
  const additions = [
    ["office:styles", pages.definitions.xml() + list("common"), ["office:automatic-styles", "office:master-styles"]],
    [
      "office:automatic-styles",
      (needsMasters ? pages.layout() + pages.masters.xml() : "") + list("automatic"),
      ["office:master-styles"],
    ],
    ["office:master-styles", masterPages + list("masters"), []],
    [
      "office:font-face-decls",
      needsMasters || others.length ? faces(styleText, needsMasters) : "",
      ["office:styles", "office:automatic-styles", "office:master-styles"],
    ],
  ] as const;
  const mastered = additions.reduce(
    (text, [element, words, before]) => appendTo(text, element, words, before),
    styleText,
  );
  if (mastered !== ownStyles) parts.set("styles.xml", strToU8(withNamespaces(mastered, foreign)));
  else copy("styles.xml");
  const bare = metaText.replace(/<meta:user-defined\s[^>]*meta:name="unitext:[\s\S]*?<\/meta:user-defined>/g, "");
  const renamed = named.reduce(
    (text, [name, value]) =>
      text.replace(new RegExp(`<${name}>[\\s\\S]*?</${name}>`), () => xml(name, {}, escapeXml(value))),
    bare,
  );
  parts.set(
    "meta.xml",
    metaText
      ? strToU8(withNamespaces(appendTo(renamed, "office:meta", pages.keptFields(), [])))
      : metaPart(pages, author, options.at),
  );
  for (const [path, bytes] of pages.parts()) parts.set(path, bytes);
  // What only deleted pages showed is removed, and so are signatures, which are no longer valid.
  const contentPart = parts.get("content.xml");
  const kept = contentPart instanceof Uint8Array ? strFromU8(contentPart) : "";
  const shown = (path: string) =>
    [kept, mastered].some((text) => text.includes(escapeXml(path)) || text.includes(encodeURI(path)));
  // One object's name may start another's.
  const holds = (object: string) =>
    [kept, mastered].some((text) =>
      [escapeXml(object), encodeURI(object)].some((name) => ['"', "'", "/"].some((end) => text.includes(name + end))),
    );
  const gone = (path: string) =>
    path === "META-INF/documentsignatures.xml" ||
    isMacro(path) ||
    (/^(Pictures|Media)\//.test(path)
      ? !shown(path)
      : /^ObjectReplacements\//.test(path)
        ? !holds(path)
        : /^Object [^/]+\//.test(path) && !holds(must(path.split("/")[0])));
  for (const path of file.paths) if (!parts.has(path) && !gone(path) && path !== "META-INF/manifest.xml") copy(path);
  const held = listed
    .replaceAll(`"${MEDIA_TYPE}-template"`, `"${MEDIA_TYPE}"`)
    .replace(
      /<manifest:file-entry\s[^>]*manifest:full-path="([^"]*)"[^>]*?(?:\/>|>\s*<\/manifest:file-entry>)\s*/g,
      (whole, path: string) => (gone(path) ? "" : whole),
    );
  const rows = [
    ...pages.objectEntries(),
    ...[...pages.parts()].map(([path]) => entry(path, mediaOf(path))),
    ...brought.flatMap(({ entries }) => [...entries].map(([path, type]) => entry(path, type || mediaOf(path)))),
    ...(metaText ? [] : [entry("meta.xml", "text/xml")]),
  ];
  const fresh = [...new Set(rows)].filter((one) => !held.includes(must(/full-path="[^"]*"/.exec(one)?.[0])));
  parts.set(
    "META-INF/manifest.xml",
    strToU8(held.replace("</manifest:manifest>", () => `${fresh.join("")}</manifest:manifest>`)),
  );
  return zip(parts);
}

function metaPart(pages: Pages, author: string, at: Date): Uint8Array {
  const { properties, language } = pages.metadata;
  const said = (name: string, value: string) => (value ? xml(name, {}, escapeXml(value)) : "");
  const moment = at.toISOString().slice(0, 19);
  return part(
    "office:document-meta",
    xml(
      "office:meta",
      {},
      "<meta:generator>Unitext</meta:generator>",
      said("dc:title", properties.title),
      said("dc:subject", properties.event),
      said("meta:initial-creator", author),
      said("dc:creator", author),
      said("dc:language", language),
      `<meta:creation-date>${moment}</meta:creation-date><dc:date>${moment}</dc:date>`,
      pages.keptFields(),
    ),
  );
}

/**
 * Writes a deck as a presentation in OpenDocument 1.3: a page for each slide with its notes, text as formatted
 * paragraphs and lists, shapes, groups, tables, charts with their data, pictures, films, links, masters, backgrounds,
 * transitions. What the format has no place for is stored in user-defined metadata. Pages that came from an .odp and
 * were not touched are written unchanged.
 */
export function writeOdp(given: Deck, options: OdpOptions): Uint8Array {
  const deck = withStandIns(given, fromOdp);
  const [base, ...others] = OdpBase.all(deck, options.picture);
  if (base) return writeInto([base, ...others], deck, options);
  const pages = new Pages(
    deck,
    options,
    "",
    () => undefined,
    () => true,
  );
  const { metadata } = pages;
  const written = deck.slides.map((slide, nth) => pages.own(slide, nth + 1));
  const masterPages = pages.masterPages();
  const faces = xml("office:font-face-decls", {}, ...pages.faces().map((face) => face.xml));
  const [language, country] = deck.language.split("-");
  const defaults = xml(
    "style:default-style",
    { "style:family": "graphic" },
    xml("style:text-properties", {
      "style:font-name": metadata.theme.fonts.body,
      "fo:color": metadata.theme.colours.ink,
      "fo:language": language,
      "fo:country": country && /^[A-Z]{2}$/.test(country) ? country : "none",
    }),
  );
  const parts = new Map<string, Uint8Array>([["mimetype", strToU8(MEDIA_TYPE)]]);
  parts.set(
    "content.xml",
    part(
      "office:document-content",
      faces,
      xml("office:automatic-styles", {}, pages.styles.xml()),
      xml("office:body", {}, xml("office:presentation", {}, pages.footer(), ...written)),
    ),
  );
  parts.set(
    "styles.xml",
    part(
      "office:document-styles",
      faces,
      xml("office:styles", {}, pages.definitions.xml(), defaults),
      xml("office:automatic-styles", {}, pages.layout(), pages.masters.xml()),
      xml("office:master-styles", {}, masterPages),
    ),
  );
  parts.set("meta.xml", metaPart(pages, metadata.properties.author, options.at));
  for (const [path, bytes] of pages.parts()) parts.set(path, bytes);
  const entries = [
    entry("/", MEDIA_TYPE),
    ...pages.objectEntries(),
    ...[...parts.keys()].filter((path) => path !== "mimetype").map((path) => entry(path, mediaOf(path))),
  ];
  parts.set(
    "META-INF/manifest.xml",
    strToU8(
      `${HEAD}${xml("manifest:manifest", { "xmlns:manifest": "urn:oasis:names:tc:opendocument:xmlns:manifest:1.0", "manifest:version": VERSION }, ...entries)}`,
    ),
  );
  return zip(parts);
}
