import { cutText, Language, must, textOf } from "@unitext/core/model";
import { type Block, htmlBlocks } from "@unitext/core/text";
import { type DocumentRead, emptyDocument } from "../../shared/document/document";
import { fromBase64 } from "../../shared/archive";
import { mathmlTex } from "../../shared/math";

const attribute = (html: string, tag: string, name: string) =>
  new RegExp(`<${tag}\\b[^>]*?\\s${name}\\s*=\\s*["']?([^"'\\s>]+)`, "i").exec(html)?.[1];

/** Returns the encoding that a page declares; undefined when it declares none. */
export function htmlEncoding(head: string): string | undefined {
  return /<meta[^>]+charset\s*=\s*["']?([\w-]+)/i.exec(head)?.[1]?.toLowerCase();
}

/** Takes embedded pictures out of the page; linked ones are not fetched. */
function taken(blocks: readonly Block[], document: DocumentRead): Block[] {
  return blocks.map((block): Block => {
    if (block.kind !== "picture") return block;
    const { source } = block.picture;
    const data = /^data:image\/(png|jpe?g);base64,([\s\S]+)$/i.exec(source);
    if (data) {
      const name = `pictures/picture-${document.pictures.size + 1}.${data[1]?.toLowerCase() === "png" ? "png" : "jpeg"}`;
      document.pictures.set(name, fromBase64(decodeURIComponent(must(data[2])).replace(/\s+/g, "")));
      return { ...block, picture: { ...block.picture, source: name } };
    }
    if (/^(https?:)?\/\//i.test(source))
      document.problems.push({
        line: block.from,
        message: `The picture ${cutText(source, 120)} is on the web and was not fetched; its place is kept. Drop its file to see it.`,
      });
    else if (/^data:/i.test(source))
      document.problems.push({
        line: block.from,
        message: "A picture inside the page is of a kind that is not read (PNG and JPEG are); its place is kept.",
      });
    return {
      ...block,
      picture: {
        ...block.picture,
        source: source.startsWith("data:") ? `pictures/unread-${block.from}` : cutText(source, 1000),
      },
    };
  });
}

/** Returns a text of HTML without tags with its character references decoded. */
const entitiesDecoded = (text: string): string =>
  htmlBlocks(`<p>${text}</p>`)
    .map((block) => ("text" in block ? textOf(block.text) : ""))
    .join(" ");

/** Returns the title of a page: its first heading of level 1, where the page's own title only adds the name of its site. */
function titleOf(title: string, blocks: readonly Block[]): string {
  const first = blocks.find((block) => block.kind === "heading");
  const heading = first?.kind === "heading" && first.depth === 1 ? textOf(first.text).trim() : "";
  return heading !== "" && title.startsWith(heading) ? heading : title;
}

/** Reads an HTML page, or HTML from the clipboard: headings, lists, tables, pictures, links, footnotes, formulas. */
export function readHtml(html: string): DocumentRead {
  const document = emptyDocument();
  const title = /<title[^>]*>([\s\S]*?)<\/title>/i.exec(html)?.[1]?.replace(/\s+/g, " ").trim();
  const language = Language.safeParse(attribute(html, "html", "lang") ?? "");
  const author = /<meta[^>]+name\s*=\s*["']author["'][^>]*content\s*=\s*["']([^"']+)["']/i.exec(html)?.[1];
  if (author) document.front.author = entitiesDecoded(author);
  if (language.success) document.front.language = language.data;
  const body = /<body[^>]*>([\s\S]*?)(<\/body>|$)/i.exec(html)?.[1] ?? html;
  // Word processors mark their clipboard content with comments.
  const fragment = /<!--StartFragment-->([\s\S]*?)<!--EndFragment-->/.exec(body)?.[1] ?? body;
  document.blocks = taken(htmlBlocks(fragment, mathmlTex), document);
  if (title) document.front.title = titleOf(entitiesDecoded(title), document.blocks);
  return document;
}
