import { cellsOf, tableFigure, tableRows } from "./htmltable";
import {
  cutText,
  type Align,
  footnote,
  joinRuns,
  MAX_LEVEL,
  type Paragraph,
  type RichText,
  type Run,
  run,
} from "@unitext/core/model";
import type { Element as HtmlElement, Nodes, Root } from "hast";
import { fromHtml } from "hast-util-from-html";
import { flattened } from "./htmldepth";
import { trimmed } from "./inline";
import { type Block, linkTarget } from "./manuscript";
import {
  type MathReader,
  isElement,
  NONE,
  type Context,
  isNavigation,
  SKIPPED,
  styleOf,
  BLOCKS,
  classes,
  marksOf,
  find,
  footnotesIn,
  textIn,
  mathElement,
  without,
  at0,
} from "./htmlnodes";

/** Returns a number that an item can have; undefined for anything else. */
function wholeNumber(value: unknown): number | undefined {
  const number = typeof value === "string" || typeof value === "number" ? Number(value) : Number.NaN;
  return Number.isInteger(number) && number >= 0 && number <= 1_000_000 ? number : undefined;
}

class HtmlReader {
  readonly blocks: Block[] = [];
  private waiting: Run[] = [];
  private readonly notes: Map<string, HtmlElement>;
  private line = 1;

  constructor(
    private readonly root: Root,
    private readonly math: MathReader | undefined,
  ) {
    this.notes = footnotesIn(root);
  }

  read(): Block[] {
    for (const node of this.root.children) this.node(node as Nodes, NONE);
    this.flush();
    return this.blocks;
  }

  private push(block: Record<string, unknown>): void {
    this.blocks.push({ ...block, from: this.line, to: this.line } as unknown as Block);
  }

  /** Makes a paragraph of the loose words collected so far. */
  private flush(align?: Align): void {
    const runs = trimmed(joinRuns(this.waiting.filter(({ link }) => link !== "note")));
    this.waiting = [];
    if (runs.length)
      this.push({ kind: "text", text: [{ kind: "plain", level: 0, ...(align ? { align } : {}), runs }] });
  }

