export type { FormatDescriptor } from "./descriptor";
export { FEATURES, type FeatureName, inGroups } from "./found";
export * from "./verdicts";
