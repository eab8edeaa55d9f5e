export { fileNameOf } from "./names";
export { Jobs } from "./queue";
export { fetchAgain, pollAddresses, receiveAddress, receiveWorkbook, watchFolder } from "./receive";
