export { withQuoteMarked } from "./quotes";
export { SlideComments } from "./SlideComments";
