export {
  type BindRequest,
  type Bound,
  bindCells,
  fittingUse,
  putOnSlide,
  slideWithBound,
  withBoundContent,
  withLineValue,
} from "./bind";
export { chartData, chartTypeFor, headingRows } from "./build";
export { compareWorkbooks, type WorkbookChanges } from "./differences";
export { readCsvWorkbook, readTypedRows, writeCsv } from "./csv";
export { cellText, formatContent, isDateCode } from "./format";
export { findCells } from "./find";
export { followAddress, headersOf } from "./headers";
export { openWorkbook } from "./open";
export {
  type BindingCheck,
  type BindingState,
  checkBindings,
  isOutOfDate,
  type RefreshContext,
  refreshDeck,
  shownBy,
  type SourceAtHand,
  type TakeChoice,
  withBindingAt,
} from "./refresh";
export { CHART, type ResolvedRange, resolveRange, type UnresolvedRange } from "./resolve";
export { isoOf, serialOf } from "./serial";
export { outdatedNumbers, type TypedNumber, typedNumbers } from "./typed";
export { MOST_BOUND, takeRange, type TakenCell, boundValue } from "./take";
export {
  CellProblem,
  type CellContent,
  type DefinedName,
  NO_RESULT,
  type Sheet,
  type SheetChart,
  type SheetInfo,
  type SheetTable,
  sheetNamed,
  type Workbook,
} from "./workbook";
