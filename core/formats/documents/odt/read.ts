import {
  cutText,
  Failure,
  footnote,
  joinRuns,
  Language,
  type Mark,
  MAX_LEVEL,
  type Paragraph,
  paragraphText,
  type Run,
  run,
  must,
} from "@unitext/core/model";
import { type Block, linkTarget, trimmed } from "@unitext/core/text";
import { partText, type Parts, unzip } from "../../shared/archive";
import { at, child, childrenOf, localName, readMixed, type XmlNode, attribute } from "../../shared/xml";
import { type DocumentRead, emptyDocument } from "../../shared/document/document";
import { mathmlTex } from "../../shared/math";
import { Styles } from "./styles";
import { readTable } from "./table";

interface Context {
  marks: readonly Mark[];
  link: string | undefined;
}

class OdtReader {
  readonly document: DocumentRead = emptyDocument();
  private readonly parts: Parts;
  private readonly styles = new Styles();
  private number = 0;

  constructor(
    bytes: Uint8Array,
    private readonly name: string,
  ) {
    this.parts = unzip(bytes, name);
    const manifest = this.parts.get("META-INF/manifest.xml");
    if (manifest && /encryption-data/.test(partText(manifest)))
      throw new Failure(
        "not-readable",
        name,
        "The document is protected by a password. Save it without one and bring it in again.",
      );
  }

  private part(path: string, needed: boolean): XmlNode | undefined {
    if (!this.parts.has(path)) {
      if (needed)
        throw new Failure(
          "not-readable",
          this.name,
          `The document's part ${path} is missing; it is damaged or of another kind.`,
        );
      return undefined;
    }
    try {
      return readMixed(partText(must(this.parts.get(path))), path);
    } catch (error) {
      if (needed) throw error;
      this.document.problems.push({ line: 1, message: `The document's part ${path} is damaged and was passed over.` });
      return undefined;
    }
  }

  read(): DocumentRead {
    const content = must(this.part("content.xml", true));
    const text = at(content, "body", "text");
    if (!text)
      throw new Failure(
        "not-readable",
        this.name,
        at(content, "body", "presentation")
          ? "The file is a presentation, not a text document."
          : "The document has no text.",
      );
    const styles = this.part("styles.xml", false);
    for (const holder of [
      child(styles, "styles"),
      child(styles, "automatic-styles"),
      child(content, "automatic-styles"),
    ])
      this.styles.add(holder);
    this.properties(styles);
    this.blocks(text.children, this.document.blocks);
    return this.document;
  }

  private properties(styles: XmlNode | undefined): void {
    const { front } = this.document;
    const meta = at(this.part("meta.xml", false), "meta");
    const said = (name: string) => child(meta, name)?.text.trim() ?? "";
    if (said("title")) front.title = cutText(said("title"), 500);
    if (said("creator") || said("initial-creator"))
      front.author = cutText(said("initial-creator") || said("creator"), 500);
    const words = childrenOf(child(styles, "styles"), "default-style")
      .map((style) => child(style, "text-properties"))
      .find((found) => attribute(found, "language"));
    const [code, country] = [attribute(words, "language"), attribute(words, "country")];
    const language = Language.safeParse(
      said("language") ||
        (code && code !== "none" ? (country && country !== "none" ? `${code}-${country}` : code) : ""),
    );
    if (language.success) front.language = language.data;
  }

  say(message: string): void {
    this.document.problems.push({ line: this.number, message });
  }

  private push(into: Block[], block: Record<string, unknown>): void {
    into.push({ ...block, from: this.number, to: this.number } as unknown as Block);
  }

  blocks(children: readonly XmlNode[], into: Block[]): void {
    for (const element of children) {
      switch (localName(element)) {
        case "h":
        case "p":
          this.paragraph(element, into);
          break;
        case "list":
          this.list(element, into);
          break;
        case "table":
          this.table(element, into);
          break;
        case "section":
        case "index-body":
          this.blocks(element.children, into);
          break;
        case "table-of-content":
          this.say("The document's table of contents is left out; the slides have their own order.");
          break;
        case "bibliography":
          this.blocks(
            childrenOf(element, "index-body").flatMap((body) => body.children),
            into,
          );
          break;
        case "frame":
        case "a":
          this.frame(element, into);
          break;
        default:
      }
    }
  }

