import { type DeckMetadata, type Footnote, type Slide, must } from "@unitext/core/model";
import { XML_HEAD, xml } from "../../../shared/xml";
import { flattenRuns, footnoteText } from "../../../shared/sourcepackage";
import type { SourceParts } from "../patch/sourceparts";
import { GROUP, namespaces, notesMasterPart, placeholderShape } from "../package/layouts";
import { REL, TYPE } from "../package/names";
import { type Package, Relationships, relativeTo } from "../package/parts";
import { paragraphsXml, type PartTextContext } from "./text";
import { themePart } from "./theme";
import { linker } from "./slidework";

/** Writes the notes of slides under the notes master of the presentation. */
export class NotesWriter {
  private path: string | undefined;

  /** `base` is the package that is updated; `main` returns the path of its presentation part. */
  constructor(
    private readonly pack: Package,
    private readonly metadata: DeckMetadata,
    private readonly paths: ReadonlyMap<string, string>,
    private readonly base: SourceParts | undefined,
    private readonly main: string,
  ) {}

  /** The path of the notes master, as far as notes needed it. */
  get masterPath(): string | undefined {
    return this.path;
  }

  /** Returns the notes master of the presentation: that of the updated package, else one of its own. */
  master(): string {
    if (this.path !== undefined) return this.path;
    const given = this.base?.related(this.main, "notesMaster");
    const taken = given === undefined ? undefined : this.base?.take(given);
    if (taken !== undefined) return (this.path = taken);
    const { pack } = this;
    const path = pack.free("ppt/notesMasters/notesMaster1.xml");
    pack.put(path, TYPE.notesMaster, new Uint8Array());
    const theme = pack.free("ppt/theme/theme2.xml");
    pack.add(theme, TYPE.theme, themePart(this.metadata.theme));
    const relationships = new Relationships();
    relationships.add(REL.theme, relativeTo(path, theme));
    pack.add(path, TYPE.notesMaster, notesMasterPart(), relationships);
    return (this.path = path);
  }

  /** Writes the notes of a slide as they were in its file, under the notes master of the presentation. */
  keep(kept: SourceParts, notes: string, part: string, path: string): void {
    const master = kept.related(notes, "notesMaster");
    if (master !== undefined && kept !== this.base) kept.instead.set(master, this.master());
    const first = kept.instead.get(part);
    kept.instead.set(part, path);
    kept.take(notes);
    if (first !== undefined) kept.instead.set(part, first);
  }

  /** Writes the notes of a slide to a path. */
  write(slide: Slide, path: string): void {
    const { metadata } = this;
    const links = new Relationships();
    links.add(REL.notesMaster, relativeTo(path, this.master()));
    links.add(REL.slide, relativeTo(path, must(this.paths.get(slide.id))));
    const context: PartTextContext = {
      language: metadata.language,
      linkColour: metadata.theme.colours.link,
      codeFont: metadata.theme.fonts.code,
      size: 12,
      em: 12,
      bulleted: false,
      link: linker(links, this.paths, path),
    };
    const footnotes: Footnote[] = [];
    const flat = flattenRuns(slide.notes, footnotes);
    const spoken = footnotes.length ? [...flat, ...footnoteText(footnotes)] : flat;
    const picture =
      '<p:sp><p:nvSpPr><p:cNvPr id="2" name="Slide"/><p:cNvSpPr><a:spLocks noGrp="1" noRot="1" noChangeAspect="1"/></p:cNvSpPr><p:nvPr><p:ph type="sldImg"/></p:nvPr></p:nvSpPr><p:spPr/></p:sp>';
    const body = placeholderShape(
      3,
      "Notes",
      { type: "body", idx: 3 },
      `<a:lstStyle/>${paragraphsXml(spoken, context)}`,
    );
    this.pack.add(
      path,
      TYPE.notes,
      XML_HEAD +
        xml(
          "p:notes",
          namespaces,
          xml("p:cSld", {}, xml("p:spTree", {}, GROUP, picture, body)),
          "<p:clrMapOvr><a:masterClrMapping/></p:clrMapOvr>",
        ),
      links,
    );
  }
}
