export { KeyList } from "./KeyList";
export { typing, useCommands } from "./useCommands";
