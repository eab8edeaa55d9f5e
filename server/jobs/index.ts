export { runFilm } from "./film";
export { fileNameOf } from "./names";
export { Jobs } from "./queue";
export {
  fetchAgain,
  pollAddresses,
  previewWorkbook,
  receiveAddress,
  receiveTyped,
  receiveWorkbook,
  rereadSource,
  watchFolder,
} from "./receive";
