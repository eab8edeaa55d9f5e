import type { PackedPart } from "../../../shared/archive";
import { scanXml } from "../../../shared/xml";
import type { SourcePackage } from "../../../shared/sourcepackage";
import { slideLayouts } from "../package/pagelayouts";

const local = (name: string) => name.slice(name.indexOf(":") + 1);

/** A named definition of a part: its list, its XML, and the family of a style. */
interface Definition {
  list: string;
  name: string;
  family: string | undefined;
  words: string;
}

/** Returns the definitions of a part, in the lists of its root and in the declarations before its pages. */
export function definitionsIn(text: string, where: string): Definition[] {
  const found: Definition[] = [];
  const stack: { name: string; from: number; attributes: Record<string, string> }[] = [];
  scanXml(text, where, {
    open: (name, attributes, from) => void stack.push({ name: local(name), from, attributes }),
    close(_, to) {
      const entry = stack.pop();
      const list = stack.at(-1)?.name;
      if (
        !entry ||
        !list ||
        !((stack.length === 2 && list !== "body") || (stack.length === 3 && entry.name.endsWith("-decl")))
      )
        return;
      const { attributes, from } = entry;
      const name = attributes["style:name"] ?? attributes["draw:name"] ?? attributes["presentation:name"];
      if (name !== undefined || entry.name === "default-style")
        found.push({
          list: entry.name === "default-style" ? "defaults" : list,
          name: name ?? "",
          family: attributes["style:family"],
          words: text.slice(from, to),
        });
    },
  });
  return found;
}

/** Attributes that refer to definitions (OpenDocument 1.3, part 3, 19); the last two hold several names. */
const NAMING = new Set(
  "style-name text-style-name parent-style-name next-style-name list-style-name data-style-name percentage-data-style-name default-cell-style-name apply-style-name master-page-name page-layout-name presentation-page-layout-name fill-gradient-name fill-hatch-name fill-image-name opacity-name stroke-dash marker-start marker-end use-footer-name use-header-name use-date-time-name template-name leader-text-style visited-style-name stroke-dash-names class-names".split(
    " ",
  ),
);
/** Attributes that define ids and refer to them. */
const IDS = new Set("id targetElement master-element start-shape end-shape control caption-id nav-order".split(" "));
const ATTRIBUTE = /(\s)([A-Za-z][\w.-]*:[\w.-]+)(\s*=\s*)(?:"([^"]*)"|'([^']*)')/g;

/**
 * Returns XML with attribute values replaced by `as`, which returns undefined for values that stay. Text between tags
 * is not touched.
 */
