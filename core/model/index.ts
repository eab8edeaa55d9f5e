export * from "./arrangement";
export * from "./deck";
export * from "./failure";
export * from "./read";
export * from "./richtext";
export * from "./theme";
export * from "./units";
