import {
  type Element,
  elementTexts,
  escapeXml,
  readingOrder,
  type RichText,
  type Run,
  type Slide,
  titleElement,
} from "@unitext/core/model";

const MARKS: Record<string, string> = { strong: "strong", emphasis: "em", strike: "s", code: "code", formula: "code" };

/** Returns the address of a link on a page; undefined where the page has no target for it. */
export type Href = (to: string) => string | undefined;

function inlineHtml(runs: readonly Run[], href: Href): string {
  return runs
    .map(({ text, marks, link, footnote }) => {
      if (footnote) return `<small> (${inlineHtml(footnote, href)})</small>`;
      const words = escapeXml(text).replace(/\n/g, "<br>");
      const marked = (marks ?? []).reduce((inner, mark) => `<${MARKS[mark]}>${inner}</${MARKS[mark]}>`, words);
      const target = link === undefined ? undefined : href(link);
      return target === undefined ? marked : `<a href="${escapeXml(target)}">${marked}</a>`;
    })
    .join("");
}

/** Returns paragraphs and nested lists as HTML. */
export function textHtml(text: RichText, href: Href): string {
  let html = "";
  const open: string[] = [];
  const close = (depth: number) => {
    while (open.length > depth) html += `</li></${open.pop()}>`;
  };
  for (const { kind, level, start, runs } of text) {
    const inner = inlineHtml(runs, href);
    if (kind === "plain") {
      if (level > 0 && open.length) {
        close(Math.max(1, level));
        html += `<p>${inner}</p>`;
        continue;
      }
      close(0);
      html += `<p>${inner}</p>`;
      continue;
    }
    const tag = kind === "number" ? "ol" : "ul";
    close(level + 1);
    if (open.length === level + 1 && open.at(-1) === tag && start === undefined) html += "</li>";
    else {
      if (open.length === level + 1) close(level);
      while (open.length < level + 1) {
        html += open.length < level ? "<ul><li>" : `<${tag}${start === undefined ? "" : ` start="${start}"`}>`;
        open.push(open.length < level ? "ul" : tag);
      }
    }
    html += `<li>${inner}`;
  }
  close(0);
  return html;
}

/** Returns the words of an element, for readers who do not see the drawing. */
function elementHtml(element: Element, href: Href): string {
  if (element.kind === "picture")
    return `<p>${escapeXml(["Picture", element.alt, element.caption].filter(Boolean).join(": "))}</p>`;
  if (element.kind === "code") return `<pre>${escapeXml(element.text)}</pre>`;
  if (element.kind === "formula") return `<p>${escapeXml(element.tex)}</p>`;
  if (element.kind === "table") {
    const cell = (tag: string) => (one: (typeof element.rows)[number][number]) =>
      one
        ? `<${tag}${one.columns ? ` colspan="${one.columns}"` : ""}${one.rows ? ` rowspan="${one.rows}"` : ""}>${textHtml(one.text, href)}</${tag}>`
        : "";
    return `<table>${element.caption ? `<caption>${escapeXml(element.caption)}</caption>` : ""}${element.rows.map((row, y) => `<tr>${row.map(cell(y < element.header ? "th" : "td")).join("")}</tr>`).join("")}</table>`;
  }
  if (element.kind === "chart")
    return `<table><tr><th></th>${element.series.map(({ name }) => `<th>${escapeXml(name)}</th>`).join("")}</tr>${element.categories.map((name, at) => `<tr><th>${escapeXml(name)}</th>${element.series.map(({ values }) => `<td>${values[at] ?? ""}</td>`).join("")}</tr>`).join("")}</table>`;
  return elementTexts(element)
    .map((text) => textHtml(text, href))
    .join("");
}

/** Returns the words of a slide as HTML, in reading order, for assistive technology and search. */
export function slideWords(slide: Slide, href: Href): string {
  const title = titleElement(slide);
  const heading = title?.text.flatMap(({ runs }) => runs);
  const others = readingOrder(slide).filter((element) => element !== title);
  const html = [
    ...(heading ? [`<h2>${inlineHtml(heading, href)}</h2>`] : []),
    ...others.map((element) => elementHtml(element, href)),
  ];
  return html.join("").replace(/<a /g, '<a tabindex="-1" ');
}