function withAttributeValues(words: string, as: (name: string, value: string) => string | undefined): string {
  return words.replace(/<[A-Za-z](?:[^>"']|"[^"]*"|'[^']*')*>/g, (tag) =>
    tag.replace(ATTRIBUTE, (whole, space: string, name: string, equals: string, double?: string, single?: string) => {
      const value = as(local(name), double ?? single ?? "");
      return value === undefined ? whole : `${space}${name}${equals}"${value}"`;
    }),
  );
}

/** Returns XML with new ids, so that it can be in a file beside its original. */
export function withNewIds(words: string, prefix: string): string {
  return withAttributeValues(words, (name, value) =>
    IDS.has(name) && value
      ? value
          .split(" ")
          .map((id) => prefix + id)
          .join(" ")
      : undefined,
  );
}

/** What importing pages needs to know of the target presentation: free paths, and the size of its pages. */
export interface FreeNames {
  /** Returns the part at a path. */
  at(path: string): Uint8Array | PackedPart | undefined;
  put(path: string, part: Uint8Array | PackedPart): void;
  /** Whether the name of a folder is free. */
  free(folder: string): boolean;
  /** Returns the page layout of masters there, where theirs has another size. */
  pageLayout: string | undefined;
}

/** The places of imported definitions in the target presentation. */
export const LISTS = {
  content: "automatic-styles",
  common: "styles",
  automatic: "automatic-styles",
  masters: "master-styles",
  declared: "presentation",
} as const;
export type ImportedList = keyof typeof LISTS | "faces";

const samePart = (a: Uint8Array | PackedPart, b: Uint8Array | PackedPart) =>
  a instanceof Uint8Array || b instanceof Uint8Array
    ? a instanceof Uint8Array &&
      b instanceof Uint8Array &&
      a.length === b.length &&
      a.every((value, nth) => value === b[nth])
    : a.crc === b.crc && a.size === b.size;

/**
 * Imports what pages of one presentation need into another: styles, fills and masters, directly or indirectly, under
 * names with a free prefix; the parts that they show; new ids.
 */
export class StyleImporter {
  readonly lists: Record<ImportedList, string[]> = {
    content: [],
    common: [],
    automatic: [],
    masters: [],
    declared: [],
    faces: [],
  };
  /** Returns the manifest rows of imported parts: path and media type. */
  readonly entries = new Map<string, string>();
  private readonly content = new Map<string, Definition[]>();
  private readonly common = new Map<string, Definition[]>();
  private readonly automatic = new Map<string, Definition[]>();
  private readonly defaults = new Map<string, string>();
  private readonly taken = new Set<string>();
  private readonly paths = new Map<string, string>();
  private readonly types: Map<string, string>;
  /** The page layouts of masters. */
  private readonly layouts: ReadonlySet<string>;

  constructor(
    private readonly file: SourcePackage,
    contentText: string,
    styleText: string,
    manifest: string,
    readonly prefix: string,
    private readonly room: FreeNames,
    /** Returns the name of a page in the target presentation, by its name in this one. */
    private readonly pageName: (name: string) => string | undefined,
  ) {
    this.layouts = slideLayouts(styleText);
    const into = (map: Map<string, Definition[]>, one: Definition) =>
      map.set(one.name, [...(map.get(one.name) ?? []), one]);
    for (const one of definitionsIn(contentText, "content.xml")) if (one.list !== "defaults") into(this.content, one);
    for (const one of definitionsIn(styleText, "styles.xml")) {
      if (one.list === "defaults") this.defaults.set(one.family ?? "", one.words);
      else into(one.list === "automatic-styles" ? this.automatic : this.common, one);
    }
    this.types = new Map(
      [...manifest.matchAll(/<manifest:file-entry\s[^>]*>/g)].flatMap(([tag]) => {
        const [path, type] = ["full-path", "media-type"].map(
          (name) => new RegExp(`manifest:${name}="([^"]*)"`).exec(tag)?.[1],
        );
        return path === undefined ? [] : [[path, type ?? ""] as const];
      }),
    );
  }

  /** Returns XML of a page with the names of imported definitions. */
  readonly words = (words: string): string => this.renamed(words, "content");

  private renamed(words: string, scope: "content" | "styles"): string {
    return withAttributeValues(words, (name, value) => {
      if (NAMING.has(name))
        return name === "class-names" || name === "stroke-dash-names"
          ? value
              .split(" ")
              .map((one) => this.named(one, scope) ?? one)
              .join(" ")
          : this.named(value, scope, name);
      if (name === "font-name" || name.startsWith("font-name-")) this.face(value);
      if (scope === "content" && IDS.has(name) && value)
        return value
          .split(" ")
          .map((id) => this.prefix + id)
          .join(" ");
      return name === "href" ? this.led(value) : undefined;
    });
  }

  /** Returns the imported name of a definition; undefined when there is none of this name. */
  private named(name: string, scope: "content" | "styles", attribute = ""): string | undefined {
    if (name === "") return undefined;
    const own = scope === "content" ? this.content : this.automatic;
    if (!own.has(name) && !this.common.has(name)) return undefined;
    if (attribute === "page-layout-name" && this.room.pageLayout !== undefined && this.layouts.has(name))
      return this.room.pageLayout;
    for (const one of own.get(name) ?? [])
      this.take(one, scope === "content" ? (one.list === "presentation" ? "declared" : "content") : "automatic", scope);
    for (const one of this.common.get(name) ?? [])
      this.take(one, one.list === "master-styles" ? "masters" : "common", "styles");
    return this.prefix + name;
  }

  private take(one: Definition, list: ImportedList, scope: "content" | "styles"): void {
    const key = `${list} ${one.family ?? /<([\w:-]+)/.exec(one.words)?.[1]} ${one.name}`;
    if (this.taken.has(key) || one.list === "font-face-decls") return;
    this.taken.add(key);
    const place = this.lists[list].push("") - 1;
    const named = this.renamed(one.words, scope).replace(
      /(\s(?:style|draw|presentation):name\s*=\s*)("[^"]*"|'[^']*')/,
      (_, start: string) => `${start}"${this.prefix}${one.name}"`,
    );
    // Users know a master by its display name, which is kept.
    const shown =
      list === "masters" && !/^<[^>]*\sstyle:display-name=/.test(named)
        ? named.replace(/^<[\w:-]+/, (open) => `${open} style:display-name="${one.name}"`)
        : named;
    this.lists[list][place] = this.withDefaults(shown, one);
    // The styles of a master's placeholders are named after it.
    if (list === "masters")
      for (const [name, styles] of this.common)
        if (name.startsWith(`${one.name}-`)) for (const style of styles) this.take(style, "common", "styles");
  }

  /** A style without a parent gets the defaults of its own presentation as its parent. */
  private withDefaults(words: string, { family }: Definition): string {
    const given =
      family === undefined
        ? undefined
        : (this.defaults.get(family) ?? (family === "presentation" ? this.defaults.get("graphic") : undefined));
    const tag = words.slice(0, words.indexOf(">"));
    if (
      family === undefined ||
      given === undefined ||
      !/^<[\w]+:style\s/.test(tag) ||
      /parent-style-name\s*=/.test(tag)
    )
      return words;
    const name = `${this.prefix}default`;
    if (!this.taken.has(`defaults ${family}`)) {
      this.taken.add(`defaults ${family}`);
      this.lists.common.push(
        this.renamed(given, "styles")
          .replace(/default-style(?=[\s/>])/g, "style")
          .replace(
            /(\sstyle:family\s*=\s*)("[^"]*"|'[^']*')/,
            (_, start: string) => `${start}"${family}" style:name="${name}"`,
          ),
      );
    }
    return words.replace(/^<[\w]+:style(?=\s)/, (open) => `${open} style:parent-style-name="${name}"`);
  }

  private face(name: string): void {
    const found = [...(this.content.get(name) ?? []), ...(this.common.get(name) ?? [])].find(
      ({ list }) => list === "font-face-decls",
    );
    if (!found || this.taken.has(`face ${name}`)) return;
    this.taken.add(`face ${name}`);
    this.lists.faces.push(found.words);
  }

  /** Returns the target of an address there: a page by its new name, or an imported part. */
  private led(value: string): string | undefined {
    if (value.startsWith("#")) {
      const page = this.pageName(decoded(value.slice(1)));
      return page === undefined ? undefined : `#${escaped(page)}`;
    }
    const [, dot = "", inside = ""] = /^(\.\/)?(.*?)\/?$/.exec(value) ?? [];
    const path =
      this.file.has(decoded(inside)) || this.inside(decoded(inside)).length ? this.path(decoded(inside)) : undefined;
    return path === undefined ? undefined : dot + escaped(path);
  }

  private inside(folder: string): string[] {
    return folder === "" ? [] : this.file.paths.filter((path) => path.startsWith(`${folder}/`));
  }

  /** Returns the path there of a part, or of a document with all its parts. */
  private path(from: string): string {
    const known = this.paths.get(from);
    if (known !== undefined) return known;
    const type = (path: string) => this.types.get(path) ?? "";
    const put = (path: string, to: string) => {
      const part = this.file.part(path);
      if (part === undefined) return;
      this.room.put(to, part);
      this.entries.set(to, type(path));
    };
    const part = this.file.part(from);
    let to = from;
    if (part !== undefined) {
      const there = this.room.at(from);
      if (there !== undefined && !samePart(there, part)) to = from.replace(/[^/]*$/, (name) => `${this.prefix}${name}`);
      put(from, to);
    } else {
      if (!this.room.free(from)) to = from.replace(/[^/]*$/, (name) => `${this.prefix}${name}`);
      if (this.types.has(`${from}/`)) this.entries.set(`${to}/`, type(`${from}/`));
      for (const path of this.inside(from)) put(path, to + path.slice(from.length));
    }
    this.paths.set(from, to);
    return to;
  }
}

const decoded = (value: string) => {
  const plain = value
    .replace(/&amp;/g, "&")
    .replace(/&quot;/g, '"')
    .replace(/&apos;/g, "'")
    .replace(/&lt;/g, "<")
    .replace(/&gt;/g, ">");
  try {
    return decodeURIComponent(plain);
  } catch {
    return plain;
  }
};
const escaped = (value: string) => value.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/"/g, "&quot;");
