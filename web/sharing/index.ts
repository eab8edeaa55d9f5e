export { RIGHT_WORDS, type SharedThing } from "./rights";
