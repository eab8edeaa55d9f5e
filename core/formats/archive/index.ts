export * from "./xml";
export * from "./zip";
