export { odpLots, readOdp } from "./read";
export { writeOdp } from "./write";
