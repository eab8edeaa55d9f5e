export * from "./viewed";
export * from "./write";
