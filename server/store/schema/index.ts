export * from "./people";
export * from "./decks";
export * from "./sharing";
export * from "./jobs";
export * from "./sources";
export * from "./language";
