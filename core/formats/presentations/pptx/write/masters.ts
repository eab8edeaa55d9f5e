import { designMaster } from "@unitext/core/layout";
import { type ArrangementName, type Master, must, newSlide, type Slide } from "@unitext/core/model";
import { XML_HEAD, xml } from "../../../shared/xml";
import { ARRANGEMENT_ORDER, GROUP, layoutPart, masterPart, namespaces } from "../package/layouts";
import { REL, TYPE } from "../package/names";
import { Relationships, relativeTo } from "../package/parts";
import { slideShapes } from "./slideshapes";
import { themePart } from "./theme";
import { backgroundXml } from "./background";
import type { SlideWork } from "./slidework";

/** The master of the deck and its layouts, once they are written. */
export interface WrittenMaster {
  path: string;
  id: number;
  /** The paths of the layouts by arrangement, in the order of `ARRANGEMENT_ORDER`. */
  layouts: string[];
  /** The paths of layouts that replace masters of other formats, by the master's name. */
  drawn: ReadonlyMap<string, string>;
}

interface MasterWork extends Omit<SlideWork, "path" | "relationships" | "number"> {
  /** Whether the package is an updated one, in which names may be taken. */
  isUpdate: boolean;
  /** An id for the master that no other master or layout has. */
  id: number;
}

/** Writes the deck's own master with a layout for each arrangement and each master of another format in `names`. */
export function writeMaster(work: MasterWork, names: readonly string[]): WrittenMaster {
  const { pack, metadata, options, isUpdate, id } = work;
  const master = pack.free("ppt/slideMasters/slideMaster1.xml");
  pack.put(master, TYPE.master, new Uint8Array());
  const theme = pack.free("ppt/theme/theme1.xml");
  pack.add(theme, TYPE.theme, themePart(metadata.theme));
  const own = new Relationships();
  const layouts = ARRANGEMENT_ORDER.map((arrangement, nth) => {
    const path = pack.free(`ppt/slideLayouts/slideLayout${isUpdate ? 1 : nth + 1}.xml`);
    const layout = new Relationships();
    layout.add(REL.master, relativeTo(path, master));
    const design = designXml(arrangement, { ...work, path, relationships: layout });
    pack.add(path, TYPE.layout, layoutPart(arrangement, metadata, options.fonts, design), layout);
    own.add(REL.layout, relativeTo(master, path));
    return path;
  });
  const drawn = new Map<string, string>();
  for (const name of names) {
    const path = pack.free(`ppt/slideLayouts/slideLayout${isUpdate ? 1 : ARRANGEMENT_ORDER.length + 1}.xml`);
    pack.put(path, TYPE.layout, new Uint8Array());
    const layout = new Relationships();
    layout.add(REL.master, relativeTo(path, master));
    pack.add(
      path,
      TYPE.layout,
      drawnLayout(must(metadata.masters?.[name]), { ...work, path, relationships: layout }),
      layout,
    );
    own.add(REL.layout, relativeTo(master, path));
    drawn.set(name, path);
  }
  own.add(REL.theme, relativeTo(master, theme));
  const part = masterPart(metadata, id + 1, ARRANGEMENT_ORDER.length + names.length, options.fonts);
  pack.add(master, TYPE.master, part, own);
  return { path: master, id, layouts, drawn };
}

/** Writes what the design of the theme draws behind slides of an arrangement: background and shapes. */
function designXml(arrangement: ArrangementName, work: SlideWork): { background: string; shapes: string } {
  const { background, elements } = designMaster(arrangement, work.metadata);
  const slide: Slide = { ...newSlide("layout", "blank"), elements };
  return { background: backgroundXml(background, work), shapes: slideShapes(work, slide, 1, () => undefined).shapes };
}

/** Writes a master of another format as a layout without what the design draws. */
function drawnLayout({ name, background, elements }: Master, work: SlideWork): string {
  const slide: Slide = { id: "layout", parent: null, arrangement: "blank", elements, notes: [], hidden: false };
  const { shapes } = slideShapes(work, slide, 1, () => undefined);
  return (
    XML_HEAD +
    xml(
      "p:sldLayout",
      { ...namespaces, showMasterSp: 0, preserve: 1, userDrawn: 1 },
      xml("p:cSld", { name: name || "Drawn" }, backgroundXml(background, work), xml("p:spTree", {}, GROUP, shapes)),
      "<p:clrMapOvr><a:masterClrMapping/></p:clrMapOvr>",
    )
  );
}
