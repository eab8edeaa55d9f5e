export * from "./colours";
export type * from "./design";
export { DESIGNS } from "./designs";
export * from "./fontpairings";
export { DESIGN_NAMES } from "./names";
export * from "./theme";
export * from "./themes";