  private paragraph(element: XmlNode, into: Block[]): void {
    this.number += 1;
    const chain = this.styles.chain(attribute(element, "style-name"));
    const names = chain.map(({ name }) => name);
    const after: Block[] = [];
    const runs = trimmed(
      joinRuns(
        this.inline(
          element,
          { marks: this.styles.marks(chain, [], localName(element) === "h"), link: undefined },
          after,
        ),
      ),
    );
    const finish = (): void => {
      into.push(...after);
    };
    if (!runs.length) return finish();
    if (runs.length === 1 && runs[0]?.marks?.join() === "formula") {
      this.push(into, { kind: "figure", figure: { kind: "formula", tex: runs[0].text } });
      return finish();
    }
    const text = paragraphText({ kind: "plain", level: 0, runs });
    const outline =
      localName(element) === "h"
        ? Number(attribute(element, "outline-level") ?? 1)
        : chain.find(({ outline: level }) => level)?.outline;
    if (names.includes("title") || outline) {
      if (names.includes("title") && !this.document.front.title) this.document.front.title = cutText(text, 500);
      const words = runs.map((item) => ({ ...item, text: item.text.replace(/\n/g, " ") }));
      this.push(into, {
        kind: "heading",
        depth: names.includes("title") ? 1 : Math.min(6, outline ?? 1),
        text: [{ kind: "plain", level: 0, runs: words }],
      });
      return finish();
    }
    const last = into.at(-1);
    const next = last?.to === this.number - 1 ? last : undefined;
    if (
      names.some((name) => /^(preformatted text|source code|code)$/.test(name)) ||
      runs.every(({ marks, footnote: noted }) => marks?.join() === "code" && !noted)
    ) {
      if (next?.kind === "figure" && next.figure.kind === "code") {
        next.figure.text += `\n${text}`;
        next.to = this.number;
      } else this.push(into, { kind: "figure", figure: { kind: "code", language: "", text } });
    } else if (names.some((name) => /quotation|^quote/.test(name))) {
      if (next?.kind === "quote") {
        next.text.push({ kind: "plain", level: 0, runs });
        next.to = this.number;
      } else this.push(into, { kind: "quote", text: [{ kind: "plain", level: 0, runs }] });
    } else if (
      names.some((name) => /^(table|figure|illustration|caption|drawing)$/.test(name)) &&
      (next?.kind === "picture" || (next?.kind === "figure" && next.figure.kind === "table"))
    ) {
      if (next.kind === "picture") next.picture.caption = cutText(text, 2000);
      else if (next.kind === "figure" && next.figure.kind === "table") next.figure.caption = cutText(text, 2000);
    } else {
      const side = chain.find(({ align }) => align)?.align;
      this.push(into, { kind: "text", text: [{ kind: "plain", level: 0, ...(side ? { align: side } : {}), runs }] });
    }
    finish();
  }

  private inline(element: XmlNode, context: Context, after: Block[]): Run[] {
    const runs: Run[] = [];
    const add = (text: string) => runs.push(run(text, context.marks, context.link));
    for (const part of element.content) {
      if (typeof part === "string") {
        add(part.replace(/[\s]+/g, " "));
        continue;
      }
      switch (localName(part)) {
        case "span":
          runs.push(
            ...this.inline(
              part,
              { ...context, marks: this.styles.marks(this.styles.chain(attribute(part, "style-name")), context.marks) },
              after,
            ),
          );
          break;
        case "a":
          runs.push(
            ...this.inline(
              part,
              { ...context, link: linkTarget(attribute(part, "href") ?? "") ?? context.link },
              after,
            ),
          );
          break;
        case "s":
          add(" ".repeat(Math.min(200, Number(attribute(part, "c") ?? 1) || 1)));
          break;
        case "tab":
          add(" ");
          break;
        case "line-break":
          add("\n");
          break;
        case "note": {
          const body = child(part, "note-body");
          const said = (body?.children ?? [])
            .flatMap((paragraph, nth) => [
              ...(nth ? [run(" ")] : []),
              ...this.inline(paragraph, { marks: [], link: undefined }, []),
            ])
            .filter(({ footnote: inner }) => !inner);
          runs.push(footnote(trimmed(joinRuns(said))));
          break;
        }
        case "annotation": {
          const words = childrenOf(part, "p")
            .map((paragraph) =>
              paragraphText({
                kind: "plain",
                level: 0,
                runs: this.inline(paragraph, { marks: [], link: undefined }, []),
              }),
            )
            .join(" ")
            .trim();
          if (words)
            this.push(after, { kind: "notes", text: [{ kind: "plain", level: 0, runs: [run(`Comment: ${words}`)] }] });
          break;
        }
        case "frame": {
          const formula = this.formula(part);
          if (formula) runs.push(run(formula, ["formula"]));
          else this.frame(part, after, context.link);
          break;
        }
        case "note-citation":
        case "tracked-changes":
        case "change":
        case "change-start":
        case "change-end":
        case "bookmark":
        case "bookmark-start":
        case "bookmark-end":
        case "soft-page-break":
          break;
        default:
          runs.push(...this.inline(part, context, after));
      }
    }
    return runs;
  }

