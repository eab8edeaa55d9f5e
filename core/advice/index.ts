export { type Advice, adviceOn } from "./advice";
export type { Finding } from "./check";
export { CHECKS, type CheckName } from "./checks";
export { legibleVeil, type PagePixels } from "./legibility";
export { fitOf, type Misfit, type Remedy, type SlideFit } from "./fit";
