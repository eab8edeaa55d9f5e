import type { Deck } from "@unitext/core/model";
import { partText } from "../../../shared/archive";
import { childrenOf, readXml } from "../../../shared/xml";
import { fromPptx, type SourcePackage } from "../../../shared/sourcepackage";
import { type EmbeddedWorkbook, nameInAddress } from "../../shared/workbooks";
import { REL } from "../package/names";
import { resolveTarget, transitional } from "../package/package";
import { relationshipsPath } from "../package/parts";
import { openSourceParts } from "../patch/sourceparts";

/** A part that another refers to, inside the file or outside. */
interface Related {
  type: string;
  target: string;
  external: boolean;
}

/** Returns what a part refers to. */
function related(file: SourcePackage, path: string): Related[] {
  // Addresses outside are taken out of what is written again.
  const bytes = file.original(relationshipsPath(path));
  if (!bytes) return [];
  return childrenOf(readXml(partText(bytes), relationshipsPath(path)), "Relationship").map(
    ({ attributes: { TargetMode, Type = "", Target = "" } }) => ({
      type: transitional(Type),
      target: TargetMode === "External" ? Target : resolveTarget(path, Target),
      external: TargetMode === "External",
    }),
  );
}

const WORKBOOK = /\.xls[xm]$/i;

/** The relationships by which charts and objects have their workbook outside (ECMA-376-1, 15.2). */
const OUTSIDE = /\/(?:oleObject|package|externalLink|externalLinkPath)$/;

/**
 * Lists the workbooks of charts and embedded objects on the slides of a deck that came from a .pptx. Those outside are
 * named and never opened.
 */
export function pptxWorkbooks(deck: Deck, picture: (sha256: string) => Uint8Array | undefined): EmbeddedWorkbook[] {
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
    const charts = direct.filter(({ type, external }) => type === REL.chart && !external);
    const all = [...direct, ...charts.flatMap(({ target }) => related(file, target))];
    const inside = new Set(
      all.filter(({ external, target }) => !external && WORKBOOK.test(target)).map(({ target }) => target),
    );
    const outside = new Set(
      all.filter(({ external, type }) => external && OUTSIDE.test(type)).map(({ target }) => target),
    );
    const at = { slide: nth + 1, slideId: slide.id };
    return [
      ...[...inside].flatMap((path) => {
        const bytes = file.bytes(path);
        return bytes ? [{ ...at, path, name: nameInAddress(path), bytes }] : [];
      }),
      ...[...outside].map((path) => ({ ...at, path, name: nameInAddress(path), bytes: undefined })),
    ];
  });
}
