export * from "./balance";
export * from "./report";
export * from "./tally";