  private formula(frame: XmlNode): string | undefined {
    const object = child(frame, "object");
    if (!object) return undefined;
    const path = (attribute(object, "href") ?? "").replace(/^\.\//, "");
    const inner = child(object, "math") ?? (path ? this.part(`${path}/content.xml`, false) : undefined);
    if (!inner || localName(inner) !== "math") return undefined;
    return mathmlTex(inner).trim() || undefined;
  }

  /** Reads the picture or text box of a frame; a link may enclose it, or the words around it. */
  private frame(element: XmlNode, into: Block[], around?: string): void {
    const link = localName(element) === "a" ? linkTarget(attribute(element, "href") ?? "") : around;
    const frame = localName(element) === "a" ? child(element, "frame") : element;
    if (!frame) return;
    const alt = (child(frame, "desc") ?? child(frame, "title"))?.text.trim() ?? "";
    const image = child(frame, "image");
    const box = child(frame, "text-box");
    if (box) {
      // A picture with its caption is in a box of its own.
      const held: Block[] = [];
      this.blocks(box.children, held);
      const picture = held.find((block) => block.kind === "picture");
      const [words, ...others] = held.filter((block) => block.kind === "text");
      if (picture?.kind === "picture" && words?.kind === "text" && !others.length) {
        picture.picture.caption = cutText(words.text.map(paragraphText).join(" ").trim(), 2000);
        into.push(picture);
      } else into.push(...held);
    } else if (image) {
      const path = (attribute(image, "href") ?? "").replace(/^\.\//, "");
      const bytes = this.parts.get(path);
      const source = path.startsWith("Pictures/")
        ? path
        : `pictures/${path.split("/").at(-1) || `missing-${this.number}`}`;
      if (bytes) this.document.pictures.set(source, bytes);
      else this.say(`The picture “${alt || source}” is not inside the document; its place is kept.`);
      this.push(into, { kind: "picture", picture: { kind: "picture", source, alt, ...(link ? { link } : {}) } });
    } else this.say(`An object${alt ? ` (“${alt}”)` : ""} of a kind that is not read is left out.`);
  }

  private list(element: XmlNode, into: Block[]): void {
    const text: Paragraph[] = [];
    const after: Block[] = [];
    let from = this.number + 1;
    const walk = (list: XmlNode, level: number, inherited: string | undefined) => {
      const style = attribute(list, "style-name") ?? inherited;
      const kind = this.styles.listKind(style, level);
      if (level > MAX_LEVEL)
        this.say(`Lists nest to ${MAX_LEVEL + 1} levels; deeper items are raised to the last of them.`);
      for (const item of list.children) {
        if (!["list-item", "list-header"].includes(localName(item))) continue;
        let begun = false;
        for (const part of item.children) {
          if (localName(part) === "list") {
            walk(part, level + 1, style);
            continue;
          }
          if (localName(part) === "h") {
            // A numbered heading is written as a list item.
            if (text.length) this.push(into, { kind: "text", text: text.splice(0) });
            this.paragraph(part, into);
            from = this.number + 1;
            continue;
          }
          if (localName(part) !== "p") {
            this.blocks([part], after);
            continue;
          }
          this.number += 1;
          const runs = trimmed(
            joinRuns(
              this.inline(
                part,
                { marks: this.styles.marks(this.styles.chain(attribute(part, "style-name")), []), link: undefined },
                after,
              ),
            ),
          );
          if (runs.length)
            text.push({
              kind: begun || localName(item) === "list-header" ? "plain" : kind,
              level: Math.min(MAX_LEVEL, level + (begun ? 1 : 0)),
              runs,
            });
          begun = true;
        }
      }
    };
    walk(element, 0, undefined);
    if (text.length) into.push({ kind: "text", text, from, to: this.number });
    into.push(...after);
  }

  private table(element: XmlNode, into: Block[]): void {
    this.number += 1;
    const from = this.number;
    const read = readTable(element, this);
    if (read) into.push({ kind: "figure", figure: read.figure, from, to: this.number }, ...read.after);
  }
}

/**
 * Reads a text document in OpenDocument 1.2 or 1.3: headings by outline level, lists, tables with merged cells,
 * pictures, footnotes and endnotes, links, formulas, comments. Tracked changes count as accepted; what is not read is
 * reported. Throws a Failure for a file that is not such a document.
 */
export function readOdt(bytes: Uint8Array, name: string): DocumentRead {
  return new OdtReader(bytes, name).read();
}
