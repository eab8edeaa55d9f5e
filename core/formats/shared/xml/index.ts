export * from "./scan";
export * from "./xml";
