import type { Order, TaskName } from "./tasks";

/** Quick tasks have slots of their own, so that typed text never waits for somebody's long import or export. */
export type Lane = "quick" | "long";

/** Limits of one task: seconds, bytes of memory in use by its process, bytes of its result. */
export interface Bounds {
  lane: Lane;
  seconds: number;
  memory: number;
  output: number;
}

const MB = 1024 * 1024;
const QUICK: Bounds = { lane: "quick", seconds: 30, memory: 1024 * MB, output: 256 * MB };
const LONG: Bounds = { lane: "long", seconds: 300, memory: 1792 * MB, output: 1024 * MB };

/** Larger input is long work, whatever the task. */
const LARGE = MB;

const BY_TASK: Record<TaskName, Bounds> = {
  text: QUICK,
  file: QUICK,
  typed: QUICK,
  picture: QUICK,
  report: QUICK,
  drawSlide: QUICK,
  viewSlide: QUICK,
  body: QUICK,
  document: { ...LONG, seconds: 120 },
  pages: LONG,
  speak: { ...LONG, seconds: 120 },
  filmTools: { ...QUICK, seconds: 10 },
  filmHashes: LONG,
  filmFrames: LONG,
  write: LONG,
  archive: LONG,
  unpack: LONG,
  workbook: { ...LONG, seconds: 120 },
  differences: { ...LONG, seconds: 120 },
  cells: { ...LONG, seconds: 120 },
  cellsLike: { ...QUICK, seconds: 10 },
  bind: { ...LONG, seconds: 120 },
  refresh: { ...LONG, seconds: 120 },
  refreshDecks: { ...LONG, seconds: 120 },
  repeated: { ...LONG, seconds: 120 },
  newTranslation: LONG,
  proposePoints: LONG,
  pairedSegments: QUICK,
  takeTargets: QUICK,
  alignDecks: { ...LONG, seconds: 120 },
  openSources: QUICK,
  segmentFile: QUICK,
  segmentStates: QUICK,
  readExchange: { ...LONG, seconds: 120 },
  inWordsOf: QUICK,
  rankProposals: QUICK,
  readMemory: { ...LONG, seconds: 120 },
  writeMemory: { ...LONG, seconds: 120 },
  inside: { ...LONG, seconds: 120 },
};

/** Returns the limits of an order by the size of its input in bytes. */
export function boundsOf(order: Exclude<Order, { kind: "warm" }>, size: number): Bounds {
  if (order.kind === "read") return LONG;
  const bounds = BY_TASK[order.name];
  return bounds.lane === "quick" && size > LARGE && order.name !== "body" ? { ...LONG, seconds: 120 } : bounds;
}

/**
 * How many processes work at once in a lane, and how many of them for one user; how many orders of one user may wait.
 */
export const SLOTS: Record<Lane, { all: number; each: number }> = {
  quick: { all: 4, each: 2 },
  long: { all: 4, each: 2 },
};
export const MOST_WAITING = 100;
