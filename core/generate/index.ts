export * from "./generate";
export { match, reconcile } from "./reconcile";
