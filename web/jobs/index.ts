export { arrivalOf, cancelJob, isOpen, isPlain, JobLine, JobLines, jobProgress, dismissJobs } from "./JobLine";
export { BalanceTable, Outcome } from "./Outcome";
export { noteReading, useJobList, useJobs } from "./useJobs";
export { useRefusal } from "./useRefusal";
