export * from "./database";
export * from "./append";
export * from "./decks";
export * from "./documents";
export * from "./history";
export * from "./jobs";
export * as schema from "./schema";
export * from "./users";
