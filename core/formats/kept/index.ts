export * from "./element";
export * from "./special";
export * from "./nesting";
export * from "./file";
