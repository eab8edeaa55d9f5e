import type { Deck } from "@unitext/core/model";
import { partText } from "../../../shared/archive";
import { childrenOf, readXml } from "../../../shared/xml";
import { fromPptx, type SourcePackage } from "../../../shared/sourcepackage";
import { REL } from "../package/names";
import { resolveTarget, transitional } from "../package/package";
import { relationshipsPath } from "../package/parts";
import { openSourceParts } from "../patch/sourceparts";

/** A workbook inside the file that slides were read from: of a chart, or embedded as an object. */
export interface EmbeddedWorkbook {
  /** The number of the slide, from 1. */
  slide: number;
  slideId: string;
  /** Its path in the file, and its name there. */
  path: string;
  name: string;
  bytes: Uint8Array;
}

/** The parts that a part refers to inside the file, by type. */
function related(file: SourcePackage, path: string): { type: string; target: string }[] {
  const bytes = file.bytes(relationshipsPath(path));
  if (!bytes) return [];
  return childrenOf(readXml(partText(bytes), relationshipsPath(path)), "Relationship").flatMap(({ attributes }) =>
    attributes.TargetMode === "External"
      ? []
      : [{ type: transitional(attributes.Type ?? ""), target: resolveTarget(path, attributes.Target ?? "") }],
  );
}

const WORKBOOK = /\.xls[xm]$/i;

/**
 * Lists the workbooks of charts and embedded objects on the slides of a deck that came from a .pptx. Links to files
 * outside are not followed.
 */
export function embeddedWorkbooks(deck: Deck, picture: (sha256: string) => Uint8Array | undefined): EmbeddedWorkbook[] {
  const files = new Map<string, SourcePackage | undefined>();
  return deck.slides.flatMap((slide, nth): EmbeddedWorkbook[] => {
    const { sourcePart } = slide;
    if (!sourcePart || !fromPptx(slide)) return [];
    const asset = deck.assets[sourcePart.file];
    if (!files.has(sourcePart.file))
      files.set(sourcePart.file, openSourceParts(sourcePart.file, asset && picture(asset.sha256), picture));
    const file = files.get(sourcePart.file);
    if (!file) return [];
    const direct = related(file, sourcePart.part);
    const inCharts = direct.filter(({ type }) => type === REL.chart).flatMap(({ target }) => related(file, target));
    const paths = new Set([...direct, ...inCharts].map(({ target }) => target).filter((path) => WORKBOOK.test(path)));
    return [...paths].flatMap((path) => {
      const bytes = file.bytes(path);
      const name = path.slice(path.lastIndexOf("/") + 1);
      return bytes ? [{ slide: nth + 1, slideId: slide.id, path, name, bytes }] : [];
    });
  });
}
