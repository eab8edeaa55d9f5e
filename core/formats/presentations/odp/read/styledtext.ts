import {
  canonical,
  isEmptyText,
  type LevelStyle,
  type Paragraph,
  type ParagraphProperties,
  type RichText,
  run,
  type RunProperties,
  type TextStyle,
  must,
} from "@unitext/core/model";
import { type XmlNode, attribute } from "../../../shared/xml";
import { alignOf, levelStyle } from "./styles";
import type { Properties } from "./properties";
import { type Found, paragraphs, type TextReader, spelled, inline, marksOf, primary, differing, unsaid } from "./text";

const LASTING = ["underline", "caps", "highlight", "rise"] as const;

/** A paragraph as it was found, with what its style sets and its runs. */
interface StyledParagraph extends Found {
  own: Properties;
  pieces: { text: string; state: Properties; link: string | undefined; look: RunProperties }[];
}

const isRtl = ({ paragraph }: Properties) => /^rl/.test(paragraph["writing-mode"] ?? "");

/** Reads one text: the style of its levels, and what its paragraphs and runs set beyond it. */
class StyledTextReader {
  /** The properties of each level, from those of the shape or of an outline. */
  private readonly byLevel: Properties[];
  private levels: LevelStyle[] = [];

  constructor(
    private readonly reader: TextReader,
    private readonly shape: Properties,
    outline: string | undefined,
  ) {
    const { styles } = reader;
    this.byLevel = Array.from({ length: 9 }, (_, level) => {
      const name = `${outline}${level + 1}`;
      const isOutline = outline !== undefined && level > 0 && styles.has("presentation", name);
      return isOutline ? styles.properties("presentation", name) : shape;
    });
  }

  read(children: readonly XmlNode[], blank: boolean): { text: RichText; style: TextStyle } {
    const { styles } = this.reader;
    const found = paragraphs(children, styles, this.shape.list);
    const firstList = found.find(({ list }) => list !== undefined)?.list ?? this.shape.list;
    this.levels = this.byLevel.map((properties, level) => this.levelStyle(properties, firstList, level));
    const styled = found.map((one) => this.styled(one));
    this.clearLasting(styled);
    const text = styled.map((one) => this.paragraph(one));
    const words: RichText = isEmptyText(text) && !blank ? [] : text;
    this.liftMark(
      words,
      "strong",
      ({ text: own }) => own["font-weight"] === "bold" || Number(own["font-weight"]) >= 600,
    );
    this.liftMark(words, "emphasis", ({ text: own }) => ["italic", "oblique"].includes(own["font-style"] ?? ""));
    const { levels } = this;
    while (levels.length > 1 && canonical(levels.at(-1)) === canonical(levels.at(-2))) levels.pop();
    return { text: words, style: levels };
  }

  /** Returns the run properties; the language only where it is not that of the deck. */
  private runProperties(properties: Properties): RunProperties {
    const { styles, automatic, language: usual } = this.reader;
    const { language, ...rest } = styles.runLook(properties, automatic);
    if (language === undefined || (usual !== undefined && primary(language) === primary(usual))) return rest;
    return { ...rest, language };
  }

  private levelStyle(properties: Properties, list: Found["list"], level: number): LevelStyle {
    const { styles } = this.reader;
    const indents = list === undefined ? styles.indents(properties) : (styles.listLevel(list, level)?.properties ?? {});
    return levelStyle(
      this.runProperties(properties),
      { ...styles.paragraphLook(properties), ...indents },
      alignOf(properties.paragraph["text-align"], isRtl(properties)),
    );
  }

  private styled(found: Found): StyledParagraph {
    const { styles } = this.reader;
    const own = styles.said("paragraph", attribute(found.element, "style-name"), must(this.byLevel[found.level]));
    const pieces: { text: string; state: Properties; link: string | undefined }[] = [];
    inline(found.element, this.reader, own, (state, style) => styles.said("text", style, state), undefined, pieces);
    return { ...found, own, pieces: pieces.map((piece) => ({ ...piece, look: this.runProperties(piece.state) })) };
  }

  /** Removes from the levels what a run without it could not switch off. */
  private clearLasting(styled: readonly StyledParagraph[]): void {
    for (const { level, pieces } of styled)
      for (const { look } of pieces)
        for (const name of LASTING) {
          const run = this.levels[level]?.run;
          if (look[name] !== undefined || run?.[name] === undefined) continue;
          const { [name]: _, ...rest } = run;
          this.levels[level] = { ...this.levels[level], run: rest };
        }
  }

  private paragraph({ kind, level, start, list, own, pieces }: StyledParagraph): Paragraph {
    const { styles } = this.reader;
    const style = this.levels[level];
    const runs = spelled(
      pieces.map(({ text, state, link, look }) =>
        run(text, marksOf(state, styles), link, differing(look, style?.run) as RunProperties),
      ),
    );
    // A line without words is as high as its last spaces, or else its paragraph, say.
    const empty = runs.length ? {} : differing(pieces.at(-1)?.look ?? this.runProperties(own), style?.run);
    const align = alignOf(own.paragraph["text-align"], isRtl(own)) ?? "start";
    const indents = list === undefined ? styles.indents(own) : (styles.listLevel(list, level)?.properties ?? {});
    const stated: ParagraphProperties = {
      ...styles.paragraphLook(own),
      ...indents,
      ...(kind === "plain" && list !== undefined ? { first: 0 } : {}),
      ...(style?.paragraph?.direction === "rtl" && !isRtl(own) ? { direction: "ltr" } : {}),
    };
    const properties: ParagraphProperties = {
      ...differing({ ...unsaid(style?.paragraph, stated), ...stated }, style?.paragraph),
      ...(Object.keys(empty).length ? { words: empty as RunProperties } : {}),
    };
    return {
      kind,
      level,
      ...(start === undefined ? {} : { start }),
      ...(align === (style?.align ?? "start") ? {} : { align }),
      ...(Object.keys(properties).length ? { properties } : {}),
      runs,
    };
  }

  /** Moves a mark from the runs to their level, where the style sets it and all text of the level has it. */
  private liftMark(text: RichText, mark: "strong" | "emphasis", isSet: (properties: Properties) => boolean): void {
    for (const [level, properties] of this.byLevel.entries()) {
      const runs = text.filter((paragraph) => paragraph.level === level).flatMap((paragraph) => paragraph.runs);
      if (!isSet(properties) || runs.some(({ marks }) => !marks?.includes(mark))) continue;
      this.levels[level] = { ...this.levels[level], [mark]: true };
      for (const [at, paragraph] of text.entries())
        if (paragraph.level === level)
          text[at] = {
            ...paragraph,
            runs: paragraph.runs.map((item) =>
              run(
                item.text,
                (item.marks ?? []).filter((one) => one !== mark),
                item.link,
                item.properties,
              ),
            ),
          };
    }
  }
}

/**
 * Reads a text with the formatting of its file: the style of its levels, from `shape` and, for outlines, the styles
 * named `outline` with a number after; and what its paragraphs and runs set beyond that. A text without words is empty,
 * unless it is wanted for its paragraph properties (`blank`).
 */
export function readStyledText(
  children: readonly XmlNode[],
  reader: TextReader,
  shape: Properties,
  outline?: string,
  blank = false,
): { text: RichText; style: TextStyle } {
  return new StyledTextReader(reader, shape, outline).read(children, blank);
}
