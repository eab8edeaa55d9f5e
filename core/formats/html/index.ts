export { htmlEncoding, readHtml } from "./read";
export { writeHtml } from "./write";
