export { COMMANDS, type CommandName, keyOf } from "./commands";
export { KeyList } from "./KeyList";
export { menuAct, Tool } from "./Tool";
export { activeCommands, typing, useCommands } from "./useCommands";
