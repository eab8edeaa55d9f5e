import { type Deck, must } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { XML_HEAD, xml } from "../../../shared/xml";
import { namespaces } from "../package/layouts";
import { EMU, emu, NS, REL, TYPE } from "../package/names";
import { type Package, Relationships, relativeTo } from "../package/parts";
import { appProperties, coreProperties } from "./documentproperties";
import type { CommentWriter } from "./comments";

/** Writes the relationships and properties of a new package. */
export function writeRoot(pack: Package, deck: Deck, at: Date): void {
  const root = new Relationships();
  root.add(REL.document, "ppt/presentation.xml");
  root.add(REL.core, "docProps/core.xml");
  root.add(REL.app, "docProps/app.xml");
  pack.parts.set("_rels/.rels", strToU8(root.part()));
  pack.add("docProps/core.xml", TYPE.core, coreProperties(deck, at));
  pack.add("docProps/app.xml", TYPE.app, appProperties(deck));
}

/** What the parts of a presentation without a source package are written from. */
interface PresentationParts {
  deck: Deck;
  pack: Package;
  /** The paths of the slides by id. */
  paths: ReadonlyMap<string, string>;
  masterId: number;
  notesMaster: string;
  comments: CommentWriter;
  tags: string;
}

/** Writes the presentation part of a deck without a source package, and the parts that it needs. */
export function writePresentation({
  deck,
  pack,
  paths,
  masterId,
  notesMaster: notesPath,
  comments,
  tags: tagList,
}: PresentationParts): void {
  const relationships = new Relationships();
  const master = relationships.add(REL.master, "slideMasters/slideMaster1.xml");
  const notesMaster = relationships.add(REL.notesMaster, relativeTo("ppt/presentation.xml", notesPath));
  const slides = deck.slides.map((slide, nth) =>
    xml("p:sldId", {
      id: 256 + nth,
      "r:id": relationships.add(REL.slide, relativeTo("ppt/presentation.xml", must(paths.get(slide.id)))),
    }),
  );
  relationships.add(REL.presProps, "presProps.xml");
  relationships.add(REL.viewProps, "viewProps.xml");
  relationships.add(REL.theme, "theme/theme1.xml");
  relationships.add(REL.tableStyles, "tableStyles.xml");
  comments.writeAuthors(relationships, "ppt/presentation.xml");
  const tags = relationships.add(REL.tags, "tags/tag1.xml");
  pack.add("ppt/tags/tag1.xml", TYPE.tags, tagList);
  const content = xml(
    "p:presentation",
    { ...namespaces, saveSubsetFonts: 1 },
    xml("p:sldMasterIdLst", {}, xml("p:sldMasterId", { id: masterId, "r:id": master })),
    xml("p:notesMasterIdLst", {}, xml("p:notesMasterId", { "r:id": notesMaster })),
    slides.length ? xml("p:sldIdLst", {}, ...slides) : "",
    xml("p:sldSz", { cx: emu(deck.page.width), cy: emu(deck.page.height) }),
    xml("p:notesSz", { cx: 540 * EMU, cy: 720 * EMU }),
    xml("p:custDataLst", {}, xml("p:tags", { "r:id": tags })),
    xml("p:defaultTextStyle", {}, xml("a:defPPr", {}, xml("a:defRPr", { lang: deck.language }))),
  );
  pack.add("ppt/presentation.xml", TYPE.presentation, XML_HEAD + content, relationships);
  pack.add("ppt/presProps.xml", TYPE.presProps, XML_HEAD + xml("p:presentationPr", namespaces));
  pack.add("ppt/viewProps.xml", TYPE.viewProps, XML_HEAD + xml("p:viewPr", namespaces));
  pack.add(
    "ppt/tableStyles.xml",
    TYPE.tableStyles,
    XML_HEAD + xml("a:tblStyleLst", { "xmlns:a": NS.a, def: "{5C22544A-7EE6-4342-B048-85BDC9FD1C3A}" }),
  );
}
