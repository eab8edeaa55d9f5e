import type { Background } from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import { coverOf } from "../../../shared/sourcepackage";
import { fillXml } from "./drawing";
import { type SlideWork, embedded } from "./slidework";

const out = (share: number) => (share ? -Math.round(share * 100000) : undefined);

/** Writes the background of a slide that has its own. */
export function backgroundXml(background: Background | undefined, work: SlideWork): string {
  if (!background) return "";
  const fill = (inner: string) => `<p:bg><p:bgPr>${inner}<a:effectLst/></p:bgPr></p:bg>`;
  if ("colour" in background)
    return fill(xml("a:solidFill", {}, xml("a:srgbClr", { val: background.colour.slice(1).toUpperCase() })));
  // A veil is written as transparency: most programs show white behind a transparent background picture.
  const whole =
    "fill" in background
      ? background.fill
      : {
          kind: "picture" as const,
          source: background.picture,
          ...(background.veil ? { opacity: 1 - background.veil } : {}),
        };
  if (whole.kind === "picture" && embedded(work, whole.source) === undefined) return "";
  const drawn = fillXml(whole, (source) => embedded(work, source));
  // A picture that covers the page extends beyond it on two sides (ECMA-376-1, 20.1.8.30: negative values are outside).
  const { across, down } =
    "picture" in background
      ? coverOf(work.metadata.assets[background.picture], work.metadata.page)
      : { across: 0, down: 0 };
  return fill(
    across || down
      ? drawn.replace(
          "<a:fillRect/>",
          xml("a:fillRect", { l: out(across), t: out(down), r: out(across), b: out(down) }),
        )
      : drawn,
  );
}
