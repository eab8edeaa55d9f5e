import { escapeXml, type Slide } from "@unitext/core/model";
import { xml } from "../../../shared/xml";

/** The declared texts of footers and dates, to which pages refer by name (OpenDocument 1.3, 9.11). */
export class FooterDeclarations {
  private readonly declarations = new Map<string, { region: "footer" | "date"; name: string; words: string }>();

  /** `footer` is the footer of the deck, empty for none; names begin with `prefix`. */
  constructor(
    private readonly prefix: string,
    private readonly footer: string,
  ) {}

  /** The names of a page's footer declarations. */
  uses(slide: Slide, onMaster: boolean): Record<string, string | undefined> {
    return {
      "presentation:use-footer-name":
        (onMaster ? this.declared("footer", slide) : undefined) ?? (this.footer ? `${this.prefix}footer` : undefined),
      "presentation:use-date-time-name": onMaster ? this.declared("date", slide) : undefined,
    };
  }
  /** Returns the name of the declaration of a slide's footer or date. */
  private declared(region: "footer" | "date", { regions = [] }: Slide): string | undefined {
    const words = regions.find((one) => one.region === region)?.text;
    if (words === undefined) return undefined;
    const key = `${region} ${words}`;
    const name = this.declarations.get(key)?.name ?? `${this.prefix}${region}${this.declarations.size + 1}`;
    this.declarations.set(key, { region, name, words });
    return name;
  }
  /** Writes the footer declarations of all pages (OpenDocument 1.3, 9.11). */
  xml(): string {
    const { footer } = this;
    const own = [...this.declarations.values()].map(({ region, name, words }) =>
      region === "footer"
        ? xml("presentation:footer-decl", { "presentation:name": name }, escapeXml(words))
        : xml(
            "presentation:date-time-decl",
            { "presentation:name": name, "presentation:source": "fixed" },
            escapeXml(words),
          ),
    );
    return (
      (footer
        ? xml("presentation:footer-decl", { "presentation:name": `${this.prefix}footer` }, escapeXml(footer))
        : "") + own.join("")
    );
  }
}