  private node(node: Nodes, context: Context): void {
    if (node.type === "text") {
      this.waiting.push(
        run(
          context.pre ? node.value : node.value.replace(/[\s]+/g, " ").replace(/\u00a0/g, "\u00a0"),
          context.marks,
          context.link,
        ),
      );
      return;
    }
    if (
      !isElement(node) ||
      SKIPPED.has(node.tagName) ||
      isNavigation(node) ||
      "hidden" in node.properties ||
      /display:\s*none|mso-hide:\s*all/.test(styleOf(node)) ||
      this.isNote(node)
    )
      return;
    this.line = node.position?.start.line ?? this.line;
    const { tagName } = node;
    if (/^h[1-6]$/.test(tagName)) return this.heading(node, Number(tagName[1]));
    if (tagName === "br") {
      this.waiting.push(run("\n", context.marks, context.link));
      return;
    }
    if (tagName === "img") return this.picture(node, undefined, context.link);
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
      for (const child of node.children) this.node(child as Nodes, inner);
      const align = /text-align:\s*(center|right)/.exec(
        `${styleOf(node)};text-align:${String(node.properties.align ?? (tagName === "center" ? "center" : ""))}`,
      )?.[1];
      this.flush(align === "center" ? "centre" : align === "right" ? "end" : undefined);
      return;
    }
    for (const child of node.children) this.node(child as Nodes, inner);
  }

  private isNote(node: HtmlElement): boolean {
    const id = String(node.properties.id ?? "");
    return (
      (id !== "" && this.notes.get(id) === node) ||
      (/\bfootnotes\b|\bdoc-endnotes\b/.test(`${classes(node)} ${String(node.properties.role ?? "")}`) &&
        this.notes.size > 0)
    );
  }

  private inside(node: HtmlElement, context: Context): Context {
    if (node.tagName === "a") {
      const href = String(node.properties.href ?? "");
      const note = href.startsWith("#") ? this.notes.get(href.slice(1)) : undefined;
      if (note) {
        this.waiting.push(footnote(this.noteRuns(note)));
        return { ...context, link: "note" };
      }
      return {
        ...context,
        link: href.startsWith("#") ? context.link : (linkTarget(href) ?? context.link),
        marks: marksOf(node, context.marks),
      };
    }
    return { ...context, marks: marksOf(node, context.marks) };
  }

  private noteRuns(note: HtmlElement): Run[] {
    const back = (node: Nodes): Nodes =>
      "children" in node
        ? ({
            ...node,
            children: node.children
              .filter(
                (child) =>
                  !(
                    isElement(child as Nodes) &&
                    (child as HtmlElement).tagName === "a" &&
                    /^#.*ref/i.test(String((child as HtmlElement).properties.href ?? ""))
                  ),
              )
              .map((child) => back(child as Nodes)),
          } as Nodes)
        : node;
    const reader = new HtmlReader({ type: "root", children: (back(note) as HtmlElement).children }, this.math);
    const texts = reader.read().flatMap((block) => ("text" in block ? block.text : []));
    return texts
      .flatMap(({ runs }, at) => [...(at ? [run(" ")] : []), ...runs])
      .map(({ text, marks, link }) => run(at0(text), marks, link));
  }

  private inline(node: HtmlElement, context: Context = NONE): Run[] {
    const outer = this.waiting;
    this.waiting = [];
    for (const child of node.children) this.inlineNode(child as Nodes, context);
    const runs = trimmed(joinRuns(this.waiting.filter(({ link }) => link !== "note")));
    this.waiting = outer;
    return runs;
  }

  private inlineNode(node: Nodes, context: Context): void {
    if (isElement(node) && BLOCKS.has(node.tagName) && !["table", "pre"].includes(node.tagName)) {
      if (this.waiting.some(({ text }) => text.trim() !== "") && !this.waiting.at(-1)?.text.endsWith("\n"))
        this.waiting.push(run("\n"));
      for (const child of node.children) this.inlineNode(child as Nodes, this.inside(node, context));
      return;
    }
    if (
      isElement(node) &&
      !SKIPPED.has(node.tagName) &&
      !isNavigation(node) &&
      !["img", "br", "math", "hr", "table", "pre"].includes(node.tagName)
    ) {
      const inner = this.inside(node, context);
      for (const child of node.children) this.inlineNode(child as Nodes, inner);
      return;
    }
    this.node(node, context);
  }

  private heading(node: HtmlElement, depth: number): void {
    this.flush();
    const { line } = this;
    const runs = this.inline(node).map((item) =>
      item.text.includes("\n") ? { ...item, text: item.text.replace(/\n/g, " ") } : item,
    );
    if (runs.length)
      this.blocks.push({
        kind: "heading",
        depth: Math.min(6, Math.max(1, depth)),
        text: [{ kind: "plain", level: 0, runs }],
        from: line,
        to: line,
      });
  }

  private picture(node: HtmlElement, caption?: string, link?: string): void {
    const source = String(node.properties.src ?? "");
    const alt = String(node.properties.alt ?? "");
    if (!source) {
      if (alt) this.waiting.push(run(alt));
      return;
    }
    const width = /^(\d+)%$/.exec(String(node.properties.width ?? ""))?.[1];
    this.flush();
    this.push({
      kind: "picture",
      picture: {
        kind: "picture",
        source,
        alt,
        ...(caption ? { caption: cutText(caption, 2000) } : {}),
        ...(width ? { width: Math.min(100, Math.max(1, Number(width))) } : {}),
        ...(link ? { link } : {}),
      },
    });
  }

  private figure(node: HtmlElement): void {
    this.flush();
    const captionNode = find(node, ({ tagName }) => tagName === "figcaption");
    const image = find(node, ({ tagName }) => tagName === "img");
    const caption = captionNode ? textIn(captionNode).replace(/\s+/g, " ").trim() : undefined;
    const table = find(node, ({ tagName }) => tagName === "table");
    if (table && !image) return this.table(table, caption);
    if (image) return this.picture(image, caption);
    for (const child of node.children) this.node(child as Nodes, NONE);
    this.flush();
  }

  private formula(node: HtmlElement, context: Context): void {
    const annotation = find(
      node,
      ({ tagName, properties }) => tagName === "annotation" && /x-tex/i.test(String(properties.encoding ?? "")),
    );
    const tex = annotation
      ? textIn(annotation).trim()
      : (this.math?.(mathElement(node)).replace(/\s+/g, " ").trim() ?? "");
    if (!tex) {
      this.waiting.push(run(textIn(node).replace(/\s+/g, " ").trim(), context.marks, context.link));
      return;
    }
    if (node.properties.display === "block") {
      this.flush();
      this.push({ kind: "figure", figure: { kind: "formula", tex } });
    } else this.waiting.push(run(tex, ["formula"], context.link));
  }

  private code(node: HtmlElement): void {
    this.flush();
    const language =
      /(?:language|lang|highlight-source)-([\w+#-]+)/.exec(
        `${classes(node)} ${node.children.map((child) => (isElement(child as Nodes) ? classes(child as HtmlElement) : "")).join(" ")}`,
      )?.[1] ?? "";
    const text = textIn(node).replace(/^\n|\n$/g, "");
    if (text.trim()) this.push({ kind: "figure", figure: { kind: "code", language: cutText(language, 40), text } });
  }

  private quote(node: HtmlElement): void {
    this.flush();
    const inner = new HtmlReader({ type: "root", children: node.children }, this.math).read();
    const text = inner.flatMap((block) => ("text" in block ? block.text : []));
    if (text.length) this.push({ kind: "quote", text });
    this.blocks.push(...inner.filter((block) => !("text" in block)));
  }

  private list(node: HtmlElement, level: number, context: Context): { text: RichText; after: Block[] } {
    const text: Paragraph[] = [];
    const after: Block[] = [];
    const at = Math.min(level, MAX_LEVEL);
    let start = wholeNumber(node.properties.start);
    for (const child of node.children) {
      if (!isElement(child as Nodes)) continue;
      const item = child as HtmlElement;
      if (item.tagName === "ul" || item.tagName === "ol") {
        const nested = this.list(item, level + 1, context);
        text.push(...nested.text);
        after.push(...nested.after);
        continue;
      }
      const kind = node.tagName === "ol" ? "number" : "bullet";
      start = wholeNumber(item.properties.value) ?? start;
      const first = kind === "number" && start !== undefined ? { start } : {};
      start = undefined;
      const own = item.tagName === "dd" ? Math.min(at + 1, MAX_LEVEL) : at;
      const inner = new HtmlReader({ type: "root", children: [] }, this.math);
      inner.notes.clear();
      for (const [id, note] of this.notes) inner.notes.set(id, note);
      const nested: RichText = [];
      let begun = false;
      const take = () => {
        inner.flush();
        for (const block of inner.blocks.splice(0)) {
          if (block.kind === "text" || block.kind === "heading" || block.kind === "quote") {
            for (const paragraph of block.text) {
              const runs =
                item.tagName === "dt"
                  ? paragraph.runs.map((piece) => run(piece.text, ["strong", ...(piece.marks ?? [])], piece.link))
                  : paragraph.runs;
              nested.push(
                begun
                  ? { ...paragraph, kind: "plain", level: Math.min(own + 1, MAX_LEVEL), runs }
                  : { kind, level: own, ...first, runs },
              );
              begun = true;
            }
          } else after.push(block);
        }
      };
      for (const part of item.children) {
        const list = isElement(part as Nodes) && ["ul", "ol", "dl"].includes((part as HtmlElement).tagName);
        if (!list) {
          inner.node(part as Nodes, context);
          continue;
        }
        take();
        if (!begun) nested.push({ kind, level: own, ...first, runs: [] });
        begun = true;
        const deeper = this.list(part as HtmlElement, level + 1, context);
        nested.push(...deeper.text);
        after.push(...deeper.after);
      }
      take();
      text.push(...nested);
    }
    return { text, after };
  }

  /**
   * A list item as word processors put it on the clipboard: a paragraph with its level in the style and its bullet as
   * text.
   */
  private officeItem(node: HtmlElement, context: Context): void {
    this.flush();
    const level = Math.min(MAX_LEVEL, Number(/level(\d+)/.exec(styleOf(node))?.[1] ?? 1) - 1);
    const marker = find(node, (element) => /mso-list:\s*ignore/.test(styleOf(element)));
    const sign = marker ? textIn(marker).trim() : "";
    const runs = this.inline({ ...node, children: without(node.children, marker) }, context);
    const paragraph: Paragraph = {
      kind: /\w[.)]?$/.test(sign) && /[\dA-Za-z]/.test(sign) && sign.length > 1 ? "number" : "bullet",
      level,
      runs,
    };
    const last = this.blocks.at(-1);
    if (last?.kind === "text" && last.text.at(-1)?.kind !== "plain") last.text.push(paragraph);
    else this.push({ kind: "text", text: [paragraph] });
  }

  private table(node: HtmlElement, caption?: string): void {
    this.flush();
    const rows = tableRows(node);
    const [only, ...others] = rows.rows.flatMap(cellsOf);
    if (only && !others.length) {
      // A table of one cell is a frame around its content.
      for (const child of only.children) this.node(child as Nodes, NONE);
      this.flush();
      return;
    }
    const figure = tableFigure(rows, (cell) => this.inline(cell), caption);
    if (figure) this.push({ kind: "figure", figure });
  }
}

/**
 * Returns the blocks that HTML shows, in order, with lines of the HTML. Scripts, styles and hidden elements are left
 * out. A formula without TeX is read by `math`, or shown as its characters.
 */
export function htmlBlocks(html: string, math?: MathReader): Block[] {
  return new HtmlReader(fromHtml(flattened(html), { fragment: true }), math).read();
}
