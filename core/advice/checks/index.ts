import type { Check } from "../check";
import { contrastCheck } from "./contrast";
import { motion } from "./motion";
import { overflow } from "./overflow";
import { coarse, description, stretched } from "./pictures";
import { points } from "./points";
import { size } from "./size";
import { sizes } from "./sizes";
import { noTitle, sameTitle } from "./titles";
import { words } from "./words";

/** The checks, in the order of their weight. */
export const CHECKS = {
  overflow,
  contrast: contrastCheck,
  size,
  words,
  points,
  stretched,
  coarse,
  description,
  "no-title": noTitle,
  "same-title": sameTitle,
  sizes,
  motion,
} as const satisfies Record<string, Check>;
export type CheckName = keyof typeof CHECKS;
