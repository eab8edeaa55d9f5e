export { cancelJob, isOpen, JobLine, jobProgress } from "./JobLine";
export { useJobs } from "./useJobs";
