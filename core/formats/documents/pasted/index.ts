export { type Pasted, readPasted } from "./read";
