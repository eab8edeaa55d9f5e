export { scanXml } from "./scan";
export * from "./xml";
export * from "./zip";
