import type { Direction, Slide } from "@unitext/core/model";
import { xml } from "../../../shared/xml";

/**
 * Writes the transition of a slide (`p:transition`, ECMA-376-1, 19.3.1.50); empty when it has none. In a deck that is read
 * from right to left it moves the other way.
 */
export function transitionXml(
  { transition, delay }: Pick<Slide, "transition" | "delay">,
  direction: Direction,
): string {
  if (!transition && !delay) return "";
  const speed = !transition || transition.seconds <= 0.5 ? "fast" : transition.seconds <= 1 ? "med" : "slow";
  return xml(
    "p:transition",
    { spd: speed, advTm: delay ? Math.round(delay * 1000) : undefined },
    transition
      ? xml(`p:${transition.kind}`, direction === "rtl" && transition.kind !== "fade" ? { dir: "r" } : {})
      : "",
  );
}
