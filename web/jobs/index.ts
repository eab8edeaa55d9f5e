export { arrivalOf, cancelJob, isOpen, isPlain, JobLine, JobLines, jobProgress } from "./JobLine";
export { BalanceTable, Outcome } from "./Outcome";
export { useArrival } from "./useArrival";
export { noteReading, useJobs } from "./useJobs";
export { useRefusal } from "./useRefusal";
