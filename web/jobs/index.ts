export { cancelJob, isOpen, isPlain, JobLine, JobLines, jobProgress, takeOff } from "./JobLine";
export { useJobs } from "./useJobs";
