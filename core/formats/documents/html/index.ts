export * from "./read";
