export * from "./key";
export * from "./mail";
export * from "./passwords";
export * from "./secondfactor";
export * from "./throttle";
