export * from "./base64";
export * from "./zip";
