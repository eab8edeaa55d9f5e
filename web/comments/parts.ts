/** The parts of comments that need no open deck. */
export type { CommentActs } from "./acts";
export { Composer } from "./Composer";
export { Thread } from "./Thread";
