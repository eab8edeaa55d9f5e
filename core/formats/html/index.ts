export { htmlEncoding, readHtml } from "./read";
