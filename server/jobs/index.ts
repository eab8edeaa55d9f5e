export { fileNameOf } from "./names";
export { Jobs } from "./queue";
export { receiveWorkbook, watchFolder } from "./receive";
