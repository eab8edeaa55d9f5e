export * from "./database";
export * from "./decks";
export * as schema from "./schema";
export * from "./users";
