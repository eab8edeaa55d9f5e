export * from "./report";
export * from "./tally";
