export { odpWorkbooks } from "./read/embeddedworkbooks";
export { odpBatches, readOdp } from "./read/read";
export { writeOdp } from "./write/write";
