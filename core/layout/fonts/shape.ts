import { must } from "@unitext/core/model";
import { Blob, Buffer, Direction, Face, Feature, Font, MetricsTag, shape } from "harfbuzzjs";

/**
 * A word shaped in one face, in em: glyphs in visual order with their positions, and for every UTF-16 index the advance
 * up to it in reading order.
 */
export interface ShapedWord {
  glyphs: Uint16Array;
  advances: Float32Array;
  offsets: Float32Array | null;
  clusters: Uint16Array;
  /** Length of the word plus one; the last is the word's width. */
  upTo: Float32Array;
  width: number;
}

/** Vertical measures of a face, in em, upwards positive. */
export interface FaceMetrics {
  ascent: number;
  descent: number;
  /** The distance between lines: ascent, descent and line gap of the font. */
  line: number;
}

const WORDS_KEPT = 30000;

/** Code is shown as typed: monospaced faces draw no ligatures. */
const LIGATURES_OFF = ["liga", "clig", "calt", "dlig"];
/** Whether text in a face is shaped with ligatures; code is not. */
export function drawsLigatures(face: string): boolean {
  return !face.startsWith("jetbrains-mono");
}

/** A face opened for shaping. Shaped words are cached. */
export class ShapingFace {
  readonly metrics: FaceMetrics;
  private readonly font: Font;
  private readonly em: number;
  private readonly buffer = new Buffer();
  private readonly features: Feature[] | undefined;
  private readonly caches = new Map<string, { ltr: Map<string, ShapedWord>; rtl: Map<string, ShapedWord> }>();

  constructor(
    readonly id: string,
    readonly bytes: Uint8Array,
  ) {
    const face = new Face(new Blob(bytes));
    this.font = new Font(face);
    this.em = face.upem;
    const { ascender, descender, lineGap } = this.font.hExtents();
    this.features = drawsLigatures(id) ? undefined : LIGATURES_OFF.map((tag) => new Feature(tag, 0));
    this.metrics = {
      ascent: this.font.getMetricPositionWithFallback(MetricsTag.HORIZONTAL_ASCENDER) / this.em,
      descent: -this.font.getMetricPositionWithFallback(MetricsTag.HORIZONTAL_DESCENDER) / this.em,
      line: (ascender - descender + lineGap) / this.em,
    };
  }

  /** Shapes text of one direction without spaces inside, or spaces alone. */
  word(text: string, rightToLeft: boolean, language: string): ShapedWord {
    const cache = this.cache(language)[rightToLeft ? "rtl" : "ltr"];
    const known = cache.get(text);
    if (known) return known;
    if (cache.size >= WORDS_KEPT) cache.clear();
    const shaped = this.shape(text, rightToLeft, language);
    cache.set(text, shaped);
    return shaped;
  }

  /** Fonts may draw a letter differently by language, so each language has its own cache. */
  private cache(language: string) {
    const known = this.caches.get(language);
    if (known) return known;
    const fresh = { ltr: new Map<string, ShapedWord>(), rtl: new Map<string, ShapedWord>() };
    this.caches.set(language, fresh);
    return fresh;
  }

  private shape(text: string, rightToLeft: boolean, language: string): ShapedWord {
    const { buffer } = this;
    buffer.reset();
    buffer.addText(text);
    buffer.guessSegmentProperties();
    buffer.setDirection(rightToLeft ? Direction.RTL : Direction.LTR);
    buffer.setLanguage(language);
    shape(this.font, buffer, this.features);
    const infos = buffer.getGlyphInfos();
    const positions = buffer.getGlyphPositions();
    const count = infos.length;
    const glyphs = new Uint16Array(count);
    const advances = new Float32Array(count);
    const clusters = new Uint16Array(count);
    const offsets = new Float32Array(count * 2);
    const perChar = new Float32Array(text.length + 1);
    let moved = false;
    let width = 0;
    for (let at = 0; at < count; at++) {
      const info = must(infos[at]);
      const position = must(positions[at]);
      const advance = position.xAdvance / this.em;
      glyphs[at] = info.codepoint;
      clusters[at] = info.cluster;
      advances[at] = advance;
      offsets[at * 2] = position.xOffset / this.em;
      offsets[at * 2 + 1] = position.yOffset / this.em;
      moved ||= position.xOffset !== 0 || position.yOffset !== 0;
      perChar[info.cluster] = (perChar[info.cluster] ?? 0) + advance;
      width += advance;
    }
    const upTo = new Float32Array(text.length + 1);
    for (let at = 0; at < text.length; at++) upTo[at + 1] = (upTo[at] ?? 0) + (perChar[at] ?? 0);
    return { glyphs, advances, offsets: moved ? offsets : null, clusters, upTo, width };
  }

  /** Returns the outline of a glyph as SVG path data in font units, y upwards, and the units in an em. */
  outline(glyph: number): { path: string; em: number } {
    return { path: this.font.glyphToPath(glyph), em: this.em };
  }
}

/** Returns the bytes (TrueType or OpenType) of a shipped face. */
export type FaceBytes = (id: string) => Uint8Array;

/** The faces that have been used, each opened once. */
export class FontSet {
  private readonly faces = new Map<string, ShapingFace>();
  constructor(private readonly bytes: FaceBytes) {}

  /** Returns a face. Throws what `bytes` throws when it is missing. */
  face(id: string): ShapingFace {
    const known = this.faces.get(id);
    if (known) return known;
    const opened = new ShapingFace(id, this.bytes(id));
    this.faces.set(id, opened);
    return opened;
  }
}
