export * from "./cover";
export * from "./drawings";
export * from "./element";
export * from "./special";
export * from "./nesting";
export * from "./file";
export * from "./worn";
