export * from "./families";
export * from "./shape";
