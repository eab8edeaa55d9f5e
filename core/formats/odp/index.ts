export { readOdp } from "./read";
export { writeOdp } from "./write";
