export * from "./write";
