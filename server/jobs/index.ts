export { fileNameOf } from "./names";
export { Jobs } from "./queue";
